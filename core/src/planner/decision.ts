import { entropyBits } from "../diagnosis/maths.js";
/**
 * The planning problem by itself, without circuits: things that may be so (each with a weight and the group it belongs
 * to), and tests whose answer each of them fixes. Which test next, so that the expected cost until one group is left is
 * least? Exact by dynamic programming where small; greedy, and rollout over greedy, where not.
 */
export interface Decision {
  readonly weights: Float64Array;
  /** group of each thing: things of one group need not be told apart */
  readonly groups: Int32Array;
  /** answer of each thing to each test: outcomes[test][thing] */
  readonly outcomes: readonly Uint16Array[];
  /** cost of a test taken first (`after` −1), or after another */
  cost(test: number, after: number): number;
  /** share one group must hold for the search to be over; 1 for all */
  readonly enough: number;
}

/** Things that are still possible, by index. */
type Left = readonly number[];

const all = (d: Decision): Left => Array.from(d.weights.keys());
const weightOf = (d: Decision, left: Left) => {
  let sum = 0;
  for (const i of left) sum += d.weights[i]!;
  return sum;
};

function isOver(d: Decision, left: Left, total: number): boolean {
  const by = new Map<number, number>();
  for (const i of left) by.set(d.groups[i]!, (by.get(d.groups[i]!) ?? 0) + d.weights[i]!);
  for (const w of by.values()) if (w >= d.enough * total - 1e-12) return true;
  return false;
}

function split(d: Decision, left: Left, test: number): Map<number, number[]> {
  const parts = new Map<number, number[]>();
  const outcome = d.outcomes[test]!;
  for (const i of left) {
    const part = parts.get(outcome[i]!);
    if (part) part.push(i);
    else parts.set(outcome[i]!, [i]);
  }
  return parts;
}

/** Entropy over groups, bits, of a set of things. */
function entropy(d: Decision, left: Left, total: number): number {
  const by = new Map<number, number>();
  for (const i of left) by.set(d.groups[i]!, (by.get(d.groups[i]!) ?? 0) + d.weights[i]!);
  return entropyBits([...by.values()].map((w) => w / total));
}

/**
 * The test with the most information about groups per cost; −1 when none tells anything.
 * @param eager power of the information: above 1 favours tests that tell much, whatever they cost
 */
export function greedy(d: Decision, left: Left = all(d), after = -1, eager = 1): number {
  const total = weightOf(d, left);
  const before = entropy(d, left, total);
  let best = -1;
  let rate = 0;
  for (let t = 0; t < d.outcomes.length; t++) {
    const parts = split(d, left, t);
    if (parts.size < 2) continue;
    let rest = 0;
    for (const part of parts.values()) {
      const w = weightOf(d, part);
      rest += (w / total) * entropy(d, part, w);
    }
    const r = (before - rest) ** eager / d.cost(t, after);
    if (r > rate + 1e-12) {
      rate = r;
      best = t;
    }
  }
  return before > 1e-12 ? best : -1;
}

/** Expected cost until the search is over when a policy chooses every test. */
export function expectedCost(
  d: Decision,
  policy: (left: Left, after: number) => number,
  left: Left = all(d),
  after = -1,
  depth = 0,
): number {
  const total = weightOf(d, left);
  if (left.length < 2 || depth > MOST_DEPTH || isOver(d, left, total)) return 0;
  const t = policy(left, after);
  if (t < 0) return 0;
  let sum = d.cost(t, after);
  for (const part of split(d, left, t).values())
    sum += (weightOf(d, part) / total) * expectedCost(d, policy, part, t, depth + 1);
  return sum;
}
/** A policy that went so deep no longer gets anywhere; ends the recursion. Judgement. */
const MOST_DEPTH = 40;

/**
 * Orders that play a test's outcome to its end, by how much they favour telling tests; so few things are looked ahead
 * for at every step.
 */
const EAGER = [0.7, 1, 1.4, 2] as const;
const FEW = 6;

/** One-step policy improvement: for every test, its cost and what greedy then costs; the best of them. */
export function rollout(
  d: Decision,
  left: Left = all(d),
  after = -1,
  among?: readonly number[],
): { readonly test: number; readonly cost: number } {
  const total = weightOf(d, left);
  // what is left after the test is played by the better of a thrifty and an eager order
  const rest = (part: Left, t: number) =>
    part.length <= FEW && part.length < left.length
      ? expectedCost(d, (l, a) => rollout(d, l, a).test, part, t, 1)
      : Math.min(...EAGER.map((e) => expectedCost(d, (l, a) => greedy(d, l, a, e), part, t, 1)));
  let best = { test: -1, cost: Infinity };
  if (left.length < 2 || isOver(d, left, total)) return { test: -1, cost: 0 };
  for (const t of among ?? d.outcomes.keys()) {
    const parts = split(d, left, t);
    if (parts.size < 2) continue;
    let cost = d.cost(t, after);
    for (const part of parts.values()) {
      if (cost >= best.cost) break;
      cost += (weightOf(d, part) / total) * rest(part, t);
    }
    if (cost < best.cost - 1e-12) best = { test: t, cost };
  }
  return best.test < 0 ? { test: -1, cost: 0 } : best;
}

/**
 * The optimal tree by dynamic programming over subsets (things 24 at most, costs that do not depend on what was done
 * before). @returns expected cost and the first test; −1 where nothing tells the groups apart
 */
export function optimal(d: Decision): { readonly test: number; readonly cost: number } {
  const n = d.weights.length;
  if (n > 24) throw new RangeError(`${n} things are too many for an exact search`);
  const masks = d.outcomes.map((o) => {
    const by = new Map<number, number>();
    o.forEach((x, i) => by.set(x, (by.get(x) ?? 0) | (1 << i)));
    return [...by.values()];
  });
  const known = new Map<number, { test: number; cost: number }>();
  const solve = (mask: number): { test: number; cost: number } => {
    const memo = known.get(mask);
    if (memo) return memo;
    const left: number[] = [];
    for (let i = 0; i < n; i++) if (mask & (1 << i)) left.push(i);
    const total = weightOf(d, left);
    let best = { test: -1, cost: 0 };
    if (left.length > 1 && !isOver(d, left, total)) {
      let least = Infinity;
      for (let t = 0; t < masks.length; t++) {
        const parts = masks[t]!.map((m) => m & mask).filter((m) => m !== 0);
        if (parts.length < 2) continue;
        let cost = d.cost(t, -1);
        for (const part of parts) {
          if (cost >= least) break;
          let w = 0;
          for (let i = 0; i < n; i++) if (part & (1 << i)) w += d.weights[i]!;
          cost += (w / total) * solve(part).cost;
        }
        if (cost < least - 1e-12) {
          least = cost;
          best = { test: t, cost };
        }
      }
    }
    known.set(mask, best);
    return best;
  };
  return solve((1 << n) - 1);
}
