import { z } from "zod";
import { ScanUnit } from "../units/scanUnit.js";
import { base, State, ThingName } from "./state.js";
import { Endpoint } from "./wiring.js";

/** What was done while it was recorded. */
export const DOING = ["nothing", "crank", "run", "sweep", "move"] as const;

/** What one channel of a recording was seen to do: what is weighed. The samples are kept beside the logbook. */
export const TraceChannel = z.strictObject({
  name: z.string().min(1).max(80).meta({ description: "As the recording names it" }),
  on: Endpoint.meta({
    description: "Where it was put: a point; the wire for a clamp; the module's cavity for a scan value",
  }),
  black: Endpoint.optional().meta({ description: "Where the other lead was, when not at battery negative or chassis" }),
  by: z.enum(["scope", "clamp", "scanTool"]).default("scope"),
  unit: ScanUnit.optional().meta({ description: "Unit of a scan value; volts when left out" }),
  kind: z.enum(["steady", "switching", "varying"]),
  low: z.number().meta({ description: "Low state of a switching signal; else the least, dropouts left out" }),
  high: z.number().meta({ description: "High state of a switching signal; else the most, dropouts left out" }),
  mean: z.number().meta({ description: "Mean; of a steady signal with dropouts the value between them" }),
  hertz: z.number().positive().optional(),
  duty: z.number().min(0).max(1).optional().meta({ description: "Share of the time that it is high" }),
  missing: z.number().int().min(0).optional().meta({ description: "Pulses missing where none should be" }),
  returns: z
    .literal(true)
    .optional()
    .meta({ description: "They are missing at the same place of every turn, beside a gap that is made so" }),
  gap: z
    .strictObject({ teeth: z.number().int().min(1), missing: z.number().int().min(1) })
    .optional()
    .meta({ description: "A gap that comes back in every turn: pulses in a turn, and how many the gap has" }),
  dropouts: z
    .strictObject({
      count: z.number().int().min(1),
      to: z.number().meta({ description: "Where it usually goes to" }),
      longest: z.number().min(0).meta({ description: "Seconds" }),
      chance: z.number().min(0).max(1).meta({ description: "Chance that the clearest of them is noise" }),
    })
    .optional(),
});
export type TraceChannel = z.infer<typeof TraceChannel>;

/** A recording: what its channels were put on, how the machine stood, and what was seen. */
export const TraceEntry = z.strictObject({
  type: z.literal("trace"),
  ...base,
  recording: z.uuid().optional().meta({ description: "The samples, where they were kept" }),
  seconds: z.number().positive(),
  perSecond: z.number().positive().meta({ description: "Samples a second of the fastest channel" }),
  doing: z.enum(DOING).default("nothing"),
  state: State,
  channels: z.array(TraceChannel).min(1).max(64),
  moved: z
    .array(z.strictObject({ thing: ThingName, from: z.number(), to: z.number(), reacted: z.boolean() }))
    .max(200)
    .optional()
    .meta({ description: "Places moved meanwhile, when (seconds), and whether a channel reacted" }),
  partings: z
    .array(z.strictObject({ channels: z.tuple([z.string(), z.string()]), count: z.number().int().min(1) }))
    .max(100)
    .optional()
    .meta({ description: "Pairs of tracks that did not go together, and how often" }),
});
export type TraceEntry = z.infer<typeof TraceEntry>;
export type Doing = (typeof DOING)[number];
