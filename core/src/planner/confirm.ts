import { pinBehind } from "../wiring/points.js";
import { without, type Belief } from "../diagnosis/assessment.js";
import { groupComponents, type Grouped } from "../diagnosis/groups.js";
import type { Posterior } from "../diagnosis/posterior.js";
import type { Predictor } from "../prediction/predictor.js";
import { sameReading } from "../logbook/sameReading.js";
import type { Candidate } from "./candidate.js";
import { ExpectedInformation } from "./expectedInformation.js";
import { particlesOf, type ParticleBelief } from "./particles.js";
import { rankByRate, type Weighed } from "./ranking.js";

/** With its weightiest reading left out, a proven cause must still hold this share. Judgement. */
export const STILL_HOLDS = 0.6;
/** A confirmation must not hang on a tenth of a volt, and must be able to refute. Judgement. */
const CONFIRM_BLUR_VOLT = 0.15;
const CONFIRM_BITS = 0.1;

/**
 * A single reading that does not fit may be a slip of the hand: it is taken again before a cause is declared against
 * it.
 * @param at place of the reading in the evidence
 * @returns undefined where it has been taken again, or cannot be
 */
export function readingToRetake(
  belief: Belief,
  at: number,
  offered: readonly Candidate[],
): { readonly candidate: Candidate; readonly number: number } | undefined {
  const { evidence, folded } = belief.gathered;
  const e = evidence[at]!;
  // a recording holds several readings under one number
  const isIt = ({ number, entry }: (typeof folded.readings)[number]) =>
    e.kind === "reading" &&
    number === e.number &&
    entry.instrument === e.instrument &&
    entry.points.some((p) => p === e.point || pinBehind(p) === e.point);
  const entry = folded.readings.find(isIt)?.entry;
  if (!entry || folded.readings.filter((r) => sameReading(r.entry, entry)).length > 1) return undefined;
  const candidate = offered.find((c) => c.instrument !== "none" && sameReading(c, entry));
  return candidate && { candidate, number: e.number };
}
/**
 * Whether a verdict hangs on one reading, and what would then confirm it: the belief without that reading is planned
 * for as any other, with the leader on one side and everybody else on the other.
 * @param only the one reading that is to be confirmed, whatever hangs on it; all on offer is then ranked
 * @returns undefined where it hangs on no single reading
 */
export function confirming(
  predictor: Predictor,
  belief: Belief,
  grouped: Grouped,
  merged: ReadonlyMap<string, string>,
  open: readonly Candidate[],
  only?: number,
): { readonly hangsOn: number; readonly ranked: readonly Weighed[] } | undefined {
  const worst = weakestWithout(predictor, belief, grouped.keys[0]!, merged, only);
  if (only === undefined && worst.share >= STILL_HOLDS && worst.number !== NO_READING) return undefined;
  const information = new ExpectedInformation(predictor, leaderAgainstRest(predictor, worst), CONFIRM_BLUR_VOLT);
  const all = open.map((candidate): Weighed => {
    const joints = information.joints(candidate);
    return { candidate, joints, bits: ExpectedInformation.bits(joints) };
  });
  const ranked = only !== undefined ? all : rankByRate(all).filter((r) => r.bits >= CONFIRM_BITS);
  return { hangsOn: worst.number, ranked };
}

/** Where there are no readings, the verdict hangs on none. */
const NO_READING = 0;
interface Weakest {
  /** of the leader, without the reading */
  readonly share: number;
  readonly number: number;
  readonly posterior: Posterior;
  readonly grouped: Grouped;
  /** the leader's place among the suspects; −1 where it is none of them */
  readonly at: number;
}

/** The reading without which the leader is weakest. */
function weakestWithout(
  predictor: Predictor,
  belief: Belief,
  leader: string,
  merged: ReadonlyMap<string, string>,
  only: number | undefined,
): Weakest {
  const read = belief.gathered.evidence.flatMap((e) => (e.kind === "reading" ? [e.number] : []));
  const numbers = only !== undefined ? [only] : read.length ? [...new Set(read)] : [NO_READING];
  const all = numbers.map((number): Weakest => {
    const posterior = number === NO_READING ? belief.posterior : without(predictor, belief, number);
    const grouped = groupComponents(predictor, posterior, merged);
    const at = grouped.keys.indexOf(leader);
    return { share: at < 0 ? 0 : grouped.suspects[at]!.share, number, posterior, grouped, at };
  });
  return all.reduce((worst, w) => (w.share < worst.share ? w : worst));
}

/** The leader on one side with half the weight, everybody else on the other. */
function leaderAgainstRest(predictor: Predictor, { posterior, grouped, at, share }: Weakest): ParticleBelief {
  const rest = Math.max(LEAST_SHARE, 1 - share);
  const particleBelief = particlesOf(
    predictor,
    posterior,
    grouped,
    (w, suspect) => (w.share * 0.5) / (suspect === at ? Math.max(LEAST_SHARE, share) : rest),
    (posterior.notHere * 0.5) / rest,
  );
  return {
    suspects: 2,
    particles: particleBelief.particles.map((p) => ({ ...p, suspect: p.suspect === at ? 0 : 1 })),
    notHere: { suspect: 1, weight: particleBelief.notHere.weight },
  };
}
/** Keeps a side without weight from dividing by nothing. */
const LEAST_SHARE = 1e-9;
