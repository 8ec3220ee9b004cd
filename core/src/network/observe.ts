import { startColumn } from "./columns.js";
import { BLOWN } from "./conductances.js";
import type { Edit } from "./element.js";
import { descendOhms } from "./fronts.js";
import type { Solution } from "./netlist.js";
import { NUMBERS_PER_ELEMENT } from "./pattern.js";
import { addedBetween, addedOhm, findRows, sameIsland } from "./shunts.js";
import { inverseOf, type Solver } from "./solver.js";

/** Volts to chassis at a node after `settle`; NaN where the node floats. */
export function nodeVolt(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  return s.faulty.grounded[k] === 0 ? NaN : s.faulty.x[k]!;
}

/** As `nodeVolt`, on the healthy machine that the solver was prepared with. */
export function healthyVolt(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  return s.healthy.grounded[k] === 0 ? NaN : s.healthy.x[k]!;
}

/** What a settled solution lends to a netlist. */
export function solutionOf(s: Solver): Solution {
  const { circuit } = s.conditions;
  return {
    volts: circuit.nodes.map((_, i) => nodeVolt(s, i)),
    blown: new Set([...s.watchers.fuses].filter((i) => s.operating.mode[i] === BLOWN)),
  };
}

/**
 * Finds the resistance to chassis at every node with every device in its present state, for `nodeOhm`. Call after
 * `settle`.
 */
export function measureOhms(s: Solver, tolerance = 0): void {
  const { pattern: p, path, healthy, faulty, movedOhms, seen, state } = s;
  if (!state.ohmsReady) {
    const all = { ...path, count: p.n, mark: new Int32Array(p.n), now: 0 };
    descendOhms(
      p,
      healthy,
      healthy,
      all,
      { list: new Int32Array(p.n), count: 0, mark: new Int32Array(p.n).fill(-1), self: movedOhms.self, now: 0 },
      Infinity,
    );
    state.ohmsReady = true;
  }
  if (state.ohmsWithin <= tolerance) return; // of this very solution
  if (s.updates.count && s.updates.reach > tolerance) findRows(inverseOf(s), tolerance);
  movedOhms.now++;
  descendOhms(p, faulty, healthy, path, movedOhms, tolerance);
  state.ohmsWithin = tolerance;
  for (let q = 0; q < movedOhms.count; q++) seen[movedOhms.list[q]!] = movedOhms.now;
}

/** Resistance to chassis seen at a node, ohm, after `measureOhms`; Infinity where the node floats. */
export function nodeOhm(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  if (s.faulty.grounded[k] === 0) return Infinity;
  const own = (s.seen[k] === s.movedOhms.now ? s.faulty : s.healthy).block[s.pattern.block[k]!]!;
  // updates that matter were completed by `measureOhms`; of others only some may be, and what is left in their place is
  // an earlier fault's
  const { rows, steps } = s.updates;
  return rows > 0 && rows === steps.length ? Math.max(0, own + addedOhm(s.updates, k)) : own;
}

/**
 * Resistance between two nodes with every device in its present state, ohm, after `settle`; Infinity where nothing
 * joins
 * them. Not for the inner loop: it solves a column of the inverse.
 */
export function ohmBetween(s: Solver, a: number, b: number): number {
  if (a === b) return 0;
  const { pattern: p, faulty, healthy, path, updates } = s;
  const i = p.position[a]!;
  const j = p.position[b]!;
  const held = (k: number) => k < 0 || faulty.grounded[k] === 1; // updates included
  if (held(i) !== held(j)) return Infinity;
  if (!held(i)) {
    if (!sameIsland(inverseOf(s), i, j)) return Infinity;
  }
  const [column] = updates.scratch;
  startColumn(p, faulty, healthy, path, i, j, false, column);
  const own = (i < 0 ? 0 : column.value[i]!) - (j < 0 ? 0 : column.value[j]!);
  if (updates.count) findRows(inverseOf(s), 0);
  return Math.max(0, own + addedBetween(updates, i, j));
}

/**
 * Current through an element from `a` to `b`, ampere, after `settle`; NaN where it floats.
 * @param healthy on the healthy machine that the solver was prepared with
 */
export function elementAmpere(s: Solver, element: number, healthy = false): number {
  const e = s.conditions.circuit.elements[element]!;
  const w = element * NUMBERS_PER_ELEMENT;
  const volt = healthy ? healthyVolt : nodeVolt;
  const weights = healthy ? s.weightsHealthy : s.weights;
  const a = volt(s, e.a);
  if (weights[w] === 0 && weights[w + 2] === 0) return 0;
  return weights[w]! * (a - volt(s, e.b)) + weights[w + 2]! * (a - volt(s, e.low)) - weights[w + 4]!;
}

/** Largest current by which Kirchhoff's law fails at any node that is held, ampere: the judge of the last `settle`. */
export function residual(s: Solver, edit: Edit): number {
  const { circuit } = s.conditions;
  const { weights: w } = s;
  const left = new Float64Array(circuit.nodes.length);
  const volt = (node: number) => (node === 0 ? 0 : s.faulty.x[s.pattern.position[node]!]!);
  const add = (node: number, ampere: number) => {
    left[node] = left[node]! + ampere;
  };
  circuit.elements.forEach((e, i) => {
    const at = i * NUMBERS_PER_ELEMENT;
    if (e.a !== e.b) {
      add(e.a, w[at]! * (volt(e.b) - volt(e.a)) + w[at + 4]!);
      add(e.b, w[at + 1]! * (volt(e.a) - volt(e.b)) + w[at + 5]!);
    }
    if (e.type === "follower" && e.a !== e.low) {
      add(e.a, w[at + 2]! * (volt(e.low) - volt(e.a)));
      add(e.low, w[at + 3]! * (volt(e.a) - volt(e.low)));
    }
  });
  for (const x of edit.shunts ?? []) {
    const ampere = (volt(x.a) - volt(x.b) - (x.volt ?? 0)) / x.ohm;
    add(x.a, -ampere);
    add(x.b, ampere);
  }
  let worst = 0;
  for (let node = 1; node < circuit.nodes.length; node++)
    if (s.faulty.grounded[s.pattern.position[node]!] === 1) worst = Math.max(worst, Math.abs(left[node]!));
  return worst;
}

/** Fuses that melted in the last `settle`, by element. */
export function meltedFuses(s: Solver): number[] {
  const found: number[] = [];
  for (const i of s.watchers.fuses) if (s.operating.mode[i] === BLOWN) found.push(i);
  return found;
}
