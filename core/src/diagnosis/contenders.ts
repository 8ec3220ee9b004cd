import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import { CloserLook, heaviestPlaces } from "./closerLook.js";
import { logCode } from "./codeWeights.js";
import type { Evidence } from "./evidence.js";
import type { FaultAtSeverity } from "./faultsAtSeverities.js";
import { wayName, type CloserFits, type MixtureComponent, type Posterior, type Way } from "./posterior.js";
import { differInOne } from "./refineFaultSets.js";

/** Hypotheses looked at for what they hold, in each round, and in how many rounds. Judgement: time. */
const MOST_IN_ROUND = 8;
const ROUNDS = 3;
/** Those that hold less than this together are not looked at. Judgement: no verdict needs them. */
const REST = 0.005;
/**
 * Hypotheses that few draws may have put behind the leader by mistake, as a part of what it holds, and how many of
 * them. Judgement: time.
 */
const MAY_LEAD = 1e-5;
const MOST_BESIDES = 16;
/** Sets that do about as well as a leader, ln, and how many of them. Judgement: time. */
const LN_TWIN = 3;
const MOST_TWINS = 8;
/** Single faults looked at that fit every reading best by itself, whatever few draws say of all together. */
const MOST_SINGLES = 6;

interface About {
  /** the same without any closer look: by this measure those that do the same stand together */
  readonly byFewDraws: Posterior;
  /** single faults, severity by severity */
  readonly parts: readonly FaultAtSeverity[];
  /** sets that few draws make little of, to be looked at whatever they hold; the likeliest severities first */
  readonly fewer: readonly number[];
  /** what was looked at before */
  readonly seen: CloserFits | undefined;
}

/**
 * Looks closely at the hypotheses that lead, at single faults that explain each piece of evidence by itself, and at the
 * members of sets that lead: a set must be better than each of its members alone.
 * @param weighWith weighs everything anew with what was seen
 * @returns undefined where the machine is too large for it
 */
export function* lookCloser(
  predictor: Predictor,
  evidence: readonly Evidence[],
  posterior: Posterior,
  { byFewDraws, parts, fewer, seen }: About,
  weighWith: (closer: CloserFits) => Posterior,
  stop: () => boolean,
): InSteps<Posterior | undefined> {
  const readings = evidence.filter((e) => e.kind === "reading");
  const look = readings.length > 0 ? CloserLook.at(predictor) : undefined;
  if (!look) return undefined;
  look.makeRoom();
  const closer = new Map(seen);
  const singles = bestSingles(predictor, evidence, parts);
  let found = posterior;
  for (let round = 0; round < ROUNDS && !stop(); round++) {
    const leaders = leadersOf(predictor, found, singles);
    const wanted = [
      ...(round === 0 ? [...singles.values(), ...fewer.map((h) => lasting(h, firstOf(predictor, h)))] : []),
      ...leaders,
      ...besides(byFewDraws, leaders),
      ...twins(predictor, byFewDraws, leaders),
    ];
    const fresh = new Map(wanted.map((c) => [wayName(c), c]));
    for (const name of closer.keys()) fresh.delete(name);
    if (fresh.size === 0) break;
    for (const [name, { weights, ...way }] of fresh) {
      yield;
      if (stop()) return found;
      closer.set(name, { way, fit: look.fitUpward(way, heaviestPlaces(weights, predictor.draws), readings) });
    }
    found = weighWith(closer);
  }
  return found;
}

/** Something to look at: a way, with the weights of its samples. */
interface Contender extends Way {
  readonly weights: Float64Array;
}
const contender = ({ hypothesis, presence, misplaced, weights }: Contender): Contender => ({
  hypothesis,
  presence,
  misplaced,
  weights,
});
const lasting = (hypothesis: number, weights: Float64Array): Contender => ({
  hypothesis,
  presence: 1,
  misplaced: undefined,
  weights,
});

/**
 * What was seen closely, as it would be with one reading fewer. What has no share now keeps its fit: a reading may have
 * been a slip in any case, so leaving one out cannot give it a share that counts.
 */
export function closerWithout(
  predictor: Predictor,
  { closer, posterior }: { readonly closer?: CloserFits | undefined; readonly posterior: Posterior },
  evidence: readonly Evidence[],
): CloserFits | undefined {
  const readings = evidence.filter((e) => e.kind === "reading");
  const look = closer && CloserLook.at(predictor);
  if (!look || readings.length === 0) return undefined;
  const living = new Set(posterior.components.map(wayName));
  return new Map(
    [...closer].map(([name, seen]) => {
      const { way, fit } = seen;
      return [name, living.has(name) ? { way, fit: look.fit(way, fit.keys(), readings) } : seen];
    }),
  );
}

/** What holds nearly everything, and the members of sets. */
function leadersOf(
  predictor: Predictor,
  { components }: Posterior,
  singles: ReadonlyMap<number, Contender>,
): readonly Contender[] {
  const all = components.reduce((sum, c) => sum + c.share, 0);
  const found = new Map<string, Contender>();
  let held = 0;
  for (const c of components.slice(0, MOST_IN_ROUND)) {
    if (all - held < REST) break;
    held += c.share;
    found.set(wayName(c), contender(c));
    const { faults } = predictor.hypotheses[c.hypothesis]!;
    if (faults.length < 2) continue;
    for (const fault of faults) {
      const h = predictor.faults.indexOf(fault) + 1;
      const own = components.find((o) => o.hypothesis === h && o.presence === 1 && !o.misplaced);
      const member = own ? contender(own) : (singles.get(h) ?? lasting(h, evenly(predictor, h)));
      if (!found.has(wayName(member))) found.set(wayName(member), member);
    }
  }
  return [...found.values()];
}
/** What by few draws is not hopelessly behind: what a closer look finds of the leader may be true of it. */
function besides({ components }: Posterior, leaders: readonly Contender[]): readonly Contender[] {
  const of = new Set(leaders.map(wayName));
  const lead = components.reduce((most, c) => (of.has(wayName(c)) ? Math.max(most, c.share) : most), 0);
  return components
    .filter((c) => c.share >= MAY_LEAD * lead && !of.has(wayName(c)))
    .slice(0, MOST_BESIDES)
    .map(contender);
}
/**
 * Sets that by few draws do about as well as one that leads, with one fault in the place of another: what a closer look
 * gives to one of them it would give to all.
 */
function twins(predictor: Predictor, { components }: Posterior, leaders: readonly Contender[]): readonly Contender[] {
  const faultsOf = ({ hypothesis }: Way) => predictor.hypotheses[hypothesis]!.faults;
  const sets = components.filter((c) => faultsOf(c).length > 1);
  const found = new Map<string, { readonly c: MixtureComponent; readonly apart: number }>();
  for (const leader of leaders) {
    const own = sets.find((c) => wayName(c) === wayName(leader));
    if (!own) continue;
    for (const c of sets) {
      const apart = Math.abs(Math.log(c.share / own.share));
      if (apart > LN_TWIN || !differInOne(faultsOf(c), faultsOf(own))) continue;
      if (apart < (found.get(wayName(c))?.apart ?? Infinity)) found.set(wayName(c), { c, apart });
    }
  }
  return [...found.values()]
    .sort((a, b) => a.apart - b.apart)
    .slice(0, MOST_TWINS)
    .map(({ c }) => contender(c));
}
/** Its first severities are its likeliest. */
function firstOf(predictor: Predictor, h: number): Float64Array {
  return new Float64Array(predictor.hypotheses[h]!.samples).fill(1, 0, predictor.draws);
}
/** Nothing is known of its severity. */
function evenly(predictor: Predictor, h: number): Float64Array {
  const { samples } = predictor.hypotheses[h]!;
  return new Float64Array(samples).fill(1 / samples);
}

/** Single faults that explain each code and each reading best by itself, at the severities that do. */
function bestSingles(
  predictor: Predictor,
  evidence: readonly Evidence[],
  parts: readonly FaultAtSeverity[],
): ReadonlyMap<number, Contender> {
  const codes = evidence.filter((e) => e.kind === "code");
  const worth = parts
    .map((part) => ({
      part,
      value:
        part.logPrior +
        codes.reduce((sum, c, i) => sum + logCode(part.sets[i]!, c), 0) +
        part.fits.reduce((sum, fit) => sum + fit, 0),
    }))
    .sort((a, b) => b.value - a.value);
  const best = new Map<number, Float64Array>();
  for (const { part, value } of worth) {
    let weights = best.get(part.h);
    if (!weights) {
      if (best.size === MOST_SINGLES) continue;
      best.set(part.h, (weights = new Float64Array(predictor.hypotheses[part.h]!.samples)));
    }
    weights.fill(
      Math.exp(value - worth[0]!.value),
      part.severity * predictor.draws,
      (part.severity + 1) * predictor.draws,
    );
  }
  return new Map([...best].map(([h, weights]) => [h, lasting(h, weights)]));
}
