import { clueLikelihood } from "../diagnosis/clues.js";
import type { Clue } from "../diagnosis/evidence.js";
import type { Misplacement } from "../diagnosis/misplaced.js";
import type { Fault } from "../faults/fault.js";
import type { Instrument, State } from "../format/case.js";
import type { CandidateKind } from "./candidateKind.js";

/** What is put on a machine for a test. */
export const FITTED_THINGS = ["jumper", "lamp"] as const;
export type FittedThing = (typeof FITTED_THINGS)[number];

/**
 * One thing that could be done next: a reading in a given state, or a look, a wiggle, a swap. `id`: see
 * format/candidateId.
 */
export interface Candidate {
  readonly id: string;
  readonly kind: CandidateKind;
  /** "none": eyes and hands; the answer is one of few words */
  readonly instrument: Instrument | "none";
  /** where the red lead goes; the thing looked at or moved; the two parts swapped */
  readonly points: readonly string[];
  readonly state: State;
  /** the connector to reach for the reading itself, or the fuse; "" for the driver's seat */
  readonly at: string;
  /** what must be done to get from the present state to this one */
  readonly unplug: readonly string[];
  readonly plug: readonly string[];
  readonly turnKey: boolean;
  /** what was put on for an earlier test and comes off first */
  readonly takeOff?: readonly FittedThing[];
  /** fuses pulled for an earlier test that go back in first */
  readonly fuseBack?: readonly string[];
  readonly minutes: number;
  /** where the black lead goes, when not at battery negative */
  readonly black?: string;
  /** on the part's own pins: taken out, or new */
  readonly part?: "removed" | "new";
}

/** A clue has a date in the logbook; one that is only thought of has this one. */
const NO_DATE = "2000-01-01T00:00:00Z";

/** The clue a candidate without an instrument would bring, for either answer. */
export function clueOf(c: Pick<Candidate, "kind" | "points">, positive: boolean): Clue {
  const at = NO_DATE;
  switch (c.kind) {
    case "wiggle":
      return { type: "wiggle", at, thing: c.points[0]!, reacted: positive };
    case "swap":
      return { type: "swap", at, parts: [c.points[0]!, c.points[1]!], result: positive ? "moved" : "stayed" };
    case "identity":
      return { type: "identity", at, connector: c.points[0]!, right: !positive };
    case "partNumber":
      return { type: "partNumber", parts: c.points, same: !positive };
    default:
      return {
        type: "look",
        at,
        thing: c.points[0]!,
        found: positive ? ["rubbed", "green", "pushedBack"] : ["nothing"],
      };
  }
}

/** Probability of the answer "yes" to a candidate without an instrument, given what is wrong. */
export function yesLikelihood(
  c: Pick<Candidate, "kind" | "points">,
  faults: readonly Fault[],
  comesAndGoes: boolean,
  misplaced?: Pick<Misplacement, "from" | "to">,
): number {
  // a look may find many things: it is yes when it does not find nothing
  return c.kind === "look"
    ? 1 - clueLikelihood(clueOf(c, false), faults, comesAndGoes)
    : clueLikelihood(clueOf(c, true), faults, comesAndGoes, misplaced);
}
