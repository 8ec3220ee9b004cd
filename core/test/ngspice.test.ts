import { batteryVolt, compile, createSolver, faultPairs, generateFaults, netlist, nodeVolt, NO_EDIT, openedBy, settle, type Conditions, type KeyState, type StimulusOf, type ValueOf, type Wiring } from "../src/index";
import { random, tug } from "./helpers";
import { spice } from "./spice";

const doc: Wiring = tug();
const faults = generateFaults(doc);

/** Every fault once, at a random severity, key state, unplugged set and set of true values; pinned seed. */
function cases() {
  const r = random(20261124);
  const pick = <T>(list: readonly T[]) => list[Math.floor(r() * list.length)]!;
  const solver = createSolver(compile(doc, "on"), faultPairs(faults, compile(doc, "on")));
  return [undefined, undefined, ...faults.filter((_, i) => i % 2 === 0)].map((fault) => {
    const key = pick<KeyState>(["on", "on", "on", "off", "running", "cranking"]);
    const value: ValueOf = (_t, _p, nominal) => nominal * (0.9 + 0.2 * r());
    const stimulus: StimulusOf = (_t, range) => range[0] + (range[1] - range[0]) * r();
    const circuit = compile(doc, key, value, stimulus);
    const ohm = fault ? pick(fault.severities) * (0.7 + 0.6 * r()) : NaN;
    const unplugged = r() < 0.3 ? [pick(["B7", "B9", "B12", "B4", "X5"])] : [];
    const conditions: Conditions = { circuit, edit: fault?.edit(ohm, circuit, batteryVolt(doc, key)) ?? NO_EDIT, open: openedBy(circuit, unplugged), keyOn: key !== "off" };
    const { settled } = settle(solver, conditions);
    const ours = circuit.nodes.map((_, i) => nodeVolt(solver, i));
    // away from switching thresholds: a sensor within 10 mV of its drop-out may fall either way
    const near = circuit.gates.some((g) => g.high.some((h) => Math.abs((ours[h] ?? 0) - (ours[g.low] ?? 0) - g.aboveVolt) < 0.01));
    return { name: `${fault?.id ?? "healthy"}@${ohm} ${key} -${unplugged.join()}`, text: netlist("test", conditions, solver), ours, settled, near };
  });
}

test("operating points agree with ngspice to 1e-6 V, healthy and faulted", () => {
  const all = cases().filter((c) => c.settled && !c.near);
  expect(all.length).toBeGreaterThan(100);
  const theirs = all.map((c) => spice(c.text));
  const wrong: string[] = [];
  let compared = 0;
  all.forEach((c, i) => {
    c.ours.forEach((v, node) => {
      if (node === 0 || Number.isNaN(v)) return;
      const spice = theirs[i]?.get(`n${node}`);
      compared++;
      if (spice === undefined || !(Math.abs(spice - v) <= 1e-6)) wrong.push(`${c.name} n${node}: ours ${v}, ngspice ${spice}`);
    });
  });
  expect(wrong.slice(0, 10)).toEqual([]);
  expect(compared).toBeGreaterThan(5000);
}, 300_000);
