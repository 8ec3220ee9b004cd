import type { Predictor } from "../prediction/predictor.js";
import { logPriors } from "./codeWeights.js";
import type { Evidence } from "./evidence.js";
import { minimalHittingSets } from "./hitting.js";

/** Likeliest faults combined, the most in one explanation, explanations listed. Judgement: time and screen. */
const MOST_FAULTS = 40;
const MOST_SIZE = 3;
const LISTED = 8;

/** The explanations last asked for: they stay while the codes do. */
const latest = new WeakMap<Predictor, { readonly key: string; readonly value: string[][] }>();

/**
 * The fewest faults that together would set every present code: minimal hitting sets over "what could set this code".
 * From predictions of codes alone, before any reading counts.
 * @returns fault ids, the smallest and likeliest sets first
 */
export function minimalExplanations(
  predictor: Predictor,
  evidence: readonly Evidence[],
  factors: Float64Array,
): string[][] {
  const present = evidence.flatMap((e) => (e.kind === "code" && e.present ? [e.monitor] : []));
  if (present.length === 0) return [];
  const absent = evidence.flatMap((e) => (e.kind === "code" && !e.present ? [e.monitor] : []));
  const key = `${present.join(",")} ${absent.join(",")}`;
  const known = latest.get(predictor);
  if (known?.key === key) return known.value;
  const prior = logPriors(predictor, factors);
  const n = predictor.monitors.length;
  const able: { id: string; sets: Set<number>; score: number }[] = [];
  for (let h = 1; h <= predictor.faults.length; h++) {
    if (!predictor.movesAny(h, present)) continue;
    const bits = predictor.roughCodesSet(h, [...present, ...absent]);
    const { samples } = predictor.hypotheses[h]!;
    // the severity that sets most of what is set, and least of what is not
    let best: { sets: Set<number>; wrong: number } | undefined;
    for (let s = 0; s < samples; s += predictor.draws) {
      const sets = new Set(present.filter((m) => bits[s * n + m] === 1));
      const wrong = absent.filter((m) => bits[s * n + m] === 1).length;
      if (!best || sets.size - 2 * wrong > best.sets.size - 2 * best.wrong) best = { sets, wrong };
    }
    if (best && best.sets.size > 0 && best.wrong === 0)
      able.push({ id: predictor.faults[h - 1]!.id, sets: best.sets, score: prior[h]! });
  }
  // of faults that explain the same codes the likeliest few stand for all
  able.sort((a, b) => b.sets.size - a.sets.size || b.score - a.score);
  const kept = able
    .filter(
      (a, i) =>
        able.slice(0, i).filter((b) => b.sets.size === a.sets.size && [...a.sets].every((m) => b.sets.has(m))).length <
        3,
    )
    .slice(0, MOST_FAULTS);
  const coverable = present.filter((m) => kept.some((a) => a.sets.has(m)));
  const score = new Map(kept.map((a) => [a.id, a.score]));
  const value = minimalHittingSets(
    coverable.map((m) => kept.filter((a) => a.sets.has(m)).map((a) => a.id)),
    MOST_SIZE,
    400,
  )
    .sort(
      (a, b) =>
        a.length - b.length || b.reduce((t, x) => t + score.get(x)!, 0) - a.reduce((t, x) => t + score.get(x)!, 0),
    )
    .slice(0, LISTED);
  latest.set(predictor, { key, value });
  return value;
}
