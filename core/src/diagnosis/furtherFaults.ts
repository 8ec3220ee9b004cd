import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import { logCode, logPriors } from "./codeWeights.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { faultsAtSeverities, MOVES_FROM, type FaultAtSeverity } from "./faultsAtSeverities.js";
import { MISFIT_SIGMAS } from "./fit.js";
import type { Fault } from "../faults/fault.js";
import { distance } from "./likelihood.js";
import { setAtSeverities, soundFits } from "./multipleFaults.js";
import type { MixtureComponent, MultipleFaultHypothesis, WeighOptions } from "./posterior.js";
import { placeName } from "./readingWeights.js";
import { telling } from "./tellingReadings.js";
import { fitsOfSets } from "./weigh.js";

/**
 * Faults taken for given, those that gain most by what they explain and those that contradict least; further faults
 * weighed beside each, and instead of each that leads, and sets kept of all. Judgement: time.
 */
const MOST_GAINING = 5;
const LEAST_AT_ODDS = 4;
const MOST_BESIDE = 8;
const MOST_INSTEAD = 20;
const MOST_KEPT = 24;
/** On a larger machine only faults that touch a coded circuit are tried, and no more of them. Judgement: time. */
const MOST_TRIED = 700;
/** Faults that do the same, as far as was read, and take the place of one that was given. Judgement: time. */
const MOST_ALIKE = 4;

/** Pairs beside which a third fault is looked for. Judgement: time. */
const MOST_PAIRS = 2;

/** A fault at one place of its severities. */
export interface AtSeverity {
  readonly h: number;
  readonly severity: number;
}

/**
 * Further faults, looked for with a first one in place. What two faults do together need not show in what each does by
 * itself: a wire shorted to an open circuit pulls it along, a second short on a shorted pair moves both. So every other
 * fault of the machine is solved together with each of the most promising ones, at the readings that this one leaves
 * furthest off first; those that bring them there are weighed by everything.
 * @param about the faults that lead, and whether they leave nothing unexplained: then only the others are looked for
 * which explain it as well beside all but one of them
 * @returns the best sets, to be solved closer
 */
export function* searchFurtherFaults(
  predictor: Predictor,
  evidence: readonly Evidence[],
  options: WeighOptions,
  about: { readonly leading: readonly AtSeverity[]; readonly isExplained: boolean },
  stop: () => boolean,
): InSteps<readonly MultipleFaultHypothesis[]> {
  const readings = telling(evidence.filter((e) => e.kind === "reading"));
  if (readings.length === 0) return [];
  const codes = evidence.filter((e) => e.kind === "code");
  const search = new FurtherFaults(predictor, readings, options, codes);
  const found = new Map<string, { readonly faults: readonly AtSeverity[]; readonly worth: number }>();
  const weighed = (list: readonly (readonly AtSeverity[])[]) => {
    const sets = list.map((faults) => search.setOf(faults, AND_BESIDE, 1));
    fitsOfSets(predictor, evidence, sets, options).forEach((fits, i) => {
      const worth = Math.max(...fits) + sets[i]!.logPrior;
      const name = sets[i]!.members.join(" ");
      if (worth > (found.get(name)?.worth ?? -Infinity)) found.set(name, { faults: list[i]!, worth });
    });
  };
  const best = () => [...found.values()].sort((a, b) => b.worth - a.worth).slice(0, MOST_KEPT);
  const promising = about.isExplained ? [] : promisingFaults(predictor, evidence, readings, options, stop);
  const { leading } = about;
  // of a set that leads all but one; of one fault itself, where it leaves something unexplained
  const isAlone = leading.length === 1;
  const before = isAlone ? (about.isExplained ? [] : [leading]) : leading.map((f) => leading.filter((o) => o !== f));
  const given = [
    ...before.map((faults) => ({ faults, most: MOST_INSTEAD })),
    ...promising.map((p) => ({ faults: [p.given], most: MOST_BESIDE })),
  ];
  for (const { faults, most } of given) {
    yield;
    if (!stop()) weighed(search.beside(faults, most).map((more) => [...faults, more]));
  }
  // others that do the same as what was given
  for (const { faults } of best()) {
    const [given, more] = faults;
    const alike = promising.find((p) => p.given === given)?.alike ?? [];
    weighed(alike.filter((a) => a.h !== more!.h).map((a) => [a, more!]));
  }
  const pairs = about.isExplained ? [] : best().filter(({ faults }) => faults.length === 2);
  for (const { faults } of pairs.slice(0, MOST_PAIRS)) {
    yield;
    if (stop()) break;
    weighed(search.beside(faults, MOST_BESIDE).map((third) => [...faults, third]));
  }
  return best().map(({ faults }) => ({ ...search.setOf(faults, AND_BESIDE), together: true }));
}
/** The faults of a component, each at its likeliest severity; none of a sound machine. */
export function likeliestOf(predictor: Predictor, { hypothesis, weights }: MixtureComponent): AtSeverity[] {
  const { draws } = predictor;
  const { faults } = predictor.hypotheses[hypothesis]!;
  const byPlace = new Float64Array(weights.length / draws);
  weights.forEach((w, s) => (byPlace[Math.floor(s / draws)]! += w));
  const values = predictor.severitiesOf(hypothesis, byPlace.indexOf(Math.max(...byPlace)) * draws);
  return faults.map((fault, i) => ({
    h: predictor.faults.indexOf(fault) + 1,
    severity: nearestPlace(fault.severities, values[i]!),
  }));
}
/** Where on a grid a severity stands. */
function nearestPlace(grid: readonly number[], value: number): number {
  const far = grid.map((g) => Math.abs(g - value));
  return grid.length > 1 ? far.indexOf(Math.min(...far)) : 0;
}

/** Places on the grid of severities, from one of them. */
const AND_BESIDE = [-1, 0, 1];

/** Single faults that fit what they move, whatever they leave; those that do the same stand together. */
function promisingFaults(
  predictor: Predictor,
  evidence: readonly Evidence[],
  readings: readonly ReadingEvidence[],
  { factors }: WeighOptions,
  stop: () => boolean,
): { readonly given: AtSeverity; readonly alike: readonly AtSeverity[] }[] {
  const codes = evidence.filter((e) => e.kind === "code");
  const toExplain = { codes, readings, present: codes.filter((e) => e.present) };
  const parts = faultsAtSeverities(predictor, toExplain, factors, stop);
  const sound = soundFits(predictor, readings);
  const gain = new Map(parts.map((p) => [p, gainOf(p, codes, sound)]));
  const byGain = alikeTogether([...parts].sort((a, b) => gain.get(b)! - gain.get(a)!));
  const gaining = byGain.slice(0, MOST_GAINING);
  const known = new Set(gaining.flatMap((g) => [g.given, ...g.alike].map((p) => p.h)));
  const others = alikeTogether(parts).filter((g) => !known.has(g.given.h));
  return [...gaining, ...others.slice(0, LEAST_AT_ODDS)];
}
/** What a fault explains by itself that a sound machine does not, with its prior, ln. */
function gainOf(p: FaultAtSeverity, codes: readonly CodeEvidence[], sound: Float64Array): number {
  const byCodes = codes.reduce((sum, c, i) => sum + logCode(p.sets[i]!, c) - logCode(0, c), p.logPrior);
  return p.fits.reduce((sum, fit, r) => (p.moves[r]! > MOVES_FROM ? sum + fit - sound[r]! : sum), byCodes);
}
/** Each fault once, at the severity that comes first; those that do the same stand together. */
function alikeTogether(parts: readonly FaultAtSeverity[]): Alike[] {
  const first = new Map<number, FaultAtSeverity>();
  for (const part of parts) if (!first.has(part.h)) first.set(part.h, part);
  const groups: Alike[] = [];
  for (const part of first.values()) {
    const same = groups.find((g) => doTheSame(g.given, part));
    if (!same) groups.push({ given: part, alike: [] });
    else if (same.alike.length < MOST_ALIKE) same.alike.push(part);
  }
  return groups;
}
interface Alike {
  readonly given: FaultAtSeverity;
  readonly alike: FaultAtSeverity[];
}
/** Fits and moves nearer than this are the same, ln and standard deviations. Judgement. */
const SAME = 0.5;
function doTheSame(a: FaultAtSeverity, b: FaultAtSeverity): boolean {
  return (
    a.fits.every((f, r) => Math.abs(f - b.fits[r]!) < SAME) &&
    a.moves.every((m, r) => Math.abs(m - b.moves[r]!) < SAME * Math.max(1, m / MISFIT_SIGMAS)) &&
    a.sets.every((p, c) => Math.abs(p - b.sets[c]!) < SAME)
  );
}

/** Faults beside a given one, solved together with it. */
class FurtherFaults {
  private readonly prior: Float64Array;
  /** the faults that are tried beside others */
  private readonly tried: readonly number[];
  /** monitors of the codes that are set */
  private readonly present: readonly number[];
  /** the first draw alone */
  private first: Uint8Array | undefined;
  private readonly known: Map<string, number>;

  constructor(
    private readonly predictor: Predictor,
    private readonly readings: readonly ReadingEvidence[],
    private readonly options: WeighOptions,
    private readonly codes: readonly CodeEvidence[],
  ) {
    this.known = knownValues.get(predictor) ?? new Map<string, number>();
    knownValues.set(predictor, this.known);
    this.prior = logPriors(predictor, options.factors);
    this.present = codes.flatMap((c) => (c.present ? [c.monitor] : []));
    const { present } = this;
    const all = predictor.faults.map((_, i) => i + 1);
    this.tried =
      all.length <= MOST_TRIED
        ? all
        : all
            .filter((h) => predictor.movesAny(h, present))
            .sort((a, b) => this.prior[b]! - this.prior[a]!)
            .slice(0, MOST_TRIED);
  }

  /** A set of faults at their severities, and those beside them. */
  setOf(faults: readonly AtSeverity[], around: readonly number[], draws?: number): MultipleFaultHypothesis {
    const sorted = [...faults].sort((a, b) => a.h - b.h);
    const choices = sorted.map(({ h, severity }) =>
      around.map((d) => severity + d).filter((k) => k >= 0 && k <= this.predictor.faults[h - 1]!.severities.length - 1),
    );
    return setAtSeverities(
      this.predictor,
      sorted.map((f) => f.h),
      choices,
      this.options.factors,
      draws,
    );
  }

  /** The faults that fit best beside others, each at the severity that brings the worst reading to its value. */
  beside(given: readonly AtSeverity[], most: number): AtSeverity[] {
    return this.predictor.trying(() => this.tryBeside(given, most));
  }
  private tryBeside(given: readonly AtSeverity[], most: number): AtSeverity[] {
    const { predictor } = this;
    const without = this.readings
      .map((e) => ({ e, v: this.valueOf(given, e) }))
      .map(({ e, v }) => ({ e, v, off: distanceTo(v, e) }))
      .sort((a, b) => b.off - a.off);
    const [worst] = without;
    if (!worst || worst.off < MISFIT_SIGMAS) return [];
    const brought = this.tried.flatMap((h) => {
      const fault = predictor.faults[h - 1]!;
      if (given.some((g) => g.h === h)) return [];
      const severity = this.bringing(given, h, fault, worst);
      if (severity === undefined) return [];
      // what lies between it and the severities beside it may be
      const near = [severity - 1, severity, severity + 1].filter((k) => k >= 0 && k < fault.severities.length);
      const byCodes = this.lossOfCodes([...given, { h, severity }]);
      return [{ h, severity, byCodes, near: near.map((k) => [...given, { h, severity: k }]) }];
    });
    const told = without.slice(0, MOST_READINGS).map(({ e }) => e);
    const left = brought.map((one) => {
      // set by set: readings in the same state share its solution
      const values = one.near.map((set) => told.map((e) => this.valueOf(set, e)));
      const lossAt = (e: ReadingEvidence, i: number) =>
        lossOf(
          values.map((own) => own[i]!),
          e,
        );
      return { ...one, loss: told.reduce((sum, e, i) => sum + lossAt(e, i), one.byCodes - this.prior[one.h]!) };
    });
    return left
      .sort((a, b) => a.loss - b.loss)
      .slice(0, most)
      .map(({ h, severity }) => ({ h, severity }));
  }

  /** What the codes cost, ln, as each fault sets them by itself; one that none sets may yet be set by them together. */
  private lossOfCodes(faults: readonly AtSeverity[]): number {
    const sets = faults.map((f) => this.setsOf(f));
    return this.codes.reduce((sum, c, i) => {
      const none = sets.reduce((p, own) => p * (1 - own[i]!), 1);
      return sum + Math.min(MOST_OF_CODE, -logCode(1 - none, c));
    }, 0);
  }
  /** Probability that a fault by itself sets each code, roughly. */
  private setsOf({ h, severity }: AtSeverity): readonly number[] {
    const { predictor } = this;
    if (!predictor.movesAny(h, this.present)) return this.codes.map(() => 0);
    const monitors = this.codes.map((c) => c.monitor);
    const shares = predictor.roughCodeShares(h, monitors);
    return monitors.map((m) => {
      let sum = 0;
      for (let d = 0; d < CODE_DRAWS; d++)
        sum += shares[(severity * predictor.draws + d) * predictor.monitors.length + m]!;
      return sum / CODE_DRAWS;
    });
  }

  /** The severity of a further fault that brings a reading nearest to its value; undefined where none does. */
  private bringing(
    given: readonly AtSeverity[],
    h: number,
    { severities, mode }: Fault,
    { e, v, off }: { readonly e: ReadingEvidence; readonly v: number; readonly off: number },
  ): number | undefined {
    const at = (severity: number) => this.valueOf([...given, { h, severity }], e);
    // the worst of it first: where that does nothing, a little of it does nothing either
    const last = severities.length - 1;
    let [worse, less] = mode.startsWith("short") ? [0, last] : [last, 0];
    let worseValue = at(worse);
    if (worseValue === v) return undefined;
    let lessValue = at(less);
    if (!bringsThere([v, worseValue, lessValue], e, off)) return undefined;
    while (isBetween([worseValue, lessValue], e) && Math.abs(worse - less) > 1) {
      const middle = (worse + less) >> 1;
      const value = at(middle);
      if (isBetween([worseValue, value], e)) [less, lessValue] = [middle, value];
      else [worse, worseValue] = [middle, value];
    }
    return distanceTo(worseValue, e) < distanceTo(lessValue, e) ? worse : less;
  }

  private valueOf(faults: readonly AtSeverity[], e: ReadingEvidence): number {
    const name = `${placeName(e)} ${faults
      .map((f) => `${f.h}@${f.severity}`)
      .sort()
      .join(" ")}`;
    let value = this.known.get(name);
    if (value === undefined) {
      value = this.solvedValue(faults, e);
      if (this.known.size >= MOST_KNOWN) this.known.clear();
      this.known.set(name, value);
    }
    return value;
  }
  private solvedValue(faults: readonly AtSeverity[], e: ReadingEvidence): number {
    const { predictor } = this;
    const hypothesis = predictor.combine(
      faults.map((f) => f.h),
      faults.map((f) => [f.severity]),
      1,
    );
    this.first ??= new Uint8Array(predictor.draws).fill(1, 0, 1);
    return predictor.predictAlone(hypothesis, e, this.first).at(0);
  }
}
/** What sets of faults show, by place of the reading and by set: with one reading more most of it is asked again. */
const knownValues = new WeakMap<Predictor, Map<string, number>>();
/** So many are remembered. Judgement: some 20 MB. */
const MOST_KNOWN = 150_000;
/** Readings by which further faults are told apart before they are weighed by all. Judgement: time. */
const MOST_READINGS = 8;
/** Draws in which codes are looked at; and the most that one code counts against faults, ln. Judgement. */
const CODE_DRAWS = 3;
const MOST_OF_CODE = 4;
/** A value at which a fault lets a reading stay is no nearer than this share of how far off it was. Judgement. */
const NEARER = 0.5;

const distanceTo = (v: number, e: ReadingEvidence) => distance(v, e.value, e.instrument, e.tolerance);
const isBetween = (values: readonly number[], e: ReadingEvidence) =>
  Math.min(...values) <= e.value && e.value <= Math.max(...values);
/** What a reading costs, ln, where it may lie anywhere between severities; a slip of the hand costs no more. */
function lossOf(values: readonly number[], e: ReadingEvidence): number {
  if (isBetween(values, e)) return 0;
  const off = Math.min(...values.map((v) => distanceTo(v, e)));
  return Math.min(off * off, MOST_OFF * MOST_OFF) / 2;
}
/** Standard deviations. Judgement: of what is only known by its draws one is tried. */
const MOST_OFF = 3;

/**
 * Whether a further fault, more or less of it, brings a reading to its value.
 * @param values without it, then by severity
 */
function bringsThere(values: readonly number[], e: ReadingEvidence, off: number): boolean {
  const [without, ...others] = values;
  if (others.every((v) => v === without)) return false;
  return isBetween(values, e) || Math.min(...others.map((v) => distanceTo(v, e))) < NEARER * off;
}
