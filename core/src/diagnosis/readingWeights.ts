import { LikelihoodCache } from "./likelihoodCache.js";
import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import { stateName } from "../network/state.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Families } from "../prediction/unknowns.js";
import type { ReadingEvidence } from "./evidence.js";
import { DRAW_KERNEL, likelihood, SEVERITY_KERNEL, voltRange } from "./likelihood.js";

/** A reading with the family of its unknown and a name of its own. */
export interface NamedReading {
  readonly reading: ReadingEvidence;
  readonly family: string;
  readonly name: string;
}
/** Steps between two draws along the unknown that drives a family. */
const DRAW_STEPS = 3;
export const drawSteps = (order: readonly number[] | undefined) => (order ? DRAW_STEPS : 1);

/** Steps between two grid points of the severity: a true severity lies between them, and at the same place for every reading. */
const STEPS = 4;
export const severitySteps = (predictor: Predictor, h: number) =>
  predictor.hypotheses[h]!.stepped && predictor.hypotheses[h]!.severities.length > 1 ? STEPS : 1;

/**
 * Likelihood of one reading by severity, step, draw and step between draws:
 * [((place · steps + step) · draws used + draw) · draw steps + draw step]. A true severity lies between those tried, and
 * at the same place for every reading; so does the unknown that drives a family.
 */
export function readingLikelihoods(
  predictor: Predictor,
  h: number,
  n: NamedReading,
  wanted: Uint8Array,
  families: Families,
): Float32Array {
  const column = LikelihoodCache.of(predictor).readings.column(n.name);
  const known = column.get(h);
  if (known) return known;
  const fine = likelihoods(predictor, h, n.reading, wanted, families.order(n.family));
  column.set(h, fine);
  return fine;
}
export const readingName = (e: ReadingEvidence) =>
  `${e.instrument} ${e.point} ${e.black ?? ""} ${e.value} ${stateName(e.state)}`;

function likelihoods(
  predictor: Predictor,
  h: number,
  e: ReadingEvidence,
  wanted: Uint8Array,
  order: readonly number[] | undefined,
): Float32Array {
  const { stepped, samples } = predictor.hypotheses[h]!;
  const { draws } = predictor;
  const used = predictor.drawsUsed(h);
  const steps = severitySteps(predictor, h);
  const fine = drawSteps(order);
  const range = voltRange(predictor.wiring.nominalVolt);
  const count = samples / draws;
  const mask = used === draws ? wanted : wanted.map((w, s) => (s % draws < used ? w : 0));
  const predicted = predictor.predictAt(h, e, mask.length >= samples ? mask.subarray(0, samples) : mask);
  const at = (p: number, d: number) => predicted.at(p * draws + d);
  const out = new Float32Array(count * steps * used * fine);
  const ohms = e.instrument === "ohmmeter" || e.instrument === "continuity";
  const scale = (v: number) => (ohms ? Math.log(v + DEFAULTS.reading.ohmFloor) : v);
  // several faults are tried at a few severities each: what lies between them is as far as the nearest other
  const others = stepped ? undefined : differingInOneFault(predictor.hypotheses[h]!.severities);
  const unstepped = (p: number, d: number, x: number) => {
    let squares = 0;
    for (const list of others![p]!) {
      let least = Infinity;
      for (const q of list) {
        const g = Math.abs(scale(at(q, d)) - x);
        if (g < least) least = g;
      }
      if (least < Infinity) squares += (SEVERITY_KERNEL * least) ** 2;
    }
    return Math.sqrt(squares);
  };
  const neighbours = order
    ? neighboursIn(
        order.filter((d) => d < used),
        used,
      )
    : undefined;
  for (let p = 0; p < count; p++) {
    if (!wanted[p * draws]) continue;
    const below = p > 0 && wanted[(p - 1) * draws] ? p - 1 : -1;
    const above = p + 1 < count && wanted[(p + 1) * draws] ? p + 1 : -1;
    const deviation = neighbours ? 0 : DRAW_KERNEL * deviationOf(p, used, at, scale);
    for (let d = 0; d < used; d++) {
      const here = at(p, d);
      const x = scale(here);
      const gap = (q: number) => {
        if (q < 0) return 0;
        const g = Math.abs(scale(at(q, d)) - x);
        return g === g && g < Infinity ? g : 0;
      };
      const severityGap = stepped ? ((0.5 * SEVERITY_KERNEL) / steps) * (gap(below) + gap(above)) : unstepped(p, d, x);
      const low = neighbours ? neighbours.below[d]! : -1;
      const high = neighbours ? neighbours.above[d]! : -1;
      const along = (q: number) => {
        if (q < 0) return 0;
        const g = scale(at(p, q)) - x;
        return g === g && Math.abs(g) < Infinity ? g : 0;
      };
      const up = along(high);
      const down = along(low);
      const drawGap = neighbours ? ((0.5 * SEVERITY_KERNEL) / fine) * (Math.abs(up) + Math.abs(down)) : 0;
      const width = Math.hypot(severityGap, deviation, drawGap);
      for (let k = 0; k < steps; k++) {
        const t = (k + 0.5) / steps - 0.5;
        const next = t < 0 ? below : above;
        const base = next < 0 ? here : interpolate(here, at(next, d), Math.abs(t), e.instrument);
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
/** For each choice of severities and each fault of several: the choices that differ in that fault alone. */
function differingInOneFault(choices: readonly (readonly number[])[]): number[][][] {
  return choices.map((own) =>
    own.map((_, m) =>
      choices.flatMap((c, q) => (c.every((x, i) => (i === m ? x !== own[i] : Object.is(x, own[i]))) ? [q] : [])),
    ),
  );
}
function deviationOf(
  p: number,
  used: number,
  at: (p: number, d: number) => number,
  scale: (v: number) => number,
): number {
  let n = 0;
  let sum = 0;
  let squares = 0;
  for (let d = 0; d < used; d++) {
    const x = scale(at(p, d));
    if (x === x && Math.abs(x) < Infinity) {
      n++;
      sum += x;
      squares += x * x;
    }
  }
  return n === 0 ? 0 : Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2));
}
function neighboursIn(
  order: readonly number[],
  used: number,
): { readonly below: Int32Array; readonly above: Int32Array } {
  const below = new Int32Array(used).fill(-1);
  const above = new Int32Array(used).fill(-1);
  order.forEach((d, i) => {
    below[d] = order[i - 1] ?? -1;
    above[d] = order[i + 1] ?? -1;
  });
  return { below, above };
}

/** Part of the way from one prediction to the next: straight in volts, on the logarithm in ohms; an open circuit stays one. */
export function interpolate(here: number, there: number, share: number, instrument: Instrument): number {
  if (!Number.isFinite(here) || !Number.isFinite(there)) return here;
  if (instrument !== "ohmmeter" || here <= 0 || there <= 0) return here + (there - here) * share;
  return here * (there / here) ** share;
}
