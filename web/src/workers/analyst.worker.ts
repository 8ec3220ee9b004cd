import {
  analyse,
  assess,
  circumstances,
  courseOf,
  Focus,
  thinkAhead,
  warmUp,
  watchPoint,
  weighCandidate,
  wholeAnswer,
  type Analysis,
  type Belief,
  type Entry,
  type Recommendation,
  type CoursePoint,
  type Feed,
  type Predictor,
  type WholeAnswer,
} from "@radicula/core";
import { expose } from "comlink";
import { Entries, Ids, Intake, readMessage, Step, Wiring } from "./messages";

/** The core behind a worker: what was predicted for the job's wiring, kept as long as the page. */
let focus: Focus | undefined;
/** counts updates and thoughts, so that an older thought knows it is over */
let thought = 0;
let asked = 0;
let begun: Belief | undefined;
/** the last whole answer, which thinking ahead goes on with */
let latest: Analysis | undefined;
const STEP_MS = 12;

const api = {
  open(wiring: unknown): void {
    focus = new Focus(readMessage(Wiring, wiring));
  },
  /** A first look: what to read next, without looking ahead or for several faults. */
  first(message: unknown, progress?: (share: number) => void): Analysis {
    const entries = readMessage(Entries, message);
    const predictor = predictorFor(entries);
    asked++;
    thought++;
    begun = assess(predictor, entries, { multiple: "never", progress: progress && nowAndThen(progress) });
    return analyse(predictor, entries, { quick: true, begun });
  },
  /**
   * The whole analysis of what `first` looked at, looking ahead and for several faults.
   * @returns undefined when something newer was asked meanwhile
   */
  async update(message: unknown): Promise<WholeAnswer | undefined> {
    const entries = readMessage(Entries, message);
    const predictor = predictorFor(entries);
    const mine = asked;
    await new Promise((resolve) => setTimeout(resolve, 0)); // lets a newer question in first
    if (mine !== asked) return undefined;
    const answer = wholeAnswer(predictor, entries, begun);
    latest = answer.analysis;
    return answer;
  },
  /** The value to watch while places are moved. */
  watch(message: unknown): ReturnType<typeof watchPoint> {
    const entries = readMessage(Entries, message);
    const predictor = predictorFor(entries);
    return watchPoint(predictor, analyse(predictor, entries, { quick: true }));
  },
  /** What the answers to a step of a run, or to a reading of one's own, would mean. */
  weigh(message: unknown, candidate: unknown): Recommendation | undefined {
    const entries = readMessage(Entries, message);
    return weighCandidate(predictorFor(entries), entries, readMessage(Step, candidate));
  },
  /** How suspicion on some places went, entry by entry. */
  course(message: unknown, ids: unknown): readonly CoursePoint[] {
    const entries = readMessage(Entries, message);
    return courseOf(predictorFor(entries), entries, readMessage(Ids, ids));
  },
  /** What an intake would do to the rates of faults. */
  feeds(intake: unknown): readonly Feed[] {
    // of the whole machine: what is told before anything is read may be about any part of it
    return focus ? circumstances(focus.wiring, focus.faults, readMessage(Intake, intake)).feeds : [];
  },
  /** Thinks ahead in short steps while the technician puts the leads on; a new update ends it. */
  async think(message: unknown): Promise<void> {
    const entries = readMessage(Entries, message);
    if (!latest) return;
    const mine = ++thought;
    let pause = performance.now() + STEP_MS;
    const steps =
      latest.stage === "waiting" && !focus?.isLarge
        ? warmUp(predictorFor(entries))
        : thinkAhead(predictorFor(entries), entries, latest);
    while (!steps.next().done) {
      if (performance.now() < pause) continue;
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (thought !== mine) return;
      pause = performance.now() + STEP_MS;
    }
  },
};
/** Passes on so many calls only: each is a message to the page. */
function nowAndThen(tell: (share: number) => void): (share: number) => void {
  let next = performance.now() + TELL_EVERY_MS;
  return (share) => {
    const now = performance.now();
    if (now < next) return;
    next = now + TELL_EVERY_MS;
    tell(share);
  };
}
const TELL_EVERY_MS = 150;
function predictorFor(entries: readonly Entry[]): Predictor {
  if (!focus) throw new Error("open a wiring first");
  return focus.predictor(entries);
}
export type AnalystApi = typeof api;
expose(api);
