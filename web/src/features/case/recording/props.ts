import {
  watchedBy,
  type Candidate,
  type ChannelPlace,
  type Doing,
  type KeyState,
  type Numbered,
  type State,
  type SuspectView,
  type TraceEntry,
  type Wiring,
} from "@radicula/core";
import { wordedList, type Instructor, type Namer } from "@radicula/core/words";
import type { GivenRecording } from "./useRecording";
import { t } from "@/messages";

export interface RecordingProps {
  readonly open: boolean;
  readonly jobId: string;
  readonly practice: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly now: State;
  readonly leader: SuspectView | undefined;
  /** a recording that was dropped, or the id of one that is in the logbook */
  readonly given: GivenRecording | string | undefined;
  /** what the plan asks to be recorded, and what is done meanwhile */
  readonly asked: AskedRecording | undefined;
  readonly traces: readonly Numbered<TraceEntry>[];
  readonly onLog: (entry: TraceEntry) => void;
  readonly onClose: () => void;
}

export interface AskedRecording {
  readonly places: readonly ChannelPlace[];
  readonly doing: Doing;
  readonly seconds: number;
  readonly perSecond: number;
}
/** What a test of the plan asks to be recorded; undefined where it asks for none. */
export function askedBy(candidate: Pick<Candidate, "kind" | "points"> | undefined): AskedRecording | undefined {
  if (!candidate || watchedBy(candidate.kind) !== "recorded") return undefined;
  const isScan = candidate.kind === "scanRecord";
  return {
    places: candidate.points.map((on) => ({ on, by: isScan ? "scanTool" : "scope" })),
    doing: "move",
    seconds: isScan ? 20 : 10,
    perSecond: isScan ? 10 : 1_000,
  };
}

/** One place after the other is moved while a value is recorded at a point. */
export const askedOn = (on: string | undefined): AskedRecording | undefined =>
  on === undefined ? undefined : { places: [{ on, by: "scope" }], doing: "move", seconds: 10, perSecond: 1_000 };

export const DOINGS: readonly { readonly value: Doing; readonly label: string }[] = wordedList(() => [
  { value: "nothing", label: t("recording.nothingMeanwhile") },
  { value: "crank", label: t("recording.cranking") },
  { value: "run", label: t("recording.engineRunning") },
  { value: "sweep", label: t("recording.pressedSlowly") },
  { value: "move", label: t("recording.harnessMoved") },
]);
/** The key that goes with what is done meanwhile. */
export const KEY_WHILE: Readonly<Partial<Record<Doing, KeyState>>> = { crank: "cranking", run: "running" };
