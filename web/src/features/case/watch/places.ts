import { connectorOf, type SuspectView, type Wiring } from "@radicula/core";

/** Places worth moving: connectors, splices and grounds of the strongest suspects. */
export function suspectedPlaces(wiring: Wiring, suspects: readonly SuspectView[]): string[] {
  const movable = new Set([
    ...wiring.connectors.map((c) => c.id),
    ...wiring.devices.filter((d) => d.kind === "splice" || d.kind === "ground").map((d) => d.id),
  ]);
  const places = suspects.flatMap((s) => s.places.map((p) => connectorOf(p.id)));
  return [...new Set(places)].filter((p) => movable.has(p));
}
