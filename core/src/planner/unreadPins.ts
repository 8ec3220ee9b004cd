import type { Belief } from "../diagnosis/assessment.js";
import type { Suspect } from "../diagnosis/groups.js";
import type { Device } from "../format/wiring.js";
import type { Predictor } from "../prediction/predictor.js";
import { connectorOf, deviceConnectors, devicePins, wireId } from "../wiring/points.js";
import type { Candidate } from "./candidate.js";

/** Pins that feed a part: each is read, with power on, before its wiring or the part itself is condemned. */
const FEEDING: ReadonlySet<string> = new Set(["supply", "supply2", "ground", "ground2", "feed", "coilHigh", "coilLow"]);
/** A pin whose own faults hold less than this need not be read. Judgement: models of devices are not that exact. */
const RIVAL_FROM = 1e-6;

/**
 * The next reading, not taken yet, without which the leading suspect is not to be condemned: at a supply or ground pin
 * of the part it is about, since how a part behaves without one of them differs from maker to maker; and at the
 * module's own pin where the module is accused, since it is the last thing to replace (common practice, no source).
 * @returns undefined where all have been read, or faults there are out of the question
 */
export function unreadPin(
  predictor: Predictor,
  belief: Belief,
  leader: Suspect,
  open: readonly Candidate[],
): Candidate | undefined {
  const pins = partsOf(predictor, leader).flatMap((d) => devicePins(d).filter((p) => FEEDING.has(p.role)));
  const read = new Set(
    belief.gathered.folded.readings.flatMap(({ entry: { instrument, points, state } }) =>
      instrument === "voltmeter" && state.key !== "off" ? points : [],
    ),
  );
  const rivals = pins.map((p) => p.at).filter((at) => rivalAt(predictor, belief, at) >= RIVAL_FROM);
  for (const at of [...rivals, ...accusedPins(predictor, leader)]) {
    if (read.has(at)) continue;
    const candidate = open.find(
      (c) => c.kind === "voltage" && c.points.length === 1 && c.points[0] === at && c.state.key === "on",
    );
    if (candidate) return candidate;
  }
  return undefined;
}

/** The pin of a module whose inside is accused. */
function accusedPins({ wiring }: Predictor, { members }: Suspect): string[] {
  const modules = new Set(wiring.devices.flatMap((d) => (d.kind === "module" ? [d.id] : [])));
  const at = members[0]!.faults.flatMap((f) => (modules.has(f.place.id) && f.at !== undefined ? [f.at] : []));
  return [...new Set(at)];
}

/** Sensors and actuators on the plug, wire or module pin a suspect is about. */
function partsOf({ wiring }: Predictor, leader: Suspect): Device[] {
  const touched = new Set<string>();
  for (const { faults } of leader.members.slice(0, MOST_MEMBERS))
    for (const f of faults) {
      touched.add(f.place.id);
      touched.add(connectorOf(f.place.id));
    }
  for (const w of wiring.wires)
    if (touched.has(wireId(w))) [w.from, w.to].forEach((end) => touched.add(connectorOf(end)));
  return wiring.devices.filter(
    (d) => d.kind !== "module" && "pins" in d && (touched.has(d.id) || deviceConnectors(d).some((c) => touched.has(c))),
  );
}
/** Members of a suspect that its parts are looked up for. Judgement: the strongest. */
const MOST_MEMBERS = 6;

/** How much of the belief is at the pin or the wire that ends there. */
function rivalAt(predictor: Predictor, { posterior }: Belief, pin: string): number {
  const wires = new Set(predictor.wiring.wires.flatMap((w) => (w.from === pin || w.to === pin ? [wireId(w)] : [])));
  return posterior.components.reduce((sum, w) => {
    const { faults } = predictor.hypotheses[w.hypothesis]!;
    return sum + (faults.some((f) => f.place.id === pin || wires.has(f.place.id)) ? w.share : 0);
  }, 0);
}
