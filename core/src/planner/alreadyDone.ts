import type { Entry, ReadingEntry } from "../format/case.js";
import type { Folded } from "../logbook/fold.js";
import { ofMachineNow } from "../logbook/told.js";
import { stateName } from "../network/state.js";
import { isPlainBlack } from "../wiring/points.js";
import { type Candidate, clueOf } from "./candidate.js";

/** How a reading is taken: what makes two of them the same reading. */
export interface ReadingSetup {
  readonly instrument: Candidate["instrument"];
  readonly points: readonly string[];
  readonly state: Candidate["state"];
  readonly black?: string | undefined;
  readonly part?: ReadingEntry["part"] | undefined;
}

const blackLead = (at: string | undefined) => (isPlainBlack(at) ? undefined : at);

/** Same instrument, machine state and black lead, and both on the machine or both on the same loose part. */
function sameSetup(a: ReadingSetup, b: ReadingSetup): boolean {
  return (
    a.instrument === b.instrument &&
    blackLead(a.black) === blackLead(b.black) &&
    a.part === b.part &&
    stateName(a.state) === stateName(b.state)
  );
}

/** Whether two readings are taken in the same way at the same points. */
export const sameReading = (a: ReadingSetup, b: ReadingSetup): boolean =>
  sameSetup(a, b) && a.points.join(" ") === b.points.join(" ");

/** Whether a reading taken answers a candidate: the same set-up, and the red lead was at each of its points. */
const answersReading = (taken: ReadingSetup, c: ReadingSetup): boolean =>
  sameSetup(taken, c) && c.points.every((p) => taken.points.includes(p));

/** Whether the logbook already holds what a candidate would bring. */
export function alreadyDone(c: Candidate, all: Folded): boolean {
  const folded = ofMachineNow(all);
  if (c.instrument !== "none") return folded.readings.some(({ entry }) => answersReading(entry, c));
  const clue = clueOf(c, true);
  if (clue.type === "identity")
    return folded.clues.some(({ entry }) => entry.type === "identity" && entry.connector === clue.connector);
  if (clue.type === "partNumber")
    return folded.seen.some(({ entry }) => entry.partNumber !== undefined && entry.connector === c.at);
  return folded.clues.some(({ entry }) => entry.type === clue.type && aboutTheSame(entry, clue));
}

type About = { readonly thing: string } | { readonly parts: readonly string[] } | object;
function aboutTheSame(entry: Entry, clue: About): boolean {
  if ("thing" in entry) return "thing" in clue && entry.thing === clue.thing;
  return "parts" in entry && "parts" in clue && entry.parts.every((p) => (clue.parts as readonly string[]).includes(p));
}
