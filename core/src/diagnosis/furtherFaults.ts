import { severityPlace } from "../prediction/hypothesis.js";
import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import { type AtSeverity, BesideOthers } from "./besideOthers.js";
import { logCode } from "./codeWeights.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { faultsAtSeverities, MOVES_FROM, type FaultAtSeverity } from "./faultsAtSeverities.js";
import { MISFIT_SIGMAS } from "./fit.js";
import { soundFits } from "./multipleFaults.js";
import type { MixtureComponent, MultipleFaultHypothesis, WeighOptions } from "./posterior.js";
import { telling } from "./tellingReadings.js";
import { fitsOfSets } from "./weigh.js";

/**
 * Faults taken for given, those that gain most by what they explain and those that contradict least; further faults
 * weighed beside each, and instead of each that leads, and sets kept of all. Judgement: time.
 */
const MOST_GAINING = 5;
const LEAST_AT_ODDS = 4;
const MOST_BESIDE = 8;
const MOST_INSTEAD = 20;
const MOST_KEPT = 24;
/** Others in the place of each member of a set that leads, which are tried together. Judgement: time. */
const MOST_IN_PLACE = 4;
/** Faults that do the same, as far as was read, and take the place of one that was given. Judgement: time. */
const MOST_ALIKE = 4;

/** Pairs beside which a third fault is looked for. Judgement: time. */
const MOST_PAIRS = 2;

/**
 * Further faults, looked for with a first one in place. What two faults do together need not show in what each does by
 * itself: a wire shorted to an open circuit pulls it along, a second short on a shorted pair moves both. So every other
 * fault of the machine is solved together with each of the most promising ones, at the readings that this one leaves
 * furthest off first; those that bring them there are weighed by everything.
 * @param about the faults that lead, and whether they leave nothing unexplained: then only the others are looked for
 * which explain it as well beside all but one of them
 * @returns the best sets, to be solved closer
 */
export function* searchFurtherFaults(
  predictor: Predictor,
  evidence: readonly Evidence[],
  options: WeighOptions,
  about: { readonly leading: readonly AtSeverity[]; readonly isExplained: boolean },
  stop: () => boolean,
): InSteps<readonly MultipleFaultHypothesis[]> {
  const readings = telling(evidence.filter((e) => e.kind === "reading"));
  if (readings.length === 0) return [];
  const codes = evidence.filter((e) => e.kind === "code");
  const search = new BesideOthers(predictor, readings, options, codes);
  const found = new Map<string, { readonly faults: readonly AtSeverity[]; readonly worth: number }>();
  const weighed = (list: readonly (readonly AtSeverity[])[]) => {
    const sets = list.map((faults) => search.setOf(faults, AND_BESIDE, 1));
    fitsOfSets(predictor, evidence, sets, options).forEach((fits, i) => {
      const worth = Math.max(...fits) + sets[i]!.logPrior;
      const name = sets[i]!.members.join(" ");
      if (worth > (found.get(name)?.worth ?? -Infinity)) found.set(name, { faults: list[i]!, worth });
    });
  };
  const best = () => [...found.values()].sort((a, b) => b.worth - a.worth).slice(0, MOST_KEPT);
  const promising = about.isExplained ? [] : promisingFaults(predictor, evidence, readings, options, stop);
  const { leading } = about;
  // of a set that leads all but one; of one fault itself, where it leaves something unexplained
  const isAlone = leading.length === 1;
  const before = isAlone ? (about.isExplained ? [] : [leading]) : leading.map((f) => leading.filter((o) => o !== f));
  const given = [
    ...before.map((faults) => ({ faults, most: MOST_INSTEAD })),
    ...promising.map((p) => ({ faults: [p.given], most: MOST_BESIDE })),
  ];
  for (const { faults, most } of given) {
    yield;
    if (!stop()) weighed(search.beside(faults, most).map((more) => [...faults, more]));
  }
  // each member of a set that leads has others that do as well in its place: they may stand together too
  if (leading.length > 1 && !stop()) {
    yield;
    weighed(withTwoReplaced(leading, best()));
  }
  // others that do the same as what was given
  for (const { faults } of best()) {
    const [given, more] = faults;
    const alike = promising.find((p) => p.given === given)?.alike ?? [];
    weighed(alike.filter((a) => a.h !== more!.h).map((a) => [a, more!]));
  }
  const pairs = about.isExplained ? [] : best().filter(({ faults }) => faults.length === 2);
  for (const { faults } of pairs.slice(0, MOST_PAIRS)) {
    yield;
    if (stop()) break;
    weighed(search.beside(faults, MOST_BESIDE).map((third) => [...faults, third]));
  }
  return best().map(({ faults }) => ({ ...search.setOf(faults, AND_BESIDE), together: true }));
}
/** Sets in which two members at once are others, each of which does well in the place of one of those that lead. */
export function withTwoReplaced(
  leading: readonly AtSeverity[],
  found: readonly { readonly faults: readonly AtSeverity[] }[],
): (readonly AtSeverity[])[] {
  const isIn = (faults: readonly AtSeverity[], { h }: AtSeverity) => faults.some((f) => f.h === h);
  const instead = leading.map((member) =>
    found
      .filter(
        ({ faults }) =>
          faults.length === leading.length && leading.every((l) => isIn(faults, l) === (l.h !== member.h)),
      )
      .slice(0, MOST_IN_PLACE)
      .map(({ faults }) => faults.find((f) => !isIn(leading, f))!),
  );
  return leading.flatMap((_, i) =>
    leading.slice(i + 1).flatMap((_l, k) => {
      const j = i + 1 + k;
      const others = leading.filter((_f, at) => at !== i && at !== j);
      return instead[i]!.flatMap((a) => instead[j]!.flatMap((b) => (a.h === b.h ? [] : [[...others, a, b]])));
    }),
  );
}

/** The faults of a component, each at its likeliest severity; none of a sound machine. */
export function likeliestOf(predictor: Predictor, { hypothesis, weights }: MixtureComponent): AtSeverity[] {
  const { draws } = predictor;
  const { faults } = predictor.hypotheses[hypothesis]!;
  const byPlace = new Float64Array(weights.length / draws);
  weights.forEach((w, s) => (byPlace[Math.floor(s / draws)]! += w));
  const values = predictor.severitiesOf(hypothesis, byPlace.indexOf(Math.max(...byPlace)) * draws);
  return faults.map((fault, i) => ({
    h: predictor.faults.indexOf(fault) + 1,
    severity: severityPlace(fault, values[i]!),
  }));
}
/** Places on the grid of severities, from one of them. */
const AND_BESIDE = [-1, 0, 1];

/** Single faults that fit what they move, whatever they leave; those that do the same stand together. */
function promisingFaults(
  predictor: Predictor,
  evidence: readonly Evidence[],
  readings: readonly ReadingEvidence[],
  { factors }: WeighOptions,
  stop: () => boolean,
): { readonly given: AtSeverity; readonly alike: readonly AtSeverity[] }[] {
  const codes = evidence.filter((e) => e.kind === "code");
  const toExplain = { codes, readings, present: codes.filter((e) => e.present) };
  const parts = faultsAtSeverities(predictor, toExplain, factors, stop);
  const sound = soundFits(predictor, readings);
  const gain = new Map(parts.map((p) => [p, gainOf(p, codes, sound)]));
  const byGain = alikeTogether([...parts].sort((a, b) => gain.get(b)! - gain.get(a)!));
  const gaining = byGain.slice(0, MOST_GAINING);
  const known = new Set(gaining.flatMap((g) => [g.given, ...g.alike].map((p) => p.h)));
  const others = alikeTogether(parts).filter((g) => !known.has(g.given.h));
  return [...gaining, ...others.slice(0, LEAST_AT_ODDS)];
}
/** What a fault explains by itself that a sound machine does not, with its prior, ln. */
function gainOf(p: FaultAtSeverity, codes: readonly CodeEvidence[], sound: Float64Array): number {
  const byCodes = codes.reduce((sum, c, i) => sum + logCode(p.sets[i]!, c) - logCode(0, c), p.logPrior);
  return p.fits.reduce((sum, fit, r) => (p.moves[r]! > MOVES_FROM ? sum + fit - sound[r]! : sum), byCodes);
}
/** Each fault once, at the severity that comes first; those that do the same stand together. */
function alikeTogether(parts: readonly FaultAtSeverity[]): Alike[] {
  const first = new Map<number, FaultAtSeverity>();
  for (const part of parts) if (!first.has(part.h)) first.set(part.h, part);
  const groups: Alike[] = [];
  for (const part of first.values()) {
    const same = groups.find((g) => doTheSame(g.given, part));
    if (!same) groups.push({ given: part, alike: [] });
    else if (same.alike.length < MOST_ALIKE) same.alike.push(part);
  }
  return groups;
}
interface Alike {
  readonly given: FaultAtSeverity;
  readonly alike: FaultAtSeverity[];
}
/** Fits and moves nearer than this are the same, ln and standard deviations. Judgement. */
const SAME = 0.5;
function doTheSame(a: FaultAtSeverity, b: FaultAtSeverity): boolean {
  return (
    a.fits.every((f, r) => Math.abs(f - b.fits[r]!) < SAME) &&
    a.moves.every((m, r) => Math.abs(m - b.moves[r]!) < SAME * Math.max(1, m / MISFIT_SIGMAS)) &&
    a.sets.every((p, c) => Math.abs(p - b.sets[c]!) < SAME)
  );
}
