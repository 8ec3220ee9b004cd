import { severityPlace } from "../prediction/hypothesis.js";
import { Predictor } from "../prediction/predictor.js";
import type { ReadingEvidence } from "./evidence.js";
import { distance } from "./likelihood.js";
import { logMean } from "./maths.js";
import type { CloserFit, MixtureComponent, Way } from "./posterior.js";
import { logOfAll, type PredictedReading } from "./readTogether.js";
import { placeName, readingName } from "./readingWeights.js";

/**
 * Draws for a closer look, on machines of up to so many points; on larger ones fewer, and none where so few would tell
 * nothing. Judgement: time.
 */
const DRAWS = 48;
const POINTS = 250;
const LEAST_DRAWS = 16;
/** Draws by which it is told how far a severity moves a reading. Judgement: time. */
const STEP_DRAWS = 8;
/** Severities of a hypothesis that are looked at, those that weigh most. Judgement: time. */
const MOST_PLACES = 2;
/** From there on it is looked at so many steps further, as long as it gets better. Judgement: time. */
const MOST_UPWARD = 4;
/** Draws of its own, so that it is no second look at the same few guesses. */
const SEED = 5;

const looks = new WeakMap<Predictor, CloserLook>();

/**
 * The few hypotheses that a verdict is between, in many draws of what is not known. The few draws in which everything
 * is predicted may all miss what is true of this machine, or none have it for all readings at once; that would be held
 * against the truth, and a second fault be taken for real that only stands in for it.
 */
export class CloserLook {
  private readonly many: Predictor;
  private readonly fits = new Map<string, number>();
  /** what was predicted, by point and by place of the reading */
  private readonly values = new Map<string, Map<string, Pick<PredictedReading, "values" | "steps">>>();
  /** faults that were looked at, by their numbers */
  private readonly seen = new Set<string>();

  private constructor(
    private readonly predictor: Predictor,
    draws: number,
  ) {
    this.many = new Predictor(predictor.wiring, SEED, draws, Infinity);
  }

  /** @returns undefined of a machine too large to be predicted in many draws */
  static at(predictor: Predictor): CloserLook | undefined {
    const known = looks.get(predictor);
    if (known) return known;
    const draws = Math.min(DRAWS, Math.floor((DRAWS * POINTS) / predictor.points.length));
    if (draws < LEAST_DRAWS) return undefined;
    const look = new CloserLook(predictor, draws);
    looks.set(predictor, look);
    return look;
  }

  /** @returns undefined where nothing was looked at */
  static before(predictor: Predictor): CloserLook | undefined {
    return looks.get(predictor);
  }

  /** Forgets what was made for sets of faults where there is too much of it. */
  makeRoom(): void {
    this.many.makeRoom();
    if (this.fits.size > MOST_FITS) this.fits.clear();
    if (this.values.size > MOST_POINTS) this.values.clear();
  }

  /**
   * How well a hypothesis, in one way of showing itself, explains all readings together.
   * @param places of its severities
   */
  fit(way: Way, places: Iterable<number>, readings: readonly ReadingEvidence[]): CloserFit {
    const { misplaced } = way;
    const taken = misplaced ? readings.map((e) => misplaced.moved(e)) : readings;
    return new Map([...places].map((p) => [p, this.fitAt(way, p, taken)]));
  }

  /**
   * The same of one fault from some of its severities on: where few draws are not like this machine, they make most of
   * a severity that makes up for it, and a closer look finds another next to it.
   */
  fitUpward(way: Way, places: Iterable<number>, readings: readonly ReadingEvidence[]): CloserFit {
    const fit = new Map(this.fit(way, places, readings));
    const { faults, severities } = this.predictor.hypotheses[way.hypothesis]!;
    if (faults.length !== 1) return fit;
    for (let step = 0; step < MOST_UPWARD; step++) {
      const [top] = [...fit].reduce((a, b) => (b[1] > a[1] ? b : a));
      const next = [top - 1, top + 1].filter((p) => p >= 0 && p < severities.length && !fit.has(p));
      if (next.length === 0) break;
      for (const [place, own] of this.fit(way, next, readings)) fit.set(place, own);
    }
    return fit;
  }
  private fitAt({ hypothesis, presence }: Way, place: number, readings: readonly ReadingEvidence[]): number {
    const at = this.pointOf(hypothesis, place);
    const key = `${at.name} ${presence} | ${readings.map(readingName).join(" & ")}`;
    let fit = this.fits.get(key);
    if (fit === undefined) {
      this.seen.add(at.members.join(" "));
      const there = readings.map((e) => this.predicted(at, e));
      fit = presence === 1 ? this.logOf(there) : this.logOfGoing(there, presence);
      this.fits.set(key, fit);
    }
    return fit;
  }
  private logOf(predicted: readonly PredictedReading[]): number {
    return logOfAll(predicted, this.predictor.wiring.nominalVolt);
  }
  /**
   * A fault that comes and goes was there at some readings and not at others. Each reading is first taken with the
   * fault or without it, whichever explains it better, and all are weighed together so. What the other way would add is
   * then added for each reading by itself.
   */
  private logOfGoing(present: readonly PredictedReading[], presence: number): number {
    let log = 0;
    const taken = present.map((one) => {
      // a sound machine has no severity to move along
      const sound = {
        ...this.predicted(SOUND, one.reading),
        steps: one.steps.map(([below]) => [below, below] as const),
      };
      const [there, away] = [this.logOf([one]), this.logOf([sound])];
      const shown = one.reading.caught ?? presence;
      const isThere = Math.log(shown) + there >= Math.log(1 - shown) + away;
      log += logSum(Math.log(shown) + there, Math.log(1 - shown) + away) - (isThere ? there : away);
      return isThere ? one : sound;
    });
    return log + this.logOf(taken);
  }

  /**
   * How far a reading is from what a component that was looked at predicts, standard deviations: nothing where it lies
   * within all draws. @returns undefined where it was not looked at
   */
  misfit({ hypothesis, weights, presence, misplaced }: MixtureComponent, e: ReadingEvidence): number | undefined {
    const at = this.pointOf(hypothesis, heaviestPlaces(weights, this.predictor.draws)[0]!);
    if (!this.seen.has(at.members.join(" "))) return undefined;
    const taken = misplaced ? misplaced.moved(e) : e;
    const there = misfitOf(this.predicted(at, taken));
    return presence === 1 ? there : Math.min(there, misfitOf(this.predicted(SOUND, taken)));
  }

  private predicted(at: Point, reading: ReadingEvidence): PredictedReading {
    let known = this.values.get(at.name);
    if (!known) this.values.set(at.name, (known = new Map()));
    const name = placeName(reading);
    let own = known.get(name);
    if (!own) {
      own = {
        values: this.valuesAt(at.members, at.places, reading, this.many.draws),
        steps: at.around.map(([below, above]): [Float64Array, Float64Array] => [
          this.valuesAt(at.members, below, reading, STEP_DRAWS),
          this.valuesAt(at.members, above, reading, STEP_DRAWS),
        ]),
      };
      known.set(name, own);
    }
    return { reading, ...own };
  }
  private valuesAt(
    members: readonly number[],
    places: readonly number[],
    e: ReadingEvidence,
    draws: number,
  ): Float64Array {
    const { many } = this;
    const h =
      members.length === 0
        ? 0
        : many.combine(
            members,
            places.map((p) => [p]),
            draws,
          );
    const wanted = Uint8Array.from({ length: many.draws }, (_, d) => (d < draws ? 1 : 0));
    const predicted = many.predictBarely(h, e, wanted);
    return Float64Array.from({ length: draws }, (_, d) => predicted.at(d));
  }

  /** Where a hypothesis stands at one of its severity places, and half a step to either side of each fault. */
  private pointOf(hypothesis: number, place: number): Point {
    const { predictor } = this;
    const { faults, severities } = predictor.hypotheses[hypothesis]!;
    const members = faults.map((f) => predictor.faults.indexOf(f) + 1);
    const gridPlaces = faults.map((f, m) => severityPlace(f, severities[place]![m]!));
    const around = faults.flatMap((f, m) => {
      const last = f.severities.length - 1;
      if (last === 0) return [];
      const half = halfStep(
        severities.map((s) => severityPlace(f, s[m]!)),
        gridPlaces[m]!,
      );
      const moved = (by: number) => gridPlaces.map((p, i) => (i === m ? Math.min(last, Math.max(0, p + by)) : p));
      return [[moved(-half), moved(half)] as const];
    });
    return { members, places: gridPlaces, around, name: members.map((m, i) => `${m}@${gridPlaces[i]!}`).join(" ") };
  }
}
/** What was worked out is forgotten from so much on. Judgement: memory. */
const MOST_FITS = 5_000;
const MOST_POINTS = 600;

/** How far a reading is from what is predicted, standard deviations: nothing within all draws. */
function misfitOf({ reading: e, values, steps }: PredictedReading): number {
  const all = [...values, ...steps.flatMap(([below, above]) => [...below, ...above])];
  const finite = all.filter((v) => Number.isFinite(v));
  const [low, high] = [Math.min(...finite), Math.max(...finite)];
  if (e.value >= low && e.value <= high) return 0;
  return all.reduce((least, v) => Math.min(least, distance(v, e.value, e.instrument, e.tolerance)), Infinity);
}
const logSum = (a: number, b: number) => logMean(Float64Array.of(a, b)) + Math.LN2;

/** One severity of each of some faults, as places on their grids. */
interface Point {
  readonly members: readonly number[];
  readonly places: readonly number[];
  readonly around: readonly (readonly [readonly number[], readonly number[]])[];
  readonly name: string;
}
/** The machine with nothing wrong. */
const SOUND: Point = { members: [], places: [], around: [], name: "" };

/**
 * The severities of a hypothesis that are looked at: those that weigh most.
 * @param weights of its samples, [severity · draws + draw]
 */
export function heaviestPlaces(weights: Float64Array, draws: number): number[] {
  const byPlace = new Float64Array(weights.length / draws);
  weights.forEach((w, s) => (byPlace[Math.floor(s / draws)]! += w));
  return [...byPlace.keys()]
    .sort((a, b) => byPlace[b]! - byPlace[a]!)
    .filter((p, i) => i === 0 || byPlace[p]! > 0)
    .slice(0, MOST_PLACES);
}
/** Half of what lies between a place and the nearest other that was tried; a whole step has length 1. */
function halfStep(tried: readonly number[], place: number): number {
  const gaps = tried.map((p) => Math.abs(p - place)).filter((gap) => gap > 0);
  return Math.min(1, ...gaps) / 2;
}
