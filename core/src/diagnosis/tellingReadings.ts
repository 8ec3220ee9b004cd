import type { ReadingEvidence } from "./evidence.js";
import { readingName } from "./readingWeights.js";

/** So many readings rank the sets: the latest, each value once. All of them weigh the sets afterwards. */
const MOST_READINGS = 150;
export function telling(readings: readonly ReadingEvidence[]): readonly ReadingEvidence[] {
  const latest = new Map(readings.map((e) => [readingName(e), e]));
  return [...latest.values()].slice(-MOST_READINGS);
}
