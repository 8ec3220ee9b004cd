import { findFault, generateFaults, middleSeverity, type FaultAt, type Wiring } from "@radicula/core";
import { z } from "zod";

/** What was hidden in the simulated machine of a practice job, as the server tells it once the job is closed. */
export const HiddenMachine = z.object({
  faults: z.array(z.object({ id: z.string(), severity: z.number().nullable() })).min(1),
  seed: z.number(),
  presence: z.number().optional(),
  mistaken: z.object({ from: z.string(), to: z.string() }).optional(),
});
export type HiddenMachine = z.infer<typeof HiddenMachine>;

/** The faults of a wiring that were hidden; fewer where the wiring has changed since. A whole open has no number. */
export function hiddenFaults(wiring: Wiring, hidden: HiddenMachine): readonly FaultAt[] {
  const all = generateFaults(wiring);
  return hidden.faults.flatMap(({ id, severity }) => {
    const found = findFault(all, id);
    return found ? [{ fault: found.fault, severity: severity ?? middleSeverity(found.fault) }] : [];
  });
}
