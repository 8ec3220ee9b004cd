import type { Code, KeyState, Monitor, Wiring } from "../format/wiring.js";
import type { Circuit } from "../network/element.js";
import { nodeVolt, type Solver } from "../network/settle.js";
import { pinBehind } from "../wiring/points.js";

/** The set condition of one code, bound to the nodes of a circuit. */
export interface BoundMonitor {
  readonly code: Code;
  /** place in `wiring.codes` */
  readonly index: number;
  readonly monitor: Monitor;
  readonly pin: number;
  readonly innerGround: number;
  readonly gate: number;
  /** the key state in which it is judged */
  readonly key: KeyState;
}

/** A signal that moves less than this between tooth and gap counts as no activity, volt. */
const ACTIVITY_VOLT = 1;
const JUDGED_FIRST: readonly KeyState[] = ["on", "cranking", "running"];

export function bindMonitors(wiring: Wiring, circuit: Circuit): BoundMonitor[] {
  return wiring.codes.flatMap((code, index) => {
    const monitor = code.monitor;
    if (!monitor) return [];
    const when = monitor.when ?? (monitor.type === "noActivity" ? (["cranking"] as const) : (["on", "running"] as const));
    const key = JUDGED_FIRST.find((k) => (when as readonly KeyState[]).includes(k));
    const pin = circuit.nodeOf.get(pinBehind(monitor.at));
    const innerGround = circuit.nodeOf.get(`${code.module} inner ground`);
    const gate = circuit.gateOf.get(code.module);
    if (!key || pin === undefined || innerGround === undefined || gate === undefined) return [];
    return [{ code, index, monitor, pin, innerGround, gate, key }];
  });
}

/** The voltage a module sees at a pin, against its own ground; NaN where the pin floats. */
export function moduleSideVolt(s: Solver, m: Pick<BoundMonitor, "pin" | "innerGround">): number {
  return nodeVolt(s, m.pin) - nodeVolt(s, m.innerGround);
}

/** Whether the code sets at the operating point just settled. A sleeping module sets nothing. */
export function isSet(s: Solver, m: BoundMonitor): boolean {
  if (s.awake[m.gate] === 0) return false;
  const volt = moduleSideVolt(s, m);
  switch (m.monitor.type) {
    case "below": return volt < m.monitor.volt;
    case "above": return volt > m.monitor.volt;
    case "outside": return volt < m.monitor.low || volt > m.monitor.high;
    case "noActivity": return false; // needs two operating points: see lacksActivity
  }
}

/** For a noActivity monitor: whether the module-side volts with and without steel at the tip are too much alike. */
export function lacksActivity(withSteel: number, withoutSteel: number, awake: boolean): boolean {
  return awake && !(Math.abs(withSteel - withoutSteel) >= ACTIVITY_VOLT);
}
