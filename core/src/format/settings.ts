import { z } from "zod";

/** What a workshop puts on its reports and counts with. */
export const WorkshopSettings = z.strictObject({
  name: z.string().max(120).default("").meta({ description: "Stands at the head of every report" }),
  address: z.string().max(400).default(""),
  contact: z.string().max(200).default("").meta({ description: "Telephone, mail" }),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/)
    .default("EUR")
    .meta({ description: "ISO 4217, three letters" }),
  labourPerHour: z.number().min(0).max(1e6).optional(),
  useLessons: z
    .boolean()
    .default(true)
    .meta({ description: "Closed jobs of the same wiring count in new ones from the start" }),
  taxPercent: z.number().min(0).max(100).optional(),
});
export type WorkshopSettings = z.infer<typeof WorkshopSettings>;
