import { z } from "zod";
import { Intake } from "./intake.js";
import { ClearedEntry, ScanEntry } from "./scan.js";
import { ClosedEntry, FollowedUpEntry, ProofStepEntry, RepairedEntry } from "./repair.js";
import { ScanUnit } from "../units/scanUnit.js";
import { LearnedEntry } from "./notebook.js";
import { TraceEntry } from "./trace.js";
import { base, State, ThingName } from "./state.js";
import { Endpoint, Id, Wiring } from "./wiring.js";

export { Bulletin, HistoryItem, Intake, INTAKE_CHOICES } from "./intake.js";
export { ClearedEntry, ScanEntry, ScannedCode } from "./scan.js";
export { State } from "./state.js";
export * from "./repair.js";
export { LearnedEntry } from "./notebook.js";
export { DOING, TraceChannel, TraceEntry, type Doing } from "./trace.js";

/** A case: a wiring document plus an append-only logbook. Everything else is computed from the two. */
export const CASE_FORMAT = "radicula/case";

export const CodeEntry = z.strictObject({
  type: z.literal("code"),
  ...base,
  module: Id,
  code: z.string().min(1).max(24),
  status: z
    .enum(["active", "pending", "stored", "intermittent", "absent"])
    .default("active")
    .meta({ description: "absent: its monitor ran and the code is not set" }),
  ours: z
    .boolean()
    .optional()
    .meta({ description: "Set, or not, by a fault we made on purpose: no evidence of what is wrong" }),
});
/** What a lamp or a beeper shows; or what a scan value looks like where no figure is given. */
export const SHOWN = ["bright", "dim", "dark", "beep", "silent", "plausible", "frozen", "lowEnd", "highEnd"] as const;
export const INSTRUMENTS = [
  "voltmeter",
  "ohmmeter",
  "scanTool",
  "clamp",
  "scope",
  "scopeLow",
  "scopeHigh",
  "continuity",
  "lamp",
] as const;
/** One measurement. Two points for a fuse read on both sides; values stand in the same order. OL is written "OL". */
/** How a value was watched over time. */
export const WATCHED = ["recorded", "minMax"] as const;
export type Watched = (typeof WATCHED)[number];

export const ReadingEntry = z
  .strictObject({
    type: z.literal("reading"),
    ...base,
    instrument: z.enum(INSTRUMENTS).meta({
      description:
        "scanTool: what the module makes of one of its pins, volts; clamp: amperes through a wire; scope: how " +
        "far the signal swings while it is watched, volts; scopeLow and scopeHigh: the lower and the upper level " +
        "of a signal that switches, volts; continuity: beep or silent; lamp: bright, dim or " +
        "dark, with the lamp among the state's loads",
    }),
    points: z
      .array(Endpoint)
      .min(1)
      .max(2)
      .meta({ description: "Where the red lead was; for a clamp the wire, for the scan tool the module's cavity" }),
    black: Endpoint.optional().meta({
      description: "Where the black lead was, when not at battery negative or chassis",
    }),
    values: z
      .array(z.union([z.number(), z.literal("OL"), z.enum(SHOWN)]))
      .min(1)
      .max(2)
      .meta({
        description:
          "volts, ohms or amperes; OL for an open circuit; what a lamp or a beeper shows; of a scan value also that " +
          "it is plausible, frozen, at its low or at its high end",
      }),
    unit: ScanUnit.optional().meta({ description: "Unit of a scan value; volts when left out" }),
    state: State,
    as: z.string().max(80).optional().meta({ description: "What was typed, as typed" }),
    swing: z.tuple([z.number(), z.number()]).optional().meta({
      description:
        "Least and most while it was watched, where the value would not stand still; the value is then the middle",
    }),
    watched: z.enum(WATCHED).optional().meta({
      description: "Watched while the harness was moved: recorded, or by the meter's least and most (MIN/MAX)",
    }),
    mode: z.enum(["dc", "ac"]).optional().meta({ description: "The meter's mode for volts; dc when left out" }),
    battery: z.number().min(0).max(60).optional().meta({ description: "The battery at that moment, volts" }),
    how: z
      .enum(["backProbed", "front", "pierced", "breakout"])
      .optional()
      .meta({ description: "How the pin was reached; a pierced wire must be sealed before the job closes" }),
    part: z.enum(["removed", "new"]).optional().meta({
      description:
        "Read on the part's own pins: taken out, or a new one before it goes in (which says nothing of the machine)",
    }),
    corrects: z
      .number()
      .int()
      .min(1)
      .optional()
      .meta({ description: "Number of an earlier reading that this one replaces; the reason stands in the note" }),
  })
  .refine((r) => r.points.length === r.values.length, { error: "as many values as points", path: ["values"] })
  .refine((r) => r.unit === undefined || r.instrument === "scanTool", {
    error: "a unit is only given with a value of the scan tool",
    path: ["unit"],
  });
export const PlugEntry = z.strictObject({ type: z.enum(["unplugged", "plugged"]), ...base, connector: Id });
export const SetAsideEntry = z.strictObject({
  type: z.literal("setAside"),
  ...base,
  candidate: z.string().min(1).max(200),
  reason: z.enum(["cannotReach", "noTool", "other"]).default("other"),
});
/** What a look at one place found. */
export const FINDINGS = [
  "nothing",
  "wet",
  "oily",
  "green",
  "chewed",
  "rubbed",
  "melted",
  "crooked",
  "halfClipped",
  "pushedBack",
  "cracked",
  "previousRepair",
  "burnt",
  "chipped",
  "worn",
  "loose",
] as const;
/** What of a thing was looked at, where it is not the whole of it. */
export const LOOKED_AT = ["plug", "part", "target", "seal", "bracket"] as const;
export const LookEntry = z.strictObject({
  type: z.literal("look"),
  ...base,
  thing: ThingName,
  of: z
    .enum(LOOKED_AT)
    .optional()
    .meta({ description: "What of it was looked at: its plug, the part, its target or tooth, a seal, the bracket" }),
  found: z.array(z.enum(FINDINGS)).min(1).max(6),
  photo: z.uuid().optional(),
});
/** A place moved while a value was watched. */
export const WiggleEntry = z.strictObject({
  type: z.literal("wiggle"),
  ...base,
  thing: ThingName,
  reacted: z.boolean(),
});
/** The meter tried before it is believed: leads together, the battery, and the place the black lead stands on. */
export const MeterCheckEntry = z.strictObject({
  type: z.literal("meterCheck"),
  ...base,
  leads: z
    .union([z.number().min(0).max(1e7), z.literal("OL")])
    .optional()
    .meta({ description: "Leads touched together, ohm" }),
  battery: z.number().min(-60).max(60).optional().meta({ description: "Across the battery, volts" }),
  ground: z
    .number()
    .min(-60)
    .max(60)
    .optional()
    .meta({ description: "Battery negative to where the black lead will stand, volts" }),
});
/** Cautions read and acknowledged, once a job. */
export const AcknowledgedEntry = z.strictObject({
  type: z.literal("acknowledged"),
  ...base,
  cautions: z.array(z.string().min(1).max(40)).min(1).max(40),
});
/** Ways a thing is left other than it was found. */
export const DISTURBANCES = [
  "unplugged",
  "pulled",
  "breaker",
  "jumpered",
  "loaded",
  "pierced",
  "removed",
  "opened",
] as const;
/** Something left other than it was found, beyond what readings say of it; or put right, or explained. */
export const DisturbedEntry = z.strictObject({
  type: z.enum(["disturbed", "restored"]),
  ...base,
  thing: ThingName,
  how: z.enum(DISTURBANCES),
});
/** A guided run of steps at one place: begun, finished, or left. Its steps are the entries that follow. */
export const RUNS = [
  "unplugSeries",
  "fuseRun",
  "jumpers",
  "groundProof",
  "dropBySection",
  "halveRun",
  "loadWire",
  "compareTwin",
  "benchTest",
  "farEnd",
  "opposite",
  "newPart",
  "wiggle",
  "whichIsWhich",
  "swapTwins",
  "steelTest",
  "hallBench",
] as const;
export const RunEntry = z.strictObject({
  type: z.literal("run"),
  ...base,
  run: z.enum(RUNS),
  on: ThingName,
  event: z.enum(["begun", "finished", "left"]),
  found: z.string().max(400).optional(),
});
/** Two like parts exchanged: whether what was wrong went with the part. */
export const SwapEntry = z.strictObject({
  type: z.literal("swap"),
  ...base,
  parts: z.tuple([Id, Id]),
  result: z.enum(["moved", "stayed"]),
});
/** Checked which connector the leads were in: the one the logbook says, or another. */
export const IdentityEntry = z.strictObject({
  type: z.literal("identity"),
  ...base,
  connector: Id,
  right: z.boolean(),
});
/** A fuse renewed, or a resetting breaker in its place: whether it held. */
export const HoldsEntry = z.strictObject({
  type: z.literal("holds"),
  ...base,
  fuse: Id,
  held: z.boolean(),
  state: State,
});
/** One step of a maker's chart, entered by hand: a reading, what is good, and which step follows. */
export const ChartStep = z.strictObject({
  id: z.string().min(1).max(20),
  instrument: z.enum(["voltmeter", "ohmmeter", "scanTool"]).default("voltmeter"),
  point: Endpoint,
  state: State.default({ key: "on", unplugged: [] }),
  low: z.number().meta({ description: "Good from here" }),
  high: z.number().meta({ description: "to here" }),
  ifGood: z
    .string()
    .max(20)
    .optional()
    .meta({ description: "Step that follows; the next one when left out; anything else ends the chart" }),
  ifBad: z.string().max(20).optional(),
});
/** How the next test is chosen on this job. */
export const POLICY_NAMES = ["information", "easiest", "halve", "powerGroundSignal", "chart", "random"] as const;
export const SchoolEntry = z.strictObject({
  type: z.literal("school"),
  ...base,
  school: z.enum(POLICY_NAMES),
  chart: z.array(ChartStep).max(200).optional(),
});
/** A verdict freezes the ranking it was based on, as a record. */
export const VerdictEntry = z.strictObject({
  type: z.literal("verdict"),
  ...base,
  suspect: z.string().min(1).max(200),
  text: z.string().max(400),
  share: z.number().min(0).max(1),
  engine: z.string().max(40),
  open: z
    .array(z.strictObject({ repair: z.string().max(400), share: z.number().min(0).max(1) }))
    .max(40)
    .optional()
    .meta({ description: "Where one of several repairs is meant and nothing told them apart: all of them" }),
  ranking: z
    .array(z.strictObject({ suspect: z.string().max(200), share: z.number().min(0).max(1) }))
    .max(20)
    .default([]),
});
export const UndoEntry = z.strictObject({
  type: z.literal("undo"),
  ...base,
  target: z
    .number()
    .int()
    .min(1)
    .meta({ description: "Number of the entry taken back, counted from 1; an undo can be undone" }),
});

export const IntakeEntry = z.strictObject({ type: z.literal("intake"), ...base, intake: Intake });

/** What stands on the machine itself at one connector: colours by cavity, how many cavities, the number on the part. */
export const SeenEntry = z.strictObject({
  type: z.literal("seen"),
  ...base,
  connector: Id,
  colours: z
    .array(z.strictObject({ cavity: Id, colour: z.string().min(1).max(20) }))
    .max(400)
    .default([]),
  cavities: z.number().int().min(1).max(400).optional(),
  partNumber: z.string().max(60).optional(),
});
export type SeenEntry = z.infer<typeof SeenEntry>;
/** Readings taken at the wrong connector, put where they were really taken. */
export const MovedEntry = z.strictObject({
  type: z.literal("moved"),
  ...base,
  from: Id,
  to: Id,
  readings: z.array(z.number().int().min(1)).min(1).max(500).meta({ description: "Numbers of the readings that move" }),
});
/** The job went on with another revision of its wiring. A record; the wiring itself stands in the document. */
export const RevisionEntry = z.strictObject({
  type: z.literal("revision"),
  ...base,
  from: z.string().max(60),
  to: z.string().max(60),
});
export const Entry = z.discriminatedUnion("type", [
  CodeEntry,
  ReadingEntry,
  PlugEntry,
  SetAsideEntry,
  VerdictEntry,
  UndoEntry,
  ScanEntry,
  ClearedEntry,
  IntakeEntry,
  SeenEntry,
  MovedEntry,
  RevisionEntry,
  LookEntry,
  WiggleEntry,
  SwapEntry,
  HoldsEntry,
  SchoolEntry,
  IdentityEntry,
  MeterCheckEntry,
  AcknowledgedEntry,
  DisturbedEntry,
  RunEntry,
  RepairedEntry,
  ProofStepEntry,
  ClosedEntry,
  FollowedUpEntry,
  LearnedEntry,
  TraceEntry,
]);
export type Entry = z.infer<typeof Entry>;
export type ReadingEntry = z.infer<typeof ReadingEntry>;
export type Instrument = ReadingEntry["instrument"];
export type SchoolEntry = z.infer<typeof SchoolEntry>;
export type ChartStep = z.infer<typeof ChartStep>;
export type LookEntry = z.infer<typeof LookEntry>;
export type WiggleEntry = z.infer<typeof WiggleEntry>;
export type SwapEntry = z.infer<typeof SwapEntry>;
export type IdentityEntry = z.infer<typeof IdentityEntry>;
export type HoldsEntry = z.infer<typeof HoldsEntry>;
export type MeterCheckEntry = z.infer<typeof MeterCheckEntry>;
export type AcknowledgedEntry = z.infer<typeof AcknowledgedEntry>;
export type DisturbedEntry = z.infer<typeof DisturbedEntry>;
export type Disturbance = (typeof DISTURBANCES)[number];
export type RunEntry = z.infer<typeof RunEntry>;
export type RunName = (typeof RUNS)[number];
export type LookedAt = (typeof LOOKED_AT)[number];
export type Finding = (typeof FINDINGS)[number];
export type CodeEntry = z.infer<typeof CodeEntry>;
export type VerdictEntry = z.infer<typeof VerdictEntry>;

export const Case = z.strictObject({
  format: z.literal(CASE_FORMAT),
  version: z.literal(1),
  title: z.string().min(1).max(160).regex(/\S/, "not only spaces"),
  machine: z.string().max(120).optional(),
  complaint: z.string().max(4000).optional(),
  wiring: Wiring,
  entries: z
    .array(Entry)
    .max(100_000)
    .default([])
    .meta({ description: "The logbook, oldest first; an entry's number is its place, from 1" }),
});
export type Case = z.infer<typeof Case>;
