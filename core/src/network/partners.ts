import type { Wiring } from "../format/wiring.js";
import { findNets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";

const known = new WeakMap<Wiring, ReadonlyMap<string, string>>();

/** The chip sensor whose signal ends at each module pin, by cavity. */
export function sensorsAtPins(wiring: Wiring): ReadonlyMap<string, string> {
  let partners = known.get(wiring);
  if (!partners) known.set(wiring, (partners = findSensors(wiring)));
  return partners;
}
function findSensors(wiring: Wiring): ReadonlyMap<string, string> {
  const nets = findNets(wiring);
  const found = new Map<string, string>();
  for (const d of wiring.devices) {
    if (d.kind !== "threeWireSensor" && d.kind !== "hall") continue;
    const signal = devicePins(d).find((p) => p.role === "signal");
    const pin = signal && nets.modulePinOf(signal.at);
    if (pin !== undefined) found.set(pin, d.id);
  }
  return found;
}
