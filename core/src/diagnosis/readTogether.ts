import { DEFAULTS } from "../defaults.js";
import type { ReadingEvidence } from "./evidence.js";
import { logStudent, offFromOthers, squaresOf } from "./jointNormal.js";
import { errorOf, likelihood, partDraws, readingRange, voltRange } from "./likelihood.js";

/** What a hypothesis predicts for a reading, draw by draw. */
export interface PredictedReading {
  readonly reading: ReadingEvidence;
  readonly values: Float64Array;
  /** for each fault that has severities, the same with half a step less of it and half a step more, in some draws */
  readonly steps: readonly (readonly [Float64Array, Float64Array])[];
}

/** Readings that hardly spread over the draws are weighed one by one: as a share of the instrument's error. */
const STEADY = 0.5;
/** Draws that a group of few borrows from all groups together: how its readings move with one another. Judgement. */
const BORROWED = 4;
/** A group of so many draws or more spreads as they do; smaller ones borrow the rest of how far, too. Judgement. */
const OWN_SPREAD_FROM = 6;
/** Degrees of freedom are never fewer. Judgement: heavier tails explain almost anything. */
const LEAST_FREEDOM = 5;
/** So many readings may be slips of the hand at once. Judgement. */
const MOST_SLIPS = 6;
/** Squared deviations, for each reading, from which one of them may be a slip. Judgement. */
const OFF_FROM = 2;
/** So many readings are weighed together, and tried for a slip, those furthest off first. Judgement: time. */
const MOST_TOGETHER = 40;
const MOST_SUSPECTED = 6;
/**
 * Variance of what lies between two severities a step of one apart: normals half a step wide, one at each severity, add
 * up to the same everywhere between them, to 2 %.
 */
const WITHIN_STEP = 1 / 4;

/**
 * How likely readings are all together, given what draws of everything unknown predict for each: readings that hang on
 * the same unknown move together, and count together. Draws that differ by the kind of a device stand in groups; within
 * one the readings are a multivariate normal, its mean and covariance from the draws, with the instruments' errors and
 * what lies between two severities on top. Each reading may be a slip of the hand.
 * @param predicted of every reading, as many draws each
 * @returns ln of the density, per volt, ln ohm or ampere, as `likelihood` has it
 */
export function logOfAll(predicted: readonly PredictedReading[], nominalVolt: number): number {
  return new Together(predicted, nominalVolt).log();
}

/** Draws of one kind: how many, how likely they make the readings apart, the means, and covariances without errors. */
interface Group {
  readonly draws: readonly number[];
  readonly weight: number;
  readonly off: Float64Array;
  readonly covariance: Float64Array;
}

/** What is predicted for a reading, on the scale on which its errors are even, whatever it showed. */
interface Shape {
  readonly scaled: Float64Array;
  readonly isFinite: boolean;
  /** by how much half a step of each fault moves the mean */
  readonly steps: readonly number[];
  readonly variance: number;
  /** what lies between two severities, as a variance */
  readonly between: number;
  /** of each draw, the name of its kind */
  readonly kinds: readonly string[];
}

class Together {
  private readonly draws: number;
  private readonly range: number;
  /** of each draw, ln of how likely it makes the readings that are not weighed together */
  private readonly apart: Float64Array;
  private readonly joint: ({ readonly e: ReadingEvidence } & Shape)[] = [];

  constructor(
    predicted: readonly PredictedReading[],
    private readonly nominalVolt: number,
  ) {
    this.range = voltRange(nominalVolt);
    this.draws = predicted[0]?.values.length ?? 0;
    this.apart = new Float64Array(this.draws);
    for (const p of predicted) this.sort(p);
  }

  private sort(predicted: PredictedReading): void {
    const { reading: e, values } = predicted;
    const shape = shapeOf(predicted);
    const { between } = shape;
    const isSpread = isNumber(e) && Number.isFinite(scaleOf(e, e.value)) && shape.isFinite;
    const variance = isSpread ? shape.variance + between : between;
    const isFull = this.joint.length === MOST_TOGETHER;
    if (isSpread && !isFull && Math.sqrt(variance) > STEADY * errorOf(e, meanOf(values))) {
      this.joint.push({ e, ...shape });
      return;
    }
    const spread = Math.sqrt(variance + (e.tolerance ?? 0) ** 2);
    for (let d = 0; d < this.draws; d++)
      this.apart[d] = this.apart[d]! + Math.log(likelihood(e.instrument, e.value, values[d]!, spread, this.range));
  }

  log(): number {
    const most = this.apart.reduce((a, b) => Math.max(a, b), -Infinity);
    if (this.draws === 0) return 0;
    const groups = this.groups(most);
    let kept = this.joint.map((_, i) => i);
    let best = this.logOf(groups, kept);
    // a reading that is a slip may lie anywhere; of two that go the same wrong way only both make it likely
    let slips = 0;
    for (let turn = 0; turn < MOST_SLIPS && this.isAnyOff(groups, kept); turn++) {
      const tried = this.furthestOff(groups, kept).map((i) => {
        const others = kept.filter((k) => k !== i);
        const own = slips + this.logSlip(this.joint[i]!.e);
        return { log: own + this.logOf(groups, others), others, own };
      });
      const next = tried.reduce((a, b) => (b.log > a.log ? b : a));
      [kept, slips] = [next.others, next.own];
      best = Math.max(best, next.log);
    }
    return most + best;
  }
  /** Whether the readings are further off than they should be in every group. */
  private isAnyOff(groups: readonly Group[], kept: readonly number[]): boolean {
    return kept.length > 0 && groups.every((g) => squaresOf(...this.partOf(g, kept)) > OFF_FROM * kept.length);
  }
  /** Readings by how far they are from what the others make of them in the likeliest group. */
  private furthestOff(groups: readonly Group[], kept: readonly number[]): readonly number[] {
    if (kept.length <= MOST_SUSPECTED) return kept;
    const likeliest = groups.reduce((a, b) => (b.weight > a.weight ? b : a));
    const far = offFromOthers(...this.partOf(likeliest, kept));
    return [...kept.keys()]
      .sort((a, b) => far[b]! - far[a]!)
      .slice(0, MOST_SUSPECTED)
      .map((k) => kept[k]!);
  }
  private partOf({ off, covariance }: Group, kept: readonly number[]): [Float64Array, Float64Array] {
    const n = this.joint.length;
    const own = new Float64Array(kept.length);
    const of = new Float64Array(kept.length * kept.length);
    for (let a = 0; a < kept.length; a++) {
      own[a] = off[kept[a]!]!;
      for (let b = 0; b < kept.length; b++) of[a * kept.length + b] = covariance[kept[a]! * n + kept[b]!]!;
    }
    return [own, of];
  }
  private logSlip({ instrument }: ReadingEvidence): number {
    return Math.log(DEFAULTS.reading.slip / readingRange(instrument, this.nominalVolt));
  }

  /** Draws in groups by the kinds of devices, as far as the readings show them. */
  private groups(most: number): readonly Group[] {
    const names = new Array<string>(this.draws).fill("");
    for (const { kinds } of this.joint) kinds.forEach((kind, d) => (names[d] += `${kind} `));
    const by = new Map<string, number[]>();
    names.forEach((name, d) => by.set(name, [...(by.get(name) ?? []), d]));
    const n = this.joint.length;
    const pooled = new Float64Array(n * n);
    const parts = [...by.values()].map((draws) => {
      const { means, squares } = this.spreadOf(draws);
      squares.forEach((x, k) => (pooled[k] = pooled[k]! + x / this.draws));
      return { draws, means, squares };
    });
    return parts.map(({ draws, means, squares }) => ({
      draws,
      weight: draws.reduce((sum, d) => sum + Math.exp(this.apart[d]! - most), 0) / this.draws,
      off: Float64Array.from(this.joint, ({ e }, i) => scaleOf(e, e.value) - means[i]!),
      covariance: this.withErrors(borrowed(squares, pooled, draws.length), means),
    }));
  }
  private spreadOf(draws: readonly number[]): { readonly means: Float64Array; readonly squares: Float64Array } {
    const n = this.joint.length;
    const means = Float64Array.from(
      this.joint,
      ({ scaled }) => draws.reduce((sum, d) => sum + scaled[d]!, 0) / draws.length,
    );
    const squares = new Float64Array(n * n);
    const off = new Float64Array(n);
    for (const d of draws) {
      for (let i = 0; i < n; i++) off[i] = this.joint[i]!.scaled[d]! - means[i]!;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) squares[i * n + j] = squares[i * n + j]! + off[i]! * off[j]!;
    }
    return { means, squares };
  }
  private withErrors(covariance: Float64Array, means: Float64Array): Float64Array {
    const n = this.joint.length;
    this.joint.forEach(({ e, steps }, i) => {
      const error = errorOf(e, e.instrument === "ohmmeter" ? Math.exp(means[i]!) : means[i]!);
      covariance[i * n + i] = covariance[i * n + i]! + error * error;
      this.joint.forEach((other, j) => {
        const between = steps.reduce((sum, m, k) => sum + WITHIN_STEP * m * other.steps[k]!, 0);
        covariance[i * n + j] = covariance[i * n + j]! + between;
      });
    });
    return covariance;
  }

  /** ln density of the readings kept, beyond the most that those apart come to */
  private logOf(groups: readonly Group[], kept: readonly number[]): number {
    let sum = 0;
    for (const group of groups) {
      if (group.weight === 0) continue;
      const freedom = Math.max(LEAST_FREEDOM, group.draws.length + BORROWED - kept.length);
      sum += group.weight * Math.exp(logStudent(...this.partOf(group, kept), freedom));
    }
    return Math.log(Math.max(sum, LEAST));
  }
}
/** Shapes of predicted values, which many readings and many sets of readings have in common. */
const shapes = new WeakMap<Float64Array, Shape & { readonly tolerance: number | undefined }>();
function shapeOf({ reading: e, values, steps: around }: PredictedReading): Shape {
  // whoever predicts these values has the same steps to either side of them, or steps that move nothing
  const known = shapes.get(values);
  if (known && known.tolerance === e.tolerance && known.steps.length === around.length) return known;
  const scaled = values.map((v) => scaleOf(e, v));
  const steps = around.map(([below, above]) => meanMove(e, below, above));
  const between = steps.reduce((sum, m) => sum + WITHIN_STEP * m * m, 0);
  const isFinite = scaled.every((v) => Number.isFinite(v));
  const shape = {
    scaled,
    isFinite,
    steps,
    between,
    variance: isFinite ? varianceOf(scaled) : NaN,
    kinds: isFinite ? kindsOf(e, scaled) : [],
    tolerance: e.tolerance,
  };
  shapes.set(values, shape);
  return shape;
}
function kindsOf(e: ReadingEvidence, scaled: Float64Array): readonly string[] {
  const kinds = partDraws(scaled, new Float64Array(scaled.length));
  const error = errorOf(e, e.instrument === "ohmmeter" ? Math.exp(meanOf(scaled)) : meanOf(scaled));
  const isHeld = heldWithin(scaled, kinds, error);
  return Array.from(kinds, (kind, d) => `${kind}${isHeld(d) ? "=" : ""}`);
}

/**
 * Draws that share a value while others of their kind spread far from it: something holds the conductor there, or
 * nothing does. No normal has such a peak.
 * @param kinds of the draws @param error of the instrument
 */
function heldWithin(values: Float64Array, kinds: Int8Array, error: number): (draw: number) => boolean {
  const peaks = new Map<number, readonly [number, number]>();
  for (const kind of new Set(kinds)) {
    const peak = peakOf(
      values.filter((_, d) => kinds[d] === kind),
      error,
    );
    if (peak) peaks.set(kind, peak);
  }
  return (d) => {
    const peak = peaks.get(kinds[d]!);
    return peak !== undefined && values[d]! >= peak[0] && values[d]! <= peak[1];
  };
}
/** The error's width in which most values lie, where those are many and others lie far off. */
function peakOf(values: Float64Array, error: number): readonly [number, number] | undefined {
  const sorted = [...values].sort((a, b) => a - b);
  let [from, most] = [0, 0];
  for (let low = 0, high = 0; low < sorted.length; low++) {
    while (high < sorted.length && sorted[high]! - sorted[low]! <= error) high++;
    if (high - low > most) [from, most] = [low, high - low];
  }
  const isPeak = most >= HELD_FROM * sorted.length && sorted.at(-1)! - sorted[0]! > FAR_OFF * error;
  return isPeak ? [sorted[from]!, sorted[from]! + error] : undefined;
}
/** So large a share of the draws within the instrument's error, others so many errors off, is a peak. Judgement. */
const HELD_FROM = 1 / 3;
const FAR_OFF = 10;

/**
 * Covariance of a group: how its readings move with one another is told by its own draws and a few of all groups, how
 * far by its own. One kind of a device may hold a value at nothing where another lets it go anywhere.
 * @param squares of the deviations in the group @param pooled mean of the same over all groups
 */
function borrowed(squares: Float64Array, pooled: Float64Array, draws: number): Float64Array {
  const n = Math.sqrt(squares.length);
  const lacking = Math.max(0, OWN_SPREAD_FROM - draws);
  const scale = Array.from({ length: n }, (_, i) => {
    const [own, all] = [squares[i * n + i]!, pooled[i * n + i]!];
    return all > 0 ? Math.sqrt((own + lacking * all) / ((draws + lacking) * all)) : 1;
  });
  return squares.map((x, k) => {
    const like = pooled[k]! * scale[Math.floor(k / n)]! * scale[k % n]!;
    return (x + BORROWED * like) / (draws + BORROWED);
  });
}
/** A product of many unlikely readings must not become zero. */
const LEAST = 1e-300;

const isNumber = ({ instrument }: ReadingEvidence) => instrument !== "lamp" && instrument !== "continuity";
const scaleOf = ({ instrument }: ReadingEvidence, v: number) =>
  instrument === "ohmmeter" ? Math.log(v + DEFAULTS.reading.ohmFloor) : v;
const meanOf = (list: Float64Array) => list.reduce((a, b) => a + b, 0) / list.length;
function varianceOf(list: Float64Array): number {
  const mean = meanOf(list);
  return list.reduce((sum, v) => sum + (v - mean) ** 2, 0) / list.length;
}
/** how far the mean of what is predicted moves, over the draws in which both are numbers */
function meanMove(e: ReadingEvidence, below: Float64Array, above: Float64Array): number {
  let sum = 0;
  let count = 0;
  below.forEach((v, d) => {
    const move = scaleOf(e, above[d]!) - scaleOf(e, v);
    if (!Number.isFinite(move)) return;
    sum += move;
    count++;
  });
  return count > 0 ? sum / count : 0;
}
