import {
  analyse,
  elementAmpere,
  findFault,
  generateFaults,
  inspectCircuit,
  predictCodes,
  Predictor,
  readClamp,
  readContinuity,
  readOhms,
  readScanTool,
  readScope,
  readVolts,
  Rig,
  type State,
  type Wiring,
} from "../src/index.js";
import { wiring } from "./helpers.js";

const on: State = { key: "on", unplugged: [] };
const running: State = { key: "running", unplugged: [] };
const off: State = { key: "off", unplugged: [] };
const plug = (id: string, n: number) => ({ id, cavities: Array.from({ length: n }, (_, i) => String(i + 1)) });
const rig = (w: Wiring, fault?: string, severity = NaN) =>
  new Rig(w, fault === undefined ? [] : [{ fault: findFault(generateFaults(w), fault)!.fault, severity }]);
const volt = (r: Rig, state: State, red: string, black?: string) => readVolts(r, state, red, black).value;

/** A module with the pins given and the devices that go on them, wired pin to pin. */
function bench(pins: object[], devices: object[], wires: [string, string][], more: object = {}): Wiring {
  const used = new Map<string, number>();
  for (const [, n, c] of JSON.stringify([pins, devices]).matchAll(/"([A-Z]\w*):(\d+)"/g))
    used.set(n!, Math.max(used.get(n!) ?? 0, Number(c)));
  return wiring({
    connectors: [...used].map(([id, n]) => plug(id, n)),
    devices: [
      { kind: "battery", id: "BAT" },
      { kind: "ground", id: "G1" },
      ...(pins.length ? [{ kind: "module", id: "A1", pins }] : []),
      ...devices,
    ],
    wires: wires.map(([from, to]) => ({ from, to, mm2: 2.5 })),
    ...more,
  });
}

describe("kinds, against hand calculation from their stated values", () => {
  test("a relay closes its working contact when its coil gets enough, and opens the resting one", () => {
    const w = bench(
      [],
      [
        { kind: "switch", id: "K", closedIn: ["running"] },
        {
          kind: "relay",
          id: "R1",
          pins: { coilHigh: "R1:1", coilLow: "R1:2", common: "R1:3", working: "R1:4", resting: "R1:5" },
        },
        { kind: "lamp", id: "E1", pins: { feed: "E1:1", ground: "E1:2" } },
        { kind: "lamp", id: "E2", pins: { feed: "E2:1", ground: "E2:2" } },
      ],
      [
        ["BAT:+", "K:in"],
        ["K:out", "R1:1"],
        ["R1:2", "G1"],
        ["BAT:+", "R1:3"],
        ["R1:4", "E1:1"],
        ["R1:5", "E2:1"],
        ["E1:2", "G1"],
        ["E2:2", "G1"],
      ],
    );
    expect([volt(rig(w), on, "E1:1") < 0.1, volt(rig(w), on, "E2:1") > 12]).toEqual([true, true]);
    expect([volt(rig(w), running, "E1:1") > 13, volt(rig(w), running, "E2:1") < 0.1]).toEqual([true, true]);
    expect(volt(rig(w, "R1/relayCoilOpen"), running, "E1:1")).toBeLessThan(0.1);
    // 85 Ω coil behind 150 Ω: 5 V is not enough
    expect(volt(rig(w, "R1:1/contactHighResistance", 150), running, "E1:1")).toBeLessThan(0.1);
    expect(volt(rig(w, "R1/relayStuck"), on, "E1:1")).toBeGreaterThan(12);
  });
  test("a diode: 0.65 V and its resistance one way, almost nothing the other", () => {
    const w = (a: string, b: string) =>
      bench(
        [],
        [
          { kind: "diode", id: "D1" },
          { kind: "solenoid", id: "Y1", pins: { feed: "Y1:1", ground: "Y1:2" }, ohm: 12 },
        ],
        [
          ["BAT:+", a],
          [b, "Y1:1"],
          ["Y1:2", "G1"],
        ],
      );
    const through = (12.4 - 0.65) / (12 + 0.03 + 0.05);
    expect(volt(rig(w("D1:anode", "D1:cathode")), on, "Y1:1")).toBeCloseTo(through * 12, 0);
    expect(volt(rig(w("D1:cathode", "D1:anode")), on, "Y1:1")).toBeLessThan(0.001);
  });
  test("a lamp: its rating at its voltage, ten times the current when cold", () => {
    const w = bench(
      [],
      [{ kind: "lamp", id: "E1", pins: { feed: "E1:1", ground: "E1:2" }, watt: 21 }],
      [
        ["BAT:+", "E1:1"],
        ["E1:2", "G1"],
      ],
    );
    const r = rig(w);
    const s = r.settled(on);
    const i = elementAmpere(s, r.circuit(on).elementOf.get("element E1")!);
    const v = volt(r, on, "E1:1", "E1:2");
    expect(i).toBeCloseTo((21 / 12) * Math.sqrt(v / 12), 2); // I ∝ √V for R ∝ √V
    expect(readOhms(r, { ...off, unplugged: [] }, "E1:1", "E1:2").proves).toBe(false); // battery still on it
    // the dead battery itself is in parallel
    expect(readOhms(rig(w, "BAT/supplyLow", 1e-9), off, "E1:1", "E1:2").value).toBeLessThan(0.05);
    const loose = bench(
      [],
      [{ kind: "lamp", id: "E1", pins: { feed: "E1:1", ground: "E1:2" }, watt: 21 }],
      [["E1:2", "G1"]],
    );
    expect(readOhms(rig(loose), off, "E1:1").value).toBeCloseTo((144 / 21) * 0.1, 1);
  });
  test("a heater on a pulsed low-side driver: mean by its duty, and a scope sees it", () => {
    const w = bench(
      [
        { role: "supply", at: "A1:1" },
        { role: "ground", at: "A1:2" },
        { role: "lowSide", at: "A1:3", duty: 0.25 },
      ],
      [{ kind: "heater", id: "E1", pins: { feed: "E1:1", ground: "E1:2" }, ohm: 8 }],
      [
        ["BAT:+", "A1:1"],
        ["A1:2", "G1"],
        ["BAT:+", "E1:1"],
        ["E1:2", "A1:3"],
      ],
      { codes: [{ id: "C", module: "A1", monitor: { type: "current", at: "A1:3", low: 0.5, high: 4 } }] },
    );
    const scope = readScope(rig(w), running, "E1:2").value;
    expect(scope.duty).toBeCloseTo(0.75, 6); // the pin is low for a quarter of the period
    expect(scope.average).toBeCloseTo(0.25 * scope.least + 0.75 * scope.most, 6);
    expect(volt(rig(w), running, "E1:2")).toBeCloseTo(scope.average, 3);
    expect(readClamp(rig(w), running, "E1:2~A1:3").value).toBeCloseTo(0.25 * (14.2 / 8.2), 1);
    expect(predictCodes(rig(w))).toEqual([]);
    expect(predictCodes(rig(w, "E1/elementOpen")).map((c) => c.code)).toEqual(["C"]);
    expect(predictCodes(rig(w, "E1/shortInside", 1)).map((c) => c.code)).toEqual(["C"]);
    const never: Wiring = {
      ...w,
      devices: w.devices.map((d) =>
        d.kind === "module"
          ? { ...d, pins: d.pins.map((p) => (p.role === "lowSide" ? { ...p, activeIn: [] } : p)) }
          : d,
      ),
    };
    expect(predictCodes(rig(never))).toEqual([]); // a driver that is never on is not judged
  });
  test("a two-track pedal keeps its relation over the sweep (common practice, no source: within 0.1 V)", () => {
    const w = bench(
      [
        { role: "reference", at: "A1:1" },
        { role: "sensorGround", at: "A1:2" },
        { role: "input", at: "A1:3", pull: "down" },
        { role: "input", at: "A1:4", pull: "down" },
      ],
      [{ kind: "pedal", id: "B1", pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3", signal2: "B1:4" } }],
      [
        ["A1:1", "B1:1"],
        ["A1:2", "B1:2"],
        ["A1:3", "B1:3"],
        ["A1:4", "B1:4"],
      ],
      { codes: [{ id: "D", module: "A1", monitor: { type: "disagree", at: "A1:3", other: "A1:4", ratio: 0.5 } }] },
    );
    for (const pedal of [0.1, 0.5, 0.9]) {
      const state = { ...on, stimulus: { B1: pedal } };
      const first = readScanTool(rig(w), state, "A1:3").value;
      const second = readScanTool(rig(w), state, "A1:4").value;
      expect(Math.abs(second - 0.5 * first)).toBeLessThan(0.1);
      expect(first / 5).toBeCloseTo(pedal, 1);
    }
    expect(predictCodes(rig(w, "B1~2/elementOpen")).map((c) => c.code)).toEqual(["D"]);
  });
  test("a 4–20 mA loop: current times the input's resistor, until the supply runs out", () => {
    const w = bench(
      [{ role: "input", at: "A1:1", pull: "down", pullOhm: 240 }],
      [{ kind: "currentLoop", id: "B1", pins: { supply: "B1:1", signal: "B1:2" } }],
      [
        ["BAT:+", "B1:1"],
        ["B1:2", "A1:1"],
      ],
    );
    for (const mA of [4, 12, 16])
      expect(volt(rig(w), { ...on, stimulus: { B1: mA } }, "A1:1")).toBeCloseTo(0.24 * mA, 1);
    // 12.4 V leaves less than its 8 V
    expect(volt(rig(w), { ...on, stimulus: { B1: 20 } }, "A1:1")).toBeLessThan(0.24 * 20 - 0.1);
  });
  test("a two-wire coil sensor: its resistance unplugged, and activity only while it turns", () => {
    const w = bench(
      [
        { role: "sensorGround", at: "A1:1" },
        { role: "input", at: "A1:2", pull: "none" },
      ],
      [{ kind: "coilSensor", id: "B1", pins: { high: "B1:1", low: "B1:2" }, ohm: 800 }],
      [
        ["B1:1", "A1:2"],
        ["B1:2", "A1:1"],
      ],
      { codes: [{ id: "N", module: "A1", monitor: { type: "noActivity", at: "A1:2" } }] },
    );
    expect(readOhms(rig(w), { ...off, unplugged: ["A1"] }, "B1:1", "B1:2").value).toBeCloseTo(800, 0);
    expect(predictCodes(rig(w)).map((c) => c.code)).toEqual([]);
    for (const f of ["B1/elementOpen", "B1/targetDamaged"])
      expect(predictCodes(rig(w, f)).map((c) => c.code)).toEqual(["N"]);
  });
  test("a reference that folds back gives its small current into a hard short, and recovers when unplugged", () => {
    const w = bench(
      [
        { role: "reference", at: "A1:1", limitAmpere: 0.1, foldAmpere: 0.02 },
        { role: "sensorGround", at: "A1:2" },
      ],
      [{ kind: "potentiometer", id: "B1", pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" } }],
      [
        ["A1:1", "B1:1"],
        ["A1:2", "B1:2"],
      ],
    );
    expect(volt(rig(w, "B1/shortSupplyGround", 5), on, "B1:1", "B1:2")).toBeCloseTo(0.02 * 5, 2);
    // above the fold: the full limit
    expect(volt(rig(w, "B1/shortSupplyGround", 30), on, "B1:1", "B1:2")).toBeCloseTo(0.1 * 30, 1);
    expect(volt(rig(w, "B1/shortSupplyGround", 5), { ...on, unplugged: ["B1"] }, "B1:1")).toBeCloseTo(5, 1);
  });
  test("an alternator carries the load while running; overcharging shows at the battery; 24 V doubles both", () => {
    const w = (nominalVolt: 12 | 24) =>
      bench(
        [],
        [{ kind: "alternator", id: "ALT" }],
        [
          ["ALT:+", "BAT:+"],
          ["ALT:-", "G1"],
          ["BAT:-", "G1"],
        ],
        { nominalVolt },
      );
    expect(volt(rig(w(12)), running, "BAT:+")).toBeGreaterThan(13.5);
    expect(volt(rig(w(24)), running, "BAT:+")).toBeGreaterThan(27);
    expect(volt(rig(w(12)), on, "BAT:+")).toBeCloseTo(12.4, 1);
    expect(volt(rig(w(12), "ALT/dead"), running, "BAT:+")).toBeLessThan(13);
    expect(volt(rig(w(12), "ALT/supplyHigh", 1.2), running, "BAT:+")).toBeGreaterThan(15);
  });
  test("a module with two grounds and switched and permanent feeds wakes only on both", () => {
    const w = bench(
      [
        { role: "supply", at: "A1:1", feed: "switched", domain: "p" },
        { role: "supply", at: "A1:2", feed: "permanent", domain: "p" },
        { role: "ground", at: "A1:3", domain: "p" },
        { role: "ground", at: "A1:4", domain: "s" },
        { role: "reference", at: "A1:5", domain: "s" },
      ],
      [{ kind: "fuse", id: "F1", rating: 5 }],
      [
        ["BAT:+", "A1:1"],
        ["BAT:+", "F1:in"],
        ["F1:out", "A1:2"],
        ["A1:3", "G1"],
        ["A1:4", "G1"],
      ],
    );
    expect(volt(rig(w), on, "A1:5")).toBeCloseTo(5, 1);
    expect(volt(rig(w, "F1/fuseBlown"), on, "A1:5")).toBeLessThan(0.1);
    expect(volt(rig(w), { ...on, asleep: ["A1"] }, "A1:5")).toBeLessThan(0.1);
    expect(readVolts(rig(w), { ...on, asleep: ["A1"] }, "A1:5").remarks.map((r) => r.code)).toContain(
      "reading.module-asleep",
    );
    expect(readScanTool(rig(w), { ...on, asleep: ["A1"] }, "A1:5")).toMatchObject({ proves: false, value: NaN });
  });
});

describe("buses", () => {
  const can = bench(
    [
      { role: "supply", at: "A1:1" },
      { role: "ground", at: "A1:2" },
      { role: "busHigh", at: "A1:3", terminated: true },
      { role: "busLow", at: "A1:4" },
    ],
    [
      {
        kind: "smartSensor",
        id: "B1",
        pins: { supply: "B1:1", ground: "B1:2", busHigh: "B1:3", busLow: "B1:4" },
        terminated: true,
      },
      { kind: "fuse", id: "F1", rating: 5 },
    ],
    [
      ["BAT:+", "A1:1"],
      ["A1:2", "G1"],
      ["BAT:+", "F1:in"],
      ["F1:out", "B1:1"],
      ["B1:2", "G1"],
      ["A1:3", "B1:3"],
      ["A1:4", "B1:4"],
    ],
    { codes: [{ id: "U1", module: "A1", title: "Lost communication with the level sensor", about: "B1" }] },
  );
  test("two-wire: 60 Ω across unpowered, recessive near 2.5 V, dominant as in ISO 11898-2 (values from memory)", () => {
    expect(readOhms(rig(can), { ...off, unplugged: [], pulled: ["F1"] }, "A1:3", "A1:4").value).toBeCloseTo(60, -1);
    const r = rig(can);
    const quiet = r.settled(on, { phase: 0.9 });
    const talk = r.settled(on, { phase: 0 });
    expect(talk).not.toBe(quiet);
    const h = readScope(r, on, "A1:3").value;
    const l = readScope(r, on, "A1:4").value;
    expect(h.most).toBeGreaterThan(2.75);
    expect(h.most).toBeLessThan(4.5);
    expect(h.least).toBeCloseTo(2.5, 1);
    expect(l.least).toBeGreaterThan(0.5);
    expect(l.least).toBeLessThan(2.25);
    expect(l.most).toBeCloseTo(2.5, 1);
    expect(volt(r, on, "A1:3")).toBeLessThan(3); // what a meter shows: the mean
  });
  test("a node without power is silent, and its code follows from that; so is one cut off the bus", () => {
    expect(predictCodes(rig(can))).toEqual([]);
    expect(predictCodes(rig(can, "F1/fuseBlown"))).toMatchObject([
      { code: "U1", follows: { id: "B1" }, clearsItself: true, broad: true },
    ]);
    expect(predictCodes(rig(can, "A1:3~B1:3/open"))).toMatchObject([
      { code: "U1", follows: undefined, clearsItself: true },
    ]);
    expect(predictCodes(rig(can, "B1~bus/shortInside", 0.05)).map((c) => c.code)).toEqual(["U1"]);
    expect(predictCodes(rig(can, "A1:4~B1:4/shortToSupply", 0.05)).map((c) => c.code)).toEqual(["U1"]);
  });
  test("single-wire: 0.8 of battery or more when idle (common practice, no source), down while it talks", () => {
    const lin = bench(
      [
        { role: "supply", at: "A1:1" },
        { role: "ground", at: "A1:2" },
        { role: "busLine", at: "A1:3", commander: true },
      ],
      [{ kind: "smartSensor", id: "B1", pins: { supply: "B1:1", ground: "B1:2", busLine: "B1:3" } }],
      [
        ["BAT:+", "A1:1"],
        ["A1:2", "G1"],
        ["BAT:+", "B1:1"],
        ["B1:2", "G1"],
        ["A1:3", "B1:3"],
      ],
      { codes: [{ id: "U2", module: "A1", monitor: { type: "silent", node: "B1" } }] },
    );
    const s = readScope(rig(lin), on, "B1:3").value;
    expect(s.most).toBeGreaterThan(0.8 * 12.4);
    expect(s.least).toBeLessThan(1);
    expect(predictCodes(rig(lin))).toEqual([]);
    for (const f of ["A1:3~B1:3/open", "B1/dead", "A1:3~B1:3/shortToChassis"])
      expect(predictCodes(rig(lin, f, 0.05)).map((c) => c.code)).toEqual(["U2"]);
    const unplugged = readScope(rig(lin), { ...on, unplugged: ["B1"] }, "B1:3").value;
    expect(unplugged.most).toBeGreaterThan(0.8 * 12.4);
  });
});

test(
  "a resetting breaker in a blown fuse's place feeds the load; behind a short it trips (common practice, no " +
    "source)",
  () => {
    const w = bench(
      [],
      [
        { kind: "fuse", id: "F1", rating: 10 },
        { kind: "heater", id: "E1", pins: { feed: "E1:1", ground: "E1:2" } },
      ],
      [
        ["BAT:+", "F1:in"],
        ["F1:out", "E1:1"],
        ["E1:2", "G1"],
      ],
    );
    const fitted: State = { ...on, breakers: ["F1"] };
    expect(volt(rig(w, "F1/fuseBlown"), on, "E1:1")).toBeLessThan(0.1);
    expect(volt(rig(w, "F1/fuseBlown"), fitted, "E1:1")).toBeGreaterThan(12);
    expect(volt(rig(w, "E1/shortInside", 0.1), fitted, "E1:1")).toBeLessThan(0.1);
    // holds with the culprit off
    expect(volt(rig(w, "E1/shortInside", 0.1), { ...fitted, unplugged: ["E1"] }, "F1:out")).toBeGreaterThan(12);
    expect(volt(rig(w), { ...on, pulled: ["F1"] }, "E1:1")).toBeLessThan(0.1);
  },
);

describe("instruments know when they prove nothing", () => {
  const w = bench(
    [
      { role: "reference", at: "A1:1" },
      { role: "sensorGround", at: "A1:2" },
      { role: "input", at: "A1:3", pull: "down" },
    ],
    [{ kind: "threeWireSensor", id: "B1", pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" } }],
    [
      ["A1:1", "B1:1"],
      ["A1:2", "B1:2"],
      ["A1:3", "B1:3"],
    ],
  );
  test("ohms on a live circuit, a beeper, a clamp on milliamperes, a sagging battery", () => {
    expect(readOhms(rig(w), on, "B1:1")).toMatchObject({ proves: false });
    const beep = readContinuity(rig(w, "A1:2~B1:2/fewStrands", 15), { ...off, unplugged: ["B1"] }, "B1:2");
    expect([beep.value, beep.remarks[0]!.code]).toEqual([true, "reading.beeper-rules-out-open"]); // 15 Ω still beeps
    expect(readClamp(rig(w), on, "A1:1~B1:1")).toMatchObject({
      proves: false,
      remarks: [{ code: "clamp.below-resolution" }],
    });
    expect(readVolts(rig(w, "BAT/supplyLow", 0.8), on, "B1:1").remarks.map((r) => r.code)).toContain(
      "reading.battery-low",
    );
    expect(() => readVolts(rig(w), on, "B9:1")).toThrow(RangeError);
    expect(() => readClamp(rig(w), on, "W99")).toThrow(RangeError);
    expect(() => readScanTool(rig(w), on, "B1:1")).toThrow(RangeError);
  });
  test(
    "a jumper through 1 kΩ to the reference, sensor unplugged, reads about full scale (common practice, no " +
      "source)",
    () => {
      expect(
        readScanTool(rig(w), { ...on, unplugged: ["B1"], jumpers: [{ from: "B1:1", to: "B1:3", ohm: 1000 }] }, "A1:3")
          .value,
      ).toBeGreaterThan(4.8);
      expect(
        readScanTool(rig(w), { ...on, unplugged: ["B1"], jumpers: [{ from: "B1:3", to: "B1:2", ohm: 0.01 }] }, "A1:3")
          .value,
      ).toBeLessThan(0.05);
    },
  );
});

describe("contradictory documents are solved or reported by name (bad input)", () => {
  const names = (w: Wiring) => inspectCircuit(w).map((i) => i.code);
  test("two batteries opposed through milliohms", () => {
    const w = wiring({
      devices: [
        { kind: "battery", id: "BAT" },
        { kind: "battery", id: "BAT2", volt: 12 },
        { kind: "ground", id: "G1" },
      ],
      wires: [
        { from: "BAT:+", to: "BAT2:-", mm2: 50, lengthM: 0.3 },
        { from: "BAT:-", to: "G1" },
        { from: "BAT2:+", to: "G1", mm2: 50, lengthM: 0.3 },
      ],
    });
    expect(names(w)).toContain("circuit.battery-shorted");
    expect(volt(rig(w), on, "BAT:+")).not.toBeNaN();
  });
  test("a module without ground, a module on no live feed", () => {
    expect(names(bench([{ role: "supply", at: "A1:1" }], [], [["BAT:+", "A1:1"]]))).toEqual([
      "circuit.module-without-ground",
    ]);
    expect(
      names(
        bench(
          [
            { role: "supply", at: "A1:1" },
            { role: "ground", at: "A1:2" },
          ],
          [{ kind: "switch", id: "K", closedIn: [] }],
          [["K:out", "A1:1"]],
        ),
      ),
    ).toEqual(["circuit.module-asleep"]);
  });
  test("a relay that cuts its own coil has no steady state; one that holds itself has two", () => {
    const loop = (contact: "working" | "resting", start: [string, string][]) =>
      bench(
        [],
        [{ kind: "relay", id: "R1", pins: { coilHigh: "R1:1", coilLow: "R1:2", common: "R1:3", [contact]: "R1:4" } }],
        [["BAT:+", "R1:3"], ["R1:4", "R1:1"], ["R1:2", "G1"], ...start],
      );
    const buzzer = inspectCircuit(loop("resting", []));
    expect(buzzer[0]).toMatchObject({ code: "circuit.no-steady-state", params: { devices: ["R1"] } });
    expect(names(loop("working", []))).toEqual([]); // never pulls in: one state from either start
  });
  test("a fuse too small for a healthy circuit, and a code a healthy machine would set", () => {
    expect(
      names(
        bench(
          [],
          [
            { kind: "fuse", id: "F1", rating: 1 },
            { kind: "heater", id: "E1", pins: { feed: "E1:1", ground: "E1:2" } },
          ],
          [
            ["BAT:+", "F1:in"],
            ["F1:out", "E1:1"],
            ["E1:2", "G1"],
          ],
        ),
      ),
    ).toContain("circuit.fuse-melts");
    expect(
      names(
        bench([{ role: "reference", at: "A1:1" }], [], [], {
          codes: [{ id: "X", module: "A1", monitor: { type: "above", at: "A1:1", volt: 3 } }],
        }),
      ),
    ).toContain("circuit.code-when-healthy");
  });
});

describe("codes where the set condition is not known", () => {
  const base = (code: object) =>
    bench(
      [
        { role: "input", at: "A1:1", pull: "up" },
        { role: "sensorGround", at: "A1:2" },
      ],
      [{ kind: "thermistor", id: "B1", pins: { signal: "B1:1", ground: "B1:2" } }],
      [
        ["A1:1", "B1:1"],
        ["A1:2", "B1:2"],
      ],
      { codes: [{ id: "C", module: "A1", about: "B1", ...code }] },
    );
  const set = (code: object, fault: string) => predictCodes(rig(base(code), fault, 0.05)).map((c) => c.code);
  test.each<[object, string, boolean]>([
    [{ title: "Coolant sensor voltage high" }, "B1/elementOpen", true],
    [{ title: "Coolant sensor voltage high" }, "B1/shortSignalGround", false],
    [{ title: "Coolant sensor voltage low" }, "B1/shortSignalGround", true],
    [{ failureType: "15" }, "B1/elementOpen", true],
    [{ id: "SPN 110 FMI 4" }, "B1/shortSignalGround", true],
    [{ family: "circuit" }, "B1/elementOpen", true],
    [{ title: "Coolant sensor performance" }, "B1/elementOpen", false],
    [{}, "B1/elementOpen", false],
  ])("%j with %s: %s", (code, fault, expected) => expect(set(code, fault).length === 1).toBe(expected));
  test("a guessed set condition weighs half", () => {
    const [known, guessed] = [{ monitor: { type: "above", at: "A1:1", volt: 4.75 } }, { title: "voltage high" }].map(
      (c) =>
        analyse(new Predictor(base(c)), [
          { type: "code", at: "2026-11-25T09:00:00Z", module: "A1", code: "C", status: "active" },
        ]),
    );
    const open = (a: typeof known) =>
      a!.suspects.find((s) => s.members.some((m) => m.fault.id === "B1/elementOpen"))!.share;
    expect(open(guessed)).toBeLessThan(open(known));
    expect(open(guessed)).toBeGreaterThan(0.02);
  });
  test("a monitor does not run while its module's supply is out of bounds (9 to 16 V, common practice)", () => {
    const w = bench(
      [
        { role: "supply", at: "A1:1" },
        { role: "ground", at: "A1:2" },
        { role: "input", at: "A1:3", pull: "up" },
      ],
      [],
      [
        ["BAT:+", "A1:1"],
        ["A1:2", "G1"],
      ],
      { codes: [{ id: "C", module: "A1", monitor: { type: "above", at: "A1:3", volt: 4 } }] },
    );
    expect(predictCodes(rig(w)).map((c) => c.code)).toEqual(["C"]);
    expect(predictCodes(rig(w, "BAT/supplyLow", 0.65))).toEqual([]);
  });
});
