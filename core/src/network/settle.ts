import type { Circuit, Edit, Shunt } from "./element.js";
import { addToPath, descend, descendOhms, eliminate, sortPath, startColumn, sumChildren } from "./fronts.js";
import type { Solution } from "./netlist.js";
import { WEIGHTS } from "./pattern.js";
import { addedBetween, addedOhm, addShunt, clearUpdates, findRows, sameIsland, type Inverse } from "./shunts.js";
import type { Conditions, Settled, Solver } from "./solver.js";
import { BLOWN, INTACT, isOff, present, REGULATING, wanted, weigh } from "./weights.js";

/** Rounds in which every device may move, then rounds in which only one may: a cycle of two ends there. */
const ROUNDS_ALL = 24, ROUNDS_ONE = 60;
/** Filaments are straightened until their voltage agrees to this, volt. */
const STRAIGHT_VOLT = 1e-9;
/** Or, where a tolerance is given, to this many: a tangent is off by the square of the distance only. */
const STRAIGHT_TOLERANCES = 20;

/**
 * Solves the healthy circuit in one machine state and keeps its factorisation, for `settle` to start from.
 * Starts from everything awake and regulating, relays at rest, so of two stable points the working one is found.
 * @param start "asleep" to look for another steady state
 */
export function prepare(s: Solver, c: Conditions, start: "awake" | "asleep" = "awake"): Settled {
  putBack(s);
  const { circuit } = (s.conditions = c);
  const { doing, path, pattern, state } = s;
  for (let i = 0; i < circuit.elements.length; i++) {
    const e = circuit.elements[i]!;
    doing.mode[i] = e.type === "diode" ? 0 : e.type === "fuse" ? INTACT : REGULATING;
    doing.straight[i] = e.type === "filament" ? e.volt : 0;
  }
  for (let g = 0; g < circuit.gates.length; g++) doing.awake[g] = start === "asleep" || neverWakes(s, g, undefined) || circuit.gates[g]!.either ? 0 : 1;
  state.ohmsReady = false;
  state.tolerance = 0;
  s.healthy.x.fill(0);
  path.now++;
  path.count = pattern.n;
  for (let k = 0; k < pattern.n; k++) { path.list[k] = k; path.mark[k] = path.dirty[k] = path.now; }
  s.moved.now++;
  for (let i = 0; i < circuit.elements.length; i++) weigh(circuit.elements[i]!, i, doing, c, s.weights);
  state.healthyOutcome = iterate(s, undefined, (round) => {
    if (round > 0) for (let i = 0; i < circuit.elements.length; i++) weigh(circuit.elements[i]!, i, doing, c, s.weights);
    assemble(s, undefined, s.healthy.own);
    eliminate(pattern, s.healthy, s.healthy, path);
    descend(pattern, s.healthy, s.healthy, path, s.moved, 0);
  }, s.healthy.x);
  sumChildren(pattern, s.healthy);
  s.weightsHealthy.set(s.weights);
  doing.modeHealthy.set(doing.mode);
  doing.awakeHealthy.set(doing.awake);
  doing.straightHealthy.set(doing.straight);
  s.faulty.x.set(s.healthy.x);
  s.faulty.hold.set(s.healthy.hold);
  s.touched.count = 0;
  s.touched.mark.fill(0);
  s.moved.count = 0;
  path.now++;
  path.count = 0;
  s.moved.now++;
  return (state.outcome = state.healthyOutcome);
}

/**
 * Finds the operating point with a fault: eliminates only the path of the tree above what the fault touches, solves
 * with assumed device states, looks which devices disagree, moves each to a neighbouring state only, and repeats.
 * Fuses melt only once everything else agrees, one at a time, and never mend. Starts from the healthy states.
 *
 * @param tolerance volt; parts that move by no more are left as they were. 0 solves everything exactly
 */
export function settle(s: Solver, edit: Edit, tolerance = 0): Settled {
  putBack(s);
  const { pattern, path, healthy, faulty, moved, state } = s;
  state.tolerance = tolerance;
  applyEdit(s, edit);
  const outside = sortShunts(s, edit.shunts);
  if (path.count === 0 && outside.length === 0) return (state.outcome = state.healthyOutcome);
  return (state.outcome = iterate(s, edit, (round) => {
    if (round > 0) restoreVolts(s);
    if (path.count) {
      assemble(s, edit.shunts, faulty.own);
      sortPath(path);
      eliminate(pattern, faulty, healthy, path);
      moved.now++;
      descend(pattern, faulty, healthy, path, moved, tolerance);
    }
    if (outside.length) addOutside(s, outside);
  }, faulty.x));
}

function iterate(s: Solver, edit: Edit | undefined, solve: (round: number) => void, x: Float64Array): Settled {
  const everyone = edit === undefined;
  for (let round = 0; round < ROUNDS_ALL + ROUNDS_ONE; round++) {
    solve(round);
    const count = gatherWatchers(s, everyone);
    if (moveDevices(s, edit, x, count, round < ROUNDS_ALL ? -1 : round, undefined) === 0 && meltFuse(s, x, count) === 0) return round === 0 ? ONE_ROUND : { settled: true, rounds: round + 1, swinging: [] };
  }
  const swinging = new Set<string>();
  for (let more = 0; more < 12; more++) {
    moveDevices(s, edit, x, gatherWatchers(s, everyone), -1, swinging);
    solve(1);
  }
  return { settled: false, rounds: ROUNDS_ALL + ROUNDS_ONE, swinging: [...swinging] };
}
const ONE_ROUND: Settled = { settled: true, rounds: 1, swinging: [] };

/** Undoes the last fault: whatever it wrote goes back to the healthy values. */
function putBack(s: Solver): void {
  const { touched, doing, path, weights, weightsHealthy } = s;
  restoreVolts(s);
  for (let q = 0; q < touched.count; q++) {
    const i = touched.elements[q]!;
    touched.mark[i] = 0;
    doing.mode[i] = doing.modeHealthy[i]!;
    doing.straight[i] = doing.straightHealthy[i]!;
    doing.series[i] = doing.dead[i] = 0;
    for (let w = i * WEIGHTS, end = w + WEIGHTS; w < end; w++) weights[w] = weightsHealthy[w]!;
  }
  touched.count = 0;
  if (doing.replaced.size) doing.replaced.clear();
  if (touched.gates) { doing.awake.set(doing.awakeHealthy); touched.gates = false; }
  path.now++;
  path.count = 0;
  s.moved.now++;
  s.moved.count = 0;
  s.movedOhms.now++;
  s.movedOhms.count = 0;
}

function restoreVolts(s: Solver): void {
  const { moved, faulty, healthy, updates } = s;
  for (let q = 0; q < moved.count; q++) { const k = moved.list[q]!; faulty.x[k] = healthy.x[k]!; faulty.hold[k] = healthy.hold[k]!; }
  if (updates.count) clearUpdates(updates);
  moved.count = 0;
}

/** Has an element weighed anew before the next elimination. */
function touch(s: Solver, i: number): void {
  const { touched, path, pattern } = s;
  if (touched.mark[i] === 0) { touched.mark[i] = 1; touched.elements[touched.count++] = i; }
  for (let q = pattern.frontStart[i]!; q < pattern.frontStart[i + 1]!; q++) addToPath(pattern, path, pattern.frontsOf[q]!);
}

function applyEdit(s: Solver, edit: Edit): void {
  const { doing } = s;
  if (edit.series) for (const { element, ohm } of edit.series) {
    if (ohm === 0) continue;
    doing.series[element] = doing.series[element]! + ohm;
    touch(s, element);
  }
  if (edit.dead) for (const i of edit.dead) { doing.dead[i] = 1; touch(s, i); }
  if (edit.replace) for (const { element, by } of edit.replace) { doing.replaced.set(element, { ...doing.replaced.get(element), ...by }); touch(s, element); }
  if (edit.asleep) for (const g of edit.asleep) if (doing.awake[g] === 1) setGate(s, g, 0);
  reweigh(s);
}

function setGate(s: Solver, g: number, awake: 0 | 1): void {
  s.doing.awake[g] = awake;
  s.touched.gates = true;
  for (const i of s.gated[g]!) touch(s, i);
}

function reweigh(s: Solver): void {
  const { touched, doing, conditions, weights } = s;
  const { elements } = conditions.circuit;
  for (let q = 0; q < touched.count; q++) { const i = touched.elements[q]!; weigh(elements[i]!, i, doing, conditions, weights); }
}

/** Shunts to chassis and between nodes the pattern joins go into the fronts; the rest is returned. */
function sortShunts(s: Solver, shunts: readonly Shunt[] | undefined): readonly Shunt[] {
  if (!shunts || shunts.length === 0) return EMPTY;
  const { pattern, path } = s;
  let outside: Shunt[] | undefined;
  for (const shunt of shunts) {
    const a = pattern.position[shunt.a]!, b = pattern.position[shunt.b]!;
    if (a < 0 || b < 0) { addToPath(pattern, path, Math.max(a, b)); continue; }
    const slot = slotOf(s, Math.min(a, b), Math.max(a, b));
    if (slot < 0) { (outside ??= []).push(shunt); continue; }
    addToPath(pattern, path, a);
    addToPath(pattern, path, b);
  }
  return outside ?? EMPTY;
}
const EMPTY: readonly Shunt[] = [];

function slotOf(s: Solver, k: number, later: number): number {
  const { start, later: list } = s.pattern;
  for (let q = start[k]!; q < start[k + 1]!; q++) if (list[q] === later) return q - start[k]!;
  return -1;
}

/** Sums up the own rows of every dirty front anew, from nothing. */
function assemble(s: Solver, shunts: readonly Shunt[] | undefined, own: Float64Array): void {
  const { pattern: p, path, weights } = s;
  const { stampStart, stampTarget, stampWeight, own: ownAt } = p;
  for (let q = 0; q < path.count; q++) {
    const k = path.list[q]!;
    if (path.dirty[k] !== path.now) continue;
    for (let i = ownAt[k]!; i < ownAt[k + 1]!; i++) own[i] = 0;
    for (let t = stampStart[k]!; t < stampStart[k + 1]!; t++) { const i = stampTarget[t]!; own[i] = own[i]! + weights[stampWeight[t]!]!; }
  }
  if (shunts) for (const shunt of shunts) {
    const a = p.position[shunt.a]!, b = p.position[shunt.b]!, g = 1 / shunt.ohm, ampere = (shunt.volt ?? 0) * g;
    if (a >= 0 && b >= 0) {
      const k = Math.min(a, b), slot = slotOf(s, k, Math.max(a, b));
      if (slot < 0) continue;
      const c = p.start[k + 1]! - p.start[k]!, at = ownAt[k]! + slot;
      own[at] = own[at]! + g;
      own[at + c] = own[at + c]! + g;
    } else if (a >= 0 || b >= 0) { const k = Math.max(a, b), at = ownAt[k + 1]! - 2; own[at] = own[at]! + g; }
    if (a >= 0) { const at = ownAt[a + 1]! - 1; own[at] = own[at]! + ampere; }
    if (b >= 0) { const at = ownAt[b + 1]! - 1; own[at] = own[at]! - ampere; }
  }
}

const inverseOf = (s: Solver): Inverse => ({ pattern: s.pattern, to: s.faulty, from: s.healthy, path: s.path, updates: s.updates });

function addOutside(s: Solver, shunts: readonly Shunt[]): void {
  const inverse = inverseOf(s);
  const { moved, faulty, healthy } = s, { tolerance } = s.state;
  if (s.path.count === 0) moved.now++; // else the list of `descend` is added to
  for (let q = 0; q < moved.count; q++) moved.mark[moved.list[q]!] = moved.now;
  const changed = (k: number) => { if (moved.mark[k] !== moved.now) { moved.mark[k] = moved.now; moved.list[moved.count++] = k; } };
  // parts that float on both sides wait until another shunt holds one of them
  for (let waiting = shunts; waiting.length;) {
    const left = waiting.filter((x) => !addShunt(inverse, s.pattern.position[x.a]!, s.pattern.position[x.b]!, x.ohm, x.volt ?? 0, tolerance, shunts.length === 1, changed));
    if (left.length === waiting.length) break;
    waiting = left;
  }
  for (let q = 0; q < moved.count; q++) {
    const k = moved.list[q]!;
    moved.self[k] = Math.abs(faulty.x[k]! - healthy.x[k]!) > tolerance || faulty.hold[k] !== healthy.hold[k] ? moved.now : moved.now - 1;
  }
}

const neverWakes = (s: Solver, g: number, edit: Edit | undefined) => {
  const c = s.conditions;
  return (!c.keyOn && c.circuit.gates[g]!.needsKey) || (c.asleep !== undefined && c.asleep.includes(g)) || (edit?.asleep !== undefined && edit.asleep.includes(g));
};

/** Whether a gate should be awake at these voltages. */
function wakes(circuit: Circuit, g: number, x: Float64Array, position: Int32Array): boolean {
  const gate = circuit.gates[g]!;
  const low = gate.low === 0 ? 0 : x[position[gate.low]!]!;
  for (let q = 0; q < gate.high.length; q++) {
    const group = gate.high[q]!;
    let some = false;
    for (let j = 0; j < group.length && !some; j++) {
      const node = group[j]!;
      const v = (node === 0 ? 0 : x[position[node]!]!) - low;
      some = v > gate.aboveVolt || (gate.either && -v > gate.aboveVolt);
    }
    if (!some) return false;
  }
  return true;
}

/**
 * Who might disagree with the voltages: everyone at a node that moved, and everyone touched. The rest agreed with the
 * healthy voltages and still does. In `prepare` that is everyone. Filled into `watchers.found`. @returns how many
 */
function gatherWatchers(s: Solver, everyone: boolean): number {
  const { watchers: w, moved, touched, conditions } = s;
  if (everyone) { for (let i = 0; i < w.count; i++) w.found[i] = i; return w.count; }
  const now = ++w.now;
  let count = 0;
  for (let q = 0; q < moved.count; q++) {
    const k = moved.list[q]!;
    if (moved.self[k] !== moved.now) continue;
    for (let j = w.start[k]!; j < w.start[k + 1]!; j++) { const i = w.list[j]!; if (w.seen[i] !== now) { w.seen[i] = now; w.found[count++] = i; } }
  }
  for (let q = 0; q < touched.count; q++) {
    const e = touched.elements[q]!, own = w.of[e]!, gate = conditions.circuit.elements[e]!.gate;
    if (own >= 0 && w.seen[own] !== now) { w.seen[own] = now; w.found[count++] = own; }
    if (gate >= 0 && w.seen[gate] !== now) { w.seen[gate] = now; w.found[count++] = gate; }
  }
  return count;
}

/**
 * Moves every device that disagrees with the voltages to its neighbouring state.
 * @param count of `watchers.found`; @param only −1: all may move; otherwise just one, starting the search further on each round
 * @param swinging when given, takes the ids of what moved
 */
function moveDevices(s: Solver, edit: Edit | undefined, x: Float64Array, count: number, only: number, swinging: Set<string> | undefined): number {
  const { doing, watchers, conditions, pattern } = s;
  const { elements, gates } = conditions.circuit;
  const { position } = pattern, { found, devices } = watchers;
  let moves = 0;
  for (let step = 0; step < count; step++) {
    const at = found[only < 0 ? step : (step + only) % count]!;
    if (at < gates.length) {
      const want = wakes(conditions.circuit, at, x, position) ? 1 : 0;
      if (want === doing.awake[at] || neverWakes(s, at, edit)) continue;
      setGate(s, at, want);
      swinging?.add(gates[at]!.id);
    } else {
      const i = devices[at - gates.length];
      if (i === undefined || conditions.open[i] === 1) continue; // a fuse
      const e = present(elements[i]!, i, doing);
      if (isOff(e, i, doing, conditions)) continue;
      const v = (e.a === 0 ? 0 : x[position[e.a]!]!) - (e.b === 0 ? 0 : x[position[e.b]!]!);
      if (e.type === "filament") {
        if (Math.abs(v - doing.straight[i]!) <= Math.max(STRAIGHT_VOLT, STRAIGHT_TOLERANCES * s.state.tolerance)) continue;
        // a tangent through a dark lamp would throw it from +v to −v for ever: start again from cold
        doing.straight[i] = v * doing.straight[i]! < 0 ? 0 : v;
        touch(s, i);
        moves++; // converges on its own; never counts as swinging
        continue;
      }
      const want = wanted(e, doing.mode[i]!, v, doing.series[i]!);
      if (want === doing.mode[i]) continue;
      doing.mode[i] = want;
      touch(s, i);
      swinging?.add(e.id);
    }
    moves++;
    if (only >= 0) break;
  }
  if (moves) reweigh(s);
  return moves;
}

/** Melts the first fuse that carries too much. @param count of `watchers.found` */
function meltFuse(s: Solver, x: Float64Array, count: number): number {
  const { doing, watchers, conditions, pattern } = s;
  const first = conditions.circuit.gates.length + watchers.devices.length;
  for (let q = 0; q < count; q++) {
    const at = watchers.found[q]!;
    if (at < first) continue;
    const i = watchers.fuses[at - first]!;
    if (doing.mode[i] === BLOWN || conditions.open[i] === 1) continue;
    const e = present(conditions.circuit.elements[i]!, i, doing);
    const v = (e.a === 0 ? 0 : x[pattern.position[e.a]!]!) - (e.b === 0 ? 0 : x[pattern.position[e.b]!]!);
    if (!(Math.abs(v) > e.limitAmpere * (e.ohm + doing.series[i]!))) continue;
    doing.mode[i] = BLOWN;
    touch(s, i);
    reweigh(s);
    return 1;
  }
  return 0;
}

/** Volts to chassis at a node after `settle`; NaN where the node floats. */
export function nodeVolt(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  return s.faulty.hold[k] === 0 ? NaN : s.faulty.x[k]!;
}

/** What a settled solution lends to a netlist. */
export function solutionOf(s: Solver): Solution {
  const { circuit } = s.conditions;
  return { volts: circuit.nodes.map((_, i) => nodeVolt(s, i)), blown: new Set([...s.watchers.fuses].filter((i) => s.doing.mode[i] === BLOWN)) };
}

/** Finds the resistance to chassis at every node with every device in its present state, for `nodeOhm`. Call after `settle`. */
export function measureOhms(s: Solver, tolerance = 0): void {
  const { pattern: p, path, healthy, faulty, movedOhms, seen, state } = s;
  if (!state.ohmsReady) {
    const all = { ...path, count: p.n, mark: new Int32Array(p.n), now: 0 };
    descendOhms(p, healthy, healthy, all, { list: new Int32Array(p.n), count: 0, mark: new Int32Array(p.n).fill(-1), self: movedOhms.self, now: 0 }, Infinity);
    state.ohmsReady = true;
  }
  if (s.updates.count && s.updates.reach > tolerance) findRows(inverseOf(s), tolerance);
  movedOhms.now++;
  descendOhms(p, faulty, healthy, path, movedOhms, tolerance);
  for (let q = 0; q < movedOhms.count; q++) seen[movedOhms.list[q]!] = movedOhms.now;
}

/** Resistance to chassis seen at a node, ohm, after `measureOhms`; Infinity where the node floats. */
export function nodeOhm(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  if (s.faulty.hold[k] === 0) return Infinity;
  const own = (s.seen[k] === s.movedOhms.now ? s.faulty : s.healthy).block[s.pattern.block[k]!]!;
  return s.updates.rows ? Math.max(0, own + addedOhm(s.updates, k)) : own;
}

/**
 * Resistance between two nodes with every device in its present state, ohm, after `settle`; Infinity where nothing joins
 * them. Not for the inner loop: it solves a column of the inverse.
 */
export function ohmBetween(s: Solver, a: number, b: number): number {
  if (a === b) return 0;
  const { pattern: p, faulty, healthy, path, updates } = s;
  const i = p.position[a]!, j = p.position[b]!;
  const held = (k: number) => k < 0 || faulty.hold[k] === 1; // updates included
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

/** Current through an element from `a` to `b`, ampere, after `settle`; NaN where it floats. */
export function elementAmpere(s: Solver, element: number): number {
  const e = s.conditions.circuit.elements[element]!, w = element * WEIGHTS;
  const a = nodeVolt(s, e.a), b = nodeVolt(s, e.b);
  if (s.weights[w] === 0 && s.weights[w + 2] === 0) return 0;
  return s.weights[w]! * (a - b) + s.weights[w + 2]! * (a - nodeVolt(s, e.low)) - s.weights[w + 4]!;
}

/** Largest current by which Kirchhoff's law fails at any node that is held, ampere: the judge of the last `settle`. */
export function residual(s: Solver, edit: Edit): number {
  const { circuit } = s.conditions, { weights: w } = s;
  const left = new Float64Array(circuit.nodes.length);
  const volt = (node: number) => (node === 0 ? 0 : s.faulty.x[s.pattern.position[node]!]!);
  const add = (node: number, ampere: number) => { left[node] = left[node]! + ampere; };
  circuit.elements.forEach((e, i) => {
    const at = i * WEIGHTS;
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
  for (let node = 1; node < circuit.nodes.length; node++) if (s.faulty.hold[s.pattern.position[node]!] === 1) worst = Math.max(worst, Math.abs(left[node]!));
  return worst;
}
