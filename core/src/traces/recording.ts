/**
 * One quantity sampled over time. Either `step` is given, and sample `i` was taken at `start + i · step` seconds, or
 * `times` holds the seconds of every sample, rising.
 */
export interface Channel {
  readonly name: string;
  /** as written in the file, prefixes taken out: "V", "A", "°C"; empty where none is known */
  readonly unit: string;
  readonly start: number;
  readonly step: number | undefined;
  readonly times: Float64Array | undefined;
  /** NaN where nothing was read */
  readonly values: Float32Array;
}

/** What one instrument recorded, channel by channel. */
export interface Recording {
  readonly channels: readonly Channel[];
}

/** Channels and samples that one recording may hold: guards against a wrong file. Judgement. */
export const MOST_CHANNELS = 64;
export const MOST_SAMPLES = 60_000_000;

/** A channel sampled evenly. @param start seconds @param step seconds between two samples */
export function evenChannel(
  name: string,
  unit: string,
  start: number,
  step: number,
  values: ArrayLike<number>,
): Channel {
  return {
    name,
    unit,
    start,
    step,
    times: undefined,
    values: values instanceof Float32Array ? values : Float32Array.from(values),
  };
}

/** When sample `i` was taken, seconds. */
export const timeOf = ({ start, step, times }: Channel, i: number): number =>
  times ? times[i]! : start + i * (step ?? 0);

/** From the first sample to the last, seconds. */
export const lengthOf = (channel: Channel): number =>
  channel.values.length === 0 ? 0 : timeOf(channel, channel.values.length - 1) - timeOf(channel, 0);

/** Samples a second: of unevenly sampled channels on average; NaN of fewer than two samples. */
export const rateOf = (channel: Channel): number =>
  channel.values.length < 2 ? NaN : (channel.values.length - 1) / lengthOf(channel);

/** The last sample taken at or before a moment; −1 before the first. @param seconds the moment */
export function indexAt(channel: Channel, seconds: number): number {
  const last = channel.values.length - 1;
  const { times } = channel;
  if (!times) return Math.max(-1, Math.min(last, Math.floor((seconds - channel.start) / (channel.step ?? 1) + 1e-9)));
  let low = -1;
  let high = last;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle]! <= seconds) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** A straight line between the two samples around a moment; NaN outside, and beside a gap. */
export function valueAt(channel: Channel, seconds: number): number {
  const i = indexAt(channel, seconds);
  const { values } = channel;
  if (i < 0) return NaN;
  const a = values[i]!;
  const t = timeOf(channel, i);
  if (seconds === t || i === values.length - 1) return seconds - t < 1e-9 + (channel.step ?? 0) / 2 ? a : NaN;
  return a + ((values[i + 1]! - a) * (seconds - t)) / (timeOf(channel, i + 1) - t);
}

/** The part of a channel between two moments. Nothing is copied but uneven times. */
export function channelPart(channel: Channel, from: number, to: number): Channel {
  const first = Math.max(0, indexAt(channel, from - 1e-12) + 1);
  const end = indexAt(channel, to) + 1;
  return {
    ...channel,
    start: timeOf(channel, first),
    times: channel.times?.subarray(first, end),
    values: channel.values.subarray(first, Math.max(first, end)),
  };
}
