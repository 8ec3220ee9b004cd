import { LikelihoodCache, type ReadingLikelihoods } from "./likelihoodCache.js";
import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import { stateName } from "../network/state.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Families } from "../prediction/unknowns.js";
import type { ReadingEvidence } from "./evidence.js";
import { jumpsOf } from "./jumps.js";
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
  `${e.instrument} ${e.point} ${e.black ?? ""} ${e.value}±${e.tolerance ?? 0} ${e.caught ?? ""} ${stateName(e.state)}`;

/** The name of where and how a reading was taken, whatever it showed. */
export const placeName = (e: ReadingEvidence) => `${e.instrument} ${e.point} ${e.black ?? ""} ${stateName(e.state)}`;

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
  private readonly range: number;
  private readonly jumps: ReturnType<typeof jumpsOf>;
  /** what is predicted by severity place and draw, [place · used + draw]: as it is, and on the scale it is judged on */
  private readonly plain: Float64Array;
  private readonly scaled: Float64Array;
  /** of the severity in hand: the kind each draw is of, and how far that kind spreads */
  private readonly groups: Int8Array;
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
    at: (p: number, d: number) => number,
  ) {
    const { stepped, samples, severities } = predictor.hypotheses[h]!;
    this.count = samples / predictor.draws;
    this.used = predictor.drawsUsed(h);
    this.groups = new Int8Array(this.used);
    this.deviations = new Float64Array(this.used);
    this.steps = severitySteps(predictor, h);
    this.fine = drawSteps(order);
    this.ohms = e.instrument === "ohmmeter" || e.instrument === "continuity";
    this.range = voltRange(predictor.wiring.nominalVolt);
    this.jumps = jumpsOf(predictor, h, e.instrument);
    this.plain = new Float64Array(this.count * this.used);
    for (let p = 0; p < this.count; p++)
      if (this.isWanted(p)) for (let d = 0; d < this.used; d++) this.plain[p * this.used + d] = at(p, d);
    this.scaled = this.ohms ? this.plain.map((v) => Math.log(v + DEFAULTS.reading.ohmFloor)) : this.plain;
    this.others = stepped ? undefined : differingInOneFault(severities);
    const kept = order?.filter((d) => d < this.used);
    this.neighbours = kept && neighboursIn(kept, this.used);
  }

  likelihoods(): ReadingLikelihoods {
    const { count, used, steps, fine, groups } = this;
    const out = new Float32Array(count * steps * used * fine);
    const byKind = new Uint8Array(count);
    for (let p = 0; p < count; p++) {
      if (!this.isWanted(p)) continue;
      const own = this.scaled.subarray(p * used, (p + 1) * used);
      partDraws(own, this.deviations, groups);
      if (isByKindAlone(own, groups)) byKind[p] = 1;
      for (let d = 0; d < used; d++) this.write(p, d, out);
    }
    return { of: out, byKind };
  }

  /** The next severity, where the value gets there without a jump; else −1. */
  private nextTo(p: number, next: number, d: number): number {
    if (!this.isWanted(next)) return -1;
    const { draws } = this.predictor;
    return this.jumps(p * draws + d, next * draws + d, this.way(p, d, next, d)) ? -1 : next;
  }
  private isWanted(p: number): boolean {
    return p >= 0 && p < this.count && this.wanted[p * this.predictor.draws] === 1;
  }
  /** The likelihoods of one severity and draw, at every step between it and its neighbours. */
  private write(p: number, d: number, out: Float32Array): void {
    const { steps, fine, used, e, range, plain } = this;
    const below = this.nextTo(p, p - 1, d);
    const above = this.nextTo(p, p + 1, d);
    const here = plain[p * used + d]!;
    const low = this.ofOneKind(d, this.neighbours?.below[d] ?? -1);
    const high = this.ofOneKind(d, this.neighbours?.above[d] ?? -1);
    const down = this.way(p, d, p, low);
    const up = this.way(p, d, p, high);
    const isAlone = low < 0 && high < 0 && this.groups[d]! >= 0;
    const deviation = isAlone ? DRAW_KERNEL * this.deviations[d]! : 0;
    const severityGap = this.others
      ? this.gapToOthers(p, d)
      : ((0.5 * SEVERITY_KERNEL) / steps) * (Math.abs(this.way(p, d, below, d)) + Math.abs(this.way(p, d, above, d)));
    const gap = ((0.5 * SEVERITY_KERNEL) / fine) * (Math.abs(up) + Math.abs(down));
    const tolerance = e.tolerance ?? 0;
    const width = Math.sqrt(severityGap * severityGap + deviation * deviation + gap * gap + tolerance * tolerance);
    for (let k = 0; k < steps; k++) {
      const t = (k + 0.5) / steps - 0.5;
      const next = t < 0 ? below : above;
      const base = next < 0 ? here : interpolate(here, plain[next * used + d]!, Math.abs(t), e.instrument);
      const at = ((p * steps + k) * used + d) * fine;
      for (let j = 0; j < fine; j++) {
        const u = (j + 0.5) / fine - 0.5;
        const v =
          this.neighbours && base < Infinity
            ? this.shifted(base, u < 0 ? part(-u, down, low, up) : part(u, up, high, down))
            : base;
        out[at + j] = likelihood(e.instrument, e.value, v, width, range);
      }
    }
  }

  /** How far it is from one prediction to another, on the scale readings are judged on; 0 where either is none. */
  private way(p: number, d: number, q: number, other: number): number {
    if (q < 0 || other < 0) return 0;
    const way = this.scaled[q * this.used + other]! - this.scaled[p * this.used + d]!;
    return Math.abs(way) < Infinity ? way : 0; // NaN too
  }
  /** what lies between the few severities tried is as far as the nearest that differs in one fault alone */
  private gapToOthers(p: number, d: number): number {
    const { draws } = this.predictor;
    let squares = 0;
    for (const list of this.others![p]!) {
      let least = Infinity;
      for (const q of list) {
        const g = Math.abs(this.scaled[q * this.used + d]! - this.scaled[p * this.used + d]!);
        if (g < least && !this.jumps(p * draws + d, q * draws + d, g)) least = g;
      }
      if (least < Infinity) squares += (SEVERITY_KERNEL * least) ** 2;
    }
    return Math.sqrt(squares);
  }
  /** The next draw along the unknown that drives the reading, if it is of the same kind; else −1. */
  private ofOneKind(d: number, next: number): number {
    return next >= 0 && this.groups[next] === this.groups[d] ? next : -1;
  }
  private shifted(base: number, shift: number): number {
    if (!this.ohms) return base + shift;
    const { ohmFloor } = DEFAULTS.reading;
    return Math.max(0, (base + ohmFloor) * Math.exp(shift) - ohmFloor);
  }
}
/**
 * Beyond the last draw the unknown goes on by so many times the step inside: the ends of a usual range are soft.
 * Judgement.
 */
const OUTWARD = 2.5;
/**
 * How far a prediction moves on part of the way to the next draw. Where there is none it goes on outward as it came.
 * @param way to the next draw, `next` its number or −1 @param back from the draw on the other side
 */
const part = (u: number, way: number, next: number, back: number) => (next >= 0 ? way * u : -back * u * OUTWARD);
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
