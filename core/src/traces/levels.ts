import type { Channel } from "./recording.js";
import { noiseOf, spanOf } from "./numbers.js";

/** The two states of a switching signal. */
export interface Levels {
  readonly low: number;
  readonly high: number;
  /** whether the signal stays at the two and is only passing in between */
  readonly isSwitching: boolean;
}

const BINS = 256;
/** Samples this near a level, as a share of what lies between the two, are at it. IEEE 181 uses 10 % and 90 %. */
const AT_LEVEL = 0.1;
/** A switching signal is at one level or the other for at least this share of its samples. Judgement. */
const MOSTLY = 0.75;
/** Both levels are held for at least this share of the samples. Judgement. */
const HELD = 0.002;
/** Levels nearer than this many σ of the noise are one level. Judgement. */
const APART = 8;

/**
 * Low and high state by the modes of the histogram's two halves (IEEE 181). Values of a level that are spread
 * by noise are averaged around the mode.
 *
 * @returns undefined where nothing was read, or the signal does not move
 */
export function levelsOf({ values }: Channel): Levels | undefined {
  const { least, most, count } = spanOf(values);
  if (count === 0 || !(most > least)) return undefined;
  const scale = BINS / (most - least);
  const histogram = new Float64Array(BINS);
  const sums = new Float64Array(BINS);
  for (let i = 0; i < values.length; i++) {
    const v = values[i]!;
    if (!(v - v === 0)) continue;
    const bin = Math.min(BINS - 1, Math.floor((v - least) * scale));
    histogram[bin] = histogram[bin]! + 1;
    sums[bin] = sums[bin]! + v;
  }
  const low = modeOf(histogram, sums, 0, BINS / 2);
  const high = modeOf(histogram, sums, BINS / 2, BINS);
  const near = AT_LEVEL * (high - low);
  let atLow = 0;
  let atHigh = 0;
  for (let bin = 0; bin < BINS; bin++) {
    const centre = least + (bin + 0.5) / scale;
    if (Math.abs(centre - low) <= near) atLow += histogram[bin]!;
    else if (Math.abs(centre - high) <= near) atHigh += histogram[bin]!;
  }
  const isSwitching =
    atLow + atHigh > MOSTLY * count &&
    Math.min(atLow, atHigh) > HELD * count &&
    high - low > APART * noiseWithin(values, (low + high) / 2);
  return { low, high, isSwitching };
}

/** The mean of the fullest bin between two and of those around it. */
function modeOf(histogram: Float64Array, sums: Float64Array, from: number, to: number): number {
  let best = from;
  for (let bin = from; bin < to; bin++) if (histogram[bin]! > histogram[best]!) best = bin;
  let count = 0;
  let sum = 0;
  for (let bin = Math.max(from, best - 3); bin <= Math.min(to - 1, best + 3); bin++) {
    count += histogram[bin]!;
    sum += sums[bin]!;
  }
  return sum / count;
}

/** Noise while the signal stays on one side of half way. */
function noiseWithin(values: Float32Array, half: number): number {
  const side = new Float32Array(Math.min(values.length, 40_000));
  for (let i = 0; i < side.length; i++)
    side[i] = values[i]! > half === values[Math.max(0, i - 1)]! > half ? values[i]! : NaN;
  return noiseOf(side);
}
