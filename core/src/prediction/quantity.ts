import type { Instrument } from "../format/case.js";

/** What is predicted for a whole machine at once; several instruments show the same quantity. */
export type Quantity = "volts" | "ohms" | "amperes" | "swing" | "least" | "most";
export const QUANTITY: Readonly<Record<Instrument, Quantity>> = {
  voltmeter: "volts",
  scanTool: "volts",
  lamp: "volts",
  ohmmeter: "ohms",
  continuity: "ohms",
  clamp: "amperes",
  scope: "swing",
  scopeLow: "least",
  scopeHigh: "most",
};
