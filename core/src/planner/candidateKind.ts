/** Kinds of test that the document offers, and those that only guided runs take. */
export type CandidateKind =
  | "voltage"
  | "voltageUnplugged"
  | "watch"
  | "fuse"
  | "ohms"
  | "ohmsWatch"
  | "scan"
  | "scanWatch"
  | "activity"
  | "look"
  | "wiggle"
  | "swap"
  | "partNumber"
  | "identity"
  | CloserKind
  | RunKind;

/** Tests at the very places still in question: the clamp on a branch of a short, ohms from one plug to another. */
export type CloserKind = "branchCurrent" | "ohmsBetween";

/**
 * Steps that guided runs take: between two leads, a jumper with the scan tool, a lamp, a breaker in a fuse's
 * place,
 * a part by itself, a code made to set.
 */
export type RunKind = "drop" | "jumper" | "lamp" | "breaker" | "bench" | "codeSets";
