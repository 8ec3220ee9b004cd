import type { Circuit } from "./element.js";

/**
 * The analysed pattern of a circuit: elimination order and where every off-diagonal lives. Made once per document;
 * shared, read-only, by every factorisation.
 *
 * Sizes: n = nodes without chassis; unknown i is node i + 1. s = stored pairs of the filled upper triangle.
 * Off-diagonals live in one array of 2·s: slot p holds row(earlier)→later, slot s + p holds row(later)→earlier.
 */
export interface Pattern {
  readonly n: number;
  readonly slots: number;
  /** order[k] is the unknown eliminated k-th; n entries */
  readonly order: Int32Array;
  /** first slot of pivot k; n + 1 entries */
  readonly start: Int32Array;
  /** the unknown (not position) of each slot's later node; s entries */
  readonly later: Int32Array;
  /** for pivot k and its later nodes i ≠ j: where (i → j) lives in the off-diagonal array; walk order is k, i, j */
  readonly target: Int32Array;
  /** position of (row → column) in the off-diagonal array, or −1 when it is not in the pattern */
  slotOf(row: number, column: number): number;
}

/**
 * Symbolic elimination with minimum degree (ties by lowest number, so the order is repeatable).
 * @param pairs extra pairs of nodes that a fault may join, so that no fault changes the pattern
 */
export function analyse(circuit: Circuit, pairs: readonly (readonly [number, number])[] = []): Pattern {
  const n = circuit.nodes.length - 1;
  const adjacent: Set<number>[] = Array.from({ length: n }, () => new Set());
  const join = (a: number, b: number) => {
    if (a === 0 || b === 0 || a === b) return;
    adjacent[a - 1]!.add(b - 1);
    adjacent[b - 1]!.add(a - 1);
  };
  for (const e of circuit.elements) {
    join(e.a, e.b);
    if (e.type === "follower") join(e.a, e.low);
  }
  for (const [a, b] of pairs) join(a, b);

  const order = new Int32Array(n);
  const laterLists: Int32Array[] = [];
  const buckets = new DegreeBuckets(adjacent.map((s) => s.size));
  for (let k = 0; k < n; k++) {
    const pivot = buckets.takeSmallest();
    order[k] = pivot;
    const around = [...adjacent[pivot]!].sort((x, y) => x - y);
    laterLists.push(Int32Array.from(around));
    for (const i of around) {
      const list = adjacent[i]!;
      list.delete(pivot);
      for (const j of around) if (j !== i) list.add(j);
      buckets.update(i, list.size);
    }
    adjacent[pivot]!.clear();
  }
  return layOut(n, order, laterLists);
}

function layOut(n: number, order: Int32Array, laterLists: readonly Int32Array[]): Pattern {
  const start = new Int32Array(n + 1);
  laterLists.forEach((list, k) => (start[k + 1] = start[k]! + list.length));
  const slots = start[n]!;
  const later = new Int32Array(slots);
  laterLists.forEach((list, k) => later.set(list, start[k]!));
  const position = new Int32Array(n);
  order.forEach((unknown, k) => (position[unknown] = k));
  const where = new Map<number, number>();
  for (let k = 0; k < n; k++) {
    for (let p = start[k]!; p < start[k + 1]!; p++) {
      where.set(order[k]! * n + later[p]!, p);
      where.set(later[p]! * n + order[k]!, slots + p);
    }
  }
  const slotOf = (row: number, column: number) => where.get(row * n + column) ?? -1;
  const target: number[] = [];
  for (const list of laterLists) for (const i of list) for (const j of list) if (i !== j) target.push(slotOf(i, j));
  return { n, slots, order, start, later, target: Int32Array.from(target), slotOf };
}

/** Smallest degree first, in linear time: one set of nodes per degree. */
class DegreeBuckets {
  private readonly buckets: Set<number>[] = [];
  private lowest = 0;
  constructor(private readonly degree: number[]) {
    degree.forEach((d, node) => this.bucket(d).add(node));
  }
  private bucket(d: number): Set<number> {
    return (this.buckets[d] ??= new Set());
  }
  takeSmallest(): number {
    while (!this.buckets[this.lowest]?.size) this.lowest++;
    const bucket = this.buckets[this.lowest]!;
    const node = bucket.values().next().value!;
    bucket.delete(node);
    return node;
  }
  update(node: number, d: number) {
    this.bucket(this.degree[node]!).delete(node);
    this.degree[node] = d;
    this.bucket(d).add(node);
    if (d < this.lowest) this.lowest = d;
  }
}
