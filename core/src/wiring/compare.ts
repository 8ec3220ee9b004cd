import type { Wiring } from "../format/wiring.js";
import { wireId } from "./points.js";

export interface WiringChange {
  readonly what: "wiring" | "connector" | "part" | "wire" | "code";
  readonly id: string;
  readonly change: "added" | "removed" | "changed";
  readonly fields: readonly { readonly field: string; readonly before: string; readonly after: string }[];
}

/** What changed between two revisions of a wiring, thing by thing. Wires are known by their ends. */
export function compareWirings(before: Wiring, after: Wiring): WiringChange[] {
  return [
    ...changes("wiring", [["itself", head(before)]], [["itself", head(after)]]),
    ...changes(
      "connector",
      before.connectors.map((c) => [c.id, c]),
      after.connectors.map((c) => [c.id, c]),
    ),
    ...changes(
      "part",
      before.devices.map((d) => [d.id, d]),
      after.devices.map((d) => [d.id, d]),
    ),
    ...changes(
      "wire",
      before.wires.map((w) => [ends(w), w]),
      after.wires.map((w) => [ends(w), w]),
    ),
    ...changes(
      "code",
      before.codes.map((c) => [`${c.module} ${c.id}`, c]),
      after.codes.map((c) => [`${c.module} ${c.id}`, c]),
    ),
  ];
}
const head = ({ name, machineType, nominalVolt, note }: Wiring) => ({ name, machineType, nominalVolt, note });
const ends = (w: Wiring["wires"][number]) => [w.from, w.to].sort().join(" – ") || wireId(w);

function changes(
  what: WiringChange["what"],
  before: readonly (readonly [string, object])[],
  after: readonly (readonly [string, object])[],
): WiringChange[] {
  const was = new Map(before);
  const is = new Map(after);
  return [
    ...[...was.keys()].filter((id) => !is.has(id)).map((id) => ({ what, id, change: "removed" as const, fields: [] })),
    ...[...is.keys()].filter((id) => !was.has(id)).map((id) => ({ what, id, change: "added" as const, fields: [] })),
    ...[...is].flatMap(([id, x]): WiringChange[] => {
      const old = was.get(id);
      const fields = old ? differing(old, x) : [];
      return fields.length ? [{ what, id, change: "changed", fields }] : [];
    }),
  ];
}
function differing(a: object, b: object) {
  const x = a as Record<string, unknown>;
  const y = b as Record<string, unknown>;
  return [...new Set([...Object.keys(x), ...Object.keys(y)])]
    .filter((k) => k !== "from" && k !== "to" && stable(x[k]) !== stable(y[k]))
    .map((field) => ({ field, before: shown(x[field]), after: shown(y[field]) }));
}
/** the same text for the same value, whatever the order of its keys */
const stable = (v: unknown): string =>
  JSON.stringify(v, (_k, x: unknown) =>
    x && typeof x === "object" && !Array.isArray(x)
      ? Object.fromEntries(Object.entries(x).sort(([p], [q]) => (p < q ? -1 : 1)))
      : x,
  ) ?? "";
const shown = (v: unknown) => (v === undefined ? "" : typeof v === "string" ? v : stable(v)).slice(0, 200);
