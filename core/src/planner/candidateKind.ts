import type { Watched } from "../format/case.js";

/** Tests at the very places still in question: the clamp on a branch of a short, ohms from one plug to another. */
const CLOSER_KINDS = ["branchCurrent", "ohmsBetween"] as const;
export type CloserKind = (typeof CLOSER_KINDS)[number];

/** What watches a value for a while as the harness is moved: a recorder, a meter's least and most, the scan tool. */
const WATCHING_KINDS = ["record", "minMax", "scanRecord"] as const;
type WatchingKind = (typeof WATCHING_KINDS)[number];

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
  ...WATCHING_KINDS,
  ...CLOSER_KINDS,
  ...RUN_KINDS,
] as const;
export type CandidateKind = (typeof CANDIDATE_KINDS)[number];

/** How the value of a test is watched over time; undefined where it is read once. */
export const watchedBy = (kind: CandidateKind): Watched | undefined => WATCHED_BY[kind as WatchingKind];
const WATCHED_BY: Readonly<Record<WatchingKind, Watched>> = {
  record: "recorded",
  minMax: "minMax",
  scanRecord: "recorded",
};
