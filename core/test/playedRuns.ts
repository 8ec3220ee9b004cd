import { playRun, SimulatedMachine, type Predictor, type RunName, type Wiring } from "../src/index.js";
import { faultOn } from "./bench.js";

/** Guided runs played on a simulated machine. */
export function playedRun(
  predictor: Predictor,
  machine: SimulatedMachine,
  run: Exclude<RunName, "wiggle">,
  on: string,
  skip?: (id: string) => boolean,
) {
  const { view, entries } = playRun(predictor, machine, run, on, skip);
  return { ...view, entries };
}
export const broken = (w: Wiring, id: string, severity: number, seed = 5): SimulatedMachine =>
  new SimulatedMachine(w, [{ fault: faultOn(w, id), severity }], seed);
