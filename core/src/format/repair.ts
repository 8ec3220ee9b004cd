import { z } from "zod";
import { base, ThingName } from "./state.js";

/** What was done to a thing. */
export const REPAIR_KINDS = ["replaced", "repaired", "rewired", "cleaned", "reseated", "adjusted"] as const;
export const PART_CONDITIONS = ["new", "used", "copy"] as const;
/** What went in together with a part. */
export const PART_WITH = ["connector", "seal", "bothOfAPair"] as const;
export const JOINTS = ["soldered", "crimped", "asMakerSays"] as const;

const PartFitted = z.strictObject({
  number: z.string().min(1).max(60).optional(),
  brand: z.string().min(1).max(60).optional().meta({ description: "As typed" }),
  condition: z.enum(PART_CONDITIONS).default("new").meta({ description: "copy: made by somebody else than the maker" }),
  measured: z.boolean().optional().meta({ description: "Measured on the bench before it went in, and good" }),
  with: z.array(z.enum(PART_WITH)).max(3).default([]).meta({ description: "Replaced together with it" }),
});

/**
 * Something was repaired. From here on the machine is another: what was seen before is weighed on the machine as it was
 * found, what is seen after on the repaired one.
 */
export const RepairedEntry = z.strictObject({
  type: z.literal("repaired"),
  ...base,
  things: z.array(ThingName).min(1).max(12).meta({ description: "What was worked on, one repair" }),
  how: z.enum(REPAIR_KINDS),
  part: PartFitted.optional(),
  joined: z.enum(JOINTS).optional().meta({ description: "How wires were joined" }),
  temporary: z.iso
    .date()
    .optional()
    .meta({ description: "A temporary repair, and the day by which the machine comes back for the lasting one" }),
  givenOut: z
    .strictObject({
      asked: z.string().min(1).max(400).meta({ description: "What was asked for" }),
      checked: z.boolean().meta({ description: "What was done was looked at when it came back" }),
    })
    .optional()
    .meta({ description: "Work given to somebody else" }),
  photo: z.uuid().optional(),
  minutes: z.number().min(0).max(100_000).optional().meta({ description: "How long it took" }),
  price: z.number().min(0).max(1e8).optional().meta({ description: "Of the parts, in the currency of the workshop" }),
});
export type RepairedEntry = z.infer<typeof RepairedEntry>;

/** A step of the proof that leaves no reading and no scan: done with what result, or left out. */
export const ProofStepEntry = z.strictObject({
  type: z.literal("proofStep"),
  ...base,
  step: z.string().min(1).max(120).meta({ description: "As the plan of the proof names it" }),
  result: z.enum(["passed", "failed", "leftOut"]),
});
export type ProofStepEntry = z.infer<typeof ProofStepEntry>;

export const CLOSED_BECAUSE = ["proven", "notReproduced", "temporary", "declined", "awaitsPart", "other"] as const;
const share = z.number().min(0).max(1);
/** A proof as it stood when the job was closed, in words: it is not worked out again. */
export const FrozenProof = z.strictObject({
  outcome: z.strictObject({ cured: share, notWell: share, anotherLeft: share, wentAway: share }),
  steps: z
    .array(
      z.strictObject({
        title: z.string().max(400),
        good: z.string().max(400),
        status: z.enum(["open", "passed", "failed", "leftOut"]),
        entry: z.number().int().min(1).optional(),
        again: z.array(z.string().max(24)).max(100).optional(),
      }),
    )
    .max(100),
});
export type FrozenProof = z.infer<typeof FrozenProof>;

/**
 * The job is closed: nothing is left other than it was found, or it is said why. Whatever is logged afterwards opens it
 * again, except that the machine is still good.
 */
export const ClosedEntry = z.strictObject({
  type: z.literal("closed"),
  ...base,
  because: z
    .enum(CLOSED_BECAUSE)
    .optional()
    .meta({
      description:
        "proven: the repair was proven; notReproduced: the fault did not show itself; declined: the customer wants " +
        "no more; other reasons stand in the note",
    }),
  proof: FrozenProof.optional(),
  engine: z.string().max(40).optional(),
  followUp: z
    .strictObject({
      on: z.iso.date(),
      km: z.number().positive().max(1e6).optional(),
      hours: z.number().positive().max(1e5).optional(),
    })
    .optional()
    .meta({ description: "When to ask whether it held: a day, and the way or hours by then" }),
});
export type ClosedEntry = z.infer<typeof ClosedEntry>;

export const FOLLOW_UP_RESULTS = ["stillGood", "cameBack", "somethingElse"] as const;
/** Weeks later: still good, the same complaint again, or another one. */
export const FollowedUpEntry = z.strictObject({
  type: z.literal("followedUp"),
  ...base,
  result: z.enum(FOLLOW_UP_RESULTS),
  km: z.number().min(0).max(1e7).optional().meta({ description: "Driven since" }),
});
export type FollowedUpEntry = z.infer<typeof FollowedUpEntry>;
