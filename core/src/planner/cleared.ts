import type { Posterior } from "../diagnosis/posterior.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets } from "../wiring/nets.js";
import type { Candidate } from "./candidate.js";
import { netsOfFault, netsOfPlaces } from "./placeNets.js";

/** A conductor is cleared while what could be wrong on it, or at either end of it, holds less than this. Judgement. */
const CLEARED_BELOW = 0.01;

/**
 * Without ohms on what was just cleared: nobody turns the key off, unplugs and measures a conductor on which nothing
 * is suspected any more, though the number would still tell a little.
 */
export function withoutCleared(
  predictor: Predictor,
  posterior: Posterior,
  open: readonly Candidate[],
): readonly Candidate[] {
  const { netOf } = findNets(predictor.wiring);
  const netsAt = netsOfPlaces(predictor.wiring, netOf);
  const share = new Map<number, number>();
  for (const w of posterior.components) {
    const nets = new Set(predictor.hypotheses[w.hypothesis]!.faults.flatMap((f) => netsOfFault(f, netsAt)));
    for (const n of nets) share.set(n, (share.get(n) ?? 0) + w.share);
  }
  const isCleared = (point: string) => {
    const net = netOf.get(point);
    return net !== undefined && (share.get(net) ?? 0) < CLEARED_BELOW;
  };
  return open.filter((c) => !(OHMS.has(c.kind) && c.points.every(isCleared)));
}
const OHMS: ReadonlySet<Candidate["kind"]> = new Set<Candidate["kind"]>(["ohms", "ohmsWatch"]);
