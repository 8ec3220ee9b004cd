import { LikelihoodCache } from "./likelihoodCache.js";
import { DEFAULTS } from "../defaults.js";
import type { Fault } from "../faults/fault.js";
import type { State } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import { familiesOf, type Families } from "../prediction/unknowns.js";
import { clueAnywhere, clueLikelihood } from "./clues.js";
import {
  codeLogLikelihoods,
  codePosterior,
  logCodeNotHere,
  logPriors,
  meanOverDraws,
  type Breadth,
  type CodePosterior,
} from "./codeWeights.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { phi, readingRange } from "./likelihood.js";
import { logMean, normalise } from "./maths.js";
import { misplacements, type Misplacement } from "./misplaced.js";
import { LN_MUST_ADD, type MultipleFaultHypothesis } from "./multipleFaults.js";
import { drawSteps, readingLikelihoods, readingName, severitySteps, type NamedReading } from "./readingWeights.js";

/**
 * One thing that may be so: a hypothesis of the predictor (nothing, one fault, several), always there or coming and
 * going, with the readings where the logbook says or at a look-alike connector.
 */
export interface MixtureComponent {
  readonly hypothesis: number;
  /** share of the time in which the fault is there when somebody looks; 1 for a lasting one */
  readonly presence: number;
  readonly misplaced: Misplacement | undefined;
  readonly share: number;
  /** weight of each sample within this component, sums to 1; the same for every draw of one severity */
  readonly weights: Float64Array;
  /** for components worth planning for whose severity is stepped: weight of each step between grid points within its severity, [severity · steps + step] */
  readonly steps: Float64Array | undefined;
  /** for families of readings already taken: weight of each draw within its severity, [sample] */
  readonly draws: ReadonlyMap<string, Float64Array>;
}

/** Belief over components; with `notHere`, "not in this wiring", shares sum to 1. */
export interface Posterior {
  /** strongest first; those below 1e-7 are left out */
  readonly components: readonly MixtureComponent[];
  /** by hypothesis, over all its components */
  readonly share: Float64Array;
  readonly notHere: number;
  /** belief from codes alone, before any reading; the last entry is "not in this wiring" */
  readonly shareByCodes: Float64Array;
  readonly samplesByCodes: ReadonlyMap<number, Float64Array>;
  /** samples that codes alone leave possible (1), by hypothesis: what readings are weighed with */
  readonly wantedByCodes: ReadonlyMap<number, Uint8Array>;
}

export interface WeighOptions {
  /** factor on the rate of each fault, from what is known of the machine's history; [fault] */
  readonly factors?: Float64Array | undefined;
  readonly comesAndGoes?: boolean;
  /** hypotheses of several faults that are to be weighed too, with the ln of their rate relative to the sum of all single ones */
  readonly multiple?: readonly MultipleFaultHypothesis[];
  /** how many hypotheses are weighed; all of them, exactly, unless said otherwise */
  readonly breadth?: Breadth;
  /** left out: what comes and goes, and readings at the wrong connector (for measuring what they are worth) */
  readonly only?: "lasting";
}

const WORTH_KEEPING = 1e-7;
/** Components below this share are never planned for: what their draws say is not worked out. */
const WORTH_PLANNING = 3e-4;
const NO_DRAWS: ReadonlyMap<string, Float64Array> = new Map();

/**
 * Bayes' rule over single faults, the healthy machine, faults that come and go, several faults where asked for,
 * readings taken at a look-alike, and "not in this wiring". Each hypothesis is a cloud of samples (severity × draw);
 * its likelihood is the mean over samples of the product over evidence.
 */
export function weigh(predictor: Predictor, evidence: readonly Evidence[], options: WeighOptions = {}): Posterior {
  return new Weighing(predictor, evidence, options).posterior();
}

/** ln likelihood of evidence, severity by severity, remembered by evidence: a new reading only adds its own. */
class Weighing {
  private readonly codes: readonly CodeEvidence[];
  private readonly readings: readonly ReadingEvidence[];
  private readonly logPrior: Float64Array;
  private readonly byCodes: CodePosterior;
  private readonly families: Families;

  constructor(
    private readonly predictor: Predictor,
    private readonly evidence: readonly Evidence[],
    private readonly options: WeighOptions,
  ) {
    this.codes = evidence.filter((e) => e.kind === "code");
    this.readings = evidence.filter((e) => e.kind === "reading");
    this.logPrior = logPriors(predictor, options.factors);
    this.byCodes = codePosterior(predictor, this.codes, this.logPrior, options.factors, options.breadth ?? "exact");
    this.families = familiesOf(predictor);
  }

  posterior(): Posterior {
    const { predictor, byCodes } = this;
    const found: WeighedComponent[] = [];
    const places = this.options.only ? [undefined] : [undefined, ...misplacements(predictor.wiring, this.readings)];
    const views = places.map((misplaced) => ({ misplaced, families: this.viewed(misplaced) }));
    const singles = [...byCodes.wanted].map(([hypothesis, wanted]) => ({
      several: undefined,
      hypothesis,
      wanted,
      logPrior: this.logPrior[hypothesis]!,
      codes: byCodes.places.get(hypothesis)!,
    }));
    const several = (this.options.multiple ?? []).map((s) => ({
      several: s,
      hypothesis: s.hypothesis,
      wanted: s.wanted,
      logPrior: s.logPrior,
      codes: meanOverDraws(predictor, s.hypothesis, codeLogLikelihoods(predictor, s.hypothesis, this.codes, 1, true)),
    }));
    // those that fit the codes best first: the others need not be read up once they cannot catch up
    let lead = -Infinity;
    const alone = new Map<number, number>();
    const exact = (this.options.breadth ?? "exact") === "exact";
    if (!exact)
      singles.sort((a, b) => byCodes.log[b.hypothesis]! - byCodes.log[a.hypothesis]! || a.hypothesis - b.hypothesis);
    const floor = (base: number) => (exact ? -Infinity : lead + LN_KEEPING - base);
    for (const one of [...singles, ...several]) {
      const faults = predictor.hypotheses[one.hypothesis]!.faults;
      for (const { misplaced, families } of views) {
        if (misplaced && faults.length > 1) continue;
        const base = one.logPrior + (misplaced?.logPrior ?? 0);
        if (misplaced && byCodes.log[one.hypothesis]! + misplaced.logPrior < byCodes.best + LN_MISPLACED_LEAST)
          continue;
        const lasting = this.weighOne(one.hypothesis, one.wanted, one.codes, families, 1, misplaced, floor(base));
        const some =
          faults.length === 1 && !this.options.only
            ? intermittentShare(faults[0]!, this.options.comesAndGoes ?? false)
            : 0;
        if (lasting) {
          const fit = logMean(lasting.places);
          if (!misplaced && faults.length === 1) alone.set(one.hypothesis, fit);
          if (one.several?.members.some((m) => fit + one.several.logChosen < (alone.get(m) ?? -Infinity) + LN_MUST_ADD))
            continue;
          const log = base + Math.log(1 - some) + fit;
          found.push({ ...lasting, hypothesis: one.hypothesis, presence: 1, misplaced, log });
          lead = Math.max(lead, log);
        }
        if (some === 0 || misplaced || byCodes.log[one.hypothesis]! < byCodes.best + LN_GOING_LEAST) continue;
        for (const presence of DEFAULTS.intermittent.presence) {
          const going = this.weighOne(
            one.hypothesis,
            one.wanted,
            byCodes.going(one.hypothesis, presence),
            families,
            presence,
            misplaced,
            floor(base),
          );
          if (going)
            found.push({
              ...going,
              hypothesis: one.hypothesis,
              presence,
              misplaced,
              log: base + Math.log(some / DEFAULTS.intermittent.presence.length) + logMean(going.places),
            });
        }
      }
    }
    const notHereLog = this.logPrior.at(-1)! + this.evidence.reduce((sum, e) => sum + this.logNotHere(e), 0);
    const most = found.reduce((a, w) => Math.max(a, w.log), notHereLog);
    const sum = found.reduce((a, w) => a + Math.exp(w.log - most), Math.exp(notHereLog - most));
    const share = new Float64Array(predictor.hypotheses.length);
    const components: MixtureComponent[] = [];
    for (const w of found) {
      const own = Math.exp(w.log - most) / sum;
      share[w.hypothesis] = share[w.hypothesis]! + own;
      if (own >= WORTH_KEEPING)
        components.push({
          hypothesis: w.hypothesis,
          presence: w.presence,
          misplaced: w.misplaced,
          share: own,
          weights: spreadOverDraws(predictor, w.hypothesis, w.places),
          ...(own >= WORTH_PLANNING
            ? { steps: stepsWithin(w.total, severitySteps(predictor, w.hypothesis)), draws: this.drawsOf(w) }
            : { steps: undefined, draws: NO_DRAWS }),
        });
    }
    components.sort((a, b) => b.share - a.share);
    return {
      components,
      share,
      notHere: Math.exp(notHereLog - most) / sum,
      shareByCodes: byCodes.share,
      samplesByCodes: byCodes.samples,
      wantedByCodes: byCodes.wanted,
    };
  }

  private logNotHere(e: Evidence): number {
    if (e.kind === "code") return logCodeNotHere(e);
    return Math.log(
      e.kind === "clue" ? clueAnywhere(e.clue) : 1 / readingRange(e.instrument, this.predictor.wiring.nominalVolt),
    );
  }

  /** the readings by family, as they were really taken if at a look-alike */
  private viewed(misplaced: Misplacement | undefined): ReadonlyMap<string, Family> {
    const by = new Map<string, NamedReading[]>();
    for (const r of this.readings) {
      const e = misplaced ? misplaced.moved(r) : r;
      const family = this.families.of(e);
      const list = by.get(family) ?? [];
      list.push({ reading: e, family, name: readingName(e) });
      by.set(family, list);
    }
    return new Map(
      [...by].map(([family, readings]) => [
        family,
        {
          family,
          readings,
          name: readings.map((r) => r.name).join(" & "),
          columns: new Map<number, Map<number, Float64Array>>(),
        },
      ]),
    );
  }

  /** ln weight of each severity by all evidence: families are independent given the severity, readings of a family share the draw. */
  private weighOne(
    h: number,
    wanted: Uint8Array,
    codes: Float64Array,
    families: ReadonlyMap<string, Family>,
    presence: number,
    misplaced: Misplacement | undefined,
    floor: number,
  ): Omit<WeighedComponent, "hypothesis" | "presence" | "misplaced" | "log"> | undefined {
    const { predictor } = this;
    const { faults } = predictor.hypotheses[h]!;
    const steps = severitySteps(predictor, h);
    const count = codes.length;
    const total = new Float64Array(count * steps);
    let still = this.readings.length * LN_PEAK + max(codes);
    for (const list of families.values()) {
      if (still + max(total) < floor) return undefined;
      still -= list.readings.length * LN_PEAK;
      const own = this.familyLog(h, list, wanted, count * steps, presence);
      for (let k = 0; k < total.length; k++) total[k] = total[k]! + own[k]!;
    }
    let fixed = 0;
    for (const e of this.evidence)
      if (e.kind === "clue" && e.clue.type !== "holds")
        fixed += Math.log(clueLikelihood(e.clue, faults, presence < 1, misplaced));
    const places = new Float64Array(count);
    for (let p = 0; p < count; p++)
      places[p] = wanted[p * predictor.draws]
        ? codes[p]! + fixed + logMean(total.subarray(p * steps, (p + 1) * steps))
        : -Infinity;
    for (const e of this.evidence)
      if (e.kind === "clue" && e.clue.type === "holds") addHolds(predictor, h, e.clue, wanted, places);
    return { places, total, families };
  }

  /** ln mean over draws of the product over one family's readings, by severity and step: remembered, since most readings stay. */
  private familyLog(h: number, list: Family, wanted: Uint8Array, size: number, presence: number): Float64Array {
    const { predictor } = this;
    let memo = list.columns.get(presence);
    if (!memo)
      list.columns.set(presence, (memo = LikelihoodCache.of(predictor).families.column(`${presence} ${list.name}`)));
    const known = memo.get(h);
    if (known) return known;
    const steps = severitySteps(predictor, h);
    const out = new Float64Array(size);
    const member = this.memberOf(h, list, wanted, presence);
    const width = predictor.drawsUsed(h) * member.fine;
    for (let p = 0; p * steps < size; p++) {
      if (!wanted[p * predictor.draws]) continue;
      for (let k = p * steps; k < (p + 1) * steps; k++) {
        let mean = 0;
        for (let d = 0; d < width; d++) mean += product(member, k * width + d, d, presence);
        out[k] = Math.log(Math.max(mean / width, 1e-300));
      }
    }
    memo.set(h, out);
    return out;
  }
  private memberOf(h: number, list: Family, wanted: Uint8Array, presence: number): Member {
    return {
      family: list.family,
      arrays: list.readings.map((n) => this.cloudFor(h, n, wanted)),
      healthy: presence < 1 ? list.readings.map((n) => this.cloudFor(0, n, ALL_DRAWS)) : [],
      fine: drawSteps(this.families.order(list.family)),
    };
  }
  private cloudFor(h: number, n: NamedReading, wanted: Uint8Array): Float32Array {
    return readingLikelihoods(this.predictor, h, n, h === 0 ? ALL_DRAWS : wanted, this.families);
  }

  /** for every family read so far, how much each draw counts within each severity */
  private drawsOf(w: WeighedComponent): ReadonlyMap<string, Float64Array> {
    const { predictor } = this;
    const { draws } = predictor;
    const used = predictor.drawsUsed(w.hypothesis);
    const steps = severitySteps(predictor, w.hypothesis);
    const by = new Map<string, Float64Array>();
    const wanted = w.hypothesis <= predictor.faults.length ? this.byCodes.wanted.get(w.hypothesis)! : ALL_WANTED;
    for (const list of w.families.values()) {
      const m = this.memberOf(w.hypothesis, list, wanted, w.presence);
      const out = new Float64Array(w.places.length * draws);
      const width = used * m.fine;
      for (let p = 0; p < w.places.length; p++) {
        if (w.places[p] === -Infinity) continue;
        let sum = 0;
        for (let k = p * steps; k < (p + 1) * steps; k++) {
          const heavy = Math.exp(w.total[k]! - w.places[p]!); // any scale will do
          for (let d = 0; d < width; d++) {
            const x = heavy * product(m, k * width + d, d, w.presence);
            out[p * draws + Math.floor(d / m.fine)]! += x;
            sum += x;
          }
        }
        for (let d = 0; d < draws; d++)
          out[p * draws + d] = sum > 0 && Number.isFinite(sum) ? out[p * draws + d]! / sum : d < used ? 1 / used : 0;
      }
      by.set(m.family, out);
    }
    return by;
  }
}
const ALL_DRAWS = new Uint8Array(256).fill(1);
const ALL_WANTED = new Uint8Array(1 << 14).fill(1);

/** The readings that hang on one unknown. */
interface Family {
  readonly family: string;
  readonly readings: readonly NamedReading[];
  readonly name: string;
  readonly columns: Map<number, Map<number, Float64Array>>;
}
/** No reading's density is above this, ln: 30 mV is the narrowest a prediction gets. */
const LN_PEAK = 2.8;
const LN_KEEPING = Math.log(1e-8);
const max = (list: Float64Array) => {
  let m = -Infinity;
  for (const x of list) if (x > m) m = x;
  return m;
};
interface Member {
  readonly family: string;
  readonly arrays: readonly Float32Array[];
  readonly healthy: readonly Float32Array[];
  readonly fine: number;
}
interface WeighedComponent {
  readonly hypothesis: number;
  readonly presence: number;
  readonly misplaced: Misplacement | undefined;
  readonly log: number;
  /** ln weight by severity; and by severity and step, readings alone */
  readonly places: Float64Array;
  readonly total: Float64Array;
  readonly families: ReadonlyMap<string, Family>;
}
function product(m: Member, at: number, draw: number, presence: number): number {
  let x = 1;
  if (presence === 1) for (const a of m.arrays) x *= a[at]!;
  else
    for (let i = 0; i < m.arrays.length; i++) x *= presence * m.arrays[i]![at]! + (1 - presence) * m.healthy[i]![draw]!;
  return x;
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
/** Readings at a look-alike are only thought of for suspects that codes leave this likely, natural log. */
const LN_MISPLACED_LEAST = Math.log(1e-3);
/** What comes and goes is only thought of for suspects that codes leave this likely, natural log. */
const LN_GOING_LEAST = Math.log(1e-5);

/** Share of a fault's rate that is of the kind that comes and goes. */
export function intermittentShare(fault: Fault, told: boolean): number {
  const { contact, wire, device, told: factor } = DEFAULTS.intermittent;
  const base =
    fault.place.type === "cavity" ||
    fault.place.type === "connector" ||
    fault.place.type === "splice" ||
    fault.place.type === "ground"
      ? contact
      : fault.place.type === "wire"
        ? wire
        : fault.mode === "trueCondition" ||
            fault.mode === "wrongPart" ||
            fault.mode === "biased" ||
            fault.mode === "fuseBlown" ||
            fault.mode === "cavitiesSwapped"
          ? 0
          : device;
  return Math.min(0.9, base * (told ? factor : 1));
}

/** Whether a new fuse or a breaker holds: the circuit behind it is up in that state. */
function addHolds(
  predictor: Predictor,
  h: number,
  clue: { readonly fuse: string; readonly held: boolean; readonly state: State },
  wanted: Uint8Array,
  places: Float64Array,
): void {
  const { draws } = predictor;
  const used = predictor.drawsUsed(h);
  const at = (end: "in" | "out") =>
    predictor.predictAt(
      h,
      { instrument: "voltmeter", point: `${clue.fuse}:${end}`, black: undefined, state: clue.state },
      wanted,
    );
  const into = at("in");
  const out = at("out");
  const sure = DEFAULTS.clues.holds;
  for (let place = 0; place < places.length; place++) {
    if (!wanted[place * draws]) continue;
    let up = 0;
    for (let s = place * draws; s < place * draws + used; s++)
      up += phi((out.at(s) - 0.5 * into.at(s)) / (0.05 * predictor.wiring.nominalVolt)) / used;
    const p = (2 * sure - 1) * up + (1 - sure);
    places[place] = places[place]! + Math.log(clue.held ? p : 1 - p);
  }
}
