import {
  Chart,
  Entry,
  FITTED_THINGS,
  INSTRUMENTS,
  Intake,
  State,
  Wiring,
  type Candidate,
  type Piece,
} from "@radicula/core";
import { z } from "zod";

/** What a worker is sent. Each message is read before anything is done with it. */
export const Entries = z.array(Entry);
export const Ids = z.array(z.string());
export { Chart, Intake, Wiring };
/** A table of a spreadsheet or document, and the chart it is laid over. */
export const TableOver = z.object({ chart: Chart, text: z.string(), source: z.string() });
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
  takeOff: z.array(z.enum(FITTED_THINGS)).exactOptional(),
  fuseBack: z.array(z.string()).exactOptional(),
  minutes: z.number().nonnegative(),
  black: z.string().exactOptional(),
  part: z.enum(["removed", "new"]).exactOptional(),
});

const HypothesisNumbers = z.array(z.int().nonnegative());
/** Work for a helper, as the core of another worker of the same page words it. */
export const PieceOfWork: z.ZodType<Piece> = z.union([
  z.object({
    work: z.enum(["movesAny", "movesEach", "rough", "full"]),
    monitors: HypothesisNumbers,
    hypotheses: HypothesisNumbers,
  }),
  z.object({
    work: z.literal("values"),
    state: State,
    instrument: z.enum(INSTRUMENTS),
    hypotheses: HypothesisNumbers,
    wanted: z.array(z.instanceof(Uint8Array).or(z.undefined())).exactOptional(),
  }),
  z.object({
    work: z.literal("reading"),
    place: z.object({
      instrument: z.enum(INSTRUMENTS),
      point: z.string(),
      black: z.string().or(z.undefined()).exactOptional(),
      state: State,
    }),
    hypotheses: HypothesisNumbers,
    wanted: z.array(z.instanceof(Uint8Array).or(z.undefined())).exactOptional(),
  }),
]);

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
