import type { ReadingEntry } from "../src/index.js";
import { shownText } from "./reasons.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

const SCAN_WORDS: Readonly<Record<string, string>> = worded(() => ({
  lowEnd: t("readingValue.atItsLowEnd"),
  highEnd: t("readingValue.atItsHighEnd"),
  silent: t("readingValue.noBeep"),
}));

/** One value of a reading as it was shown: in the unit of the instrument, or of the scan tool. */
export function readingValue(
  { instrument, unit }: Pick<ReadingEntry, "instrument" | "unit">,
  value: ReadingEntry["values"][number],
): string {
  if (typeof value === "string") return SCAN_WORDS[value] ?? value;
  return unit === undefined || unit === "V" ? shownText(instrument, value) : `${value} ${unit}`;
}
