import { createChangedRows, type ChangedRows, type Fronts, type Path } from "./fronts.js";
import type { Pattern } from "./pattern.js";

/** A vector of n that is zero but at the positions listed. */
export interface Sparse {
  readonly value: Float64Array;
  readonly list: Int32Array;
  count: number;
  readonly mark: Int32Array;
  now: number;
  readonly moved: ChangedRows;
}
export const createSparse = (n: number): Sparse => ({
  value: new Float64Array(n),
  list: new Int32Array(n),
  count: 0,
  mark: new Int32Array(n).fill(-1),
  now: 0,
  moved: createChangedRows(n),
});
export function clearSparse(v: Sparse): void {
  for (let q = 0; q < v.count; q++) v.value[v.list[q]!] = 0;
  v.count = 0;
  v.now++;
}
export function addSparse(v: Sparse, k: number, x: number): void {
  if (v.mark[k] !== v.now) {
    v.mark[k] = v.now;
    v.list[v.count++] = k;
  }
  v.value[k] = v.value[k]! + x;
}

/**
 * One column of the inverse (or one row, `transposed`), first part: volts for 1 A pushed in at `a` and drawn at `b`, on
 * the ways from both up the tree only. That is enough to know the resistance between them.
 * @param a position, or −1 for chassis; so `b` @param column cleared and written
 */
export function startColumn(
  p: Pattern,
  to: Fronts,
  from: Fronts,
  path: Path,
  a: number,
  b: number,
  transposed: boolean,
  column: Sparse,
): void {
  const { start, later, parent } = p;
  const { mark, now } = path;
  clearSparse(column);
  const { value } = column;
  if (a >= 0) addSparse(column, a, 1);
  if (b >= 0) addSparse(column, b, -1);
  // up the tree from both ends, in order of elimination, together from where they meet
  for (let i = a, j = b; i >= 0 || j >= 0;) {
    const k = i < 0 ? j : j < 0 ? i : Math.min(i, j);
    if (i === k) i = parent[k]!;
    if (j === k) j = parent[k]!;
    const src = mark[k] === now ? to : from;
    const share = transposed ? src.out : src.in;
    const here = value[k]!;
    addSparse(column, k, 0);
    if (here !== 0) for (let q = start[k]!; q < start[k + 1]!; q++) addSparse(column, later[q]!, share[q]! * here);
  }
  // L(k) lies on the way up from k, so the way back down is complete in itself
  const { list, count } = column;
  if (count > 1) list.subarray(0, count).sort();
  for (let q = count - 1; q >= 0; q--) {
    const k = list[q]!;
    const src = mark[k] === now ? to : from;
    const share = transposed ? src.in : src.out;
    const d = src.pivot[k]!;
    let sum = d > 0 ? value[k]! / d : 0;
    if (d > 0) for (let r = start[k]!; r < start[k + 1]!; r++) sum += share[r]! * value[later[r]!]!;
    value[k] = sum;
  }
}

/** Second part: everywhere else, but for subtrees in whose surroundings no value exceeds `least`. */
export function finishColumn(
  p: Pattern,
  to: Fronts,
  from: Fronts,
  path: Path,
  transposed: boolean,
  column: Sparse,
  least: number,
): void {
  const { start, later, parent, size } = p;
  const { mark: onPath, now: here } = path;
  const { value, moved, mark, now } = column;
  const above = moved.mark;
  const at = ++moved.now;
  const first = column.count;
  for (let q = 0; q < first; q++) {
    const k = column.list[q]!;
    let most = Math.abs(value[k]!);
    for (let r = start[k]!; r < start[k + 1]!; r++) most = Math.max(most, Math.abs(value[later[r]!]!));
    if (most > least) above[k] = at;
  }
  for (let k = p.n - 1; k >= 0;) {
    if (mark[k] === now) {
      k--;
      continue;
    }
    const up = parent[k]!;
    if (up < 0 || above[up] !== at) {
      k -= size[k]!;
      continue;
    }
    const src = onPath[k] === here ? to : from;
    const share = transposed ? src.in : src.out;
    let sum = 0;
    let most = 0;
    for (let r = start[k]!; r < start[k + 1]!; r++) {
      const v = value[later[r]!]!;
      sum += share[r]! * v;
      most = Math.max(most, Math.abs(v));
    }
    value[k] = sum;
    mark[k] = now;
    column.list[column.count++] = k;
    if (most > least) above[k] = at;
    k--;
  }
}
