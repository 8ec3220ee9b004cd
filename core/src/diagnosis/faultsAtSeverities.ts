import { distance, likelihood, rootOfSquares, spreads, voltRange } from "./likelihood.js";
import { logPriors, logCode } from "./codeWeights.js";
import type { CodeEvidence, ReadingEvidence } from "./evidence.js";
import { type CodeCover, emptyCover, addToCover, isEmpty } from "./codeCover.js";
import type { Predictor } from "../prediction/predictor.js";

/** One fault at one severity, with what it would make of each piece of evidence. */
export interface FaultAtSeverity {
  /** number of its hypothesis */
  readonly h: number;
  readonly severity: number;
  /** ln of prior, with the share of its grid that this severity is */
  readonly logPrior: number;
  /** which present codes it would set */
  readonly covers: CodeCover;
  /** probability of each code */
  readonly sets: Float64Array;
  /** ln likelihood of each reading, and how far it moves that reading from healthy, in standard deviations */
  readonly fits: Float64Array;
  readonly moves: Float64Array;
}

/** What is to be explained. */
export interface ToExplain {
  readonly codes: readonly CodeEvidence[];
  readonly present: readonly CodeEvidence[];
  readonly readings: readonly ReadingEvidence[];
}

/**
 * Draws with which parts of a set are tried, how many are tried, and kept, in all and of each fault. Judgement: time.
 */
const DRAWS = 3;
const MOST_TRIED = 3_500;
const MOST_KEPT = 800;
const KEPT_OF_EACH = 4;
/** A part counts as setting a code from this probability on. Judgement. */
const SETS_FROM = 0.3;
/** A part counts as moving a reading from this many standard deviations on. Judgement. */
export const MOVES_FROM = 2;
/** More is no further, standard deviations. */
const MOST_SIGMAS = 99;
/** What lies between the severities tried: a share of the value, or ln ohm. Judgement. */
const BETWEEN_SHARE = 0.05;
const BETWEEN_LN_OHM = 0.3;

type Rough = Pick<FaultAtSeverity, "h" | "severity" | "covers" | "sets"> & { readonly score: number };

/**
 * Faults, severity by severity, that set at least one of the present codes, with their likelihoods.
 * @param stop ends it early
 */
export function faultsAtSeverities(
  predictor: Predictor,
  toExplain: ToExplain,
  factors: Float64Array | undefined,
  stop: () => boolean,
): FaultAtSeverity[] {
  const prior = logPriors(predictor, factors);
  const rough = predictor.faults.flatMap((_, i) => roughParts(predictor, i + 1, toExplain, prior[i + 1]!));
  rough.sort((a, b) => b.score - a.score);
  const everyDraw = new Uint8Array(predictor.draws).fill(1);
  // draw by draw: what a fault moves is told from what is only not known
  const healthy = toExplain.readings.map((e) => {
    const predicted = predictor.predictAt(0, e, everyDraw);
    return Float64Array.from({ length: predictor.draws }, (_, d) => predicted.at(d));
  });
  const parts: FaultAtSeverity[] = [];
  for (const part of rough.slice(0, MOST_TRIED)) {
    if (stop()) break;
    parts.push(withReadings(predictor, part, toExplain.readings, healthy, prior[part.h]!));
  }
  return mostPromising(parts, toExplain);
}

/**
 * One fault at each severity that sets one of the present codes; judged by codes it would set that are known not to be.
 */
function roughParts(predictor: Predictor, h: number, { codes, present }: ToExplain, prior: number): Rough[] {
  if (
    !predictor.movesAny(
      h,
      present.map((c) => c.monitor),
    )
  )
    return [];
  const { draws } = predictor;
  const used = Math.min(DRAWS, draws);
  const n = predictor.monitors.length;
  const shares = predictor.roughCodeShares(
    h,
    codes.map((c) => c.monitor),
  );
  const places = predictor.hypotheses[h]!.samples / draws;
  const parts: Rough[] = [];
  for (let severity = 0; severity < places; severity++) {
    const sets = Float64Array.from(codes, (c) => {
      let sum = 0;
      for (let d = 0; d < used; d++) sum += shares[(severity * draws + d) * n + c.monitor]!;
      return sum / used;
    });
    const covers = emptyCover(present.length);
    present.forEach((e, i) => {
      if (sets[codes.indexOf(e)]! >= SETS_FROM) addToCover(covers, i);
    });
    if (!isEmpty(covers))
      parts.push({ h, severity, covers, sets, score: prior - Math.log(places) + absentFit(codes, sets) });
  }
  return parts;
}

/** ln likelihood of the codes that are known not to be set. */
function absentFit(codes: readonly CodeEvidence[], sets: Float64Array): number {
  return codes.reduce((sum, c, i) => (c.present ? sum : sum + logCode(sets[i]!, c)), 0);
}

function withReadings(
  predictor: Predictor,
  { h, severity, covers, sets }: Rough,
  readings: readonly ReadingEvidence[],
  healthy: readonly Float64Array[],
  prior: number,
): FaultAtSeverity {
  const { samples, stepped } = predictor.hypotheses[h]!;
  const { draws } = predictor;
  const used = Math.min(DRAWS, draws);
  const wanted = new Uint8Array(samples).fill(1, severity * draws, severity * draws + used);
  const range = voltRange(predictor.wiring.nominalVolt);
  const fits = new Float64Array(readings.length);
  const moves = new Float64Array(readings.length);
  readings.forEach((e, r) => {
    const predicted = predictor.predictAt(h, e, wanted);
    const width = spreads(predicted, wanted, draws, e.instrument, 1, stepped);
    let fit = 0;
    for (let d = 0; d < used; d++) {
      const at = severity * draws + d;
      const v = predicted.at(at);
      const between = e.instrument === "ohmmeter" ? BETWEEN_LN_OHM : BETWEEN_SHARE * Math.abs(v);
      const spread = rootOfSquares(rootOfSquares(width[at]!, between), e.tolerance ?? 0);
      fit += likelihood(e.instrument, e.value, v, spread, range) / used;
      moves[r]! += sigmasApart(v, healthy[r]![d]!, e) / used;
    }
    fits[r] = Math.log(fit);
  });
  return { h, severity, covers, sets, fits, moves, logPrior: prior - Math.log(samples / draws) };
}

/** A beeper tells what an ohmmeter does, roughly. */
function sigmasApart(a: number, b: number, { instrument }: ReadingEvidence): number {
  return Math.min(MOST_SIGMAS, distance(a, b, instrument === "continuity" ? "ohmmeter" : instrument));
}

/**
 * The parts most likely to belong to a good set: a reading that a part moves must be about what it says, or what
 * another part says that moves it too; codes it sets must not be known to be off.
 */
function mostPromising(parts: readonly FaultAtSeverity[], { codes, readings }: ToExplain): FaultAtSeverity[] {
  const best = new Float64Array(readings.length).fill(-Infinity);
  for (const p of parts) for (let r = 0; r < best.length; r++) best[r] = Math.max(best[r]!, p.fits[r]!);
  const worth = parts
    .map((part) => {
      let value = part.logPrior + absentFit(codes, part.sets);
      for (let r = 0; r < best.length; r++) if (part.moves[r]! > MOVES_FROM) value += part.fits[r]! - best[r]!;
      return { part, value };
    })
    .sort((a, b) => b.value - a.value);
  const each = new Map<number, number>();
  const kept: FaultAtSeverity[] = [];
  for (const { part } of worth) {
    const n = each.get(part.h) ?? 0;
    if (n >= KEPT_OF_EACH) continue;
    each.set(part.h, n + 1);
    kept.push(part);
    if (kept.length >= MOST_KEPT) break;
  }
  return kept;
}
