import type { Entry } from "../format/case.js";

/** Minutes between two entries that count as work: a longer gap is a break. Judgement. */
const LONGEST_STEP_MIN = 30;

/** Minutes at the machine, by the dates of the entries, and minutes said to have gone into repairs. */
export function minutesTaken(entries: readonly Entry[]): { readonly testing: number; readonly repairing: number } {
  let testing = 0;
  let repairing = 0;
  entries.forEach((e, i) => {
    const gap = i === 0 ? 0 : (Date.parse(e.at) - Date.parse(entries[i - 1]!.at)) / 60_000;
    if (e.type === "repaired" && e.minutes !== undefined) repairing += e.minutes;
    else if (gap > 0 && gap <= LONGEST_STEP_MIN) testing += gap;
  });
  return { testing: Math.round(testing), repairing: Math.round(repairing) };
}
