import { fail, issue, ok, type Result } from "../issues/issue.js";
import { spanOf } from "./numbers.js";
import { timeOf, type Channel } from "./recording.js";

/** One dwell of a pattern: at a level, for a time. */
export interface Dwell {
  /** in the channel's unit */
  readonly low: number;
  readonly high: number;
  /** seconds; undefined where any time will do */
  readonly least: number | undefined;
  readonly most: number | undefined;
}
/** Where a pattern was found, or how far it got. */
export interface PatternMatch {
  readonly from: number;
  readonly to: number;
}
export interface PatternMissed {
  /** dwells that fitted before one did not */
  readonly fitted: number;
  /** when the first that did not fit begins, seconds; NaN where not even the first was seen */
  readonly at: number;
}

const NUMBER = "([-+]?\\d+(?:[.,]\\d+)?)";
const STEP = new RegExp(
  `^${NUMBER}(?:\\s*(?:±|\\+-)\\s*${NUMBER})?\\s*` +
    `(?:(?:for|für)\\s+${NUMBER}(?:\\s*(?:to|bis|\\.\\.)\\s*${NUMBER})?\\s*(us|µs|ms|s))?$`,
  "u",
);
const SECONDS: Readonly<Record<string, number>> = { us: 1e-6, µs: 1e-6, ms: 1e-3, s: 1 };
/** A level typed without a tolerance is good within this share of it, or this much. Judgement. */
const LEVEL_SHARE = 0.1;
const LEVEL_FLOOR = 0.2;
/** A time typed without a range is good within this share. Judgement. */
const TIME_SHARE = 0.2;

/**
 * A pattern of levels and times, as one writes it: `5 for 20 to 40 ms, 0.2 for 5 ms, 5±0.5`. Levels are in the unit of
 * the channel. @returns the dwells, or `trace.pattern-step` with the part that is not understood
 */
export function parsePattern(text: string): Result<readonly Dwell[]> {
  const dwells: Dwell[] = [];
  const parts = text.split(/[;\n]|,(?=\s)/).map((p) => p.trim());
  for (const [i, part] of parts.entries()) {
    const m = STEP.exec(part);
    if (!m) return fail([issue("trace.pattern-step", [i], { step: i + 1, text: part.slice(0, 60) })]);
    const number = (s: string | undefined) => (s === undefined ? undefined : Number(s.replace(",", ".")));
    const level = number(m[1])!;
    const tolerance = number(m[2]) ?? Math.max(LEVEL_FLOOR, LEVEL_SHARE * Math.abs(level));
    const scale = SECONDS[m[5] ?? "s"]!;
    const least = number(m[3]);
    const most = number(m[4]);
    dwells.push({
      low: level - tolerance,
      high: level + tolerance,
      least: least === undefined ? undefined : least * scale * (most === undefined ? 1 - TIME_SHARE : 1),
      most: least === undefined ? undefined : (most ?? least * (1 + TIME_SHARE)) * scale,
    });
  }
  return ok(dwells);
}

/** Samples in passing from one level to the next. */
const PASSING = 3;

/**
 * The first place where a channel goes through all dwells of a pattern in order; up to three samples in passing from
 * one to the next belong to neither. Else how far the best try got.
 */
export function matchPattern(channel: Channel, pattern: readonly Dwell[]): PatternMatch | PatternMissed {
  const { values } = channel;
  let best: PatternMissed = { fitted: 0, at: NaN };
  const first = pattern[0];
  if (!first || spanOf(values).count === 0) return best;
  for (let i = 0; i < values.length; i++) {
    if (!fits(values[i]!, first) || (i > 0 && fits(values[i - 1]!, first))) continue;
    const tried = tryAt(channel, pattern, i);
    if ("from" in tried) return tried;
    if (tried.fitted > best.fitted) best = tried;
  }
  return best;
}
const fits = (v: number, { low, high }: Dwell) => v >= low && v <= high;

function tryAt(channel: Channel, pattern: readonly Dwell[], start: number): PatternMatch | PatternMissed {
  const { values } = channel;
  const at = (i: number) => timeOf(channel, Math.min(i, values.length - 1));
  let i = start;
  for (const [k, dwell] of pattern.entries()) {
    const from = i;
    while (i < values.length && fits(values[i]!, dwell)) i++;
    const seconds = at(i) - at(from);
    const isLast = k === pattern.length - 1;
    const long = isLast && (dwell.most === undefined || seconds >= (dwell.least ?? 0));
    if (i === from || seconds < (dwell.least ?? 0) || (!long && seconds > (dwell.most ?? Infinity)))
      return { fitted: k, at: at(from) };
    if (isLast) return { from: at(start), to: at(i) };
    const next = pattern[k + 1]!;
    for (let p = 0; p < PASSING && i < values.length && !fits(values[i]!, next); p++) i++;
  }
  return { fitted: 0, at: NaN };
}
