import { addSparse, clearSparse, createSparse, finishColumn, startColumn, type Sparse } from "./columns.js";
import type { Fronts, Path } from "./fronts.js";
import type { Pattern } from "./pattern.js";

/**
 * Resistances added between two nodes that the pattern does not join (a wire chafed onto its neighbour, a bridge of
 * salt water): rank-one updates of the inverse (Sherman & Morrison 1950). Only ever for conductance *added*: the
 * denominator is then a sum of positive numbers. Taking a wire away by the same formula cancels all digits; that is
 * done by eliminating anew (see fronts.ts).
 *
 * The updated inverse is Z + Σ p⊗q. The q, and what a joined island adds, are only found when they are wanted
 * (`findRows`). Columns are followed only as far as they matter, so a cache of them would cost more than it saves.
 */
export interface Updates {
  /** in pairs p, q; first 2·`count` count. Reused from fault to fault */
  readonly vectors: Sparse[];
  readonly steps: RankOneUpdate[];
  count: number;
  /** how many of `steps` have their q */
  rows: number;
  /** ohm: no resistance to chassis changes by more than about this through the updates */
  reach: number;
  readonly island: Uint8Array;
  readonly scratch: readonly [Sparse, Sparse];
}
/** One shunt as it was added: an ordinary one takes one pair of vectors, one that joins a floating island two. */
interface RankOneUpdate {
  readonly a: number;
  readonly b: number;
  readonly at: number;
  readonly joins: boolean;
  readonly ohm: number;
  readonly most: number;
  readonly scale: number;
}
export const createUpdates = (n: number): Updates => ({
  vectors: [],
  steps: [],
  count: 0,
  rows: 0,
  reach: 0,
  island: new Uint8Array(n),
  scratch: [createSparse(n), createSparse(n)],
});
export function clearUpdates(u: Updates): void {
  u.count = u.rows = u.reach = 0;
  u.steps.length = 0;
}

export interface Inverse {
  readonly pattern: Pattern;
  readonly to: Fronts;
  readonly from: Fronts;
  readonly path: Path;
  readonly updates: Updates;
}

/**
 * Adds `ohm` between positions a and b, in series with `volt`, to the solution `x` and to the inverse.
 * A part that floats simply takes the voltage of what it now touches: no current can flow into it.
 * @param last no other shunt will follow; @param changed told every position whose voltage may have changed; @param
 * tolerance volt, smaller changes are left out
 * @returns false where two parts that both float would be joined: nothing to solve until one of them is held
 */
export function addShunt(
  inv: Inverse,
  a: number,
  b: number,
  ohm: number,
  volt: number,
  tolerance: number,
  last: boolean,
  changed: (k: number) => void,
): boolean {
  const { to, updates } = inv;
  const { x, grounded } = to;
  if (grounded[a] !== grounded[b]) {
    joinFloating(
      inv,
      grounded[a] === 1 ? a : b,
      grounded[a] === 1 ? b : a,
      ohm,
      grounded[a] === 1 ? -volt : volt,
      changed,
    );
    return true;
  }
  if (grounded[a] === 0 && !sameIsland(inv, a, b)) return false;
  const z = vector(inv, 2 * updates.count);
  const { value } = z;
  const shares = begin(inv, a, b, false, z, updates.count, tolerance);
  const scale = 1 / (ohm + Math.max(0, pathValue(inv, z, shares, a) - pathValue(inv, z, shares, b)));
  const ampere = (x[a]! - x[b]! - volt) * scale;
  // cut short where neither a voltage nor, through a meter's loading, a resistance would matter; hardly at all before
  // another shunt
  finish(
    inv,
    z,
    false,
    shares,
    last
      ? Math.min(tolerance / Math.abs(ampere), Math.sqrt((tolerance * LOADING_OHM_PER_VOLT) / scale)) || 0
      : tolerance / SURGE_AMPERE,
  );
  let most = 0;
  for (let q = 0; q < z.count; q++) {
    const k = z.list[q]!;
    const c = value[k]!;
    most = Math.max(most, Math.abs(c));
    x[k] = x[k]! - c * ampere;
    value[k] = -c * scale;
    changed(k);
  }
  updates.reach = Math.max(updates.reach, most * most * scale);
  updates.steps.push({ a, b, at: updates.count, joins: false, ohm, most, scale });
  updates.count++;
  return true;
}

/**
 * `held` has a way to chassis, `loose` has none: the whole island of `loose` moves until no voltage stands across the
 * new resistance but `volt`.
 */
function joinFloating(
  inv: Inverse,
  held: number,
  loose: number,
  ohm: number,
  volt: number,
  changed: (k: number) => void,
): void {
  const { to, updates, pattern } = inv;
  const { x, grounded } = to;
  const p1 = vector(inv, 2 * updates.count);
  clearSparse(p1);
  clearSparse(vector(inv, 2 * updates.count + 2));
  const root = markIsland(inv, loose);
  const shift = x[held]! - x[loose]! + volt;
  for (let k = root, low = root - pattern.size[root]!; k > low; k--) {
    if (updates.island[k] === 0) continue;
    x[k] = x[k]! + shift;
    grounded[k] = 1;
    addSparse(p1, k, 1);
    changed(k);
  }
  updates.reach = Infinity;
  updates.steps.push({ a: loose, b: held, at: updates.count, joins: true, ohm, most: 0, scale: 0 });
  updates.count += 2;
}

/**
 * Completes every update so far, in order: its q, and the columns of a joined island.
 * @param tolerance ohm; changes of resistance below it may be left out. With `exactly`, the values themselves below it
 */
export function findRows(inv: Inverse, tolerance: number, exactly = false): void {
  const { updates } = inv;
  for (; updates.rows < updates.steps.length; updates.rows++) {
    const { a, b, at, joins, ohm, most, scale } = updates.steps[updates.rows]!;
    const q1 = vector(inv, 2 * at + 1);
    if (!joins) {
      finish(
        inv,
        q1,
        true,
        begin(inv, a, b, true, q1, at),
        exactly ? tolerance : tolerance / Math.max(1e-300, most * scale),
      );
      continue;
    }
    const p1 = vector(inv, 2 * at);
    const p2 = vector(inv, 2 * at + 2);
    const q2 = vector(inv, 2 * at + 3);
    const [loose, held] = updates.scratch;
    finish(inv, loose, false, begin(inv, a, -1, false, loose, at), 0);
    finish(inv, held, false, begin(inv, b, -1, false, held, at), 0);
    const whole = loose.value[a]! + held.value[b]! + ohm;
    const on = (k: number) => p1.value[k] === 1;
    clearSparse(p2);
    for (let q = 0; q < held.count; q++) {
      const k = held.list[q]!;
      if (!on(k)) addSparse(p2, k, held.value[k]!);
    }
    for (let q = 0; q < p1.count; q++) {
      const k = p1.list[q]!;
      addSparse(p2, k, -loose.value[k]!);
    }
    finish(inv, loose, true, begin(inv, a, -1, true, loose, at), 0);
    finish(inv, held, true, begin(inv, b, -1, true, held, at), 0);
    clearSparse(q1);
    clearSparse(q2);
    for (let q = 0; q < held.count; q++) {
      const k = held.list[q]!;
      if (!on(k)) addSparse(q1, k, held.value[k]!);
    }
    for (let q = 0; q < p1.count; q++) {
      const k = p1.list[q]!;
      addSparse(q1, k, whole - loose.value[k]!);
      addSparse(q2, k, 1);
    }
  }
}

/** Resistance to chassis at a position beyond that of the factors, ohm; after `findRows`. */
export function addedOhm(u: Updates, k: number): number {
  let sum = 0;
  for (let t = 0; t < u.count; t++) sum += u.vectors[2 * t]!.value[k]! * u.vectors[2 * t + 1]!.value[k]!;
  return sum;
}

/** As `addedOhm`, between two positions (−1: chassis). */
export function addedBetween(u: Updates, a: number, b: number): number {
  let sum = 0;
  for (let t = 0; t < u.count; t++) {
    const p = u.vectors[2 * t]!;
    const q = u.vectors[2 * t + 1]!;
    sum += (at(p, a) - at(p, b)) * (at(q, a) - at(q, b));
  }
  return sum;
}

const at = (v: Sparse, i: number) => (i < 0 ? 0 : v.value[i]!);
const vector = (inv: Inverse, i: number): Sparse => (inv.updates.vectors[i] ??= createSparse(inv.pattern.n));

/** Begins a column (or row) of the inverse with the first `count` updates. @returns how much of each update it takes */
function begin(
  inv: Inverse,
  a: number,
  b: number,
  transposed: boolean,
  column: Sparse,
  count: number,
  tolerance = 0,
): readonly number[] {
  const { pattern, to, from, path, updates } = inv;
  startColumn(pattern, to, from, path, a, b, transposed, column);
  if (count === 0) return NO_SHARES;
  // earlier updates must be complete; inside findRows they are
  if (!transposed && updates.steps.some((step, i) => step.at < count && i >= updates.rows))
    findRows(inv, tolerance / SURGE_AMPERE, true);
  return Array.from({ length: count }, (_, t) => {
    const q = vector(inv, 2 * t + (transposed ? 0 : 1));
    return at(q, a) - at(q, b);
  });
}
/** A resistance this far off costs a 10 MΩ meter a volt or less at 10 V, ohm per volt. */
const LOADING_OHM_PER_VOLT = 1e6;
/** Currents through a shunt are taken to stay below this where columns are cut short, ampere. */
const SURGE_AMPERE = 100;
const NO_SHARES: readonly number[] = [];

/** Value at the foot of a column just begun. */
const pathValue = (inv: Inverse, column: Sparse, shares: readonly number[], k: number) =>
  shares.reduce((sum, share, t) => sum + share * inv.updates.vectors[2 * t]!.value[k]!, column.value[k]!);

function finish(inv: Inverse, column: Sparse, transposed: boolean, shares: readonly number[], least: number): void {
  finishColumn(inv.pattern, inv.to, inv.from, inv.path, transposed, column, least);
  shares.forEach((share, t) => {
    if (share === 0) return;
    const p = vector(inv, 2 * t + (transposed ? 1 : 0));
    for (let q = 0; q < p.count; q++) {
      const k = p.list[q]!;
      addSparse(column, k, p.value[k]! * share);
    }
  });
}

/** Whether two floating positions hang together. */
export function sameIsland(inv: Inverse, a: number, b: number): boolean {
  markIsland(inv, a);
  return inv.updates.island[b] === 1;
}

/** 1 on every node of the floating island that k belongs to. @returns its last node in order of elimination */
function markIsland(inv: Inverse, k: number): number {
  const { pattern: p, to, from, path } = inv;
  const { island } = inv.updates;
  const of = (i: number) => (path.mark[i] === path.now ? to : from);
  let root = k;
  while (of(root).pivot[root]! > 0) {
    const out = of(root).out;
    let q = p.start[root]!;
    while (q < p.start[root + 1]! && !(out[q]! > 0)) q++;
    root = p.later[q]!;
  }
  island.fill(0);
  island[root] = 1;
  for (let i = root - 1, low = root - p.size[root]!; i > low; i--) {
    const src = of(i);
    if (!(src.pivot[i]! > 0)) continue;
    for (let q = p.start[i]!; q < p.start[i + 1]!; q++)
      if (src.out[q]! > 0 && island[p.later[q]!] === 1) {
        island[i] = 1;
        break;
      }
  }
  return root;
}
