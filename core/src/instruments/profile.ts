import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { followPoint, type PathStep } from "../wiring/follow.js";
import type { FaultAt } from "./machineState.js";
import { readVolts } from "./readings.js";
import { Rig } from "./rig.js";

/** Voltage at one point of the way from where the current comes from, or goes to, up to a pin. */
export interface ProfilePoint {
  readonly point: string;
  /** what lies between the point before and this one; none at the first */
  readonly over: PathStep | undefined;
  /** to battery negative, volt, with a 10 MΩ meter */
  readonly healthy: number;
  /** the same with the faults; none where none were asked for */
  readonly faulty: number | undefined;
}

/**
 * The voltage along a conductor: from the module pin, ground or battery that a pin hangs on, step by step to the pin.
 * Where it falls, the fault is. Nominal values; see `readVolts`.
 * @param pin where the way ends
 * @param faults what is thought to be wrong; none for the healthy machine alone
 * @returns empty where the pin hangs on nothing, or is none
 */
export function profileOf(wiring: Wiring, pin: string, state: State, faults: readonly FaultAt[] = []): ProfilePoint[] {
  const { steps, end } = followPoint(wiring, pin);
  if (end === undefined) return [];
  const healthy = new Rig(wiring);
  const faulty = faults.length ? new Rig(wiring, faults) : undefined;
  const way: { point: string; over: PathStep | undefined }[] = [{ point: end, over: undefined }];
  for (const step of [...steps].reverse()) way.push({ point: step.from, over: step });
  return way.map(({ point, over }) => ({
    point,
    over,
    healthy: readVolts(healthy, state, point).value,
    faulty: faulty && readVolts(faulty, state, point).value,
  }));
}
