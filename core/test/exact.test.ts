import Decimal from "decimal.js";
import { createSolver, measureOhms, nodeOhm, nodeVolt, NO_EDIT, openedBy, settle, type Circuit, type Element } from "../src/index";
import { random } from "./helpers";

/**
 * Reference program: Gaussian elimination with full pivoting in 60 digits (decimal.js), on the dense nodal matrix.
 * A dense pivoted solve in doubles is less exact here than the engine should be, so it is not the judge.
 */
const D = Decimal.clone({ precision: 60 });

function exact(n: number, elements: readonly Element[]): Decimal[] {
  const A = Array.from({ length: n }, () => Array.from({ length: n }, () => new D(0)));
  const b = Array.from({ length: n }, () => new D(0));
  const add = (row: number, column: number, value: Decimal) => { if (row && column) A[row - 1]![column - 1] = A[row - 1]![column - 1]!.plus(value); };
  for (const e of elements) {
    const g = new D(1).div(new D(e.ohm));
    if (e.type === "follower") {
      const k = new D(e.ratio);
      add(e.a, e.a, g); add(e.a, e.b, g.mul(k).neg()); add(e.a, e.low, g.mul(new D(1).minus(k)).neg());
      continue;
    }
    add(e.a, e.a, g); add(e.b, e.b, g); add(e.a, e.b, g.neg()); add(e.b, e.a, g.neg());
    if (e.a) b[e.a - 1] = b[e.a - 1]!.plus(g.mul(new D(e.volt)));
    if (e.b) b[e.b - 1] = b[e.b - 1]!.minus(g.mul(new D(e.volt)));
  }
  const order = Array.from({ length: n }, (_, i) => i);
  for (let k = 0; k < n; k++) {
    let best = [k, k] as [number, number];
    for (let i = k; i < n; i++) for (let j = k; j < n; j++) if (A[i]![j]!.abs().gt(A[best[0]]![best[1]]!.abs())) best = [i, j];
    [A[k], A[best[0]]] = [A[best[0]]!, A[k]!];
    [b[k], b[best[0]]] = [b[best[0]]!, b[k]!];
    for (const row of A) [row[k], row[best[1]]] = [row[best[1]]!, row[k]!];
    [order[k], order[best[1]]] = [order[best[1]]!, order[k]!];
    for (let i = k + 1; i < n; i++) {
      const f = A[i]![k]!.div(A[k]![k]!);
      if (f.isZero()) continue;
      for (let j = k; j < n; j++) A[i]![j] = A[i]![j]!.minus(f.mul(A[k]![j]!));
      b[i] = b[i]!.minus(f.mul(b[k]!));
    }
  }
  const x = Array.from({ length: n }, () => new D(0));
  for (let k = n - 1; k >= 0; k--) {
    let sum = b[k]!;
    for (let j = k + 1; j < n; j++) sum = sum.minus(A[k]![j]!.mul(x[order[j]!]!));
    x[order[k]!] = sum.div(A[k]![k]!);
  }
  return x;
}

/** Milliohm wires, 10 MΩ meters and 1 nS leaks side by side, with a buffered output or two. */
function network(seed: number): { n: number; circuit: Circuit } {
  const r = random(seed), n = 8 + Math.floor(r() * 14);
  const pick = <T>(list: readonly T[]) => list[Math.floor(r() * list.length)]!;
  const elements: Element[] = [];
  const add = (e: Partial<Element> & Pick<Element, "type" | "a" | "b" | "ohm">) => elements.push({ id: `e${elements.length}`, low: 0, volt: 0, ratio: 0, limitAmpere: Infinity, gate: -1, offOhm: Infinity, connector: "", hall: false, ...e });
  add({ type: "source", a: 1, b: 0, volt: 12.4, ohm: 0.01 });
  for (let i = 2; i <= n; i++) add({ type: "resistor", a: i, b: 1 + Math.floor(r() * (i - 1)), ohm: pick([0.001, 0.005, 0.03, 600, 2200, 1e6]) * (0.5 + r()) });
  for (let i = 0; i < n; i++) add({ type: "resistor", a: 1 + Math.floor(r() * n), b: pick([0, 0, 1 + Math.floor(r() * n)]), ohm: pick([0.002, 50, 47_000, 1e7, 1e9]) * (0.5 + r()) });
  if (r() < 0.7) add({ type: "follower", a: n, b: 1, low: Math.max(2, n - 2), ohm: 100, ratio: r() });
  const loops = elements.filter((e) => e.a !== e.b);
  const names = Array.from({ length: n + 1 }, (_, i) => `n${i}`);
  return { n, circuit: { nodes: names, nodeOf: new Map(names.map((x, i) => [x, i])), elements: loops, elementOf: new Map(), gates: [], gateOf: new Map() } };
}

test("error below 1e-12 of the source on 100 networks with milliohms, 10 MΩ and 1 nS together", () => {
  let worst = 0;
  for (let seed = 1; seed <= 100; seed++) {
    const { n, circuit } = network(seed);
    const s = createSolver(circuit);
    settle(s, { circuit, edit: NO_EDIT, open: openedBy(circuit, []), keyOn: true });
    const truth = exact(n, circuit.elements);
    truth.forEach((v, i) => { worst = Math.max(worst, Math.abs(new D(nodeVolt(s, i + 1)).minus(v).toNumber()) / 12.4); });
  }
  expect(worst).toBeLessThan(1e-12);
  expect(worst).toBeGreaterThan(0); // it was compared with something
});

test("the resistance at a node is as exact as its voltage", () => {
  for (let seed = 1; seed <= 10; seed++) {
    const { n, circuit } = network(seed);
    const s = createSolver(circuit);
    settle(s, { circuit, edit: NO_EDIT, open: openedBy(circuit, []), keyOn: true });
    measureOhms(s);
    const node = 1 + (seed % n);
    // 1 A pushed into the node, every source silent: its volts are the ohms
    const quiet = circuit.elements.map((e) => ({ ...e, volt: 0 }));
    const push: Element = { id: "push", type: "source", a: node, b: 0, low: 0, volt: 1e30, ohm: 1e30, ratio: 0, limitAmpere: Infinity, gate: -1, offOhm: Infinity, connector: "", hall: false };
    const truth = exact(n, [...quiet, push])[node - 1]!.toNumber();
    expect(nodeOhm(s, node) / truth).toBeCloseTo(1, 11);
  }
});
