import { Chart, Entry, INSTRUMENTS, Intake, State, Wiring, type Candidate } from "@radicula/core";
import { z } from "zod";

/** What a worker is sent. Each message is read before anything is done with it. */
export const Entries = z.array(Entry);
export const Ids = z.array(z.string());
export { Chart, Intake, Wiring };
/** A step to be weighed. Its kind is one of the core's own; an unknown one weighs nothing. */
export const Step: z.ZodType<Candidate> = z.object({
  id: z.string(),
  kind: z.custom<Candidate["kind"]>((k) => typeof k === "string" && k !== ""),
  instrument: z.enum([...INSTRUMENTS, "none"]),
  points: z.array(z.string()),
  state: State,
  at: z.string(),
  unplug: z.array(z.string()),
  plug: z.array(z.string()),
  turnKey: z.boolean(),
  minutes: z.number().nonnegative(),
  black: z.string().exactOptional(),
  part: z.enum(["removed", "new"]).exactOptional(),
});

/** The name of the issue a worker gives for a message it does not understand; the page has words for it. */
export const NOT_UNDERSTOOD = "worker.message-not-understood";

/**
 * A message to a worker as the schema has it.
 * @throws {Error} named `worker.message-not-understood`, with the place: errors cross to the page by name and text only
 */
export function readMessage<T>(schema: z.ZodType<T>, value: unknown): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [first] = read.error.issues;
  const error = new Error(`${first?.path.join(".") ?? ""}: ${first?.message ?? ""}`);
  error.name = NOT_UNDERSTOOD;
  throw error;
}
