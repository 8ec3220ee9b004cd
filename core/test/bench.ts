import {
  findFault,
  generateFaults,
  readVolts,
  Rig,
  type Entry,
  type FaultAt,
  type State,
  type Wiring,
} from "../src/index.js";
import { wiring } from "./helpers.js";

/** Small machines of one module and the devices under test, and how they are measured. */
export const on: State = { key: "on", unplugged: [] };
export const off: State = { key: "off", unplugged: [] };
export const running: State = { key: "running", unplugged: [] };

export const faultOn = (w: Wiring, id: string): FaultAt["fault"] => findFault(generateFaults(w), id)!.fault;
export const rig = (w: Wiring, fault?: string, severity = NaN): Rig =>
  new Rig(w, fault === undefined ? [] : [{ fault: faultOn(w, fault), severity }]);
export const volt = (r: Rig, state: State, red: string, black?: string): number =>
  readVolts(r, state, red, black).value;

/** A connector with cavities 1 to n. */
export const plug = (id: string, n: number) => ({ id, cavities: Array.from({ length: n }, (_, i) => String(i + 1)) });

/** A module with the pins given and the devices that go on them, wired pin to pin. */
export function bench(pins: object[], devices: object[], wires: [string, string][], more: object = {}): Wiring {
  const used = new Map<string, number>();
  for (const [, n, c] of JSON.stringify([pins, devices]).matchAll(/"([A-Z]\w*):(\d+)"/g))
    used.set(n!, Math.max(used.get(n!) ?? 0, Number(c)));
  return wiring({
    connectors: [...used].map(([id, n]) => plug(id, n)),
    devices: [
      { kind: "battery", id: "BAT" },
      { kind: "ground", id: "G1" },
      ...(pins.length ? [{ kind: "module", id: "A1", pins }] : []),
      ...devices,
    ],
    wires: wires.map(([from, to]) => ({ from, to, mm2: 2.5 })),
    ...more,
  });
}

/** A reading of volts against battery negative, key on. */
export const voltsAt = (point: string, value: number, unplugged: string[] = []): Entry => ({
  type: "reading",
  at: "2026-11-24T10:00:00Z",
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged },
});
