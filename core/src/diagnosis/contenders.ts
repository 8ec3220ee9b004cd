import type { Predictor } from "../prediction/predictor.js";
import { CloserLook, heaviestPlaces } from "./closerLook.js";
import { logCode } from "./codeWeights.js";
import type { Evidence } from "./evidence.js";
import type { FaultAtSeverity } from "./faultsAtSeverities.js";
import type { CloserFit, CloserFits, Posterior } from "./posterior.js";

/** Hypotheses looked at for what they hold, in each round, and in how many rounds. Judgement: time. */
const MOST_IN_ROUND = 8;
const ROUNDS = 3;
/** Those that hold less than this together are not looked at. Judgement: no verdict needs them. */
const REST = 0.005;
/** Hypotheses hardly behind a leader, as a part of what it holds, and how many of them. Judgement: time. */
const HARDLY_BEHIND = 0.05;
const MOST_BESIDES = 12;
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
export function lookCloser(
  predictor: Predictor,
  evidence: readonly Evidence[],
  posterior: Posterior,
  { byFewDraws, parts, fewer, seen }: About,
  weighWith: (closer: CloserFits) => Posterior,
  stop: () => boolean,
): Posterior | undefined {
  const readings = evidence.filter((e) => e.kind === "reading");
  const look = readings.length > 0 ? CloserLook.at(predictor) : undefined;
  if (!look) return undefined;
  look.makeRoom();
  const closer = new Map<number, CloserFit>(seen);
  const singles = bestSingles(predictor, evidence, parts);
  let found = posterior;
  for (let round = 0; round < ROUNDS && !stop(); round++) {
    const weights = new Map(round === 0 ? [...singles, ...fewer.map((h) => [h, firstOf(predictor, h)] as const)] : []);
    const leaders = leadersOf(predictor, found, singles);
    for (const [h, w] of [...leaders, ...besides(byFewDraws, leaders.keys())]) weights.set(h, w);
    const fresh = [...weights].filter(([h]) => !closer.has(h));
    if (fresh.length === 0) break;
    for (const [h, w] of fresh) {
      if (stop()) return found;
      closer.set(h, look.fit(h, heaviestPlaces(w, predictor.draws), readings));
    }
    found = weighWith(closer);
  }
  return found;
}

/** What was seen closely, as it would be with fewer readings. */
export function closerWithout(
  predictor: Predictor,
  closer: CloserFits | undefined,
  evidence: readonly Evidence[],
): CloserFits | undefined {
  const readings = evidence.filter((e) => e.kind === "reading");
  const look = closer && CloserLook.at(predictor);
  if (!look || readings.length === 0) return undefined;
  return new Map([...closer].map(([h, fit]) => [h, look.fit(h, fit.keys(), readings)]));
}

/** The hypotheses that hold nearly everything, and their members, with the weights of their samples. */
function leadersOf(
  predictor: Predictor,
  { components }: Posterior,
  singles: ReadonlyMap<number, Float64Array>,
): ReadonlyMap<number, Float64Array> {
  const lasting = components.filter((c) => c.presence === 1 && !c.misplaced);
  const all = lasting.reduce((sum, c) => sum + c.share, 0);
  const found = new Map<number, Float64Array>();
  let held = 0;
  for (const c of lasting.slice(0, MOST_IN_ROUND)) {
    if (all - held < REST) break;
    held += c.share;
    found.set(c.hypothesis, c.weights);
    const { faults } = predictor.hypotheses[c.hypothesis]!;
    if (faults.length < 2) continue;
    for (const fault of faults) {
      const h = predictor.faults.indexOf(fault) + 1;
      const own = lasting.find((o) => o.hypothesis === h)?.weights ?? singles.get(h);
      if (!found.has(h)) found.set(h, own ?? evenly(predictor, h));
    }
  }
  return found;
}
/** Hypotheses that by few draws are hardly behind a leader: what a closer look finds of it may be true of them. */
function besides({ components }: Posterior, leaders: Iterable<number>): readonly (readonly [number, Float64Array])[] {
  const lasting = components.filter((c) => c.presence === 1 && !c.misplaced);
  const of = new Set(leaders);
  const least = lasting.reduce((min, c) => (of.has(c.hypothesis) ? Math.min(min, c.share) : min), Infinity);
  return lasting
    .filter((c) => c.share >= HARDLY_BEHIND * least && !of.has(c.hypothesis))
    .slice(0, MOST_BESIDES)
    .map((c) => [c.hypothesis, c.weights] as const);
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
): ReadonlyMap<number, Float64Array> {
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
  return best;
}
