import {
  analyse,
  assess,
  circumstances,
  courseOf,
  Predictor,
  runOffers,
  thinkAhead,
  watchPoint,
  weighCandidate,
  type Analysis,
  type Belief,
  type Recommendation,
  type RunOffer,
  type CoursePoint,
  type Feed,
} from "@radicula/core";
import { expose } from "comlink";
import { Entries, Ids, Intake, readMessage, Step, Wiring } from "./messages";

/** The core behind a worker: one predictor for the job's wiring, kept as long as the page. */
let predictor: Predictor | undefined;
/** counts updates and thoughts, so that an older thought knows it is over */
let thought = 0;
let asked = 0;
let begun: Belief | undefined;
/** the last whole answer, which thinking ahead goes on with */
let latest: Analysis | undefined;
const STEP_MS = 12;

const api = {
  open(wiring: unknown): void {
    predictor = new Predictor(readMessage(Wiring, wiring));
  },
  /** A first look. @returns a first suggestion, without looking ahead, where the whole answer will take a while */
  first(message: unknown): Analysis | undefined {
    const entries = readMessage(Entries, message);
    if (!predictor) throw new Error("open a wiring first");
    asked++;
    thought++;
    begun = assess(predictor, entries, { multiple: "never" });
    return begun.unfinished ? analyse(predictor, entries, { quick: true, begun }) : undefined;
  },
  /**
   * The whole analysis of what `first` looked at, looking ahead and for several faults.
   * @returns undefined when something newer was asked meanwhile
   */
  async update(message: unknown): Promise<{ analysis: Analysis; offers: readonly RunOffer[] } | undefined> {
    const entries = readMessage(Entries, message);
    if (!predictor) throw new Error("open a wiring first");
    const mine = asked;
    await new Promise((resolve) => setTimeout(resolve, 0)); // lets a newer question in first
    if (mine !== asked) return undefined;
    const analysis = analyse(predictor, entries, { begun });
    const offers = analysis.folded.run ? [] : runOffers(predictor, analysis);
    latest = analysis;
    return { analysis, offers };
  },
  /** The value to watch while places are moved. */
  watch(message: unknown): ReturnType<typeof watchPoint> {
    const entries = readMessage(Entries, message);
    return predictor ? watchPoint(predictor, analyse(predictor, entries, { quick: true })) : undefined;
  },
  /** What the answers to a step of a run, or to a reading of one's own, would mean. */
  weigh(entries: unknown, candidate: unknown): Recommendation | undefined {
    return predictor
      ? weighCandidate(predictor, readMessage(Entries, entries), readMessage(Step, candidate))
      : undefined;
  },
  /** How suspicion on some places went, entry by entry. */
  course(entries: unknown, ids: unknown): readonly CoursePoint[] {
    return predictor ? courseOf(predictor, readMessage(Entries, entries), readMessage(Ids, ids)) : [];
  },
  /** What an intake would do to the rates of faults. */
  feeds(intake: unknown): readonly Feed[] {
    return predictor ? circumstances(predictor.wiring, predictor.faults, readMessage(Intake, intake)).feeds : [];
  },
  /** Thinks ahead in short steps while the technician puts the leads on; a new update ends it. */
  async think(message: unknown): Promise<void> {
    const entries = readMessage(Entries, message);
    if (!predictor || !latest) return;
    const mine = ++thought;
    let pause = performance.now() + STEP_MS;
    const steps = thinkAhead(predictor, entries, latest);
    while (!steps.next().done) {
      if (performance.now() < pause) continue;
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (thought !== mine) return;
      pause = performance.now() + STEP_MS;
    }
  },
};
export type AnalystApi = typeof api;
expose(api);
