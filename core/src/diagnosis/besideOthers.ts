import type { Fault } from "../faults/fault.js";
import type { Predictor } from "../prediction/predictor.js";
import { logCode, logPriors } from "./codeWeights.js";
import type { CodeEvidence, ReadingEvidence } from "./evidence.js";
import { MISFIT_SIGMAS } from "./fit.js";
import { distance } from "./likelihood.js";
import { setAtSeverities } from "./multipleFaults.js";
import type { MultipleFaultHypothesis, WeighOptions } from "./posterior.js";
import { placeName } from "./readingWeights.js";

/** On a larger machine only faults that touch a coded circuit are tried, and no more of them. Judgement: time. */
const MOST_TRIED = 700;

/** A fault at a place on the grid of its severities, which may lie between two of them. */
export interface AtSeverity {
  readonly h: number;
  readonly severity: number;
}

/** Faults beside a given one, solved together with it. */
export class BesideOthers {
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
        sum += shares[(Math.round(severity) * predictor.draws + d) * predictor.monitors.length + m]!;
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
