import { weigh } from "./weigh.js";
import type { Entry } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Breadth } from "./posterior.js";
import { gather, type Evidence, type Gathered } from "./evidence.js";
import { keyOf } from "./groups.js";
import { distance } from "./likelihood.js";
import { searchMultipleFaults } from "./multipleFaults.js";
import { refineFaultSets } from "./refineFaultSets.js";
import type { MultipleFaultHypothesis } from "./posterior.js";
import { type MixtureComponent, type Posterior } from "./posterior.js";
import { isUnmovedAt } from "./unmoved.js";

/** A logbook, weighed. */
export interface Belief {
  readonly gathered: Gathered;
  readonly posterior: Posterior;
  /**
   * whether several faults were searched for: the leading single cause leaves too much unexplained, explains almost
   * anything, or is near a verdict
   */
  readonly alarmed: boolean;
  /** how many hypotheses were weighed */
  readonly breadth: Breadth;
  readonly multiple: readonly MultipleFaultHypothesis[];
  /** whether a second look is due that this first one was told to leave out */
  readonly unfinished: boolean;
}

export interface BeliefOptions {
  /** true ends the search for several faults with what was found so far */
  readonly stop?: () => boolean;
  /**
   * "lasting" leaves out what comes and goes and readings at look-alikes; "never" leaves out several faults and
   * whatever does not fit the codes (a first answer; for measuring what each is worth)
   */
  readonly only?: "lasting";
  readonly multiple?: "never";
  /** told now and then how much of the first pass over all faults is done, 0 to 1 */
  readonly progress?: ((share: number) => void) | undefined;
  /** a first look at the same logbook (`several: "never"`), to go on from */
  readonly begun?: Belief | undefined;
}

/**
 * A reading further from the prediction than this is contradicted, standard deviations; a present code less likely than
 * this is not explained.
 */
export const CODE_EXPLAINED_FROM = 0.3;
export const MISFIT_SIGMAS = 4;

/**
 * Weighs a logbook: single faults first, and several at once where the leading single one leaves too much unexplained.
 */
export function assess(predictor: Predictor, entries: readonly Entry[], options: BeliefOptions = {}): Belief {
  const gathered = options.begun?.gathered ?? gather(predictor, entries);
  const { evidence } = gathered;
  const how = {
    factors: gathered.factors,
    comesAndGoes: gathered.comesAndGoes,
    ...(options.only ? { only: options.only } : {}),
    progress: options.progress,
  };
  const narrow = options.begun?.posterior ?? weigh(predictor, evidence, { ...how, breadth: "narrow" });
  const unsure = (p: Posterior, least: number) => {
    const lead = p.components[0];
    return lead === undefined || p.notHere > DOUBT || leavesUnexplained(predictor, lead, evidence, least);
  };
  // lasting or coming and going, here or at a look-alike, at any severity: the place leads with all of it together
  const nearVerdict = (p: Posterior) => {
    const lead = keyOf(predictor, p.components[0]!);
    return (
      p.components.reduce((sum, w) => sum + (w.share > 1e-3 && keyOf(predictor, w) === lead ? w.share : 0), 0) >=
      NEAR_VERDICT
    );
  };
  const hasty = (p: Posterior) =>
    p.components[0] !== undefined && (explainsAlmostAnything(predictor, p.components[0]) || nearVerdict(p));
  const unfinished = evidence.length > 0 && (unsure(narrow, 1) || hasty(narrow));
  if (options.multiple === "never" || !unfinished)
    return { gathered, posterior: narrow, breadth: "narrow", alarmed: false, multiple: [], unfinished };
  // the best leave something unexplained: look further before several faults are thought of
  const posterior = weigh(predictor, evidence, { ...how, breadth: "wide" });
  const alarmed = unsure(posterior, 2) || hasty(posterior);
  if (!alarmed) return { gathered, posterior, breadth: "wide", alarmed, multiple: [], unfinished: false };
  const found = searchMultipleFaults(predictor, evidence, gathered.factors, options.stop);
  const weighWith = (multiple: readonly MultipleFaultHypothesis[]) =>
    weigh(predictor, evidence, { ...how, breadth: "wide", multiple });
  const coarse = weighSeveral(found, posterior, weighWith);
  const never = () => false;
  const whole = refineFaultSets(predictor, coarse.multiple, coarse.posterior, weighWith, options.stop ?? never);
  return { gathered, alarmed, unfinished: false, breadth: "wide", ...whole };
}
/** Sets of faults weighed at first; and the share that they must have for the others to be weighed too. Judgement. */
const FIRST_SETS = 40;
const OTHERS_FROM = 1e-3;
/**
 * Weighs sets of faults, the most promising first: the others, whose bounds are lower, only where those have some
 * share.
 */
function weighSeveral(
  found: readonly MultipleFaultHypothesis[],
  alone: Posterior,
  weighWith: (multiple: readonly MultipleFaultHypothesis[]) => Posterior,
): { readonly multiple: readonly MultipleFaultHypothesis[]; readonly posterior: Posterior } {
  if (found.length === 0) return { multiple: [], posterior: alone };
  const first = found.slice(0, FIRST_SETS);
  const posterior = weighWith(first);
  const share = first.reduce((sum, m) => sum + posterior.share[m.hypothesis]!, 0);
  if (share < OTHERS_FROM || found.length === first.length) return { multiple: first, posterior };
  return { multiple: found, posterior: weighWith(found) };
}
/** A suspect is only declared against several faults at once. */
const NEAR_VERDICT = 0.9;
/**
 * What explains almost anything: a fault that is there or not, as it suits; leads at the wrong connector; terminals
 * changed over.
 */
function explainsAlmostAnything(predictor: Predictor, w: MixtureComponent): boolean {
  return (
    w.presence < 1 ||
    w.misplaced !== undefined ||
    predictor.hypotheses[w.hypothesis]!.faults.some((f) => f.mode === "cavitiesSwapped")
  );
}
/** "Not in this wiring" above this is itself a reason to think of several faults. */
const DOUBT = 0.02;

/** Belief with one logbook entry left out: what would stand if that one reading were a slip. */
export function without(predictor: Predictor, belief: Belief, entry: number): Posterior {
  const { gathered, multiple } = belief;
  return weigh(
    predictor,
    gathered.evidence.filter((e) => e.kind !== "reading" || e.number !== entry),
    { factors: gathered.factors, comesAndGoes: gathered.comesAndGoes, multiple, breadth: belief.breadth },
  );
}

/** Present codes and readings that a component does not account for. */
export function leftOver(
  predictor: Predictor,
  component: MixtureComponent,
  evidence: readonly Evidence[],
): { readonly codes: readonly number[]; readonly readings: readonly number[] } {
  const codes: number[] = [];
  const readings: number[] = [];
  evidence.forEach((e, i) => {
    if (
      e.kind === "code" &&
      e.present &&
      e.weight > 0.3 &&
      setBy(predictor, component, e.monitor) < CODE_EXPLAINED_FROM
    )
      codes.push(i);
    if (e.kind === "reading" && misfit(predictor, component, e) > MISFIT_SIGMAS) readings.push(i);
  });
  return { codes, readings };
}
function leavesUnexplained(
  predictor: Predictor,
  component: MixtureComponent,
  evidence: readonly Evidence[],
  least: number,
): boolean {
  const { codes, readings } = leftOver(predictor, component, evidence);
  return (
    codes.length > 0 ||
    readings.length >= least ||
    (component.hypothesis === 0 && evidence.some((e) => e.kind === "code" && e.present))
  );
}

/** Probability that a component sets a code. */
export function setBy(predictor: Predictor, component: MixtureComponent, monitor: number): number {
  const shares = predictor.codeShares(component.hypothesis, [monitor]);
  const n = predictor.monitors.length;
  let p = 0;
  component.weights.forEach((w, s) => {
    if (w > 0) p += w * shares[s * n + monitor]!;
  });
  return p;
}

/**
 * How far a reading is from the nearest of what a component's heavier samples predict, standard deviations. Of a fault
 * that may be more or less bad only its likeliest severity and those beside it count: one reading must not fit a hard
 * short and the next a soft one.
 * @param anySeverity takes every severity of the fault for possible
 */
export function misfit(
  predictor: Predictor,
  component: MixtureComponent,
  e: Extract<Evidence, { kind: "reading" }>,
  anySeverity = false,
): number {
  const nearest = (hypothesis: number, weights: (s: number) => number, samples: number) => {
    const wanted = Uint8Array.from({ length: samples }, (_, s) => (weights(s) > SAMPLE_COUNTS_FROM ? 1 : 0));
    const predicted = predictor.predictAt(hypothesis, component.misplaced ? component.misplaced.moved(e) : e, wanted);
    let least = Infinity;
    let low = Infinity;
    let high = -Infinity;
    for (let s = 0; s < samples; s++) {
      if (!wanted[s]) continue;
      const v = predicted.at(s);
      least = Math.min(least, distance(v, e.value, e.instrument, e.tolerance));
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    // a value between two samples fits, and so does one a little beyond the last: the draws do not reach the very ends
    const beyond = BEYOND * (high - low);
    return e.value >= low - beyond && e.value <= high + beyond ? 0 : least;
  };
  const { draws } = predictor;
  const likeliest = likeliestPlace(component.weights, draws);
  const { stepped } = predictor.hypotheses[component.hypothesis]!;
  const counts = (s: number) => anySeverity || !stepped || Math.abs(Math.floor(s / draws) - likeliest) <= 1;
  const there = nearest(component.hypothesis, (s) => (counts(s) ? component.weights[s]! : 0), component.weights.length);
  // what it leaves as it is on a sound machine is known in all draws
  const isSound =
    component.hypothesis > predictor.faults.length &&
    !component.misplaced &&
    isUnmovedAt(predictor, component.hypothesis, e);
  return component.presence === 1 && !isSound
    ? there
    : Math.min(
        there,
        nearest(0, () => 1, predictor.draws),
      );
}
/** How far beyond the outermost draws a value still fits, as a share of their span. Judgement. */
const BEYOND = 0.25;
/** The severity that carries most weight. @param weights of samples: [severity · draws + draw] */
function likeliestPlace(weights: Float64Array, draws: number): number {
  let best = 0;
  let most = -1;
  for (let s = 0; s < weights.length; s += draws) {
    let sum = 0;
    for (let d = 0; d < draws; d++) sum += weights[s + d]!;
    if (sum > most) [most, best] = [sum, s / draws];
  }
  return best;
}
/** Weight from which a sample is worked out for how badly a reading fits. Judgement: time. */
const SAMPLE_COUNTS_FROM = 1e-3;
