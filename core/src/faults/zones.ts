import { DEFAULTS } from "../defaults.js";

/** Columns of DEFAULTS.zones: contacts, splices and grounds; wires; devices. */
export const CONTACT = 0;
export const WIRE = 1;
export const DEVICE = 2;

/** How much likelier faults are in these zones. */
export const zoneFactor = (list: readonly string[], column: number): number =>
  list.reduce((f, z) => f * (DEFAULTS.zones[z]?.[column] ?? 1), 1);
