import { z } from "zod";
import { CLOSED_BECAUSE, REPAIR_KINDS } from "./repair.js";
import { base, ThingName } from "./state.js";

/** Lessons of closed jobs, as a file. */
export const NOTEBOOK_FORMAT = "radicula/notebook";

const Work = z.strictObject({ things: z.array(ThingName).min(1).max(12), how: z.enum(REPAIR_KINDS) });
/** What became of a repair, as far as anybody was asked. */
export const HELD = ["notAsked", "stillGood", "cameBack", "somethingElse"] as const;

/** One closed job, as it is kept for the next one. */
export const Lesson = z.strictObject({
  id: z.string().min(1).max(60).meta({ description: "Of the job" }),
  closed: z.iso.date(),
  wiring: z.string().min(1).max(120).meta({ description: "Name of the wiring it was found on" }),
  machineType: z.string().max(80).default(""),
  machine: z.string().max(120).optional(),
  title: z.string().min(1).max(160),
  complaint: z.string().max(4000).optional(),
  codes: z.array(z.string().min(1).max(24)).max(200).default([]),
  shared: z.array(ThingName).max(40).default([]).meta({ description: "Splices, grounds, fuses, … the codes share" }),
  found: z.string().max(400).optional().meta({ description: "The cause, in words" }),
  suspect: z.string().max(200).optional().meta({ description: "Places of the cause, joined by ' + '" }),
  repairs: z.array(Work).max(8).default([]).meta({ description: "What helped" }),
  because: z.enum(CLOSED_BECAUSE).optional(),
  claimed: z.number().min(0).max(1).optional().meta({ description: "How sure the proof was when the job was closed" }),
  held: z.enum(HELD).default("notAsked"),
  notHeld: z
    .array(z.strictObject({ how: z.enum(REPAIR_KINDS), claimed: z.number().min(0).max(1) }))
    .max(8)
    .default([])
    .meta({ description: "Earlier repairs of this job that were proven, and came back" }),
  minutes: z.number().min(0).max(1e6).optional().meta({ description: "At the machine, by the logbook" }),
  note: z.string().max(2000).default("").meta({ description: "What somebody added later" }),
  used: z.boolean().default(true).meta({ description: "false: it is kept, and counts nothing" }),
});
export type Lesson = z.infer<typeof Lesson>;

export const Notebook = z.strictObject({
  format: z.literal(NOTEBOOK_FORMAT),
  version: z.literal(1),
  lessons: z.array(Lesson).max(5000),
});
export type Notebook = z.infer<typeof Notebook>;

/**
 * What earlier jobs of this machine teach this one, as it was when the entry was made: the rates of faults lean towards
 * what helped before. Taken back by an undo, it counts nothing.
 */
export const LearnedEntry = z.strictObject({
  type: z.literal("learned"),
  ...base,
  lessons: z.number().int().min(1).max(5000).meta({ description: "How many earlier jobs" }),
  causes: z
    .array(
      z.strictObject({
        ...Work.shape,
        suspect: z.string().max(200).optional(),
        count: z.number().positive().max(5000).meta({ description: "Jobs in which it helped; an unsure one is half" }),
      }),
    )
    .min(1)
    .max(400),
});
export type LearnedEntry = z.infer<typeof LearnedEntry>;
