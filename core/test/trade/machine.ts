import {
  analyse,
  connectorOf,
  Predictor,
  TERMINALS,
  type Analysis,
  type Entry,
  type KeyState,
  type ReadingEntry,
  type State,
} from "../../src/index.js";
import { wiring } from "../helpers.js";

type Json = Record<string, unknown>;

/** A machine in short: parts with their pins, one wire a line (`W1 B1:1 S1`), codes; connectors come from both. */
export function machine(
  name: string,
  {
    devices,
    wires,
    codes,
    connectors = {},
    volt = 12,
  }: {
    readonly devices: readonly Json[];
    readonly wires: string;
    readonly codes: readonly Json[];
    /** what is known of a connector beyond its cavities, by its name */
    readonly connectors?: Readonly<Record<string, Json>>;
    readonly volt?: 12 | 24;
  },
): Predictor {
  const list = wires
    .trim()
    .split("\n")
    .map((line) => line.trim().split(/\s+/))
    .map(([id, from, to, ...more]) => ({ id, from: from!, to: to!, ...(more[0] ? { bundle: more[0] } : {}) }));
  const terminals = new Set(devices.filter((d) => TERMINALS[d["kind"] as "fuse"]).map((d) => d["id"]));
  const cavities = new Map<string, Set<string>>();
  const note = (point: string) => {
    if (!point.includes(":") || terminals.has(connectorOf(point))) return;
    const cavity = point.slice(point.indexOf(":") + 1).replace(/\.[ab]$/, "");
    cavities.set(connectorOf(point), (cavities.get(connectorOf(point)) ?? new Set()).add(cavity));
  };
  for (const w of list) [w.from, w.to].forEach(note);
  for (const d of devices) {
    const pins = d["pins"];
    if (Array.isArray(pins)) for (const p of pins as { at: string }[]) note(p.at);
    else if (pins) for (const at of Object.values(pins as Record<string, string>)) note(at);
  }
  return new Predictor(
    wiring({
      name,
      nominalVolt: volt,
      connectors: [...cavities].map(([id, c]) => ({ id, cavities: [...c].sort(), ...connectors[id] })),
      devices,
      wires: list,
      codes,
    }),
  );
}

const AT = "2026-11-24T09:00:00Z";
interface Taken {
  readonly key?: KeyState;
  readonly unplugged?: readonly string[];
  readonly black?: string;
  readonly at?: string;
  readonly more?: Partial<State>;
  readonly entry?: Partial<ReadingEntry>;
}
const reading = (
  instrument: ReadingEntry["instrument"],
  point: string,
  value: ReadingEntry["values"][number],
  { key = "on", unplugged = [], black, at = AT, more = {}, entry = {} }: Taken = {},
): Entry => ({
  type: "reading",
  at,
  instrument,
  points: [point],
  ...(black === undefined ? {} : { black }),
  values: [value],
  state: { key, unplugged: [...unplugged], ...more },
  ...entry,
});

/** Volts from a point to battery negative, or to `black`. */
export const volts = (point: string, value: number, taken?: Taken) => reading("voltmeter", point, value, taken);
/** Ohms with the key off. */
export const ohms = (point: string, black: string, value: number | "OL", unplugged: readonly string[]) =>
  reading("ohmmeter", point, value, { key: "off", unplugged, black });
/** Ohms between two pins of a part that was taken out. */
export const ownOhms = (pin: string, black: string, value: number | "OL"): Entry =>
  reading("ohmmeter", pin, value, { key: "off", unplugged: [connectorOf(pin)], black, entry: { part: "removed" } });
export const lamp = (point: string, value: "bright" | "dim" | "dark", taken: Taken & { readonly watt?: number } = {}) =>
  reading("lamp", point, value, {
    ...taken,
    more: { ...taken.more, loads: [{ from: point, to: taken.black ?? "chassis", watt: taken.watt ?? 5 }] },
  });
export const scope = (point: string, swing: number, key: KeyState) => reading("scope", point, swing, { key });
export const scanned = (pin: string, value: ReadingEntry["values"][number], unit: ReadingEntry["unit"] = "V") =>
  reading("scanTool", pin, value, { entry: { unit } });
/** Codes of a full scan of one module. */
export const scan = (
  module: string,
  codes: readonly string[],
  when: "before" | "afterCrank" | "afterDrive" = "afterDrive",
): Entry => ({
  type: "scan",
  at: AT,
  when,
  modules: [module],
  codes: codes.map((code) => ({ module, code, status: "active" })),
  disturbed: [],
  wiped: false,
});
export const look = (
  thing: string,
  found: Extract<Entry, { type: "look" }>["found"][number],
  of?: Extract<Entry, { type: "look" }>["of"],
): Entry => ({ type: "look", at: AT, thing, found: [found], ...(of ? { of } : {}) });
export const wiggled = (thing: string, reacted: boolean): Entry => ({ type: "wiggle", at: AT, thing, reacted });
export const swapped = (a: string, b: string, result: "moved" | "stayed"): Entry => ({
  type: "swap",
  at: AT,
  parts: [a, b],
  result,
});

/**
 * How much of the belief stands behind single faults of a list, and whether the strongest single fault is one of them.
 * @param faults ids, `place/mode`; with a star at the end whatever begins like it
 */
export function verdict(predictor: Predictor, entries: readonly Entry[], faults: readonly string[]) {
  const analysis: Analysis = analyse(predictor, entries);
  const isOne = (id: string) => faults.some((f) => (f.endsWith("*") ? id.startsWith(f.slice(0, -1)) : f === id));
  let share = 0;
  for (const s of analysis.suspects)
    for (const m of s.members) if (m.faults.every((f) => isOne(f.id))) share += m.share;
  const lead = analysis.suspects[0]!.members[0];
  return { share, leads: lead !== undefined && lead.faults.every((f) => isOne(f.id)), analysis };
}
