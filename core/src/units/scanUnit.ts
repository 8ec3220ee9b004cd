import { z } from "zod";

/** Units in which a scan tool shows a value. */
export const SCAN_UNITS = ["V", "%", "kPa", "bar", "psi", "°C", "°F", "g/s", "kg/h", "Ω", "mA", "rpm", "km/h"] as const;
export const ScanUnit = z.enum(SCAN_UNITS);
export type ScanUnit = z.infer<typeof ScanUnit>;

/** Units of one quantity: value · factor + offset is in the first of them. psi: NIST SP 811 (value from memory). */
const QUANTITIES: readonly (readonly (readonly [ScanUnit, number, number])[])[] = [
  [
    ["kPa", 1, 0],
    ["bar", 100, 0],
    ["psi", 6.894757, 0],
  ],
  [
    ["°C", 1, 0],
    ["°F", 5 / 9, -160 / 9],
  ],
  [
    ["g/s", 1, 0],
    ["kg/h", 1 / 3.6, 0],
  ],
];

/** A value in another unit of the same quantity; undefined where the units measure different things. */
export function convertScan(value: number, from: ScanUnit, to: ScanUnit): number | undefined {
  if (from === to) return value;
  for (const units of QUANTITIES) {
    const a = units.find(([u]) => u === from);
    const b = units.find(([u]) => u === to);
    if (a && b) return (value * a[1] + a[2] - b[2]) / b[1];
  }
  return undefined;
}

const WRITTEN: Readonly<Record<string, ScanUnit>> = {
  c: "°C",
  degc: "°C",
  celsius: "°C",
  f: "°F",
  degf: "°F",
  fahrenheit: "°F",
  volt: "V",
  volts: "V",
  percent: "%",
  ohm: "Ω",
  ohms: "Ω",
  "1/min": "rpm",
  kmh: "km/h",
  kph: "km/h",
};

/** `85 °C`, `101,3 kPa`, `12%`, `4.2`: a number and the unit it was typed in. undefined where it is none. */
export function parseScan(text: string): { readonly value: number; readonly unit: ScanUnit } | undefined {
  const m = /^([-+−]?\d+(?:[.,]\d+)?)\s*(\S.*)?$/.exec(text.trim());
  if (!m) return undefined;
  const written = (m[2] ?? "V").trim().toLowerCase();
  const unit = SCAN_UNITS.find((u) => u.toLowerCase() === written) ?? WRITTEN[written];
  return unit && { value: Number(m[1]!.replace("−", "-").replace(",", ".")), unit };
}
