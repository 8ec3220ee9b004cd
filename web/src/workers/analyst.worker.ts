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
  type Candidate,
  type Recommendation,
  type RunOffer,
  type CoursePoint,
  type Entry,
  type Feed,
  type Intake,
  type Wiring,
} from "@radicula/core";
import { expose } from "comlink";

/** The core behind a worker: one predictor for the job's wiring, kept as long as the page. */
let predictor: Predictor | undefined;
/** counts updates and thoughts, so that an older thought knows it is over */
let thought = 0;
let asked = 0;
let begun: Belief | undefined;
const STEP_MS = 12;

const api = {
  open(wiring: Wiring): void {
    predictor = new Predictor(wiring);
  },
  /** A first look. @returns a first suggestion, without looking ahead, where the whole answer will take a while */
  first(entries: readonly Entry[]): Analysis | undefined {
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
  async update(entries: readonly Entry[]): Promise<{ analysis: Analysis; offers: readonly RunOffer[] } | undefined> {
    if (!predictor) throw new Error("open a wiring first");
    const mine = asked;
    await new Promise((resolve) => setTimeout(resolve, 0)); // lets a newer question in first
    if (mine !== asked) return undefined;
    const analysis = analyse(predictor, entries, { begun });
    const offers = analysis.folded.run ? [] : runOffers(predictor, analysis);
    return { analysis, offers };
  },
  /** The value to watch while places are moved. */
  watch(entries: readonly Entry[]): ReturnType<typeof watchPoint> {
    return predictor ? watchPoint(predictor, analyse(predictor, entries, { quick: true })) : undefined;
  },
  /** What the answers to a step of a run, or to a reading of one's own, would mean. */
  weigh(entries: readonly Entry[], candidate: Candidate): Recommendation | undefined {
    return predictor ? weighCandidate(predictor, entries, candidate) : undefined;
  },
  /** How suspicion on some places went, entry by entry. */
  course(entries: readonly Entry[], ids: readonly string[]): readonly CoursePoint[] {
    return predictor ? courseOf(predictor, entries, ids) : [];
  },
  /** What an intake would do to the rates of faults. */
  feeds(intake: Intake): readonly Feed[] {
    return predictor ? circumstances(predictor.wiring, predictor.faults, intake).feeds : [];
  },
  /** Thinks ahead in short steps while the technician puts the leads on; a new update ends it. */
  async think(entries: readonly Entry[], analysis: Analysis): Promise<void> {
    if (!predictor) return;
    const mine = ++thought;
    let pause = performance.now() + STEP_MS;
    const steps = thinkAhead(predictor, entries, analysis);
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
