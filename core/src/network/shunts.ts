import { solveColumn, type Fronts, type Path } from "./fronts.js";
import type { Pattern } from "./pattern.js";

/**
 * Resistances added between two nodes that the pattern does not join (a wire chafed onto its neighbour, a bridge of
 * salt water): rank-one updates of the inverse (Sherman & Morrison 1950). Only ever for conductance *added*: the
 * denominator is then a sum of positive numbers. Taking a wire away by the same formula cancels all digits; that is
 * done by eliminating anew (see fronts.ts).
 *
 * The updated inverse is Z + Σ p⊗q. The q are only wanted for resistances, and are found by `findRows` when they are.
 */
export interface Updates {
  /** vectors of n, in pairs p, q; first 2·`count` count. Reused from fault to fault */
  readonly vectors: Float64Array[];
  readonly steps: Step[];
  count: number;
  /** how many of `steps` have their q */
  rows: number;
  /** ohm: no resistance to chassis changes by more than about this through the updates */
  reach: number;
  readonly scratch: { readonly column: Float64Array; readonly other: Float64Array; readonly island: Uint8Array };
}
/** One shunt as it was added: an ordinary one takes one pair of vectors, one that joins a floating island two. */
interface Step { readonly a: number; readonly b: number; readonly at: number; readonly joins: boolean; readonly whole: number }
export const createUpdates = (n: number): Updates => ({ vectors: [], steps: [], count: 0, rows: 0, reach: 0, scratch: { column: new Float64Array(n), other: new Float64Array(n), island: new Uint8Array(n) } });
export function clearUpdates(u: Updates): void { u.count = u.rows = u.reach = 0; u.steps.length = 0; }

/** Columns of the healthy inverse by position, shared between faults until the healthy state changes. */
export interface ColumnCache { readonly columns: Map<number, Float64Array>; readonly rows: Map<number, Float64Array>; readonly most: number }
export const createColumnCache = (n: number): ColumnCache => ({ columns: new Map(), rows: new Map(), most: Math.max(16, Math.floor(CACHE_NUMBERS / n)) });
const CACHE_NUMBERS = 2_000_000;

export interface Inverse { readonly pattern: Pattern; readonly to: Fronts; readonly from: Fronts; readonly path: Path; readonly updates: Updates; readonly cache: ColumnCache }

/**
 * Adds `ohm` between positions a and b, in series with `volt`, to the solution `x` and to the inverse.
 * A part that floats simply takes the voltage of what it now touches: no current can flow into it.
 * @returns false where two parts that both float would be joined: nothing to solve until one of them is held
 */
export function addShunt(inv: Inverse, a: number, b: number, ohm: number, volt: number): boolean {
  const { to, updates } = inv;
  const { x, hold } = to;
  if (hold[a] !== hold[b]) { joinFloating(inv, hold[a] === 1 ? a : b, hold[a] === 1 ? b : a, ohm, hold[a] === 1 ? -volt : volt); return true; }
  if (hold[a] === 0 && !sameIsland(inv, a, b)) return false;
  const z = vector(updates, 2 * updates.count, x.length);
  columnOf(inv, a, b, false, z);
  const scale = 1 / (ohm + Math.max(0, z[a]! - z[b]!)), ampere = (x[a]! - x[b]! - volt) * scale;
  let most = 0;
  for (let i = 0; i < x.length; i++) {
    const c = z[i]!;
    if (c > most) most = c; else if (-c > most) most = -c;
    x[i] = x[i]! - c * ampere;
    z[i] = -c * scale;
  }
  updates.reach = Math.max(updates.reach, most * most * scale);
  updates.steps.push({ a, b, at: updates.count, joins: false, whole: 0 });
  updates.count++;
  return true;
}

/** `held` has a way to chassis, `loose` has none: the whole island of `loose` moves until no voltage stands across the new resistance but `volt`. */
function joinFloating(inv: Inverse, held: number, loose: number, ohm: number, volt: number): void {
  const { to, updates } = inv, { x, hold } = to, n = x.length;
  const { island, column, other } = updates.scratch;
  const p1 = vector(updates, 2 * updates.count, n), p2 = vector(updates, 2 * updates.count + 2, n);
  columnOf(inv, loose, -1, false, column);
  columnOf(inv, held, -1, false, other);
  markIsland(inv, loose, island);
  const shift = x[held]! - x[loose]! + volt, whole = column[loose]! + other[held]! + ohm;
  for (let i = 0; i < n; i++) {
    if (island[i] === 1) { x[i] = x[i]! + shift; hold[i] = 1; p1[i] = 1; p2[i] = -column[i]!; } else { p1[i] = 0; p2[i] = other[i]!; }
  }
  updates.reach = Infinity;
  updates.steps.push({ a: loose, b: held, at: updates.count, joins: true, whole });
  updates.count += 2;
}

/** Finds the q of every update so far, in order, for `addedOhm`. */
export function findRows(inv: Inverse): void {
  const { updates } = inv, n = inv.pattern.n;
  const { column, other } = updates.scratch;
  for (; updates.rows < updates.steps.length; updates.rows++) {
    const step = updates.steps[updates.rows]!, p1 = vector(updates, 2 * step.at, n), q1 = vector(updates, 2 * step.at + 1, n);
    if (!step.joins) { columnOf(inv, step.a, step.b, true, q1, step.at); continue; }
    const q2 = vector(updates, 2 * step.at + 3, n);
    columnOf(inv, step.a, -1, true, column, step.at);
    columnOf(inv, step.b, -1, true, other, step.at);
    for (let i = 0; i < n; i++) { q1[i] = p1[i] === 1 ? step.whole - column[i]! : other[i]!; q2[i] = p1[i]!; }
  }
}

/** Resistance to chassis at a position beyond that of the factors, ohm; after `findRows`. */
export function addedOhm(u: Updates, k: number): number {
  let sum = 0;
  for (let t = 0; t < u.count; t++) sum += u.vectors[2 * t]![k]! * u.vectors[2 * t + 1]![k]!;
  return sum;
}

const at = (v: Float64Array, i: number) => (i < 0 ? 0 : v[i]!);
const vector = (u: Updates, i: number, n: number): Float64Array => (u.vectors[i] ??= new Float64Array(n));

/** Column (or row) of the inverse with the first `count` updates, for 1 A from b to a. */
function columnOf(inv: Inverse, a: number, b: number, transposed: boolean, column: Float64Array, count = inv.updates.count): void {
  const { pattern, to, from, path, updates, cache } = inv;
  if (path.count === 0) {
    const store = transposed ? cache.rows : cache.columns;
    const ca = cached(inv, store, a, transposed);
    if (b < 0) column.set(ca);
    else { const cb = cached(inv, store, b, transposed); for (let i = 0; i < column.length; i++) column[i] = ca[i]! - cb[i]!; }
  } else solveColumn(pattern, to, from, path, a, b, transposed, column);
  for (let t = 0; t < count; t++) {
    const p = vector(updates, 2 * t + (transposed ? 1 : 0), column.length), q = vector(updates, 2 * t + (transposed ? 0 : 1), column.length);
    if (!transposed) findRows(inv);
    const share = at(q, a) - at(q, b);
    if (share !== 0) for (let i = 0; i < column.length; i++) column[i] = column[i]! + p[i]! * share;
  }
}

function cached(inv: Inverse, store: Map<number, Float64Array>, k: number, transposed: boolean): Float64Array {
  const known = store.get(k);
  if (known) return known;
  if (store.size >= inv.cache.most) store.clear();
  const column = new Float64Array(inv.pattern.n);
  solveColumn(inv.pattern, inv.from, inv.from, inv.path, k, -1, transposed, column);
  store.set(k, column);
  return column;
}

/** Whether two floating positions hang together. */
export function sameIsland(inv: Inverse, a: number, b: number): boolean {
  const { island } = inv.updates.scratch;
  markIsland(inv, a, island);
  return island[b] === 1;
}

/** 1 on every node of the floating island that k belongs to. */
function markIsland(inv: Inverse, k: number, island: Uint8Array): void {
  const { pattern: p, to, from, path } = inv;
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
    for (let q = p.start[i]!; q < p.start[i + 1]!; q++) if (src.out[q]! > 0 && island[p.later[q]!] === 1) { island[i] = 1; break; }
  }
}
