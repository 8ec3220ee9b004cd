import { Focus, runView, type RunView } from "@radicula/core";
import { expose } from "comlink";
import { Entries, readMessage, Wiring } from "./messages";

/**
 * Guided runs in a worker of their own: the next step of a run must not wait for a ranking that is still being worked
 * out.
 */
let focus: Focus | undefined;

const api = {
  open(wiring: unknown): void {
    focus = new Focus(readMessage(Wiring, wiring));
  },
  /** Where the open run of a logbook stands. */
  run(message: unknown): RunView | undefined {
    const entries = readMessage(Entries, message);
    return focus && runView(focus.predictor(entries), entries);
  },
};
export type RunnerApi = typeof api;
expose(api);
