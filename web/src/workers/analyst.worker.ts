import { analyse, circumstances, Predictor, thinkAhead, type Analysis, type Entry, type Feed, type Intake, type Wiring } from "@radicula/core";
import { expose } from "comlink";

/** The core behind a worker: one predictor for the job's wiring, kept as long as the page. */
let predictor: Predictor | undefined;
/** counts updates and thoughts, so that an older thought knows it is over */
let thought = 0;
const STEP_MS = 12;

const api = {
  open(wiring: Wiring): void {
    predictor = new Predictor(wiring);
  },
  /** @returns the analysis and how long it took, ms */
  update(entries: readonly Entry[]): { analysis: Analysis; ms: number } {
    if (!predictor) throw new Error("open a wiring first");
    thought++;
    const start = performance.now();
    const analysis = analyse(predictor, entries);
    return { analysis, ms: performance.now() - start };
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
