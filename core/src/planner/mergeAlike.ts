import type { Grouped } from "../diagnosis/groups.js";
import type { JointDistribution } from "./jointDistribution.js";

/**
 * Suspects with less than this share are not compared with others, and how many are at most. Judgement: keeps the
 * comparison of all pairs cheap.
 */
const COMPARE_ABOVE = 0.004;
const COMPARE_MOST = 28;
/**
 * Two suspects whose answers to every test on offer are this much alike are one suspect (total variation distance).
 * Judgement.
 */
const ALIKE = 0.3;

/** Suspects that no test on offer can tell apart are one suspect: key → key that stands for it. */
export function mergeAlike(
  raw: Grouped,
  weighed: readonly { readonly joints: readonly JointDistribution[]; readonly bits: number }[],
): ReadonlyMap<string, string> {
  const close = raw.suspects
    .map((s, i) => ({ s, i }))
    .filter(({ s, i }) => raw.keys[i] !== "" && s.share >= COMPARE_ABOVE)
    .slice(0, COMPARE_MOST);
  let pairs: (readonly [number, number])[] = [];
  for (let i = 0; i < close.length; i++)
    for (let j = i + 1; j < close.length; j++) pairs.push([close[i]!.i, close[j]!.i]);
  // the order changes nothing but the time: what tells much leaves few pairs for the others
  for (const { joints } of [...weighed].sort((a, b) => b.bits - a.bits)) {
    if (pairs.length === 0) break;
    for (const j of joints) if (!j.isLive) pairs = pairs.filter(([a, b]) => j.apart(a, b) < ALIKE);
  }
  const merged = new Map<string, string>();
  const stands = (k: string): string => {
    let r = k;
    while (merged.has(r)) r = merged.get(r)!;
    return r;
  };
  for (const [a, b] of pairs) {
    const x = stands(raw.keys[a]!);
    const y = stands(raw.keys[b]!);
    if (x !== y) merged.set(y, x);
  }
  return new Map([...merged.keys()].map((k) => [k, stands(k)]));
}
export function renumber(raw: Grouped, grouped: Grouped, merged: ReadonlyMap<string, string>): Int32Array {
  const byId = new Map(grouped.keys.map((k, i) => [k || grouped.suspects[i]!.id, i]));
  return Int32Array.from(raw.suspects, (s, i) => {
    const key = raw.keys[i]!;
    return byId.get(key === "" ? s.id : (merged.get(key) ?? key))!;
  });
}
