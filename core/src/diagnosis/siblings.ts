import type { Fault, FaultMode } from "../faults/fault.js";
import type { Wiring } from "../format/wiring.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets } from "../wiring/nets.js";
import { wireId } from "../wiring/points.js";
import type { Misplacement } from "./misplaced.js";

/**
 * The same short on several wires of one conductor differs by the drops along wires whose lengths nobody knows: few
 * draws make too much of them. What readings say of one against the other counts by this power. Judgement.
 */
const SIBLINGS_TELL = 0.25;
const SIBLING_MODES: ReadonlySet<FaultMode> = new Set<FaultMode>(["shortToChassis", "shortToSupply"]);

interface Weight {
  readonly hypothesis: number;
  readonly presence: number;
  readonly misplaced: Misplacement | undefined;
  readonly log: number;
}

/**
 * Brings like shorts on one conductor closer to the best of them, alone or each with the same other faults.
 * @param fit ln likelihood of the readings of one @returns the same in the same order, with other weights
 */
export function temperSiblings<W extends Weight>(
  predictor: Predictor,
  found: readonly W[],
  fit: (w: W) => number,
): readonly W[] {
  const nets = netsOfWires(predictor.wiring);
  const keys = found.map((w) => siblingKey(predictor, w, nets));
  const best = new Map<string, number>();
  found.forEach((w, i) => {
    const key = keys[i];
    if (key !== undefined) best.set(key, Math.max(best.get(key) ?? -Infinity, fit(w)));
  });
  return found.map((w, i) => {
    const key = keys[i];
    return key === undefined ? w : { ...w, log: w.log + (1 - SIBLINGS_TELL) * (best.get(key)! - fit(w)) };
  });
}

/** What siblings have in common: the same faults, but for which wire of a conductor is shorted. */
function siblingKey(predictor: Predictor, w: Weight, nets: ReadonlyMap<string, number>): string | undefined {
  const { faults } = predictor.hypotheses[w.hypothesis]!;
  const isSibling = (f: Fault) => f.place.type === "wire" && SIBLING_MODES.has(f.mode);
  if (w.misplaced || !faults.some(isSibling)) return undefined;
  const names = faults.map((f) => (isSibling(f) ? `${f.mode} on ${nets.get(f.place.id)}` : f.id));
  return `${names.sort().join(" + ")} ${w.presence}`;
}

const known = new WeakMap<Wiring, ReadonlyMap<string, number>>();
/** The conductor of each wire, by its id. */
function netsOfWires(wiring: Wiring): ReadonlyMap<string, number> {
  let nets = known.get(wiring);
  if (!nets) {
    const { netOf } = findNets(wiring);
    known.set(wiring, (nets = new Map(wiring.wires.map((w) => [wireId(w), netOf.get(w.from)!]))));
  }
  return nets;
}
