import type { FaultAt } from "../instruments/machineState.js";
import { generateFaults } from "../faults/generate.js";
import type { Wiring } from "../format/wiring.js";
import { uniform } from "../prediction/draws.js";
import { severityOffGrid, SimulatedMachine } from "./machine.js";

/** Faults tried until enough set a code. Judgement: time. */
const TRIES = 300;

/**
 * Hides faults on a machine, drawn by their rates, so that each sets a code by itself.
 * @param count how many at once, at different places @returns undefined where no fault of this wiring sets a code
 */
export function hideFaults(wiring: Wiring, count: number, seed: number): FaultAt[] | undefined {
  const random = uniform(seed * 104729 + 7);
  const faults = generateFaults(wiring).filter((f) => f.mode !== "wrongPart");
  const total = faults.reduce((sum, f) => sum + f.prior, 0);
  if (total <= 0 || wiring.codes.length === 0) return undefined;
  const hidden: FaultAt[] = [];
  const places = new Set<string>();
  for (let i = 0; i < TRIES && hidden.length < count; i++) {
    let left = random() * total;
    const fault = faults.find((f) => (left -= f.prior) <= 0) ?? faults.at(-1)!;
    const at = { fault, severity: severityOffGrid(fault, random()) };
    if (places.has(fault.place.id) || new SimulatedMachine(wiring, [at], seed).codes().length === 0) continue;
    places.add(fault.place.id);
    hidden.push(at);
  }
  return hidden.length === count ? hidden : undefined;
}
