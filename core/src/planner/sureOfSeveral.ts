import { without, type Belief } from "../diagnosis/assessment.js";
import { leftOver } from "../diagnosis/fit.js";
import { placeKey, type FaultView, type Grouped, type Suspect } from "../diagnosis/groups.js";
import type { Posterior } from "../diagnosis/posterior.js";
import { areOfOneUnknown, neededOf } from "../diagnosis/trust.js";
import type { Predictor } from "../prediction/predictor.js";
import { STILL_HOLDS } from "./confirm.js";

/** What nearly every explanation has in common is as good as proven by itself. Judgement: as sure as a verdict. */
export const SURE_FROM = 0.98;

/**
 * Of several faults at once those that nearly every explanation has in common and that the evidence needs, even without
 * any one of the readings: they can be repaired while it is still open what else is wrong.
 * @returns undefined where the leader is one fault, where nothing is sure, or where readings contradict the leader
 */
export function sureOfSeveral(predictor: Predictor, belief: Belief, grouped: Grouped): Suspect | undefined {
  const leader = grouped.suspects[0]!;
  const { posterior, gathered } = belief;
  const component = posterior.components.find((_, i) => grouped.of[i] === 0);
  if (leader.type !== "several" || !component) return undefined;
  const { readings } = leftOver(predictor, component, gathered.evidence);
  if (readings.length > 1 && !areOfOneUnknown(predictor, gathered.evidence, readings)) return undefined;
  const needed = neededOf(predictor, component, gathered.evidence);
  const { faults } = predictor.hypotheses[component.hypothesis]!;
  const likely = faults.filter((f, i) => needed[i] && shareOfPlace(predictor, posterior, placeKey(f)) >= SURE_FROM);
  if (likely.length === 0) return undefined;
  // none of them may hang on a single reading: that may be a slip of the hand
  const read = new Set(gathered.evidence.flatMap((e) => (e.kind === "reading" ? [e.number] : [])));
  const fewer = [...read].map((number) => without(predictor, belief, number));
  const sure = likely.filter((f) => fewer.every((p) => shareOfPlace(predictor, p, placeKey(f)) >= STILL_HOLDS));
  if (sure.length === 0) return undefined;
  const share = Math.min(...sure.map((f) => shareOfPlace(predictor, posterior, placeKey(f))));
  const views = sure.map(({ id, mode, place, at }): FaultView => ({ id, mode, place, ...(at ? { at } : {}) }));
  return {
    id: views.map((f) => f.place.id).join(" + "),
    type: views.length > 1 ? "several" : "fault",
    share,
    places: views.map((f) => f.place),
    members: [{ hypothesis: component.hypothesis, fault: views[0]!, faults: views, share, ohm: NaN, intermittent: 0 }],
  };
}

/** How much of the belief has a fault at one place, alone or with others. */
function shareOfPlace(predictor: Predictor, posterior: Posterior, key: string): number {
  return posterior.components.reduce(
    (sum, c) => sum + (predictor.hypotheses[c.hypothesis]!.faults.some((f) => placeKey(f) === key) ? c.share : 0),
    0,
  );
}
