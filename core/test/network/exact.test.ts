import { Decimal } from "decimal.js";
import { PLAIN, type Circuit, type Edit, type Element } from "../../src/index.js";
import { circuit as circuitOf, solved, type Part } from "../circuits.js";
import { random } from "../helpers.js";

/**
 * Reference program: Gaussian elimination with full pivoting in 60 digits (decimal.js), on the dense nodal matrix.
 * A dense pivoted solve in doubles is less exact here than the engine should be, so it is not the judge.
 */
const D = Decimal.clone({ precision: 60 });

function exact(n: number, elements: readonly Element[]): Decimal[] {
  const A = Array.from({ length: n }, () => Array.from({ length: n }, () => new D(0)));
  const b = Array.from({ length: n }, () => new D(0));
  const add = (row: number, column: number, value: Decimal) => {
    if (row && column) A[row - 1]![column - 1] = A[row - 1]![column - 1]!.plus(value);
  };
  for (const e of elements) {
    const g = new D(1).div(new D(e.ohm));
    if (e.type === "follower") {
      const k = new D(e.ratio);
      add(e.a, e.a, g);
      add(e.a, e.b, g.mul(k).neg());
      add(e.a, e.low, g.mul(new D(1).minus(k)).neg());
      continue;
    }
    add(e.a, e.a, g);
    add(e.b, e.b, g);
    add(e.a, e.b, g.neg());
    add(e.b, e.a, g.neg());
    if (e.a) b[e.a - 1] = b[e.a - 1]!.plus(g.mul(new D(e.volt)));
    if (e.b) b[e.b - 1] = b[e.b - 1]!.minus(g.mul(new D(e.volt)));
  }
  const order = Array.from({ length: n }, (_, i) => i);
  for (let k = 0; k < n; k++) {
    let best = [k, k] as [number, number];
    for (let i = k; i < n; i++)
      for (let j = k; j < n; j++) if (A[i]![j]!.abs().gt(A[best[0]]![best[1]]!.abs())) best = [i, j];
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
function network(seed: number): { n: number; circuit: Circuit; r: () => number } {
  const r = random(seed);
  const n = 8 + Math.floor(r() * 14);
  const pick = <T>(list: readonly T[]) => list[Math.floor(r() * list.length)]!;
  const elements: Part[] = [];
  const add = (e: Part) => elements.push(e);
  add({ type: "source", a: 1, b: 0, volt: 12.4, ohm: 0.01 });
  for (let i = 2; i <= n; i++)
    add({
      type: "resistor",
      a: i,
      b: 1 + Math.floor(r() * (i - 1)),
      ohm: pick([0.001, 0.005, 0.03, 600, 2200, 1e6]) * (0.5 + r()),
    });
  for (let i = 0; i < n; i++)
    add({
      type: "resistor",
      a: 1 + Math.floor(r() * n),
      b: pick([0, 0, 1 + Math.floor(r() * n)]),
      ohm: pick([0.002, 50, 47_000, 1e7, 1e9]) * (0.5 + r()),
    });
  if (r() < 0.7) add({ type: "follower", a: n, b: 1, low: Math.max(2, n - 2), ohm: 100, ratio: r() });
  return {
    n,
    circuit: circuitOf(
      n + 1,
      elements.filter((e) => e.a !== e.b),
    ),
    r,
  };
}

/** A fault of any sort the engine knows on a linear network, and the same network drawn with it. */
function faulted(seed: number): { n: number; circuit: Circuit; edit: Edit; drawn: Element[] } {
  const { n, circuit, r } = network(seed);
  const any = () => Math.floor(r() * circuit.elements.length);
  const node = () => 1 + Math.floor(r() * n);
  let edit: Edit;
  let drawn: Element[] = [...circuit.elements];
  const shunt = (a: number, b: number, ohm: number, volt?: number): Element => ({
    ...PLAIN,
    id: "fault",
    type: volt === undefined ? "resistor" : "source",
    a,
    b,
    ohm,
    volt: volt ?? 0,
  });
  switch (seed % 5) {
    case 0: {
      // a wire removed
      let i = any();
      while (circuit.elements[i]!.type !== "resistor") i = any();
      edit = { series: [{ element: i, ohm: Infinity }] };
      drawn = drawn.filter((_, j) => j !== i);
      break;
    }
    case 1: {
      // resistance in series with a milliohm wire
      const i = any();
      const ohm = 10 ** (6 * r() - 2);
      edit = { series: [{ element: i, ohm }] };
      drawn[i] = { ...drawn[i]!, ohm: drawn[i]!.ohm + ohm };
      break;
    }
    case 2: {
      const a = node();
      const ohm = 10 ** (5 * r() - 2);
      edit = { shunts: [{ a, b: 0, ohm }] };
      drawn.push(shunt(a, 0, ohm));
      break;
    }
    case 3: {
      // between two nodes anywhere: mostly outside the pattern
      const a = node();
      const b = 1 + (a % n);
      const ohm = 10 ** (6 * r() - 3);
      edit = { shunts: [{ a, b, ohm }] };
      drawn.push(shunt(a, b, ohm));
      break;
    }
    default: {
      // two wires swapped and a short to a supply besides
      const [i, a, b, ohm] = [any(), node(), 1 + Math.floor(r() * n), 10 ** (4 * r() - 2)];
      edit = {
        series: [{ element: i, ohm: 3 }],
        shunts: [{ a, b: 0, ohm, volt: 12.4 }, ...(a === b ? [] : [{ a, b, ohm: 0.005 }])],
      };
      drawn[i] = { ...drawn[i]!, ohm: drawn[i]!.ohm + 3 };
      drawn.push(shunt(a, 0, ohm, 12.4), ...(a === b ? [] : [shunt(a, b, 0.005)]));
    }
  }
  return { n, circuit, edit, drawn };
}

test(
  "error below 1e-12 of the source on 150 networks with milliohms, 10 MΩ and 1 nS together, healthy and with " +
    "a fault of every sort",
  () => {
    let worst = 0;
    let compared = 0;
    for (let seed = 1; seed <= 150; seed++) {
      const { n, circuit, edit, drawn } = faulted(seed);
      for (const [change, elements] of [
        [{}, circuit.elements],
        [edit, drawn],
      ] as const) {
        const c = solved(circuit, change);
        const held = Array.from({ length: n }, (_, i) => !Number.isNaN(c.volt(i + 1)));
        if (held.includes(false)) continue; // a part cut off floats: the judge has no answer for it
        exact(n, elements).forEach((v, i) => {
          compared++;
          worst = Math.max(worst, Math.abs(new D(c.volt(i + 1)).minus(v).toNumber()) / 12.4);
        });
      }
    }
    expect(worst).toBeLessThan(1e-12);
    expect(worst).toBeGreaterThan(0); // it was compared with something
    expect(compared).toBeGreaterThan(3000);
  },
);

test("the resistance at a node is as exact as its voltage, healthy and with a fault", () => {
  for (let seed = 1; seed <= 40; seed++) {
    const { n, circuit, edit, drawn } = faulted(seed);
    const c = solved(circuit, edit);
    const node = 1 + (seed % n);
    if (Array.from({ length: n }, (_, i) => c.volt(i + 1)).some(Number.isNaN)) continue;
    // 1 A pushed into the node, every source silent: its volts are the ohms
    const quiet = drawn.map((e) => ({ ...e, volt: 0 }));
    const push: Element = { ...PLAIN, id: "push", type: "source", a: node, b: 0, volt: 1e30, ohm: 1e30 };
    expect(Math.abs(c.ohm(node) / exact(n, [...quiet, push])[node - 1]!.toNumber() - 1)).toBeLessThan(1e-9);
  }
});
