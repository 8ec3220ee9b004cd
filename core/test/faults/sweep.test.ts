import {
  batteryVolt,
  compileState,
  conditionsOf,
  createSolver,
  generateFaults,
  generateHarness,
  measureOhms,
  prepare,
  settle,
  sweep,
  voltmeter,
  type State,
} from "../../src/index.js";

const states: State[] = [
  { key: "on", unplugged: [] },
  { key: "running", unplugged: [] },
  { key: "off", unplugged: [] },
];
const wiring = generateHarness({ nodes: 160, seed: 21 });
const faults = generateFaults(wiring).filter((_, i) => i % 3 === 0);

test("the whole-document sweep says what settling each fault from nothing says, to its tolerance", () => {
  const results = sweep(wiring, faults, states, { tolerance: 1e-3 });
  expect(results.map((r) => r.state.key)).toEqual(["on", "running", "off"]);
  let compared = 0;
  results.forEach((r) => {
    const circuit = compileState(wiring, r.state);
    const s = createSolver(circuit);
    prepare(s, conditionsOf(circuit, r.state));
    r.cases.forEach((c, i) => {
      if (i % 14 || r.unsettled.includes(i)) return;
      settle(s, c.fault.edit(c.severity, circuit, batteryVolt(wiring, r.state.key)));
      measureOhms(s);
      const seen = Float32Array.from(r.healthy);
      for (let q = r.start[i]!; q < r.start[i + 1]!; q++) seen[r.node[q]!] = r.volt[q]!;
      circuit.nodes.forEach((_, node) => {
        compared++;
        expect(Math.abs(seen[node]! - voltmeter(s, node))).toBeLessThan(8e-3);
      });
    });
  });
  expect(compared).toBeGreaterThan(25_000);
});

test("progress goes up to the end, and stops the sweep when asked", () => {
  const seen: number[] = [];
  sweep(wiring, faults, states.slice(0, 2), {
    progress: (share) => {
      seen.push(share);
    },
  });
  expect(seen.length).toBeGreaterThan(4);
  expect([...seen].sort((a, b) => a - b)).toEqual(seen);
  const stopped = sweep(wiring, faults, states, { progress: (share) => share < 0.1 });
  expect(stopped).toHaveLength(1);
  expect(stopped[0]!.complete).toBe(false);
  expect(stopped[0]!.start.length - 1).toBeLessThan(stopped[0]!.cases.length);
});

test("the sweep of nothing, and of a wiring with no wires", () => {
  expect(sweep(wiring, [], states)[0]).toMatchObject({ complete: true, unsettled: [] });
  expect(generateHarness({ nodes: 400, seed: 3 })).toEqual(generateHarness({ nodes: 400, seed: 3 })); // repeatable
});
