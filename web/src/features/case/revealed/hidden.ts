import { z } from "zod";

/** What was hidden in the simulated machine of a practice job, as the server tells it once the job is closed. */
export const HiddenMachine = z.object({
  faults: z.array(z.object({ id: z.string(), severity: z.number() })).min(1),
  seed: z.number(),
  presence: z.number().optional(),
  mistaken: z.object({ from: z.string(), to: z.string() }).optional(),
});
export type HiddenMachine = z.infer<typeof HiddenMachine>;
