import type { Circuit } from "./element.js";

/**
 * The analysed pattern of a circuit: in which order nodes are eliminated, which later nodes each leans on, and where
 * every element goes. Made once per document; shared, read-only, by every state, draw and fault.
 *
 * Unknowns are numbered by *position* k in the order of elimination, which is a postorder of the elimination tree, so
 * that the subtree below k is the range (k − size[k], k]. n unknowns; L(k) the later nodes of k, c its count;
 * "front" of k: k itself (0) and L(k) (1…c). s = sum of c.
 */
export interface Pattern {
  readonly n: number;
  /** position of each circuit node, −1 for chassis; and the node at each position */
  readonly position: Int32Array;
  readonly node: Int32Array;
  /** L(k) is later[start[k] … start[k + 1]), positions, ascending; the first is the parent in the tree */
  readonly start: Int32Array;
  readonly later: Int32Array;
  /** −1 at a root */
  readonly parent: Int32Array;
  readonly size: Int32Array;
  /**
   * children of k are child[childStart[k] … childStart[k + 1]); those that lean on nothing but k come first, up to
   * simpleEnd[k]
   */
  readonly childStart: Int32Array;
  readonly child: Int32Array;
  readonly simpleEnd: Int32Array;
  /** where each node stands in `child` */
  readonly childAt: Int32Array;
  /** for each entry of L(k): its place in the parent's front; s entries */
  readonly into: Int32Array;
  /** where the c × c update of k begins; n + 1 entries */
  readonly update: Int32Array;
  /** where the (1 + c)² block of k begins; n + 1 entries */
  readonly block: Int32Array;
  /** where the own row of k begins: c weights out, c weights in, leak, current; n + 1 entries */
  readonly own: Int32Array;
  /**
   * what front k is assembled from: own[stampTarget] += weights[stampWeight], entries stampStart[k] … stampStart[k + 1]
   */
  readonly stampStart: Int32Array;
  readonly stampTarget: Int32Array;
  readonly stampWeight: Int32Array;
  /** fronts each element is stamped in: frontsOf[frontStart[e] … frontStart[e + 1]) */
  readonly frontStart: Int32Array;
  readonly frontsOf: Int32Array;
}

/** Numbers kept per element: conductance a→b, b→a, a→low, low→a, current into a, current into b. */
export const NUMBERS_PER_ELEMENT = 6;
const AB = 0;
const BA = 1;
const A_LOW = 2;
const LOW_A = 3;
const INTO_A = 4;
const INTO_B = 5;

/**
 * Symbolic elimination with minimum degree; among equals the one with least below it, which eliminates long runs of
 * wire and contact every other node first and keeps the tree low. Then a postorder, and the bookkeeping above.
 */
export function analysePattern(circuit: Circuit): Pattern {
  const n = circuit.nodes.length - 1;
  const { order, laterOf } = eliminate(circuit, n);
  const first = new Int32Array(n);
  order.forEach((node, k) => (first[node] = k));
  const parentOf = laterOf.map((list) => list.reduce((a, b) => (a < 0 || first[b]! < first[a]! ? b : a), -1));
  const { position, node } = postorder(order, parentOf, n);

  const start = new Int32Array(n + 1);
  const update = new Int32Array(n + 1);
  const block = new Int32Array(n + 1);
  const own = new Int32Array(n + 1);
  const parent = new Int32Array(n).fill(-1);
  const size = new Int32Array(n).fill(1);
  const children: number[][] = Array.from({ length: n }, () => []);
  const lists: Int32Array[] = [];
  for (let k = 0; k < n; k++) {
    const list = Int32Array.from(laterOf[node[k]! - 1]!, (i) => position[i + 1]!).sort();
    const c = list.length;
    lists.push(list);
    start[k + 1] = start[k]! + c;
    update[k + 1] = update[k]! + c * c;
    block[k + 1] = block[k]! + (1 + c) * (1 + c);
    own[k + 1] = own[k]! + 2 * c + 2;
    if (c) {
      parent[k] = list[0]!;
      children[list[0]!]!.push(k);
    }
  }
  const later = new Int32Array(start[n]!);
  const into = new Int32Array(start[n]!);
  lists.forEach((list, k) => later.set(list, start[k]!));
  for (let k = 0; k < n; k++) {
    const p = parent[k]!;
    if (p < 0) continue;
    size[p] = size[p]! + size[k]!;
    lists[k]!.forEach((i, j) => (into[start[k]! + j] = i === p ? 0 : 1 + lists[p]!.indexOf(i)));
  }
  const childStart = new Int32Array(n + 1);
  const simpleEnd = new Int32Array(n);
  const childAt = new Int32Array(n);
  children.forEach((list, k) => {
    childStart[k + 1] = childStart[k]! + list.length;
    list.sort((a, b) => Number(lists[a]!.length > 1) - Number(lists[b]!.length > 1) || a - b);
    simpleEnd[k] = childStart[k]! + list.filter((c) => lists[c]!.length === 1).length;
    list.forEach((c, i) => (childAt[c] = childStart[k]! + i));
  });
  return {
    n,
    position,
    node,
    start,
    later,
    parent,
    size,
    childStart,
    child: Int32Array.from(children.flat()),
    simpleEnd,
    childAt,
    into,
    update,
    block,
    own,
    ...stamps(circuit, n, position, lists, own),
  };
}

function eliminate(circuit: Circuit, n: number) {
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
  const order = new Int32Array(n);
  const laterOf: number[][] = Array.from({ length: n }, () => []);
  const buckets = new DegreeBuckets(adjacent.map((s) => s.size));
  for (let k = 0; k < n; k++) {
    const pivot = buckets.takeSmallest();
    order[k] = pivot;
    const around = [...adjacent[pivot]!].sort((x, y) => x - y);
    laterOf[pivot] = around;
    for (const i of around) {
      const list = adjacent[i]!;
      list.delete(pivot);
      for (const j of around) if (j !== i) list.add(j);
      buckets.update(i, list.size, buckets.heightOf(pivot));
    }
    adjacent[pivot]!.clear();
  }
  return { order, laterOf };
}

/** Children before parents, each subtree in one run. Position of every circuit node, and node of every position. */
function postorder(order: Int32Array, parentOf: readonly number[], n: number) {
  const children: number[][] = Array.from({ length: n }, () => []);
  for (const i of order) {
    const p = parentOf[i]!;
    if (p >= 0) children[p]!.push(i);
  }
  const position = new Int32Array(n + 1).fill(-1);
  const node = new Int32Array(n);
  let next = 0;
  for (const root of order) {
    if (parentOf[root]! >= 0) continue;
    const stack: [number, number][] = [[root, 0]];
    while (stack.length) {
      const top = stack[stack.length - 1]!;
      const child = children[top[0]]![top[1]++];
      if (child !== undefined) {
        stack.push([child, 0]);
        continue;
      }
      position[top[0] + 1] = next;
      node[next++] = top[0] + 1;
      stack.pop();
    }
  }
  return { position, node };
}

function stamps(circuit: Circuit, n: number, position: Int32Array, lists: readonly Int32Array[], own: Int32Array) {
  const perFront: [number, number][][] = Array.from({ length: n }, () => []);
  const perElement: Set<number>[] = circuit.elements.map(() => new Set());
  const put = (element: number, front: number, slot: number, weight: number) => {
    perFront[front]!.push([own[front]! + slot, element * NUMBERS_PER_ELEMENT + weight]);
    perElement[element]!.add(front);
  };
  /** row `from` leans on `to`: out of the earlier one's front, or into it, or a leak where `to` is chassis */
  const lean = (e: number, from: number, to: number, weight: number) => {
    const row = position[from]!;
    const column = position[to]!;
    if (row < 0) return;
    if (column < 0) put(e, row, 2 * lists[row]!.length, weight);
    else if (row < column) put(e, row, lists[row]!.indexOf(column), weight);
    else put(e, column, lists[column]!.length + lists[column]!.indexOf(row), weight);
  };
  circuit.elements.forEach((e, i) => {
    if (e.a !== e.b) {
      lean(i, e.a, e.b, AB);
      lean(i, e.b, e.a, BA);
      if (e.a) put(i, position[e.a]!, 2 * lists[position[e.a]!]!.length + 1, INTO_A);
      if (e.b) put(i, position[e.b]!, 2 * lists[position[e.b]!]!.length + 1, INTO_B);
    }
    if (e.type === "follower" && e.a !== e.low) {
      lean(i, e.a, e.low, A_LOW);
      lean(i, e.low, e.a, LOW_A);
    }
  });
  const stampStart = new Int32Array(n + 1);
  const frontStart = new Int32Array(circuit.elements.length + 1);
  perFront.forEach((list, k) => (stampStart[k + 1] = stampStart[k]! + list.length));
  perElement.forEach((set, e) => (frontStart[e + 1] = frontStart[e]! + set.size));
  const flat = perFront.flat();
  return {
    stampStart,
    stampTarget: Int32Array.from(flat, ([t]) => t),
    stampWeight: Int32Array.from(flat, ([, w]) => w),
    frontStart,
    frontsOf: Int32Array.from(perElement.flatMap((set) => [...set])),
  };
}

/**
 * Smallest degree first, among those the one with the lowest subtree below it: one set of nodes per degree and height.
 */
class DegreeBuckets {
  private readonly buckets: Set<number>[][] = [];
  private readonly height: Int32Array;
  private lowest = 0;
  constructor(private readonly degree: number[]) {
    this.height = new Int32Array(degree.length);
    degree.forEach((d, node) => this.bucket(d, 0).add(node));
  }
  private bucket(d: number, height: number): Set<number> {
    return ((this.buckets[d] ??= [])[height] ??= new Set());
  }
  takeSmallest(): number {
    for (; ; this.lowest++) {
      for (const bucket of this.buckets[this.lowest] ?? []) {
        if (!bucket?.size) continue;
        const node = bucket.values().next().value!;
        bucket.delete(node);
        return node;
      }
    }
  }
  /** a neighbour of the node just eliminated, whose subtree was `below` high */
  update(node: number, d: number, below: number) {
    this.bucket(this.degree[node]!, this.height[node]!).delete(node);
    this.degree[node] = d;
    this.height[node] = Math.max(this.height[node]!, below + 1);
    this.bucket(d, this.height[node]!).add(node);
    if (d < this.lowest) this.lowest = d;
  }
  heightOf(node: number): number {
    return this.height[node]!;
  }
}
