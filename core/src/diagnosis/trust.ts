import type { Predictor } from "../prediction/predictor.js";
import { familiesOf } from "../prediction/unknowns.js";
import { asksForCause, CODE_EXPLAINED_FROM, leftOver, misfit, MISFIT_SIGMAS, setBy } from "./fit.js";
import type { Evidence, Gathered, ReadingEvidence } from "./evidence.js";
import type { Grouped, Suspect } from "./groups.js";
import type { MixtureComponent, Posterior } from "./posterior.js";
import { stateName } from "../network/state.js";

/**
 * How sure anybody may be of the leader, whatever its share: the model itself may be wrong, and what bends to fit
 * anything is then the least bad of all. Judgement, not tuned.
 */
const BOUND = {
  misfits: 0.94,
  misfitsOfSeveral: 0.8,
  noCode: 0.8,
  notNeeded: 0.85,
  notSeenToGo: 0.9,
} as const;
/** What a bound is worked out from. */
interface Weighed {
  readonly gathered: Pick<Gathered, "evidence">;
  readonly posterior: Posterior;
}
/** Below this no bound would matter. */
const MATTERS_FROM = 0.8;

/**
 * The most that may be claimed for the leading suspect: less where readings contradict it (what it keeps when all
 * evidence counts half, and never as much as a verdict needs), where it explains none of the codes that are set, where
 * a fault of several is not needed by anything measured, and where it is said to come and go but nothing was seen to.
 */
export function mostToClaim(predictor: Predictor, belief: Weighed, grouped: Grouped): number {
  const leader = grouped.suspects[0]!;
  if (leader.share < MATTERS_FROM) return 1;
  const component = belief.posterior.components.find((_, i) => grouped.of[i] === 0);
  if (!component || component.hypothesis === 0) return 1;
  const { evidence } = belief.gathered;
  const { codes, readings } = leftOver(predictor, component, evidence);
  const asked = evidence.filter((e) => e.kind === "code" && asksForCause(e));
  const goes = leader.members.reduce((sum, m) => sum + m.intermittent, 0) > leader.share / 2;
  return Math.min(
    // a single one is taken again before a cause is declared
    readings.length > 1
      ? mostAgainstReadings(predictor, belief, leader, areOfOneUnknown(predictor, evidence, readings))
      : 1,
    asked.length > 0 && codes.length === asked.length ? BOUND.noCode : 1,
    leader.type === "several" && neededOf(predictor, component, evidence).includes(false) ? BOUND.notNeeded : 1,
    goes && !isSeenToGo(evidence) ? BOUND.notSeenToGo : 1,
  );
}

/** Readings contradict the leader: the model is wrong somewhere, so nothing that it says counts in full. */
function mostAgainstReadings(predictor: Predictor, { posterior }: Weighed, leader: Suspect, areOne: boolean): number {
  if (leader.type === "several") return areOne ? BOUND.misfits : BOUND.misfitsOfSeveral;
  const { share, shareByCodes } = posterior;
  const its = new Set(leader.members.map((m) => m.hypothesis));
  let all = Math.sqrt(posterior.notHere * shareByCodes.at(-1)!);
  let own = 0;
  for (let h = 0; h <= predictor.faults.length; h++) {
    const half = Math.sqrt(share[h]! * shareByCodes[h]!);
    all += half;
    if (its.has(h)) own += half;
  }
  return all > 0 ? Math.min(BOUND.misfits, own / all) : BOUND.misfits;
}

/** Whether readings all hang on the same unknown: then they contradict once, however many they are. */
export function areOfOneUnknown(predictor: Predictor, evidence: readonly Evidence[], at: readonly number[]): boolean {
  const families = familiesOf(predictor);
  const names = at.map((i) => {
    const e = evidence[i]!;
    return e.kind === "reading" ? families.of(e) : "";
  });
  return new Set(names).size === 1;
}

/** Of each fault of a set whether it is needed: without it a reading and something else are left unexplained. */
export function neededOf(
  predictor: Predictor,
  component: MixtureComponent,
  evidence: readonly Evidence[],
): readonly boolean[] {
  const { faults } = predictor.hypotheses[component.hypothesis]!;
  return faults.map((_, m) => {
    const others = faults.filter((_f, i) => i !== m).map((f) => predictor.faults.indexOf(f) + 1);
    const explains = (e: Evidence, c: MixtureComponent) =>
      e.kind === "reading"
        ? misfit(predictor, c, e, c !== component) <= MISFIT_SIGMAS
        : e.kind === "code" && setBy(predictor, c, e.monitor) >= CODE_EXPLAINED_FROM;
    const without = others.map((h) => anySeverity(predictor, h));
    const lost = evidence.filter(
      (e) =>
        (e.kind === "reading" || (e.kind === "code" && e.present)) &&
        explains(e, component) &&
        !without.some((c) => explains(e, c)),
    );
    return lost.length >= 2 && lost.some((e) => e.kind === "reading");
  });
}
/** A single fault at whatever severity it may have. */
function anySeverity(predictor: Predictor, hypothesis: number): MixtureComponent {
  const { samples } = predictor.hypotheses[hypothesis]!;
  return {
    hypothesis,
    presence: 1,
    misplaced: undefined,
    share: 0,
    weights: new Float64Array(samples).fill(1 / samples),
    steps: undefined,
    draws: new Map(),
  };
}

/** Whether anything was seen to come and go: a value that flickers, a place that reacts, one pin read two ways. */
function isSeenToGo(evidence: readonly Evidence[]): boolean {
  const seen = new Map<string, ReadingEvidence>();
  return evidence.some((e) => {
    if (e.kind === "clue") return e.clue.type === "wiggle" && e.clue.reacted;
    if (e.kind !== "reading") return false;
    const place = `${e.instrument} ${e.point} ${e.black ?? ""} ${stateName(e.state)}`;
    const before = seen.get(place);
    seen.set(place, e);
    return before !== undefined && Math.abs(before.value - e.value) > MOVED * Math.max(1, Math.abs(e.value));
  });
}
/** Two values of one pin this far apart, as a share of the value (from a volt or an ohm up), are not one value. */
const MOVED = 0.15;
