import { z } from "zod";
import { Caution, Id } from "./wiring.js";

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
