import { z } from "zod";
import { Endpoint, Id, KeyState, Wiring } from "./wiring.js";

/** A case: a wiring document plus an append-only logbook. Everything else is computed from the two. */
export const CASE_FORMAT = "radicula/case";

/** How a reading was taken: key and what was unplugged at that moment. */
export const State = z.strictObject({
  key: KeyState.default("on"), unplugged: z.array(Id).max(200).default([]),
  stimulus: z.record(Id, z.number().min(-100).max(2000)).optional().meta({ description: "True condition at a sensor, by its id: pedal or pressure as a share 0 to 1, degrees Celsius, milliampere; at a speed sensor 1 for steel at the tip, 0 for none" }),
  jumpers: z.array(z.strictObject({ from: Endpoint, to: Endpoint, ohm: z.number().min(0.001).max(1e7).default(0.01) })).max(20).optional(),
  loads: z.array(z.strictObject({ from: Endpoint, to: z.union([Endpoint, z.literal("chassis")]).default("chassis"), watt: z.number().min(0.01).max(500) })).max(20).optional().meta({ description: "Test lamps and other loads, by watt at nominal voltage" }),
  pulled: z.array(Id).max(100).optional().meta({ description: "Fuses pulled" }),
  breakers: z.array(Id).max(100).optional().meta({ description: "Fuses with a resetting breaker in their place" }),
  asleep: z.array(Id).max(100).optional().meta({ description: "Modules that have gone to sleep" }),
});
export type State = z.infer<typeof State>;

const base = { at: z.iso.datetime({ offset: true }).meta({ description: "When, ISO 8601" }), note: z.string().max(2000).optional() };

export const CodeEntry = z.strictObject({
  type: z.literal("code"), ...base, module: Id, code: z.string().min(1).max(24),
  status: z.enum(["active", "pending", "stored", "intermittent", "absent"]).default("active").meta({ description: "absent: its monitor ran and the code is not set" }),
});
/** One measurement. Two points for a fuse read on both sides; values stand in the same order. OL is written "OL". */
export const ReadingEntry = z.strictObject({
  type: z.literal("reading"), ...base,
  instrument: z.enum(["voltmeter", "ohmmeter"]),
  points: z.array(Endpoint).min(1).max(2),
  values: z.array(z.union([z.number(), z.literal("OL")])).min(1).max(2).meta({ description: "volts or ohms; OL for an open circuit" }),
  state: State,
  as: z.string().max(80).optional().meta({ description: "What was typed, as typed" }),
}).refine((r) => r.points.length === r.values.length, { error: "as many values as points", path: ["values"] });
export const PlugEntry = z.strictObject({ type: z.enum(["unplugged", "plugged"]), ...base, connector: Id });
export const SetAsideEntry = z.strictObject({ type: z.literal("setAside"), ...base, candidate: z.string().min(1).max(200), reason: z.enum(["cannotReach", "noTool", "other"]).default("other") });
/** A verdict freezes the ranking it was based on, as a record. */
export const VerdictEntry = z.strictObject({
  type: z.literal("verdict"), ...base, suspect: z.string().min(1).max(200), text: z.string().max(400),
  share: z.number().min(0).max(1), engine: z.string().max(40),
  ranking: z.array(z.strictObject({ suspect: z.string().max(200), share: z.number().min(0).max(1) })).max(20).default([]),
});
export const UndoEntry = z.strictObject({ type: z.literal("undo"), ...base, target: z.number().int().min(1).meta({ description: "Number of the entry taken back, counted from 1; an undo can be undone" }) });

export const Entry = z.discriminatedUnion("type", [CodeEntry, ReadingEntry, PlugEntry, SetAsideEntry, VerdictEntry, UndoEntry]);
export type Entry = z.infer<typeof Entry>;
export type ReadingEntry = z.infer<typeof ReadingEntry>;
export type CodeEntry = z.infer<typeof CodeEntry>;
export type VerdictEntry = z.infer<typeof VerdictEntry>;

export const Case = z.strictObject({
  format: z.literal(CASE_FORMAT),
  version: z.literal(1),
  title: z.string().min(1).max(160),
  machine: z.string().max(120).optional(),
  complaint: z.string().max(4000).optional(),
  wiring: Wiring,
  entries: z.array(Entry).max(5000).default([]).meta({ description: "The logbook, oldest first; an entry's number is its place, from 1" }),
});
export type Case = z.infer<typeof Case>;
