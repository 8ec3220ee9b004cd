import { DEFAULTS } from "../defaults.js";
import { OVERLOAD } from "../units/quantity.js";
import type { Instrument } from "./predictor.js";

/** Share of the spread over draws taken as the width around each draw (a kernel density over the draws). */
const DRAW_KERNEL = 0.6;
/** Share of half the gap to the neighbouring severities taken as width, so that nothing falls between grid points. */
const SEVERITY_KERNEL = 0.5;
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
export function likelihood(instrument: Instrument, got: number, predicted: number, spread: number, range: number): number {
  const { slip } = DEFAULTS.reading;
  if (instrument === "voltmeter") {
    const sigma = sigmaVolt(predicted, spread);
    const z = (got - predicted) / sigma;
    return ((1 - slip) * Math.exp(-0.5 * z * z)) / (sigma * SQRT_2PI) + slip / range;
  }
  if (Number.isNaN(predicted)) return 1 / LN_OHM_RANGE;
  const high = (ohm: number) => ohm > OVERLOAD_EDGE_OHM;
  if (got === OVERLOAD || predicted === OVERLOAD) {
    if (got === predicted) return 1;
    return high(got) && high(predicted) ? 0.3 : slip / LN_OHM_RANGE;
  }
  const sigma = sigmaLnOhm(predicted, spread);
  const z = (Math.log(got + DEFAULTS.reading.ohmFloor) - Math.log(predicted + DEFAULTS.reading.ohmFloor)) / sigma;
  return ((1 - slip) * Math.exp(-0.5 * z * z)) / (sigma * SQRT_2PI) + slip / LN_OHM_RANGE;
}

const SQRT_2PI = Math.sqrt(2 * Math.PI);
/** ln(20 MΩ / 0.3 Ω), about the span of an ohmmeter */
export const LN_OHM_RANGE = 18;
export const voltRange = (nominalVolt: number) => nominalVolt * 1.5 + 3;

export function sigmaVolt(predicted: number, spread: number): number {
  const { floorVolt, share } = DEFAULTS.reading;
  return Math.sqrt(floorVolt * floorVolt + share * share * predicted * predicted + spread * spread);
}
export function sigmaLnOhm(predicted: number, spread: number): number {
  const { ohmShare, ohmFloor } = DEFAULTS.reading;
  const relative = (0.3 * ohmFloor) / (predicted + ohmFloor);
  return Math.sqrt(ohmShare * ohmShare + relative * relative + spread * spread);
}

/**
 * Width to give each sample of one hypothesis at one point, from how draws and neighbouring severities differ there.
 * @param values predictions as [sample · stride + point], sample = severity · draws + draw
 * @param wanted samples predicted (1); the others are passed over
 * @param steps how finely the severities are stepped through between grid points
 * @returns one width per sample, volt or ln ohm
 */
export function spreads(values: Float32Array, stride: number, point: number, wanted: Uint8Array, draws: number, instrument: Instrument, steps = 1): Float64Array {
  const count = wanted.length, ohms = instrument === "ohmmeter";
  const at = new Float64Array(count).fill(NaN);
  for (let i = 0; i < count; i++) {
    if (!wanted[i]) continue;
    const v = values[i * stride + point]!;
    at[i] = ohms ? (v < Infinity ? Math.log(v + DEFAULTS.reading.ohmFloor) : NaN) : v;
  }
  const out = new Float64Array(count);
  for (let s = 0; s < count; s += draws) {
    let n = 0, sum = 0, squares = 0;
    for (let i = s; i < s + draws; i++) {
      const v = at[i]!;
      if (v !== v) continue; // NaN
      n++; sum += v; squares += v * v;
    }
    if (n === 0) continue;
    const deviation = DRAW_KERNEL * Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2));
    for (let i = s; i < s + draws; i++) {
      const v = at[i]!;
      if (v !== v) continue;
      const below = i >= draws ? Math.abs(v - at[i - draws]!) : 0, above = i + draws < count ? Math.abs(v - at[i + draws]!) : 0;
      const gap = (SEVERITY_KERNEL / steps) * 0.5 * ((below === below ? below : 0) + (above === above ? above : 0));
      out[i] = Math.sqrt(deviation * deviation + gap * gap);
    }
  }
  return out;
}
