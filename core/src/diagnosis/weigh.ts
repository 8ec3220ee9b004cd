import { ReadingFamilies, ALL_WANTED, type Family } from "./familyLikelihoods.js";
import { addHoldsLikelihood } from "./holdsLikelihood.js";
import { intermittentShare } from "./intermittent.js";
import { DEFAULTS } from "../defaults.js";
import { outerPlaces } from "../prediction/hypothesis.js";
import type { Predictor } from "../prediction/predictor.js";
import { clueAnywhere, clueLikelihood } from "./clues.js";
import { codeLogLikelihoods, codePosterior, logCodeNotHere, logPriors, meanOverDraws } from "./codeWeights.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { distance, readingRange } from "./likelihood.js";
import type { Fault } from "../faults/fault.js";
import { logMean, normalise } from "./maths.js";
import { misplacements, type Misplacement } from "./misplaced.js";
import { LN_MUST_ADD } from "./multipleFaults.js";
import {
  wayName,
  type CloserFit,
  type CodePosterior,
  type CodesOfOne,
  type MixtureComponent,
  type MultipleFaultHypothesis,
  type Posterior,
  type WeighOptions,
} from "./posterior.js";
import { LikelihoodCache } from "./likelihoodCache.js";
import { placeName, severitySteps } from "./readingWeights.js";
import { temperSiblings } from "./siblings.js";

/** Components below this share are left out. Judgement: they change nothing that is shown. */
const WORTH_KEEPING = 1e-7;
/** Components below this share are never planned for: what their draws say is not worked out. Judgement. */
const WORTH_PLANNING = 3e-4;
/** No reading's density is above this, ln: 30 mV is the narrowest a prediction gets. */
const LN_PEAK = 2.8;
/**
 * Hypotheses that cannot come within this of the best are not read up any further, ln. Judgement: below what is kept.
 */
const LN_KEEPING = Math.log(1e-6);
/** Readings at a look-alike are only thought of for suspects that codes leave this likely, ln. Judgement. */
const LN_MISPLACED_LEAST = Math.log(1e-3);
/** What comes and goes is only thought of for suspects that codes leave this likely, ln. Judgement. */
const LN_GOING_LEAST = Math.log(1e-5);

/** However much an earlier belief says that a fault comes and goes, it may have become a lasting one. Judgement. */
const MOST_GOING = 0.95;
/** A fault moves a reading where it is so many standard deviations from healthy. Judgement. */
const MOVES_SIGMAS = 2;

const NO_DRAWS: ReadonlyMap<string, Float64Array> = new Map();

/**
 * Bayes' rule over single faults, the healthy machine, faults that come and go, several faults where asked for,
 * readings taken at a look-alike, and "not in this wiring". Each hypothesis is a cloud of samples (severity × draw);
 * its likelihood is the mean over samples of the product over evidence.
 */
export function weigh(predictor: Predictor, evidence: readonly Evidence[], options: WeighOptions = {}): Posterior {
  return new Weighing(predictor, evidence, options).posterior();
}

/**
 * How well sets of faults explain the evidence, each severity by itself.
 * @param lead ln of prior times likelihood of the best so far: the codes of sets whose readings alone leave them
 * hopelessly behind it are not looked at
 * @returns for each set, ln likelihood by combination of severities, in the order of its hypothesis
 */
export function fitsOfSets(
  predictor: Predictor,
  evidence: readonly Evidence[],
  sets: readonly MultipleFaultHypothesis[],
  options: WeighOptions,
  lead = -Infinity,
): Float64Array[] {
  return new Weighing(predictor, evidence, { ...options, multiple: [] }).fitsOf(sets, lead);
}

/** ln likelihood of evidence, severity by severity, remembered by evidence: a new reading only adds its own. */
class Weighing {
  private readonly codes: readonly CodeEvidence[];
  private readonly readings: readonly ReadingEvidence[];
  private readonly logPrior: Float64Array;
  private readonly families: ReadingFamilies;
  private ofCodes: CodePosterior | undefined;
  private ofIdle: ReadonlyMap<number, CodesOfOne> | undefined;

  constructor(
    private readonly predictor: Predictor,
    private readonly evidence: readonly Evidence[],
    private readonly options: WeighOptions,
  ) {
    this.codes = evidence.filter((e) => e.kind === "code");
    this.readings = evidence.filter((e) => e.kind === "reading");
    this.logPrior = logPriors(predictor, options.factors);
    this.families = new ReadingFamilies(predictor);
  }

  private get byCodes(): CodePosterior {
    const { factors, breadth, progress } = this.options;
    return (this.ofCodes ??= codePosterior(this.predictor, this.codes, this.logPrior, factors, {
      breadth: breadth ?? "exact",
      progress,
    }));
  }
  /** faults that no code asks for, but something else does */
  private get takenUp(): ReadonlyMap<number, CodesOfOne> {
    return (this.ofIdle ??= this.options.breadth === "wide" ? this.takeUpIdle() : new Map<number, CodesOfOne>());
  }

  /** Faults that no code asks for are weighed where a reading or something seen does. */
  private takeUpIdle(): Map<number, CodesOfOne> {
    const found = new Map<number, CodesOfOne>();
    for (const h of this.byCodes.idle) {
      if (!this.readings.some((e) => this.movesReading(h, e)) && !this.isSeen(this.predictor.faults[h - 1]!)) continue;
      const own = this.byCodes.takeUp(h);
      if (own) found.set(h, own);
    }
    return found;
  }
  /** Whether a fault, little or much of it, moves a reading by more than its error. */
  private movesReading(h: number, e: ReadingEvidence): boolean {
    const column = LikelihoodCache.of(this.predictor).moved.column(placeName(e));
    let moves = column.get(h);
    if (moves === undefined) column.set(h, (moves = this.movesAt(h, e)));
    return moves;
  }
  private movesAt(h: number, e: ReadingEvidence): boolean {
    const { draws } = this.predictor;
    const { samples } = this.predictor.hypotheses[h]!;
    const outer = outerPlaces(samples / draws).map((place) => place * draws);
    const wanted = new Uint8Array(samples);
    for (const s of outer) wanted[s] = 1;
    const predicted = this.predictor.predictAt(h, e, wanted);
    const healthy = this.predictor.predictAt(0, e).at(0);
    return outer.some((s) => distance(predicted.at(s), healthy, e.instrument) > MOVES_SIGMAS);
  }
  private isSeen(fault: Fault): boolean {
    return this.evidence.some(
      (e) =>
        e.kind === "clue" &&
        e.clue.type !== "holds" &&
        clueLikelihood(e.clue, [fault], false, undefined) > clueLikelihood(e.clue, [], false, undefined),
    );
  }

  posterior(): Posterior {
    const found = temperSiblings(this.predictor, this.weighAll(), (w) => max(w.total));
    const notHereLog = this.logPrior.at(-1)! + this.evidence.reduce((sum, e) => sum + this.logNotHere(e), 0);
    const most = found.reduce((a, w) => Math.max(a, w.log), notHereLog);
    const sum = found.reduce((a, w) => a + Math.exp(w.log - most), Math.exp(notHereLog - most));
    const share = new Float64Array(this.predictor.hypotheses.length);
    const components: MixtureComponent[] = [];
    for (const w of found) {
      const own = Math.exp(w.log - most) / sum;
      share[w.hypothesis] = share[w.hypothesis]! + own;
      if (own >= WORTH_KEEPING) components.push(this.component(w, own));
    }
    components.sort((a, b) => b.share - a.share);
    return {
      components,
      share,
      notHere: Math.exp(notHereLog - most) / sum,
      shareByCodes: this.byCodes.share,
      samplesByCodes: this.byCodes.samples,
      wantedByCodes: this.byCodes.wanted,
    };
  }

  /** for every family read so far, how much each draw counts within each severity */
  private drawsOf({ hypothesis: h, families, presence, places, total }: WeighedComponent) {
    const wanted =
      h <= this.predictor.faults.length ? (this.byCodes.wanted.get(h) ?? this.takenUp.get(h)!.wanted) : ALL_WANTED;
    const by = new Map<string, Float64Array>();
    for (const [name, family] of families)
      by.set(name, this.families.drawWeights(h, family, wanted, presence, places, total));
    return by;
  }

  private component(w: WeighedComponent, share: number): MixtureComponent {
    const planned = share >= WORTH_PLANNING;
    const steps = severitySteps(this.predictor, w.hypothesis);
    return {
      hypothesis: w.hypothesis,
      presence: w.presence,
      misplaced: w.misplaced,
      share,
      weights: spreadOverDraws(this.predictor, w.hypothesis, w.places),
      steps: planned ? stepsWithin(w.total, steps) : undefined,
      draws: planned ? this.drawsOf(w) : NO_DRAWS,
    };
  }

  fitsOf(sets: readonly MultipleFaultHypothesis[], lead: number): Float64Array[] {
    const view: View = { misplaced: undefined, families: this.families.group(this.readings, undefined) };
    let best = lead;
    return sets.map((m) => {
      const one = this.several(m);
      const none = { most: 0, codes: () => new Float64Array(m.wanted.length / this.predictor.draws) };
      const byReadings = this.weighOne(one, none, view, 1, -Infinity)!.places;
      if (m.logPrior + max(byReadings) < best + LN_KEEPING) return byReadings;
      const codes = one.codes();
      const places = byReadings.map((log, p) => log + codes[p]!);
      best = Math.max(best, m.logPrior + max(places));
      return places;
    });
  }

  /** Every hypothesis in every way it may show: lasting, coming and going, readings where logged or at a look-alike. */
  private weighAll(): WeighedComponent[] {
    const misplaced = this.options.only ? [] : misplacements(this.predictor.wiring, this.readings);
    const views = [undefined, ...misplaced].map((m): View => ({
      misplaced: m,
      families: this.families.group(this.readings, m),
    }));
    const search: Search = { found: [], lead: -Infinity, fitAlone: new Map() };
    for (const one of this.inOrder(this.toWeigh(), views[0]!))
      for (const view of views) this.weighIn(one, view, search);
    return search.found;
  }

  /**
   * Single faults, then several at once.
   */
  private toWeigh(): ToWeigh[] {
    const { byCodes } = this;
    const single = (hypothesis: number, { log, places, wanted }: CodesOfOne): ToWeigh => ({
      multiple: undefined,
      hypothesis,
      wanted,
      logPrior: this.logPrior[hypothesis]!,
      byCodes: log,
      most: max(places),
      codes: () => places,
    });
    const singles = [
      ...[...byCodes.wanted].map(([h, wanted]) =>
        single(h, { log: byCodes.log[h]!, places: byCodes.places.get(h)!, wanted }),
      ),
      ...[...this.takenUp].map(([h, own]) => single(h, own)),
    ];
    return [...singles, ...(this.options.multiple ?? []).map((m) => this.several(m))];
  }
  /** Several faults at once: their codes are only worked out where the readings leave something of them. */
  private several(m: MultipleFaultHypothesis): ToWeigh {
    const { predictor } = this;
    let codes: Float64Array | undefined;
    return {
      multiple: m,
      hypothesis: m.hypothesis,
      wanted: m.wanted,
      logPrior: m.logPrior,
      byCodes: -Infinity,
      most: 0,
      codes: () =>
        (codes ??= meanOverDraws(
          predictor,
          m.hypothesis,
          codeLogLikelihoods(predictor, m.hypothesis, this.codes, 1, true),
        )),
    };
  }
  /**
   * Those first that fit best by what is known of them: their lead spares the others the readings that are new. Several
   * faults come after single ones.
   */
  private inOrder(list: readonly ToWeigh[], { families }: View): readonly ToWeigh[] {
    if (this.isExact) return list;
    const bound = new Map(
      list.map((one) => {
        let sum = one.logPrior + one.most;
        for (const family of families.values()) {
          const known = this.families.known(one.hypothesis, family, 1);
          sum += known ? max(known) : family.readings.length * LN_PEAK;
        }
        return [one, sum] as const;
      }),
    );
    const isSeveral = (one: ToWeigh) => (one.multiple ? 1 : 0);
    return [...list].sort((a, b) => isSeveral(a) - isSeveral(b) || bound.get(b)! - bound.get(a)!);
  }
  private get isExact(): boolean {
    return (this.options.breadth ?? "exact") === "exact";
  }

  private weighIn(one: ToWeigh, view: View, search: Search): void {
    const { byCodes } = this;
    const { hypothesis } = one;
    const { misplaced } = view;
    const { faults } = this.predictor.hypotheses[hypothesis]!;
    const byCodesAlone = one.byCodes;
    if (misplaced && faults.length > 1) return;
    if (misplaced && byCodesAlone + misplaced.logPrior < byCodes.best + LN_MISPLACED_LEAST) return;
    const base = one.logPrior + (misplaced?.logPrior ?? 0);
    const floor = this.isExact ? -Infinity : search.lead + LN_KEEPING - base;
    const some =
      faults.length === 1 && !this.options.only
        ? Math.max(
            intermittentShare(faults[0]!, this.options.comesAndGoes ?? false),
            Math.min(MOST_GOING, this.options.going?.[hypothesis] ?? 0),
          )
        : 0;
    const lasting = this.weighOne(one, one, view, 1, floor);
    if (lasting && !this.addLasting(one, lasting, view, base + Math.log(1 - some), search)) return;
    if (some === 0 || misplaced || byCodesAlone < byCodes.best + LN_GOING_LEAST) return;
    const { presence: presences } = DEFAULTS.intermittent;
    const floorNow = this.isExact ? -Infinity : search.lead + LN_KEEPING - base;
    for (const presence of presences) {
      const codes = byCodes.going(hypothesis, presence);
      const ofGoing = { most: max(codes), codes: () => codes };
      const going = this.weighOne(one, ofGoing, view, presence, floorNow);
      if (!going) continue;
      const log = base + Math.log(some / presences.length) + logMean(going.places);
      search.found.push({ ...going, hypothesis, presence, misplaced, log });
    }
  }

  /** @returns false for several faults of which one alone explains as much */
  private addLasting(one: ToWeigh, lasting: Weighed, { misplaced }: View, logPrior: number, search: Search): boolean {
    const { hypothesis, multiple } = one;
    const { faults } = this.predictor.hypotheses[hypothesis]!;
    const fit = logMean(lasting.places);
    if (!misplaced && faults.length === 1) search.fitAlone.set(hypothesis, fit);
    const adds = (member: number) =>
      fit + multiple!.logChosen >= (search.fitAlone.get(member) ?? -Infinity) + LN_MUST_ADD;
    if (multiple && !multiple.members.every(adds)) return false;
    const log = logPrior + fit;
    search.found.push({ ...lasting, hypothesis, presence: 1, misplaced, log });
    search.lead = Math.max(search.lead, log);
    return true;
  }

  private logNotHere(e: Evidence): number {
    if (e.kind === "code") return logCodeNotHere(e);
    return Math.log(
      e.kind === "clue" ? clueAnywhere(e.clue) : 1 / readingRange(e.instrument, this.predictor.wiring.nominalVolt),
    );
  }

  /**
   * ln weight of each severity by all evidence: families are independent given the severity, readings of a family share
   * the draw.
   */
  private weighOne(
    { hypothesis: h, wanted }: ToWeigh,
    { most, codes: codesOf }: CodesOfIt,
    { misplaced, families }: View,
    presence: number,
    floor: number,
  ): Weighed | undefined {
    const { predictor } = this;
    const { faults } = predictor.hypotheses[h]!;
    const steps = severitySteps(predictor, h);
    const count = predictor.hypotheses[h]!.samples / predictor.draws;
    const total = new Float64Array(count * steps);
    const closer = this.options.closer?.get(wayName({ hypothesis: h, presence, misplaced }))?.fit;
    let still = this.readings.length * LN_PEAK + most;
    const isKnown = (family: Family) => this.families.known(h, family, presence) !== undefined;
    const all = [...families.values()];
    // what is known costs nothing, and may spare the rest
    for (const list of [...all.filter(isKnown), ...all.filter((f) => !isKnown(f))]) {
      if (!closer && still + max(total) < floor) return undefined;
      still -= list.readings.length * LN_PEAK;
      const own = this.families.log(h, list, wanted, count * steps, presence);
      for (let k = 0; k < total.length; k++) total[k] = total[k]! + own[k]!;
    }
    if (!closer && still + max(total) < floor) return undefined;
    const codes = codesOf();
    let fixed = 0;
    for (const e of this.evidence)
      if (e.kind === "clue" && e.clue.type !== "holds")
        fixed += Math.log(clueLikelihood(e.clue, faults, presence < 1, misplaced));
    const places = new Float64Array(count);
    const known = this.options.severities?.get(h);
    const readOf = () => Float64Array.from(places, (_, p) => logMean(total.subarray(p * steps, (p + 1) * steps)));
    if (closer) {
      const better = betterBy(closer, readOf());
      for (let k = 0; k < total.length; k++) total[k] = total[k]! + better;
    }
    const read = readOf();
    for (let p = 0; p < count; p++)
      places[p] = wanted[p * predictor.draws] ? codes[p]! + fixed + (known?.[p] ?? 0) + read[p]! : -Infinity;
    for (const e of this.evidence)
      if (e.kind === "clue" && e.clue.type === "holds") addHoldsLikelihood(predictor, h, e.clue, wanted, places);
    return { places, total, families };
  }
}
/**
 * By how much a closer look finds the readings likelier than few draws do, ln, at the severities looked at: by as much
 * at the others. Where few draws make little of just those, they stand for no more than five times as much.
 * @param read ln likelihood of the readings by severity, in few draws
 */
function betterBy(closer: CloserFit, read: Float64Array): number {
  const places = [...closer.keys()];
  const sum = (list: Float64Array) => logMean(list) + Math.log(list.length);
  const few = sum(Float64Array.from(places, (p) => read[p]!));
  const part = few - sum(read);
  return sum(Float64Array.from(places, (p) => closer.get(p)!)) - few + Math.min(0, part - LN_STANDS_FOR);
}
const LN_STANDS_FOR = Math.log(1 / 5);
const max = (list: Float64Array) => {
  let m = -Infinity;
  for (const x of list) if (x > m) m = x;
  return m;
};
/** A hypothesis with what its codes leave of it, before its readings are looked at. */
interface ToWeigh extends CodesOfIt {
  readonly multiple: MultipleFaultHypothesis | undefined;
  readonly hypothesis: number;
  readonly wanted: Uint8Array;
  readonly logPrior: number;
  /** ln of prior times likelihood of the codes; −∞ for several faults */
  readonly byCodes: number;
}
interface CodesOfIt {
  /** ln likelihood of the codes by severity, and a bound on it that costs nothing */
  readonly codes: () => Float64Array;
  readonly most: number;
}
/** The readings as they were taken: where logged, or at a look-alike. */
interface View {
  readonly misplaced: Misplacement | undefined;
  readonly families: ReadonlyMap<string, Family>;
}
interface Search {
  readonly found: WeighedComponent[];
  /** ln weight of the best so far */
  lead: number;
  /** ln likelihood that each single fault reaches by itself: a second fault must add to that */
  readonly fitAlone: Map<number, number>;
}
interface Weighed {
  /** ln weight by severity; and by severity and step, readings alone */
  readonly places: Float64Array;
  readonly total: Float64Array;
  readonly families: ReadonlyMap<string, Family>;
}
interface WeighedComponent extends Weighed {
  readonly hypothesis: number;
  readonly presence: number;
  readonly misplaced: Misplacement | undefined;
  readonly log: number;
}
function spreadOverDraws(predictor: Predictor, h: number, places: Float64Array): Float64Array {
  const w = normalise(places);
  const { draws } = predictor;
  const used = predictor.drawsUsed(h);
  const out = new Float64Array(places.length * draws);
  for (let s = 0; s < out.length; s++) out[s] = s % draws < used ? w[Math.floor(s / draws)]! / used : 0;
  return out;
}
/** Weight of each step within its severity. */
function stepsWithin(total: Float64Array, steps: number): Float64Array | undefined {
  if (steps === 1) return undefined;
  const out = new Float64Array(total.length);
  for (let k = 0; k < total.length; k += steps) {
    const own = total.subarray(k, k + steps);
    const most = max(own);
    if (most > -Infinity) out.set(normalise(own), k);
    else out.fill(1 / steps, k, k + steps);
  }
  return out;
}
