import type { Posterior } from "../diagnosis/posterior.js";
import type { Predictor } from "../prediction/predictor.js";
import { connectorOf, deviceConnectors, wireId } from "../wiring/points.js";

/** Components weaker than this concern nothing. Judgement: below it no test is worth a minute. */
const CONCERNED_FROM = 0.002;

/** Connectors, fuses and other things that a live suspect touches. */
export function concerned(predictor: Predictor, posterior: Posterior): ReadonlySet<string> {
  const ids = new Set<string>();
  const devices = new Map(predictor.wiring.devices.map((d) => [d.id, d]));
  const addPoint = (p: string) => ids.add(connectorOf(p));
  const places = new Set<string>();
  for (const w of posterior.components) {
    if (w.share < CONCERNED_FROM) continue;
    for (const f of predictor.hypotheses[w.hypothesis]!.faults) {
      places.add(f.place.id);
      if (f.at !== undefined) places.add(f.at);
    }
    if (w.misplaced) {
      ids.add(w.misplaced.from);
      ids.add(w.misplaced.to);
    }
  }
  for (const p of places) {
    addPoint(p);
    const d = devices.get(p);
    if (d) deviceConnectors(d).forEach((c) => ids.add(c));
  }
  for (const w of predictor.wiring.wires)
    if (places.has(wireId(w)) || places.has(w.from) || places.has(w.to)) {
      addPoint(w.from);
      addPoint(w.to);
    }
  return ids;
}
