import type { Fault, FaultPlace } from "../faults/fault.js";
import type { Wiring } from "../format/wiring.js";
import { connectorPoints, deviceConnectors, devicePins, wireId } from "../wiring/points.js";

/** The conductors that a fault at each place would be on. */
export function netsOfPlaces(
  wiring: Wiring,
  netOf: ReadonlyMap<string, number>,
): ReadonlyMap<FaultPlace["id"], readonly number[]> {
  const at = new Map<string, number[]>();
  const add = (id: string, points: readonly string[]) => {
    const nets = points.flatMap((p) => netOf.get(p) ?? []);
    at.set(id, [...(at.get(id) ?? []), ...nets]);
  };
  for (const w of wiring.wires) add(wireId(w), [w.from, w.to]);
  for (const c of wiring.connectors) {
    add(c.id, connectorPoints(c));
    for (const p of connectorPoints(c)) {
      add(p, [p]);
      if (c.inline) add(p.replace(/\.[ab]$/, ""), [p]);
    }
  }
  for (const d of wiring.devices) {
    const points = devicePins(d).map((p) => p.at);
    add(d.id, [d.id, ...points, ...["in", "out", "+", "-"].map((end) => `${d.id}:${end}`)]);
    if (points.length > 0) for (const c of deviceConnectors(d)) add(c, points);
  }
  return at;
}

/** The conductors that one fault is on: of a module only the pin it is about. */
export function netsOfFault(
  { place, at }: Pick<Fault, "place" | "at">,
  netsAt: ReadonlyMap<string, readonly number[]>,
): readonly number[] {
  const own = netsAt.get(place.id) ?? [];
  if (at === undefined) return own;
  return place.type === "module" ? (netsAt.get(at) ?? own) : [...own, ...(netsAt.get(at) ?? [])];
}

/** The one part, not a module, that has a pin on some conductor of each set; undefined where none has, or several. */
export function partOnAll(
  wiring: Wiring,
  netOf: ReadonlyMap<string, number>,
  sets: readonly ReadonlySet<number>[],
): string | undefined {
  const parts = wiring.devices.filter((d) => {
    if (d.kind === "module" || !("pins" in d)) return false;
    const own = devicePins(d).flatMap((p) => netOf.get(p.at) ?? []);
    return sets.every((s) => own.some((n) => s.has(n)));
  });
  return parts.length === 1 ? parts[0]!.id : undefined;
}
