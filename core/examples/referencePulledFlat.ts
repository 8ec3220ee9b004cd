import { findFault, generateFaults, predictCodes, readScanTool, readVolts, Rig, type Wiring } from "../src/index.js";
import { oneSensor } from "./machines.js";

/**
 * A reference pulled flat: a sensor shorted inside from supply to ground takes all the 150 mA the reference gives.
 * Unplugging that sensor brings the reference back.
 */
export function referencePulledFlat() {
  const wiring: Wiring = {
    ...oneSensor(),
    codes: [
      { id: "REF", module: "A1", monitor: { type: "outside", at: "A1:1", low: 4.6, high: 5.4 } },
      // its set condition is not known: read from the title
      { id: "LOW", module: "A1", about: "B1", title: "Sensor circuit low" },
    ],
  };
  const fault = findFault(generateFaults(wiring), "B1/shortSupplyGround")!.fault;
  const rig = new Rig(wiring, [{ fault, severity: 2 }]);
  const on = { key: "on" as const, unplugged: [] };
  return {
    plugged: readVolts(rig, on, "B1:1").value,
    unplugged: readVolts(rig, { ...on, unplugged: ["B1"] }, "B1:1").value,
    signal: readScanTool(rig, on, "A1:3").value,
    codes: predictCodes(rig),
  };
}
