import { median, robustSigma } from "./numbers.js";
import { timeOf, valueAt, type Channel } from "./recording.js";

/** A stretch in which two tracks do not go together. */
export interface Parting {
  readonly from: number;
  readonly to: number;
  readonly samples: number;
  /** of the first track, where they are furthest apart */
  readonly first: number;
  /** of the second there, and what the first lets expect */
  readonly second: number;
  readonly expected: number;
  /** how far apart, in σ of how well they agree elsewhere */
  readonly sigmas: number;
}
/** How one track follows the other: second = `factor` · first + `offset`. */
export interface Agreement {
  readonly factor: number;
  readonly offset: number;
  /** how far they usually are from that line, σ, in the unit of the second */
  readonly sigma: number;
  readonly partings: readonly Parting[];
}

/**
 * What is a parting: single samples further apart than 4 σ, until they are back within 2; or, for what lasts longer,
 * the mean of 16 further apart than 2 σ, which noise reaches once in 10¹⁵. Three samples at least. Judgement; the
 * measure asked is 3 σ.
 */
const SCALES = [
  { window: 1, apart: 4, back: 2 },
  { window: 16, apart: 2, back: 1 },
] as const;
const LEAST_SAMPLES = 3;
/** Samples by which it is told whether two tracks go together, and pairs by which the line is found. */
const ENOUGH = 20_000;
const PAIRS = 4_000;
/** The first track moves at least this share of its size, or there is no sweep to judge by. Judgement. */
const SWEEP = 0.05;

/**
 * Two tracks of one part over a sweep: both go along a straight line against each other (their sum, difference or ratio
 * is constant), found so that stretches off it do not bend it (Theil 1950, Sen 1968: the median of slopes).
 *
 * @param floor what the instrument and the tracks' own error allow, in the unit of the second
 * @param most tracks that scatter more around their line, in the unit of the second, have nothing in common
 * @returns undefined where the first does not move, they have no moment in common, or scatter too much
 */
export function agreementOf(first: Channel, second: Channel, floor = 0, most = Infinity): Agreement | undefined {
  const n = first.values.length;
  const at = (i: number) => timeOf(first, i);
  const other = (i: number) => valueAt(second, at(i));
  const isIn = (i: number) => Number.isFinite(first.values[i]!) && Number.isFinite(other(i));
  // the line by some of them: whether they go together is seen before any sample is compared
  const every = Math.max(1, Math.floor(n / ENOUGH));
  const some = Array.from({ length: Math.ceil(n / every) }, (_, k) => k * every).filter(isIn);
  if (some.length * every < 2 * LEAST_SAMPLES) return undefined;
  const line = lineThrough(first.values, other, some);
  if (!line) return undefined;
  const { factor, offset } = line;
  const residual = (i: number) => other(i) - factor * first.values[i]! - offset;
  const sigma = Math.max(robustSigma(some.map(residual)), floor, 1e-9);
  if (sigma >= most) return undefined;
  const both = Uint32Array.from({ length: n }, (_, i) => i).filter(isIn);
  const off = Float64Array.from(both, residual);
  const partings: Parting[] = [];
  for (const { window, apart, back } of SCALES) {
    const smooth = window === 1 ? off : runningMean(off, window);
    for (let k = 0; k < both.length; k++) {
      if (!(Math.abs(smooth[k]!) > apart * sigma)) continue;
      let end = k;
      let furthest = k;
      while (end < both.length && Math.abs(smooth[end]!) > back * sigma) {
        if (Math.abs(smooth[end]!) > Math.abs(smooth[furthest]!)) furthest = end;
        end++;
      }
      const from = at(both[k]!);
      const to = at(both[end - 1]!);
      if (end - k >= LEAST_SAMPLES && partings.every((p) => p.to < from || p.from > to)) {
        const value = first.values[both[furthest]!]!;
        const expected = factor * value + offset;
        partings.push({
          from,
          to,
          samples: end - k,
          first: value,
          second: expected + smooth[furthest]!,
          expected,
          sigmas: Math.abs(smooth[furthest]!) / sigma,
        });
      }
      k = end;
    }
  }
  return { factor, offset, sigma, partings: partings.sort((a, b) => a.from - b.from) };
}
/** Means over so many values around each; of fewer at the ends. */
function runningMean(values: Float64Array, window: number): Float64Array {
  const half = window >> 1;
  const sums = new Float64Array(values.length + 1);
  values.forEach((v, i) => (sums[i + 1] = sums[i]! + v));
  return values.map((_, i) => {
    const from = Math.max(0, i - half);
    const to = Math.min(values.length, i + half);
    return (sums[to]! - sums[from]!) / (to - from);
  });
}

function lineThrough(x: Float32Array, y: (i: number) => number, some: readonly number[]) {
  const byX = [...some].sort((a, b) => x[a]! - x[b]!);
  const half = byX.length >> 1;
  const sweep = x[byX[byX.length - 1]!]! - x[byX[0]!]!;
  const size = Math.max(Math.abs(x[byX[0]!]!), Math.abs(x[byX[byX.length - 1]!]!));
  if (!(sweep > SWEEP * size)) return undefined;
  const slopes: number[] = [];
  const every = Math.max(1, Math.floor(half / PAIRS));
  for (let i = 0; i < half; i += every) {
    const [a, b] = [byX[i]!, byX[i + half]!];
    if (x[b]! - x[a]! > 0.1 * sweep) slopes.push((y(b) - y(a)) / (x[b]! - x[a]!));
  }
  if (slopes.length === 0) return undefined;
  const factor = median(slopes);
  return { factor, offset: median(byX.map((i) => y(i) - factor * x[i]!)) };
}

/** Steps on either side that a lag is looked for over, and samples compared. */
const LAGS = 400;
const COMPARED = 4_000;

/**
 * By how much one channel runs behind another, seconds, by the largest correlation of the two; negative where it runs
 * ahead. undefined where either does not move or they have nothing in common.
 */
export function lagOf(first: Channel, second: Channel): number | undefined {
  const from = Math.max(timeOf(first, 0), timeOf(second, 0));
  const to = Math.min(timeOf(first, first.values.length - 1), timeOf(second, second.values.length - 1));
  if (!(to > from)) return undefined;
  const step = (to - from) / COMPARED;
  const sampled = (c: Channel) =>
    centred(Float64Array.from({ length: COMPARED }, (_, i) => valueAt(c, from + i * step)));
  const a = sampled(first);
  const b = sampled(second);
  if (!a || !b) return undefined;
  let best = 0;
  let most = -Infinity;
  for (let lag = -LAGS; lag <= LAGS; lag++) {
    let sum = 0;
    for (let i = Math.max(0, -lag); i < COMPARED - Math.max(0, lag); i++) sum += a[i]! * b[i + lag]!;
    const own = Math.abs(sum);
    if (own > most) [most, best] = [own, lag];
  }
  return best * step;
}
function centred(list: Float64Array): Float64Array | undefined {
  const known = list.filter((v) => Number.isFinite(v));
  if (known.length < list.length / 2) return undefined;
  const mean = known.reduce((s, v) => s + v, 0) / known.length;
  if (known.every((v) => Math.abs(v - mean) < 1e-9)) return undefined;
  return list.map((v) => (Number.isFinite(v) ? v - mean : 0));
}

/** The fastest the signal moves, a second, but for one in a hundred differences; of the noise that is left as it is. */
export function slewOf(channel: Channel): number {
  const { values } = channel;
  const slopes = new Float64Array(Math.max(0, values.length - 1)).map(
    (_, i) => Math.abs(values[i + 1]! - values[i]!) / (timeOf(channel, i + 1) - timeOf(channel, i)),
  );
  const sorted = slopes.filter((v) => Number.isFinite(v)).sort();
  return sorted.length ? sorted[Math.floor(0.99 * (sorted.length - 1))]! : NaN;
}
