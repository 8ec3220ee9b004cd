import { machine } from "./machine.js";

/** How module A1 of each machine is fed. */
const FED = [
  { role: "supply", at: "A1:1" },
  { role: "ground", at: "A1:2" },
];

/** A module with three sensors, a thermistor and a lever on one 5 V reference and one sensor ground. */
export const sensors = machine("five sensors on one reference", {
  devices: [
    { kind: "fuse", id: "F1", rating: 10 },
    { kind: "ground", id: "G1" },
    { kind: "splice", id: "S1" },
    { kind: "splice", id: "S2" },
    {
      kind: "module",
      id: "A1",
      pins: [
        ...FED,
        { role: "reference", at: "A1:3" },
        { role: "sensorGround", at: "A1:4" },
        { role: "input", at: "A1:5", pull: "down" },
        { role: "input", at: "A1:6", pull: "up", pullOhm: 47_000 },
        { role: "input", at: "A1:7", pull: "up" },
        { role: "input", at: "A1:8", pull: "down" },
        { role: "input", at: "A1:9", pull: "down" },
      ],
    },
    {
      kind: "threeWireSensor",
      id: "B1",
      name: "boost pressure sensor",
      pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" },
      restShare: [0.15, 0.3],
      transfer: {
        unit: "kPa",
        points: [
          [0.5, 20],
          [4.5, 300],
        ],
      },
      follows: "B5",
    },
    { kind: "threeWireSensor", id: "B2", pins: { supply: "B2:1", ground: "B2:2", signal: "B2:3" } },
    { kind: "thermistor", id: "B3", pins: { signal: "B3:1", ground: "B3:2" }, restCelsius: [10, 30] },
    { kind: "potentiometer", id: "B4", pins: { supply: "B4:1", ground: "B4:2", signal: "B4:3" } },
    {
      kind: "threeWireSensor",
      id: "B5",
      name: "barometric sensor",
      pins: { supply: "B5:1", ground: "B5:2", signal: "B5:3" },
      restShare: [0.15, 0.3],
      transfer: {
        unit: "kPa",
        points: [
          [0.5, 20],
          [4.5, 300],
        ],
      },
    },
  ],
  wires: `
    WF F1:out A1:1
    WG A1:2 G1
    WR A1:3 S1
    WS A1:4 S2
    W11 B1:1 S1 loom
    W12 B1:2 S2 loom
    W13 B1:3 A1:5 loom
    W21 B2:1 S1 loom
    W22 B2:2 S2 loom
    W23 B2:3 A1:6 loom
    W31 B3:1 A1:7 loom
    W32 B3:2 S2 loom
    W41 B4:1 S1
    W42 B4:2 S2
    W43 B4:3 A1:8
    W51 B5:1 S1
    W52 B5:2 S2
    W53 B5:3 A1:9`,
  codes: [
    ["P0107", "A1:5", "below", 0.2],
    ["P0108", "A1:5", "above", 4.6],
    ["P0117", "A1:7", "below", 0.15],
    ["P0118", "A1:7", "above", 4.85],
    ["P0122", "A1:8", "below", 0.2],
    ["P0123", "A1:8", "above", 4.6],
    ["P0192", "A1:6", "below", 0.2],
    ["P0193", "A1:6", "above", 4.8],
  ]
    .map(([id, at, type, volt]): Record<string, unknown> => ({ id, module: "A1", monitor: { type, at, volt } }))
    .concat([
      { id: "P0106", module: "A1", title: "Boost pressure range/performance", about: "B1" },
      { id: "P0191", module: "A1", title: "Rail pressure range/performance", about: "B2" },
    ]),
});

/** Two modules and a smart sensor on a two-wire bus; a terminator in each module. */
export const bus = machine("a two-wire bus with a smart sensor", {
  devices: [
    { kind: "fuse", id: "F1", rating: 10 },
    { kind: "fuse", id: "F2", rating: 10 },
    { kind: "fuse", id: "F3", rating: 5 },
    { kind: "ground", id: "G1" },
    { kind: "ground", id: "G2" },
    { kind: "ground", id: "G3" },
    { kind: "splice", id: "SH" },
    { kind: "splice", id: "SL" },
    {
      kind: "module",
      id: "A1",
      pins: [...FED, { role: "busHigh", at: "A1:3", terminated: true }, { role: "busLow", at: "A1:4" }],
    },
    {
      kind: "module",
      id: "A2",
      pins: [
        { role: "supply", at: "A2:1" },
        { role: "ground", at: "A2:2" },
        { role: "busHigh", at: "A2:3", terminated: true },
        { role: "busLow", at: "A2:4" },
      ],
    },
    { kind: "smartSensor", id: "B30", pins: { supply: "B30:1", ground: "B30:2", busHigh: "B30:3", busLow: "B30:4" } },
  ],
  wires: `
    WF1 F1:out A1:1
    WF2 F2:out A2:1
    WF3 F3:out B30:1
    WG1 A1:2 G1
    WG2 A2:2 G2
    WG3 B30:2 G3
    WH1 A1:3 SH pair
    WL1 A1:4 SL pair
    WH2 A2:3 SH
    WL2 A2:4 SL
    WH3 B30:3 SH
    WL3 B30:4 SL`,
  codes: [
    { id: "U0100", module: "A2", monitor: { type: "silent", node: "A1" } },
    { id: "U029D", module: "A1", monitor: { type: "silent", node: "B30" } },
    { id: "U0155", module: "A1", monitor: { type: "silent", node: "A2" } },
  ],
});

/** A commander and two smart sensors on a single wire. */
export const singleWire = machine("a single-wire bus", {
  devices: [
    { kind: "fuse", id: "F1", rating: 10 },
    { kind: "ground", id: "G1" },
    { kind: "ground", id: "G2" },
    { kind: "splice", id: "S1" },
    {
      kind: "module",
      id: "A1",
      pins: [...FED, { role: "busLine", at: "A1:3", commander: true }],
    },
    { kind: "smartSensor", id: "B31", pins: { supply: "B31:1", ground: "B31:2", busLine: "B31:3" } },
    { kind: "smartSensor", id: "B32", pins: { supply: "B32:1", ground: "B32:2", busLine: "B32:3" } },
    { kind: "splice", id: "SF" },
    { kind: "splice", id: "SG" },
  ],
  wires: `
    WF F1:out SF
    WFA SF A1:1
    WF1 SF B31:1
    WF2 SF B32:1
    WGA A1:2 G1
    WG SG G2
    WG1 B31:2 SG
    WG2 B32:2 SG
    WB A1:3 S1
    WB1 B31:3 S1
    WB2 B32:3 S1`,
  codes: [
    { id: "U0131", module: "A1", monitor: { type: "silent", node: "B31" } },
    { id: "U0132", module: "A1", monitor: { type: "silent", node: "B32" } },
  ],
});

/** Heaters, a valve and a relay driven by a module; two heaters are twins. */
export const drivers = machine("heaters and a valve on low-side drivers", {
  devices: [
    { kind: "battery", id: "BAT" },
    { kind: "fuse", id: "F1", rating: 10 },
    { kind: "fuse", id: "F2", rating: 15 },
    { kind: "ground", id: "G1" },
    { kind: "splice", id: "S1" },
    {
      kind: "module",
      id: "A1",
      pins: [
        ...FED,
        { role: "lowSide", at: "A1:3" },
        { role: "lowSide", at: "A1:4" },
        { role: "lowSide", at: "A1:5", activeIn: ["on", "running"] },
        { role: "lowSide", at: "A1:6", activeIn: ["on", "cranking", "running"] },
      ],
    },
    { kind: "heater", id: "R1", name: "left heater", side: "left", pins: { feed: "R1:1", ground: "R1:2" } },
    { kind: "heater", id: "R2", name: "right heater", side: "right", pins: { feed: "R2:1", ground: "R2:2" } },
    { kind: "solenoid", id: "Y1", pins: { feed: "Y1:1", ground: "Y1:2" } },
    {
      kind: "relay",
      id: "K1",
      pins: { coilHigh: "K1:86", coilLow: "K1:85", common: "K1:30", working: "K1:87" },
    },
  ],
  wires: `
    WM F1:out A1:1
    WG A1:2 G1
    WC F1:in BAT:+
    WK F2:in BAT:+
    WK3 F2:out K1:30
    WK8 K1:87 S1
    WK6 K1:86 BAT:+
    WK5 K1:85 A1:6
    W1 S1 R1:1
    W2 S1 R2:1
    W3 S1 Y1:1
    WD1 R1:2 A1:3 loom
    WD2 R2:2 A1:4 loom
    WD3 Y1:2 A1:5 loom`,
  codes: [
    { id: "P0135", module: "A1", title: "Heater circuit, left", about: "R1" },
    { id: "P0155", module: "A1", title: "Heater circuit, right", about: "R2" },
    { id: "P0443", module: "A1", title: "Purge valve control circuit", about: "Y1" },
  ],
});

/** A Hall and a coil sensor. */
export const speed = machine("a Hall and a coil sensor", {
  devices: [
    { kind: "fuse", id: "F1", rating: 10 },
    { kind: "ground", id: "G1" },
    {
      kind: "module",
      id: "A1",
      pins: [
        ...FED,
        { role: "reference", at: "A1:3" },
        { role: "sensorGround", at: "A1:4" },
        { role: "input", at: "A1:5", pull: "up", pullOhm: 2_200 },
        { role: "input", at: "A1:6" },
        { role: "sensorGround", at: "A1:7" },
      ],
    },
    { kind: "hall", id: "B20", pins: { supply: "B20:1", ground: "B20:2", signal: "B20:3" } },
    { kind: "coilSensor", id: "B21", pins: { high: "B21:1", low: "B21:2" } },
  ],
  wires: `
    WF F1:out A1:1
    WG A1:2 G1
    W1 B20:1 A1:3
    W2 B20:2 A1:4
    W3 B20:3 A1:5
    W4 B21:1 A1:6
    W5 B21:2 A1:7`,
  codes: [
    { id: "P0340", module: "A1", monitor: { type: "noActivity", at: "A1:5" } },
    { id: "P0335", module: "A1", monitor: { type: "noActivity", at: "A1:6" } },
    { id: "P0342", module: "A1", title: "Camshaft sensor circuit low", about: "B20" },
  ],
});

/** Pressure and temperature in one housing on four pins, a case-grounded thermistor, a 0 to 5 V sensor fed by 24 V. */
export const combined = machine("combined parts on 24 V", {
  volt: 24,
  devices: [
    { kind: "fuse", id: "F1", rating: 10 },
    { kind: "ground", id: "G1" },
    { kind: "ground", id: "G5", name: "casing of B42" },
    { kind: "splice", id: "SF" },
    {
      kind: "module",
      id: "A1",
      pins: [
        ...FED,
        { role: "reference", at: "A1:3" },
        { role: "sensorGround", at: "A1:4" },
        { role: "input", at: "A1:5", pull: "down" },
        { role: "input", at: "A1:6", pull: "up" },
        { role: "input", at: "A1:7", pull: "up" },
        { role: "input", at: "A1:8", pull: "down" },
      ],
    },
    { kind: "threeWireSensor", id: "B40", pins: { supply: "B40:1", ground: "B40:2", signal: "B40:3" } },
    { kind: "thermistor", id: "B41", pins: { signal: "B40:4", ground: "B40:2" } },
    { kind: "thermistor", id: "B42", pins: { signal: "B42:1", ground: "G5" }, restCelsius: [10, 30] },
    {
      kind: "threeWireSensor",
      id: "B43",
      pins: { supply: "B43:1", ground: "B43:2", signal: "B43:3" },
      outputVolt: 5,
      restShare: [0.1, 0.2],
    },
  ],
  wires: `
    WF F1:out SF
    WFA SF A1:1
    WG A1:2 G1
    W1 B40:1 A1:3
    W2 B40:2 A1:4
    W3 B40:3 A1:5
    W4 B40:4 A1:6
    W5 B42:1 A1:7
    W6 B43:1 SF
    W7 B43:2 G1
    W8 B43:3 A1:8`,
  codes: [
    { id: "P0107", module: "A1", monitor: { type: "below", at: "A1:5", volt: 0.2 } },
    { id: "P0108", module: "A1", monitor: { type: "above", at: "A1:5", volt: 4.8 } },
    { id: "P0113", module: "A1", monitor: { type: "above", at: "A1:6", volt: 4.85 } },
    { id: "P0118", module: "A1", monitor: { type: "above", at: "A1:7", volt: 4.85 } },
    { id: "P0522", module: "A1", monitor: { type: "below", at: "A1:8", volt: 0.2 } },
    { id: "P0523", module: "A1", monitor: { type: "above", at: "A1:8", volt: 4.8 } },
  ],
});
