import { DEFAULTS } from "../defaults.js";
import type { Circuit, Edit, Element } from "./element.js";
import { createWorkspace, factor, findHeld, inverseDiagonal, solve, type Workspace } from "./factor.js";
import { analyse, type Pattern } from "./pattern.js";

/** Reference segments and fuse states, as kept in `Solver.mode`. */
const OFF = 0, REGULATING = 1, LIMITING = 2;
const INTACT = 0, BLOWN = 1;
/** Rounds in which every device may move, then rounds in which only the first may: a cycle of two ends there. */
const ROUNDS_ALL = 24, ROUNDS_ONE = 40;

/** Two segments meet at their edge: within rounding of it, either will do. Without this an unloaded reference would swing for ever. */
const EDGE_VOLT = 1e-9;

/**
 * Everything needed to solve one circuit topology again and again. Owned by one caller; `settle` allocates nothing.
 * Arrays: n = nodes without chassis, m = elements.
 */
export interface Solver {
  readonly pattern: Pattern;
  readonly work: Workspace;
  /** volts to chassis after `settle`; n, unknown i is node i + 1 */
  readonly x: Float64Array;
  /** reference segment or fuse state; m */
  readonly mode: Int8Array;
  /** 1 awake; gates */
  readonly awake: Uint8Array;
  /** 1 where a node has a way to chassis, 0 where it floats; n */
  readonly hold: Uint8Array;
  /** resistance to chassis seen at each node, ohm, after `measureOhms`; n, and the off-diagonals it needs on the way */
  readonly ohm: Float64Array;
  readonly slots: { readonly ab: Int32Array; readonly ba: Int32Array; readonly aLow: Int32Array; readonly lowA: Int32Array };
  readonly columns: { readonly start: Int32Array; readonly slot: Int32Array; readonly row: Int32Array };
  readonly scratch: { readonly inverse: Float64Array; readonly series: Float64Array; readonly dead: Uint8Array };
}

export interface Conditions {
  readonly circuit: Circuit;
  readonly edit: Edit;
  /** 1 for each element opened by an unplugged connector; m entries (see `openedBy`) */
  readonly open: Uint8Array;
  /** key on, cranking or running */
  readonly keyOn: boolean;
  /** steel at every Hall tip, or as drawn when undefined */
  readonly steel?: boolean | undefined;
}

export interface Settled {
  /** false: no consistent set of device states was found; the circuit has none or swings between two */
  readonly settled: boolean;
  readonly rounds: number;
}

export function createSolver(circuit: Circuit, pairs: readonly (readonly [number, number])[] = []): Solver {
  const pattern = analyse(circuit, pairs);
  const m = circuit.elements.length;
  const ab = new Int32Array(m).fill(-1), ba = new Int32Array(m).fill(-1), aLow = new Int32Array(m).fill(-1), lowA = new Int32Array(m).fill(-1);
  circuit.elements.forEach((e, i) => {
    if (e.a && e.b) { ab[i] = pattern.slotOf(e.a - 1, e.b - 1); ba[i] = pattern.slotOf(e.b - 1, e.a - 1); }
    if (e.type === "follower" && e.a && e.low) { aLow[i] = pattern.slotOf(e.a - 1, e.low - 1); lowA[i] = pattern.slotOf(e.low - 1, e.a - 1); }
  });
  return {
    pattern, work: createWorkspace(pattern), x: new Float64Array(pattern.n), mode: new Int8Array(m), awake: new Uint8Array(circuit.gates.length),
    hold: new Uint8Array(pattern.n), ohm: new Float64Array(pattern.n), slots: { ab, ba, aLow, lowA }, columns: columnsOf(pattern),
    scratch: { inverse: new Float64Array(2 * pattern.slots), series: new Float64Array(m), dead: new Uint8Array(m) },
  };
}

/** For each unknown, the rows that depend on it and the slot that says how much. */
function columnsOf(p: Pattern): Solver["columns"] {
  const lists: [number, number][][] = Array.from({ length: p.n }, () => []);
  for (let k = 0; k < p.n; k++) {
    for (let q = p.start[k]!; q < p.start[k + 1]!; q++) {
      lists[p.later[q]!]!.push([q, p.order[k]!]);
      lists[p.order[k]!]!.push([p.slots + q, p.later[q]!]);
    }
  }
  const start = new Int32Array(p.n + 1);
  lists.forEach((l, i) => (start[i + 1] = start[i]! + l.length));
  return { start, slot: Int32Array.from(lists.flat().map(([s]) => s)), row: Int32Array.from(lists.flat().map(([, r]) => r)) };
}

/** Marks the elements that the unplugged connectors open. */
export function openedBy(circuit: Circuit, unplugged: readonly string[]): Uint8Array {
  const set = new Set(unplugged);
  return Uint8Array.from(circuit.elements, (e) => (e.connector !== "" && set.has(e.connector) ? 1 : 0));
}

/**
 * Finds the operating point: solves with assumed device states, looks which devices disagree, moves each to a
 * neighbouring state only, and repeats. Fuses melt only once everything else agrees, and never mend.
 * Starts from everything awake and regulating, so of two stable points the working one is found.
 */
export function settle(s: Solver, c: Conditions): Settled {
  applyEdit(s, c.edit);
  startModes(s, c);
  let rounds = 0, settled = false;
  for (; rounds < ROUNDS_ALL + ROUNDS_ONE && !settled; rounds++) {
    assemble(s, c);
    factor(s.pattern, s.work);
    solve(s.pattern, s.work, s.x);
    const most = rounds < ROUNDS_ALL ? Infinity : 1;
    settled = moveModes(s, c, most) === 0 && meltFuses(s, c) === 0;
  }
  clearEdit(s, c.edit);
  findHeld(s.pattern, s.work, s.hold);
  return { settled, rounds };
}

function applyEdit(s: Solver, edit: Edit): void {
  const { series, dead } = s.scratch;
  if (edit.series) for (const e of edit.series) series[e.element] = series[e.element]! + e.ohm;
  if (edit.dead) for (const e of edit.dead) dead[e] = 1;
}
function clearEdit(s: Solver, edit: Edit): void {
  if (edit.series) for (const e of edit.series) s.scratch.series[e.element] = 0;
  if (edit.dead) for (const e of edit.dead) s.scratch.dead[e] = 0;
}

function startModes(s: Solver, c: Conditions): void {
  const { elements, gates } = c.circuit;
  for (let i = 0; i < elements.length; i++) s.mode[i] = elements[i]!.type === "fuse" ? INTACT : REGULATING;
  for (let i = 0; i < gates.length; i++) s.awake[i] = neverWakes(c, i) ? 0 : 1;
}
const neverWakes = (c: Conditions, gate: number) => (!c.keyOn && c.circuit.gates[gate]!.needsKey) || (c.edit.asleep !== undefined && c.edit.asleep.includes(gate));

const volt = (s: Solver, node: number) => (node === 0 ? 0 : s.x[node - 1]!);

function moveModes(s: Solver, c: Conditions, most: number): number {
  let moves = 0;
  const { gates, elements } = c.circuit;
  for (let i = 0; i < gates.length && moves < most; i++) {
    const g = gates[i]!;
    if (neverWakes(c, i)) continue;
    let highest = -Infinity;
    for (let j = 0; j < g.high.length; j++) highest = Math.max(highest, volt(s, g.high[j]!) - volt(s, g.low));
    const want = highest > g.aboveVolt ? 1 : 0;
    if (want !== s.awake[i]) { s.awake[i] = want; moves++; }
  }
  for (let i = 0; i < elements.length && moves < most; i++) {
    const e = elements[i]!;
    if (e.type !== "reference" || isOff(s, e, i)) continue;
    const v = volt(s, e.a) - volt(s, e.b);
    const knee = e.volt - e.limitAmpere * e.ohm;
    const now = s.mode[i]!;
    let want = now;
    if (now === REGULATING) want = v < knee - EDGE_VOLT ? LIMITING : v > e.volt + EDGE_VOLT ? OFF : REGULATING;
    else if (now === LIMITING && v > knee + EDGE_VOLT) want = REGULATING;
    else if (now === OFF && v < e.volt - EDGE_VOLT) want = REGULATING;
    if (want !== now) { s.mode[i] = want; moves++; }
  }
  return moves;
}

function meltFuses(s: Solver, c: Conditions): number {
  const { elements } = c.circuit;
  for (let i = 0; i < elements.length; i++) {
    const e = elements[i]!;
    if (e.type !== "fuse" || s.mode[i] === BLOWN) continue;
    const ohm = e.ohm + s.scratch.series[i]!;
    if (Math.abs(volt(s, e.a) - volt(s, e.b)) / ohm > e.limitAmpere) { s.mode[i] = BLOWN; return 1; }
  }
  return 0;
}

const isOff = (s: Solver, e: Element, i: number) => s.scratch.dead[i] === 1 || (e.gate >= 0 && s.awake[e.gate] === 0);

function assemble(s: Solver, c: Conditions): void {
  s.work.off.fill(0);
  s.work.leak.fill(0);
  s.x.fill(0);
  const { elements } = c.circuit;
  for (let i = 0; i < elements.length; i++) {
    if (c.open[i]) continue;
    stampElement(s, c, elements[i]!, i);
  }
  if (c.edit.shunts) for (const shunt of c.edit.shunts) {
    const ab = shunt.a && shunt.b ? s.pattern.slotOf(shunt.a - 1, shunt.b - 1) : -1;
    const ba = shunt.a && shunt.b ? s.pattern.slotOf(shunt.b - 1, shunt.a - 1) : -1;
    stamp(s, shunt.a, shunt.b, ab, ba, 1 / shunt.ohm, (shunt.volt ?? 0) / shunt.ohm);
  }
}

function stampElement(s: Solver, c: Conditions, e: Element, i: number): void {
  const ab = s.slots.ab[i]!, ba = s.slots.ba[i]!;
  const off = isOff(s, e, i) || (e.hall && !(c.steel ?? e.ratio === 1));
  const ohm = (off ? e.offOhm : e.ohm) + s.scratch.series[i]!;
  if (ohm === Infinity || (e.type === "fuse" && s.mode[i] === BLOWN)) return;
  const g = 1 / ohm;
  if (e.type === "follower") {
    if (off) return stamp(s, e.a, e.low, s.slots.aLow[i]!, s.slots.lowA[i]!, g, 0);
    if (e.a === 0) return;
    weigh(s, e.a, e.b, ab, g * e.ratio);
    return weigh(s, e.a, e.low, s.slots.aLow[i]!, g * (1 - e.ratio));
  }
  if (e.type === "reference" && !off) {
    if (s.mode[i] === OFF) return stamp(s, e.a, e.b, ab, ba, 1 / e.offOhm, e.volt / e.offOhm);
    if (s.mode[i] === LIMITING) {
      const slope = DEFAULTS.module.limitSlopeSiemens;
      return stamp(s, e.a, e.b, ab, ba, slope, e.limitAmpere + slope * (e.volt - e.limitAmpere * e.ohm));
    }
  }
  stamp(s, e.a, e.b, ab, ba, g, off ? 0 : e.volt * g);
}

/** a conductance between two nodes and a current pushed out of b into a */
function stamp(s: Solver, a: number, b: number, ab: number, ba: number, g: number, ampere: number): void {
  const { off, leak } = s.work;
  if (a === b) return;
  if (a && b) {
    off[ab] = off[ab]! + g;
    off[ba] = off[ba]! + g;
  } else {
    const row = (a || b) - 1;
    leak[row] = leak[row]! + g;
  }
  if (ampere === 0) return;
  if (a) s.x[a - 1] = s.x[a - 1]! + ampere;
  if (b) s.x[b - 1] = s.x[b - 1]! - ampere;
}

/** row a leans on node b with weight g; node b does not notice */
function weigh(s: Solver, a: number, b: number, ab: number, g: number): void {
  if (b && a !== b) s.work.off[ab] = s.work.off[ab]! + g;
  else if (!b) s.work.leak[a - 1] = s.work.leak[a - 1]! + g;
}

/** Volts to chassis at a node after `settle`; NaN where the node floats. */
export function nodeVolt(s: Solver, node: number): number {
  return node === 0 ? 0 : s.hold[node - 1] === 0 ? NaN : s.x[node - 1]!;
}

/** Finds the resistance to chassis at every node with every device in its present state, for `nodeOhm`. Call after `settle`. */
export function measureOhms(s: Solver): void {
  inverseDiagonal(s.pattern, s.work, s.scratch.inverse, s.ohm);
}

/** Resistance to chassis seen at a node, ohm, after `measureOhms`; Infinity where the node floats. */
export function nodeOhm(s: Solver, node: number): number {
  return node === 0 ? 0 : s.hold[node - 1] === 0 ? Infinity : s.ohm[node - 1]!;
}

/**
 * Largest current by which Kirchhoff's law fails at any node that is held, ampere: the judge of the last `settle`.
 * Assembles anew, so it leaves the factorisation behind; call it last.
 */
export function residual(s: Solver, c: Conditions): number {
  const v = Float64Array.from(s.x);
  applyEdit(s, c.edit);
  assemble(s, c);
  clearEdit(s, c.edit);
  const left = Float64Array.from(s.x, (injected, i) => injected - s.work.leak[i]! * v[i]!);
  for (let j = 0; j < v.length; j++) {
    for (let q = s.columns.start[j]!; q < s.columns.start[j + 1]!; q++) {
      const i = s.columns.row[q]!;
      left[i] = left[i]! + s.work.off[s.columns.slot[q]!]! * (v[j]! - v[i]!);
    }
  }
  let worst = 0;
  for (let i = 0; i < v.length; i++) if (s.hold[i] !== 0) worst = Math.max(worst, Math.abs(left[i]!));
  s.x.set(v);
  return worst;
}
