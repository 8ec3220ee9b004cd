import { z } from "zod";
import { Endpoint, Id, KeyState } from "./wiring.js";

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

/** What every entry of a logbook carries. */
export const base = {
  at: z.iso.datetime({ offset: true }).meta({ description: "When, ISO 8601" }),
  note: z.string().max(2000).optional(),
  by: z.string().min(1).max(60).optional().meta({ description: "Who did it" }),
};
export const ThingName = z
  .string()
  .min(1)
  .max(90)
  .meta({ description: "A connector, cavity, wire, splice, ground, fuse or part" });
