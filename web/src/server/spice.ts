import { netlist, Rig, solutionOf, type Wiring } from "@radicula/core";

/** The healthy circuit, key on, for SPICE. */
export function spiceOf(wiring: Wiring): string {
  const rig = new Rig(wiring, []);
  const state = { key: "on" as const, unplugged: [] };
  const s = rig.settled(state);
  return netlist(`${wiring.name}, key on`, s.conditions, rig.edit(state), solutionOf(s));
}
