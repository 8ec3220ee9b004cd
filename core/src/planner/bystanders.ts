import type { Folded } from "../logbook/fold.js";
import { toldCodes } from "../logbook/told.js";
import type { Predictor } from "../prediction/predictor.js";
import { subjectsOf } from "../wiring/matrix.js";
import { findNets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";
import type { Weighed } from "./ranking.js";

/** A first test at a part without a code must tell this many times what the best one elsewhere does. Judgement. */
const WORTH_BYSTANDER = 2;

/**
 * The first test of a job is at a circuit that has a code, or at what it shares: nobody begins with the signal of a
 * healthy twin, though it would tell a little more.
 * @returns what is left of the list; all of it once something was read, or where nothing else tells nearly as much
 */
export function withoutBystanders(
  predictor: Predictor,
  folded: Folded,
  ranked: readonly Weighed[],
): readonly Weighed[] {
  if (folded.readings.length > 0 || ranked.length === 0) return ranked;
  const { wiring } = predictor;
  const coded = new Set(toldCodes(folded).flatMap((c) => subjectsOf(wiring, c.module, c.code)));
  if (coded.size === 0) return ranked;
  const { netOf } = findNets(wiring);
  const theirs = new Set<number>();
  const others = new Set<number>();
  for (const d of wiring.devices)
    if (d.kind !== "module")
      for (const p of devicePins(d)) {
        const net = netOf.get(p.at);
        if (net !== undefined && SIGNALS.test(p.role)) (coded.has(d.id) ? theirs : others).add(net);
      }
  const isBystander = ({ candidate }: Weighed) =>
    candidate.points.length > 0 &&
    candidate.points.every((p) => {
      const net = netOf.get(p);
      return net !== undefined && others.has(net) && !theirs.has(net);
    });
  const kept = ranked.filter((w) => !isBystander(w));
  const most = (list: readonly Weighed[]) => list.reduce((a, w) => Math.max(a, w.bits), 0);
  return most(kept) * WORTH_BYSTANDER >= most(ranked) ? kept : ranked;
}
const SIGNALS = /^(signal|high$|low$)/;
