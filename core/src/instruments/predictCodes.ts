import type { BoundMonitor } from "../codes/monitors.js";
import type { KeyState } from "../format/wiring.js";
import { findNets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";
import type { Rig } from "./rig.js";

/** A code that would be set, and how it would behave. Plain data. */
export interface PredictedCode {
  readonly module: string;
  readonly code: string;
  readonly title: string | undefined;
  readonly key: KeyState;
  /** it is set only because this sensor, or the module heard from, has no power: a secondary code */
  readonly follows: { readonly id: string } | undefined;
  /** it stops by itself when power or contact returns, without being cleared (common practice, no source) */
  readonly clearsItself: boolean;
  readonly broad: boolean;
}

/** The whole set of codes the machine as it is would set, over all key states in which monitors run. */
export function predictCodes(rig: Rig, unplugged: readonly string[] = []): PredictedCode[] {
  const watched = watchedBy(rig);
  return rig.codes(unplugged).map((m) => {
    const s = rig.settled({ key: m.key, unplugged: [...unplugged] });
    const { gateOf } = s.conditions.circuit;
    const follows = watched(m).find((id) => {
      const gate = gateOf.get(id);
      return gate !== undefined && s.operating.awake[gate] === 0;
    });
    return {
      module: m.code.module,
      code: m.code.id,
      title: m.code.title,
      key: m.key,
      follows: follows === undefined ? undefined : { id: follows },
      clearsItself: m.monitor.type === "silent" || follows !== undefined,
      broad: m.broad,
    };
  });
}

/** The sensors and modules whose output a monitor watches: the node it listens to, or what stands on its pin's net. */
function watchedBy(rig: Rig): (m: BoundMonitor) => string[] {
  const { wiring } = rig;
  const nets = findNets(wiring);
  return (m) => {
    if (m.monitor.type === "silent") return [m.monitor.node];
    if (m.code.about !== undefined) return [m.code.about];
    const net = nets.netOf.get(m.monitor.at);
    return wiring.devices.flatMap((d) =>
      d.kind !== "module" &&
      devicePins(d).some((p) => (p.role === "signal" || p.role === "signal2") && nets.netOf.get(p.at) === net)
        ? [d.id]
        : [],
    );
  };
}
