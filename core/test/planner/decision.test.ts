import { expectedCost, greedy, optimal, rollout, type Decision } from "../../src/index.js";
import { random } from "../helpers.js";

/** Random things and tests; costs are minutes that differ as reach does. */
function instance(seed: number, things = 12 + (seed % 5), answers = 3): Decision {
  const r = random(seed);
  const raw = Float64Array.from({ length: things }, () => 0.05 + r() ** 2);
  const sum = raw.reduce((a, b) => a + b, 0);
  const tests = 14 + Math.floor(r() * 10);
  const minutes = Array.from({ length: tests }, () => 0.4 + 5 * r() ** 2);
  return {
    weights: raw.map((w) => w / sum),
    groups: Int32Array.from({ length: things }, (_, i) => i),
    enough: 1,
    outcomes: Array.from({ length: tests }, () =>
      Uint16Array.from({ length: things }, () => Math.floor(r() * (r() < 0.5 ? 2 : answers))),
    ),
    cost: (t) => minutes[t]!,
  };
}
const withRollout = (d: Decision) => expectedCost(d, (left, after) => rollout(d, left, after).test);

describe("optimal test sequences", () => {
  test("dynamic programming against every tree there is, on five things", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const d = instance(seed, 5);
      const best = (left: readonly number[]): number => {
        const total = left.reduce((s, i) => s + d.weights[i]!, 0);
        if (left.length < 2) return 0;
        let least = Infinity;
        d.outcomes.forEach((o, t) => {
          const parts = new Map<number, number[]>();
          left.forEach((i) => parts.set(o[i]!, [...(parts.get(o[i]!) ?? []), i]));
          if (parts.size < 2) return;
          let cost = d.cost(t, -1);
          for (const part of parts.values()) cost += (part.reduce((s, i) => s + d.weights[i]!, 0) / total) * best(part);
          least = Math.min(least, cost);
        });
        return least === Infinity ? 0 : least;
      };
      expect(optimal(d).cost).toBeCloseTo(best([0, 1, 2, 3, 4]), 9);
    }
  });
  test(
    "with every yes/no question at one minute the optimum is Huffman's code, and no less than the entropy " +
      "(Huffman 1952)",
    () => {
      for (let seed = 1; seed <= 12; seed++) {
        const base = instance(seed, 7);
        const n = 7;
        const outcomes = Array.from({ length: (1 << (n - 1)) - 1 }, (_, m) =>
          Uint16Array.from({ length: n }, (_x, i) => ((m + 1) >> i) & 1),
        );
        const d: Decision = { ...base, outcomes, cost: () => 1 };
        const heap = [...d.weights];
        let huffman = 0;
        while (heap.length > 1) {
          heap.sort((a, b) => a - b);
          const w = heap.shift()! + heap.shift()!;
          huffman += w;
          heap.push(w);
        }
        const entropy = d.weights.reduce((h, w) => h - w * Math.log2(w), 0);
        expect(optimal(d).cost).toBeCloseTo(huffman, 9);
        expect(huffman).toBeGreaterThanOrEqual(entropy - 1e-9);
      }
    },
  );
  test(
    "300 instances of 12 to 16 suspects: rollout over greedy within 1 % of the optimum on average, 10 % at " + "worst",
    () => {
      const ratios = Array.from({ length: 300 }, (_, i) => {
        const d = instance(1000 + i);
        return withRollout(d) / optimal(d).cost;
      });
      const greedily = Array.from({ length: 60 }, (_, i) => {
        const d = instance(1000 + i);
        return expectedCost(d, (l, a) => greedy(d, l, a)) / optimal(d).cost;
      });
      const mean = (x: readonly number[]) => x.reduce((a, b) => a + b, 0) / x.length;
      expect(mean(ratios)).toBeLessThanOrEqual(1.01);
      expect(Math.max(...ratios)).toBeLessThanOrEqual(1.1);
      expect(mean(greedily)).toBeGreaterThan(mean(ratios)); // the look-ahead earns its place
      for (const r of ratios) expect(r).toBeGreaterThan(1 - 1e-9);
    },
    300_000,
  );
  test("too many things for an exact search is said, not tried", () =>
    expect(() => optimal(instance(1, 25))).toThrow(RangeError));
});
