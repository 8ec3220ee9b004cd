import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Fault } from "../faults/fault.js";
import { clueAnywhere, clueLikelihood } from "./clues.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { stateName } from "../network/state.js";
import { likelihood, phi, scaleOf, spreads, voltRange } from "./likelihood.js";
import { misplacements, type Misplacement } from "./misplaced.js";
import type { Instrument, Predictor } from "./predictor.js";

/**
 * One thing that may be so: a hypothesis of the predictor (nothing, one fault, several), always there or coming and
 * going, with the readings where the logbook says or at a look-alike connector.
 */
export interface World {
  readonly hypothesis: number;
  /** share of the time in which the fault is there when somebody looks; 1 for a lasting one */
  readonly presence: number;
  readonly misplaced: Misplacement | undefined;
  readonly share: number;
  /** weight of each sample within this world, sums to 1 */
  readonly weights: Float64Array;
}

/** Belief over worlds; with `notHere`, "not in this wiring", shares sum to 1. */
export interface Posterior {
  /** strongest first; those below 1e-7 are left out */
  readonly worlds: readonly World[];
  /** by hypothesis, over all its worlds */
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
  readonly several?: readonly { readonly hypothesis: number; readonly logPrior: number; readonly wanted: Uint8Array }[];
  /** left out: what comes and goes, and readings at the wrong connector (for measuring what they are worth) */
  readonly only?: "lasting";
}

/** Hypotheses and samples this far behind after codes alone are not read up any further (natural log). */
const PRUNE_AFTER_CODES = Math.log(1e-9);
/** What "not in this wiring" expects of a code: that something is set, no one knows what. */
const NOT_HERE_CODE = 0.4;
const WORTH_KEEPING = 1e-7;

/**
 * Bayes' rule over single faults, the healthy machine, faults that come and go, several faults where asked for,
 * readings taken at a look-alike, and "not in this wiring". Each hypothesis is a cloud of samples (severity × draw);
 * its likelihood is the mean over samples of the product over evidence.
 */
export function weigh(predictor: Predictor, evidence: readonly Evidence[], options: WeighOptions = {}): Posterior {
  return new Weighing(predictor, evidence, options).posterior();
}

/** ln likelihood of evidence, sample by sample, remembered by evidence: a new reading only adds its own. */
class Weighing {
  private readonly codes: readonly CodeEvidence[];
  private readonly readings: readonly ReadingEvidence[];
  private readonly range: number;
  private readonly logPrior: Float64Array;
  private readonly byCodes: AfterCodes;
  private readonly names: readonly string[];

  constructor(private readonly predictor: Predictor, private readonly evidence: readonly Evidence[], private readonly options: WeighOptions) {
    this.codes = evidence.filter((e) => e.kind === "code");
    this.readings = evidence.filter((e) => e.kind === "reading");
    this.names = this.readings.map(nameOf);
    this.range = voltRange(predictor.wiring.nominalVolt);
    this.logPrior = logPriors(predictor, options.factors);
    this.byCodes = afterCodes(predictor, this.codes, this.logPrior, options.factors);
  }

  posterior(): Posterior {
    const { predictor, byCodes } = this;
    const found: { hypothesis: number; presence: number; misplaced: Misplacement | undefined; log: number; cloud: Float64Array }[] = [];
    const places = this.options.only ? [undefined] : [undefined, ...misplacements(predictor.wiring, this.readings)];
    const singles = [...byCodes.wanted].map(([hypothesis, wanted]) => ({ hypothesis, wanted, logPrior: this.logPrior[hypothesis]!, codes: byCodes.clouds.get(hypothesis)! }));
    const several = (this.options.several ?? []).map((s) => ({ ...s, codes: codeCloud(predictor, s.hypothesis, this.codes, 1) }));
    for (const one of [...singles, ...several]) {
      const faults = predictor.hypotheses[one.hypothesis]!.faults;
      for (const misplaced of places) {
        if (misplaced && faults.length > 1) continue;
        const base = one.logPrior + (misplaced?.logPrior ?? 0);
        if (misplaced && byCodes.log[one.hypothesis]! + misplaced.logPrior < byCodes.best + LN_MISPLACED_LEAST) continue;
        const fine = this.readingsFor(one.hypothesis, one.wanted, misplaced);
        const lasting = this.cloudOf(one.hypothesis, one.wanted, one.codes, fine, 1, misplaced);
        const some = faults.length === 1 && !this.options.only ? comingAndGoing(faults[0]!, this.options.comesAndGoes ?? false) : 0;
        found.push({ hypothesis: one.hypothesis, presence: 1, misplaced, cloud: lasting, log: base + Math.log(1 - some) + logMean(lasting) });
        if (some === 0 || misplaced || byCodes.log[one.hypothesis]! < byCodes.best + LN_GOING_LEAST) continue;
        for (const presence of DEFAULTS.intermittent.presence) {
          const cloud = this.cloudOf(one.hypothesis, one.wanted, byCodes.going(one.hypothesis, presence), fine, presence);
          found.push({ hypothesis: one.hypothesis, presence, misplaced, cloud, log: base + Math.log(some / DEFAULTS.intermittent.presence.length) + logMean(cloud) });
        }
      }
    }
    const notHereLog = this.logPrior.at(-1)! + this.evidence.reduce((sum, e) => sum + this.logNotHere(e), 0);
    const most = found.reduce((a, w) => Math.max(a, w.log), notHereLog);
    const sum = found.reduce((a, w) => a + Math.exp(w.log - most), Math.exp(notHereLog - most));
    const share = new Float64Array(predictor.hypotheses.length);
    const worlds: World[] = [];
    for (const w of found) {
      const own = Math.exp(w.log - most) / sum;
      share[w.hypothesis] = share[w.hypothesis]! + own;
      if (own >= WORTH_KEEPING) worlds.push({ hypothesis: w.hypothesis, presence: w.presence, misplaced: w.misplaced, share: own, weights: normalise(w.cloud) });
    }
    worlds.sort((a, b) => b.share - a.share);
    return { worlds, share, notHere: Math.exp(notHereLog - most) / sum, shareByCodes: byCodes.share, samplesByCodes: byCodes.samples, wantedByCodes: byCodes.wanted };
  }

  private logNotHere(e: Evidence): number {
    if (e.kind === "code") return e.weight * Math.log(e.present ? NOT_HERE_CODE : 1 - NOT_HERE_CODE);
    return Math.log(e.kind === "clue" ? clueAnywhere(e.clue) : 1 / scaleOf(e.instrument, this.predictor.wiring.nominalVolt));
  }

  private readingsFor(h: number, wanted: Uint8Array, misplaced: Misplacement | undefined): Float64Array[] {
    return this.readings.map((e, i) => {
      if (!misplaced) return readingCloud(this.predictor, h, e, this.names[i]!, wanted, this.range);
      const moved = misplaced.moved(e);
      return readingCloud(this.predictor, h, moved, moved.point === e.point && moved.black === e.black && moved.state === e.state ? this.names[i]! : nameOf(moved), wanted, this.range);
    });
  }

  /** ln weight of each sample by all evidence. Readings of one entry share whether the fault was there at the time. */
  private cloudOf(h: number, wanted: Uint8Array, codes: Float64Array, fine: readonly Float64Array[], presence: number, misplaced?: Misplacement): Float64Array {
    const { predictor } = this, { faults, samples } = predictor.hypotheses[h]!;
    const steps = stepsOf(predictor, h);
    const total = new Float64Array(samples * steps).fill(1);
    const scale = presence === 1 ? this.multiply(total, fine) : this.multiplyMixed(total, wanted, fine, steps, presence);
    let fixed = scale;
    for (const e of this.evidence) if (e.kind === "clue" && e.clue.type !== "holds") fixed += Math.log(clueLikelihood(e.clue, faults, presence < 1, misplaced));
    const cloud = new Float64Array(samples);
    for (let s = 0; s < samples; s++) {
      if (!wanted[s]) { cloud[s] = -Infinity; continue; }
      let mean = 0;
      for (let k = s * steps; k < (s + 1) * steps; k++) mean += total[k]!;
      cloud[s] = codes[s]! + fixed + Math.log(mean / steps);
    }
    for (const e of this.evidence) if (e.kind === "clue" && e.clue.type === "holds") addHolds(predictor, h, e.clue, wanted, cloud);
    return cloud;
  }
  /** @returns ln of what was divided out so that many readings do not vanish */
  private multiply(total: Float64Array, fine: readonly Float64Array[]): number {
    let scale = 0;
    fine.forEach((f, e) => {
      for (let i = 0; i < total.length; i++) total[i] = total[i]! * f[i]!;
      if (e % RESCALE_EVERY === RESCALE_EVERY - 1) scale += rescale(total);
    });
    return scale;
  }
  private multiplyMixed(total: Float64Array, wanted: Uint8Array, fine: readonly Float64Array[], steps: number, presence: number): number {
    const { draws } = this.predictor;
    this.healthy ??= this.readingsFor(0, new Uint8Array(draws).fill(1), undefined);
    let scale = 0;
    for (let at = 0; at < fine.length;) {
      let end = at + 1;
      while (end < fine.length && this.readings[end]!.number === this.readings[at]!.number) end++;
      for (let s = 0; s < wanted.length; s++) {
        if (!wanted[s]) continue;
        let calm = 1 - presence;
        for (let e = at; e < end; e++) calm *= this.healthy[e]![s % draws]!;
        for (let k = s * steps; k < (s + 1) * steps; k++) {
          let there = presence;
          for (let e = at; e < end; e++) there *= fine[e]![k]!;
          total[k] = total[k]! * (there + calm);
        }
      }
      if (Math.floor(end / RESCALE_EVERY) > Math.floor(at / RESCALE_EVERY)) scale += rescale(total);
      at = end;
    }
    return scale;
  }
  private healthy: readonly Float64Array[] | undefined;
}
/** Products of likelihoods are brought back to 1 after so many readings. */
const RESCALE_EVERY = 12;
function rescale(total: Float64Array): number {
  const most = total.reduce((a, b) => Math.max(a, b), 0);
  if (most === 0) return 0;
  for (let i = 0; i < total.length; i++) total[i] = total[i]! / most;
  return Math.log(most);
}
/** Readings at a look-alike are only thought of for suspects that codes leave this likely, natural log. */
const LN_MISPLACED_LEAST = Math.log(1e-4);
/** What comes and goes is only thought of for suspects that codes leave this likely, natural log. */
const LN_GOING_LEAST = Math.log(1e-6);

interface AfterCodes {
  readonly signature: string;
  /** ln of prior times likelihood of the codes, by hypothesis; the best of them */
  readonly log: Float64Array;
  readonly best: number;
  readonly share: Float64Array;
  readonly clouds: ReadonlyMap<number, Float64Array>;
  readonly samples: ReadonlyMap<number, Float64Array>;
  readonly wanted: ReadonlyMap<number, Uint8Array>;
  /** ln likelihood of the codes by sample where the fault comes and goes */
  going(h: number, presence: number): Float64Array;
}

/** What codes alone leave: worked out once for one set of codes. */
function afterCodes(predictor: Predictor, codes: readonly CodeEvidence[], logPrior: Float64Array, factors: Float64Array | undefined): AfterCodes {
  const signature = `${codes.map((c) => `${c.monitor}${c.present ? "+" : "-"}${c.status}${c.weight}`).join(" ")} ${factors ? factors.join(" ") : ""}`;
  const known = predictor.memo.get("after codes") as AfterCodes | undefined;
  if (known?.signature === signature) return known;
  predictor.memo.delete("readings");
  const n = predictor.faults.length + 1;
  const log = new Float64Array(n), clouds = new Map<number, Float64Array>();
  for (let h = 0; h < n; h++) {
    const cloud = codeCloud(predictor, h, codes, 1);
    log[h] = logPrior[h]! + logMean(cloud);
    clouds.set(h, cloud);
  }
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity);
  const wanted = new Map<number, Uint8Array>(), samples = new Map<number, Float64Array>();
  for (let h = 0; h < n; h++) {
    const cloud = clouds.get(h)!;
    if (log[h]! < best + PRUNE_AFTER_CODES) { clouds.delete(h); continue; }
    wanted.set(h, Uint8Array.from(cloud, (l) => (logPrior[h]! + l >= best + PRUNE_AFTER_CODES ? 1 : 0)));
    samples.set(h, normalise(cloud));
  }
  const notHere = logPrior[n]! + codes.reduce((sum, e) => sum + e.weight * Math.log(e.present ? NOT_HERE_CODE : 1 - NOT_HERE_CODE), 0);
  const goingBy = new Map<string, Float64Array>();
  const going = (h: number, presence: number) => {
    const name = `${h} ${presence}`;
    let cloud = goingBy.get(name);
    if (!cloud) goingBy.set(name, (cloud = codeCloud(predictor, h, codes, presence)));
    return cloud;
  };
  const result: AfterCodes = { signature, log, best, share: normalise(Float64Array.from([...log, notHere])), clouds, samples, wanted, going };
  predictor.memo.set("after codes", result);
  return result;
}

/** ln likelihood of all codes, by sample. */
export function codeCloud(predictor: Predictor, h: number, codes: readonly CodeEvidence[], presence: number): Float64Array {
  const { samples } = predictor.hypotheses[h]!, n = predictor.monitors.length;
  const cloud = new Float64Array(samples);
  if (codes.length === 0) return cloud;
  const shares = predictor.codeShares(h, codes.map((c) => c.monitor)), lasting = presence === 1;
  for (const e of codes) {
    for (let s = 0; s < samples; s++) cloud[s] = cloud[s]! + logCode(shares[s * n + e.monitor]!, e, lasting, presence);
  }
  return cloud;
}

/** ln probability of one code's evidence where the fault, when there, sets it with probability `share`. */
export function logCode(share: number, e: Pick<CodeEvidence, "present" | "status" | "weight">, lasting = true, presence = 1): number {
  const { miss, falseAlarm, lasting: l, comesAndGoes: g } = DEFAULTS.codes;
  const seen = lasting ? 1 : 0.5 + 0.5 * presence; // it need not have been there since codes were cleared
  const p = share * (1 - miss) * seen + (1 - share) * falseAlarm;
  if (!e.present) return e.weight * Math.log(1 - p);
  const status = e.status === "absent" ? 1 : lasting ? l[e.status] : g[e.status];
  return e.weight * (Math.log(p) + Math.log(status));
}

/** ln of the normalised priors; the last entry is "not in this wiring". */
export function logPriors(predictor: Predictor, factors: Float64Array | undefined): Float64Array {
  const raw = [DEFAULTS.prior.nothingWrong, ...predictor.faults.map((f, i) => f.prior * (factors?.[i] ?? 1)), DEFAULTS.prior.notInThisWiring];
  const rates = raw.map((r) => r ** DEFAULTS.priorTrust), sum = rates.reduce((a, b) => a + b, 0);
  return Float64Array.from(rates, (r) => Math.log(r / sum));
}

/** Share of a fault's rate that is of the kind that comes and goes. */
export function comingAndGoing(fault: Fault, told: boolean): number {
  const { contact, wire, device, told: factor } = DEFAULTS.intermittent;
  const base = fault.place.type === "cavity" || fault.place.type === "connector" || fault.place.type === "splice" || fault.place.type === "ground" ? contact
    : fault.place.type === "wire" ? wire : fault.mode === "trueCondition" || fault.mode === "wrongPart" || fault.mode === "biased" || fault.mode === "fuseBlown" || fault.mode === "cavitiesSwapped" ? 0 : device;
  return Math.min(0.9, base * (told ? factor : 1));
}

/** Steps between two grid points of the severity: a true severity lies between them, and at the same place for every reading. */
const STEPS = 4;
export const stepsOf = (predictor: Predictor, h: number) => (predictor.hypotheses[h]!.stepped ? STEPS : 1);
/** Evidence whose likelihoods are kept. */
const KEPT_READINGS = 96;

/**
 * Likelihood of one reading by sample and step [sample · steps + step], stepping through severities finer than the
 * grid: predictions between two grid points are interpolated, with the same step for every reading.
 */
export function readingCloud(predictor: Predictor, h: number, e: ReadingEvidence, name: string, wanted: Uint8Array, range: number): Float64Array {
  let memo = predictor.memo.get("readings") as Map<string, Map<number, Float64Array>> | undefined;
  if (!memo) predictor.memo.set("readings", (memo = new Map()));
  let column = memo.get(name);
  if (!column) {
    if (memo.size >= KEPT_READINGS) memo.delete(memo.keys().next().value!);
    memo.set(name, (column = new Map()));
  }
  const known = column.get(h);
  if (known && h <= predictor.faults.length) return known;
  const fine = likelihoods(predictor, h, e, wanted, range);
  column.set(h, fine);
  return fine;
}
const nameOf = (e: ReadingEvidence) => `${e.instrument} ${e.point} ${e.black ?? ""} ${e.value} ${stateName(e.state)}`;

function likelihoods(predictor: Predictor, h: number, e: ReadingEvidence, wanted: Uint8Array, range: number): Float64Array {
  const { stepped } = predictor.hypotheses[h]!, { draws } = predictor;
  const steps = stepsOf(predictor, h);
  const { values, stride, place } = predictedAt(predictor, h, e, wanted);
  const width = spreads(values, stride, place, wanted, draws, e.instrument, steps, stepped);
  const fine = new Float64Array(wanted.length * steps);
  for (let s = 0; s < wanted.length; s++) {
    if (!wanted[s]) continue;
    const here = values[s * stride + place]!;
    for (let k = 0; k < steps; k++) {
      const t = (k + 0.5) / steps - 0.5;
      const next = t < 0 ? s - draws : s + draws;
      const there = wanted[next] === 1 ? values[next * stride + place]! : here;
      fine[s * steps + k] = likelihood(e.instrument, e.value, between(here, there, Math.abs(t), e.instrument), width[s]!, range);
    }
  }
  return fine;
}

/** Predictions of a reading: a column, how far its samples stand apart in it, and where in each the reading is. */
export function predictedAt(predictor: Predictor, h: number, e: Pick<ReadingEvidence, "instrument" | "point" | "black" | "state">, wanted?: Uint8Array): { readonly values: Float32Array; readonly stride: number; readonly place: number } {
  if (e.black !== undefined) return { values: predictor.predictBetween(h, e.state, e.instrument, e.point, e.black, wanted), stride: 1, place: 0 };
  return { values: predictor.predict(h, e.state, e.instrument, wanted), stride: predictor.stride(e.instrument), place: predictor.placeOf(e.instrument, e.point)! };
}

/** Whether a new fuse or a breaker holds: the circuit behind it is up in that state. */
function addHolds(predictor: Predictor, h: number, clue: { readonly fuse: string; readonly held: boolean; readonly state: State }, wanted: Uint8Array, cloud: Float64Array): void {
  const at = (end: "in" | "out") => predictedAt(predictor, h, { instrument: "voltmeter", point: `${clue.fuse}:${end}`, black: undefined, state: clue.state }, wanted);
  const into = at("in"), out = at("out"), sure = DEFAULTS.clues.holds;
  for (let s = 0; s < cloud.length; s++) {
    if (!wanted[s]) continue;
    const up = phi((out.values[s * out.stride + out.place]! - 0.5 * into.values[s * into.stride + into.place]!) / (0.05 * predictor.wiring.nominalVolt));
    const p = (2 * sure - 1) * up + (1 - sure);
    cloud[s] = cloud[s]! + Math.log(clue.held ? p : 1 - p);
  }
}

/** Part of the way from one prediction to the next: straight in volts, on the logarithm in ohms; an open circuit stays one. */
function between(here: number, there: number, share: number, instrument: Instrument): number {
  if (!Number.isFinite(here) || !Number.isFinite(there)) return here;
  if (instrument !== "ohmmeter" || here <= 0 || there <= 0) return here + (there - here) * share;
  return here * (there / here) ** share;
}

export function logMean(log: Float64Array): number {
  let most = -Infinity, sum = 0;
  for (const l of log) most = Math.max(most, l);
  for (const l of log) sum += Math.exp(l - most);
  return most + Math.log(sum / log.length);
}
export function normalise(log: Float64Array): Float64Array {
  const most = log.reduce((a, b) => Math.max(a, b), -Infinity);
  const w = log.map((l) => Math.exp(l - most));
  const sum = w.reduce((a, b) => a + b, 0);
  return w.map((x) => x / sum);
}
