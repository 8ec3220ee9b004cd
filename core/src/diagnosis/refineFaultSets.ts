import { severityPlace } from "../prediction/hypothesis.js";
import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import type { MultipleFaultHypothesis, Posterior } from "./posterior.js";

/** Sets worth a closer look, and how many. Judgement: time. */
const WORTH_FROM = 0.01;
const MOST_REFINED = 3;
/** A severity is halved in so often: an eighth of a step of the grid is less than a reading tells. */
const ROUNDS = 3;

/**
 * Closer severities for the leading sets of faults. A set is first solved at a few severities of each member; readings
 * of two faults at once then fall between them. Each round solves the set again half as far apart around the best, in
 * all draws.
 * @param multiple all sets weighed so far @param posterior what they came to
 * @param weighWith weighs the logbook with other sets
 * @returns the sets, closer ones in place of the coarse, and what they come to
 */
export function* refineFaultSets(
  predictor: Predictor,
  multiple: readonly MultipleFaultHypothesis[],
  posterior: Posterior,
  weighWith: (multiple: readonly MultipleFaultHypothesis[]) => Posterior,
  stop: () => boolean,
): InSteps<{ readonly multiple: readonly MultipleFaultHypothesis[]; readonly posterior: Posterior }> {
  const leading = leadingOf(multiple, posterior);
  let closer = leading;
  let found = posterior;
  for (let round = 1; round <= ROUNDS && !stop(); round++) {
    yield;
    const next = closer.map((m) => refined(predictor, m, found, round) ?? m);
    if (next.every((m, i) => m === closer[i])) break;
    closer = next;
    if (round < ROUNDS) found = weighWith(closer); // the others wait until these are as close as they get
  }
  if (closer === leading) return { multiple, posterior };
  yield;
  const list = multiple.map((m) => closer[leading.indexOf(m)] ?? m);
  return { multiple: list, posterior: weighWith(list) };
}

/** The sets of faults that hold most. */
function leadingOf(
  multiple: readonly MultipleFaultHypothesis[],
  posterior: Posterior,
): readonly MultipleFaultHypothesis[] {
  const held = (m: MultipleFaultHypothesis) => posterior.share[m.hypothesis]!;
  return multiple
    .filter((m) => held(m) >= WORTH_FROM)
    .sort((a, b) => held(b) - held(a))
    .slice(0, MOST_REFINED);
}

/** @returns undefined where no member has severities between which there is anything */
function refined(
  predictor: Predictor,
  m: MultipleFaultHypothesis,
  posterior: Posterior,
  round: number,
): MultipleFaultHypothesis | undefined {
  const component = posterior.components.find((c) => c.hypothesis === m.hypothesis);
  if (!component) return undefined;
  const { weights } = component;
  const step = 1 / 2 ** round;
  const at = likeliestPlaces(predictor, m.hypothesis, weights);
  const members = [...m.members].sort((a, b) => a - b); // as `combine` has them
  const choices = members.map((h, i) => {
    const last = predictor.faults[h - 1]!.severities.length - 1;
    const here = severityPlace(predictor.faults[h - 1]!, at[i]!);
    // of three each round leaves one as it is: every combination of all three would take too long
    if (members.length > 2 && round % members.length === i) return [here];
    return last === 0 ? [0] : [here - step, here, here + step].filter((k) => k >= 0 && k <= last);
  });
  if (choices.every((c) => c.length === 1)) return undefined;
  const hypothesis = predictor.combine(members, choices, predictor.draws);
  const logChosen = members.reduce((sum, h, i) => {
    const all = predictor.faults[h - 1]!.severities.length;
    return sum + (all === 1 ? 0 : Math.log((choices[i]!.length * step) / all));
  }, 0);
  return {
    hypothesis,
    members: m.members,
    logChosen,
    logPrior: m.logPrior - m.logChosen + logChosen,
    wanted: new Uint8Array(predictor.hypotheses[hypothesis]!.samples).fill(1),
  };
}

/** The severities, one of each fault, that carry most weight. */
function likeliestPlaces(predictor: Predictor, h: number, weights: Float64Array): readonly number[] {
  const { draws } = predictor;
  let best = 0;
  let most = -1;
  for (let s = 0; s < weights.length; s += draws) {
    let sum = 0;
    for (let d = 0; d < draws; d++) sum += weights[s + d]!;
    if (sum > most) [most, best] = [sum, s];
  }
  return predictor.severitiesOf(h, best);
}
