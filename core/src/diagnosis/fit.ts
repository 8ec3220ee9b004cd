import type { Predictor } from "../prediction/predictor.js";
import type { CodeEvidence, Evidence, ReadingEvidence } from "./evidence.js";
import { CloserLook } from "./closerLook.js";
import { distance } from "./likelihood.js";
import type { MixtureComponent } from "./posterior.js";
import { isUnmovedAt } from "./unmoved.js";

/**
 * A reading further from the prediction than this is contradicted, standard deviations; a present code less likely than
 * this is not explained.
 */
export const CODE_EXPLAINED_FROM = 0.3;
export const MISFIT_SIGMAS = 4;

/** A code that a cause must explain: it is set, and not long ago. Judgement. */
export const asksForCause = ({ present, weight }: Pick<CodeEvidence, "present" | "weight">): boolean =>
  present && weight > 0.3;

/** Present codes and readings that a component does not account for. */
export function leftOver(
  predictor: Predictor,
  component: MixtureComponent,
  evidence: readonly Evidence[],
): { readonly codes: readonly number[]; readonly readings: readonly number[] } {
  const codes: number[] = [];
  const readings: number[] = [];
  evidence.forEach((e, i) => {
    if (e.kind === "code" && asksForCause(e) && setBy(predictor, component, e.monitor) < CODE_EXPLAINED_FROM)
      codes.push(i);
    if (e.kind !== "reading" || misfit(predictor, component, e) <= MISFIT_SIGMAS) return;
    if (!isReachedClosely(predictor, component, e)) readings.push(i);
  });
  return { codes, readings };
}
/** Whether many draws of a component that was looked at closely reach a reading, whatever few draws say. */
export function isReachedClosely(predictor: Predictor, component: MixtureComponent, e: ReadingEvidence): boolean {
  const off = CloserLook.before(predictor)?.misfit(component, e);
  return off !== undefined && off <= MISFIT_SIGMAS;
}
/** Probability that a component sets a code. */
export function setBy(predictor: Predictor, component: MixtureComponent, monitor: number): number {
  const shares = predictor.codeShares(component.hypothesis, [monitor]);
  const n = predictor.monitors.length;
  let p = 0;
  component.weights.forEach((w, s) => {
    if (w > 0) p += w * shares[s * n + monitor]!;
  });
  return p;
}

/**
 * How far a reading is from the nearest of what a component's heavier samples predict, standard deviations. Of a fault
 * that may be more or less bad only its likeliest severity and those beside it count: one reading must not fit a hard
 * short and the next a soft one.
 * @param anySeverity takes every severity of the fault for possible
 */
export function misfit(
  predictor: Predictor,
  component: MixtureComponent,
  e: Extract<Evidence, { kind: "reading" }>,
  anySeverity = false,
): number {
  const nearest = (hypothesis: number, weights: (s: number) => number, samples: number) => {
    const wanted = Uint8Array.from({ length: samples }, (_, s) => (weights(s) > SAMPLE_COUNTS_FROM ? 1 : 0));
    const predicted = predictor.predictAt(hypothesis, component.misplaced ? component.misplaced.moved(e) : e, wanted);
    let least = Infinity;
    let low = Infinity;
    let high = -Infinity;
    for (let s = 0; s < samples; s++) {
      if (!wanted[s]) continue;
      const v = predicted.at(s);
      least = Math.min(least, distance(v, e.value, e.instrument, e.tolerance));
      if (Number.isNaN(v)) continue;
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    // a value between two samples fits, and so does one a little beyond the last: the draws do not reach the very ends
    const beyond = BEYOND * (high - low);
    return e.value >= low - beyond && e.value <= high + beyond ? 0 : least;
  };
  const { draws } = predictor;
  const likeliest = likeliestPlace(component.weights, draws);
  const { stepped } = predictor.hypotheses[component.hypothesis]!;
  const counts = (s: number) => anySeverity || !stepped || Math.abs(Math.floor(s / draws) - likeliest) <= 1;
  const there = nearest(component.hypothesis, (s) => (counts(s) ? component.weights[s]! : 0), component.weights.length);
  // what it leaves as it is on a sound machine is known in all draws
  const isSound =
    component.hypothesis > predictor.faults.length &&
    !component.misplaced &&
    isUnmovedAt(predictor, component.hypothesis, e);
  return component.presence === 1 && !isSound
    ? there
    : Math.min(
        there,
        nearest(0, () => 1, predictor.draws),
      );
}
/** How far beyond the outermost draws a value still fits, as a share of their span. Judgement. */
const BEYOND = 0.25;
/** The severity that carries most weight. @param weights of samples: [severity · draws + draw] */
function likeliestPlace(weights: Float64Array, draws: number): number {
  let best = 0;
  let most = -1;
  for (let s = 0; s < weights.length; s += draws) {
    let sum = 0;
    for (let d = 0; d < draws; d++) sum += weights[s + d]!;
    if (sum > most) [most, best] = [sum, s / draws];
  }
  return best;
}
/** Weight from which a sample is worked out for how badly a reading fits. Judgement: time. */
const SAMPLE_COUNTS_FROM = 1e-3;
