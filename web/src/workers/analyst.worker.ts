import { analyse, Predictor, type Analysis, type Entry, type Wiring } from "@radicula/core";
import { expose } from "comlink";

/** The core behind a worker: one predictor for the job's wiring, kept as long as the page. */
let predictor: Predictor | undefined;

const api = {
  open(wiring: Wiring): void {
    predictor = new Predictor(wiring);
  },
  /** @returns the analysis and how long it took, ms */
  update(entries: readonly Entry[]): { analysis: Analysis; ms: number } {
    if (!predictor) throw new Error("open a wiring first");
    const start = performance.now();
    const analysis = analyse(predictor, entries);
    return { analysis, ms: performance.now() - start };
  },
  /** Thinks ahead while the technician puts the leads on: takes in what the most likely answers would need. */
  think(entries: readonly Entry[], analysis: Analysis): void {
    if (!predictor) return;
    for (const next of analysis.next.slice(0, 1)) {
      for (const answer of (next.answers[0] ?? []).slice(0, 3)) {
        const { instrument, points, state } = next.candidate;
        const value = answer.value === Infinity ? "OL" : answer.value;
        analyse(predictor, [...entries, { type: "reading", at: "2000-01-01T00:00:00Z", instrument, points: [...points], values: points.map(() => value), state }]);
      }
    }
  },
};
export type AnalystApi = typeof api;
expose(api);
