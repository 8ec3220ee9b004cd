import {
  analysePattern,
  bindMonitors,
  compile,
  generateFaults,
  generateHarness,
  inspectCircuit,
  parseWiring,
  Predictor,
  Rig,
  type Wiring,
} from "../../src/index.js";
import { tug } from "../helpers.js";

const SIZES = [60, 150, 400, 1200];

test.each(SIZES)(
  "a made-up harness of about %d nodes reads back, solves, contradicts nothing, and sets no code when healthy",
  (nodes) => {
    const wiring = generateHarness({ nodes, seed: 5, nominalVolt: nodes === 150 ? 24 : 12 });
    expect(parseWiring(JSON.stringify(wiring))).toEqual({ ok: true, value: wiring });
    expect(Math.abs(compile(wiring, "on").nodes.length / nodes - 1)).toBeLessThan(0.3);
    if (nodes > 500) return;
    expect(inspectCircuit(wiring).filter((i) => i.code !== "circuit.code-when-healthy")).toEqual([]);
  },
);

test("it has everything the engine knows, over a few seeds", () => {
  const kinds = new Set(
    Array.from({ length: 6 }, (_, i) => generateHarness({ nodes: 300, seed: 40 + i })).flatMap((w) =>
      w.devices.map((d) => d.kind),
    ),
  );
  for (const kind of [
    "battery",
    "alternator",
    "fuse",
    "switch",
    "relay",
    "module",
    "threeWireSensor",
    "thermistor",
    "potentiometer",
    "hall",
    "pedal",
    "coilSensor",
    "currentLoop",
    "solenoid",
    "heater",
    "lamp",
    "smartSensor",
    "terminator",
  ])
    expect(kinds).toContain(kind);
});

test(
  "the analysed pattern: children before parents, subtrees in one run, every element in a front that holds " +
    "its nodes",
  () => {
    for (const wiring of [tug(), ...SIZES.map((nodes) => generateHarness({ nodes, seed: 6 }))]) {
      const circuit = compile(wiring, "on");
      const p = analysePattern(circuit);
      expect(new Set(p.node).size).toBe(circuit.nodes.length - 1);
      for (let k = 0; k < p.n; k++) {
        expect(p.position[p.node[k]!]).toBe(k);
        for (let q = p.start[k]!; q < p.start[k + 1]!; q++) expect(p.later[q]!).toBeGreaterThan(k);
        if (p.parent[k]! >= 0) {
          expect(p.parent[k]).toBe(p.later[p.start[k]!]);
          expect(k).toBeGreaterThan(p.parent[k]! - p.size[p.parent[k]!]!);
        }
      }
      circuit.elements.forEach((e, i) => {
        if (e.a === e.b) return;
        const ends = [e.a, e.b].filter((x) => x > 0).map((x) => p.position[x]!);
        const fronts = [...p.frontsOf.subarray(p.frontStart[i]!, p.frontStart[i + 1]!)];
        expect(fronts).toContain(Math.min(...ends));
      });
      // a low tree is what makes a fault cheap: far below the number of nodes
      let depth = 0;
      for (let k = 0; k < p.n; k++) for (let i = k; i >= 0; i = p.parent[i]!) depth++;
      expect(depth / p.n).toBeLessThan(4 * Math.log2(p.n));
    }
  },
);

test("every monitor of a made-up harness binds, and its faults are named once", () => {
  const wiring: Wiring = generateHarness({ nodes: 250, seed: 8 });
  expect(bindMonitors(wiring, compile(wiring, "on"))).toHaveLength(wiring.codes.length);
  const ids = generateFaults(wiring).map((f) => f.id);
  expect(new Set(ids).size).toBe(ids.length);
});

test("predictions follow a state with jumpers, pulled fuses and a set condition, as the rig reads them", () => {
  const wiring = tug();
  const predictor = new Predictor(wiring);
  const rig = new Rig(wiring);
  const at = (point: string, state: Parameters<Predictor["predict"]>[1]) =>
    predictor.predict(0, state, "voltmeter")[0]![predictor.pointIndex.get(point)!]!; // draw 0 is nominal
  const plain = { key: "on" as const, unplugged: ["B9"] };
  for (const state of [
    plain,
    { ...plain, jumpers: [{ from: "B9:1", to: "B9:3", ohm: 1000 }] },
    { ...plain, pulled: ["F12"] },
    { ...plain, stimulus: { B7: 0.5 } },
    { ...plain, asleep: ["A1"] },
  ]) {
    for (const point of ["B9:3", "B7:3", "B7:1", "F12:out"]) {
      const node = rig.node(point, state)!;
      const s = rig.settled(state);
      const k = s.pattern.position[node]!;
      // but for the meter's own load
      expect(Math.abs(at(point, state) - (s.faulty.grounded[k] ? s.faulty.x[k]! : 0))).toBeLessThan(0.06);
    }
  }
  expect(at("B9:3", { ...plain, jumpers: [{ from: "B9:1", to: "B9:3", ohm: 1000 }] })).toBeGreaterThan(4.8);
  expect(at("F12:out", { ...plain, pulled: ["F12"] })).toBeLessThan(0.1);
});
