import { z } from "zod";
import { Caution, CodeFamily, Endpoint, Id, KeyState, Wiring } from "./wiring.js";

/** A case: a wiring document plus an append-only logbook. Everything else is computed from the two. */
export const CASE_FORMAT = "radicula/case";

/** How a reading was taken: key and what was unplugged at that moment. */
export const State = z.strictObject({
  key: KeyState.default("on"),
  unplugged: z.array(Id).max(200).default([]),
  stimulus: z
    .record(Id, z.number().min(-100).max(2000))
    .optional()
    .meta({
      description:
        "True condition at a sensor, by its id: pedal or pressure as a share 0 to 1, degrees Celsius, " +
        "milliampere; at a speed sensor 1 for steel at the tip, 0 for none",
    }),
  jumpers: z
    .array(z.strictObject({ from: Endpoint, to: Endpoint, ohm: z.number().min(0.001).max(1e7).default(0.01) }))
    .max(20)
    .optional(),
  loads: z
    .array(
      z.strictObject({
        from: Endpoint,
        to: z.union([Endpoint, z.literal("chassis")]).default("chassis"),
        watt: z.number().min(0.01).max(500),
      }),
    )
    .max(20)
    .optional()
    .meta({ description: "Test lamps and other loads, by watt at nominal voltage" }),
  pulled: z.array(Id).max(100).optional().meta({ description: "Fuses pulled" }),
  breakers: z.array(Id).max(100).optional().meta({ description: "Fuses with a resetting breaker in their place" }),
  asleep: z.array(Id).max(100).optional().meta({ description: "Modules that have gone to sleep" }),
});
export type State = z.infer<typeof State>;

const base = {
  at: z.iso.datetime({ offset: true }).meta({ description: "When, ISO 8601" }),
  note: z.string().max(2000).optional(),
  by: z.string().min(1).max(60).optional().meta({ description: "Who did it" }),
};
const Thing = z
  .string()
  .min(1)
  .max(90)
  .meta({ description: "A connector, cavity, wire, splice, ground, fuse or part" });

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
/** What a lamp, or a beeper, shows. */
export const SHOWN = ["bright", "dim", "dark", "beep", "silent"] as const;
/** One measurement. Two points for a fuse read on both sides; values stand in the same order. OL is written "OL". */
export const ReadingEntry = z
  .strictObject({
    type: z.literal("reading"),
    ...base,
    instrument: z.enum(["voltmeter", "ohmmeter", "scanTool", "clamp", "scope", "continuity", "lamp"]).meta({
      description:
        "scanTool: what the module makes of one of its pins, volts; clamp: amperes through a wire; scope: how " +
        "far the signal swings while it is watched, volts; continuity: beep or silent; lamp: bright, dim or " +
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
      .meta({ description: "volts, ohms or amperes; OL for an open circuit; what a lamp or a beeper shows" }),
    state: State,
    as: z.string().max(80).optional().meta({ description: "What was typed, as typed" }),
    swing: z.tuple([z.number(), z.number()]).optional().meta({
      description:
        "Least and most while it was watched, where the value would not stand still; the value is then the middle",
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
  .refine((r) => r.points.length === r.values.length, { error: "as many values as points", path: ["values"] });
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
] as const;
export const LookEntry = z.strictObject({
  type: z.literal("look"),
  ...base,
  thing: Thing,
  found: z.array(z.enum(FINDINGS)).min(1).max(6),
  photo: z.uuid().optional(),
});
/** A place moved while a value was watched. */
export const WiggleEntry = z.strictObject({ type: z.literal("wiggle"), ...base, thing: Thing, reacted: z.boolean() });
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
  thing: Thing,
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
] as const;
export const RunEntry = z.strictObject({
  type: z.literal("run"),
  ...base,
  run: z.enum(RUNS),
  on: Thing,
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

/** One code as a scan shows it. What it names may be said here where the wiring does not list the code. */
export const ScannedCode = z.strictObject({
  module: Id,
  code: z.string().min(1).max(24),
  status: z.enum(["active", "pending", "stored", "intermittent", "absent", "notRun"]).default("active"),
  title: z.string().max(400).optional(),
  about: Id.optional(),
  family: CodeFamily.optional(),
  failureType: z
    .string()
    .regex(/^[0-9A-Fa-f]{2}$/)
    .optional(),
  seen: z.string().max(60).optional().meta({ description: "Time or count as the scan tool gives it" }),
});
export type ScannedCode = z.infer<typeof ScannedCode>;
/** One scan: which modules answered in full, and all codes they gave. */
export const ScanEntry = z.strictObject({
  type: z.literal("scan"),
  ...base,
  when: z
    .enum(["before", "afterClear", "afterCrank", "afterDrive", "other"])
    .default("before")
    .meta({
      description:
        "When in the job: before anything was touched, or after codes were cleared and the key cycled, the engine " +
        "cranked, the machine driven",
    }),
  modules: z
    .array(Id)
    .max(200)
    .meta({ description: "Modules scanned in full: a code one of them does not give is not set" }),
  codes: z.array(ScannedCode).max(500),
  disturbed: z
    .array(Id)
    .max(200)
    .default([])
    .meta({ description: "Connectors unplugged and fuses pulled since codes were last cleared" }),
  wiped: z.boolean().default(false).meta({ description: "Battery taken off or flat since: missing codes say nothing" }),
});
export type ScanEntry = z.infer<typeof ScanEntry>;
export const ClearedEntry = z.strictObject({ type: z.literal("cleared"), ...base });

const SYMPTOMS = [
  "noStart",
  "slowStart",
  "cutsOut",
  "reducedPower",
  "deadDisplay",
  "warningLamps",
  "comesAndGoes",
  "wrongValue",
  "fuseBlows",
  "curedItself",
] as const;
const CONDITIONS = ["cold", "hot", "wet", "bump", "underLoad", "afterTime", "cranking", "always"] as const;
const TOOLS = ["meter", "scanTool", "testLamp", "clamp", "scope", "breaker", "backProbes", "breakoutLead"] as const;
/** What was done or happened before: parts replaced, work nearby, pests, water, oil. */
export const HistoryItem = z.strictObject({
  what: z.enum(["replaced", "repaired", "workNearby", "batteryWork", "accident", "pests", "water", "oil"]),
  at: z.array(Id).max(40).default([]).meta({ description: "Parts or connectors concerned" }),
  helped: z.enum(["no", "partly", "yes", "unknown"]).default("unknown"),
  text: z.string().max(400).optional(),
  brand: z.enum(["maker", "copy", "used", "unknown"]).default("unknown"),
});
/** What somebody says of machines like this one. */
export const Bulletin = z.strictObject({
  text: z.string().min(1).max(1000),
  at: z.array(Id).max(40).default([]),
  trust: z.enum(["hearsay", "bulletin"]).default("hearsay"),
  applies: z.string().max(200).optional().meta({ description: "Which machines, serials or years it is for" }),
});
/** What the customer says and what is at hand. Every field may be left out; the last intake that stands counts. */
export const Intake = z.strictObject({
  kind: z.string().max(120).optional(),
  serial: z.string().max(60).optional(),
  hours: z.number().min(0).max(1e6).optional(),
  distanceKm: z.number().min(0).max(1e7).optional(),
  nominalVolt: z.union([z.literal(12), z.literal(24)]).optional(),
  complaint: z.string().max(4000).optional(),
  symptoms: z.array(z.enum(SYMPTOMS)).max(SYMPTOMS.length).default([]),
  conditions: z.array(z.enum(CONDITIONS)).max(CONDITIONS.length).default([]),
  afterMinutes: z.number().min(0).max(10_000).optional(),
  history: z.array(HistoryItem).max(60).default([]),
  bulletins: z.array(Bulletin).max(40).default([]),
  labourPerHour: z
    .number()
    .min(0)
    .max(1e5)
    .optional()
    .meta({ description: "What an hour of work costs, in the currency of the prices" }),
  tools: z
    .array(z.enum(TOOLS))
    .max(TOOLS.length)
    .optional()
    .meta({ description: "Instruments owned; all when left out" }),
  scanShows: z
    .array(Id)
    .max(400)
    .optional()
    .meta({ description: "Sensors whose value the scan tool can show on this machine; all when left out" }),
  safety: z
    .array(Caution)
    .max(8)
    .default([])
    .meta({ description: "Dangers of this machine to be shown before every step" }),
});
export type Intake = z.infer<typeof Intake>;
export type HistoryItem = z.infer<typeof HistoryItem>;
export type Bulletin = z.infer<typeof Bulletin>;
export const INTAKE_CHOICES = { symptoms: SYMPTOMS, conditions: CONDITIONS, tools: TOOLS } as const;
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
/**
 * The job is closed: nothing is left other than it was found, or it is said why. Whatever is logged afterwards opens it
 * again.
 */
export const ClosedEntry = z.strictObject({ type: z.literal("closed"), ...base });

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
  ClosedEntry,
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
export type Finding = (typeof FINDINGS)[number];
export type CodeEntry = z.infer<typeof CodeEntry>;
export type VerdictEntry = z.infer<typeof VerdictEntry>;

export const Case = z.strictObject({
  format: z.literal(CASE_FORMAT),
  version: z.literal(1),
  title: z.string().min(1).max(160),
  machine: z.string().max(120).optional(),
  complaint: z.string().max(4000).optional(),
  wiring: Wiring,
  entries: z
    .array(Entry)
    .max(5000)
    .default([])
    .meta({ description: "The logbook, oldest first; an entry's number is its place, from 1" }),
});
export type Case = z.infer<typeof Case>;
