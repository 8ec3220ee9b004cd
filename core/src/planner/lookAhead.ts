import type { Fault } from "../faults/fault.js";
import type { RunName } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Candidate } from "./candidate.js";
import type { Cost, Position } from "./cost.js";
import { expectedCost, greedy, rollout, type Decision } from "./decision.js";
import type { Expected } from "./forecast.js";
import { Forecast } from "./forecast.js";
import { type Particle, type ParticleBelief } from "./particles.js";
import type { Weighed } from "./ranking.js";
/** How many particles and tests the look-ahead works with, and how many first tests it compares. */
const PARTICLES_PLANNED = 120;
const TESTS = 64;
const FIRST = 16;
/**
 * A first test is worth comparing with this part of the best one's information, or of the best one's information per
 * minute.
 */
const WORTH = 0.4;
/**
 * However quick, a first test that tells less than this part of the best one's information is not proposed: what it
 * saves by being quick is the chance that it settles the case at once, and that chance is small.
 */
const TELLS_SOMETHING = 0.1;
/** The search counts as over when one suspect holds this share. */
const ENOUGH = 0.97;
/** Answers closer together than this are one answer, volt below and above 6 V; steps of a decade for ohms. */
const STEP_LOW = 0.25;
const STEP_HIGH = 0.8;
const STEPS_PER_DECADE = 2;

/** Several steps taken as one, a guided run: what it costs, and which of its outcomes each cause would bring. */
export interface MacroTest {
  readonly run: RunName;
  readonly on: string;
  readonly minutes: number;
  /** one name for each outcome that the run tells from the others */
  readonly outcomeOf: (faults: readonly Fault[]) => string;
}

/**
 * What looking ahead saw: the reduced problem, the best first test (by its place among the ranked) and the minutes then
 * expected.
 */
export interface LookAhead {
  readonly decision: Decision;
  readonly best: number;
  readonly minutes: number;
  /** a guided run that gets there sooner than any single test taken first */
  readonly run: MacroTest | undefined;
}

/**
 * Rollout over greedy: for each of the best first tests, what it costs and what the greedy order would then cost until
 * one suspect is left, over the particles of the belief.
 * @param ranked candidates, the most information per minute first
 * @param macros guided runs, which compete with them
 */
export function lookAhead(
  predictor: Predictor,
  belief: ParticleBelief,
  ranked: readonly Weighed[],
  cost: Cost,
  from: Position,
  macros: readonly MacroTest[] = [],
): LookAhead {
  const tests = ranked.slice(0, TESTS).map((r) => r.candidate);
  const decision = decisionProblem(predictor, belief, tests, cost, from, macros);
  const { test, cost: minutes } = rollout(decision, undefined, -1, distinctFirstTests(decision, ranked));
  const best = test < 0 ? 0 : test;
  const runs = macros.length
    ? rollout(
        decision,
        undefined,
        -1,
        macros.map((_, i) => tests.length + i),
      )
    : undefined;
  const isSooner = runs && runs.test >= 0 && (test < 0 || runs.cost < RUN_SAVES * minutes);
  return { decision, best, minutes, run: isSooner ? macros[runs.test - tests.length] : undefined };
}
/** A guided run is proposed in place of the next test where it is expected to save a tenth of the time. Judgement. */
const RUN_SAVES = 0.9;

/**
 * The first tests worth comparing: those that tell much, or much for their time; of those whose answers mean the same,
 * the one that comes first.
 */
function distinctFirstTests(d: Decision, ranked: readonly Weighed[]): number[] {
  const rate = (r: Weighed) => r.bits / r.candidate.minutes;
  const most = Math.max(...ranked.map((r) => r.bits));
  const quickest = Math.max(...ranked.map(rate));
  const seen = new Set<string>();
  const first: number[] = [];
  for (let t = 0; t < Math.min(ranked.length, TESTS) && first.length < FIRST; t++) {
    const { bits } = ranked[t]!;
    if (bits < TELLS_SOMETHING * most || (rate(ranked[t]!) < WORTH * quickest && bits < WORTH * most)) continue;
    const numbers = new Map<number, number>();
    const partition = Array.from(d.outcomes[t]!, (o) => {
      const n = numbers.get(o) ?? numbers.size;
      numbers.set(o, n);
      return n;
    }).join();
    if (!seen.has(partition)) first.push(t);
    seen.add(partition);
  }
  return first;
}

/** Expected minutes until one suspect is left, by school: what choosing another way would cost. */
export interface PolicyMinutes {
  readonly information: number;
  readonly easiest: number;
  readonly halve: number;
}

/** What three schools would cost from here on, on the same reduced problem. */
export function comparePolicies({ decision: d, minutes }: LookAhead): PolicyMinutes {
  const telling = (left: readonly number[]) =>
    Array.from(d.outcomes.keys()).filter((t) => {
      const o = d.outcomes[t]!;
      return left.some((i) => o[i] !== o[left[0]!] && d.groups[i] !== d.groups[left[0]!]);
    });
  const least = (list: readonly number[], by: (t: number) => number) =>
    list.reduce((best, t) => (best < 0 || by(t) < by(best) ? t : best), -1);
  const easiest = (left: readonly number[], after: number) => least(telling(left), (t) => d.cost(t, after));
  const halve = (left: readonly number[]) =>
    least(telling(left), (t) => {
      const o = d.outcomes[t]!;
      const first = left.filter((i) => o[i] === o[left[0]!]).length;
      return Math.abs(first / left.length - 0.5);
    });
  const own = expectedCost(d, (left, after) => greedy(d, left, after));
  return { information: Math.min(own, minutes), easiest: expectedCost(d, easiest), halve: expectedCost(d, halve) };
}

/**
 * The belief as a decision problem. What a particle leaves open (where a sensor's true condition lies, where between
 * two
 * severities the fault is) is tried at three places, so that a reading which may fall among another suspect's does not
 * pass for one that tells them apart.
 */
export function decisionProblem(
  predictor: Predictor,
  belief: ParticleBelief,
  tests: readonly Candidate[],
  cost: Cost,
  from: Position,
  macros: readonly MacroTest[] = [],
): Decision {
  const forecast = new Forecast(predictor, belief);
  const things = belief.particles
    .slice(0, PARTICLES_PLANNED)
    .flatMap((particle, i) =>
      i < OPENED ? PLACES.map((_, place): Scenario => ({ particle, place })) : [{ particle, place: undefined }],
    );
  const kinds = new Map<string, number>();
  const singles = tests.map((c) =>
    answersOf(forecast, things, c, (family) => {
      const k = kinds.get(family) ?? kinds.size;
      kinds.set(family, k);
      return k;
    }),
  );
  const outcomes = [...singles, ...macros.map((m) => outcomesOf(predictor, things, m))];
  const after = tests.map((c) => cost.after(c, from));
  const first = tests.map((c) => c.minutes);
  const between = new Map<number, number>();
  return {
    weights: Float64Array.from(things, (t) =>
      t.place === undefined ? t.particle.weight : t.particle.weight / PLACES.length,
    ),
    groups: Int32Array.from(things, (t) => t.particle.suspect),
    outcomes,
    enough: ENOUGH,
    cost: (t, before) => {
      // where a run leaves one is not known: what comes after it costs what it costs from here
      if (t >= tests.length) return macros[t - tests.length]!.minutes;
      if (before < 0 || before >= tests.length) return first[t]!;
      const key = t * tests.length + before;
      let minutes = between.get(key);
      if (minutes === undefined) between.set(key, (minutes = cost.minutes(tests[t]!, after[before]!)));
      return minutes;
    },
  };
}
/** Outcomes of a run as whole numbers. */
function outcomesOf(predictor: Predictor, things: readonly Scenario[], { outcomeOf }: MacroTest): Uint16Array {
  const numbers = new Map<string, number>();
  return Uint16Array.from(things, ({ particle }) => {
    const name = outcomeOf(predictor.hypotheses[particle.component.hypothesis]!.faults);
    const n = numbers.get(name) ?? numbers.size;
    numbers.set(name, n);
    return n;
  });
}

/** A particle, and at which of the places its readings fall; undefined for all at their mean. */
interface Scenario {
  readonly particle: Particle;
  readonly place: number | undefined;
}
/**
 * The heaviest particles are opened so; three places, standard deviations from the mean, that together have deviation
 * 1.
 */
const OPENED = 40;
const PLACES = [-Math.sqrt(1.5), 0, Math.sqrt(1.5)];
/** In which order the places go with those of another unknown: what is high at one sensor need not be at the next. */
const ORDERS = [
  [0, 1, 2],
  [1, 2, 0],
  [2, 0, 1],
  [0, 2, 1],
  [1, 0, 2],
  [2, 1, 0],
];

/**
 * Answers to one test as whole numbers: what the instrument would plainly tell apart. Answers closer than a step are
 * one,
 * and where a long run of them must be cut it is cut at its widest gap: never between two that are as good as the same.
 * @param kindOf number of an unknown, by its name: readings that hang on the same one fall at the same place
 */
function answersOf(
  forecast: Forecast,
  things: readonly Scenario[],
  c: Candidate,
  kindOf: (family: string) => number,
): Uint16Array {
  const at = (kind: number, place: number) => ORDERS[kind % ORDERS.length]![place]!;
  if (c.instrument === "none") {
    const kind = kindOf(c.id);
    return Uint16Array.from(things, ({ particle, place }) => {
      const yes = forecast.yes(particle, c);
      return place === undefined ? (yes > 0.4 ? 1 : 0) : at(kind, place) < Math.round(yes * PLACES.length) ? 1 : 0;
    });
  }
  const ohms = c.instrument === "ohmmeter";
  const out = new Uint16Array(things.length);
  // on a scale where one is a step
  const scale = (m: number) =>
    ohms ? (m / Math.LN10) * STEPS_PER_DECADE : m < 6 ? m / STEP_LOW : 6 / STEP_LOW + (m - 6) / STEP_HIGH;
  for (const p of c.points) {
    const values = new Float64Array(things.length);
    let last: { readonly particle: Particle; readonly expected: Expected } | undefined;
    things.forEach(({ particle, place }, i) => {
      if (last?.particle !== particle) last = { particle, expected: forecast.there(particle, c, p) };
      const { mean, deviation } = last.expected;
      values[i] = scale(
        place === undefined || !Number.isFinite(mean)
          ? mean
          : mean + deviation * PLACES[at(kindOf(forecast.familyOf(particle, c, p)), place)]!,
      );
    });
    const finite = Array.from(values.keys())
      .filter((i) => Number.isFinite(values[i]!))
      .sort((a, b) => values[a]! - values[b]!);
    const gap = (i: number) => values[finite[i]!]! - values[finite[i - 1]!]!;
    let number = 0;
    const cut = (from: number, to: number): void => {
      let widest = from + 1;
      for (let i = from + 2; i < to; i++) if (gap(i) > gap(widest)) widest = i;
      if (to - from > 1 && values[finite[to - 1]!]! - values[finite[from]!]! > 1 && gap(widest) > SAME) {
        cut(from, widest);
        cut(widest, to);
        return;
      }
      for (let i = from; i < to; i++) out[finite[i]!] = (out[finite[i]!]! << 8) | (number & 255);
      number++;
    };
    if (finite.length) cut(0, finite.length);
    values.forEach((v, i) => {
      if (!Number.isFinite(v)) out[i] = (out[i]! << 8) | (Number.isNaN(v) ? 254 : 255);
    });
  }
  return out;
}
/** A gap that never tells answers apart, in steps. */
const SAME = 0.1;
