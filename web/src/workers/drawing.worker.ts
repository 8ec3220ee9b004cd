import { drawingGaps } from "@radicula/core";
import { expose } from "comlink";
import { Entries, readMessage, Wiring } from "./messages";

const api = {
  /** The wires that are only assumed; with a logbook, what looking each of them up would tell. */
  gaps: (wiring: unknown, entries: unknown) => drawingGaps(readMessage(Wiring, wiring), readMessage(Entries, entries)),
  /** As `gaps`, without weighing anything. */
  list: (wiring: unknown) => drawingGaps(readMessage(Wiring, wiring), [], () => true),
};
export type DrawingApi = typeof api;
expose(api);
