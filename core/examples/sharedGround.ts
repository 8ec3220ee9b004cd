import { findFault, generateFaults, readContinuity, readOhms, readVolts, Rig } from "../src/index.js";
import { twoLoads } from "./machines.js";

/**
 * A shared ground with 50 Ω: both solenoids lose most of their voltage, the drop across the ground under load says why,
 * and unplugging one changes what the other gets. Ohms are only read with the key off.
 */
export function sharedGround() {
  const wiring = twoLoads();
  const fault = findFault(generateFaults(wiring), "G1/groundHighResistance")!.fault;
  const rig = new Rig(wiring, [{ fault, severity: 50 }]);
  const on = { key: "on" as const, unplugged: [] };
  const off = { key: "off" as const, unplugged: [] };
  return {
    drop: readVolts(rig, on, "G1").value,
    dropWithOneUnplugged: readVolts(rig, { ...on, unplugged: ["Y2"] }, "G1").value,
    ohms: readOhms(rig, off, "G1").value,
    beeps: readContinuity(rig, off, "G1").value,
    ohmsWithPower: readOhms(rig, on, "G1"),
  };
}
