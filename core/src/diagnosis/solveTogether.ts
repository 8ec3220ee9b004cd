import { severityPlace } from "../prediction/hypothesis.js";
import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import type { Evidence } from "./evidence.js";
import { setAtSeverities } from "./multipleFaults.js";
import type { MultipleFaultHypothesis, WeighOptions } from "./posterior.js";
import { fitsOfSets } from "./weigh.js";

/** Sets whose severities are looked for by solving, and in how many rounds over their members. Judgement: time. */
const MOST_SOLVED = 40;
const ROUNDS = 2;
/** So many severities of a member are tried in a round, spread over its grid. Judgement: time. */
const MOST_PLACES = 8;
/** Of those solved, the best so many are weighed before all others. */
const MOST_FIRST = 12;
/** Of those solved, the best so many are solved in all draws. */
const MOST_FINAL = 8;
/** Draws in which they are tried. Judgement: time. */
const DRAWS = 2;

/**
 * Severities for the sets whose members move the same readings. What each does by itself says little of what they do
 * together, so one member after the other is solved over its severities with the others as they fit best so far
 * (coordinate search).
 * @param sets as ranked by what each member does by itself
 * @returns the same sets, at better severities where there were any, the best of those solved first
 */
export function* solveTogether(
  predictor: Predictor,
  evidence: readonly Evidence[],
  sets: readonly MultipleFaultHypothesis[],
  options: WeighOptions,
  stop: () => boolean,
): InSteps<readonly MultipleFaultHypothesis[]> {
  const tried = sets.filter((m) => m.together).slice(0, MOST_SOLVED);
  if (tried.length === 0) return sets;
  const searches = tried.map((m) => new SeveritySearch(predictor, m));
  const lead = () => searches.reduce((most, s) => Math.max(most, s.worth), -Infinity);
  const fits = (list: readonly MultipleFaultHypothesis[]) => fitsOfSets(predictor, evidence, list, options, lead());
  fits(tried).forEach((places, i) => searches[i]!.begin(places));
  for (let turn = 0; turn < ROUNDS * 3; turn++)
    for (const search of searches) {
      if (stop()) return sets;
      yield;
      const next = search.line(turn, options.factors);
      if (next) search.take(fits([next])[0]!, turn);
    }
  // few draws let a severity stand in for what is not known: the best are solved once more in all of them
  const finalists = [...searches].sort((a, b) => b.worth - a.worth).slice(0, MOST_FINAL);
  for (const search of finalists) search.goOn(fits([search.here(options.factors)])[0]![0]!);
  for (let turn = 0; turn < 3; turn++)
    for (const search of finalists) {
      if (stop()) return sets;
      yield;
      const next = search.line(turn, options.factors, predictor.draws);
      if (next) search.take(fits([next])[0]!, turn);
    }
  const solved = searches.sort((a, b) => b.worth - a.worth).map((s) => ({ was: s.set, is: s.result(options.factors) }));
  const was = new Set(solved.map((s) => s.was));
  const first = solved.slice(0, MOST_FIRST);
  return [...first.map((s) => s.is), ...sets.filter((m) => !was.has(m)), ...solved.slice(MOST_FIRST).map((s) => s.is)];
}

/** One set, at the severities that fit best so far. */
class SeveritySearch {
  private readonly members: readonly number[];
  private places: number[] = [];
  /** ln likelihood at the severities that fit best so far */
  private fit = -Infinity;
  private lineTried: readonly number[] = [];
  private isMoved = false;
  private still = 0;

  constructor(
    private readonly predictor: Predictor,
    readonly set: MultipleFaultHypothesis,
  ) {
    this.members = [...set.members].sort((a, b) => a - b); // as `combine` has them
  }
  /** ln of prior times likelihood, at the severities that fit best */
  get worth(): number {
    return this.fit + this.set.logPrior;
  }
  private severities(i: number): readonly number[] {
    return this.predictor.faults[this.members[i]! - 1]!.severities;
  }

  begin(fits: Float64Array): void {
    const best = indexOfMost(fits);
    this.fit = fits[best]!;
    this.places = this.predictor
      .severitiesOf(this.set.hypothesis, best * this.predictor.draws)
      .map((value, i) => severityPlace(this.predictor.faults[this.members[i]! - 1]!, value));
  }
  /** the next line to be solved: one member over its severities; undefined where there is nothing to choose */
  line(turn: number, factors: Float64Array | undefined, draws = DRAWS): MultipleFaultHypothesis | undefined {
    const i = turn % 3;
    if (i >= this.members.length || this.still >= this.members.length || this.severities(i).length === 1)
      return undefined;
    const count = this.severities(i).length;
    const step = Math.max(1, (count - 1) / (MOST_PLACES - 1));
    const spread = Array.from({ length: Math.min(count, MOST_PLACES) }, (_, k) => Math.round(k * step));
    this.lineTried = [...new Set([...spread, this.places[i]!])].sort((a, b) => a - b);
    return setAtSeverities(
      this.predictor,
      this.members,
      this.places.map((p, k) => (k === i ? this.lineTried : [p])),
      factors,
      draws,
    );
  }
  /** the set as it fits best so far, in all draws */
  here(factors: Float64Array | undefined): MultipleFaultHypothesis {
    return setAtSeverities(
      this.predictor,
      this.members,
      this.places.map((p) => [p]),
      factors,
    );
  }
  /** Every member is tried once more, from where it stands. @param fit ln likelihood there, in other draws */
  goOn(fit: number): void {
    this.fit = fit;
    this.still = 0;
  }
  take(fits: Float64Array, turn: number): void {
    const best = indexOfMost(fits);
    const place = this.lineTried[best]!;
    this.fit = fits[best]!;
    this.still = place === this.places[turn % 3] ? this.still + 1 : 0;
    if (place === this.places[turn % 3]) return;
    this.places[turn % 3] = place;
    this.isMoved = true;
  }
  result(factors: Float64Array | undefined): MultipleFaultHypothesis {
    if (!this.isMoved) return this.set;
    // of three members fewer, since every combination is solved
    const near = (p: number) => (this.places.length > 2 ? [p, p + 1] : [p - 1, p, p + 1]);
    const choices = this.places.map((p, i) => near(p).filter((k) => k >= 0 && k < this.severities(i).length));
    return setAtSeverities(this.predictor, this.members, choices, factors);
  }
}

function indexOfMost(list: Float64Array): number {
  let best = 0;
  for (let i = 1; i < list.length; i++) if (list[i]! > list[best]!) best = i;
  return best;
}
