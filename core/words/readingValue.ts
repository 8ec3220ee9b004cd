import type { ReadingEntry } from "../src/index.js";
import { shownText } from "./reasons.js";

const SCAN_WORDS: Readonly<Record<string, string>> = {
  lowEnd: "at its low end",
  highEnd: "at its high end",
  silent: "no beep",
};

/** One value of a reading as it was shown: in the unit of the instrument, or of the scan tool. */
export function readingValue(
  { instrument, unit }: Pick<ReadingEntry, "instrument" | "unit">,
  value: ReadingEntry["values"][number],
): string {
  if (typeof value === "string") return SCAN_WORDS[value] ?? value;
  return unit === undefined || unit === "V" ? shownText(instrument, value) : `${value} ${unit}`;
}
