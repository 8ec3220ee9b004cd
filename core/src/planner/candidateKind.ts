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
  | RunKind;

/**
 * Steps that only guided runs take: between two leads, a jumper with the scan tool, a lamp, a breaker in a fuse's
 * place,
 * a part by itself, a code made to set.
 */
export type RunKind = "drop" | "jumper" | "lamp" | "breaker" | "bench" | "codeSets";
