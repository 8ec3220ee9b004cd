import type { Entry } from "../format/case.js";
import type { Folded } from "../logbook/fold.js";
import { answersReading, type ReadingSetup } from "../logbook/sameReading.js";
import { ofMachineNow } from "../logbook/told.js";
import { type Candidate, clueOf } from "./candidate.js";
import { watchedBy } from "./candidateKind.js";

/** Whether the logbook already holds what a candidate would bring. */
export function alreadyDone(c: Candidate, all: Folded): boolean {
  const folded = ofMachineNow(all);
  if (c.instrument !== "none")
    return watchedBy(c.kind)
      ? c.points.every((p) => wasWatched(folded, { ...c, points: [p] }))
      : folded.readings.some(({ entry }) => answersReading(entry, c));
  const clue = clueOf(c, true);
  if (clue.type === "identity")
    return folded.clues.some(({ entry }) => entry.type === "identity" && entry.connector === clue.connector);
  if (clue.type === "partNumber")
    return folded.seen.some(({ entry }) => entry.partNumber !== undefined && entry.connector === c.at);
  return folded.clues.some(({ entry }) => entry.type === clue.type && aboutTheSame(entry, clue));
}

/** Whether one value was watched while the harness was moved: channels of a recorder are entries of their own. */
const wasWatched = (folded: Folded, planned: ReadingSetup): boolean =>
  folded.readings.some(
    ({ number, entry }) =>
      answersReading(entry, planned) &&
      (entry.watched !== undefined ||
        entry.swing !== undefined ||
        folded.traces.some((t) => t.number === number && t.entry.doing === "move")),
  );

type About = { readonly thing: string } | { readonly parts: readonly string[] } | object;
function aboutTheSame(entry: Entry, clue: About): boolean {
  if ("thing" in entry) return "thing" in clue && entry.thing === clue.thing;
  return "parts" in entry && "parts" in clue && entry.parts.every((p) => (clue.parts as readonly string[]).includes(p));
}
