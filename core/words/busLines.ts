import type { BusLevel, BusSeen, PatternMatch, PatternMissed } from "../src/index.js";
import { t } from "./messages/index.js";
import { channelValue, secondsText } from "./traces.js";
import { worded } from "./language.js";

const STATES: Readonly<Record<Exclude<BusSeen["is"], "talking">, string>> = worded(() => ({
  atRest: t("traces.busAtRest"),
  stuckDominant: t("traces.busStuckDominant"),
  dead: t("traces.busDead"),
  oneLineMissing: t("traces.busOneLineMissing"),
  shorted: t("traces.busShorted"),
}));
const LEVELS: Readonly<Record<BusLevel, string>> = worded(() => ({
  highRecessive: t("traces.levelHighRecessive"),
  lowRecessive: t("traces.levelLowRecessive"),
  highDominant: t("traces.levelHighDominant"),
  lowDominant: t("traces.levelLowDominant"),
  betweenDominant: t("traces.levelBetweenDominant"),
  betweenRecessive: t("traces.levelBetweenRecessive"),
  lineRecessive: t("traces.levelLineRecessive"),
  lineDominant: t("traces.levelLineDominant"),
}));
const volts = (v: number) => channelValue(v, "V");

/** What the lines of a bus do, a sentence each: its state, what is missing, levels that the standard does not allow. */
export function busText(seen: BusSeen): string[] {
  const state =
    seen.is === "talking"
      ? t("traces.busTalking", { share: `${Math.round(100 * seen.dominantShare)} %` })
      : STATES[seen.is];
  const levels =
    seen.dominant === undefined
      ? ""
      : `; ${t("traces.busLevels", { recessive: volts(seen.recessive), dominant: volts(seen.dominant) })}`;
  return [
    `${state}${levels}.`,
    ...(seen.lacksTerminator ? [`${t("traces.busLacksTerminator")}.`] : []),
    ...seen.outside.map(
      (o) =>
        `${t("traces.busOutside", {
          what: LEVELS[o.what],
          value: volts(o.value),
          low: volts(o.low),
          high: volts(o.high),
        })}.`,
    ),
  ];
}

/** Whether a channel goes through a pattern, and how far it got. @param steps dwells of the pattern */
export function patternText(channel: string, found: PatternMatch | PatternMissed, steps: number): string {
  if ("from" in found)
    return `${t("traces.patternFits", { channel, from: secondsText(found.from), to: secondsText(found.to) })}.`;
  return found.fitted > 0
    ? `${t("traces.patternEnds", { channel, fitted: found.fitted, steps, at: secondsText(found.at) })}.`
    : `${t("traces.patternNotBegun", { channel })}.`;
}
