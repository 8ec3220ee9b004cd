import type { Pattern } from "./pattern.js";

/**
 * Numbers of one factorisation. Owned by the caller and used again for every solve; nothing is allocated inside.
 * The diagonal is never stored: a row is its off-diagonals (as positive weights) and its leak to chassis, and the
 * diagonal is their sum.
 */
export interface Workspace {
  /** positive weights, siemens; 2·slots, laid out as Pattern says */
  readonly off: Float64Array;
  /** conductance of each row to chassis, siemens; n */
  readonly leak: Float64Array;
  /** pivots after factor(), siemens; n, by unknown. 0 marks a node with no way to chassis */
  readonly pivot: Float64Array;
}

export function createWorkspace(pattern: Pattern): Workspace {
  return { off: new Float64Array(2 * pattern.slots), leak: new Float64Array(pattern.n), pivot: new Float64Array(pattern.n) };
}

/**
 * Eliminates in place by adding positive numbers only, so no digit is lost where milliohms stand beside 10 MΩ
 * (the idea of Grassmann, Taksar & Heyman, "Regenerative analysis and steady state distributions for Markov chains",
 * Operations Research 33, 1985). Every row of a nodal network with Norton sources is diagonally dominant with
 * non-positive off-diagonals, which is all this needs; symmetry is not required.
 *
 * An island without a way to chassis ends in a pivot of exactly 0 (sums of zeros, never a difference). That node is
 * then taken as 0 V, so the rest of its island is solved relative to it; `findHeld` tells which nodes float.
 */
export function factor(p: Pattern, w: Workspace): void {
  const { off, leak, pivot } = w;
  const { start, later, target, order, slots } = p;
  let t = 0;
  for (let k = 0; k < p.n; k++) {
    const from = start[k]!, to = start[k + 1]!;
    const row = order[k]!;
    let d = leak[row]!;
    for (let q = from; q < to; q++) d += off[q]!;
    pivot[row] = d;
    if (!(d > 0)) { t += (to - from) * (to - from - 1); continue; }
    for (let q = from; q < to; q++) {
      const f = off[slots + q]! / d;
      off[slots + q] = f;
      if (f === 0) { t += to - from - 1; continue; }
      leak[later[q]!] = leak[later[q]!]! + f * leak[row]!;
      for (let r = from; r < to; r++) {
        if (r === q) continue;
        const at = target[t++]!;
        off[at] = off[at]! + f * off[r]!;
      }
    }
  }
}

/**
 * Solves for the node voltages in place.
 * @param x in: currents injected into each unknown, ampere; out: volts. n entries
 */
export function solve(p: Pattern, w: Workspace, x: Float64Array): void {
  const { off, pivot } = w;
  const { start, later, order, slots } = p;
  for (let k = 0; k < p.n; k++) {
    const value = x[order[k]!]!;
    if (value === 0) continue;
    for (let q = start[k]!; q < start[k + 1]!; q++) x[later[q]!] = x[later[q]!]! + off[slots + q]! * value;
  }
  for (let k = p.n - 1; k >= 0; k--) {
    const row = order[k]!;
    const d = pivot[row]!;
    if (!(d > 0)) { x[row] = 0; continue; }
    let sum = x[row]!;
    for (let q = start[k]!; q < start[k + 1]!; q++) sum += off[q]! * x[later[q]!]!;
    x[row] = sum / d;
  }
}

/**
 * Which nodes have a way to chassis, read off the factors: a node is held when its row leaks, or leans on a later node
 * that is held. Elimination adds positive numbers only, so it keeps exactly who can reach whom.
 * @param hold out: 1 held, 0 floating; n entries
 */
export function findHeld(p: Pattern, w: Workspace, hold: Uint8Array): void {
  for (let k = p.n - 1; k >= 0; k--) {
    const row = p.order[k]!;
    let held = w.leak[row]! > 0 ? 1 : 0;
    for (let q = p.start[k]!; held === 0 && q < p.start[k + 1]!; q++) if (w.off[q]! > 0 && hold[p.later[q]!] === 1) held = 1;
    hold[row] = held;
  }
}

/**
 * The diagonal of the inverse, that is the resistance to chassis at every node, at about twice the cost of a
 * factorisation: only the entries on the filled pattern are ever needed (Takahashi, Fagan & Chen, "Formation of a
 * sparse bus impedance matrix", 1973). Again only positive numbers are added.
 * @param z scratch, ohm; 2·slots, laid out as Pattern says
 * @param diagonal out, ohm; n, by unknown. Meaningless where the node floats
 */
export function inverseDiagonal(p: Pattern, w: Workspace, z: Float64Array, diagonal: Float64Array): void {
  const { off, pivot } = w;
  const { start, later, target, order, slots } = p;
  let base = target.length;
  for (let k = p.n - 1; k >= 0; k--) {
    const from = start[k]!, count = start[k + 1]! - from, row = order[k]!, d = pivot[row]!;
    base -= count * (count - 1);
    if (!(d > 0)) {
      diagonal[row] = 0;
      for (let q = from; q < from + count; q++) z[q] = z[slots + q] = 0;
      continue;
    }
    for (let j = 0; j < count; j++) {
      const own = diagonal[later[from + j]!]!;
      let across = off[from + j]! * own, down = own * off[slots + from + j]!;
      for (let i = 0; i < count; i++) {
        if (i === j) continue;
        across += off[from + i]! * z[target[base + i * (count - 1) + (j < i ? j : j - 1)]!]!;
        down += z[target[base + j * (count - 1) + (i < j ? i : i - 1)]!]! * off[slots + from + i]!;
      }
      z[from + j] = across / d;
      z[slots + from + j] = down;
    }
    let sum = 1;
    for (let i = 0; i < count; i++) sum += off[from + i]! * z[slots + from + i]!;
    diagonal[row] = sum / d;
  }
}
