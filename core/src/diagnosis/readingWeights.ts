import { LikelihoodCache, type ReadingLikelihoods } from "./likelihoodCache.js";
import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import { stateName } from "../network/state.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Families } from "../prediction/unknowns.js";
import type { ReadingEvidence } from "./evidence.js";
import { DRAW_KERNEL, isByKindAlone, likelihood, partDraws, SEVERITY_KERNEL, voltRange } from "./likelihood.js";

/** A reading with the family of its unknown and a name of its own. */
export interface NamedReading {
  readonly reading: ReadingEvidence;
  readonly family: string;
  readonly name: string;
}
/** Steps between two draws along the unknown that drives a family. */
const DRAW_STEPS = 3;
export const drawSteps = (order: readonly number[] | undefined) => (order ? DRAW_STEPS : 1);

/**
 * Steps between two grid points of the severity: a true severity lies between them, and at the same place for every
 * reading.
 */
const STEPS = 4;
export const severitySteps = (predictor: Predictor, h: number) =>
  predictor.hypotheses[h]!.stepped && predictor.hypotheses[h]!.severities.length > 1 ? STEPS : 1;

/**
 * Likelihood of one reading by severity, step, draw and step between draws:
 * [((place · steps + step) · draws used + draw) · draw steps + draw step]. A true severity lies between those tried,
 * and
 * at the same place for every reading; so does the unknown that drives a family.
 */
export function readingLikelihoods(
  predictor: Predictor,
  h: number,
  n: NamedReading,
  wanted: Uint8Array,
  families: Families,
): ReadingLikelihoods {
  const column = LikelihoodCache.of(predictor).readings.column(n.name);
  const known = column.get(h);
  if (known) return known;
  const fine = likelihoods(predictor, h, n.reading, wanted, families.order(n.family));
  column.set(h, fine);
  return fine;
}
export const readingName = (e: ReadingEvidence) =>
  `${e.instrument} ${e.point} ${e.black ?? ""} ${e.value}±${e.tolerance ?? 0} ${stateName(e.state)}`;

function likelihoods(
  predictor: Predictor,
  h: number,
  e: ReadingEvidence,
  wanted: Uint8Array,
  order: readonly number[] | undefined,
): ReadingLikelihoods {
  const { samples } = predictor.hypotheses[h]!;
  const { draws } = predictor;
  const used = predictor.drawsUsed(h);
  const mask = used === draws ? wanted : wanted.map((w, s) => (s % draws < used ? w : 0));
  const predicted = predictor.predictAt(h, e, mask.length >= samples ? mask.subarray(0, samples) : mask);
  return new ReadingCloud(predictor, h, e, wanted, order, (p, d) => predicted.at(p * draws + d)).likelihoods();
}

/** What one hypothesis predicts for one reading, at its severities and draws, and between them. */
class ReadingCloud {
  private readonly count: number;
  private readonly used: number;
  private readonly steps: number;
  private readonly fine: number;
  private readonly ohms: boolean;
  /** of the severity in hand: what each draw predicts, on the scale it is judged on, and how far its kind spreads */
  private readonly scaled: Float64Array;
  private readonly deviations: Float64Array;
  /** severities are tried at grid points next to each other; several faults at a few severities each are not */
  private readonly others: number[][][] | undefined;
  private readonly neighbours: { readonly below: Int32Array; readonly above: Int32Array } | undefined;

  /** @param at the prediction by severity place and draw */
  constructor(
    private readonly predictor: Predictor,
    h: number,
    private readonly e: ReadingEvidence,
    private readonly wanted: Uint8Array,
    order: readonly number[] | undefined,
    private readonly at: (p: number, d: number) => number,
  ) {
    const { stepped, samples, severities } = predictor.hypotheses[h]!;
    this.count = samples / predictor.draws;
    this.used = predictor.drawsUsed(h);
    this.scaled = new Float64Array(this.used);
    this.deviations = new Float64Array(this.used);
    this.steps = severitySteps(predictor, h);
    this.fine = drawSteps(order);
    this.ohms = e.instrument === "ohmmeter" || e.instrument === "continuity";
    this.others = stepped ? undefined : differingInOneFault(severities);
    const kept = order?.filter((d) => d < this.used);
    this.neighbours = kept && neighboursIn(kept, this.used);
  }

  likelihoods(): ReadingLikelihoods {
    const { count, used, steps, fine } = this;
    const out = new Float32Array(count * steps * used * fine);
    const byKind = new Uint8Array(count);
    for (let p = 0; p < count; p++) {
      if (!this.isWanted(p)) continue;
      for (let d = 0; d < used; d++) this.scaled[d] = this.scale(this.at(p, d));
      const groups = partDraws(this.scaled, this.deviations);
      if (isByKindAlone(this.scaled, groups)) byKind[p] = 1;
      for (let d = 0; d < used; d++) this.write(p, d, groups, out);
    }
    return { of: out, byKind };
  }

  private isWanted(p: number): boolean {
    return p >= 0 && p < this.count && this.wanted[p * this.predictor.draws] === 1;
  }
  /** readings of ohms are judged on the logarithm */
  private scale(v: number): number {
    return this.ohms ? Math.log(v + DEFAULTS.reading.ohmFloor) : v;
  }

  /** The likelihoods of one severity and draw, at every step between it and its neighbours. */
  private write(p: number, d: number, groups: Int8Array, out: Float32Array): void {
    const { steps, fine, used, e, at } = this;
    const below = this.isWanted(p - 1) ? p - 1 : -1;
    const above = this.isWanted(p + 1) ? p + 1 : -1;
    const here = at(p, d);
    const along = this.alongUnknown(p, d, groups);
    const deviation = along.isAlone && groups[d]! >= 0 ? DRAW_KERNEL * this.deviations[d]! : 0;
    const severityGap = this.others
      ? this.gapToOthers(p, d)
      : ((0.5 * SEVERITY_KERNEL) / steps) * (this.gap(p, below, d) + this.gap(p, above, d));
    const width = Math.hypot(severityGap, deviation, ((0.5 * SEVERITY_KERNEL) / fine) * along.gap, e.tolerance ?? 0);
    const range = voltRange(this.predictor.wiring.nominalVolt);
    for (let k = 0; k < steps; k++) {
      const t = (k + 0.5) / steps - 0.5;
      const next = t < 0 ? below : above;
      const base = next < 0 ? here : interpolate(here, at(next, d), Math.abs(t), e.instrument);
      for (let j = 0; j < fine; j++) {
        const v = this.neighbours && base < Infinity ? this.shifted(base, along.shift((j + 0.5) / fine - 0.5)) : base;
        out[((p * steps + k) * used + d) * fine + j] = likelihood(e.instrument, e.value, v, width, range);
      }
    }
  }

  private gap(p: number, q: number, d: number): number {
    if (q < 0) return 0;
    const g = Math.abs(this.scale(this.at(q, d)) - this.scale(this.at(p, d)));
    return g < Infinity ? g : 0; // NaN too
  }
  /** what lies between the few severities tried is as far as the nearest that differs in one fault alone */
  private gapToOthers(p: number, d: number): number {
    const x = this.scale(this.at(p, d));
    let squares = 0;
    for (const list of this.others![p]!) {
      let least = Infinity;
      for (const q of list) {
        const g = Math.abs(this.scale(this.at(q, d)) - x);
        if (g < least) least = g;
      }
      if (least < Infinity) squares += (SEVERITY_KERNEL * least) ** 2;
    }
    return Math.sqrt(squares);
  }

  /** How the prediction moves along the unknown that drives the reading. Beyond the last draw it goes on as it came. */
  private alongUnknown(p: number, d: number, groups: Int8Array): Along {
    const alike = (q: number) => (q >= 0 && groups[q] === groups[d] ? q : -1);
    const low = alike(this.neighbours?.below[d] ?? -1);
    const high = alike(this.neighbours?.above[d] ?? -1);
    const x = this.scale(this.at(p, d));
    const to = (q: number) => {
      if (q < 0) return 0;
      const g = this.scale(this.at(p, q)) - x;
      return Math.abs(g) < Infinity ? g : 0;
    };
    const up = to(high);
    const down = to(low);
    const outward = (u: number, inside: number) => -inside * u * OUTWARD;
    const shift = (u: number) =>
      u < 0 ? (low >= 0 ? down * -u : outward(-u, up)) : high >= 0 ? up * u : outward(u, down);
    return { gap: Math.abs(up) + Math.abs(down), shift, isAlone: low < 0 && high < 0 };
  }
  private shifted(base: number, shift: number): number {
    if (!this.ohms) return base + shift;
    return Math.max(0, Math.exp(this.scale(base) + shift) - DEFAULTS.reading.ohmFloor);
  }
}
/**
 * Beyond the last draw the unknown goes on by so many times the step inside: the ends of a usual range are soft.
 * Judgement.
 */
const OUTWARD = 2.5;
/** How a prediction moves along its unknown; `isAlone` where no other draw of its kind tells. */
interface Along {
  readonly gap: number;
  readonly shift: (u: number) => number;
  readonly isAlone: boolean;
}
/** For each choice of severities and each fault of several: the choices that differ in that fault alone. */
function differingInOneFault(choices: readonly (readonly number[])[]): number[][][] {
  return choices.map((own) =>
    own.map((_, m) =>
      choices.flatMap((c, q) => (c.every((x, i) => (i === m ? x !== own[i] : Object.is(x, own[i]))) ? [q] : [])),
    ),
  );
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

/**
 * Part of the way from one prediction to the next: straight in volts, on the logarithm in ohms; an open circuit stays
 * one.
 */
export function interpolate(here: number, there: number, share: number, instrument: Instrument): number {
  if (!Number.isFinite(here) || !Number.isFinite(there)) return here;
  if (instrument !== "ohmmeter" || here <= 0 || there <= 0) return here + (there - here) * share;
  return here * (there / here) ** share;
}
