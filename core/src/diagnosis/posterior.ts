import { DEFAULTS } from "../defaults.js";
import type { Evidence, ReadingEvidence } from "./evidence.js";
import { likelihood, LN_OHM_RANGE, spreads, voltRange } from "./likelihood.js";
import type { Instrument, Predictor } from "./predictor.js";

/** Belief over hypotheses. Index 0 healthy, i + 1 fault i; `notHere` is "not in this wiring". Shares sum to 1. */
export interface Posterior {
  readonly share: Float64Array;
  readonly notHere: number;
  /** weight of each sample within its hypothesis, sums to 1 (0 where pruned); by hypothesis */
  readonly samples: ReadonlyMap<number, Float64Array>;
  /** ln likelihood of each piece of evidence, averaged over the samples that survive; [evidence], by hypothesis */
  readonly fit: ReadonlyMap<number, Float64Array>;
  readonly fitNotHere: Float64Array;
  /** belief from codes alone, before any reading; the last entry is "not in this wiring" */
  readonly shareByCodes: Float64Array;
  /** ln likelihood of each piece of evidence under what codes alone leave of each hypothesis */
  readonly fitByCodes: ReadonlyMap<number, Float64Array>;
  /** ln likelihood of each code over all hypotheses by their priors; 0 for readings; [evidence] */
  readonly fitByPrior: Float64Array;
  /** samples that codes alone leave possible (1), by hypothesis: what readings are weighed with */
  readonly wantedByCodes: ReadonlyMap<number, Uint8Array>;
  /** weight of each sample by codes alone; for hypotheses not pruned by codes */
  readonly samplesByCodes: ReadonlyMap<number, Float64Array>;
}

/** Hypotheses and samples this far behind after codes alone are not read up any further (natural log). */
const PRUNE_AFTER_CODES = Math.log(1e-9);
/** Samples lighter than this do not change how well a hypothesis fits. */
const FIT_LEAST = 1e-4;
/** What "not in this wiring" expects of a code: that something is set, no one knows what. */
const NOT_HERE_CODE = 0.4;

/**
 * Bayes' rule over all single faults, the healthy machine, and "not in this wiring". Each hypothesis is a cloud of
 * samples (severity × draw); its likelihood is the mean over samples of the product over evidence.
 * @param factors on the rate of each fault, from what is known of the machine's history; [fault]
 */
export function weigh(predictor: Predictor, evidence: readonly Evidence[], factors?: Float64Array): Posterior {
  const n = predictor.hypotheses.length;
  const codes = evidence.filter((e) => e.kind === "code");
  const readings = evidence.filter((e) => e.kind === "reading");
  const monitors = codes.map((e) => e.monitor);
  const logPrior = logPriors(predictor, factors);
  const afterCodes = new Float64Array(n);
  const clouds: Float64Array[] = [];
  for (let h = 0; h < n; h++) {
    const { samples } = predictor.hypotheses[h]!;
    const log = new Float64Array(samples);
    if (codes.length) {
      const bits = predictor.codesSet(h, monitors);
      for (const e of codes) {
        const whenSet = logCode(true, e.present, e.weight), whenNot = logCode(false, e.present, e.weight);
        for (let s = 0; s < samples; s++) log[s] = log[s]! + (bits[s * predictor.monitors.length + e.monitor] === 1 ? whenSet : whenNot);
      }
    }
    clouds.push(log);
    afterCodes[h] = logPrior[h]! + logMean(log);
  }
  const best = afterCodes.reduce((a, b) => Math.max(a, b), -Infinity);
  const range = voltRange(predictor.wiring.nominalVolt);
  const total = new Float64Array(n).fill(-Infinity);
  const fitByCodes = new Map<number, Float64Array>(), samplesByCodes = new Map<number, Float64Array>(), wantedByCodes = new Map<number, Uint8Array>();
  for (let h = 0; h < n; h++) {
    if (afterCodes[h]! < best + PRUNE_AFTER_CODES) continue;
    samplesByCodes.set(h, normalise(clouds[h]!));
    fitByCodes.set(h, fitOf(predictor, h, evidence, samplesByCodes.get(h)!, range));
    const wanted = Uint8Array.from(clouds[h]!, (l) => (logPrior[h]! + l >= best + PRUNE_AFTER_CODES ? 1 : 0));
    wantedByCodes.set(h, wanted);
    addReadings(predictor, h, readings, clouds[h]!, range, wanted);
    total[h] = logPrior[h]! + logMean(clouds[h]!);
  }
  const fitNotHere = Float64Array.from(evidence, (e) => (e.kind === "code" ? e.weight * Math.log(e.present ? NOT_HERE_CODE : 1 - NOT_HERE_CODE) : Math.log(1 / (e.instrument === "voltmeter" ? range : LN_OHM_RANGE))));
  const notHereLog = logPrior[n]! + fitNotHere.reduce((a, b) => a + b, 0);
  const most = total.reduce((a, b) => Math.max(a, b), notHereLog);
  const sum = total.reduce((a, b) => a + Math.exp(b - most), Math.exp(notHereLog - most));
  const share = total.map((l) => Math.exp(l - most) / sum);
  const notHereByCodes = logPrior[n]! + fitNotHere.reduce((a, b, i) => (evidence[i]!.kind === "code" ? a + b : a), 0);

  const samples = new Map<number, Float64Array>(), fit = new Map<number, Float64Array>();
  for (let h = 0; h < n; h++) {
    if (share[h]! < DEFAULTS.plan.keepShare && h !== 0) continue;
    samples.set(h, normalise(clouds[h]!));
    fit.set(h, fitOf(predictor, h, evidence, samples.get(h)!, range));
  }
  return { share, notHere: Math.exp(notHereLog - most) / sum, samples, fit, fitNotHere, fitByCodes, samplesByCodes, wantedByCodes, fitByPrior: priorFit(predictor, logPrior, evidence), shareByCodes: softmax([...afterCodes, notHereByCodes]) };
}

/** ln of the normalised priors; the last entry is "not in this wiring". */
function logPriors(predictor: Predictor, factors: Float64Array | undefined): Float64Array {
  const rates = [DEFAULTS.prior.nothingWrong, ...predictor.faults.map((f, i) => f.prior * (factors?.[i] ?? 1)), DEFAULTS.prior.notInThisWiring];
  const sum = rates.reduce((a, b) => a + b, 0);
  return Float64Array.from(rates, (r) => Math.log(r / sum));
}

/** How likely each code was before anything was known. */
function priorFit(predictor: Predictor, logPrior: Float64Array, evidence: readonly Evidence[]): Float64Array {
  return Float64Array.from(evidence, (e) => {
    if (e.kind !== "code") return 0;
    let set = 0;
    predictor.hypotheses.forEach(({ samples }, h) => {
      const bits = predictor.codesSet(h, [e.monitor]);
      let count = 0;
      for (let s = 0; s < samples; s++) count += bits[s * predictor.monitors.length + e.monitor]!;
      set += (Math.exp(logPrior[h]!) * count) / samples;
    });
    return Math.log(set * Math.exp(logCode(true, e.present, e.weight)) + (1 - set) * Math.exp(logCode(false, e.present, e.weight)));
  });
}

function logCode(predicted: boolean, present: boolean, weight: number): number {
  const { miss, falseAlarm } = DEFAULTS.codes;
  const p = predicted ? 1 - miss : falseAlarm;
  return weight * Math.log(present ? p : 1 - p);
}

/** Steps between two grid points of the severity: a true severity lies between them, and at the same place for every reading. */
const STEPS = 4;

/**
 * Weighs all readings together, stepping through severities finer than the grid: predictions between two grid points
 * are interpolated on the log of the severity, with the same step for every reading, then summed into the sample.
 */
function addReadings(predictor: Predictor, h: number, readings: readonly ReadingEvidence[], cloud: Float64Array, range: number, wanted: Uint8Array): void {
  const steps = cloud.length > predictor.draws ? STEPS : 1;
  const fine = new Float64Array(cloud.length * steps);
  for (const e of readings) {
    const values = predictor.predict(h, e.state, e.instrument, wanted);
    const stride = predictor.points.length;
    const width = spreads(values, stride, e.point, wanted, predictor.draws, e.instrument, steps);
    for (let s = 0; s < cloud.length; s++) {
      if (!wanted[s]) continue;
      const here = values[s * stride + e.point]!;
      for (let k = 0; k < steps; k++) {
        const t = (k + 0.5) / steps - 0.5;
        const next = t < 0 ? s - predictor.draws : s + predictor.draws;
        const there = wanted[next] === 1 ? values[next * stride + e.point]! : here;
        fine[s * steps + k] = fine[s * steps + k]! + Math.log(likelihood(e.instrument, e.value, between(here, there, Math.abs(t), e.instrument), width[s]!, range));
      }
    }
  }
  for (let s = 0; s < cloud.length; s++) cloud[s] = wanted[s] ? cloud[s]! + logMean(fine.subarray(s * steps, (s + 1) * steps)) : -Infinity;
}

/** Part of the way from one prediction to the next: straight in volts, on the logarithm in ohms; an open circuit stays one. */
function between(here: number, there: number, share: number, instrument: Instrument): number {
  if (!Number.isFinite(here) || !Number.isFinite(there)) return here;
  if (instrument === "voltmeter" || here <= 0 || there <= 0) return here + (there - here) * share;
  return here * (there / here) ** share;
}

/** @param wanted samples that still count (1); the others become impossible */
function addReading(predictor: Predictor, h: number, e: ReadingEvidence, cloud: Float64Array, range: number, wanted: Uint8Array): void {
  const values = predictor.predict(h, e.state, e.instrument, wanted);
  const stride = predictor.points.length;
  const width = spreads(values, stride, e.point, wanted, predictor.draws, e.instrument);
  for (let s = 0; s < cloud.length; s++) cloud[s] = wanted[s] ? cloud[s]! + Math.log(likelihood(e.instrument, e.value, values[s * stride + e.point]!, width[s]!, range)) : -Infinity;
}

function fitOf(predictor: Predictor, h: number, evidence: readonly Evidence[], weights: Float64Array, range: number): Float64Array {
  return Float64Array.from(evidence, (e) => {
    let mean = 0;
    if (e.kind === "code") {
      const bits = predictor.codesSet(h, [e.monitor]);
      let set = 0;
      for (let s = 0; s < weights.length; s++) if (bits[s * predictor.monitors.length + e.monitor] === 1) set += weights[s]!;
      mean = set * Math.exp(logCode(true, e.present, e.weight)) + (1 - set) * Math.exp(logCode(false, e.present, e.weight));
    } else {
      const one = new Float64Array(weights.length);
      const wanted = Uint8Array.from(weights, (w) => (w > FIT_LEAST ? 1 : 0));
      addReading(predictor, h, e, one, range, wanted);
      weights.forEach((w, s) => { if (wanted[s]) mean += w * Math.exp(one[s]!); });
    }
    return Math.log(mean);
  });
}

function logMean(log: Float64Array): number {
  const most = log.reduce((a, b) => Math.max(a, b), -Infinity);
  return most + Math.log(log.reduce((a, b) => a + Math.exp(b - most), 0) / log.length);
}
const softmax = (log: readonly number[]) => normalise(Float64Array.from(log));
function normalise(log: Float64Array): Float64Array {
  const most = log.reduce((a, b) => Math.max(a, b), -Infinity);
  const w = log.map((l) => Math.exp(l - most));
  const sum = w.reduce((a, b) => a + b, 0);
  return w.map((x) => x / sum);
}
