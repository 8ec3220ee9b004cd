import { median } from "./numbers.js";
import { timeOf, type Channel } from "./recording.js";

/** A passage of the middle between the two levels. */
export interface Edge {
  /** seconds, by a straight line between the two samples around it */
  readonly at: number;
  readonly rises: boolean;
}

/**
 * An edge counts once the signal went this far towards the other level: noise at the middle makes no edges. Judgement.
 */
const HYSTERESIS = 0.2;

/**
 * Where a signal passes half way between two levels, with hysteresis of ±20 % of what lies between them.
 * @param low the lower level @param high the upper level, in the channel's unit
 */
export function signalEdges(channel: Channel, low: number, high: number): Edge[] {
  const { values } = channel;
  const half = (low + high) / 2;
  const up = half + HYSTERESIS * (high - low);
  const down = half - HYSTERESIS * (high - low);
  const edges: Edge[] = [];
  let isHigh: boolean | undefined;
  let crossing = NaN;
  for (let i = 0; i < values.length; i++) {
    const v = values[i]!;
    if (i > 0) {
      const before = values[i - 1]!;
      const crosses = isHigh ? before >= half && v < half : before <= half && v > half;
      if (isHigh !== undefined && crosses && before !== v) {
        const t = timeOf(channel, i - 1);
        crossing = t + ((half - before) / (v - before)) * (timeOf(channel, i) - t);
      }
    }
    if (isHigh !== true && v > up) {
      if (isHigh === false) edges.push({ at: crossing, rises: true });
      isHigh = true;
    } else if (isHigh !== false && v < down) {
      if (isHigh === true) edges.push({ at: crossing, rises: false });
      isHigh = false;
    }
  }
  return edges.filter((e) => !Number.isNaN(e.at));
}

/** What the edges of a signal add up to. */
export interface Timing {
  /** from one rising edge to the next, the usual one, seconds */
  readonly period: number;
  readonly hertz: number;
  /** share of the time between two rising edges that it is high */
  readonly duty: number;
  readonly pulses: number;
}

/** Period, frequency and duty; undefined of fewer than two whole periods. */
export function timingOf(edges: readonly Edge[]): Timing | undefined {
  const rising = edges.filter((e) => e.rises);
  if (rising.length < 3) return undefined;
  const periods = rising.slice(1).map((e, i) => e.at - rising[i]!.at);
  const first = rising[0]!.at;
  const last = rising[rising.length - 1]!.at;
  let high = 0;
  let since = NaN;
  for (const e of edges) {
    if (e.at < first || e.at > last) continue;
    if (e.rises) since = e.at;
    else if (!Number.isNaN(since)) high += e.at - since;
  }
  const period = median([...periods]);
  return { period, hertz: 1 / period, duty: high / (last - first), pulses: rising.length };
}

/** Two periods that follow each other differ by less than this factor where a signal switches by itself. Judgement. */
const NEXT_PERIOD = 1.55;
const REGULAR = 0.5;

/** Whether pulses follow each other evenly, as of a wheel or a driver: a loose contact comes and goes at any moment. */
export function isRegular(edges: readonly Edge[]): boolean {
  const rising = edges.filter((e) => e.rises).map((e) => e.at);
  const periods = rising.slice(1).map((t, i) => t - rising[i]!);
  const ratios = periods.slice(1).map((p, i) => p / periods[i]!);
  const alike = ratios.filter((r) => r < NEXT_PERIOD && r > 1 / NEXT_PERIOD);
  return ratios.length > 0 && alike.length > REGULAR * ratios.length;
}

/**
 * From 10 % to 90 % of the way from one level to the other, the usual one, seconds (IEEE 181); NaN where none is seen.
 */
export function riseTime(channel: Channel, low: number, high: number): number {
  const { values } = channel;
  const from = low + 0.1 * (high - low);
  const to = low + 0.9 * (high - low);
  const found: number[] = [];
  let left = NaN;
  for (let i = 1; i < values.length && found.length < 1_000; i++) {
    const a = values[i - 1]!;
    const b = values[i]!;
    const at = (level: number) => {
      const t = timeOf(channel, i - 1);
      return t + ((level - a) / (b - a)) * (timeOf(channel, i) - t);
    };
    if (a <= from && b > from) left = at(from);
    if (a < to && b >= to && !Number.isNaN(left)) {
      found.push(at(to) - left);
      left = NaN;
    }
    if (b < from) left = NaN;
  }
  return median(found);
}
