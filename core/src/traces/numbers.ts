/** Values taken to estimate a middle or a spread of a long channel: more tell no more. Judgement. */
const ENOUGH = 20_000;
/** σ of a normal distribution from the median distance from its middle. Textbook: 1 / 0.6745. */
const SIGMA_OF_MEDIAN = 1.4826;

/** Every so many finite values of an array, at most about `ENOUGH`. */
export function thinned(values: ArrayLike<number>, most = ENOUGH): number[] {
  const every = Math.max(1, Math.floor(values.length / most));
  const out: number[] = [];
  for (let i = 0; i < values.length; i += every) if (Number.isFinite(values[i])) out.push(values[i]!);
  return out;
}

/** The middle one of some numbers, NaN of none; the order of `list` is changed. */
export function median(list: number[] | Float64Array | Float32Array): number {
  if (list.length === 0) return NaN;
  const sorted = Array.isArray(list) ? Float64Array.from(list).sort() : list.sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** Where most of some numbers lie: a tenth of them is below, a tenth above; NaN of none. */
export function mostOf(list: readonly number[]): { readonly low: number; readonly high: number } {
  const sorted = Float64Array.from(list).sort();
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))] ?? NaN;
  return { low: at(0.1), high: at(0.9) };
}

/** A spread that outliers do not widen: σ of the normal distribution with the same median distance. */
export function robustSigma(list: readonly number[]): number {
  const middle = median([...list]);
  return SIGMA_OF_MEDIAN * median(list.map((x) => Math.abs(x - middle)));
}

/**
 * Noise from one sample to the next, σ: half the variance of differences is the noise while the signal is slow. Steps
 * of the instrument count as noise of a third of a step.
 */
export function noiseOf(values: ArrayLike<number>): number {
  const every = Math.max(1, Math.floor(values.length / ENOUGH));
  const differences: number[] = [];
  let quantum = Infinity;
  for (let i = 1; i < values.length; i += every) {
    const d = Math.abs(values[i]! - values[i - 1]!);
    if (!(d < Infinity)) continue;
    differences.push(d);
    if (d > 0 && d < quantum) quantum = d;
  }
  const own = (SIGMA_OF_MEDIAN * median(differences)) / Math.SQRT2;
  return Math.max(Number.isFinite(own) ? own : 0, quantum < Infinity ? quantum / Math.sqrt(12) : 0);
}

/** Least, most and mean of what was read, and how much of it; NaN where nothing was. */
export function spanOf(values: ArrayLike<number>): {
  readonly least: number;
  readonly most: number;
  readonly mean: number;
  readonly count: number;
} {
  let least = Infinity;
  let most = -Infinity;
  let sum = 0;
  let count = 0;
  for (let i = 0; i < values.length; i++) {
    const v = values[i]!;
    if (!(v - v === 0)) continue; // NaN or infinite
    if (v < least) least = v;
    if (v > most) most = v;
    sum += v;
    count++;
  }
  return count === 0 ? { least: NaN, most: NaN, mean: NaN, count } : { least, most, mean: sum / count, count };
}

/** Chance that noise of a normal distribution goes beyond `z` σ to one side. Abramowitz & Stegun 7.1.26. */
export function tail(z: number): number {
  if (z < 0) return 1 - tail(-z);
  const x = z / Math.SQRT2;
  const k = 1 / (1 + 0.3275911 * x);
  const p = ((((1.061405429 * k - 1.453152027) * k + 1.421413741) * k - 0.284496736) * k + 0.254829592) * k;
  return 0.5 * p * Math.exp(-x * x);
}
