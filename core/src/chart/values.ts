import type { DeviceOf } from "../format/wiring.js";
import { cutText } from "../units/cutText.js";

/**
 * Values of a part or pin in one cell: `ohm25=2k5 restCelsius=-10..90 closedIn=on+running name="Reference 1"`.
 * Numbers may carry k, M, m; `..` is a range, `+` a list, quotes keep a text whole. `pin.ground=B40:2` is a cavity
 * shared with another part, or a ground point under a casing; `transfer=kPa@0.5:20|4.5:300` a curve, volts first.
 */
export function parseValues(text: string): {
  readonly values: Record<string, unknown>;
  readonly wrong: readonly string[];
} {
  const values: Record<string, unknown> = {};
  const wrong: string[] = [];
  for (const piece of text.match(/[^\s;,="]+\s*=\s*(?:"(?:[^"\\]|\\.)*"|[^\s;]+)|[^\s;]+/g) ?? []) {
    const m = /^([A-Za-z][A-Za-z0-9]*(?:\.[a-z0-9]+)?)\s*=\s*(.+)$/is.exec(piece);
    if (!m) wrong.push(cutText(piece, 40));
    else values[m[1]!] = parseValue(m[1]!, m[2]!);
  }
  return { values, wrong };
}

/** Begins the name of a pin that no row of a chart can hold. */
export const PIN = "pin.";

function parseCurve(text: string): unknown {
  const [unit = "", points = ""] = text.split("@");
  return { unit, points: points.split("|").map((p) => p.split(":").map((x) => number(x) ?? x)) };
}
const writeCurve = ({ unit, points }: NonNullable<DeviceOf<"threeWireSensor">["transfer"]>) =>
  `${unit}@${points.map((p) => p.join(":")).join("|")}`;

const LISTS: ReadonlySet<string> = new Set(["closedIn", "activeIn"]);
function parseValue(key: string, text: string): unknown {
  if (text.startsWith('"')) {
    try {
      return JSON.parse(text);
    } catch {
      return text.slice(1, -1);
    }
  }
  if (key.startsWith(PIN)) return text;
  if (key === "transfer") return parseCurve(text);
  if (LISTS.has(key)) return text === "none" ? [] : text.split("+");
  if (text === "true" || text === "yes") return true;
  if (text === "false" || text === "no") return false;
  const range = /^(.+?)\.\.(.+)$/.exec(text);
  if (range) {
    const ends = [number(range[1]!), number(range[2]!)];
    return ends.every((e) => e !== undefined) ? ends : text;
  }
  return number(text) ?? text;
}
const SCALE: Readonly<Record<string, number>> = { "": 1, k: 1e3, M: 1e6, m: 1e-3, u: 1e-6 };
function number(text: string): number | undefined {
  const m = /^([+-]?\d*[.,]?\d+(?:e[+-]?\d+)?)([kMmu]?)(?:ohm|Ω|V|A|W|K)?$/.exec(text) ?? undefined;
  const infix = /^(\d+)([kM])(\d+)$/.exec(text);
  if (infix) return Number(`${infix[1]}.${infix[3]}`) * SCALE[infix[2]!]!;
  return m ? Number(m[1]!.replace(",", ".")) * SCALE[m[2]!]! : undefined;
}

/** A text that needs no quotes: a word that cannot be taken for a yes or no. */
const PLAIN_WORD = /^(?!(?:true|false|yes|no)$)[A-Za-z][\w-]*$/;

/** The same back as text; undefined and empty values are left out. */
export function writeValues(values: Readonly<Record<string, unknown>>): string {
  return Object.entries(values)
    .flatMap(([key, v]) => {
      if (v === undefined) return [];
      if (Array.isArray(v)) return [`${key}=${LISTS.has(key) ? (v.length ? v.join("+") : "none") : v.join("..")}`];
      if (key === "transfer") return [`transfer=${writeCurve(v as Parameters<typeof writeCurve>[0])}`];
      if (key.startsWith(PIN)) return [`${key}=${String(v)}`];
      if (typeof v === "string") return [`${key}=${PLAIN_WORD.test(v) ? v : JSON.stringify(v)}`];
      return [`${key}=${String(v)}`];
    })
    .join(" ");
}
