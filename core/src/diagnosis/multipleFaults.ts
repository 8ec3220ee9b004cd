import type { MultipleFaultHypothesis } from "./posterior.js";
import { type FaultSet, BestFaultSets } from "./bestFaultSets.js";
import { type CodeCover, covers, union, emptyCover, unionIs, addsNothing } from "./codeCover.js";
import { type ToExplain, faultsAtSeverities, type FaultAtSeverity, MOVES_FROM } from "./faultsAtSeverities.js";
import { DEFAULTS } from "../defaults.js";
import type { Predictor } from "../prediction/predictor.js";
import { logCode, logPriors } from "./codeWeights.js";
import { isOneFluid } from "./commonSource.js";
import type { Evidence } from "./evidence.js";
import { telling } from "./tellingReadings.js";
import { likelihood, rootOfSquares, spreads, voltRange } from "./likelihood.js";

/** How many sets of each size are weighed exactly, and severities tried of each fault in a pair. Judgement: time. */
const MOST_PAIRS = 160;
const MOST_TRIPLES = 60;
const SEVERITIES_IN_PAIR = 3;
const SEVERITIES_IN_TRIPLE = 2;
/** Faults thought of for each conflict of a set of three; sets of one and of two that are grown on. Judgement: time. */
const MOST_EXPLAINING = 60;
const BEAM = [120, 1000] as const;
/** From so many readings and present codes on, three faults are thought of. Judgement. */
const TRIPLES_FROM = 3;

/** Single faults that explain part of what is to be explained. */
export interface Explaining {
  readonly toExplain: ToExplain;
  readonly parts: readonly FaultAtSeverity[];
}
/** Single faults, severity by severity, that explain part of the evidence. @param stop ends it early */
export function faultsExplaining(
  predictor: Predictor,
  evidence: readonly Evidence[],
  factors: Float64Array | undefined,
  stop: () => boolean,
): Explaining {
  const codes = evidence.filter((e) => e.kind === "code");
  const readings = telling(evidence.filter((e) => e.kind === "reading"));
  const toExplain: ToExplain = { codes, readings, present: codes.filter((e) => e.present) };
  return { toExplain, parts: faultsAtSeverities(predictor, toExplain, factors, stop) };
}

/**
 * Pairs and triples of faults that together explain what no single one does (de Kleer & Williams 1987): each present
 * code must be set by some member. Sets are first ranked by a bound that takes, for each reading, the member that moves
 * it; the best are then solved together by `weigh`.
 * @returns the best by that bound first
 * @param stop checked now and then; true ends the search with what was found
 * @param explaining single faults that explain part of it
 */
export function searchMultipleFaults(
  predictor: Predictor,
  evidence: readonly Evidence[],
  factors: Float64Array | undefined,
  stop: () => boolean = () => false,
  explaining: Explaining = faultsExplaining(predictor, evidence, factors, stop),
): MultipleFaultHypothesis[] {
  const { toExplain, parts } = explaining;
  const { readings } = toExplain;
  const search = new SetSearch(
    toExplain,
    parts,
    logRateOfFurther(predictor, factors),
    mostLogRateOfFurther(predictor, factors),
    stop,
    soundFits(predictor, readings),
  );
  const pairs = search.pairs();
  const triples = readings.length + toExplain.present.length >= TRIPLES_FROM ? search.triples() : [];
  predictor.makeRoom();
  return [...pairs, ...triples]
    .sort((a, b) => b.score - a.score)
    .map((set) => ({ ...exactHypothesis(predictor, set, factors), together: actsTogether(set, parts) }));
}

/** Whether two members of a set, at some severity each, move the same reading. */
function actsTogether(set: FaultSet, parts: readonly FaultAtSeverity[]): boolean {
  const moved = new Set<number>();
  for (const h of set.members) {
    const own = new Set<number>();
    for (const p of parts) if (p.h === h) p.moves.forEach((m, r) => (m > MOVES_FROM ? own.add(r) : undefined));
    if ([...own].some((r) => moved.has(r))) return true;
    own.forEach((r) => moved.add(r));
  }
  return false;
}

/** ln likelihood of each reading where nothing is wrong: drawn values count as they are spread. */
export function soundFits(predictor: Predictor, readings: ToExplain["readings"]): Float64Array {
  const range = voltRange(predictor.wiring.nominalVolt);
  const wanted = new Uint8Array(predictor.draws).fill(1);
  return Float64Array.from(readings, (e) => {
    const predicted = predictor.predictAt(0, e);
    const width = spreads(predicted, wanted, predictor.draws, e.instrument, 1, true);
    let sum = 0;
    for (let d = 0; d < predictor.draws; d++)
      sum += likelihood(e.instrument, e.value, predicted.at(d), rootOfSquares(width[d]!, e.tolerance ?? 0), range);
    return Math.log(sum / predictor.draws);
  });
}

/**
 * What a further fault must add to how well the others explain the evidence, ln: one that adds nothing is no part of
 * it. Judgement.
 */
export const LN_MUST_ADD = 1;
/** A reading fits a set badly where another fault would fit it so much better, ln. Judgement: about 2.5 σ. */
const LN_MISFIT = 3;
/** What two faults bring a reading to together is not known before it is solved: it counts as this far off, ln. */
const LN_TOGETHER = 3;
/** A set whose bound is so far below what one fault alone reaches is not solved, ln. Judgement: no verdict needs it. */
const LN_HOPELESS = Math.log(1e-5);

/**
 * ln rate of further faults of rate 1, once there is a first: normalised priors are taken back to rates. What one
 * leaking seal does in several plugs is hardly rarer than what it does in one.
 */
function logRateOfFurther(predictor: Predictor, factors: Float64Array | undefined) {
  const rate = logRateOfOne(predictor, factors);
  const { second, sameFluid } = DEFAULTS.multipleFaults;
  return (members: readonly number[]): number => {
    const faults = members.map((h) => predictor.faults[h - 1]!);
    return (members.length - 1) * (Math.log(isOneFluid(predictor.wiring, faults) ? sameFluid : second) + rate);
  };
}
/** The most that is for one further fault. */
function mostLogRateOfFurther(predictor: Predictor, factors: Float64Array | undefined): number {
  const { second, sameFluid } = DEFAULTS.multipleFaults;
  return Math.log(Math.max(second, sameFluid)) + logRateOfOne(predictor, factors);
}
const logRateOfOne = (predictor: Predictor, factors: Float64Array | undefined) =>
  Math.log(DEFAULTS.prior.nothingWrong ** DEFAULTS.priorTrust) - logPriors(predictor, factors)[0]!;
/** ln of the number of orders in which the faults may have come. */
const logOrders = (faults: number) => Math.log(faults === 2 ? 2 : 6);

/** The best pairs and triples by their bound. */
class SetSearch {
  private readonly coverable: CodeCover;
  /** how well each fault explains everything by itself: a second one must add to that */
  private readonly alone = new Map<number, number>();
  /** faults that would set each present code, the most promising first */
  private readonly explaining: readonly (readonly FaultAtSeverity[])[];
  /** faults that fit each reading best, and move it; and the best that any fault, or none, makes of it, ln */
  private readonly fitting: readonly (readonly FaultAtSeverity[])[];
  private readonly bestFits: Float64Array;
  /** a set that scores less is not worth solving: what one fault alone reaches leaves it no share */
  private readonly floor: number;

  constructor(
    private readonly toExplain: ToExplain,
    private readonly parts: readonly FaultAtSeverity[],
    private readonly further: (members: readonly number[]) => number,
    private readonly mostFurther: number,
    private readonly stop: () => boolean,
    /** ln likelihood of each reading on a sound machine */
    private readonly sound: Float64Array,
  ) {
    this.coverable = parts.reduce((all, p) => union(all, p.covers), emptyCover(toExplain.present.length));
    this.bestFits = sound.map((fit, r) => parts.reduce((most, p) => Math.max(most, p.fits[r]!), fit));
    let floor = -Infinity;
    for (const p of parts) {
      const fit = this.fit([p]);
      this.alone.set(p.h, Math.max(this.alone.get(p.h) ?? -Infinity, fit));
      floor = Math.max(floor, fit + p.logPrior);
    }
    this.floor = floor + LN_HOPELESS;
    const withNone = this.fit([]);
    const gain = new Map(parts.map((p) => [p, this.fit([p]) - withNone + p.logPrior]));
    const promising = [...parts].sort((a, b) => gain.get(b)! - gain.get(a)!);
    this.explaining = toExplain.present.map((_, c) =>
      promising.filter((p) => covers(p.covers, c)).slice(0, MOST_EXPLAINING),
    );
    const { readings } = toExplain;
    this.fitting = readings.map((_, r) =>
      parts
        .filter((p) => p.moves[r]! > MOVES_FROM && p.fits[r]! > this.bestFits[r]! - LN_MISFIT)
        .sort((a, b) => gain.get(b)! - gain.get(a)!)
        .slice(0, MOST_EXPLAINING),
    );
  }

  pairs(): FaultSet[] {
    const { coverable } = this;
    const parts = [...this.parts].sort((a, b) => b.logPrior - a.logPrior);
    const most = this.mostOfAny() + this.mostFurther + logOrders(2);
    const found = new BestFaultSets();
    for (let i = 0; i < parts.length && !this.stop(); i++) {
      const a = parts[i]!;
      for (let j = i + 1; j < parts.length; j++) {
        const b = parts[j]!;
        if (most + a.logPrior + b.logPrior < this.floor) break; // and so are all that follow
        const complete = unionIs(a.covers, b.covers, coverable);
        if (a.h === b.h || (!complete && (addsNothing(a.covers, b.covers) || addsNothing(b.covers, a.covers))))
          continue;
        if (!complete) continue;
        const score = this.score([a, b]);
        if (score >= this.floor && score > found.least) found.add([a, b], score);
      }
    }
    return found.best(MOST_PAIRS);
  }

  /**
   * Sets of three. A code that no member sets, or a reading that no member fits, is a conflict, and one fault that
   * explains it is added at a time (de Kleer & Williams 1987), to the sets that explain most so far: a beam, since what
   * three faults may still come to together cannot be bounded tightly from what each does by itself.
   */
  triples(): FaultSet[] {
    const found = new BestFaultSets();
    let sets: readonly (readonly FaultAtSeverity[])[] = [[]];
    for (const width of BEAM) {
      if (this.stop()) return [];
      sets = best(
        sets.flatMap((set) => this.withOneMore(set)),
        (set) => this.worth(set),
        width,
      );
    }
    for (const set of sets) {
      if (this.stop()) break;
      for (const whole of this.withOneMore(set)) {
        if (whole.length < 3 || this.openCodes(this.covered(whole)).length) continue;
        const score = this.score(whole);
        if (score > this.floor && score > found.least) found.add(whole, score);
      }
    }
    return found.best(MOST_TRIPLES);
  }
  private covered(set: readonly FaultAtSeverity[]): CodeCover {
    return set.map((p) => p.covers).reduce(union, emptyCover(this.toExplain.present.length));
  }
  /**
   * A set with each of the faults that would explain the code for which there are the fewest; where all are explained,
   * the reading that it fits worst.
   */
  private withOneMore(set: readonly FaultAtSeverity[]): (readonly FaultAtSeverity[])[] {
    const open = this.openCodes(this.covered(set));
    const grown = (more: readonly FaultAtSeverity[]) =>
      more.filter((p) => set.every((m) => m.h !== p.h)).map((p) => [...set, p]);
    if (open.length)
      return grown(
        this.explaining[open.reduce((a, c) => (this.explaining[c]!.length < this.explaining[a]!.length ? c : a))]!,
      );
    const readings = this.openReadings(set);
    return readings.length ? grown(this.fitting[readings[0]!]!) : [];
  }
  /** Readings that another fault would fit much better, the one that is furthest off first. */
  private openReadings(set: readonly FaultAtSeverity[]): number[] {
    const short = this.toExplain.readings.map(
      (_, r) => this.bestFits[r]! - fitOfReading(set, r, this.sound[r]!, this.bestFits[r]!),
    );
    return [...short.keys()].filter((r) => short[r]! > LN_MISFIT).sort((a, b) => short[b]! - short[a]!);
  }
  private openCodes(covered: CodeCover): number[] {
    return this.toExplain.present.flatMap((_, c) => (covers(this.coverable, c) && !covers(covered, c) ? [c] : []));
  }
  /** What a set that is not complete comes to as it is. */
  private worth(set: readonly FaultAtSeverity[]): number {
    const prior = set.reduce((sum, p) => sum + p.logPrior, 0);
    return this.fit(set) + prior + (set.length > 1 ? this.further(set.map((p) => p.h)) : 0);
  }

  /** The best that any set could fit, ln: each code as it is, each reading as the fault that fits it best, or none. */
  private mostOfAny(): number {
    const byCodes = this.toExplain.codes.reduce((sum, c) => sum + logCode(c.present ? 1 : 0, c), 0);
    return this.bestFits.reduce((sum, fit) => sum + fit, byCodes);
  }

  private score(parts: readonly FaultAtSeverity[]): number {
    const fit = this.fit(parts);
    if (!parts.every((p) => fit > this.alone.get(p.h)! + LN_MUST_ADD)) return -Infinity;
    const prior = parts.reduce((sum, p) => sum + p.logPrior, 0);
    return fit + prior + this.further(parts.map((p) => p.h)) + logOrders(parts.length);
  }

  /**
   * Upper bound on ln likelihood: codes set by any member, each reading as the member that moves it and fits it best,
   * or as on a sound machine.
   */
  private fit(parts: readonly FaultAtSeverity[]): number {
    const { codes, readings } = this.toExplain;
    let fit = 0;
    for (let c = 0; c < codes.length; c++) {
      let none = 1;
      for (const p of parts) none *= 1 - p.sets[c]!;
      fit += logCode(1 - none, codes[c]!);
    }
    for (let r = 0; r < readings.length; r++) fit += fitOfReading(parts, r, this.sound[r]!, this.bestFits[r]!);
    return fit;
  }
}
/** Sets of the most worth, each once, whatever the order in which it grew. */
function best(
  sets: readonly (readonly FaultAtSeverity[])[],
  worth: (set: readonly FaultAtSeverity[]) => number,
  count: number,
): readonly (readonly FaultAtSeverity[])[] {
  const once = new Map(
    sets.map((set) => [
      set
        .map((p) => `${p.h}@${p.severity}`)
        .sort()
        .join(" "),
      set,
    ]),
  );
  return [...once.values()]
    .map((set) => ({ set, worth: worth(set) }))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, count)
    .map((x) => x.set);
}
/**
 * ln likelihood of a reading: as the member that moves it and fits it best has it; what none moves is as on a sound
 * machine. What several members move may come to what none of them brings it to: then it is at most so far below the
 * best that any fault makes of it.
 */
function fitOfReading(parts: readonly FaultAtSeverity[], r: number, sound: number, best: number): number {
  let fit = -Infinity;
  let movers = 0;
  for (const p of parts) {
    if (p.moves[r]! <= MOVES_FROM) continue;
    movers++;
    fit = Math.max(fit, p.fits[r]!);
  }
  if (movers > 1) return Math.max(fit, best - LN_TOGETHER);
  return movers === 0 ? sound : fit;
}

/** A set as a hypothesis to be solved and weighed as it is. */
function exactHypothesis(
  predictor: Predictor,
  set: FaultSet,
  factors: Float64Array | undefined,
): MultipleFaultHypothesis {
  const most = set.members.length > 2 ? SEVERITIES_IN_TRIPLE : SEVERITIES_IN_PAIR;
  const choices = set.members.map((h) => {
    const scored = [...set.severities.get(h)!].sort((a, b) => b[1] - a[1]).map(([k]) => k);
    const best = scored[0]!;
    // the best with its neighbours: what lies between them is known from them
    const near = [best - 1, best + 1].filter((k) => k >= 0 && k < predictor.faults[h - 1]!.severities.length);
    return [...new Set([best, ...scored.slice(0, most - 1), ...near])].slice(0, most).sort((a, b) => a - b);
  });
  return setAtSeverities(predictor, set.members, choices, factors);
}

/**
 * A set of faults at chosen severities, as a hypothesis.
 * @param choices places on the grid of each member, in the order of `members`
 */
export function setAtSeverities(
  predictor: Predictor,
  members: readonly number[],
  choices: readonly (readonly number[])[],
  factors: Float64Array | undefined,
  draws?: number,
): MultipleFaultHypothesis {
  const prior = logPriors(predictor, factors);
  const hypothesis = predictor.combine(members, choices, draws);
  const { samples } = predictor.hypotheses[hypothesis]!;
  const wanted = new Uint8Array(samples).fill(1);
  const logChosen = members.reduce(
    (sum, h, i) => sum + Math.log(choices[i]!.length / (predictor.hypotheses[h]!.samples / predictor.draws)),
    0,
  );
  const logPrior =
    members.reduce((sum, h) => sum + prior[h]!, logChosen) +
    logRateOfFurther(predictor, factors)(members) +
    logOrders(members.length);
  return { hypothesis, logPrior, logChosen, members, wanted };
}
