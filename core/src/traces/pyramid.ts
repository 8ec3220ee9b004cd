import { indexAt, timeOf, type Channel } from "./recording.js";

/** Samples taken together from one level of the pyramid to the next. */
const TOGETHER = 8;
/** Where a level has fewer than this, there is no need of another. */
const SMALLEST = 1_024;

/** Least and most of ever more samples taken together: any stretch is drawn from about as many as it has pixels. */
export interface Pyramid {
  readonly channel: Channel;
  readonly levels: readonly { readonly size: number; readonly least: Float32Array; readonly most: Float32Array }[];
}

/** Takes two more numbers for every seven samples: about a third of the channel's own memory. */
export function pyramidOf(channel: Channel): Pyramid {
  const levels: { size: number; least: Float32Array; most: Float32Array }[] = [];
  let least: Float32Array = channel.values;
  let most: Float32Array = channel.values;
  for (let size = TOGETHER; least.length > SMALLEST; size *= TOGETHER) {
    const count = Math.ceil(least.length / TOGETHER);
    const low = new Float32Array(count);
    const high = new Float32Array(count);
    for (let k = 0; k < count; k++) {
      let a = Infinity;
      let b = -Infinity;
      const end = Math.min(least.length, (k + 1) * TOGETHER);
      for (let i = k * TOGETHER; i < end; i++) {
        if (least[i]! < a) a = least[i]!;
        if (most[i]! > b) b = most[i]!;
      }
      low[k] = a === Infinity ? NaN : a;
      high[k] = b === -Infinity ? NaN : b;
    }
    levels.push({ size, least: low, most: high });
    [least, most] = [low, high];
  }
  return { channel, levels };
}

/** A stretch of a channel ready to be drawn. */
export interface Stretch {
  readonly seconds: Float64Array;
  readonly values: Float32Array;
}

/**
 * What to draw of a channel between two moments: every sample where there are few, else the least and the most of as
 * many together as lie behind about one pixel. @param pixels how wide it is drawn
 */
export function stretchOf({ channel, levels }: Pyramid, from: number, to: number, pixels: number): Stretch {
  const first = Math.max(0, indexAt(channel, from));
  const last = Math.min(channel.values.length - 1, indexAt(channel, to) + 1);
  const count = last - first + 1;
  if (count <= 0) return { seconds: new Float64Array(0), values: new Float32Array(0) };
  const level = [...levels].reverse().find((l) => count / l.size >= pixels);
  if (!level)
    return {
      seconds: Float64Array.from({ length: count }, (_, i) => timeOf(channel, first + i)),
      values: channel.values.slice(first, last + 1),
    };
  const begin = Math.floor(first / level.size);
  const end = Math.min(level.least.length - 1, Math.floor(last / level.size));
  const seconds = new Float64Array(2 * (end - begin + 1));
  const values = new Float32Array(seconds.length);
  for (let k = begin; k <= end; k++) {
    const a = timeOf(channel, Math.min(channel.values.length - 1, k * level.size));
    const b = timeOf(channel, Math.min(channel.values.length - 1, (k + 1) * level.size - 1));
    const at = 2 * (k - begin);
    seconds[at] = a;
    seconds[at + 1] = a + (b - a) / 2;
    values[at] = level.least[k]!;
    values[at + 1] = level.most[k]!;
  }
  return { seconds, values };
}
