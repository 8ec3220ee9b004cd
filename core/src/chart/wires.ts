import type { Chart, ChartRow } from "../format/chart.js";
import { Wire, Zone, type Claim } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { parseColour, sameColour } from "../units/colour.js";
import { parseSection } from "../units/section.js";
import { endName, settleEnd, type End, type Names, type ReadRow } from "./ends.js";
import { cutText } from "../units/cutText.js";

export interface ChartWire {
  readonly from: End;
  readonly to: End;
  readonly row: number;
  readonly wire: Omit<Wire, "from" | "to">;
}
type Note = (row: number, column: string, code: string, params?: Issue["params"]) => void;
export const splitZones = (text: string) =>
  text
    .split(/[\s,;/+]+/)
    .map((z) => z.trim().toLowerCase())
    .filter(Boolean);

/**
 * All wires of a chart. A wire listed at both its ends is one wire; what the two lines say differently becomes a claim.
 * Where an in-line cavity is named without a side, the first wire takes side a and the one that runs on side b.
 */
export function chartWires(
  chart: Chart,
  names: Names,
  rows: readonly ReadRow[],
  inLine: (id: string) => boolean,
): {
  readonly wires: readonly ChartWire[];
  readonly issues: readonly Issue[];
  readonly claims: readonly Claim[];
  readonly owns: ReadonlyMap<number, End>;
} {
  const issues: Issue[] = [];
  const claims: Claim[] = [];
  const owns = new Map<number, End>();
  const found = new Map<string, { from: End; to: End; row: number; wire: Omit<Wire, "from" | "to"> }>();
  const note: Note = (row, column, code, params = {}) =>
    issues.push(issue(`chart.${code}`, ["rows", row, column], params));
  for (const { index, own, to } of rows) {
    const row = chart.rows[index]!;
    const from = settleEnd(names, own, { other: to[0], function: row.function });
    if (!from) {
      note(index, "cavity", own.cavity === "" ? "needs-cavity" : "no-such-terminal", {
        connector: own.id,
        cavity: own.cavity,
      });
      continue;
    }
    owns.set(index, from);
    const facts = wireFacts(row, index, note);
    for (const end of to) {
      const there = settleEnd(names, end, { other: from, function: row.function });
      if (!there) {
        note(index, "goesTo", end.cavity === "" ? "needs-cavity" : "no-such-terminal", {
          connector: end.id,
          cavity: end.cavity,
        });
        continue;
      }
      if (endName(there) === endName(from)) {
        note(index, "goesTo", "to-itself", { endpoint: endName(from) });
        continue;
      }
      const pair = [loose(from), loose(there)].sort().join("~");
      const first = found.get(pair);
      if (!first) {
        found.set(pair, { from, to: there, row: index, wire: facts });
        continue;
      }
      if (loose(first.from) === loose(from) && first.row !== index) {
        // two joints may have several wires between them; a cavity said twice is one wire
        if (names.bare(from.id) && names.bare(there.id)) {
          found.set(`${pair} ${index}`, {
            from,
            to: there,
            row: index,
            wire: { id: `${from.id}-${there.id}-${found.size}`, ...facts },
          });
          continue;
        }
        note(index, "cavity", "said-twice", { cavity: endName(from), first: first.row + 1 });
      }
      merge(first, facts, endName(from), claims, () => note(index, "colour", "two-values", { point: endName(from) }));
      if (!first.from.side && there.side) first.from = there;
      if (!first.to.side && from.side) first.to = from;
    }
  }
  return { wires: placeSides([...found.values()], inLine, note), issues, claims, owns };
}
const loose = (e: End) => endName({ id: e.id, cavity: e.cavity });

function wireFacts(row: ChartRow, index: number, note: Note): Omit<Wire, "from" | "to"> {
  const colour = row.colour.trim();
  if (colour) {
    const read = parseColour(colour);
    if (read.status === "unknown") note(index, "colour", "unknown-colour", { text: read.text, nearest: read.nearest });
    if (read.status === "ambiguous") note(index, "colour", "ambiguous-colour", { text: read.text, could: read.could });
    if (colour.length > 20) note(index, "colour", "too-long", { text: cutText(colour, 40), limit: 20 });
  }
  const mm2 = row.mm2.trim() ? parseSection(row.mm2) : undefined;
  if (row.mm2.trim() && mm2 === undefined) note(index, "mm2", "not-a-section", { text: cutText(row.mm2, 40) });
  const metres = row.lengthM.trim() ? Number(row.lengthM.trim().replace(",", ".").replace(/\s*m$/, "")) : undefined;
  const length = metres !== undefined && metres >= 0 && metres <= 500 ? metres : undefined;
  if (row.lengthM.trim() && length === undefined)
    note(index, "lengthM", "not-a-length", { text: cutText(row.lengthM, 40) });
  const id = row.wire.trim();
  const named = id === "" || Wire.shape.id.safeParse(id).success;
  if (!named) note(index, "wire", "bad-name", { text: cutText(id, 60) });
  return {
    ...(named && id ? { id } : {}),
    ...(colour && colour.length <= 20 && parseColour(colour).status !== "unknown" ? { colour } : {}),
    ...(mm2 === undefined ? {} : { mm2 }),
    ...(length === undefined ? {} : { lengthM: length }),
    ...(row.bundle.trim() ? { bundle: row.bundle.trim() } : {}),
    zones: zonesOf(row.zones, (text) => note(index, "zones", "unknown-zone", { text, known: Zone.options })),
    ...(row.source.trim() ? { source: cutText(row.source.trim(), 120) } : {}),
  };
}
export function zonesOf(text: string, unknown: (zone: string) => void) {
  return [...new Set(splitZones(text))].flatMap((z) => {
    const zone = Zone.safeParse(z);
    if (!zone.success) {
      unknown(z);
      return [];
    }
    return [zone.data];
  });
}

/** The second line about the same wire: fills what the first left open; differences are kept as claims. */
function merge(
  first: { wire: Omit<Wire, "from" | "to"> },
  more: Omit<Wire, "from" | "to">,
  at: string,
  claims: Claim[],
  differs: () => void,
) {
  const source = more.source ?? "second line";
  if (first.wire.colour && more.colour && !sameColour(first.wire.colour, more.colour)) {
    claims.push({ at, field: "colour", value: more.colour, source });
    differs();
  }
  if (first.wire.mm2 !== undefined && more.mm2 !== undefined && first.wire.mm2 !== more.mm2) {
    claims.push({ at, field: "mm2", value: String(more.mm2), source });
    differs();
  }
  first.wire = { ...more, ...first.wire, zones: [...new Set([...first.wire.zones, ...more.zones])] };
}

function placeSides(wires: readonly ChartWire[], inLine: (id: string) => boolean, note: Note): ChartWire[] {
  const taken = new Set(
    wires
      .flatMap((w) => [w.from, w.to])
      .filter((e) => e.side)
      .map(endName),
  );
  const place = (e: End, prefer: "a" | "b", w: ChartWire): End | undefined => {
    if (!inLine(e.id) || e.side) return e;
    for (const side of prefer === "a" ? (["a", "b"] as const) : (["b", "a"] as const)) {
      const sided = { id: e.id, cavity: e.cavity, side };
      if (!taken.has(endName(sided))) {
        taken.add(endName(sided));
        return sided;
      }
    }
    note(w.row, "goesTo", "inline-full", { cavity: endName(e) });
    return undefined;
  };
  // arriving wires take side a, wires that run on from the connector side b
  const arrived = new Map(wires.map((w) => [w, place(w.to, "a", w)]));
  return wires.flatMap((w) => {
    const from = place(w.from, "b", w);
    const to = arrived.get(w);
    return from && to ? [{ ...w, from, to }] : [];
  });
}
