import { DEFAULTS } from "../defaults.js";
import { jumpsOf } from "../diagnosis/jumps.js";
import { SEVERITY_KERNEL } from "../diagnosis/likelihood.js";
import type { MixtureComponent } from "../diagnosis/posterior.js";
import type { Instrument, State } from "../format/case.js";
import { stateName } from "../network/state.js";
import { inPieces, type ValuePiece } from "../prediction/piece.js";
import { AtPlace, columnName, type Predicted, type Rows } from "../prediction/predictionCache.js";
import type { Predictor } from "../prediction/predictor.js";
import { familiesOf, type Families } from "../prediction/unknowns.js";
import { pinBehind } from "../wiring/points.js";
import { yesLikelihood, type Candidate } from "./candidate.js";
import { stepOffset, STEP_LEAST, type Particle, type ParticleBelief } from "./particles.js";

/**
 * Mean and spread over draws of what one particle predicts for a candidate's reading; NaN where the instrument shows
 * nothing.
 */
export interface Expected {
  readonly mean: number;
  readonly deviation: number;
  readonly overload: number;
}

/** Draws with which readings are forecast where nothing read so far tells of the draws. Judgement: time. */
const FEW_DRAWS = 4;
/** For finding what is worth a closer look, whatever was read. Judgement: time. */
const ROUGH_DRAWS = 2;

/** What the particles of a belief say of one candidate's point. */
export class Forecast {
  private readonly wanted = new Map<number, Uint8Array>();
  private readonly wantedOfFew = new Map<number, Uint8Array>();
  private readonly few = new Map<Particle, Particle>();
  private readonly families: Families;
  private readonly columns = new Map<string, Map<number, Rows>>();
  private latest:
    { readonly candidate: Candidate; readonly few: boolean; readonly columns: Map<number, Rows> } | undefined;
  /** @param rough of two draws, whatever readings have told of the draws */
  constructor(
    private readonly predictor: Predictor,
    belief: ParticleBelief,
    private readonly rough = false,
  ) {
    this.families = familiesOf(predictor);
    for (const a of belief.particles) {
      const few = withFewDraws(a, predictor.draws, rough ? ROUGH_DRAWS : FEW_DRAWS);
      this.few.set(a, few);
      this.want(a, this.wanted);
      this.want(few, this.wantedOfFew);
    }
  }
  private want(a: Particle, wanted: Map<number, Uint8Array>): void {
    const { draws, hypotheses } = this.predictor;
    const h = a.component.hypothesis;
    let w = wanted.get(h);
    if (!w) wanted.set(h, (w = new Uint8Array(hypotheses[h]!.samples)));
    for (const s of a.samples) {
      w[s] = 1;
      if (a.below) w[s - draws] = 1;
      if (a.above) w[s + draws] = 1;
    }
  }
  /** What everything that is on offer needs of few draws, state by state; readings between two leads are left out. */
  *pieces(offered: readonly Candidate[]): Generator<ValuePiece> {
    const hypotheses = [...this.wantedOfFew.keys()];
    const done = new Set<string>();
    for (const { instrument, state, points, black } of offered) {
      if (instrument === "none" || black !== undefined || this.predictor.placeOf(instrument, points[0]!) === undefined)
        continue;
      const name = columnName(state, instrument);
      if (done.has(name)) continue;
      done.add(name);
      yield* inPieces(hypotheses, (some) => ({
        work: "values",
        state,
        instrument,
        hypotheses: some,
        wanted: some.map((h) => this.wantedOfFew.get(h)),
      }));
    }
  }
  /** predictions of one hypothesis for a candidate, seen from a component that may have readings misplaced */
  private column(
    component: MixtureComponent,
    c: Candidate,
    point: string,
    hypothesis: number,
    few: boolean,
  ): Predicted {
    const own = (p: string) => (c.part ? pinBehind(p) : p);
    const plain = {
      instrument: c.instrument as Instrument,
      point: own(point),
      black: c.black === undefined ? undefined : own(c.black),
      state: c.state as State,
    };
    const wanted = hypothesis === 0 ? undefined : (few ? this.wantedOfFew : this.wanted).get(hypothesis);
    if (component.misplaced) return this.predictor.predictAt(hypothesis, component.misplaced.moved(plain), wanted);
    const place = plain.black === undefined ? this.predictor.placeOf(plain.instrument, plain.point) : undefined;
    if (place === undefined) return this.predictor.predictAt(hypothesis, plain, wanted);
    const columns = this.columnsOf(c, few);
    let rows = columns.get(hypothesis);
    if (!rows) columns.set(hypothesis, (rows = this.predictor.predict(hypothesis, c.state, plain.instrument, wanted)));
    return new AtPlace(rows, place);
  }
  /** rows of every hypothesis in a candidate's state: all of them are asked for at every point */
  private columnsOf(c: Candidate, few: boolean): Map<number, Rows> {
    if (this.latest?.candidate === c && this.latest.few === few) return this.latest.columns;
    const name = `${c.instrument} ${stateName(c.state)} ${few}`;
    let columns = this.columns.get(name);
    if (!columns) this.columns.set(name, (columns = new Map()));
    this.latest = { candidate: c, few, columns };
    return columns;
  }
  /** with the fault there */
  there(particle: Particle, c: Candidate, point: string): Expected {
    const weights = this.rough ? undefined : this.read(particle, c, point);
    const own = weights ? particle : this.few.get(particle)!;
    const predicted = this.column(own.component, c, point, own.component.hypothesis, weights === undefined);
    return gatherSteps(own, c, predicted, this.predictor, weights);
  }
  /** the unknown that an particle's answer to a reading hangs on, by name */
  familyOf({ component }: Pick<Particle, "component">, c: Candidate, point: string): string {
    const plain = {
      instrument: c.instrument as Exclude<Candidate["instrument"], "none">,
      point,
      black: undefined,
      state: c.state as State,
    };
    return this.families.of(component.misplaced ? component.misplaced.moved(plain) : plain);
  }
  /** what readings of the same family have told of the draws */
  private read(particle: Particle, c: Candidate, point: string): Float64Array | undefined {
    return particle.component.draws.size === 0
      ? undefined
      : particle.component.draws.get(this.familyOf(particle, c, point));
  }
  /** with the fault away for the moment */
  away(particle: Particle, c: Candidate, point: string): Expected {
    const predicted = this.column(particle.component, c, point, 0, false);
    const { draws } = this.predictor;
    return gather(particle, c, (s) => predicted.at(s % draws));
  }
  /** probability of the answer "yes" for a candidate without an instrument */
  yes(particle: Particle, c: Candidate): number {
    if (c.kind === "breaker") {
      const side = (end: string) =>
        this.predictor.predictAt(
          particle.component.hypothesis,
          { instrument: "voltmeter", point: `${c.points[0]!}:${end}`, state: c.state },
          this.wanted.get(particle.component.hypothesis),
        );
      const into = side("in");
      const out = side("out");
      return (
        particle.samples.reduce((n, s) => n + (out.at(s) > 0.5 * into.at(s) ? 1 : 0), 0) /
        Math.max(1, particle.samples.length)
      );
    }
    return yesLikelihood(
      c,
      this.predictor.hypotheses[particle.component.hypothesis]!.faults,
      particle.component.presence < 1,
      particle.component.misplaced,
    );
  }
}

/** A particle with samples of so many draws only; all of them where it has none of those. */
function withFewDraws(a: Particle, draws: number, few: number): Particle {
  if (a.samples.length <= few) return a;
  const every = Math.max(1, Math.floor(draws / few));
  const kept = [...a.samples.keys()].filter((i) => (a.samples[i]! % draws) % every === 0).slice(0, few);
  if (kept.length === 0) return a;
  const sum = kept.reduce((t, i) => t + a.weights[i]!, 0);
  return {
    ...a,
    samples: Int32Array.from(kept, (i) => a.samples[i]!),
    weights: Float64Array.from(kept, (i) => a.weights[i]! / sum),
  };
}

/**
 * What a particle predicts, over its steps: where readings have fixed the severity, between the grid points too. On the
 * way to a neighbouring severity every value moves in a straight line on the scale it is judged on, so sums over the
 * samples give every step.
 */
function gatherSteps(
  particle: Particle,
  c: Candidate,
  predicted: Predicted,
  predictor: Predictor,
  weights?: Float64Array,
): Expected {
  const { steps } = particle;
  if (steps.length === 1) return gather(particle, c, (s) => predicted.at(s), weights);
  const { draws } = predictor;
  const ohms = c.instrument === "ohmmeter";
  const jumps = jumpsOf(predictor, particle.component.hypothesis, c.instrument as Instrument);
  const toNext = (side: Moments, weight: number, s: number, x: number, next: number) => {
    const there = scaled(predicted.at(next), ohms);
    if (!jumps(s, next, there - x)) side.add(weight, x, there);
  };
  const below = new Moments();
  const above = new Moments();
  let overload = 0;
  let finite = 0;
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < particle.samples.length; i++) {
    const s = particle.samples[i]!;
    const v = predicted.at(s);
    if (v !== v) continue;
    const w = weights ? weights[s]! : particle.weights[i]!;
    if (v === Infinity) {
      overload += w;
      continue;
    }
    const x = ohms ? Math.log(v + DEFAULTS.reading.ohmFloor) : v;
    finite += w;
    sum += w * x;
    squares += w * x * x;
    if (particle.below) toNext(below, w, s, x, s - draws);
    if (particle.above) toNext(above, w, s, x, s + draws);
  }
  if (finite <= 0)
    return overload > 0 ? { mean: Infinity, deviation: 0, overload: 1 } : { mean: NaN, deviation: 0, overload: 0 };
  let all = 0;
  let mean = 0;
  let meanSquare = 0;
  for (let k = 0; k < steps.length; k++) {
    const w = steps[k]!;
    if (w < STEP_LEAST) continue;
    const t = stepOffset(k, steps.length);
    const side = t < 0 ? below : above;
    all += w;
    mean += (w * (sum + Math.abs(t) * side.way)) / finite;
    meanSquare += (w * (squares + 2 * Math.abs(t) * side.wayHere + t * t * side.waySquare)) / finite;
  }
  if (all === 0) return { mean: NaN, deviation: 0, overload: 0 };
  mean /= all;
  const gaps = below.count + above.count;
  const width = gaps === 0 ? 0 : ((SEVERITY_KERNEL / steps.length) * (below.gaps + above.gaps)) / gaps;
  return {
    mean,
    deviation: Math.sqrt(Math.max(0, meanSquare / all - mean * mean) + width * width),
    overload: overload / (overload + finite),
  };
}
/** Sums over samples of how far it is to the next severity, `way`, on the scale values are judged on. */
class Moments {
  way = 0;
  wayHere = 0;
  waySquare = 0;
  gaps = 0;
  count = 0;
  add(weight: number, here: number, there: number): void {
    const way = there - here;
    if (!(Math.abs(way) < Infinity)) return; // an open circuit stays one
    this.way += weight * way;
    this.wayHere += weight * way * here;
    this.waySquare += weight * way * way;
    this.gaps += Math.abs(way);
    this.count++;
  }
}
const scaled = (v: number, ohms: boolean) => (ohms ? Math.log(v + DEFAULTS.reading.ohmFloor) : v);

function gather(particle: Particle, c: Candidate, value: (sample: number) => number, draws?: Float64Array): Expected {
  let sum = 0;
  let squares = 0;
  let weight = 0;
  let overload = 0;
  for (let i = 0; i < particle.samples.length; i++) {
    const s = particle.samples[i]!;
    const v = value(s);
    const w = draws ? draws[s]! : particle.weights[i]!;
    if (v !== v) continue;
    if (v === Infinity) {
      overload += w;
      continue;
    }
    const x = scaled(v, c.instrument === "ohmmeter");
    sum += w * x;
    squares += w * x * x;
    weight += w;
  }
  if (weight === 0)
    return overload > 0 ? { mean: Infinity, deviation: 0, overload: 1 } : { mean: NaN, deviation: 0, overload: 0 };
  const mean = sum / weight;
  return {
    mean,
    deviation: Math.sqrt(Math.max(0, squares / weight - mean * mean)),
    overload: overload / (overload + weight),
  };
}
