import { z } from "zod";
import { base } from "./state.js";
import { CodeFamily, Id } from "./wiring.js";

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
