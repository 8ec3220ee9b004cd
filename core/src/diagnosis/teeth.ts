import type { TraceChannel } from "../format/trace.js";
import type { Wiring } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import { isTurning } from "../network/state.js";
import { findNets } from "../wiring/nets.js";

/** A recorded speed signal: whether it lacks pulses that the teeth of the target should give. */
export interface TeethClue {
  readonly type: "teeth";
  readonly thing: string;
  readonly missing: boolean;
  /** at the same place of every turn */
  readonly returns: boolean;
}
interface TeethEvidence {
  readonly kind: "clue";
  readonly number: number;
  readonly clue: TeethClue;
}

/** A recorded speed signal that switches shows each tooth that is not there. */
export function teethEvidence(wiring: Wiring, { traces }: Pick<Folded, "traces">): TeethEvidence[] {
  if (traces.length === 0) return [];
  const nets = findNets(wiring);
  const sensors = wiring.devices.flatMap((d) =>
    d.kind === "hall"
      ? [{ id: d.id, target: d.target, on: d.pins.signal }]
      : d.kind === "coilSensor"
        ? [{ id: d.id, target: d.target, on: d.pins.high }]
        : [],
  );
  return traces.flatMap(({ number, entry }) =>
    entry.channels.flatMap((c): TeethEvidence[] => {
      if (c.kind !== "switching" || c.by !== "scope" || !isTurning(entry.state.key)) return [];
      const net = nets.netOf.get(c.on);
      const sensor = sensors.find((s) => net !== undefined && nets.netOf.get(s.on) === net);
      const lacks = sensor && lacksTeeth(c, sensor.target);
      return lacks ? [{ kind: "clue", number, clue: { type: "teeth", thing: sensor.id, ...lacks } }] : [];
    }),
  );
}
/** @returns undefined where a gap comes back in every turn and nobody says whether it is made so */
function lacksTeeth(
  { missing = 0, returns, gap }: Pick<TraceChannel, "missing" | "returns" | "gap">,
  target: { readonly gap: number } | undefined,
): { missing: boolean; returns: boolean } | undefined {
  if (missing > 0) return { missing: true, returns: returns === true };
  if (!gap) return { missing: false, returns: false };
  if (!target) return undefined;
  const isAnother = gap.missing !== target.gap;
  return { missing: isAnother, returns: isAnother };
}
