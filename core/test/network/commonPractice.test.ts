import {
  compile,
  createSolver,
  DEFAULTS,
  generateFaults,
  measureOhms,
  nodeOhm,
  nodeVolt,
  NO_EDIT,
  ohmmeter,
  openedBy,
  prepare,
  SimulatedMachine,
  settle,
  findFault,
  thermistorOhm,
  voltmeter,
  wireOhm,
} from "../../src/index.js";
import { plugged, tug, wiring } from "../helpers.js";

const doc = tug();
const at = (point: string, unplugged: string[] = [], key: "on" | "off" = "on", fault?: string, ohm = NaN) => {
  const circuit = compile(doc, key);
  const faults = generateFaults(doc);
  const s = createSolver(circuit);
  const edit = fault ? findFault(faults, fault)!.fault.edit(ohm, circuit, 12.4) : NO_EDIT;
  prepare(s, { circuit, open: openedBy(circuit, unplugged), keyOn: key !== "off" });
  settle(s, edit);
  measureOhms(s);
  const node = circuit.nodeOf.get(point)!;
  return { volt: nodeVolt(s, node), meter: voltmeter(s, node), ohm: nodeOhm(s, node), shown: ohmmeter(s, node) };
};

describe("published values", () => {
  test.each([
    [0.5, 39.0],
    [0.75, 26.0],
    [1, 19.5],
    [1.5, 13.3],
    [2.5, 7.98],
    [4, 4.95],
    [6, 3.3],
    [10, 1.91],
    [16, 1.21],
  ])("a kilometre of %d mm² is %d Ω at most (IEC 60228 class 5, value from memory)", (mm2, ohm) => {
    expect(wireOhm({ mm2, lengthM: 1000 })).toBeCloseTo(ohm, 9);
    // and no less than pure copper allows: IEC 60028, 1/58 Ω·mm²/m (value from memory)
    expect(wireOhm({ mm2, lengthM: 1000 })).toBeGreaterThan((1000 / 58 / mm2) * 0.99);
  });
  test(
    "a cross-section outside the table comes from resistivity: AWG 18 is 0.823 mm² (ASTM B258, recomputed: d " +
      "= 0.127·92^((36−n)/39) mm)",
    () => {
      const d = 0.127 * 92 ** ((36 - 18) / 39);
      const mm2 = (Math.PI * d * d) / 4;
      expect(mm2).toBeCloseTo(0.823, 3);
      expect(wireOhm({ mm2, lengthM: 1 })).toBeCloseTo(1 / 58 / mm2, 9);
    },
  );
  test("a 10 kΩ thermistor of B 3435 K halves about every 20 K (B equation, recomputed)", () => {
    expect(thermistorOhm(10_000, 3435, 25)).toBeCloseTo(10_000, 6);
    expect(thermistorOhm(10_000, 3435, 85)).toBeCloseTo(10_000 * Math.exp(3435 * (1 / 358.15 - 1 / 298.15)), 6);
  });
});

describe("common practice (no source)", () => {
  test("sensor supply, key on, engine off: within a few tenths of the battery at that moment", () => {
    expect(Math.abs(at("B2:1").volt - at("BAT:+").volt)).toBeLessThan(0.3);
  });
  test("a reference in order reads 4.9 to 5.1 V", () => {
    expect(at("B7:1").volt).toBeGreaterThan(4.9);
    expect(at("B7:1").volt).toBeLessThan(5.1);
  });
  test("a sensor ground in operation stands under 0.1 V", () => expect(at("B7:2").volt).toBeLessThan(0.1));
  test("three-wire Hall, unplugged, key on: supply, a pulled-up signal, ground", () => {
    expect(at("B2:1", ["B2"]).meter).toBeGreaterThan(12);
    expect(at("B2:3", ["B2"]).meter).toBeGreaterThan(4.8);
    expect(at("B2:2", ["B2"]).meter).toBeLessThan(0.05);
  });
  test("pulled-up temperature input: open shows its full pull-up, signal to ground shows 0 V", () => {
    // the module's own ground stands some millivolts high
    expect(Math.abs(at("A1:12", ["B4"]).volt - 5)).toBeLessThan(0.02);
    expect(at("A1:12", [], "on", "B4/shortSignalGround", 0.05).volt).toBeLessThan(0.1);
  });
  test(
    "shared reference with one sensor shorted: low with all plugged, back to full when the culprit is " + "unplugged",
    () => {
      expect(at("B7:1", [], "on", "B9/shortSupplyGround", 5).volt).toBeLessThan(1);
      expect(at("B7:1", ["B12"], "on", "B9/shortSupplyGround", 5).volt).toBeLessThan(1);
      expect(at("B7:1", ["B9"], "on", "B9/shortSupplyGround", 5).volt).toBeGreaterThan(4.9);
    },
  );
  test("50 Ω in the shared ground shifts signals and sets no code; several hundred starve the sensors", () => {
    expect(
      new SimulatedMachine(
        doc,
        [{ fault: findFault(generateFaults(doc), "S22/spliceHighResistance")!.fault, severity: 50 }],
        3,
      ).codes(),
    ).toEqual([]);
    expect(at("B7:2", [], "on", "S22/spliceHighResistance", 50).volt).toBeGreaterThan(0.4);
    expect(at("A1:8", [], "on", "S22/spliceHighResistance", 600).volt).toBeLessThan(0.25);
  });
  test("an open ground wire, read from a 10 MΩ meter, floats up through the sensor to the reference", () => {
    expect(at("B7:2", [], "on", "W21/open").meter).toBeGreaterThan(4);
  });
  test("ohms need power off: a live pin proves nothing, the same pin with key off reads its ground", () => {
    expect(at("B7:1").shown).toBeNaN();
    expect(at("B7:2", ["B7"], "off").shown).toBeLessThan(1);
    expect(at("B7:2", ["B7"], "off", "S22/spliceHighResistance", 600).shown).toBeGreaterThan(500);
  });
});

test("key off: module asleep, no reference, no pull-up", () => {
  expect(at("B7:1", [], "off").volt).toBeCloseTo(0, 6);
  expect(at("A1:12", [], "off").volt).toBeCloseTo(0, 6);
});

test("a 24 V machine solves with its own battery", () => {
  const truck = wiring({
    nominalVolt: 24,
    connectors: [{ id: "A1", cavities: ["1"] }],
    devices: [
      { kind: "battery", id: "BAT" },
      { kind: "module", id: "A1", pins: [{ role: "supply", at: "A1:1" }] },
    ],
    wires: [{ from: "BAT:+", to: "A1:1" }],
  });
  const c = compile(truck, "on");
  const s = createSolver(c);
  prepare(s, { circuit: c, open: openedBy(c, []), keyOn: true });
  expect(nodeVolt(s, c.nodeOf.get("A1:1")!)).toBeCloseTo((DEFAULTS.batteryVolt.on / 12) * 24, 1);
  expect([...s.operating.awake]).toEqual([1]);
});

describe("the simulated machine", () => {
  const fault = findFault(generateFaults(doc), "B9/shortSupplyGround")!.fault;
  test("the same seed gives the same machine, another seed another one", () => {
    const read = (seed: number) => {
      const m = new SimulatedMachine(doc, [{ fault, severity: 5 }], seed);
      return ["B7:1", "B7:3", "B4:1"].map((p) => m.read(p, plugged(), "voltmeter"));
    };
    expect(read(1)).toEqual(read(1));
    expect(read(1)).not.toEqual(read(2));
  });
  test("its values are never the engine's own nominal ones", () => {
    const healthy = new SimulatedMachine(doc, [], 5);
    expect(healthy.codes()).toEqual([]);
    expect(Math.abs(healthy.read("B12:3", plugged(), "voltmeter") - at("B12:3").meter)).toBeGreaterThan(0.005);
  });
  test("an open circuit shows OL", () => {
    const m = new SimulatedMachine(
      doc,
      [{ fault: findFault(generateFaults(doc), "W21/open")!.fault, severity: NaN }],
      1,
    );
    expect(m.read("B7:2", { key: "off", unplugged: ["B7"] }, "ohmmeter")).toBe(Infinity);
  });
});
