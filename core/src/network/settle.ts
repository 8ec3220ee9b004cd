import { INTACT, REGULATING, writeConductances } from "./conductances.js";
import { gatherWatchers, meltFuse, moveDevices, neverWakes, rewriteConductances, setGate, touch } from "./devices.js";
import type { Edit, Shunt } from "./element.js";
import { addToPath, descend, eliminate, sortPath, sumChildren } from "./fronts.js";
import { NUMBERS_PER_ELEMENT } from "./pattern.js";
import { addShunt, clearUpdates } from "./shunts.js";
import { inverseOf, type Conditions, type Settled, type Solver } from "./solver.js";

/** Rounds in which every device may move, then rounds in which only one may: a cycle of two ends there. */
const ROUNDS_ALL = 24;
const ROUNDS_ONE = 60;

/**
 * Solves the healthy circuit in one machine state and keeps its factorisation, for `settle` to start from.
 * Starts from everything awake and regulating, relays at rest, so of two stable points the working one is found.
 * @param start "asleep" to look for another steady state
 */
export function prepare(s: Solver, c: Conditions, start: "awake" | "asleep" = "awake"): Settled {
  putBack(s);
  const { circuit } = (s.conditions = c);
  const { operating, path, pattern, state } = s;
  for (let i = 0; i < circuit.elements.length; i++) {
    const e = circuit.elements[i]!;
    operating.mode[i] = e.type === "diode" ? 0 : e.type === "fuse" ? INTACT : REGULATING;
    operating.straight[i] = e.type === "filament" ? e.volt : 0;
  }
  for (let g = 0; g < circuit.gates.length; g++)
    operating.awake[g] = start === "asleep" || neverWakes(s, g, undefined) || circuit.gates[g]!.either ? 0 : 1;
  state.ohmsReady = false;
  state.tolerance = 0;
  s.healthy.x.fill(0);
  path.now++;
  path.count = pattern.n;
  for (let k = 0; k < pattern.n; k++) {
    path.list[k] = k;
    path.mark[k] = path.dirty[k] = path.now;
  }
  s.moved.now++;
  for (let i = 0; i < circuit.elements.length; i++) writeConductances(circuit.elements[i]!, i, operating, c, s.weights);
  state.healthyOutcome = iterate(
    s,
    undefined,
    (round) => {
      if (round > 0)
        for (let i = 0; i < circuit.elements.length; i++)
          writeConductances(circuit.elements[i]!, i, operating, c, s.weights);
      assemble(s, undefined, s.healthy.own);
      path.redo.fill(path.round);
      eliminate(pattern, s.healthy, s.healthy, path);
      descend(pattern, s.healthy, s.healthy, path, s.moved, 0);
    },
    s.healthy.x,
  );
  sumChildren(pattern, s.healthy);
  s.weightsHealthy.set(s.weights);
  operating.modeHealthy.set(operating.mode);
  operating.awakeHealthy.set(operating.awake);
  operating.straightHealthy.set(operating.straight);
  s.faulty.x.set(s.healthy.x);
  s.faulty.grounded.set(s.healthy.grounded);
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
  return (state.outcome = iterate(
    s,
    edit,
    (round) => {
      if (round > 0) restoreVolts(s);
      if (path.count) {
        assemble(s, edit.shunts, faulty.own);
        sortPath(path);
        eliminate(pattern, faulty, healthy, path);
        moved.now++;
        descend(pattern, faulty, healthy, path, moved, tolerance);
      }
      if (outside.length) addOutside(s, outside);
    },
    faulty.x,
  ));
}

function iterate(s: Solver, edit: Edit | undefined, solve: (round: number) => void, x: Float64Array): Settled {
  const everyone = edit === undefined;
  for (let round = 0; round < ROUNDS_ALL + ROUNDS_ONE; round++) {
    solve(round);
    s.path.round++;
    const count = gatherWatchers(s, everyone);
    if (moveDevices(s, edit, x, count, round < ROUNDS_ALL ? -1 : round, undefined) === 0 && meltFuse(s, x, count) === 0)
      return round === 0 ? ONE_ROUND : { settled: true, rounds: round + 1, swinging: [] };
  }
  const swinging = new Set<string>();
  for (let more = 0; more < 12; more++) {
    solve(1);
    s.path.round++;
    const count = gatherWatchers(s, everyone);
    // one at a time may have been too slow for many that only had to follow
    if (moveDevices(s, edit, x, count, -1, swinging) === 0 && meltFuse(s, x, count) === 0)
      return { settled: true, rounds: ROUNDS_ALL + ROUNDS_ONE + more, swinging: [] };
  }
  solve(1);
  return { settled: false, rounds: ROUNDS_ALL + ROUNDS_ONE, swinging: [...swinging] };
}
const ONE_ROUND: Settled = { settled: true, rounds: 1, swinging: [] };

/** Undoes the last fault: whatever it wrote goes back to the healthy values. */
function putBack(s: Solver): void {
  const { touched, operating, path, weights, weightsHealthy } = s;
  restoreVolts(s);
  s.state.ohmsWithin = Infinity;
  for (let q = 0; q < touched.count; q++) {
    const i = touched.elements[q]!;
    touched.mark[i] = 0;
    operating.mode[i] = operating.modeHealthy[i]!;
    operating.straight[i] = operating.straightHealthy[i]!;
    operating.series[i] = operating.dead[i] = 0;
    for (let w = i * NUMBERS_PER_ELEMENT, end = w + NUMBERS_PER_ELEMENT; w < end; w++) weights[w] = weightsHealthy[w]!;
  }
  touched.count = 0;
  if (operating.replaced.size) operating.replaced.clear();
  if (touched.gates) {
    operating.awake.set(operating.awakeHealthy);
    touched.gates = false;
  }
  path.now++;
  path.round++;
  path.count = 0;
  s.moved.now++;
  s.moved.count = 0;
  s.movedOhms.now++;
  s.movedOhms.count = 0;
}

function restoreVolts(s: Solver): void {
  const { moved, faulty, healthy, updates } = s;
  for (let q = 0; q < moved.count; q++) {
    const k = moved.list[q]!;
    faulty.x[k] = healthy.x[k]!;
    faulty.grounded[k] = healthy.grounded[k]!;
  }
  if (updates.count) clearUpdates(updates);
  moved.count = 0;
}

function applyEdit(s: Solver, edit: Edit): void {
  const { operating } = s;
  if (edit.series)
    for (const { element, ohm } of edit.series) {
      if (ohm === 0) continue;
      operating.series[element] = operating.series[element]! + ohm;
      touch(s, element);
    }
  if (edit.dead)
    for (const i of edit.dead) {
      operating.dead[i] = 1;
      touch(s, i);
    }
  if (edit.replace)
    for (const { element, by } of edit.replace) {
      operating.replaced.set(element, { ...operating.replaced.get(element), ...by });
      touch(s, element);
    }
  if (edit.asleep) for (const g of edit.asleep) if (operating.awake[g] === 1) setGate(s, g, 0);
  rewriteConductances(s);
}

/** Shunts to chassis and between nodes the pattern joins go into the fronts; the rest is returned. */
function sortShunts(s: Solver, shunts: readonly Shunt[] | undefined): readonly Shunt[] {
  if (!shunts || shunts.length === 0) return EMPTY;
  const { pattern, path } = s;
  let outside: Shunt[] | undefined;
  for (const shunt of shunts) {
    const a = pattern.position[shunt.a]!;
    const b = pattern.position[shunt.b]!;
    if (a < 0 || b < 0) {
      addToPath(pattern, path, Math.max(a, b));
      continue;
    }
    const slot = slotOf(s, Math.min(a, b), Math.max(a, b));
    if (slot < 0) {
      (outside ??= []).push(shunt);
      continue;
    }
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
    for (let t = stampStart[k]!; t < stampStart[k + 1]!; t++) {
      const i = stampTarget[t]!;
      own[i] = own[i]! + weights[stampWeight[t]!]!;
    }
  }
  if (shunts)
    for (const shunt of shunts) {
      const a = p.position[shunt.a]!;
      const b = p.position[shunt.b]!;
      const g = 1 / shunt.ohm;
      const ampere = (shunt.volt ?? 0) * g;
      if (a >= 0 && b >= 0) {
        const k = Math.min(a, b);
        const slot = slotOf(s, k, Math.max(a, b));
        if (slot < 0) continue;
        const c = p.start[k + 1]! - p.start[k]!;
        const at = ownAt[k]! + slot;
        own[at] = own[at]! + g;
        own[at + c] = own[at + c]! + g;
      } else if (a >= 0 || b >= 0) {
        const k = Math.max(a, b);
        const at = ownAt[k + 1]! - 2;
        own[at] = own[at]! + g;
      }
      if (a >= 0) {
        const at = ownAt[a + 1]! - 1;
        own[at] = own[at]! + ampere;
      }
      if (b >= 0) {
        const at = ownAt[b + 1]! - 1;
        own[at] = own[at]! - ampere;
      }
    }
}

function addOutside(s: Solver, shunts: readonly Shunt[]): void {
  const inverse = inverseOf(s);
  const { moved, faulty, healthy } = s;
  const { tolerance } = s.state;
  if (s.path.count === 0) moved.now++; // else the list of `descend` is added to
  for (let q = 0; q < moved.count; q++) moved.mark[moved.list[q]!] = moved.now;
  const changed = (k: number) => {
    if (moved.mark[k] !== moved.now) {
      moved.mark[k] = moved.now;
      moved.list[moved.count++] = k;
    }
  };
  // parts that float on both sides wait until another shunt holds one of them
  for (let waiting = shunts; waiting.length;) {
    const left = waiting.filter(
      (x) =>
        !addShunt(
          inverse,
          s.pattern.position[x.a]!,
          s.pattern.position[x.b]!,
          x.ohm,
          x.volt ?? 0,
          tolerance,
          shunts.length === 1,
          changed,
        ),
    );
    if (left.length === waiting.length) break;
    waiting = left;
  }
  for (let q = 0; q < moved.count; q++) {
    const k = moved.list[q]!;
    moved.self[k] =
      Math.abs(faulty.x[k]! - healthy.x[k]!) > tolerance || faulty.grounded[k] !== healthy.grounded[k]
        ? moved.now
        : moved.now - 1;
  }
}
