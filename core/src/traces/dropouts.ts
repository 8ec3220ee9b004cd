import { median, robustSigma, noiseOf, spanOf, tail } from "./numbers.js";
import { timeOf, type Channel } from "./recording.js";
import { finished, type InSteps } from "../steps.js";

/** A short leave from where the signal was, and back. */
export interface Dropout {
  readonly from: number;
  readonly to: number;
  readonly samples: number;
  /** where it went to: the middle of its samples */
  readonly value: number;
  /** where it was before and after */
  readonly base: number;
  /** chance that noise alone shows such a thing anywhere in this recording */
  readonly chance: number;
}

/** A sample this many σ from the baseline is out: by noise three in a row once in 10¹⁶. Judgement. */
const OUT = 4.5;
/** Fewer samples than this are taken for a disturbance of the instrument. */
const LEAST_SAMPLES = 3;
/** What it goes back to differs from where it was by less than this share of the depth. Judgement. */
const BACK = 0.35;
/** Samples before and after by which the return is judged. */
const BESIDE = 8;
/** Lengths of the baseline's blocks, samples: each finds leaves of up to half its own. */
const SHORTEST_BLOCK = 32;
const LONGER = 8;
const LEAST_BLOCKS = 4;
/** Leaves smaller than this share of what the channel spans are noise of the source. Judgement. */
const LEAST_SHARE = 0.02;
/** Leaves smaller than this share of where the signal stands are its ripple: a load on the same feed. Judgement. */
const LEAST_OF_LEVEL = 0.005;
/** Samples of a block by which its middle is told. */
const MOST_OF_BLOCK = 257;
/** So many are listed. */
const MOST = 2_000;

/**
 * Leaves of at least three samples from a baseline made of block medians, which go back to where they came from: a
 * contact that opens and closes, a wire that touches and lets go. For signals that do not switch by themselves.
 */
export const dropoutsOf = (channel: Channel): Dropout[] => finished(dropoutsInSteps(channel));

/** The same, one length of block at a time. */
export function* dropoutsInSteps(channel: Channel): InSteps<Dropout[]> {
  const { values } = channel;
  const { least, most } = spanOf(values);
  if (!(most > least)) return [];
  const found: Dropout[] = [];
  for (let block = SHORTEST_BLOCK; block * LEAST_BLOCKS <= values.length || block === SHORTEST_BLOCK; block *= LONGER) {
    for (const d of leaves(channel, block, most - least))
      if (found.every((f) => d.to < f.from || d.from > f.to)) found.push(d);
    if (found.length > MOST) break;
    yield;
  }
  return found.sort((a, b) => a.from - b.from).slice(0, MOST);
}

function leaves(channel: Channel, block: number, span: number): Dropout[] {
  const { values } = channel;
  const base = baseline(values, block);
  const every = Math.max(1, Math.floor(values.length / 20_000));
  const residuals: number[] = [];
  for (let i = 0; i < values.length; i += every) {
    const r = values[i]! - base(i);
    if (Number.isFinite(r)) residuals.push(r);
  }
  const sigma = Math.max(robustSigma(residuals), noiseOf(values), 1e-9);
  const limit = Math.max(OUT * sigma, LEAST_SHARE * span);
  const out: Dropout[] = [];
  const isOut = (i: number, side: number) => side * (values[i]! - base(i)) > limit;
  for (let i = 0; i < values.length; i++) {
    const side = isOut(i, 1) ? 1 : isOut(i, -1) ? -1 : 0;
    if (side === 0) continue;
    let end = i + 1;
    while (end < values.length && isOut(end, side)) end++;
    const one = leaveOf(channel, i, end, sigma, block);
    if (one) out.push(one);
    i = end;
    if (out.length > MOST) break;
  }
  return out;
}

function leaveOf(channel: Channel, from: number, end: number, sigma: number, block: number): Dropout | undefined {
  const { values } = channel;
  const samples = end - from;
  if (samples < LEAST_SAMPLES || samples > block || from < LEAST_SAMPLES || end + LEAST_SAMPLES > values.length)
    return undefined;
  const before = median(Float64Array.from(values.subarray(Math.max(0, from - BESIDE - 1), from - 1)));
  const after = median(Float64Array.from(values.subarray(end + 1, end + 1 + BESIDE)));
  const inside = median(Float64Array.from(values.subarray(from, end)));
  const base = (before + after) / 2;
  const depth = inside - base;
  const least = Math.max(OUT * sigma, LEAST_OF_LEVEL * Math.abs(base));
  if (!(Math.abs(before - after) < BACK * Math.abs(depth)) || Math.abs(depth) < least) return undefined;
  const chance = Math.min(1, values.length * tail(Math.abs(depth) / sigma) ** Math.min(samples, 20));
  return { from: timeOf(channel, from), to: timeOf(channel, end - 1), samples, value: inside, base, chance };
}

/** Medians of blocks, joined by straight lines. @returns the baseline at a sample */
function baseline(values: Float32Array, block: number): (i: number) => number {
  const blocks = Math.max(1, Math.floor(values.length / block));
  const middles = new Float64Array(blocks);
  const some = new Float64Array(2 * MOST_OF_BLOCK);
  for (let b = 0; b < blocks; b++) {
    const end = b === blocks - 1 ? values.length : (b + 1) * block;
    const every = Math.max(1, Math.floor((end - b * block) / MOST_OF_BLOCK));
    let count = 0;
    for (let i = b * block; i < end; i += every) if (values[i]! - values[i]! === 0) some[count++] = values[i]!;
    middles[b] = median(some.subarray(0, count));
  }
  // of blocks in which nothing was read, and a jump within a block: the neighbours' middle
  for (let b = 0; b < blocks; b++) if (Number.isNaN(middles[b]!)) middles[b] = middles[b - 1] ?? NaN;
  const smooth = middles.map((m, b) => {
    const around = [middles[b - 1] ?? m, m, middles[b + 1] ?? m].sort((x, y) => x - y);
    return around[1]!;
  });
  return (i) => {
    const at = Math.max(0, Math.min(blocks - 1, i / block - 0.5));
    const b = Math.min(blocks - 1, Math.floor(at));
    const next = Math.min(blocks - 1, b + 1);
    return smooth[b]! + (at - b) * (smooth[next]! - smooth[b]!);
  };
}
