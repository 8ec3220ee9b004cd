import type { Pattern } from "./pattern.js";

/**
 * The numbers of one factorisation, front by front (see Pattern for k, c, s). Owned by the caller and used again;
 * nothing is allocated inside the loops. The diagonal is never stored: a row is its positive weights and its leak to
 * chassis, and the diagonal is their sum.
 */
export interface Fronts {
  /** as assembled: weights out (siemens), weights in (siemens), leak (siemens), current (ampere) */
  readonly own: Float64Array;
  /** share of each later node in k's voltage; s */
  readonly out: Float64Array;
  /** share of k's current passed on to each later node; s */
  readonly in: Float64Array;
  /** pivots, siemens; n. 0 marks a node with no way to chassis */
  readonly pivot: Float64Array;
  /** leak of the row when it was eliminated, siemens; n */
  readonly excess: Float64Array;
  /** current of the row over its pivot, volt; n */
  readonly rhs: Float64Array;
  /** what each front passes up: c × c weights, c leaks, c currents */
  readonly up: Float64Array;
  readonly upExcess: Float64Array;
  readonly upRhs: Float64Array;
  /**
   * by place in `Pattern.child`: leak and current that the simple children before it, and from it on, pass up; healthy
   * only
   */
  readonly before: Float64Array;
  readonly beforeRhs: Float64Array;
  readonly from: Float64Array;
  readonly fromRhs: Float64Array;
  /** volts by position, relative to 0 where the node floats; n */
  readonly x: Float64Array;
  /** 1 where a node has a way to chassis; n */
  readonly grounded: Uint8Array;
  /** the inverse on each front, ohm; (1 + c)² per front */
  readonly block: Float64Array;
}

export function createFronts(p: Pattern): Fronts {
  const { n } = p;
  const s = p.start[n]!;
  const floats = (size: number) => new Float64Array(size);
  return {
    own: floats(p.own[n]!),
    out: floats(s),
    in: floats(s),
    pivot: floats(n),
    excess: floats(n),
    rhs: floats(n),
    up: floats(p.update[n]!),
    upExcess: floats(s),
    upRhs: floats(s),
    before: floats(n + 1),
    beforeRhs: floats(n + 1),
    from: floats(n + 1),
    fromRhs: floats(n + 1),
    x: floats(n),
    grounded: new Uint8Array(n),
    block: floats(p.block[n]!),
  };
}

/**
 * Which fronts differ from the healthy factorisation: `mark[k] === now` on the path, `dirty[k] === now` where the own
 * row changed too.
 */
export interface Path {
  /** positions, ascending */
  readonly list: Int32Array;
  count: number;
  readonly mark: Int32Array;
  readonly dirty: Int32Array;
  /** children of k on the path: how many, and the last of them; valid where k is on it */
  readonly kids: Int32Array;
  readonly kid: Int32Array;
  now: number;
  /** redo[k] === round where the front, or one below it, changed since it was last eliminated */
  readonly redo: Int32Array;
  round: number;
}

export const createPath = (n: number): Path => ({
  list: new Int32Array(n),
  count: 0,
  mark: new Int32Array(n).fill(-1),
  dirty: new Int32Array(n).fill(-1),
  kids: new Int32Array(n),
  kid: new Int32Array(n),
  now: 0,
  redo: new Int32Array(n).fill(-1),
  round: 0,
});

/** Adds a front and everything above it in the tree to the path, to be eliminated in the next round. */
export function addToPath(p: Pattern, path: Path, front: number): void {
  const { mark, list, now, kids, kid, redo, round } = path;
  const { parent } = p;
  path.dirty[front] = now;
  for (let k = front, below = -1; k >= 0; k = parent[k]!) {
    const known = mark[k] === now;
    if (!known) {
      mark[k] = now;
      list[path.count++] = k;
      kids[k] = 0;
    }
    if (below >= 0) {
      kids[k] = kids[k]! + 1;
      kid[k] = below;
    }
    if (known && redo[k] === round) return;
    redo[k] = round;
    below = known ? -1 : k; // a known one has been counted by its parent already
  }
}

/** Puts the path in order of elimination. Runs from several fronts are each in order already. */
export function sortPath(path: Path): void {
  const { list, count } = path;
  if (count > 200) {
    list.subarray(0, count).sort();
    return;
  }
  for (let i = 1; i < count; i++) {
    const k = list[i]!;
    let j = i - 1;
    for (; j >= 0 && list[j]! > k; j--) list[j + 1] = list[j]!;
    list[j + 1] = k;
  }
}

/**
 * Eliminates the fronts of a path by adding positive numbers only, so no digit is lost where milliohms stand beside
 * 10 MΩ (the idea of Grassmann, Taksar & Heyman, "Regenerative analysis and steady state distributions for Markov
 * chains", Operations Research 33, 1985). Every row of a nodal network with Norton sources is diagonally dominant with
 * non-positive off-diagonals, which is all this needs; symmetry is not required. What each front passes up to its
 * parent is kept (the multifrontal method; Duff & Reid 1983), so a fault eliminates only the path above the rows it
 * touches, and takes the rest as it is: nothing is ever subtracted.
 *
 * An island without a way to chassis ends in a pivot of exactly 0 (sums of zeros, never a difference). That node is
 * then taken as 0 V, so the rest of its island is solved relative to it.
 *
 * @param to where results go; @param from the healthy factorisation, read where a front is not on the path
 */
// eslint-disable-next-line max-lines-per-function -- one cited algorithm, kept in one piece
export function eliminate(p: Pattern, to: Fronts, from: Fronts, path: Path): void {
  const { start, into, child, childStart, simpleEnd, childAt, own: ownAt, update } = p;
  const { mark, dirty, now, list, count, kids, kid, redo, round } = path;
  const { out: fOut, in: fIn, pivot, excess: fLeak, rhs: fPush, up, upExcess, upRhs } = to;
  for (let at = 0; at < count; at++) {
    const k = list[at]!;
    if (redo[k] !== round) continue; // stands from the round before
    const s = start[k]!;
    const c = start[k + 1]! - s;
    const u = update[k]!;
    const own = dirty[k] === now ? to.own : from.own;
    let o = ownAt[k]!;
    for (let i = 0; i < c; i++) {
      fOut[s + i] = own[o + i]!;
      fIn[s + i] = own[o + c + i]!;
      upExcess[s + i] = 0;
      upRhs[s + i] = 0;
    }
    o += 2 * c;
    let leak = own[o]!;
    let push = own[o + 1]!;
    for (let i = u, end = u + c * c; i < end; i++) up[i] = 0;
    let q = childStart[k]!;
    const simple = simpleEnd[k]!;
    if (simple - q > FEW && kids[k]! <= 1 && from !== to) {
      // a hub: only one of its many children changed at most, and the rest is known summed up before and after it
      const at = kids[k] === 1 ? childAt[kid[k]!]! : simple;
      if (at >= simple) {
        leak += from.from[q]!;
        push += from.fromRhs[q]!;
      } else {
        const cs = start[kid[k]!]!;
        leak += from.before[at]! + upExcess[cs]!;
        push += from.beforeRhs[at]! + upRhs[cs]!;
        if (at + 1 < simple) {
          leak += from.from[at + 1]!;
          push += from.fromRhs[at + 1]!;
        }
      }
      q = simple;
    }
    for (const last = childStart[k + 1]!; q < last; q++) {
      const ch = child[q]!;
      const src = mark[ch] === now ? to : from;
      const cs = start[ch]!;
      const cc = start[ch + 1]! - cs;
      const cLeak = src.upExcess;
      const cPush = src.upRhs;
      if (cc === 1) {
        leak += cLeak[cs]!;
        push += cPush[cs]!;
        continue;
      }
      const cUp = src.up;
      let cu = update[ch]!;
      // the first of L(child) is k itself
      leak += cLeak[cs]!;
      push += cPush[cs]!;
      if (cc === 2) {
        // by far the most: a length of conductor
        const w = s + into[cs + 1]! - 1;
        fOut[w] = fOut[w]! + cUp[cu + 1]!;
        fIn[w] = fIn[w]! + cUp[cu + 2]!;
        upExcess[w] = upExcess[w]! + cLeak[cs + 1]!;
        upRhs[w] = upRhs[w]! + cPush[cs + 1]!;
        continue;
      }
      for (let j = 1; j < cc; j++) {
        const w = s + into[cs + j]! - 1;
        fOut[w] = fOut[w]! + cUp[cu + j]!;
      }
      for (let i = 1; i < cc; i++) {
        cu += cc;
        const mi = into[cs + i]! - 1;
        const row = s + mi;
        const base = u + mi * c - 1;
        upExcess[row] = upExcess[row]! + cLeak[cs + i]!;
        upRhs[row] = upRhs[row]! + cPush[cs + i]!;
        fIn[row] = fIn[row]! + cUp[cu]!;
        for (let j = 1; j < cc; j++)
          if (j !== i) {
            const w = base + into[cs + j]!;
            up[w] = up[w]! + cUp[cu + j]!;
          }
      }
    }
    let d = leak;
    for (let i = s; i < s + c; i++) d += fOut[i]!;
    pivot[k] = d;
    fLeak[k] = leak;
    if (!(d > 0)) {
      fPush[k] = 0;
      for (let i = s; i < s + c; i++) fIn[i] = 0;
      continue;
    }
    fPush[k] = push / d;
    if (c === 2) {
      const h = fIn[s]! / d;
      const g = fIn[s + 1]! / d;
      const x = fOut[s]!;
      const y = fOut[s + 1]!;
      fIn[s] = h;
      fIn[s + 1] = g;
      upExcess[s] = upExcess[s]! + h * leak;
      upExcess[s + 1] = upExcess[s + 1]! + g * leak;
      upRhs[s] = upRhs[s]! + h * push;
      upRhs[s + 1] = upRhs[s + 1]! + g * push;
      up[u + 1] = up[u + 1]! + h * y;
      up[u + 2] = up[u + 2]! + g * x;
      fOut[s] = x / d;
      fOut[s + 1] = y / d;
      continue;
    }
    for (let i = 0; i < c; i++) {
      const h = fIn[s + i]! / d;
      fIn[s + i] = h;
      if (h === 0) continue;
      upExcess[s + i] = upExcess[s + i]! + h * leak;
      upRhs[s + i] = upRhs[s + i]! + h * push;
      for (let j = 0, w = u + i * c; j < c; j++, w++) if (j !== i) up[w] = up[w]! + h * fOut[s + j]!;
    }
    for (let i = s; i < s + c; i++) fOut[i] = fOut[i]! / d;
  }
}

/** Children up to which summing them all is quicker. */
const FEW = 3;

/**
 * Sums up, before and after each, what the simple children of every node pass up; after eliminating the healthy
 * circuit.
 */
export function sumChildren(p: Pattern, f: Fronts): void {
  for (let k = 0; k < p.n; k++) {
    const first = p.childStart[k]!;
    const end = p.simpleEnd[k]!;
    for (let q = first, leak = 0, push = 0; q < end; q++) {
      f.before[q] = leak;
      f.beforeRhs[q] = push;
      const s = p.start[p.child[q]!]!;
      leak += f.upExcess[s]!;
      push += f.upRhs[s]!;
    }
    for (let q = end - 1, leak = 0, push = 0; q >= first; q--) {
      const s = p.start[p.child[q]!]!;
      f.from[q] = leak += f.upExcess[s]!;
      f.fromRhs[q] = push += f.upRhs[s]!;
    }
  }
}

/** What a pass down the tree leaves: which positions differ from the healthy machine. */
export interface ChangedRows {
  /** positions whose value was written, descending; first `count` count */
  readonly list: Int32Array;
  count: number;
  /** mark[k] === now where a node of front k differs by more than the tolerance */
  readonly mark: Int32Array;
  /** self[k] === now where k itself does */
  readonly self: Int32Array;
  now: number;
}
export const createChangedRows = (n: number): ChangedRows => ({
  list: new Int32Array(n),
  count: 0,
  mark: new Int32Array(n).fill(-1),
  self: new Int32Array(n).fill(-1),
  now: 0,
});

/**
 * Solves down the tree for the voltages, leaving out every subtree whose surroundings differ from the healthy machine
 * by no more than `tolerance`, volt. An unchanged subtree is an average of its surroundings and chassis, so nothing
 * inside can then differ by more either (the maximum principle of such matrices); 0 leaves out only what is identical.
 * @param to its `x` and `hold` must hold the healthy values on entry; written where visited
 */
export function descend(p: Pattern, to: Fronts, from: Fronts, path: Path, moved: ChangedRows, tolerance: number): void {
  const { start, later, parent, size } = p;
  const { x, grounded } = to;
  const was = from.x;
  const held = from.grounded;
  const { mark: onPath, now: here } = path;
  const { mark, self, list, now } = moved;
  let count = 0;
  let loose = false;
  for (let k = p.n - 1; k >= 0;) {
    const up = parent[k]!;
    const changed = onPath[k] === here;
    if (!changed && (up < 0 || mark[up] !== now)) {
      k -= size[k]!;
      continue;
    }
    const src = changed ? to : from;
    const s = start[k]!;
    const end = start[k + 1]!;
    const out = src.out;
    let sum = src.rhs[k]!;
    let around = false;
    for (let q = s; q < end; q++) {
      const i = later[q]!;
      sum += out[q]! * x[i]!;
      if (self[i] === now) around = true;
    }
    let rests = held[k]!;
    if (changed || loose) {
      // only then can a node have gained or lost its way to chassis
      rests = src.excess[k]! > 0 ? 1 : 0;
      for (let q = s; rests === 0 && q < end; q++) if (out[q]! > 0 && grounded[later[q]!] === 1) rests = 1;
      if (!(src.pivot[k]! > 0)) sum = 0;
      if (rests !== held[k]) loose = true;
    }
    const was0 = was[k]!;
    const own = sum - was0 > tolerance || was0 - sum > tolerance || rests !== held[k];
    x[k] = sum;
    grounded[k] = rests;
    list[count++] = k;
    if (own) self[k] = now;
    if (own || around) mark[k] = now;
    k--;
  }
  moved.count = count;
}

/**
 * The inverse on every front, from the root down: its diagonal is the resistance to chassis at each node, at about
 * the cost of a factorisation, since only entries on the filled pattern are ever needed (Takahashi, Fagan & Chen,
 * "Formation of a sparse bus impedance matrix", 1973). Only positive numbers are added. Subtrees are left out as in
 * `descend`; a node's resistance, too, is an average of its surroundings' plus a part of its own.
 * @param tolerance ohm
 */
export function descendOhms(
  p: Pattern,
  to: Fronts,
  from: Fronts,
  path: Path,
  moved: ChangedRows,
  tolerance: number,
): void {
  const { start, parent, size, into, block: blockAt } = p;
  const { mark: onPath, now: here } = path;
  const { mark, list, now } = moved;
  const block = to.block;
  const was = from.block;
  let count = 0;
  for (let k = p.n - 1; k >= 0;) {
    const up = parent[k]!;
    const changed = onPath[k] === here;
    if (!changed && (up < 0 || mark[up] !== now)) {
      k -= size[k]!;
      continue;
    }
    const src = changed ? to : from;
    const s = start[k]!;
    const c = start[k + 1]! - s;
    const w = c + 1;
    const b = blockAt[k]!;
    const { out, in: fIn } = src;
    const d = src.pivot[k]!;
    if (c > 0) {
      const above = mark[up] === now ? block : was;
      const a = blockAt[up]!;
      const aw = start[up + 1]! - start[up]! + 1;
      for (let i = 0; i < c; i++) {
        const row = a + into[s + i]! * aw;
        const to2 = b + (i + 1) * w + 1;
        for (let j = 0; j < c; j++) block[to2 + j] = above[row + into[s + j]!]!;
      }
      for (let j = 0; j < c; j++) {
        let across = 0;
        let down = 0;
        for (let i = 0; i < c; i++) {
          across += out[s + i]! * block[b + (i + 1) * w + j + 1]!;
          down += block[b + (j + 1) * w + i + 1]! * fIn[s + i]!;
        }
        block[b + j + 1] = across;
        block[b + (j + 1) * w] = down;
      }
    }
    let sum = d > 0 ? 1 / d : 0;
    for (let i = 0; i < c; i++) sum += out[s + i]! * block[b + (i + 1) * w]!;
    block[b] = sum;
    list[count++] = k;
    for (let i = b, end = b + w * w; i < end; i++)
      if (Math.abs(block[i]! - was[i]!) > tolerance) {
        mark[k] = now;
        break;
      }
    k--;
  }
  moved.count = count;
}
