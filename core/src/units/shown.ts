import { fail, issue, ok, type Result } from "../issues/issue.js";
import { parseQuantity, type Unit } from "./quantity.js";
import { parseScan, type ScanUnit } from "./scanUnit.js";
import { cutText } from "./cutText.js";

/**
 * What was typed from an instrument: a value, or a word of a lamp or a beeper; and least and most where it would not
 * stand still.
 */
export interface ShownText {
  readonly value:
    number | "bright" | "dim" | "dark" | "beep" | "silent" | "plausible" | "frozen" | "lowEnd" | "highEnd";
  /** of a scan value that was not typed in volts */
  readonly unit?: ScanUnit;
  readonly swing?: readonly [number, number];
}

const WORDS: Readonly<Record<string, ShownText["value"]>> = {
  bright: "bright",
  full: "bright",
  on: "bright",
  dim: "dim",
  weak: "dim",
  faint: "dim",
  glows: "dim",
  dark: "dark",
  off: "dark",
  out: "dark",
  none: "dark",
  beep: "beep",
  beeps: "beep",
  silent: "silent",
  "no beep": "silent",
  quiet: "silent",
  plausible: "plausible",
  frozen: "frozen",
  "low end": "lowEnd",
  "high end": "highEnd",
};
const LAMP: readonly unknown[] = ["bright", "dim", "dark"];
const BEEPER: readonly unknown[] = ["beep", "silent"];
const SCAN: readonly unknown[] = ["plausible", "frozen", "lowEnd", "highEnd"];
/** Which words make sense: of a lamp, of a beeper, of a scan value beside figures, or none. */
export type ShownWords = "lamp" | "beeper" | "scan" | "none";

/**
 * Reads what people type from a meter, a lamp or a beeper: as `parseQuantity`, and `4.2–4.9`, `4.2-4.9`, `4,2 to 4,9`
 * for
 * a value that flickers, `dim`, `no beep`.
 * @returns the middle of a range as its value, with the range; issues as `parseQuantity`, and `quantity.not-a-word`
 */
export function parseShown(text: string, unit: Unit, words: ShownWords = "none"): Result<ShownText> {
  const t = text.trim().replace(/^[~≈]\s*/, "");
  if (words === "scan") {
    const word = WORDS[t.toLowerCase()];
    if (SCAN.includes(word)) return ok({ value: word! });
    const scanned = parseScan(t);
    if (scanned && scanned.unit !== "V") return ok(scanned);
  } else if (words !== "none") {
    const word = WORDS[t.toLowerCase()];
    if ((words === "lamp" ? LAMP : BEEPER).includes(word)) return ok({ value: word! });
    return fail([
      issue(t === "" ? "quantity.empty" : "quantity.not-a-word", [], {
        text: cutText(t, 40),
        known: words === "lamp" ? [...(LAMP as string[])] : ["beep", "no beep"],
      }),
    ]);
  }
  const range = /^(.*\d[^\d\s–—-]*)\s*(?:–|—|-|\.{2,3}|…|\bto\b)\s*([-+]?[\d.,].*)$/i.exec(t);
  if (range) {
    // a unit or prefix said once, at the end, is meant for both
    const tail = /[\d](\s*[µμmkKMG]?\s*(?:V|v|volts?|Ω|ohms?|A|amps?)?)$/.exec(range[2]!)?.[1] ?? "";
    const first = /[a-zA-Zµμ\u2126Ω]\s*$/.test(range[1]!) ? range[1]! : `${range[1]!}${tail}`;
    const a = parseQuantity(first, unit);
    const b = parseQuantity(range[2]!, unit);
    if (a.ok && b.ok && Number.isFinite(a.value) && Number.isFinite(b.value)) {
      const swing = [Math.min(a.value, b.value), Math.max(a.value, b.value)] as const;
      return ok({ value: (swing[0] + swing[1]) / 2, swing });
    }
  }
  const one = parseQuantity(t, unit);
  return one.ok ? ok({ value: one.value }) : one;
}
