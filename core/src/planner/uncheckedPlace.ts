import type { Belief } from "../diagnosis/assessment.js";
import type { Grouped } from "../diagnosis/groups.js";
import type { Candidate } from "./candidate.js";

/**
 * The least chance that is worth a check before a cause is declared: that the leads were at a look-alike and something
 * else is the cause. Judgement: the check takes a minute, and how often leads are at the wrong connector is a guess.
 */
const RIVAL_FROM = 1e-4;

/**
 * The check that a verdict still needs: were the leads at the connector that the logbook names? It is needed where
 * something else would be the cause if they were at a look-alike (common practice, no source).
 * @param open tests on offer that have not been done
 * @returns undefined where no other cause depends on it, or the check was made
 */
export function uncheckedPlace(
  { posterior }: Belief,
  grouped: Grouped,
  open: readonly Candidate[],
): Candidate | undefined {
  const others = posterior.components.filter((c, i) => c.misplaced && c.share >= RIVAL_FROM && grouped.of[i] !== 0);
  const from = new Set(others.map((c) => c.misplaced!.from));
  return open.find((c) => c.kind === "identity" && from.has(c.points[0]!));
}
