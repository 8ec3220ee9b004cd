import { DEFAULTS } from "../defaults.js";
import type { Predictor } from "../prediction/predictor.js";
import { logCode, logPriors } from "./codeWeights.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { likelihood, spreads, voltRange } from "./likelihood.js";

/** A hypothesis of several faults worth weighing exactly. */
export interface MultipleFaultHypothesis {
  readonly hypothesis: number;
  readonly logPrior: number;
  /** ln of the part of their severities that was chosen to be tried */
  readonly logChosen: number;
  /** hypotheses of its members by themselves */
  readonly members: readonly number[];
  readonly wanted: Uint8Array;
}

/** One fault at one severity, with what it would make of each piece of evidence. */
interface FaultAtSeverity {
  readonly h: number;
  readonly severity: number;
  /** ln of prior, with the share of its grid that this severity is */
  readonly logPrior: number;
  /** which present codes it would set, as bits */
  readonly covers: number;
  /** probability of each code */
  readonly sets: Float64Array;
  /** ln likelihood of each reading, and how far it moves that reading from healthy, in standard deviations */
  readonly fits: Float64Array;
  readonly moves: Float64Array;
}

/** Draws with which several faults are predicted, and how many sets of each size are weighed exactly. */
const DRAWS = 3;
const MOST_PAIRS = 160;
const MOST_TRIPLES = 60;
const MOST_TRIED = 3_500;
const MOST_PARTS = 800;
const PARTS_EACH = 4;
const SEVERITIES_EACH = 3;
/** A part counts as setting a code from this probability on; as moving a reading from this many standard deviations. */
const SETS = 0.3;
const MOVES = 2;

/**
 * Pairs and triples of faults that together explain what no single one does (de Kleer & Williams 1987): each present
 * code must be set by some member. Sets are first ranked by a bound that takes, for each reading, the member that moves
 * it; the best are then solved together by `weigh`.
 * @param stop checked now and then; true ends the search with what was found
 */
export function searchMultipleFaults(
  predictor: Predictor,
  evidence: readonly Evidence[],
  factors: Float64Array | undefined,
  stop: () => boolean = () => false,
): MultipleFaultHypothesis[] {
  const codes = evidence.filter((e) => e.kind === "code");
  const readings = evidence.filter((e) => e.kind === "reading");
  const present = codes.filter((e) => e.present).slice(0, 30);
  const parts = faultsAtSeverities(predictor, codes, present, readings, factors, stop);
  const coverable = parts.reduce((m, p) => m | p.covers, 0);
  const base = { codes, readings };
  // how well each explains everything by itself: a second fault must add to that
  const alone = new Map<number, number>();
  for (const p of parts) alone.set(p.h, Math.max(alone.get(p.h) ?? -Infinity, jointScoreBound(base, [p]) - p.logPrior));
  const second = secondOf(predictor, factors);
  const fitOf = (list: readonly FaultAtSeverity[]) => {
    const fit = jointScoreBound(base, list) - list.reduce((sum, p) => sum + p.logPrior, 0);
    return list.every((p) => fit > alone.get(p.h)! + LN_MUST_ADD) ? fit : -Infinity;
  };
  const scoreOf = (list: readonly FaultAtSeverity[]) =>
    fitOf(list) +
    list.reduce((sum, p) => sum + p.logPrior, 0) +
    (list.length - 1) * second +
    Math.log(list.length === 2 ? 2 : 6);
  const pairs = new BestFaultSets();
  const open: { parts: FaultAtSeverity[]; covers: number; score: number }[] = [];
  for (let i = 0; i < parts.length; i++) {
    if (stop()) break;
    const a = parts[i]!;
    for (let j = i + 1; j < parts.length; j++) {
      const b = parts[j]!;
      const covers = a.covers | b.covers;
      if (a.h === b.h || (covers !== coverable && (covers === a.covers || covers === b.covers))) continue;
      const score = scoreOf([a, b]);
      if (score === -Infinity) continue;
      if (covers === coverable) {
        if (score > pairs.least) pairs.add([a, b], score);
      } else if (open.length < MOST_OPEN || score > open[0]!.score) {
        open.push({ parts: [a, b], covers, score });
        if (open.length > 2 * MOST_OPEN) keepBest(open);
      }
    }
  }
  const triples = new BestFaultSets();
  if (readings.length + present.length >= 3) {
    keepBest(open);
    for (const o of open) {
      if (stop()) break;
      for (const c of parts) {
        if (
          o.parts.some((p) => p.h === c.h) ||
          (o.covers | c.covers) !== coverable ||
          (o.covers | c.covers) === o.covers
        )
          continue;
        const score = scoreOf([...o.parts, c]);
        if (score > triples.least) triples.add([...o.parts, c], score);
      }
    }
  }
  predictor.makeRoom();
  return [...pairs.best(MOST_PAIRS), ...triples.best(MOST_TRIPLES)].map((set) => exact(predictor, set, factors));
}
const MOST_OPEN = 150;
/** What a further fault must add to how well the others explain the evidence, natural log: one that adds nothing is no part of the explanation. */
export const LN_MUST_ADD = 1;
/** ln rate of a second fault of rate 1, once there is a first: normalised priors are taken back to rates. */
function secondOf(predictor: Predictor, factors: Float64Array | undefined): number {
  const rate = DEFAULTS.prior.nothingWrong ** DEFAULTS.priorTrust;
  return Math.log(DEFAULTS.multipleFaults.second) + Math.log(rate) - logPriors(predictor, factors)[0]!;
}
const keepBest = (open: { score: number }[]) => {
  open.sort((a, b) => b.score - a.score);
  open.length = Math.min(open.length, MOST_OPEN);
  open.reverse();
};

/** The best few sets of faults, each with the severities it came up with. */
class BestFaultSets {
  private readonly found = new Map<
    string,
    { members: number[]; score: number; severities: Map<number, Map<number, number>> }
  >();
  least = -Infinity;
  add(parts: readonly FaultAtSeverity[], score: number): void {
    const name = parts
      .map((p) => p.h)
      .sort((a, b) => a - b)
      .join(" ");
    let set = this.found.get(name);
    if (!set) this.found.set(name, (set = { members: parts.map((p) => p.h), score, severities: new Map() }));
    set.score = Math.max(set.score, score);
    for (const p of parts) {
      const list = set.severities.get(p.h) ?? new Map<number, number>();
      list.set(p.severity, Math.max(list.get(p.severity) ?? -Infinity, score));
      set.severities.set(p.h, list);
    }
    if (this.found.size > 400) this.trim();
  }
  private trim(): void {
    const sorted = [...this.found].sort((a, b) => b[1].score - a[1].score);
    for (const [name] of sorted.slice(200)) this.found.delete(name);
    this.least = sorted[199]![1].score - 12; // lesser severities of good sets may still come
  }
  best(count: number) {
    return [...this.found.values()].sort((a, b) => b.score - a.score).slice(0, count);
  }
}

function exact(
  predictor: Predictor,
  set: { members: number[]; severities: Map<number, Map<number, number>> },
  factors: Float64Array | undefined,
): MultipleFaultHypothesis {
  const prior = logPriors(predictor, factors);
  const most = set.members.length > 2 ? 2 : SEVERITIES_EACH;
  const choices = set.members.map((h) => {
    const scored = [...set.severities.get(h)!].sort((a, b) => b[1] - a[1]).map(([k]) => k);
    const best = scored[0]!;
    // the best with its neighbours: what lies between them is known from them
    const near = [best - 1, best + 1].filter((k) => k >= 0 && k < predictor.faults[h - 1]!.severities.length);
    return [...new Set([best, ...scored.slice(0, most - 1), ...near])].slice(0, most).sort((a, b) => a - b);
  });
  const hypothesis = predictor.combine(set.members, choices);
  const { samples } = predictor.hypotheses[hypothesis]!;
  const wanted = new Uint8Array(samples).fill(1);
  const logChosen = set.members.reduce(
    (sum, h, i) => sum + Math.log(choices[i]!.length / (predictor.hypotheses[h]!.samples / predictor.draws)),
    0,
  );
  const logPrior =
    set.members.reduce((sum, h) => sum + prior[h]!, logChosen) +
    (set.members.length - 1) * secondOf(predictor, factors) +
    Math.log(set.members.length === 2 ? 2 : 6);
  return { hypothesis, logPrior, logChosen, members: set.members, wanted };
}

/** The bound: prior, codes set by any member, and each reading as the member that moves it most has it. */
function jointScoreBound(
  { codes, readings }: { codes: readonly CodeEvidence[]; readings: readonly ReadingEvidence[] },
  parts: readonly FaultAtSeverity[],
): number {
  let score = 0;
  for (const p of parts) score += p.logPrior;
  for (let c = 0; c < codes.length; c++) {
    let none = 1;
    for (const p of parts) none *= 1 - p.sets[c]!;
    score += logCode(1 - none, codes[c]!);
  }
  for (let r = 0; r < readings.length; r++) {
    let most = -1;
    let fit = -Infinity;
    let both = 0;
    for (const p of parts) {
      if (p.moves[r]! > MOVES) {
        both++;
        fit = Math.max(fit, p.fits[r]!);
      } else if (p.moves[r]! > most && both === 0) {
        most = p.moves[r]!;
        fit = p.fits[r]!;
      }
    }
    score += fit;
  }
  return score;
}

/** Faults, severity by severity, that set at least one of the present codes (or fit by themselves), with their likelihoods. */
function faultsAtSeverities(
  predictor: Predictor,
  codes: readonly CodeEvidence[],
  present: readonly CodeEvidence[],
  readings: readonly ReadingEvidence[],
  factors: Float64Array | undefined,
  stop: () => boolean,
): FaultAtSeverity[] {
  const prior = logPriors(predictor, factors);
  const n = predictor.monitors.length;
  const { draws } = predictor;
  const range = voltRange(predictor.wiring.nominalVolt);
  const used = Math.min(DRAWS, draws);
  const rough: { h: number; k: number; score: number; covers: number; sets: Float64Array }[] = [];
  for (let h = 1; h <= predictor.faults.length; h++) {
    const shares = predictor.roughCodeShares(
      h,
      codes.map((c) => c.monitor),
    );
    const places = predictor.hypotheses[h]!.samples / draws;
    for (let k = 0; k < places; k++) {
      const sets = Float64Array.from(codes, (c) => {
        let sum = 0;
        for (let d = 0; d < used; d++) sum += shares[(k * draws + d) * n + c.monitor]!;
        return sum / used;
      });
      let covers = 0;
      present.forEach((e, bit) => {
        if (sets[codes.indexOf(e)]! >= SETS) covers |= 1 << bit;
      });
      if (covers === 0) continue;
      let wrong = 0; // codes it would set that are known not to be
      codes.forEach((c, i) => {
        if (!c.present) wrong += logCode(sets[i]!, c);
      });
      rough.push({ h, k, score: prior[h]! - Math.log(places) + wrong, covers, sets });
    }
  }
  rough.sort((a, b) => b.score - a.score);
  const kept = rough.slice(0, MOST_TRIED);
  const healthyWanted = new Uint8Array(draws).fill(1);
  const healthy = readings.map((e) => {
    return predictor.predictAt(0, e, healthyWanted).at(0);
  });
  const parts: FaultAtSeverity[] = [];
  for (const { h, k, covers, sets } of kept) {
    if (stop()) break;
    const { samples, stepped } = predictor.hypotheses[h]!;
    const wanted = new Uint8Array(samples);
    for (let d = 0; d < used; d++) wanted[k * draws + d] = 1;
    const fits = new Float64Array(readings.length);
    const moves = new Float64Array(readings.length);
    readings.forEach((e, r) => {
      const predicted = predictor.predictAt(h, e, wanted);
      const width = spreads(predicted, wanted, draws, e.instrument, 1, stepped);
      let best = 0;
      let moved = 0;
      for (let d = 0; d < used; d++) {
        const v = predicted.at(k * draws + d);
        best +=
          likelihood(
            e.instrument,
            e.value,
            v,
            Math.hypot(width[k * draws + d]!, e.instrument === "ohmmeter" ? 0.3 : 0.05 * Math.abs(v)),
            range,
          ) / used;
        moved +=
          v === healthy[r] || (Number.isNaN(v) && Number.isNaN(healthy[r]!))
            ? 0
            : sigmasApart(v, healthy[r]!, e) / used;
      }
      fits[r] = Math.log(best);
      moves[r] = moved;
    });
    parts.push({ h, severity: k, covers, sets, fits, moves, logPrior: prior[h]! - Math.log(samples / draws) });
  }
  return mostPromising(parts, codes, readings.length);
}
/**
 * The parts most likely to belong to a good set: a reading that a part moves must be about what it says, or what
 * another part says that moves it too; codes it sets must not be known to be off.
 */
function mostPromising(
  parts: readonly FaultAtSeverity[],
  codes: readonly CodeEvidence[],
  readings: number,
): FaultAtSeverity[] {
  const best = new Float64Array(readings).fill(-Infinity);
  for (const p of parts) for (let r = 0; r < readings; r++) best[r] = Math.max(best[r]!, p.fits[r]!);
  const worth = parts
    .map((part) => {
      let value = part.logPrior;
      codes.forEach((c, i) => {
        if (!c.present) value += logCode(part.sets[i]!, c);
      });
      for (let r = 0; r < readings; r++) if (part.moves[r]! > MOVES) value += part.fits[r]! - best[r]!;
      return { part, value };
    })
    .sort((a, b) => b.value - a.value);
  const each = new Map<number, number>();
  const kept: FaultAtSeverity[] = [];
  for (const { part } of worth) {
    const n = each.get(part.h) ?? 0;
    if (n >= PARTS_EACH) continue;
    each.set(part.h, n + 1);
    kept.push(part);
    if (kept.length >= MOST_PARTS) break;
  }
  return kept;
}
function sigmasApart(a: number, b: number, e: ReadingEvidence): number {
  if (e.instrument === "ohmmeter" || e.instrument === "continuity")
    return Number.isFinite(a) && Number.isFinite(b) ? Math.abs(Math.log(a + 0.5) - Math.log(b + 0.5)) / 0.2 : 99;
  return Math.min(99, Math.abs(a - b) / Math.hypot(0.03, 0.012 * b)) || 0;
}
