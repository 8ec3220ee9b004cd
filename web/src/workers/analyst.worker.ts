import { analyse, circumstances, courseOf, Predictor, runOffers, thinkAhead, watchPoint, weighCandidate, type Analysis, type Candidate, type Recommendation, type RunOffer, type CoursePoint, type Entry, type Feed, type Intake, type Wiring } from "@radicula/core";
import { expose } from "comlink";

/** The core behind a worker: one predictor for the job's wiring, kept as long as the page. */
let predictor: Predictor | undefined;
/** counts updates and thoughts, so that an older thought knows it is over */
let thought = 0, asked = 0;
const STEP_MS = 12;

const api = {
  open(wiring: Wiring): void {
    predictor = new Predictor(wiring);
  },
  /** A first suggestion at once, without looking ahead. @returns the analysis and how long it took, ms */
  first(entries: readonly Entry[]): { analysis: Analysis; ms: number } {
    if (!predictor) throw new Error("open a wiring first");
    asked++;
    thought++;
    const start = performance.now();
    const analysis = analyse(predictor, entries, { quick: true });
    return { analysis, ms: performance.now() - start };
  },
  /** The whole analysis, looking ahead and for several faults. @returns undefined when something newer was asked meanwhile */
  async update(entries: readonly Entry[]): Promise<{ analysis: Analysis; ms: number; offers: readonly RunOffer[] } | undefined> {
    if (!predictor) throw new Error("open a wiring first");
    const mine = asked;
    await new Promise((resolve) => setTimeout(resolve, 0)); // lets a newer question in first
    if (mine !== asked) return undefined;
    const start = performance.now();
    const analysis = analyse(predictor, entries), offers = analysis.folded.run ? [] : runOffers(predictor, analysis);
    return { analysis, offers, ms: performance.now() - start };
  },
  /** The value to watch while places are moved. */
  watch(entries: readonly Entry[]): ReturnType<typeof watchPoint> { return predictor ? watchPoint(predictor, analyse(predictor, entries, { quick: true })) : undefined; },
  /** What the answers to a step of a run, or to a reading of one's own, would mean. */
  weigh(entries: readonly Entry[], candidate: Candidate): Recommendation | undefined { return predictor ? weighCandidate(predictor, entries, candidate) : undefined; },
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
