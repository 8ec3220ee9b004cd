import { readVolts, Rig } from "../src/index.js";
import { oneSensor } from "./machines.js";

/**
 * Voltage on a loaded divider: a resistor of 10 kΩ from the reference to an input pulled down by 100 kΩ should make
 * 5 · 100/110 V. The meter's own 10 MΩ takes a little of that; leave the sensor unplugged and jumper it to see.
 */
export function loadedDivider() {
  const rig = new Rig(oneSensor());
  const state = { key: "on" as const, unplugged: ["B1"], jumpers: [{ from: "B1:1", to: "B1:3", ohm: 10_000 }] };
  const meter = readVolts(rig, state, "B1:3", "B1:2").value;
  const unloaded = (5 * 100_000) / 110_000;
  return { meter, unloaded };
}
