import type { Doing, KeyState, Numbered, State, SuspectView, TraceEntry, Wiring } from "@radicula/core";
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
  readonly traces: readonly Numbered<TraceEntry>[];
  readonly onLog: (entry: TraceEntry) => void;
  readonly onClose: () => void;
}

export const DOINGS: readonly { readonly value: Doing; readonly label: string }[] = wordedList(() => [
  { value: "nothing", label: t("recording.nothingMeanwhile") },
  { value: "crank", label: t("recording.cranking") },
  { value: "run", label: t("recording.engineRunning") },
  { value: "sweep", label: t("recording.pressedSlowly") },
  { value: "move", label: t("recording.harnessMoved") },
]);
/** The key that goes with what is done meanwhile. */
export const KEY_WHILE: Readonly<Partial<Record<Doing, KeyState>>> = { crank: "cranking", run: "running" };
