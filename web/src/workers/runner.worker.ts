import { Predictor, runView, type RunView } from "@radicula/core";
import { expose } from "comlink";
import { Entries, readMessage, Wiring } from "./messages";

/**
 * Guided runs in a worker of their own: the next step of a run must not wait for a ranking that is still being worked
 * out.
 */
let predictor: Predictor | undefined;

const api = {
  open(wiring: unknown): void {
    predictor = new Predictor(readMessage(Wiring, wiring));
  },
  /** Where the open run of a logbook stands. */
  run(entries: unknown): RunView | undefined {
    return predictor && runView(predictor, readMessage(Entries, entries));
  },
};
export type RunnerApi = typeof api;
expose(api);
