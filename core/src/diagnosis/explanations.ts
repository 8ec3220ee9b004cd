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
  const kept = ableAlone(predictor, present, absent, prior);
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

interface Able {
  readonly id: string;
  readonly sets: ReadonlySet<number>;
  readonly score: number;
}
/** Of faults that set the same codes the likeliest few stand for all. Judgement. */
const MOST_ALIKE = 3;

/**
 * Faults that set some present codes and none that are absent, at their best severity; those that set most come first.
 * Whether they set absent ones is tried only while they may be among the listed: on a large machine it is most of the
 * work.
 */
function ableAlone(
  predictor: Predictor,
  present: readonly number[],
  absent: readonly number[],
  prior: Float64Array,
): readonly Able[] {
  const n = predictor.monitors.length;
  const nameOf = (sets: ReadonlySet<number>) => [...sets].join(" ");
  const bestOf = (h: number, withAbsent: boolean) => {
    const bits = predictor.roughCodesSet(h, withAbsent ? [...present, ...absent] : present);
    // the severity that sets most of what is set, and least of what is not
    let best: { sets: Set<number>; wrong: number } | undefined;
    for (let s = 0; s < predictor.hypotheses[h]!.samples; s += predictor.draws) {
      const sets = new Set(present.filter((m) => bits[s * n + m] === 1));
      const wrong = withAbsent ? absent.filter((m) => bits[s * n + m] === 1).length : 0;
      if (!best || sets.size - 2 * wrong > best.sets.size - 2 * best.wrong) best = { sets, wrong };
    }
    return best;
  };
  const open = predictor.faults.flatMap((_, i) => {
    const best = predictor.movesAny(i + 1, present) ? bestOf(i + 1, false) : undefined;
    return best && best.sets.size > 0 ? [{ h: i + 1, size: best.sets.size, name: nameOf(best.sets) }] : [];
  });
  open.sort((a, b) => b.size - a.size || prior[b.h]! - prior[a.h]!);
  const able: Able[] = [];
  const alike = new Map<string, number>();
  for (const { h, name } of open) {
    if (able.length === MOST_FAULTS) break;
    if ((alike.get(name) ?? 0) >= MOST_ALIKE) continue;
    const best = bestOf(h, true);
    if (!best || best.sets.size === 0 || best.wrong > 0) continue;
    const own = nameOf(best.sets);
    const others = alike.get(own) ?? 0;
    if (others >= MOST_ALIKE) continue;
    alike.set(own, others + 1);
    able.push({ id: predictor.faults[h - 1]!.id, sets: best.sets, score: prior[h]! });
  }
  return able.sort((a, b) => b.sets.size - a.sets.size || b.score - a.score);
}
