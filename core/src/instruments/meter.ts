import { DEFAULTS } from "../defaults.js";
import type { Edit } from "../network/element.js";
import { nodeOhm } from "../network/observe.js";
import type { Solver } from "../network/solver.js";
import { OVERLOAD } from "../units/quantity.js";

/**
 * What a 10 MΩ voltmeter shows from a node to chassis, volt. It loads the circuit as in life: a pin that floats
 * reads 0, and a pin behind Z ohm reads V / (1 + Z/10 MΩ). Call after `settle` and `measureOhms`.
 */
export function voltmeter(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  return s.faulty.grounded[k] === 0 ? 0 : s.faulty.x[k]! / (1 + nodeOhm(s, node) / DEFAULTS.meter.ohm);
}

/** An ohmmeter proves something only where no voltage is left; it is judged against this, volt. */
export const OHMS_NEED_BELOW_VOLT = 0.05;

/**
 * What an ohmmeter shows from a node to chassis, ohm; `OVERLOAD` above its range. NaN where the pin still carries
 * voltage: such a reading proves nothing.
 */
export function ohmmeter(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  if (s.faulty.grounded[k] === 0) return OVERLOAD;
  if (Math.abs(s.faulty.x[k]!) > OHMS_NEED_BELOW_VOLT) return NaN;
  const ohm = nodeOhm(s, node);
  return ohm > DEFAULTS.meter.overloadOhm ? OVERLOAD : ohm;
}

/** Through this each lead of an ohmmeter is held, so that two floating conductors are joined by what lies between. */
const HELD_BY_OHM = 1e12;
/** Holds two nodes by an ohmmeter's leads; the meter shows the same where they were held before. */
export const heldByLeads = (a: number, b: number): Edit => ({
  shunts: [a, b].flatMap((node) => (node === 0 ? [] : [{ a: node, b: 0, ohm: HELD_BY_OHM }])),
});
