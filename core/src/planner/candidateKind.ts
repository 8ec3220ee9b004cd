/** Tests at the very places still in question: the clamp on a branch of a short, ohms from one plug to another. */
const CLOSER_KINDS = ["branchCurrent", "ohmsBetween"] as const;
export type CloserKind = (typeof CLOSER_KINDS)[number];

/**
 * Steps that guided runs take: between two leads, a jumper with the scan tool, a lamp, a breaker in a fuse's place, a
 * part by itself, a code made to set.
 */
const RUN_KINDS = ["drop", "jumper", "lamp", "breaker", "bench", "codeSets"] as const;
export type RunKind = (typeof RUN_KINDS)[number];

/** Kinds of test that the document offers, and those that only guided runs take. */
export const CANDIDATE_KINDS = [
  "voltage",
  "voltageUnplugged",
  "watch",
  "fuse",
  "ohms",
  "ohmsWatch",
  "scan",
  "scanWatch",
  "activity",
  "look",
  "wiggle",
  "swap",
  "partNumber",
  "identity",
  ...CLOSER_KINDS,
  ...RUN_KINDS,
] as const;
export type CandidateKind = (typeof CANDIDATE_KINDS)[number];
