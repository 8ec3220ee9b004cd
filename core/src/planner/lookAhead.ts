import type { Predictor } from "../diagnosis/predictor.js";
import type { Candidate } from "./candidates.js";
import type { Cost, Standing } from "./cost.js";
import { Forecast, type Atom, type Crowd } from "./crowd.js";
import { expectedCost, greedy, rollout, type Decision } from "./decision.js";

/** How many atoms and tests the look-ahead works with, and how many first tests it compares. */
const ATOMS = 120, TESTS = 64, FIRST = 16;
/** The search counts as over when one suspect holds this share. */
const ENOUGH = 0.97;
/** Answers closer together than this are one answer, volt below and above 6 V; steps of a decade for ohms. */
const STEP_LOW = 0.25, STEP_HIGH = 0.8, STEPS_PER_DECADE = 2;

/**
 * Rollout over greedy: for each of the best first tests, what it costs and what the greedy order would then cost until
 * one suspect is left, over the atoms of the crowd.
 * @param ranked candidates, the most information per minute first
 * @returns for each first test tried its expected minutes to the end, and the best of them
 */
export function lookAhead(predictor: Predictor, crowd: Crowd, ranked: readonly Candidate[], cost: Cost, from: Standing): { readonly best: number; readonly minutes: number; readonly tried: readonly number[] } {
  const decision = reduce(predictor, crowd, ranked.slice(0, TESTS), cost, from);
  const first = Array.from({ length: Math.min(FIRST, ranked.length) }, (_, i) => i);
  const { test, cost: minutes } = rollout(decision, undefined, -1, first);
  return { best: test < 0 ? 0 : test, minutes, tried: first };
}

/** Expected minutes until one suspect is left, by school: what choosing another way would cost. */
export interface SchoolMinutes { readonly information: number; readonly easiest: number; readonly halve: number }

/** What three schools would cost from here on, on the same reduced problem. */
export function compareSchools(predictor: Predictor, crowd: Crowd, ranked: readonly Candidate[], cost: Cost, from: Standing): SchoolMinutes {
  const d = reduce(predictor, crowd, ranked.slice(0, TESTS), cost, from);
  const telling = (left: readonly number[]) => Array.from(d.outcomes.keys()).filter((t) => { const o = d.outcomes[t]!; return left.some((i) => o[i] !== o[left[0]!] && d.groups[i] !== d.groups[left[0]!]); });
  const least = (list: readonly number[], by: (t: number) => number) => list.reduce((best, t) => (best < 0 || by(t) < by(best) ? t : best), -1);
  const easiest = (left: readonly number[], after: number) => least(telling(left), (t) => d.cost(t, after));
  const halve = (left: readonly number[]) => least(telling(left), (t) => { const o = d.outcomes[t]!, first = left.filter((i) => o[i] === o[left[0]!]).length; return Math.abs(first / left.length - 0.5); });
  const own = expectedCost(d, (left, after) => greedy(d, left, after)), ahead = rollout(d, undefined, -1, Array.from({ length: Math.min(FIRST, ranked.length) }, (_, i) => i)).cost;
  return { information: Math.min(own, ahead), easiest: expectedCost(d, easiest), halve: expectedCost(d, halve) };
}

/** The crowd as a decision problem: the heaviest atoms, each with one answer to every test. */
export function reduce(predictor: Predictor, crowd: Crowd, tests: readonly Candidate[], cost: Cost, from: Standing): Decision {
  const atoms = crowd.atoms.slice(0, ATOMS), forecast = new Forecast(predictor, crowd);
  const outcomes = tests.map((c) => Uint16Array.from(atoms, (a) => answerOf(forecast, a, c)));
  const after = tests.map((c) => cost.after(c, from));
  const first = tests.map((c) => c.minutes);
  const between = new Map<number, number>();
  return {
    weights: Float64Array.from(atoms, (a) => a.weight), groups: Int32Array.from(atoms, (a) => a.suspect), outcomes, enough: ENOUGH,
    cost: (t, before) => {
      if (before < 0) return first[t]!;
      const key = t * tests.length + before;
      let minutes = between.get(key);
      if (minutes === undefined) between.set(key, (minutes = cost.minutes(tests[t]!, after[before]!)));
      return minutes;
    },
  };
}

/** One answer as a whole number: what the instrument would plainly tell apart. */
function answerOf(forecast: Forecast, atom: Atom, c: Candidate): number {
  if (c.instrument === "none") return forecast.yes(atom, c) > 0.4 ? 1 : 0;
  let answer = 0;
  for (const p of c.points) {
    const { mean } = forecast.there(atom, c, p);
    const one = Number.isNaN(mean) ? 254 : mean === Infinity ? 255 : c.instrument === "ohmmeter" ? 1 + Math.max(0, Math.round(((mean / Math.LN10) + 1) * STEPS_PER_DECADE))
      : mean < 6 ? 40 + Math.round(mean / STEP_LOW) : 70 + Math.round((mean - 6) / STEP_HIGH);
    answer = (answer << 8) | (one & 255);
  }
  return answer & 0xffff;
}
