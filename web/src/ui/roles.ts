import { z } from "zod";

/** Each may do what those before it may. */
export const PERSON_ROLES = ["reader", "technician", "lead", "administrator"] as const;
export const Role = z.enum(PERSON_ROLES);
export type Role = z.infer<typeof Role>;
