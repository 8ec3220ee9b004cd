import { Predictor, runView, type Entry, type RunView, type Wiring } from "@radicula/core";
import { expose } from "comlink";

/**
 * Guided runs in a worker of their own: the next step of a run must not wait for a ranking that is still being worked
 * out.
 */
let predictor: Predictor | undefined;

const api = {
  open(wiring: Wiring): void {
    predictor = new Predictor(wiring);
  },
  /** Where the open run of a logbook stands. */
  run(entries: readonly Entry[]): RunView | undefined {
    return predictor && runView(predictor, entries);
  },
};
export type RunnerApi = typeof api;
expose(api);
