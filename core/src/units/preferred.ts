import { z } from "zod";
import { convertScan } from "./scanUnit.js";
import { gaugeMm2, parseSection } from "./section.js";
import { parsePlain } from "./quantity.js";

/** Units a person may prefer, the first of each as values are stored. */
export const UNIT_CHOICES = {
  temperature: ["°C", "°F"],
  pressure: ["kPa", "bar", "psi"],
  section: ["mm²", "AWG"],
  distance: ["km", "mi"],
} as const;
export type UnitQuantity = keyof typeof UNIT_CHOICES;
export const Units = z.object({
  temperature: z.enum(UNIT_CHOICES.temperature),
  pressure: z.enum(UNIT_CHOICES.pressure),
  section: z.enum(UNIT_CHOICES.section),
  distance: z.enum(UNIT_CHOICES.distance),
});
export type Units = z.infer<typeof Units>;
export const STORED_UNITS: Units = { temperature: "°C", pressure: "kPa", section: "mm²", distance: "km" };

/** The international mile, km: exact by its definition of 1959. */
const MILE_KM = 1.609344;

/** The unit in which a value stored in `unit` is shown; the same for units nobody chooses. */
export function preferredUnit(unit: string, units: Units): string {
  const quantity = (Object.keys(UNIT_CHOICES) as UnitQuantity[]).find((q) => UNIT_CHOICES[q][0] === unit);
  return quantity ? units[quantity] : unit;
}

/** A stored value as a number in the preferred unit; a cross-section as the nearest gauge, 2/0 being −1. */
export function toPreferred(value: number, unit: string, units: Units): number {
  const wanted = preferredUnit(unit, units);
  if (wanted === unit) return value;
  if (wanted === "mi") return value / MILE_KM;
  if (wanted === "AWG") return nearestGauge(value);
  return convertScan(value, unit as "°C" | "kPa", wanted as "°F" | "bar" | "psi")!;
}

/** What was typed in the preferred unit, as it is stored; undefined where it is no number. */
export function fromPreferred(text: string, unit: string, units: Units): number | undefined {
  const wanted = preferredUnit(unit, units);
  if (wanted === "AWG") return parseSection(`${text.trim()} AWG`);
  const value = parsePlain(text);
  if (wanted === unit || value === undefined) return value;
  if (wanted === "mi") return value * MILE_KM;
  return convertScan(value, wanted as "°F" | "bar" | "psi", unit as "°C" | "kPa");
}

/** A stored value as it is typed and read in the preferred unit, without the unit: `18`, `2/0`, `185`. */
export function preferredText(value: number, unit: string, units: Units): string {
  const shown = toPreferred(value, unit, units);
  if (preferredUnit(unit, units) === "AWG") return shown < 1 ? `${1 - shown}/0` : String(shown);
  return String(Number(shown.toPrecision(preferredUnit(unit, units) === unit ? 6 : 4)));
}
/** The same with its unit: `18 AWG`, `12.4 mi`. */
export const preferredWithUnit = (value: number, unit: string, units: Units): string =>
  `${preferredText(value, unit, units)} ${preferredUnit(unit, units)}`;

/** By `gaugeMm2` turned round: n = 36 − 39 · log(d / 0.127) / log 92. */
function nearestGauge(mm2: number): number {
  const diameter = Math.sqrt((4 / Math.PI) * mm2);
  const n = Math.round(36 - (39 * Math.log(diameter / 0.127)) / Math.log(92));
  // gauges are steps of a ratio: the nearer of two is the nearer in the logarithm
  return Math.abs(Math.log(gaugeMm2(n) / mm2)) <= Math.abs(Math.log(gaugeMm2(n + 1) / mm2)) ? n : n + 1;
}
