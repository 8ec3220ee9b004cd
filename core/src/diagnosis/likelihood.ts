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
 * @returns one width per sample, volt or ln ohm
 */
export function spreads(values: Float32Array, stride: number, point: number, severities: number, draws: number, instrument: Instrument): Float32Array {
  const out = new Float32Array(severities * draws);
  const scale = instrument === "voltmeter" ? (v: number) => v : (v: number) => (Number.isFinite(v) ? Math.log(v + DEFAULTS.reading.ohmFloor) : NaN);
  const at = (s: number, d: number) => scale(values[(s * draws + d) * stride + point]!);
  for (let s = 0; s < severities; s++) {
    let n = 0, sum = 0, squares = 0;
    for (let d = 0; d < draws; d++) {
      const v = at(s, d);
      if (!Number.isFinite(v)) continue;
      n++; sum += v; squares += v * v;
    }
    const deviation = n > 1 ? Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2)) : 0;
    for (let d = 0; d < draws; d++) {
      const here = at(s, d);
      const below = s > 0 ? Math.abs(here - at(s - 1, d)) : 0;
      const above = s < severities - 1 ? Math.abs(here - at(s + 1, d)) : 0;
      const gap = Number.isFinite(below + above) ? (below + above) / 2 : 0;
      out[s * draws + d] = Math.hypot(DRAW_KERNEL * deviation, SEVERITY_KERNEL * gap);
    }
  }
  return out;
}
