import { z } from "zod";

/** A recording as this program writes it. */
export const RECORDING_FORMAT = "radicula/recording";

const finite = z.number();
/** One channel: taken evenly from `start` every `interval` seconds, or each value at its own time. */
export const RecordedChannel = z
  .strictObject({
    name: z.string().min(1).max(80),
    unit: z.string().max(12).default("").meta({ description: "V, A, °C …; empty where it is not known" }),
    start: finite.default(0).meta({ description: "Seconds" }),
    interval: z.number().positive().optional().meta({ description: "Seconds between two values" }),
    times: z.array(finite).optional().meta({ description: "Seconds of every value, rising" }),
    values: z.array(finite.nullable()).min(1).meta({ description: "null where nothing was read" }),
  })
  .refine((c) => (c.interval === undefined) !== (c.times === undefined), {
    error: "either an interval or the times",
    path: ["interval"],
  })
  .refine((c) => c.times === undefined || c.times.length === c.values.length, {
    error: "as many times as values",
    path: ["times"],
  })
  .refine((c) => c.times === undefined || c.times.every((t, i) => i === 0 || t > c.times![i - 1]!), {
    error: "times must rise",
    path: ["times"],
  });
export const RecordingFile = z.strictObject({
  format: z.literal(RECORDING_FORMAT),
  version: z.literal(1),
  channels: z.array(RecordedChannel).min(1).max(64),
});
export type RecordingFile = z.infer<typeof RecordingFile>;
