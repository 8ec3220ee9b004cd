import { severityPlace } from "../prediction/hypothesis.js";
import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import type { MultipleFaultHypothesis, Posterior } from "./posterior.js";

/** Sets worth a closer look, and how many. Judgement: time. */
const WORTH_FROM = 0.01;
const MOST_REFINED = 3;
/** A severity is halved in so often: an eighth of a step of the grid is less than a reading tells. */
const ROUNDS = 3;
/** For each refined set: sets with another member that are tried at its severities, and kept. Judgement: time. */
const MOST_TWINS = 16;
const MOST_KEPT = 6;
/** Twins this far behind the best are not kept, ln. Judgement. */
const LN_BEHIND = 7;

/** How sets are weighed while they are refined. */
export interface RefineWith {
  /** the logbook weighed with other sets */
  readonly weighWith: (multiple: readonly MultipleFaultHypothesis[]) => Posterior;
  /** ln likelihood of each set by combination of severities; see `fitsOfSets` */
  readonly fitsOf: (sets: readonly MultipleFaultHypothesis[], lead?: number) => readonly Float64Array[];
  readonly stop: () => boolean;
}
/** A set at severities between those of the grid. */
interface Refined {
  readonly set: MultipleFaultHypothesis;
  /** places on the grid of each member, in the order of `combine`, and how far apart they are */
  readonly choices: readonly (readonly number[])[];
  readonly step: number;
}

/**
 * Closer severities for the leading sets of faults. A set is first solved at a few severities of each member; readings
 * of two faults at once then fall between them. Each round solves the set again half as far apart around the best, in
 * all draws. Sets that differ from one of them in a single member are then tried at its severities: else what only has
 * coarser ones would lose to it for that alone.
 * @param multiple all sets weighed so far @param posterior what they came to
 * @returns the sets, closer ones in place of the coarse, and what they come to
 */
export function* refineFaultSets(
  predictor: Predictor,
  multiple: readonly MultipleFaultHypothesis[],
  posterior: Posterior,
  how: RefineWith,
): InSteps<{ readonly multiple: readonly MultipleFaultHypothesis[]; readonly posterior: Posterior }> {
  const leading = leadingOf(multiple, posterior);
  let closer: readonly (Refined | undefined)[] = leading.map(() => undefined);
  const setAt = (i: number) => closer[i]?.set ?? leading[i]!;
  let found = posterior;
  for (let round = 1; round <= ROUNDS && !how.stop(); round++) {
    yield;
    const next = leading.map((_, i) => refined(predictor, setAt(i), found, round) ?? closer[i]);
    if (next.every((m, i) => m === closer[i])) break;
    closer = next;
    if (round < ROUNDS) found = how.weighWith(leading.map((_, i) => setAt(i))); // the others wait until these are close
  }
  if (closer.every((c) => c === undefined)) return { multiple, posterior };
  const better = new Map(leading.map((m, i) => [nameOf(m.members), setAt(i)]));
  for (const one of closer) {
    yield;
    if (!one || how.stop()) continue;
    for (const twin of twinsOf(predictor, one, multiple, how)) {
      const name = nameOf(twin.members);
      if (!better.has(name)) better.set(name, twin);
    }
  }
  yield;
  const list = multiple.map((m) => better.get(nameOf(m.members)) ?? m);
  return { multiple: list, posterior: how.weighWith(list) };
}
/** The same for the same faults, in whatever order. */
export const nameOf = (members: readonly number[]) => sorted(members).join(" ");
/** As `combine` has them. */
const sorted = (members: readonly number[]) => [...members].sort((a, b) => a - b);

/** The sets that differ from a refined one in one member, at its severities, where they then do about as well. */
function twinsOf(
  predictor: Predictor,
  of: Refined,
  multiple: readonly MultipleFaultHypothesis[],
  { fitsOf }: RefineWith,
): readonly MultipleFaultHypothesis[] {
  const twins = multiple.filter((m) => differInOne(m.members, of.set.members)).slice(0, MOST_TWINS);
  if (twins.length === 0) return [];
  const worth = ({ logPrior }: MultipleFaultHypothesis, fits: Float64Array) => logPrior + Math.max(...fits);
  const lead = worth(of.set, fitsOf([of.set])[0]!);
  // one severity of what they share tells which are worth more
  const rough = twins.map((m) => twin(predictor, { ...of, choices: of.choices.map(middleOf) }, m));
  const fits = fitsOf(rough, lead);
  return twins
    .map((m, i) => ({ m, worth: worth(rough[i]!, fits[i]!) }))
    .filter((t) => t.worth > lead - LN_BEHIND)
    .sort((a, b) => b.worth - a.worth)
    .slice(0, MOST_KEPT)
    .map(({ m }) => twin(predictor, of, m));
}
const middleOf = (choices: readonly number[]) => choices.slice(choices.length >> 1, (choices.length >> 1) + 1);
/** Whether two sets are the same but for one member. */
export function differInOne<T>(a: readonly T[], b: readonly T[]): boolean {
  return a.length === b.length && a.filter((x) => !b.includes(x)).length === 1;
}
/** A set at the severities of another, but for the one member that is its own. */
function twin(predictor: Predictor, of: Refined, m: MultipleFaultHypothesis): MultipleFaultHypothesis {
  const theirs = sorted(of.set.members);
  const gone = theirs.findIndex((h) => !m.members.includes(h));
  const members = sorted(m.members);
  const parts = members.map((h, i) => {
    const at = theirs.indexOf(h);
    const fault = predictor.faults[h - 1]!;
    const isAlike = at < 0 && fault.mode === predictor.faults[theirs[gone]! - 1]!.mode;
    if (at >= 0 || isAlike) return { choices: of.choices[at >= 0 ? at : gone]!, step: of.step };
    const own = predictor.hypotheses[m.hypothesis]!.severities.map((all) => severityPlace(fault, all[i]!));
    return { choices: [...new Set(own)].sort((a, b) => a - b), step: 1 };
  });
  return atPlaces(predictor, m, members, parts);
}
/** A set of faults at places on their grids that stand so far apart. */
function atPlaces(
  predictor: Predictor,
  m: MultipleFaultHypothesis,
  members: readonly number[],
  parts: readonly { readonly choices: readonly number[]; readonly step: number }[],
): MultipleFaultHypothesis {
  const hypothesis = predictor.combine(
    members,
    parts.map((p) => p.choices),
    predictor.draws,
  );
  const logChosen = members.reduce((sum, h, i) => {
    const all = predictor.faults[h - 1]!.severities.length;
    return sum + (all === 1 ? 0 : Math.log((parts[i]!.choices.length * parts[i]!.step) / all));
  }, 0);
  return {
    hypothesis,
    members: m.members,
    logChosen,
    logPrior: m.logPrior - m.logChosen + logChosen,
    wanted: new Uint8Array(predictor.hypotheses[hypothesis]!.samples).fill(1),
  };
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
): Refined | undefined {
  const component = posterior.components.find((c) => c.hypothesis === m.hypothesis);
  if (!component) return undefined;
  const { weights } = component;
  const step = 1 / 2 ** round;
  const at = likeliestPlaces(predictor, m.hypothesis, weights);
  const members = sorted(m.members);
  const choices = members.map((h, i) => {
    const last = predictor.faults[h - 1]!.severities.length - 1;
    const here = severityPlace(predictor.faults[h - 1]!, at[i]!);
    // of three each round leaves one as it is: every combination of all three would take too long
    if (members.length > 2 && round % members.length === i) return [here];
    return last === 0 ? [0] : [here - step, here, here + step].filter((k) => k >= 0 && k <= last);
  });
  if (choices.every((c) => c.length === 1)) return undefined;
  const parts = choices.map((c) => ({ choices: c, step }));
  return { set: atPlaces(predictor, m, members, parts), choices, step };
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
