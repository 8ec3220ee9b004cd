import type { Belief } from "../diagnosis/assessment.js";
import type { Grouped } from "../diagnosis/groups.js";
import type { Candidate } from "./candidate.js";

/**
 * From this chance on that leads were at a connector easily taken for the one logged, and something else is the cause,
 * that is looked at before a cause is declared. Judgement: it takes a minute, and how often it happens is a guess.
 */
const RIVAL_FROM = 1e-4;

/**
 * The look at a component that a verdict still wants: whether the leads were at the connector that the logbook says,
 * where something else would be the cause if they were not (common practice, no source).
 * @param open tests on offer that have not been done
 * @returns undefined where no other cause depends on it, or it was looked at
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
