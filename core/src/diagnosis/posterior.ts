import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Fault } from "../faults/fault.js";
import { clueAnywhere, clueLikelihood } from "./clues.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { stateName } from "../network/state.js";
import { likelihood, phi, scaleOf, voltRange } from "./likelihood.js";
import { familiesOf, type Families } from "./unknowns.js";
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
  /** weight of each sample within this world, sums to 1; the same for every draw of one severity */
  readonly weights: Float64Array;
  /** for families of readings already taken: weight of each draw within its severity, [sample] */
  readonly draws: ReadonlyMap<string, Float64Array>;
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
/** Worlds below this share are never planned for: what their draws say is not worked out. */
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
  private readonly byCodes: AfterCodes;
  private readonly families: Families;

  constructor(private readonly predictor: Predictor, private readonly evidence: readonly Evidence[], private readonly options: WeighOptions) {
    this.codes = evidence.filter((e) => e.kind === "code");
    this.readings = evidence.filter((e) => e.kind === "reading");
    this.logPrior = logPriors(predictor, options.factors);
    this.byCodes = afterCodes(predictor, this.codes, this.logPrior, options.factors);
    this.families = familiesOf(predictor);
  }

  posterior(): Posterior {
    const { predictor, byCodes } = this;
    const found: Found[] = [];
    const places = this.options.only ? [undefined] : [undefined, ...misplacements(predictor.wiring, this.readings)];
    const views = places.map((misplaced) => ({ misplaced, families: this.viewed(misplaced) }));
    const singles = [...byCodes.wanted].map(([hypothesis, wanted]) => ({ hypothesis, wanted, logPrior: this.logPrior[hypothesis]!, codes: byCodes.places.get(hypothesis)! }));
    const several = (this.options.several ?? []).map((s) => ({ ...s, codes: byPlace(predictor, s.hypothesis, codeCloud(predictor, s.hypothesis, this.codes, 1)) }));
    for (const one of [...singles, ...several]) {
      const faults = predictor.hypotheses[one.hypothesis]!.faults;
      for (const { misplaced, families } of views) {
        if (misplaced && faults.length > 1) continue;
        const base = one.logPrior + (misplaced?.logPrior ?? 0);
        if (misplaced && byCodes.log[one.hypothesis]! + misplaced.logPrior < byCodes.best + LN_MISPLACED_LEAST) continue;
        const lasting = this.weighOne(one.hypothesis, one.wanted, one.codes, families, 1, misplaced);
        const some = faults.length === 1 && !this.options.only ? comingAndGoing(faults[0]!, this.options.comesAndGoes ?? false) : 0;
        found.push({ ...lasting, hypothesis: one.hypothesis, presence: 1, misplaced, log: base + Math.log(1 - some) + logMean(lasting.places) });
        if (some === 0 || misplaced || byCodes.log[one.hypothesis]! < byCodes.best + LN_GOING_LEAST) continue;
        for (const presence of DEFAULTS.intermittent.presence) {
          const going = this.weighOne(one.hypothesis, one.wanted, byCodes.going(one.hypothesis, presence), families, presence, misplaced);
          found.push({ ...going, hypothesis: one.hypothesis, presence, misplaced, log: base + Math.log(some / DEFAULTS.intermittent.presence.length) + logMean(going.places) });
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
      if (own >= WORTH_KEEPING) worlds.push({ hypothesis: w.hypothesis, presence: w.presence, misplaced: w.misplaced, share: own, weights: spreadOverDraws(predictor, w.hypothesis, w.places), draws: own >= WORTH_PLANNING ? this.drawsOf(w) : NO_DRAWS });
    }
    worlds.sort((a, b) => b.share - a.share);
    return { worlds, share, notHere: Math.exp(notHereLog - most) / sum, shareByCodes: byCodes.share, samplesByCodes: byCodes.samples, wantedByCodes: byCodes.wanted };
  }

  private logNotHere(e: Evidence): number {
    if (e.kind === "code") return e.weight * Math.log(e.present ? NOT_HERE_CODE : 1 - NOT_HERE_CODE);
    return Math.log(e.kind === "clue" ? clueAnywhere(e.clue) : 1 / scaleOf(e.instrument, this.predictor.wiring.nominalVolt));
  }

  /** the readings by family, as they were really taken if at a look-alike */
  private viewed(misplaced: Misplacement | undefined): ReadonlyMap<string, Family> {
    const by = new Map<string, Named[]>();
    for (const r of this.readings) {
      const e = misplaced ? misplaced.moved(r) : r, family = this.families.of(e);
      const list = by.get(family) ?? [];
      list.push({ e, family, name: nameOf(e) });
      by.set(family, list);
    }
    return new Map([...by].map(([family, readings]) => [family, { family, readings, name: readings.map((r) => r.name).join(" & "), columns: new Map<number, Map<number, Float64Array>>() }]));
  }

  /** ln weight of each severity by all evidence: families are independent given the severity, readings of a family share the draw. */
  private weighOne(h: number, wanted: Uint8Array, codes: Float64Array, families: ReadonlyMap<string, Family>, presence: number, misplaced: Misplacement | undefined): Omit<Found, "hypothesis" | "presence" | "misplaced" | "log"> {
    const { predictor } = this, { faults } = predictor.hypotheses[h]!;
    const steps = stepsOf(predictor, h), count = codes.length;
    const total = new Float64Array(count * steps);
    for (const list of families.values()) {
      const own = this.familyLog(h, list, wanted, count * steps, presence);
      for (let k = 0; k < total.length; k++) total[k] = total[k]! + own[k]!;
    }
    let fixed = 0;
    for (const e of this.evidence) if (e.kind === "clue" && e.clue.type !== "holds") fixed += Math.log(clueLikelihood(e.clue, faults, presence < 1, misplaced));
    const places = new Float64Array(count);
    for (let p = 0; p < count; p++) places[p] = wanted[p * predictor.draws] ? codes[p]! + fixed + logMean(total.subarray(p * steps, (p + 1) * steps)) : -Infinity;
    for (const e of this.evidence) if (e.kind === "clue" && e.clue.type === "holds") addHolds(predictor, h, e.clue, wanted, places);
    return { places, total, families };
  }

  /** ln mean over draws of the product over one family's readings, by severity and step: remembered, since most readings stay. */
  private familyLog(h: number, list: Family, wanted: Uint8Array, size: number, presence: number): Float64Array {
    const { predictor } = this, kept = h <= predictor.faults.length;
    let memo = list.columns.get(presence);
    if (!memo) list.columns.set(presence, (memo = memoColumn<Float64Array>(predictor, "families read", `${presence} ${list.name}`, KEPT_FAMILIES)));
    const known = kept ? memo.get(h) : undefined;
    if (known) return known;
    const steps = stepsOf(predictor, h), out = new Float64Array(size), member = this.memberOf(h, list, wanted, presence);
    const width = predictor.drawsUsed(h) * member.fine;
    for (let p = 0; p * steps < size; p++) {
      if (!wanted[p * predictor.draws]) continue;
      for (let k = p * steps; k < (p + 1) * steps; k++) {
        let mean = 0;
        for (let d = 0; d < width; d++) mean += product(member, k * width + d, d, presence);
        out[k] = Math.log(Math.max(mean / width, 1e-300));
      }
    }
    if (kept) memo.set(h, out);
    return out;
  }
  private memberOf(h: number, list: Family, wanted: Uint8Array, presence: number): Member {
    return { family: list.family, arrays: list.readings.map((n) => this.cloudFor(h, n, wanted)), healthy: presence < 1 ? list.readings.map((n) => this.cloudFor(0, n, ALL_DRAWS)) : [], fine: drawSteps(this.families.order(list.family)) };
  }
  private cloudFor(h: number, n: Named, wanted: Uint8Array): Float32Array { return readingCloud(this.predictor, h, n, h === 0 ? ALL_DRAWS : wanted, this.families); }

  /** for every family read so far, how much each draw counts within each severity */
  private drawsOf(w: Found): ReadonlyMap<string, Float64Array> {
    const { predictor } = this, { draws } = predictor, used = predictor.drawsUsed(w.hypothesis), steps = stepsOf(predictor, w.hypothesis);
    const by = new Map<string, Float64Array>();
    const wanted = w.hypothesis <= predictor.faults.length ? this.byCodes.wanted.get(w.hypothesis)! : ALL_WANTED;
    for (const list of w.families.values()) {
      const m = this.memberOf(w.hypothesis, list, wanted, w.presence);
      const out = new Float64Array(w.places.length * draws), width = used * m.fine;
      for (let p = 0; p < w.places.length; p++) {
        if (w.places[p] === -Infinity) continue;
        let sum = 0;
        for (let k = p * steps; k < (p + 1) * steps; k++) {
          const heavy = Math.exp(w.total[k]! - w.places[p]!); // any scale will do
          for (let d = 0; d < width; d++) { const x = heavy * product(m, k * width + d, d, w.presence); out[p * draws + Math.floor(d / m.fine)]! += x; sum += x; }
        }
        for (let d = 0; d < draws; d++) out[p * draws + d] = sum > 0 && Number.isFinite(sum) ? out[p * draws + d]! / sum : d < used ? 1 / used : 0;
      }
      by.set(m.family, out);
    }
    return by;
  }
}
const ALL_DRAWS = new Uint8Array(256).fill(1), ALL_WANTED = new Uint8Array(1 << 14).fill(1);

interface Named { readonly e: ReadingEvidence; readonly family: string; readonly name: string }
/** The readings that hang on one unknown. */
interface Family { readonly family: string; readonly readings: readonly Named[]; readonly name: string; readonly columns: Map<number, Map<number, Float64Array>> }
interface Member { readonly family: string; readonly arrays: readonly Float32Array[]; readonly healthy: readonly Float32Array[]; readonly fine: number }
interface Found {
  readonly hypothesis: number; readonly presence: number; readonly misplaced: Misplacement | undefined;
  readonly log: number;
  /** ln weight by severity; and by severity and step, readings alone */
  readonly places: Float64Array;
  readonly total: Float64Array;
  readonly families: ReadonlyMap<string, Family>;
}
function product(m: Member, at: number, draw: number, presence: number): number {
  let x = 1;
  if (presence === 1) for (const a of m.arrays) x *= a[at]!;
  else for (let i = 0; i < m.arrays.length; i++) x *= presence * m.arrays[i]![at]! + (1 - presence) * m.healthy[i]![draw]!;
  return x;
}
/** Steps between two draws along the unknown that drives a family. */
const DRAW_STEPS = 3;
const drawSteps = (order: readonly number[] | undefined) => (order ? DRAW_STEPS : 1);

function spreadOverDraws(predictor: Predictor, h: number, places: Float64Array): Float64Array {
  const w = normalise(places), { draws } = predictor, used = predictor.drawsUsed(h);
  const out = new Float64Array(places.length * draws);
  for (let s = 0; s < out.length; s++) out[s] = s % draws < used ? w[Math.floor(s / draws)]! / used : 0;
  return out;
}
/** ln mean over draws, by severity */
function byPlace(predictor: Predictor, h: number, cloud: Float64Array): Float64Array {
  const { draws } = predictor, used = predictor.drawsUsed(h);
  return Float64Array.from({ length: cloud.length / draws }, (_, p) => logMean(cloud.subarray(p * draws, p * draws + used)));
}
/** Readings at a look-alike are only thought of for suspects that codes leave this likely, natural log. */
const LN_MISPLACED_LEAST = Math.log(1e-3);
/** What comes and goes is only thought of for suspects that codes leave this likely, natural log. */
const LN_GOING_LEAST = Math.log(1e-5);

interface AfterCodes {
  readonly signature: string;
  /** ln of prior times likelihood of the codes, by hypothesis; the best of them */
  readonly log: Float64Array;
  readonly best: number;
  readonly share: Float64Array;
  /** ln likelihood of the codes by severity */
  readonly places: ReadonlyMap<number, Float64Array>;
  readonly samples: ReadonlyMap<number, Float64Array>;
  readonly wanted: ReadonlyMap<number, Uint8Array>;
  /** as `places`, where the fault comes and goes */
  going(h: number, presence: number): Float64Array;
}

/** What codes alone leave: worked out once for one set of codes. */
function afterCodes(predictor: Predictor, codes: readonly CodeEvidence[], logPrior: Float64Array, factors: Float64Array | undefined): AfterCodes {
  const signature = `${codes.map((c) => `${c.monitor}${c.present ? "+" : "-"}${c.status}${c.weight}`).join(" ")} ${factors ? factors.join(" ") : ""}`;
  const known = predictor.memo.get("after codes") as AfterCodes | undefined;
  if (known?.signature === signature) return known;
  predictor.memo.delete("readings");
  predictor.memo.delete("families read");
  const n = predictor.faults.length + 1;
  const log = new Float64Array(n), clouds = new Map<number, Float64Array>();
  for (let h = 0; h < n; h++) {
    const cloud = codeCloud(predictor, h, codes, 1);
    log[h] = logPrior[h]! + logMean(cloud);
    clouds.set(h, cloud);
  }
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity);
  const wanted = new Map<number, Uint8Array>(), samples = new Map<number, Float64Array>(), places = new Map<number, Float64Array>();
  for (let h = 0; h < n; h++) {
    const cloud = clouds.get(h)!;
    if (log[h]! < best + PRUNE_AFTER_CODES) { clouds.delete(h); continue; }
    const list = byPlace(predictor, h, cloud);
    places.set(h, list);
    wanted.set(h, Uint8Array.from(cloud, (_, s) => (logPrior[h]! + list[Math.floor(s / predictor.draws)]! >= best + PRUNE_AFTER_CODES ? 1 : 0)));
    samples.set(h, normalise(cloud));
  }
  const notHere = logPrior[n]! + codes.reduce((sum, e) => sum + e.weight * Math.log(e.present ? NOT_HERE_CODE : 1 - NOT_HERE_CODE), 0);
  const goingBy = new Map<string, Float64Array>();
  const going = (h: number, presence: number) => {
    const name = `${h} ${presence}`;
    let cloud = goingBy.get(name);
    if (!cloud) goingBy.set(name, (cloud = byPlace(predictor, h, codeCloud(predictor, h, codes, presence))));
    return cloud;
  };
  const result: AfterCodes = { signature, log, best, share: normalise(Float64Array.from([...log, notHere])), places, samples, wanted, going };
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
export const stepsOf = (predictor: Predictor, h: number) => (predictor.hypotheses[h]!.stepped && predictor.hypotheses[h]!.severities.length > 1 ? STEPS : 1);
/** Evidence whose likelihoods are kept. */
const KEPT_READINGS = 64, KEPT_FAMILIES = 256;

/**
 * Likelihood of one reading by severity, step, draw and step between draws:
 * [((place · steps + step) · draws used + draw) · draw steps + draw step]. A true severity lies between those tried, and
 * at the same place for every reading; so does the unknown that drives a family.
 */
function readingCloud(predictor: Predictor, h: number, n: Named, wanted: Uint8Array, families: Families): Float32Array {
  const column = memoColumn<Float32Array>(predictor, "readings", n.name, KEPT_READINGS);
  const known = h <= predictor.faults.length ? column.get(h) : undefined;
  if (known) return known;
  const fine = likelihoods(predictor, h, n.e, wanted, families.order(n.family));
  if (h <= predictor.faults.length) column.set(h, fine);
  return fine;
}
/** One remembered column of several, by hypothesis; the oldest makes room. */
function memoColumn<T>(predictor: Predictor, memo: string, name: string, most: number): Map<number, T> {
  let all = predictor.memo.get(memo) as Map<string, Map<number, T>> | undefined;
  if (!all) predictor.memo.set(memo, (all = new Map<string, Map<number, T>>()));
  let column = all.get(name);
  if (!column) {
    if (all.size >= most) all.delete(all.keys().next().value!);
    all.set(name, (column = new Map<number, T>()));
  }
  return column;
}
const nameOf = (e: ReadingEvidence) => `${e.instrument} ${e.point} ${e.black ?? ""} ${e.value} ${stateName(e.state)}`;

function likelihoods(predictor: Predictor, h: number, e: ReadingEvidence, wanted: Uint8Array, order: readonly number[] | undefined): Float32Array {
  const { stepped, samples } = predictor.hypotheses[h]!, { draws } = predictor, used = predictor.drawsUsed(h);
  const steps = stepsOf(predictor, h), fine = drawSteps(order), range = voltRange(predictor.wiring.nominalVolt), count = samples / draws;
  const mask = used === draws ? wanted : wanted.map((w, s) => (s % draws < used ? w : 0));
  const { values, stride, place } = predictedAt(predictor, h, e, mask.length >= samples ? mask.subarray(0, samples) : mask);
  const at = (p: number, d: number) => values[(p * draws + d) * stride + place]!;
  const out = new Float32Array(count * steps * used * fine);
  const ohms = e.instrument === "ohmmeter" || e.instrument === "continuity";
  const scale = (v: number) => (ohms ? Math.log(v + DEFAULTS.reading.ohmFloor) : v);
  const neighbours = order ? neighboursIn(order.filter((d) => d < used), used) : undefined;
  for (let p = 0; p < count; p++) {
    if (!wanted[p * draws]) continue;
    const below = p > 0 && wanted[(p - 1) * draws] ? p - 1 : -1, above = p + 1 < count && wanted[(p + 1) * draws] ? p + 1 : -1;
    const deviation = neighbours ? 0 : DRAW_KERNEL * deviationOf(p, used, at, scale);
    for (let d = 0; d < used; d++) {
      const here = at(p, d), x = scale(here);
      const gap = (q: number) => { if (q < 0) return 0; const g = Math.abs(scale(at(q, d)) - x); return g === g && g < Infinity ? g : 0; };
      const severityGap = stepped ? (0.25 / steps) * (gap(below) + gap(above)) : UNSTEPPED_SHARE * Math.abs(ohms ? 1 : x);
      const low = neighbours ? neighbours.below[d]! : -1, high = neighbours ? neighbours.above[d]! : -1;
      const along = (q: number) => { if (q < 0) return 0; const g = scale(at(p, q)) - x; return g === g && Math.abs(g) < Infinity ? g : 0; };
      const up = along(high), down = along(low);
      const drawGap = neighbours ? (0.25 / fine) * (Math.abs(up) + Math.abs(down)) : 0;
      const width = Math.hypot(severityGap, deviation, drawGap);
      for (let k = 0; k < steps; k++) {
        const t = (k + 0.5) / steps - 0.5, next = t < 0 ? below : above;
        const base = next < 0 ? here : between(here, at(next, d), Math.abs(t), e.instrument);
        for (let j = 0; j < fine; j++) {
          let v = base;
          if (neighbours && base < Infinity) {
            const u = (j + 0.5) / fine - 0.5;
            // beyond the last draw the unknown goes on as it came
            const shift = u < 0 ? (low >= 0 ? down : -up) * -u : (high >= 0 ? up : -down) * u;
            v = ohms ? Math.max(0, Math.exp(scale(base) + shift) - DEFAULTS.reading.ohmFloor) : base + shift;
          }
          out[((p * steps + k) * used + d) * fine + j] = likelihood(e.instrument, e.value, v, width, range);
        }
      }
    }
  }
  return out;
}
/** Share of the spread over draws taken as the width around each, where nothing orders them. */
const DRAW_KERNEL = 0.6;
/** Several faults are tried at few severities only: what lies between them, as a share of the value. */
const UNSTEPPED_SHARE = 0.12;
function deviationOf(p: number, used: number, at: (p: number, d: number) => number, scale: (v: number) => number): number {
  let n = 0, sum = 0, squares = 0;
  for (let d = 0; d < used; d++) { const x = scale(at(p, d)); if (x === x && Math.abs(x) < Infinity) { n++; sum += x; squares += x * x; } }
  return n === 0 ? 0 : Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2));
}
function neighboursIn(order: readonly number[], used: number): { readonly below: Int32Array; readonly above: Int32Array } {
  const below = new Int32Array(used).fill(-1), above = new Int32Array(used).fill(-1);
  order.forEach((d, i) => { below[d] = order[i - 1] ?? -1; above[d] = order[i + 1] ?? -1; });
  return { below, above };
}

/** Predictions of a reading: a column, how far its samples stand apart in it, and where in each the reading is. */
export function predictedAt(predictor: Predictor, h: number, e: Pick<ReadingEvidence, "instrument" | "point" | "black" | "state">, wanted?: Uint8Array): { readonly values: Float32Array; readonly stride: number; readonly place: number } {
  if (e.black !== undefined) return { values: predictor.predictBetween(h, e.state, e.instrument, e.point, e.black, wanted), stride: 1, place: 0 };
  return { values: predictor.predict(h, e.state, e.instrument, wanted), stride: predictor.stride(e.instrument), place: predictor.placeOf(e.instrument, e.point)! };
}

/** Whether a new fuse or a breaker holds: the circuit behind it is up in that state. */
function addHolds(predictor: Predictor, h: number, clue: { readonly fuse: string; readonly held: boolean; readonly state: State }, wanted: Uint8Array, places: Float64Array): void {
  const { draws } = predictor, used = predictor.drawsUsed(h);
  const at = (end: "in" | "out") => predictedAt(predictor, h, { instrument: "voltmeter", point: `${clue.fuse}:${end}`, black: undefined, state: clue.state }, wanted);
  const into = at("in"), out = at("out"), sure = DEFAULTS.clues.holds;
  for (let place = 0; place < places.length; place++) {
    if (!wanted[place * draws]) continue;
    let up = 0;
    for (let s = place * draws; s < place * draws + used; s++) up += phi((out.values[s * out.stride + out.place]! - 0.5 * into.values[s * into.stride + into.place]!) / (0.05 * predictor.wiring.nominalVolt)) / used;
    const p = (2 * sure - 1) * up + (1 - sure);
    places[place] = places[place]! + Math.log(clue.held ? p : 1 - p);
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
