import { levelsOf } from "./levels.js";
import { spanOf, thinned, median } from "./numbers.js";
import { valueAt, timeOf, type Channel } from "./recording.js";

/** What two lines of a bus, or its one line, are seen to do. */
export interface BusSeen {
  readonly is: "talking" | "atRest" | "stuckDominant" | "dead" | "oneLineMissing" | "shorted";
  /** share of the time that a bit is being sent as dominant; 0 at rest */
  readonly dominantShare: number;
  /** volts between the two lines, or of the one line, at rest and while a dominant bit is sent */
  readonly recessive: number;
  readonly dominant: number | undefined;
  /** a dominant bit lies so high that one of the two terminators seems to be missing */
  readonly lacksTerminator: boolean;
  /** levels outside what the standard allows */
  readonly outside: readonly {
    readonly what: BusLevel;
    readonly value: number;
    readonly low: number;
    readonly high: number;
  }[];
}
export type BusLevel =
  | "highRecessive"
  | "lowRecessive"
  | "highDominant"
  | "lowDominant"
  | "betweenDominant"
  | "betweenRecessive"
  | "lineRecessive"
  | "lineDominant";

/**
 * Volts that a transmitter may show, ISO 11898-2:2016, tables 2 and 3 (values from memory): CAN_H dominant 2.75 to 4.5,
 * CAN_L dominant 0.5 to 2.25, between them 1.5 to 3.0; recessive 2.0 to 3.0 each, between them −0.5 to 0.05.
 */
const CAN = {
  highDominant: [2.75, 4.5],
  lowDominant: [0.5, 2.25],
  betweenDominant: [1.5, 3],
  highRecessive: [2, 3],
  lowRecessive: [2, 3],
  betweenRecessive: [-0.5, 0.05],
} as const;
/** Above this between the lines a receiver takes a dominant bit (ISO 11898-2: 0.9 V). */
const DOMINANT_FROM = 0.9;
/** A bus that is dominant for longer than this share talks no more. Judgement. */
const STUCK = 0.95;
/** A line that moves less than this while the other talks is missing, volt. Judgement. */
const STILL = 0.3;
/** Without one of two terminators a dominant bit lies this much higher between the lines, volt. Judgement. */
const HIGH_FOR_TWO_TERMINATORS = 2.6;

/** The two lines of a CAN bus. @param high the channel on CAN_H @param low the channel on CAN_L; volts */
export function canSeen(high: Channel, low: Channel): BusSeen {
  const n = high.values.length;
  const between = new Float64Array(n);
  for (let i = 0; i < n; i++) between[i] = high.values[i]! - valueAt(low, timeOf(high, i));
  const of = (isDominant: boolean, value: (i: number) => number) => {
    const own: number[] = [];
    const every = Math.max(1, Math.floor(n / 50_000));
    for (let i = 0; i < n; i += every)
      if (Number.isFinite(between[i]!) && between[i]! > DOMINANT_FROM === isDominant) own.push(value(i));
    return median(own);
  };
  const known = thinned(between, 50_000);
  const dominantShare = known.filter((v) => v > DOMINANT_FROM).length / Math.max(1, known.length);
  const lowAt = (i: number) => valueAt(low, timeOf(high, i));
  const seen = {
    highRecessive: of(false, (i) => high.values[i]!),
    lowRecessive: of(false, lowAt),
    betweenRecessive: of(false, (i) => between[i]!),
    highDominant: of(true, (i) => high.values[i]!),
    lowDominant: of(true, lowAt),
    betweenDominant: of(true, (i) => between[i]!),
  };
  const outside = (Object.keys(CAN) as (keyof typeof CAN)[]).flatMap((what) => {
    const [from, to] = CAN[what];
    const value = seen[what];
    return Number.isFinite(value) && (value < from || value > to) ? [{ what, value, low: from, high: to }] : [];
  });
  const moves = (c: Channel) => {
    const { least, most } = spanOf(c.values);
    return most - least > STILL;
  };
  const isTalking = moves(high) || moves(low);
  const is = isShorted(seen, isTalking)
    ? "shorted"
    : moves(high) !== moves(low)
      ? "oneLineMissing"
      : dominantShare > STUCK
        ? "stuckDominant"
        : isTalking
          ? "talking"
          : seen.highRecessive < 1
            ? "dead"
            : "atRest";
  return {
    is,
    dominantShare,
    recessive: seen.betweenRecessive,
    dominant: Number.isFinite(seen.betweenDominant) ? seen.betweenDominant : undefined,
    lacksTerminator: isTalking && seen.betweenDominant > HIGH_FOR_TWO_TERMINATORS,
    outside,
  };
}
/** Lines that talk and are never apart are joined to each other. */
const isShorted = (
  seen: { readonly betweenDominant: number; readonly highRecessive: number },
  isTalking: boolean,
): boolean => isTalking && !Number.isFinite(seen.betweenDominant);

/**
 * The one line of a LIN bus. Levels as shares of the supply, ISO 17987-4 (values from memory): a transmitter goes below
 * 20 % for a dominant bit and above 80 % for a recessive one.
 * @param supply volts of the node's supply at that time
 */
export function linSeen(line: Channel, supply: number): BusSeen {
  const { least, most, mean } = spanOf(line.values);
  const levels = levelsOf(line);
  const isTalking = levels !== undefined && levels.high - levels.low > 0.3 * supply;
  const recessive = isTalking ? levels.high : mean;
  const dominant = isTalking ? levels.low : undefined;
  const half = (least + most) / 2;
  const known = thinned(line.values, 50_000);
  const dominantShare = isTalking ? known.filter((v) => v < half).length / known.length : mean < 0.4 * supply ? 1 : 0;
  const outside = [
    ...(recessive < 0.8 * supply && dominantShare < 1
      ? [{ what: "lineRecessive" as const, value: recessive, low: 0.8 * supply, high: supply }]
      : []),
    ...(dominant !== undefined && dominant > 0.2 * supply
      ? [{ what: "lineDominant" as const, value: dominant, low: 0, high: 0.2 * supply }]
      : []),
  ];
  return {
    is: isTalking ? "talking" : dominantShare === 1 ? "stuckDominant" : "atRest",
    dominantShare,
    recessive,
    dominant,
    lacksTerminator: false, // one line has none
    outside,
  };
}
