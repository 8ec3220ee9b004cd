import type { Instrument, ReadingEntry, State } from "../format/case.js";
import { stateName } from "../network/state.js";
import { isPlainBlack } from "../wiring/points.js";

/** How a reading is taken: what makes two of them the same reading. */
export interface ReadingSetup {
  readonly instrument: Instrument | "none";
  readonly points: readonly string[];
  readonly state: State;
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

/** Whether a reading taken answers one that is planned: the same set-up, and the red lead was at each of its points. */
export const answersReading = (taken: ReadingSetup, planned: ReadingSetup): boolean =>
  sameSetup(taken, planned) && planned.points.every((p) => taken.points.includes(p));
