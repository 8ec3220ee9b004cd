import type { Wiring } from "../format/wiring.js";
import { isPeripheral } from "./kinds.js";
import { devicePins } from "./points.js";

/** Lines that were assumed carry this source. */
export const ASSUMED = "assumed";

/** The cavities of sensors and actuators at which a wire is only assumed, whichever end it is drawn from. */
export function assumedAt(wiring: Wiring): ReadonlySet<string> {
  const assumed = wiring.wires.filter((w) => w.source === ASSUMED);
  if (assumed.length === 0) return new Set();
  const pins = new Set(wiring.devices.flatMap((d) => (isPeripheral(d) ? devicePins(d).map((p) => p.at) : [])));
  return new Set(assumed.flatMap((w) => [w.from, w.to]).filter((end) => pins.has(end)));
}
