import { readWiring, type Wiring } from "../src/index.js";

/** Ten lines of a pin chart: one module, one three-wire sensor; everything else generic. */
export function oneSensor(): Wiring {
  return read({
    connectors: [
      { id: "A1", cavities: ["1", "2", "3"] },
      { id: "B1", cavities: ["1", "2", "3"] },
    ],
    devices: [
      {
        kind: "module",
        id: "A1",
        pins: [
          { role: "reference", at: "A1:1" },
          { role: "sensorGround", at: "A1:2" },
          { role: "input", at: "A1:3", pull: "down" },
        ],
      },
      { kind: "threeWireSensor", id: "B1", pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" } },
    ],
    wires: [
      { id: "W1", from: "A1:1", to: "B1:1" },
      { id: "W2", from: "A1:2", to: "B1:2" },
      { id: "W3", from: "A1:3", to: "B1:3" },
    ],
  });
}

/** A fuse, a switch and a solenoid of 12 Ω to ground G1; a second one beside it on the same ground. */
export function twoLoads(): Wiring {
  return read({
    connectors: [
      { id: "Y1", cavities: ["1", "2"] },
      { id: "Y2", cavities: ["1", "2"] },
    ],
    devices: [
      { kind: "battery", id: "BAT" },
      { kind: "fuse", id: "F1", rating: 10 },
      { kind: "switch", id: "K1" },
      { kind: "splice", id: "S1" },
      { kind: "ground", id: "G1" },
      { kind: "solenoid", id: "Y1", pins: { feed: "Y1:1", ground: "Y1:2" }, ohm: 12 },
      { kind: "solenoid", id: "Y2", pins: { feed: "Y2:1", ground: "Y2:2" }, ohm: 12 },
    ],
    wires: [
      { from: "BAT:+", to: "F1:in" },
      { from: "F1:out", to: "K1:in" },
      { id: "W1", from: "K1:out", to: "S1" },
      { id: "W2", from: "S1", to: "Y1:1" },
      { id: "W3", from: "S1", to: "Y2:1" },
      { id: "W4", from: "Y1:2", to: "G1" },
      { id: "W5", from: "Y2:2", to: "G1" },
    ],
  });
}

function read(parts: object): Wiring {
  const wiring = readWiring({ format: "radicula/wiring", version: 1, name: "example", nominalVolt: 12, ...parts });
  if (!wiring.ok) throw new Error(JSON.stringify(wiring.issues));
  return wiring.value;
}
