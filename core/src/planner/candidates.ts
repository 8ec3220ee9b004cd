import type { Folded } from "../logbook/fold.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Candidate } from "./candidate.js";
import { watchedBy } from "./candidateKind.js";
import { price } from "./cost.js";
import { Cost, positionOf } from "./cost.js";
import { offered } from "./offering.js";

/** Above this many connectors only those in question are planned for. Judgement: below, everything fits in the time. */
const MANY_CONNECTORS = 12;

/**
 * Every test worth weighing: voltage at each reachable cavity (plugged, or unplugged at its own connector; with the
 * engine running where something is only driven then), shared points watched while a device is unplugged, both sides
 * of each fuse, ohms with power off, what the scan tool shows, looks, wiggles, twins swapped, part numbers.
 * @param concerned connectors, fuses and other things that a suspect touches; only these when the machine is large
 * @param comesAndGoes values are watched for a while, too: recorded, or by a meter's least and most where there is no
 * scope
 */
export function candidates(
  predictor: Predictor,
  folded: Folded,
  concerned: ReadonlySet<string>,
  comesAndGoes = false,
): Candidate[] {
  const tools = folded.intake?.entry.tools;
  const owns = (t: NonNullable<typeof tools>[number]) => !tools || tools.includes(t);
  const shows = folded.intake?.entry.scanShows;
  const cost = new Cost(predictor.wiring);
  const from = positionOf(folded);
  const away = new Set([...(folded.state.pulled ?? []), ...(folded.state.breakers ?? [])]);
  const many = predictor.wiring.connectors.length > MANY_CONNECTORS;
  return offered(predictor)
    .filter((o) => {
      if (folded.setAside.has(o.id) || folded.lacking.has(o.kind)) return false;
      if ((o.kind === "look" || o.kind === "fuse") && away.has(o.at)) return false; // the fuse is in somebody's pocket
      if (many && !o.touches.some((t) => concerned.has(t))) return false;
      if (!many && (o.kind === "look" || o.kind === "wiggle") && !concerned.has(o.points[0]!)) return false;
      if (watchedBy(o.kind) && !(comesAndGoes && o.touches.some((t) => concerned.has(t)))) return false;
      if (o.kind === "record") return owns("scope");
      if (o.kind === "minMax") return owns("meter") && !owns("scope");
      if (o.kind === "scan" || o.kind === "scanWatch" || o.kind === "scanRecord")
        return owns("scanTool") && (!shows || o.touches.some((t) => shows.includes(t)));
      if (o.instrument === "scope") return owns("scope");
      return o.instrument === "none" || owns("meter");
    })
    .map((o) => price(o, cost, from));
}
