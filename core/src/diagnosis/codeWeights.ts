import type { Breadth, CodePosterior, CodesOfOne, WeighOptions } from "./posterior.js";
import { LikelihoodCache } from "./likelihoodCache.js";
import { DEFAULTS } from "../defaults.js";
import type { Predictor } from "../prediction/predictor.js";
import type { CodeEvidence } from "./evidence.js";
import { logMean, normalise } from "./maths.js";

/** Hypotheses and severities this far behind after codes alone are not read up any further (natural log). */
const PRUNE_AFTER_CODES = Math.log(1e-9);
const PRUNE_ROUGH = Math.log(1e-7);
const PRUNE_EXACT = Math.log(1e-14);
/**
 * Hypotheses whose codes fit this much worse than the best are only weighed where the others leave something
 * unexplained (natural log): two codes missed, not one false alarm.
 */
export const LN_NARROW = Math.log(1e-4);
const NONE = new Set<number>();
type Progress = NonNullable<WeighOptions["progress"]>;
/** Finding the faults that no code asks for is about so much of the first pass. */
const IDLE_PART = 0.4;
/** What "not in this wiring" expects of a code: that something is set, no one knows what. */
const NOT_HERE_CODE = 0.4;
/** ln probability of a code where the drawing is not this machine's. */
export const logCodeNotHere = (e: Pick<CodeEvidence, "present" | "weight">) =>
  e.weight * Math.log(e.present ? NOT_HERE_CODE : 1 - NOT_HERE_CODE);

/** What codes alone leave: worked out once for one set of codes. */
export function codePosterior(
  predictor: Predictor,
  codes: readonly CodeEvidence[],
  logPrior: Float64Array,
  factors: Float64Array | undefined,
  { breadth, progress }: Pick<WeighOptions, "progress"> & { readonly breadth: Breadth },
): CodePosterior {
  const signature =
    `${breadth === "exact"} ` +
    `${codes.map((c) => `${c.monitor}${c.present ? "+" : "-"}${c.status}${c.weight}`).join(" ")}` +
    ` ${factors ? factors.join(" ") : ""}`;
  const known = LikelihoodCache.of(predictor).byCodes(signature);
  let result = known.get(breadth);
  if (!result) known.set(breadth, (result = weighCodes(predictor, codes, logPrior, breadth, signature, progress)));
  return result;
}

function weighCodes(
  predictor: Predictor,
  codes: readonly CodeEvidence[],
  logPrior: Float64Array,
  breadth: Breadth,
  signature: string,
  progress: Progress = () => undefined,
): CodePosterior {
  const n = predictor.faults.length + 1;
  const isExact = breadth === "exact";
  const idle = isExact ? NONE : idleFaults(predictor, codes, (s) => progress(s * IDLE_PART));
  const rough = isExact ? NONE : fitWorse(predictor, codes, idle, (s) => progress(IDLE_PART + s * (1 - IDLE_PART)));
  const bySample = Array.from({ length: n }, (_, h) => {
    if (idle.has(h) || (breadth === "narrow" && rough.has(h))) return undefined;
    return codeLogLikelihoods(predictor, h, codes, 1, rough.has(h));
  });
  const log = Float64Array.from(bySample, (own, h) => (own ? logPrior[h]! + logMean(own) : -Infinity));
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity);
  const wanted = new Map<number, Uint8Array>();
  const samples = new Map<number, Float64Array>();
  const places = new Map<number, Float64Array>();
  const leastSample = best + (isExact ? PRUNE_EXACT : PRUNE_AFTER_CODES);
  const codesOf = (h: number, own: Float64Array): CodesOfOne => {
    const list = meanOverDraws(predictor, h, own);
    const isWanted = (s: number) => logPrior[h]! + list[Math.floor(s / predictor.draws)]! >= leastSample;
    return {
      log: logPrior[h]! + logMean(own),
      places: list,
      wanted: Uint8Array.from(own, (_, s) => (isWanted(s) ? 1 : 0)),
    };
  };
  bySample.forEach((own, h) => {
    if (!own) return;
    if (log[h]! < best + (isExact ? PRUNE_EXACT : rough.has(h) ? PRUNE_ROUGH : PRUNE_AFTER_CODES)) return;
    const of = codesOf(h, own);
    places.set(h, of.places);
    wanted.set(h, of.wanted);
    samples.set(h, normalise(own));
  });
  const notHere = logPrior[n]! + codes.reduce((sum, e) => sum + logCodeNotHere(e), 0);
  const share = normalise(Float64Array.from([...log, notHere]));
  const going = intermittentCodes(predictor, codes, new Set([...rough, ...idle]));
  const takenUp = new Map<number, CodesOfOne>();
  const takeUp = (h: number) => {
    let own = takenUp.get(h);
    if (!own) takenUp.set(h, (own = codesOf(h, codeLogLikelihoods(predictor, h, codes, 1, true))));
    return own.log < best + PRUNE_ROUGH ? undefined : own;
  };
  return { signature, log, best, share, places, samples, wanted, going, idle, takeUp };
}

/**
 * Faults that move nothing that a present code is judged by: whatever else they do, they explain none of them. On a
 * large machine that is most of them.
 */
function idleFaults(predictor: Predictor, codes: readonly CodeEvidence[], progress: Progress): Set<number> {
  const present = codes.flatMap((c) => (c.present ? [c.monitor] : []));
  if (present.length === 0) return new Set();
  return new Set(
    predictor.faults.flatMap((_, i) => {
      progress(i / predictor.faults.length);
      return predictor.movesAny(i + 1, present) ? [] : [i + 1];
    }),
  );
}

/**
 * Hypotheses whose codes, tried roughly, fit much worse than the best. Codes whose monitors are the most work to try
 * come last, and are tried only while a hypothesis may still be among the best: a code can only make it fit worse.
 */
function fitWorse(
  predictor: Predictor,
  codes: readonly CodeEvidence[],
  idle: ReadonlySet<number>,
  progress: Progress,
): Set<number> {
  const groups = byWork(predictor, codes);
  const open = Array.from({ length: predictor.faults.length + 1 }, (_, h) => h).filter((h) => !idle.has(h));
  const bound = new Float64Array(predictor.faults.length + 1);
  const clouds = new Map<number, Float64Array>();
  const add = (h: number, group: readonly CodeEvidence[]) => {
    const own = codeLogLikelihoods(predictor, h, group, 1, true);
    const cloud = clouds.get(h);
    if (cloud) for (let s = 0; s < own.length; s++) own[s] = own[s]! + cloud[s]!;
    clouds.set(h, own);
    bound[h] = own.reduce((a, b) => Math.max(a, b), -Infinity);
  };
  open.forEach((h, i) => {
    progress(i / open.length);
    add(h, groups[0]!);
  });
  open.sort((a, b) => bound[b]! - bound[a]! || a - b);
  let fittest = -Infinity;
  const worse = new Set<number>();
  for (const h of open) {
    for (const group of groups.slice(1)) {
      if (bound[h]! < fittest + LN_NARROW) break;
      add(h, group);
    }
    fittest = Math.max(fittest, bound[h]!);
  }
  for (const h of open) if (h > 0 && bound[h]! < fittest + LN_NARROW) worse.add(h);
  return worse;
}
/** Codes in the order in which they are tried: all but those of silent bus nodes, then those set, then one by one. */
export function byWork(predictor: Predictor, codes: readonly CodeEvidence[]): readonly (readonly CodeEvidence[])[] {
  const isHeard = (c: CodeEvidence) => predictor.monitors[c.monitor]!.node !== undefined;
  const set = codes.filter((c) => isHeard(c) && c.present);
  return [
    codes.filter((c) => !isHeard(c)),
    ...(set.length ? [set] : []),
    ...codes.filter((c) => isHeard(c) && !c.present).map((c) => [c]),
  ];
}

/** ln likelihood of the codes by severity where the fault comes and goes; worked out on first asking. */
function intermittentCodes(
  predictor: Predictor,
  codes: readonly CodeEvidence[],
  rough: ReadonlySet<number>,
): CodePosterior["going"] {
  const known = new Map<string, Float64Array>();
  return (h, presence) => {
    const name = `${h} ${presence}`;
    let own = known.get(name);
    if (!own) {
      own = meanOverDraws(predictor, h, codeLogLikelihoods(predictor, h, codes, presence, rough.has(h)));
      known.set(name, own);
    }
    return own;
  };
}

/** ln likelihood of all codes, by sample. */
export function codeLogLikelihoods(
  predictor: Predictor,
  h: number,
  codes: readonly CodeEvidence[],
  presence: number,
  rough = false,
): Float64Array {
  const { samples } = predictor.hypotheses[h]!;
  const n = predictor.monitors.length;
  const cloud = new Float64Array(samples);
  if (codes.length === 0) return cloud;
  const monitors = codes.map((c) => c.monitor);
  const shares = rough ? predictor.roughCodeShares(h, monitors) : predictor.codeShares(h, monitors);
  const lasting = presence === 1;
  for (const e of codes) {
    for (let s = 0; s < samples; s++) cloud[s] = cloud[s]! + logCode(shares[s * n + e.monitor]!, e, lasting, presence);
  }
  return cloud;
}

/** ln probability of one code's evidence where the fault, when there, sets it with probability `share`. */
export function logCode(
  share: number,
  e: Pick<CodeEvidence, "present" | "status" | "weight">,
  lasting = true,
  presence = 1,
): number {
  const { miss, falseAlarm, lasting: l, comesAndGoes: g } = DEFAULTS.codes;
  const seen = lasting ? 1 : 0.5 + 0.5 * presence; // it need not have been there since codes were cleared
  const p = share * (1 - miss) * seen + (1 - share) * falseAlarm;
  if (!e.present) return e.weight * Math.log(1 - p);
  const status = e.status === "absent" ? 1 : lasting ? l[e.status] : g[e.status];
  return e.weight * (Math.log(p) + Math.log(status));
}

/** Priors worked out last, by predictor: they stay while the intake does. */
const latestPriors = new WeakMap<
  Predictor,
  { readonly factors: Float64Array | undefined; readonly key: string; readonly value: Float64Array }
>();

/** ln of the normalised priors; the last entry is "not in this wiring". */
export function logPriors(predictor: Predictor, factors: Float64Array | undefined): Float64Array {
  const known = latestPriors.get(predictor);
  if (known && known.factors === factors) return known.value;
  const key = factors?.join(" ") ?? "";
  if (known?.key === key) return known.value;
  const value = makeLogPriors(predictor, factors);
  latestPriors.set(predictor, { factors, key, value });
  return value;
}
function makeLogPriors(predictor: Predictor, factors: Float64Array | undefined): Float64Array {
  // the rates only: what is known of this machine counts in full
  const trusted = (rate: number) => rate ** DEFAULTS.priorTrust;
  const rates = [
    trusted(DEFAULTS.prior.nothingWrong),
    ...predictor.faults.map((f, i) => trusted(f.prior) * (factors?.[i] ?? 1)),
    trusted(DEFAULTS.prior.notInThisWiring) * (factors?.[predictor.faults.length] ?? 1),
  ];
  const sum = rates.reduce((a, b) => a + b, 0);
  return Float64Array.from(rates, (r) => Math.log(r / sum));
}

/** ln mean over draws, by severity */
export function meanOverDraws(predictor: Predictor, h: number, cloud: Float64Array): Float64Array {
  const { draws } = predictor;
  const used = predictor.drawsUsed(h);
  return Float64Array.from({ length: cloud.length / draws }, (_, p) =>
    logMean(cloud.subarray(p * draws, p * draws + used)),
  );
}
