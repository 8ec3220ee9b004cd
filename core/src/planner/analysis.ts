import type { Feed } from "../diagnosis/circumstances.js";
import type { Misplaced, Suspect } from "../diagnosis/groups.js";
import type { Reason } from "../diagnosis/reasons.js";
import type { Instrument, RunName } from "../format/case.js";
import type { Issue } from "../issues/issue.js";
import type { Folded } from "../logbook/fold.js";
import type { Answer } from "./answers.js";
import type { Candidate } from "./candidate.js";
import type { Economics } from "./economics.js";
import type { Outcome } from "./outcome.js";
import type { Proof } from "../proof/plan.js";
import type { PolicyMinutes } from "./lookAhead.js";
import type { Stage } from "./plan.js";
import type { Policy } from "./policies.js";

/** Goes up whenever the same logbook may be weighed otherwise. */
export const ENGINE_VERSION = "0.18.0";

export interface SuspectView extends Suspect {
  /** present codes that this suspect would set, and all present codes that have a set condition */
  readonly explains: number;
  readonly outOf: number;
  readonly reasons: readonly Reason[];
  /**
   * the test that tells it best from the leader (the leader: from the next), and how surely: 1 where no answer fits
   * both
   */
  readonly splitBy: SplitBy | undefined;
}
export interface SplitBy {
  readonly candidate: Candidate;
  readonly from: string;
  readonly apart: number;
}
export interface Recommendation {
  readonly candidate: Candidate;
  /** expected information about the suspects, bits, and its share of what is still open */
  readonly bits: number;
  readonly shareOfOpen: number;
  readonly answers: readonly (readonly Answer[])[];
  /** what a machine without a fault would show at the last point; NaN where that is no figure, or was not asked for */
  readonly healthy: number;
}
export interface NarrowingView {
  readonly suspects: readonly Suspect[];
  /** the best first; answers number the suspects above */
  readonly next: readonly Recommendation[];
}
export interface ReadingView {
  readonly number: number;
  readonly point: string;
  readonly value: number;
  readonly instrument: Instrument;
  /** what a machine without a fault would show; NaN when it proves nothing */
  readonly healthy: number;
  /** what the leading suspect predicts */
  readonly leading: number;
}
export interface Analysis {
  readonly engine: string;
  /** of a repair: how it turned out, and what is still to be done to prove it; undefined where nothing was repaired */
  readonly proof?: Proof | undefined;
  readonly stage: Stage;
  readonly suspects: readonly SuspectView[];
  /** what to do next, the school's choice first; whatever tells two suspects apart is among it */
  readonly next: readonly Recommendation[];
  readonly school: Policy;
  /** number of the one reading that does not fit what leads: it is asked for once more before anything is declared */
  readonly again: number | undefined;
  /** expected minutes until one suspect is left: as the school would have it, where it looks that far */
  readonly minutesLeft: number | undefined;
  /** the guided run that is expected to get there sooner than the next test by itself */
  readonly runFirst: { readonly run: RunName; readonly on: string; readonly minutes: number } | undefined;
  /** what other schools are expected to take from here on, minutes */
  readonly minutesByPolicy: PolicyMinutes | undefined;
  /** whether one more test or the part now is the cheaper course; undefined until one suspect leads */
  readonly economics: Economics | undefined;
  /** how likely readings at one connector were taken at another */
  readonly misplaced: readonly Misplaced[];
  readonly readings: readonly ReadingView[];
  /** suspicion on each thing: wires, cavities, splices, grounds, fuses, devices, module pins; by id */
  readonly suspicion: ReadonlyMap<string, number>;
  /** fewest faults that together set every present code, the likeliest first; by fault id */
  readonly explanations: readonly (readonly string[])[];
  /** where a verdict is one of several repairs: each as a suspect of its own, and the tests that tell them apart */
  readonly narrowing: NarrowingView | undefined;
  /** what is proven of the leading cause, and which repairs are open; undefined where no cause leads */
  readonly outcome: Outcome | undefined;
  readonly remarks: readonly Issue[];
  readonly folded: Folded;
  /** what the intake did to the rates of faults */
  readonly feeds: readonly Feed[];
}
