import { findFault, generateFaults, readLamp, readVolts, Rig } from "../src/index.js";
import { twoLoads } from "./machines.js";

/**
 * Ghost voltage on an open wire: the feed of Y1 hangs by a film of dirt of 3 MΩ. A meter still shows most of the
 * battery at the unplugged connector; a lamp stays dark.
 */
export function ghostVoltage() {
  const wiring = twoLoads();
  const fault = findFault(generateFaults(wiring), "W2/highResistance")!.fault;
  const rig = new Rig(wiring, [{ fault, severity: 3e6 }]);
  const state = { key: "on" as const, unplugged: ["Y1", "Y2"] };
  const meter = readVolts(rig, state, "Y1:1");
  return {
    meter: meter.value,
    remarks: meter.remarks.map((r) => r.code),
    lamp: readLamp(rig, state, 5, "Y1:1").value.brightness,
  };
}
