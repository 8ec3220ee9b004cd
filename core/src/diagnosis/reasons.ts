import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import { isReachedClosely, setBy } from "./fit.js";
import { clueAnywhere, clueLikelihood } from "./clues.js";
import { logCode, logCodeNotHere, logPriors } from "./codeWeights.js";
import type { Evidence } from "./evidence.js";
import { distance } from "./likelihood.js";
import { likelihood, readingRange, rootOfSquares, spreads, voltRange } from "./likelihood.js";
import { LikelihoodCache } from "./likelihoodCache.js";
import { readingName } from "./readingWeights.js";
import type { MixtureComponent, Posterior } from "./posterior.js";

/** Why one piece of evidence speaks for or against a suspect, as data. */
export interface Reason {
  /** number of the logbook entry; 0 for a code that stayed away without being logged */
  readonly number: number;
  readonly kind: "code" | "clue" | Instrument;
  /** the code, the point read, or the thing looked at, moved or swapped */
  readonly about: string;
  /** a clue's sort: look, wiggle, swap, partNumber, holds */
  readonly clue?: string;
  /** code: 1 set, 0 not; reading: volts, ohms, amperes; clue: 1 yes, 0 no */
  readonly got: number;
  /** code or clue: probability under this suspect; reading: what it predicts */
  readonly expected: number;
  /**
   * ln of how much likelier the evidence is under this suspect than under the others: for a code, than before any was
   * known
   */
  readonly weight: number;
  /** distance from the prediction in standard deviations; 0 for codes and clues */
  readonly sigmas: number;
  /** false where only a slip of the hand would explain this reading under this suspect */
  readonly fits: boolean;
}

/** A reading this little above the floor for slips is explained by nothing else. */
const SLIP_MARGIN = 3;
/** Suspects that codes alone leave this likely stand for "the others". */
const OTHERS_LEAST = 1e-3;
const OTHERS_MOST = 80;

const NO_DRAWS: ReadonlyMap<string, Float64Array> = new Map();
/** A fault of "the others", and ln likelihood of each piece of evidence in it. */
interface Other {
  readonly hypothesis: number;
  readonly share: number;
  readonly fit: Float64Array;
}
/** Works out reasons for several suspects of one belief: what "the others" make of the evidence is found once. */
export class Reasons {
  /** what "the others" make of the evidence; found when a reading is first asked about */
  private foundOthers: readonly Other[] | undefined;
  private readonly before: Float64Array;
  private readonly nominalVolt: number;
  constructor(
    private readonly predictor: Predictor,
    private readonly posterior: Posterior,
    private readonly evidence: readonly Evidence[],
    factors?: Float64Array,
  ) {
    this.nominalVolt = predictor.wiring.nominalVolt;
    this.before = priorFit(predictor, evidence, factors, posterior.wantedByCodes);
  }

  private get others(): readonly Other[] {
    if (!this.foundOthers) {
      const { posterior, evidence } = this;
      const list = [...posterior.samplesByCodes]
        .map(([hypothesis, weights]) => ({ hypothesis, share: posterior.shareByCodes[hypothesis]!, weights }))
        .filter((o) => o.share >= OTHERS_LEAST)
        .sort((a, b) => b.share - a.share)
        .slice(0, OTHERS_MOST);
      this.foundOthers = list.map((o) => ({
        hypothesis: o.hypothesis,
        share: o.share,
        fit: Float64Array.from(evidence, (e) => (e.kind === "code" ? 0 : this.fitByCodes(o, e))),
      }));
    }
    return this.foundOthers;
  }
  /** ln likelihood of one piece of evidence in a fault with what codes alone leave of it */
  private fitByCodes(
    o: { readonly hypothesis: number; readonly share: number; readonly weights: Float64Array },
    e: Exclude<Evidence, { kind: "code" }>,
  ): number {
    const work = () => this.fit({ ...o, presence: 1, misplaced: undefined, steps: undefined, draws: NO_DRAWS }, e);
    if (e.kind === "clue") return work();
    const known = LikelihoodCache.of(this.predictor).byCodesAlone.column(readingName(e));
    let fit = known.get(o.hypothesis);
    if (fit === undefined) known.set(o.hypothesis, (fit = work()));
    return fit;
  }

  /**
   * @param components those of the suspect, strongest first; none for "not in this wiring"
   * @param onlyCodes leaves out readings and signs, which take longer
   */
  of(components: readonly MixtureComponent[], onlyCodes = false): Reason[] {
    return this.evidence.flatMap((e, i) => (onlyCodes && e.kind !== "code" ? [] : [this.reason(components, e, i)]));
  }
  private reason(components: readonly MixtureComponent[], e: Evidence, i: number): Reason {
    const total = components.reduce((sum, w) => sum + w.share, 0);
    const own = new Set(components.map((w) => w.hypothesis));
    const used = components.slice(0, 8);
    const lead = used[0];
    const fit = lead
      ? Math.log(used.reduce((sum, w) => sum + (w.share / total) * Math.exp(this.fit(w, e)), 0))
      : this.fitNotHere(e);
    const others = e.kind === "code" ? this.before[i]! : this.averageOfOthers(own, i, !lead);
    const expected = lead ? this.expected(lead, e) : NaN;
    const base = { number: e.number, weight: fit - others, expected, sigmas: 0, fits: true };
    if (e.kind === "code")
      return { ...base, kind: "code", about: this.predictor.monitors[e.monitor]!.code.id, got: e.present ? 1 : 0 };
    if (e.kind === "clue")
      return { ...base, kind: "clue", clue: e.clue.type, about: aboutOf(e.clue), got: isYes(e.clue) ? 1 : 0 };
    const slipped = (SLIP_MARGIN * DEFAULTS.reading.slip) / readingRange(e.instrument, this.nominalVolt);
    return {
      ...base,
      kind: e.instrument,
      about: e.point,
      got: e.value,
      sigmas: Number.isNaN(expected) ? 0 : Math.min(distance(expected, e.value, e.instrument, e.tolerance), 99),
      fits: !lead || Math.exp(fit) > slipped || isReachedClosely(this.predictor, lead, e),
    };
  }

  private averageOfOthers(own: ReadonlySet<number>, i: number, skipNotHere: boolean): number {
    let sum = 0;
    let share = 0;
    for (const o of this.others) {
      if (own.has(o.hypothesis)) continue;
      sum += o.share * Math.exp(o.fit[i]!);
      share += o.share;
    }
    if (!skipNotHere) {
      const w = this.posterior.shareByCodes.at(-1)!;
      sum += w * Math.exp(this.fitNotHere(this.evidence[i]!));
      share += w;
    }
    return share > 0 ? Math.log(sum / share) : 0;
  }
  private fitNotHere(e: Evidence): number {
    if (e.kind === "code") return logCodeNotHere(e);
    return Math.log(e.kind === "clue" ? clueAnywhere(e.clue) : 1 / readingRange(e.instrument, this.nominalVolt));
  }

  /** ln likelihood of one piece of evidence in one component, over the samples that still count */
  private fit(w: MixtureComponent, e: Evidence): number {
    const { predictor } = this;
    if (e.kind === "code") {
      const n = predictor.monitors.length;
      const shares = predictor.codeShares(w.hypothesis, [e.monitor]);
      let mean = 0;
      w.weights.forEach((x, s) => {
        if (x > 0) mean += x * Math.exp(logCode(shares[s * n + e.monitor]!, e, w.presence === 1, w.presence));
      });
      return Math.log(mean);
    }
    if (e.kind === "clue")
      return Math.log(clueLikelihood(e.clue, predictor.hypotheses[w.hypothesis]!.faults, w.presence < 1, w.misplaced));
    const there = this.meanLikelihood(w.hypothesis, w.weights, w.misplaced ? w.misplaced.moved(e) : e);
    if (w.presence === 1) return Math.log(there);
    const calm = new Float64Array(predictor.draws).fill(1 / predictor.draws);
    const shown = e.caught ?? w.presence;
    return Math.log(shown * there + (1 - shown) * this.meanLikelihood(0, calm, e));
  }
  private meanLikelihood(h: number, weights: Float64Array, e: Extract<Evidence, { kind: "reading" }>): number {
    const { predictor } = this;
    const { stepped } = predictor.hypotheses[h]!;
    const wanted = Uint8Array.from(weights, (x) => (x > 1e-4 ? 1 : 0));
    const predicted = predictor.predictAt(h, e, wanted);
    const width = spreads(predicted, wanted, predictor.draws, e.instrument, 1, stepped);
    const range = voltRange(this.nominalVolt);
    const tolerance = e.tolerance ?? 0;
    let mean = 0;
    for (let s = 0; s < weights.length; s++)
      if (wanted[s])
        mean +=
          weights[s]! * likelihood(e.instrument, e.value, predicted.at(s), rootOfSquares(width[s]!, tolerance), range);
    return Math.max(mean, 1e-12);
  }
  private expected(w: MixtureComponent, e: Evidence): number {
    if (e.kind === "code") return setBy(this.predictor, w, e.monitor);
    if (e.kind === "clue") return Math.exp(this.fit(w, e));
    const there = expectation(this.predictor, w, e);
    if (w.presence === 1) return there;
    // what comes and goes may have been away at that moment
    const { draws } = this.predictor;
    const calm = { ...w, hypothesis: 0, weights: new Float64Array(draws).fill(1 / draws) };
    const away = expectation(this.predictor, calm, e);
    const off = (x: number) => distance(x, e.value, e.instrument, e.tolerance);
    return off(away) < off(there) ? away : there;
  }
}

const isYes = (clue: Extract<Evidence, { kind: "clue" }>["clue"]): boolean =>
  clue.type === "look"
    ? !clue.found.includes("nothing")
    : clue.type === "wiggle"
      ? clue.reacted
      : clue.type === "swap"
        ? clue.result === "moved"
        : clue.type === "holds"
          ? clue.held
          : clue.type === "identity"
            ? !clue.right
            : clue.type === "teeth"
              ? clue.missing
              : !clue.same;
const aboutOf = (clue: Extract<Evidence, { kind: "clue" }>["clue"]): string =>
  clue.type === "swap" || clue.type === "partNumber"
    ? clue.parts.join(" + ")
    : clue.type === "holds"
      ? clue.fuse
      : clue.type === "identity"
        ? clue.connector
        : clue.thing;

/** Probability of each code before anything is known of this machine, by monitor. */
const setBefore = new WeakMap<Predictor, Map<string, number>>();

/**
 * How likely each code was before anything was known. Of a code that is not set only the faults that the codes leave
 * are counted: to try it with all would take longer than everything else, for a reason that hardly weighs.
 */
function priorFit(
  predictor: Predictor,
  evidence: readonly Evidence[],
  factors: Float64Array | undefined,
  left: ReadonlyMap<number, unknown>,
): Float64Array {
  const prior = logPriors(predictor, factors);
  let known = setBefore.get(predictor);
  if (!known) setBefore.set(predictor, (known = new Map()));
  const present = evidence.flatMap((e) => (e.kind === "code" && e.present ? [e.monitor] : []));
  return Float64Array.from(evidence, (e) => {
    if (e.kind !== "code") return 0;
    const only = e.present || present.length === 0 ? undefined : left;
    const name = `${e.monitor} of ${present.join(" ")}`;
    let set = factors || only ? undefined : known.get(name);
    if (set === undefined) {
      set = 0;
      for (let h = 0; h <= predictor.faults.length; h++) {
        if (present.length && (!(only?.has(h) ?? true) || !predictor.movesAny(h, present))) continue;
        const { samples } = predictor.hypotheses[h]!;
        const bits = predictor.roughCodesSet(h, [e.monitor]);
        let count = 0;
        for (let s = 0; s < samples; s++) count += bits[s * predictor.monitors.length + e.monitor]!;
        set += (Math.exp(prior[h]!) * count) / samples;
      }
      if (!factors && !only) known.set(name, set);
    }
    return Math.log(set * Math.exp(logCode(1, e)) + (1 - set) * Math.exp(logCode(0, e)));
  });
}

/**
 * What one component expects of a reading, over the samples that still count. Ohms: geometric mean; OL when most say
 * so.
 */
export function expectation(
  predictor: Predictor,
  component: MixtureComponent,
  e: Extract<Evidence, { kind: "reading" }>,
): number {
  let sum = 0;
  let over = 0;
  let none = 0;
  let total = 0;
  const wanted = Uint8Array.from(component.weights, (w) => (w > 1e-3 ? 1 : 0));
  const ohms = e.instrument === "ohmmeter" || e.instrument === "continuity";
  const predicted = predictor.predictAt(
    component.hypothesis,
    component.misplaced ? component.misplaced.moved(e) : e,
    wanted,
  );
  component.weights.forEach((w, s) => {
    if (!wanted[s]) return;
    const v = predicted.at(s);
    if (Number.isNaN(v)) none += w;
    else if (v === Infinity) over += w;
    else {
      sum += w * (ohms ? Math.log(v + 1e-3) : v);
      total += w;
    }
  });
  if (none > 0.5) return NaN;
  if (over > total) return Infinity;
  return ohms ? Math.exp(sum / total) : sum / total;
}
