import type { Fault, FaultMode } from "../faults/fault.js";
import type { Wiring, Zone } from "../format/wiring.js";
import { connectorOf } from "../wiring/points.js";

/** What a fluid leaves in a plug. */
const FLUID: ReadonlySet<FaultMode> = new Set<FaultMode>(["contactFilm", "cavitiesBridged", "contactHighResistance"]);
const WET: ReadonlySet<Zone> = new Set<Zone>(["wet", "oily"]);

/**
 * Whether several faults are what one fluid leaves in several plugs: a leaking seal lets it wick along the harness
 * (common practice, no source).
 */
export function isOneFluid(wiring: Wiring, faults: readonly Pick<Fault, "mode" | "place">[]): boolean {
  return faults.length > 1 && faults.every((f) => FLUID.has(f.mode) && isInWet(wiring, f));
}
function isInWet(wiring: Wiring, fault: Pick<Fault, "place">): boolean {
  const plug = fault.place.type === "cavity" ? connectorOf(fault.place.id) : fault.place.id;
  return wiring.connectors.some((c) => c.id === plug && c.zones.some((z) => WET.has(z)));
}
