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
 * Rows without a way to chassis must have been tied down before (see `settle`): their pivot would be 0, and they are
 * then left out rather than divided by.
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
