import { weigh } from "./weigh.js";
import type { Entry } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Breadth } from "./posterior.js";
import { gather, type Evidence, type Gathered } from "./evidence.js";
import { groupComponents, keyOf } from "./groups.js";
import { mostToClaim } from "./trust.js";
import { carryOver, entriesBefore, type AfterRepair, type Before } from "./afterRepair.js";
import { leftOver } from "./fit.js";
import { searchMultipleFaults } from "./multipleFaults.js";
import { solveTogether } from "./solveTogether.js";
import { likeliestOf, searchFurtherFaults } from "./furtherFaults.js";
import { refineFaultSets } from "./refineFaultSets.js";
import type { MultipleFaultHypothesis } from "./posterior.js";
import { type MixtureComponent, type Posterior } from "./posterior.js";

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
  /** what a repair, or a return, made of the belief before it; undefined of a machine as it was found */
  readonly carried?: AfterRepair | undefined;
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
 * Weighs a logbook: single faults first, and several at once where the leading single one leaves too much unexplained.
 */
export function assess(predictor: Predictor, entries: readonly Entry[], options: BeliefOptions = {}): Belief {
  const found = options.begun?.gathered ?? gather(predictor, entries);
  const carried = options.begun?.carried ?? carriedOver(predictor, found.folded.since, entries);
  if (!carried) return assessMachine(predictor, found, undefined, options);
  // what is known of its history was weighed before the repair, and is carried over with the rest
  return assessMachine(predictor, { ...found, factors: carried.factors }, carried, options);
}

/** Beliefs carried over a repair, by predictor: the logbook before it does not change any more. */
const carriedOnce = new WeakMap<Predictor, Map<string, AfterRepair>>();
/** So many are remembered: of the repairs of a job, with one of them taken back or not. Judgement. */
const MOST_CARRIED = 8;

/** Weighs the machine as it was before the entry that made it another, and carries the belief over. */
function carriedOver(predictor: Predictor, since: number, entries: readonly Entry[]): AfterRepair | undefined {
  const turn = entries[since - 1];
  if (turn?.type !== "repaired" && turn?.type !== "followedUp") return undefined;
  const before = entriesBefore(entries, since);
  const key = JSON.stringify([before, turn]);
  const known = carriedOnce.get(predictor) ?? new Map<string, AfterRepair>();
  carriedOnce.set(predictor, known);
  let carried = known.get(key);
  if (!carried) {
    carried = carryOver(predictor, boundedBelief(predictor, assess(predictor, before)), turn);
    if (known.size >= MOST_CARRIED) known.clear();
    known.set(key, carried);
  }
  return carried;
}
/** No more is carried over than may be claimed of the leader. */
function boundedBelief(predictor: Predictor, belief: Belief): Before {
  const { posterior, gathered } = belief;
  const grouped = groupComponents(predictor, posterior);
  const leader = grouped.suspects[0]!.share;
  const most = Math.min(leader, mostToClaim(predictor, belief, grouped));
  return {
    may: posterior.components.flatMap(({ hypothesis, share, presence, weights }, i) =>
      hypothesis === 0
        ? []
        : [
            {
              hypothesis,
              goes: presence < 1,
              share: grouped.of[i] === 0 ? (share * most) / leader : share,
              places: byPlace(weights, predictor.draws),
            },
          ],
    ),
    sound: posterior.share[0]!,
    notHere: posterior.notHere + leader - most,
    folded: gathered.folded,
    carried: belief.carried,
  };
}

/** Weights of samples, [severity · draws + draw], summed over the draws. */
function byPlace(weights: Float64Array, draws: number): Float64Array {
  const out = new Float64Array(weights.length / draws);
  weights.forEach((w, s) => (out[Math.floor(s / draws)]! += w));
  return out;
}

/** Weighs what was seen of one machine, as it is between two repairs. */
function assessMachine(
  predictor: Predictor,
  gathered: Gathered,
  carried: AfterRepair | undefined,
  options: BeliefOptions,
): Belief {
  const { evidence } = gathered;
  const how = {
    factors: gathered.factors,
    comesAndGoes: gathered.comesAndGoes,
    going: carried?.going,
    severities: carried?.severities,
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
    p.components[0] !== undefined &&
    // a repaired machine on which nothing is wrong needs no verdict
    !(carried && p.components[0].hypothesis === 0) &&
    (explainsAlmostAnything(predictor, p.components[0]) || nearVerdict(p));
  const unfinished = evidence.length > 0 && (unsure(narrow, 1) || hasty(narrow));
  if (options.multiple === "never" || !unfinished)
    return { gathered, carried, posterior: narrow, breadth: "narrow", alarmed: false, multiple: [], unfinished };
  // the best leave something unexplained: look further before several faults are thought of
  const posterior = weigh(predictor, evidence, { ...how, breadth: "wide" });
  const alarmed = unsure(posterior, 2) || hasty(posterior);
  if (!alarmed) return { gathered, carried, posterior, breadth: "wide", alarmed, multiple: [], unfinished: false };
  const never = () => false;
  const stop = options.stop ?? never;
  const ranked = searchMultipleFaults(predictor, evidence, gathered.factors, stop);
  const found = solveTogether(predictor, evidence, ranked, { ...how, breadth: "wide" }, stop);
  const weighWith = (multiple: readonly MultipleFaultHypothesis[]) =>
    weigh(predictor, evidence, { ...how, breadth: "wide", multiple });
  /**
   * Faults that only show together: where all that was thought of leaves something unexplained, and beside each fault
   * of a set that leads
   */
  const withFurtherFaults = (so: ReturnType<typeof refineFaultSets>) => {
    const lead = so.posterior.components[0];
    const leading = lead && lead.share >= LEADS ? likeliestOf(predictor, lead) : [];
    // one reading that is off is a slip of the hand, or a part that is not quite as it was thought
    const isExplained =
      lead !== undefined &&
      so.posterior.notHere <= DOUBT &&
      leftOver(predictor, lead, evidence).readings.length < OFF_TOGETHER;
    if (stop() || (isExplained && leading.length < 2)) return so;
    const wide = { ...how, breadth: "wide" as const };
    const further = searchFurtherFaults(predictor, evidence, wide, { leading, isExplained }, stop);
    if (further.length === 0) return so;
    // a set that was thought of before counts once
    const nameOf = (m: MultipleFaultHypothesis) => [...m.members].sort((a, b) => a - b).join(" ");
    const again = new Set(further.map(nameOf));
    const before = so.multiple.filter((m) => !again.has(nameOf(m)));
    const multiple = [...before, ...solveTogether(predictor, evidence, further, wide, stop)];
    return refineFaultSets(predictor, multiple, weighWith(multiple), weighWith, stop);
  };
  const coarse = weighSeveral(found, posterior, weighWith);
  const first = refineFaultSets(predictor, coarse.multiple, coarse.posterior, weighWith, stop);
  const whole = withFurtherFaults(first);
  return { gathered, carried, alarmed, unfinished: false, breadth: "wide", ...whole };
}
/** So many readings that are off are not all slips of the hand. Judgement. */
const OFF_TOGETHER = 2;
/** From this share on a set of faults leads, and is held against others. Judgement. */
const LEADS = 0.3;
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
    {
      factors: gathered.factors,
      comesAndGoes: gathered.comesAndGoes,
      going: belief.carried?.going,
      severities: belief.carried?.severities,
      multiple,
      breadth: belief.breadth,
    },
  );
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
