import type { Entry } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import { finished, type InSteps } from "../steps.js";
import { carryOver, entriesBefore, type AfterRepair, type Before } from "./afterRepair.js";
import { assessMachine, type Belief, type BeliefOptions } from "./assessment.js";
import { gather } from "./evidence.js";
import { groupComponents } from "./groups.js";
import { mostToClaim } from "./trust.js";

/**
 * Weighs a logbook: single faults first, and several at once where the leading single one leaves too much unexplained.
 */
export function assess(predictor: Predictor, entries: readonly Entry[], options: BeliefOptions = {}): Belief {
  return finished(assessInSteps(predictor, entries, options));
}
/**
 * As `assess`, in steps. Between two of them the predictor may be asked for something else; where its `generation` has
 * grown meanwhile, begin anew.
 */
export function* assessInSteps(
  predictor: Predictor,
  entries: readonly Entry[],
  options: BeliefOptions = {},
): InSteps<Belief> {
  const found = options.begun?.gathered ?? gather(predictor, entries);
  const carried = options.begun?.carried ?? carriedOver(predictor, found.folded.since, entries);
  if (!carried) return yield* assessMachine(predictor, found, undefined, options);
  // what is known of its history was weighed before the repair, and is carried over with the rest
  return yield* assessMachine(predictor, { ...found, factors: carried.factors }, carried, options);
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
