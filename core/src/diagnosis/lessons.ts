import { DEFAULTS } from "../defaults.js";
import type { Fault } from "../faults/fault.js";
import type { LearnedEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { Feed } from "./circumstances.js";
import { RepairedPlaces } from "./cures.js";

type Cause = LearnedEntry["causes"][number];
interface LessonRates {
  /** one factor per fault, in the order of the faults; their mean over the generic rates is 1 */
  readonly factors: Float64Array;
  readonly feeds: readonly Feed[];
}
/** The latest lessons of each list of faults: a logbook is weighed again with every entry, its lessons stay. */
const latest = new WeakMap<readonly Fault[], { readonly key: string; readonly value: LessonRates }>();

/**
 * What lessons of earlier jobs do to the rates of faults. Each lesson is one draw from the causes of this type of
 * machine; the shares of the kinds of fault, and within a kind the shares of its places, are learned by counting, with
 * a prior that shrinks them to the generic rates (two Dirichlet distributions, one within the other; Gelman et al.,
 * Bayesian Data Analysis, 3.4). Since notebooks lie, a stated share of the generic rates is always kept.
 * @param faults with their generic rates, which count as far as the engine trusts them
 */
export function lessonFactors(
  wiring: Wiring,
  faults: readonly Fault[],
  learned: Pick<LearnedEntry, "causes"> | undefined,
): LessonRates {
  if (!learned) return { factors: new Float64Array(faults.length).fill(1), feeds: [] };
  const key = JSON.stringify(learned.causes);
  const known = latest.get(faults);
  if (known?.key === key) return known.value;
  const value = workOut(wiring, faults, learned.causes);
  latest.set(faults, { key, value });
  return value;
}

function workOut(wiring: Wiring, faults: readonly Fault[], causes: readonly Cause[]): LessonRates {
  const factors = new Float64Array(faults.length).fill(1);
  const places = new RepairedPlaces(wiring);
  const rates = faults.map((f) => f.prior ** DEFAULTS.priorTrust);
  const all = sum(rates);
  const counts = new Float64Array(faults.length);
  const touched = causes.map((cause) => {
    const cured = curedBy(places, faults, cause);
    const rate = sum(cured.map((i) => rates[i]!));
    for (const i of cured) counts[i]! += (cause.count * rates[i]!) / rate;
    return { cause, cured };
  });
  const found = sum(counts);
  if (found === 0) return { factors, feeds: [] };
  const { modes, places: placesWeight, trust } = DEFAULTS.lessons;
  const byMode = new Map<string, { prior: number; count: number }>();
  faults.forEach((f, i) => {
    const at = byMode.get(f.mode) ?? { prior: 0, count: 0 };
    byMode.set(f.mode, { prior: at.prior + rates[i]! / all, count: at.count + counts[i]! });
  });
  faults.forEach((f, i) => {
    if (rates[i] === 0) return;
    const { prior, count } = byMode.get(f.mode)!;
    const own = rates[i]! / all;
    const mode = (modes * prior + count) / (modes + found);
    const within = (placesWeight * (own / prior) + counts[i]!) / (placesWeight + count);
    factors[i] = 1 - trust + trust * ((mode * within) / own);
  });
  return { factors, feeds: feedsOf(touched, rates, factors, counts) };
}

/** The faults that a cause may have been: what its repair cures, at the place that was named where it was named. */
function curedBy(places: RepairedPlaces, faults: readonly Fault[], { things, how, suspect }: Cause): number[] {
  const repair = { type: "repaired", at: "", things, how } as const;
  const cured = faults.flatMap((f, i) => (f.prior > 0 && places.chance(repair, f) > 0 ? [i] : []));
  const named = new Set(suspect?.split(" + "));
  const there = cured.filter((i) => named.has(faults[i]!.place.id));
  return there.length ? there : cured;
}

const sum = (list: ArrayLike<number>): number => Array.from(list).reduce((a, b) => a + b, 0);

const MOST_FEEDS = 12;
function feedsOf(
  touched: readonly { readonly cause: Cause; readonly cured: readonly number[] }[],
  rates: readonly number[],
  factors: Float64Array,
  counts: Float64Array,
): Feed[] {
  const mean = (list: readonly number[]) =>
    sum(list.map((i) => rates[i]! * factors[i]!)) / sum(list.map((i) => rates[i]!));
  const byPlace = new Map<string, { things: readonly string[]; cured: Set<number>; count: number }>();
  for (const { cause, cured } of touched) {
    if (cured.length === 0) continue;
    const key = cause.things.join(" ");
    const at = byPlace.get(key) ?? { things: cause.things, cured: new Set<number>(), count: 0 };
    cured.forEach((i) => at.cured.add(i));
    byPlace.set(key, { ...at, count: at.count + cause.count });
  }
  const others = rates.flatMap((_, i) => (counts[i] === 0 ? [i] : []));
  return [
    ...[...byPlace.values()]
      .sort((a, b) => b.count - a.count)
      .slice(0, MOST_FEEDS)
      .map(({ things, cured }): Feed => ({
        because: "lessons",
        at: things,
        factor: mean([...cured]),
        on: "all",
        faults: cured.size,
      })),
    ...(others.length
      ? [{ because: "lessons", at: [], factor: mean(others), on: "elsewhere", faults: others.length }]
      : []),
  ];
}
