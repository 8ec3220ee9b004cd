import { fail, issue, ok, type Result } from "../issues/issue.js";
import { cutText } from "./cutText.js";

export type Unit = "V" | "Ω" | "A";

/** What an open ohmmeter shows. */
export const OVERLOAD = Infinity;

const PREFIX: Readonly<Record<string, number>> = {
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};
const UNIT_NAMES: Readonly<Record<string, Unit | "Hz">> = {
  V: "V",
  v: "V",
  volt: "V",
  volts: "V",
  Ω: "Ω",
  "\u2126": "Ω",
  ohm: "Ω",
  ohms: "Ω",
  R: "Ω",
  r: "Ω",
  A: "A",
  amp: "A",
  amps: "A",
  Hz: "Hz",
};

/**
 * Largest magnitudes a workshop meter can show for this work; beyond them the value is asked again. Judgement: above
 * the highest supply voltage of road and work machines, the highest resistance a meter shows and a starter's current.
 */
export const LARGEST_SHOWN: Readonly<Record<Unit, number>> = { V: 60, Ω: 1e9, A: 2_000 };

/**
 * Reads one value the way people type it from a meter: `0.15`, `12,4`, `150m`, `150 mV`, `10k2`, `4R7`, `18.4k`, `OL`.
 * A decimal comma counts as a point. `OL` (overload) is an open circuit and only makes sense in ohms.
 *
 * @param text what was typed
 * @param unit the unit asked for; another unit written out is refused, never converted silently
 * @returns the value in `unit` (volts or ohms), or one issue: `quantity.empty`, `.not-a-number`, `.wrong-unit`,
 *   `.overload-not-ohms`, `.negative-ohms`, `.absurd`
 */
export function parseQuantity(text: string, unit: Unit): Result<number> {
  const bad = (code: string, extra: Record<string, string | number> = {}) =>
    fail([issue(`quantity.${code}`, [], { text: cutText(text, 40), unit, ...extra })]);
  const t = text.trim().replace(/[−–]/g, "-").replace(/\s+/g, "");
  if (t === "") return bad("empty");
  if (/^(>?o\.?l\.?|inf|∞|open)(Ω|ohms?)?$/i.test(t)) return unit === "Ω" ? ok(OVERLOAD) : bad("overload-not-ohms");

  // digits, optional decimal part, optional letter that may stand in for the decimal point, optional unit
  const m = /^([+-]?)(\d*)(?:[.,](\d+))?([µμmkKMG]|[Rr](?=\d))?(\d+)?(V|v|volts?|Ω|\u2126|ohms?|R|r|A|amps?|Hz)?$/.exec(
    t,
  );
  if (!m || (m[2] === "" && m[3] === undefined)) return bad("not-a-number");
  const [, sign, whole = "", fraction, letter, afterLetter, unitText] = m;
  if (afterLetter !== undefined && (letter === undefined || fraction !== undefined)) return bad("not-a-number");
  if (letter !== undefined && /[Rr]/.test(letter) && unit !== "Ω") return bad("wrong-unit", { typed: "Ω" });
  if (unitText !== undefined && UNIT_NAMES[unitText] !== unit)
    return bad("wrong-unit", { typed: UNIT_NAMES[unitText] ?? unitText });

  const scale = letter === undefined || /[Rr]/.test(letter) ? 1 : (PREFIX[letter] ?? 1);
  const value = Number(`${sign}${whole || "0"}.${fraction ?? afterLetter ?? "0"}`) * scale;
  if (!Number.isFinite(value)) return bad("not-a-number");
  if (unit === "Ω" && value < 0) return value > -1 ? ok(0) : bad("negative-ohms");
  if (Math.abs(value) > LARGEST_SHOWN[unit]) return bad("absurd", { limit: LARGEST_SHOWN[unit] });
  return ok(value);
}

/**
 * Writes a value with three or so significant figures and an engineering prefix: `12.4 V`, `0.77 V`, `150 mV`, `10.2
 * kΩ`, `OL`.
 * Volts are kept in volts down to 0.1 V, as meters on a 20 V range show them.
 */
export function formatQuantity(value: number, unit: Unit): string {
  if (value === OVERLOAD) return "OL";
  if (!Number.isFinite(value)) return "—";
  const magnitude = Math.abs(value);
  if (unit === "V") return `${magnitude < 9.995 ? value.toFixed(2).replace(/^-(0\.00)$/, "$1") : value.toFixed(1)} V`;
  if (unit === "A") return magnitude < 0.9995 ? `${Math.round(value * 1e3)} mA` : `${significant(value)} A`;
  if (magnitude >= 999_500) return `${significant(value / 1e6)} MΩ`;
  if (magnitude >= 999.5) return `${significant(value / 1e3)} kΩ`;
  return `${magnitude < 10 ? value.toFixed(1) : significant(value)} Ω`;
}

function significant(value: number): string {
  const magnitude = Math.abs(value);
  return value.toFixed(magnitude >= 99.95 ? 0 : magnitude >= 9.995 ? 1 : 2);
}

/**
 * A bare number as people type it, with a comma or a prefix where they like: `2k2`, `0,75`, `-40`, `10M`.
 * @returns undefined where it is none
 */
export function parsePlain(text: string): number | undefined {
  const m = /^([+-]?)(\d*)(?:[.,](\d+))?([µμmkKMG])?(\d+)?$/.exec(
    text.trim().replace(/[−–]/g, "-").replace(/\s+/g, ""),
  );
  if (!m || (m[2] === "" && m[3] === undefined) || (m[5] !== undefined && (m[4] === undefined || m[3] !== undefined)))
    return undefined;
  return Number(`${m[1]}${m[2] || "0"}.${m[3] ?? m[5] ?? "0"}`) * (m[4] === undefined ? 1 : (PREFIX[m[4]] ?? 1));
}
