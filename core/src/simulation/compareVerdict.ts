import { placeKey } from "../diagnosis/groups.js";
import type { Fault } from "../faults/fault.js";
import { openRepairs, type Repair } from "../planner/outcome.js";

/** What a verdict names of what was hidden: that repair alone, or among several; a part of it; another; none. */
export type VerdictMatch = "alone" | "among" | "part" | "other" | "none";

/**
 * Compares a verdict with the faults that were hidden in a simulated machine.
 * @param named the suspect the verdict names; none where no cause was named
 * @param hidden the faults that were hidden, one or several
 */
export function compareVerdict(
  named: Parameters<typeof openRepairs>[0] | undefined,
  hidden: readonly Pick<Fault, "place" | "at" | "mode">[],
): VerdictMatch {
  if (!named) return "none";
  const repairs: readonly Repair[] = openRepairs(named);
  const keys = new Set(hidden.map(placeKey));
  const met = new Set(repairs.flatMap((r) => r.faults.map(placeKey)).filter((k) => keys.has(k)));
  if (met.size === 0) return "other";
  if (met.size < keys.size) return "part";
  return repairs.length === 1 ? "alone" : "among";
}
