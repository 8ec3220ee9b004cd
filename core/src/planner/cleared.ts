import type { Posterior } from "../diagnosis/posterior.js";
import type { FaultPlace } from "../faults/fault.js";
import type { Wiring } from "../format/wiring.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets } from "../wiring/nets.js";
import { connectorPoints, deviceConnectors, devicePins, wireId } from "../wiring/points.js";
import type { Candidate } from "./candidate.js";

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
    const nets = new Set(
      predictor.hypotheses[w.hypothesis]!.faults.flatMap((f) => [
        ...(netsAt.get(f.place.id) ?? []),
        ...(f.at === undefined ? [] : (netsAt.get(f.at) ?? [])),
      ]),
    );
    for (const n of nets) share.set(n, (share.get(n) ?? 0) + w.share);
  }
  const isCleared = (point: string) => {
    const net = netOf.get(point);
    return net !== undefined && (share.get(net) ?? 0) < CLEARED_BELOW;
  };
  return open.filter((c) => !(OHMS.has(c.kind) && c.points.every(isCleared)));
}
const OHMS: ReadonlySet<Candidate["kind"]> = new Set<Candidate["kind"]>(["ohms", "ohmsWatch"]);

/** The conductors that a fault at each place would be on. */
function netsOfPlaces(
  wiring: Wiring,
  netOf: ReadonlyMap<string, number>,
): ReadonlyMap<FaultPlace["id"], readonly number[]> {
  const at = new Map<string, number[]>();
  const add = (id: string, points: readonly string[]) => {
    const nets = points.flatMap((p) => netOf.get(p) ?? []);
    at.set(id, [...(at.get(id) ?? []), ...nets]);
  };
  for (const w of wiring.wires) add(wireId(w), [w.from, w.to]);
  for (const c of wiring.connectors) {
    add(c.id, connectorPoints(c));
    for (const p of connectorPoints(c)) {
      add(p, [p]);
      if (c.inline) add(p.replace(/\.[ab]$/, ""), [p]);
    }
  }
  for (const d of wiring.devices) {
    const points = devicePins(d).map((p) => p.at);
    add(d.id, [d.id, ...points, ...["in", "out", "+", "-"].map((end) => `${d.id}:${end}`)]);
    if (points.length > 0) for (const c of deviceConnectors(d)) add(c, points);
  }
  return at;
}
