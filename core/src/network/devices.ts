import { BLOWN, isOff, present, wanted, writeConductances } from "./conductances.js";
import type { Circuit, Edit } from "./element.js";
import { addToPath } from "./fronts.js";
import type { Solver } from "./solver.js";

/** Filaments are straightened until their voltage agrees to this, volt. */
const STRAIGHT_VOLT = 1e-9;
/** Or, where a tolerance is given, to this many: a tangent is off by the square of the distance only. */
const STRAIGHT_TOLERANCES = 20;

/** Has an element weighed anew before the next elimination. */
export function touch(s: Solver, i: number): void {
  const { touched, path, pattern } = s;
  if (touched.mark[i] === 0) {
    touched.mark[i] = 1;
    touched.elements[touched.count++] = i;
  }
  for (let q = pattern.frontStart[i]!; q < pattern.frontStart[i + 1]!; q++)
    addToPath(pattern, path, pattern.frontsOf[q]!);
}

export function setGate(s: Solver, g: number, awake: 0 | 1): void {
  s.operating.awake[g] = awake;
  s.touched.gates = true;
  for (const i of s.gated[g]!) touch(s, i);
}

export function rewriteConductances(s: Solver): void {
  const { touched, operating, conditions, weights } = s;
  const { elements } = conditions.circuit;
  for (let q = 0; q < touched.count; q++) {
    const i = touched.elements[q]!;
    writeConductances(elements[i]!, i, operating, conditions, weights);
  }
}

export const neverWakes = (s: Solver, g: number, edit: Edit | undefined) => {
  const c = s.conditions;
  return (
    (!c.keyOn && c.circuit.gates[g]!.needsKey) ||
    (c.asleep !== undefined && c.asleep.includes(g)) ||
    (edit?.asleep !== undefined && edit.asleep.includes(g))
  );
};

/** Whether a gate should be awake at these voltages. */
function wakes(circuit: Circuit, g: number, x: Float64Array, position: Int32Array): boolean {
  const gate = circuit.gates[g]!;
  const low = gate.low === 0 ? 0 : x[position[gate.low]!]!;
  if (low > gate.lowBelowVolt) return false;
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
export function gatherWatchers(s: Solver, everyone: boolean): number {
  const { watchers: w, moved, touched, conditions } = s;
  if (everyone) {
    for (let i = 0; i < w.count; i++) w.found[i] = i;
    return w.count;
  }
  const now = ++w.now;
  let count = 0;
  for (let q = 0; q < moved.count; q++) {
    const k = moved.list[q]!;
    if (moved.self[k] !== moved.now) continue;
    for (let j = w.start[k]!; j < w.start[k + 1]!; j++) {
      const i = w.list[j]!;
      if (w.seen[i] !== now) {
        w.seen[i] = now;
        w.found[count++] = i;
      }
    }
  }
  for (let q = 0; q < touched.count; q++) {
    const e = touched.elements[q]!;
    const own = w.of[e]!;
    const gate = conditions.circuit.elements[e]!.gate;
    if (own >= 0 && w.seen[own] !== now) {
      w.seen[own] = now;
      w.found[count++] = own;
    }
    if (gate >= 0 && w.seen[gate] !== now) {
      w.seen[gate] = now;
      w.found[count++] = gate;
    }
  }
  return count;
}

/**
 * Moves every device that disagrees with the voltages to its neighbouring state.
 * @param count of `watchers.found`; @param only −1: all may move; otherwise just one, starting the search further on
 * each round
 * @param swinging when given, takes the ids of what moved
 */
export function moveDevices(
  s: Solver,
  edit: Edit | undefined,
  x: Float64Array,
  count: number,
  only: number,
  swinging: Set<string> | undefined,
): number {
  const { operating, watchers, conditions, pattern } = s;
  const { elements, gates } = conditions.circuit;
  const { position } = pattern;
  const { found, devices } = watchers;
  let moves = 0;
  for (let step = 0; step < count; step++) {
    const at = found[only < 0 ? step : (step + only) % count]!;
    if (at < gates.length) {
      const want = wakes(conditions.circuit, at, x, position) ? 1 : 0;
      if (want === operating.awake[at] || neverWakes(s, at, edit)) continue;
      setGate(s, at, want);
      swinging?.add(gates[at]!.id);
    } else {
      const i = devices[at - gates.length];
      if (i === undefined || conditions.open[i] === 1) continue; // a fuse
      const e = present(elements[i]!, i, operating);
      if (isOff(e, i, operating, conditions)) continue;
      const v = (e.a === 0 ? 0 : x[position[e.a]!]!) - (e.b === 0 ? 0 : x[position[e.b]!]!);
      if (e.type === "filament") {
        if (Math.abs(v - operating.straight[i]!) <= Math.max(STRAIGHT_VOLT, STRAIGHT_TOLERANCES * s.state.tolerance))
          continue;
        // a tangent through a dark lamp would throw it from +v to −v for ever: start again from cold
        operating.straight[i] = v * operating.straight[i]! < 0 ? 0 : v;
        touch(s, i);
        moves++; // converges on its own; never counts as swinging
        continue;
      }
      const want = wanted(e, operating.mode[i]!, v, operating.series[i]!);
      if (want === operating.mode[i]) continue;
      operating.mode[i] = want;
      touch(s, i);
      swinging?.add(e.id);
    }
    moves++;
    if (only >= 0) break;
  }
  if (moves) rewriteConductances(s);
  return moves;
}

/** Melts the first fuse that carries too much. @param count of `watchers.found` */
export function meltFuse(s: Solver, x: Float64Array, count: number): number {
  const { operating, watchers, conditions, pattern } = s;
  const first = conditions.circuit.gates.length + watchers.devices.length;
  for (let q = 0; q < count; q++) {
    const at = watchers.found[q]!;
    if (at < first) continue;
    const i = watchers.fuses[at - first]!;
    if (operating.mode[i] === BLOWN || conditions.open[i] === 1) continue;
    const e = present(conditions.circuit.elements[i]!, i, operating);
    const v = (e.a === 0 ? 0 : x[pattern.position[e.a]!]!) - (e.b === 0 ? 0 : x[pattern.position[e.b]!]!);
    if (!(Math.abs(v) > e.limitAmpere * (e.ohm + operating.series[i]!))) continue;
    operating.mode[i] = BLOWN;
    touch(s, i);
    rewriteConductances(s);
    return 1;
  }
  return 0;
}
