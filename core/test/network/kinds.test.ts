import { bench, volt, rig, on, running, off } from "../bench.js";
import {
  elementAmpere,
  predictCodes,
  readClamp,
  readOhms,
  readScanTool,
  readScope,
  readVolts,
  type State,
  type Wiring,
} from "../../src/index.js";

describe("relays, diodes and lamps, against hand calculation from their stated values", () => {
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
});

describe("drivers, pedals and loops, against hand calculation from their stated values", () => {
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
});

describe("sensors, sources and modules, against hand calculation from their stated values", () => {
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
