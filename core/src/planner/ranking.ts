import type { Candidate } from "./candidate.js";
import type { JointDistribution } from "./jointDistribution.js";

/** A candidate with what it would tell. */
export interface Weighed {
  readonly candidate: Candidate;
  /** expected information about the suspects, bits */
  readonly bits: number;
  readonly joints: readonly JointDistribution[];
}

/** Readings with less information than this are not worth their time, bits. Judgement. */
const WORTH_BITS = 0.01;

/** Those worth their time, the most information per minute first. */
export function rankByRate(list: readonly Weighed[]): Weighed[] {
  return list
    .filter((w) => w.bits >= WORTH_BITS)
    .sort((a, b) => b.bits / b.candidate.minutes - a.bits / a.candidate.minutes);
}
