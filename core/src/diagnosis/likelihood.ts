import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import type { Predicted } from "../prediction/predictionCache.js";
import { OVERLOAD } from "../units/quantity.js";

/** Share of the spread over draws taken as the width around each draw (a kernel density over the draws). */
export const DRAW_KERNEL = 0.6;
/** Share of half the gap to the neighbouring severities taken as width, so that nothing falls between grid points. */
export const SEVERITY_KERNEL = 0.5;
/** Probability of each mixture of "finite" and OL, beyond a slip of the hand. */
const OVERLOAD_EDGE_OHM = 2e6;

/**
 * How likely one value is given one prediction: a normal around it, and a floor for slips of the hand.
 * Ohms are judged on a logarithmic scale. Densities are per volt, or per natural-log ohm.
 *
 * @param predicted what the sample predicts (volts, or ohms with Infinity for OL, or NaN for "proves nothing")
 * @param spread standard deviation that comes from draws and severities, volt (or ln ohm)
 * @param range width of the scale the slip is spread over, volt
 */
export function likelihood(
  instrument: Instrument,
  got: number,
  predicted: number,
  spread: number,
  range: number,
): number {
  const { slip } = DEFAULTS.reading;
  if (instrument === "lamp" || instrument === "continuity")
    return shownLikelihood(instrument, got, predicted, spread, (range - 3) / 1.5);
  if (Number.isNaN(predicted) && instrument === "scanTool") return slip / range; // the module would not have answered
  if (instrument === "clamp") {
    const sigma = rootOfSquares(rootOfSquares(CLAMP_FLOOR_AMPERE, CLAMP_SHARE * predicted), spread);
    const z = (got - predicted) / sigma;
    return ((1 - slip) * Math.exp(-0.5 * z * z)) / (sigma * SQRT_2PI) + slip / AMPERE_RANGE;
  }
  if (instrument !== "ohmmeter") {
    const sigma = sigmaVolt(predicted, rootOfSquares(spread, strayAt(instrument, predicted)));
    const z = (got - predicted) / sigma;
    return ((1 - slip) * Math.exp(-0.5 * z * z)) / (sigma * SQRT_2PI) + slip / range;
  }
  if (Number.isNaN(predicted)) return 1 / LN_OHM_RANGE;
  const high = (ohm: number) => ohm > OVERLOAD_EDGE_OHM;
  if (got === OVERLOAD || predicted === OVERLOAD) {
    if (got === predicted) return 1;
    return high(got) && high(predicted) ? 0.3 : slip / LN_OHM_RANGE;
  }
  const { ohmOdd, ohmElectronicsFrom } = DEFAULTS.reading;
  const odd = Math.max(got, predicted) > ohmElectronicsFrom ? ohmOdd : slip;
  const sigma = sigmaLnOhm(predicted, spread);
  const z = (Math.log(got + DEFAULTS.reading.ohmFloor) - Math.log(predicted + DEFAULTS.reading.ohmFloor)) / sigma;
  return ((1 - odd) * Math.exp(-0.5 * z * z)) / (sigma * SQRT_2PI) + odd / LN_OHM_RANGE;
}

/** A clamp meter's own error, ampere and share; and its span, ampere. Common practice, no source. */
const CLAMP_FLOOR_AMPERE = 0.03;
const CLAMP_SHARE = 0.03;
const AMPERE_RANGE = 40;
/** How blurred the eye is when it tells bright from dim from dark, share of nominal voltage. Judgement. */
const EYE = 0.08;

/** Probability of what a lamp or a beeper shows: steps, blurred by the eye and by what is not known. */
function shownLikelihood(
  instrument: "lamp" | "continuity",
  got: number,
  predicted: number,
  spread: number,
  nominalVolt: number,
): number {
  const { slip } = DEFAULTS.reading;
  const floor = (p: number) => (1 - 2 * slip) * p + slip;
  if (instrument === "continuity") {
    if (Number.isNaN(predicted)) return 0.5;
    const ln = Math.log(Math.max(predicted, 1e-3));
    const p = predicted === OVERLOAD ? 0 : phi((Math.log(DEFAULTS.meter.beeperOhm) - ln) / Math.hypot(0.3, spread));
    return floor(got === 1 ? p : 1 - p);
  }
  const share = Math.abs(predicted) / nominalVolt;
  const sigma = Math.hypot(EYE, spread / nominalVolt);
  const bright = phi((share - DEFAULTS.lampShows.bright) / sigma);
  const lit = phi((share - DEFAULTS.lampShows.dark) / sigma);
  return floor(got === 1 ? bright : got === 0 ? 1 - lit : Math.max(0, lit - bright));
}
/** Normal distribution, by its logistic stand-in (within 0.01). */
export const phi = (z: number) => 1 / (1 + Math.exp(-1.702 * z));

/**
 * The span over which a slip of the hand, or a drawing that is not this machine's, may land: volt, ln ohm, ampere, or
 * one of few words.
 */
export function readingRange(instrument: Instrument, nominalVolt: number): number {
  return instrument === "ohmmeter"
    ? LN_OHM_RANGE
    : instrument === "clamp"
      ? AMPERE_RANGE
      : instrument === "lamp"
        ? 3
        : instrument === "continuity"
          ? 2
          : voltRange(nominalVolt);
}

const SQRT_2PI = Math.sqrt(2 * Math.PI);
/** As `Math.hypot`, which takes care of overflow that volts and ohms never reach, and is many times slower for it. */
export const rootOfSquares = (a: number, b: number) => Math.sqrt(a * a + b * b);
/** ln(20 MΩ / 0.3 Ω), about the span of an ohmmeter */
export const LN_OHM_RANGE = 18;
export const voltRange = (nominalVolt: number) => nominalVolt * 1.5 + 3;

/** Exactly nothing is predicted where a conductor floats: a meter's lead then picks up what is around it, volt. */
const strayAt = (instrument: Instrument, predicted: number) =>
  instrument === "voltmeter" && predicted === 0 ? DEFAULTS.reading.strayVolt : 0;

export function sigmaVolt(predicted: number, spread: number): number {
  const { floorVolt, share } = DEFAULTS.reading;
  return Math.sqrt(floorVolt * floorVolt + share * share * predicted * predicted + spread * spread);
}
export function sigmaLnOhm(predicted: number, spread: number): number {
  const { ohmShare, ohmFloor, ohmElectronics, ohmElectronicsFrom } = DEFAULTS.reading;
  const relative = (0.3 * ohmFloor) / (predicted + ohmFloor);
  const inside = (ohmElectronics * predicted) / (predicted + ohmElectronicsFrom);
  return Math.sqrt(ohmShare * ohmShare + relative * relative + inside * inside + spread * spread);
}

/** An instrument's own error at a value, with the tolerance of the reading: volt, ln ohm or ampere. */
export function errorOf(e: { readonly instrument: Instrument; readonly tolerance?: number }, value: number): number {
  const tolerance = e.tolerance ?? 0;
  if (e.instrument === "ohmmeter") return sigmaLnOhm(value, tolerance);
  if (e.instrument === "clamp") return rootOfSquares(rootOfSquares(CLAMP_FLOOR_AMPERE, CLAMP_SHARE * value), tolerance);
  return sigmaVolt(value, tolerance);
}

/**
 * Several faults are tried at few severities only: what lies between them, as a share of the value, where only that is
 * known.
 */
const UNSTEPPED_SPREAD = 0.08;

/**
 * Width to give each sample of one hypothesis at one point, from how draws and neighbouring severities differ there.
 * @param predicted predictions by sample = severity · draws + draw
 * @param wanted samples predicted (1); the others are passed over
 * @param steps how finely the severities are stepped through between grid points
 * @param stepped whether neighbouring severities are neighbours on one grid
 * @returns one width per sample, volt or ln ohm
 */
export function spreads(
  predicted: Predicted,
  wanted: Uint8Array,
  draws: number,
  instrument: Instrument,
  steps = 1,
  stepped = true,
): Float64Array {
  const count = wanted.length;
  const ohms = instrument === "ohmmeter" || instrument === "continuity";
  const at = new Float64Array(count).fill(NaN);
  for (let i = 0; i < count; i++) {
    if (!wanted[i]) continue;
    const v = predicted.at(i);
    at[i] = ohms ? (v < Infinity ? Math.log(v + DEFAULTS.reading.ohmFloor) : NaN) : v;
  }
  const out = new Float64Array(count);
  const own = new Float64Array(draws);
  const groups = new Int8Array(draws);
  for (let s = 0; s < count; s += draws) {
    if (!wanted.subarray(s, s + draws).includes(1)) continue;
    partDraws(at.subarray(s, s + draws), own, groups);
    for (let i = s; i < s + draws; i++) {
      const v = at[i]!;
      if (v !== v) continue; // NaN
      const deviation = DRAW_KERNEL * own[i - s]!;
      if (!stepped) {
        out[i] = rootOfSquares(deviation, UNSTEPPED_SPREAD * v);
        continue;
      }
      const below = i >= draws ? Math.abs(v - at[i - draws]!) : 0;
      const above = i + draws < count ? Math.abs(v - at[i + draws]!) : 0;
      const gap = (SEVERITY_KERNEL / steps) * 0.5 * ((below === below ? below : 0) + (above === above ? above : 0));
      out[i] = Math.sqrt(deviation * deviation + gap * gap);
    }
  }
  return out;
}

/** A gap of more than this share of the whole parts two kinds of devices; of few draws it must be wider. Judgement. */
const PARTED = 0.6;
const FEW_PARTED = 0.85;
const FEW = 6;
/** Where one kind shows in fewer draws than this, its own spread is not known: this share of the whole. Judgement. */
const FEW_OF_KIND = 4;
const LONE = 0.03;

/** Draws in the order of their values; lent to one call at a time. */
let inOrder = new Int32Array(16);

/**
 * Draws that differ by the kind of a device (an input pulled up or down) stand in groups apart: each group has a spread
 * of its own, or a reading between the two would look likely.
 * @param values one a draw; NaN or infinite where it has none @param into takes each draw's deviation
 * @param groups takes the group of each draw; −1 where it has no value
 * @returns `groups`
 */
export function partDraws(
  values: Float64Array,
  into: Float64Array,
  groups: Int8Array = new Int8Array(values.length),
): Int8Array {
  groups.fill(-1);
  const count = sortDraws(values);
  if (count === 0) return groups;
  const order = inOrder;
  const whole = values[order[count - 1]!]! - values[order[0]!]!;
  let last = 0;
  const part = (from: number, to: number): void => {
    const range = values[order[to - 1]!]! - values[order[from]!]!;
    const parted = (to - from < FEW ? FEW_PARTED : PARTED) * range;
    for (let k = from + 1; k < to; k++)
      if (values[order[k]!]! - values[order[k - 1]!]! > parted) {
        part(from, k);
        part(k, to);
        return;
      }
    let mean = 0;
    for (let k = from; k < to; k++) mean += values[order[k]!]!;
    mean /= to - from;
    let squares = 0;
    for (let k = from; k < to; k++) squares += (values[order[k]!]! - mean) * (values[order[k]!]! - mean);
    const least = to - from < FEW_OF_KIND ? LONE * whole : 0;
    const deviation = Math.max(Math.sqrt(squares / (to - from)), least);
    for (let k = from; k < to; k++) {
      into[order[k]!] = deviation;
      groups[order[k]!] = last;
    }
    last++;
  };
  part(0, count);
  return groups;
}
/** Sorts draws that have a value into `inOrder`, by insertion: they are few. @returns how many they are */
function sortDraws(values: Float64Array): number {
  if (inOrder.length < values.length) inOrder = new Int32Array(values.length);
  let count = 0;
  for (let d = 0; d < values.length; d++) {
    const v = values[d]!;
    if (!Number.isFinite(v)) continue;
    let k = count++;
    for (; k > 0 && values[inOrder[k - 1]!]! > v; k--) inOrder[k] = inOrder[k - 1]!;
    inOrder[k] = d;
  }
  return count;
}

/** Within its kind a prediction moves less than this share of what lies between kinds. Judgement. */
const WITHIN_KIND = 0.08;
/** Whether draws stand in groups apart and hardly differ within them: the kind of a device is all they hang on. */
export function isByKindAlone(values: Float64Array, groups: Int8Array): boolean {
  let kinds = 0;
  let least = Infinity;
  let most = -Infinity;
  for (let d = 0; d < groups.length; d++) {
    if (groups[d]! < 0) continue;
    kinds = Math.max(kinds, groups[d]! + 1);
    least = Math.min(least, values[d]!);
    most = Math.max(most, values[d]!);
  }
  if (kinds < 2) return false;
  for (let kind = 0; kind < kinds; kind++) {
    let low = Infinity;
    let high = -Infinity;
    for (let d = 0; d < groups.length; d++) {
      if (groups[d] !== kind) continue;
      low = Math.min(low, values[d]!);
      high = Math.max(high, values[d]!);
    }
    if (high - low > WITHIN_KIND * (most - least)) return false;
  }
  return true;
}

/**
 * How far a value is from a prediction, in standard deviations of the instrument and of what else may be off; no value
 * of a scan tool is near a module that would not answer.
 * @param x the prediction @param tolerance volt
 */
export function distance(x: number, y: number, instrument: Instrument, tolerance = 0): number {
  if (instrument === "lamp" || instrument === "continuity") return 0;
  if (Number.isNaN(x) || Number.isNaN(y))
    return instrument === "scanTool" && Number.isNaN(x) !== Number.isNaN(y) ? Infinity : 0;
  if (x === y) return 0;
  if (instrument !== "ohmmeter")
    return Math.abs(x - y) / sigmaVolt((x + y) / 2, Math.hypot(tolerance, strayAt(instrument, x)));
  if (!Number.isFinite(x) || !Number.isFinite(y)) return Math.min(x, y) > 2e6 ? 1 : Infinity;
  return Math.abs(Math.log(x + 0.5) - Math.log(y + 0.5)) / sigmaLnOhm((x + y) / 2, 0);
}
