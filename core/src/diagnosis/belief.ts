import type { Entry } from "../format/case.js";
import type { Breadth } from "./codeWeights.js";
import { gather, type Evidence, type Gathered } from "./evidence.js";
import { distance, keyOf } from "./groups.js";
import { weigh, type Posterior, type World } from "./posterior.js";
import type { Predictor } from "./predictor.js";
import { growSeveral, type Several } from "./several.js";

/** A logbook, weighed. */
export interface Belief {
  readonly gathered: Gathered;
  readonly posterior: Posterior;
  /** whether several faults were searched for: the leading single cause leaves too much unexplained, explains almost anything, or is near a verdict */
  readonly alarmed: boolean;
  /** how many hypotheses were weighed */
  readonly breadth: Breadth;
  readonly several: readonly Several[];
  /** whether a second look is due that this first one was told to leave out */
  readonly unfinished: boolean;
}

export interface BeliefOptions {
  /** true ends the search for several faults with what was found so far */
  readonly stop?: () => boolean;
  /** "lasting" leaves out what comes and goes and readings at look-alikes; "never" leaves out several faults and whatever does not fit the codes (a first answer; for measuring what each is worth) */
  readonly only?: "lasting";
  readonly several?: "never";
  /** a first look at the same logbook (`several: "never"`), to go on from */
  readonly begun?: Belief | undefined;
}

/** A reading further from the prediction than this is contradicted, standard deviations; a present code less likely than this is not explained. */
export const EXPLAINED = 0.3;
const MISFIT_SIGMAS = 4;

/** Weighs a logbook: single faults first, and several at once where the leading single one leaves too much unexplained. */
export function assess(predictor: Predictor, entries: readonly Entry[], options: BeliefOptions = {}): Belief {
  const gathered = options.begun?.gathered ?? gather(predictor, entries);
  const { evidence } = gathered;
  const how = {
    factors: gathered.factors,
    comesAndGoes: gathered.comesAndGoes,
    ...(options.only ? { only: options.only } : {}),
  };
  const narrow = options.begun?.posterior ?? weigh(predictor, evidence, { ...how, breadth: "narrow" });
  const unsure = (p: Posterior, least: number) => {
    const lead = p.worlds[0];
    return lead === undefined || p.notHere > DOUBT || suspicious(predictor, lead, evidence, least);
  };
  // lasting or coming and going, here or at a look-alike, at any severity: the place leads with all of it together
  const nearVerdict = (p: Posterior) => {
    const lead = keyOf(predictor, p.worlds[0]!);
    return (
      p.worlds.reduce((sum, w) => sum + (w.share > 1e-3 && keyOf(predictor, w) === lead ? w.share : 0), 0) >=
      NEAR_VERDICT
    );
  };
  const hasty = (p: Posterior) => p.worlds[0] !== undefined && (isRoundabout(predictor, p.worlds[0]) || nearVerdict(p));
  const unfinished = evidence.length > 0 && (unsure(narrow, 1) || hasty(narrow));
  if (options.several === "never" || !unfinished)
    return { gathered, posterior: narrow, breadth: "narrow", alarmed: false, several: [], unfinished };
  // the best leave something unexplained: look further before several faults are thought of
  const posterior = weigh(predictor, evidence, { ...how, breadth: "wide" });
  const alarmed = unsure(posterior, 2) || hasty(posterior);
  if (!alarmed) return { gathered, posterior, breadth: "wide", alarmed, several: [], unfinished: false };
  const several = growSeveral(predictor, evidence, gathered.factors, options.stop);
  return {
    gathered,
    several,
    alarmed,
    unfinished: false,
    breadth: "wide",
    posterior: several.length ? weigh(predictor, evidence, { ...how, breadth: "wide", several }) : posterior,
  };
}
/** A suspect is only declared against several faults at once. */
const NEAR_VERDICT = 0.9;
/** What explains almost anything: a fault that is there or not, as it suits; leads at the wrong connector; terminals changed over. */
function isRoundabout(predictor: Predictor, w: World): boolean {
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
  const { gathered, several } = belief;
  return weigh(
    predictor,
    gathered.evidence.filter((e) => e.kind !== "reading" || e.number !== entry),
    { factors: gathered.factors, comesAndGoes: gathered.comesAndGoes, several, breadth: belief.breadth },
  );
}

/** Present codes and readings that a world does not account for. */
export function leftOver(
  predictor: Predictor,
  world: World,
  evidence: readonly Evidence[],
): { readonly codes: readonly number[]; readonly readings: readonly number[] } {
  const codes: number[] = [];
  const readings: number[] = [];
  evidence.forEach((e, i) => {
    if (e.kind === "code" && e.present && e.weight > 0.3 && setBy(predictor, world, e.monitor) < EXPLAINED)
      codes.push(i);
    if (e.kind === "reading" && misfit(predictor, world, e) > MISFIT_SIGMAS) readings.push(i);
  });
  return { codes, readings };
}
function suspicious(predictor: Predictor, world: World, evidence: readonly Evidence[], least: number): boolean {
  const { codes, readings } = leftOver(predictor, world, evidence);
  return (
    codes.length > 0 ||
    readings.length >= least ||
    (world.hypothesis === 0 && evidence.some((e) => e.kind === "code" && e.present))
  );
}

/** Probability that a world sets a code. */
export function setBy(predictor: Predictor, world: World, monitor: number): number {
  const shares = predictor.codeShares(world.hypothesis, [monitor]);
  const n = predictor.monitors.length;
  let p = 0;
  world.weights.forEach((w, s) => {
    if (w > 0) p += w * shares[s * n + monitor]!;
  });
  return p;
}

/** How far a reading is from the nearest of what a world's heavier samples predict, standard deviations. */
export function misfit(predictor: Predictor, world: World, e: Extract<Evidence, { kind: "reading" }>): number {
  const nearest = (hypothesis: number, weights: (s: number) => number, samples: number) => {
    const wanted = Uint8Array.from({ length: samples }, (_, s) => (weights(s) > HEAVY ? 1 : 0));
    const predicted = predictor.predictAt(hypothesis, world.misplaced ? world.misplaced.moved(e) : e, wanted);
    let least = Infinity;
    let low = Infinity;
    let high = -Infinity;
    for (let s = 0; s < samples; s++) {
      if (!wanted[s]) continue;
      const v = predicted.at(s);
      least = Math.min(least, distance(v, e.value, e.instrument));
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    return e.value >= low && e.value <= high ? 0 : least; // between two samples is between two samples
  };
  const there = nearest(world.hypothesis, (s) => world.weights[s]!, world.weights.length);
  return world.presence === 1
    ? there
    : Math.min(
        there,
        nearest(0, () => 1, predictor.draws),
      );
}
const HEAVY = 1e-3;
