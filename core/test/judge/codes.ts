import { pinBehind, type Code, type KeyState, type Monitor } from "../../src/index.js";
import { innerGroundOf, inputOf, supplyOf, type Moment } from "./devices.js";
import type { HiddenMachine } from "./hiddenMachine.js";

type Volts = ReadonlyMap<string, number>;
/** A module judges at its converter: behind the series resistor of an input. */
const inside = (volts: Volts, module: string, at: string): number => {
  const v = volts.get(inputOf(at)) ?? volts.get(pinBehind(at)) ?? 0;
  return v - (volts.get(innerGroundOf(module)) ?? 0);
};
const ACTIVITY_VOLT = 0.6;

/** What a code is about, where only its family and part are known: judged as most modules do (common practice). */
function monitorOf(machine: HiddenMachine, code: Code): Monitor | undefined {
  return code.monitor ?? machine.conditions.get(code.id);
}

/** The codes that the modules set by themselves, from the volts of the simulator, in document order. */
export function codesOf(machine: HiddenMachine): { module: string; code: string }[] {
  const looks = new Map<KeyState, readonly Volts[]>();
  const at = (key: KeyState) => {
    let list = looks.get(key);
    if (!list) looks.set(key, (list = machine.at({ key, unplugged: [] }, LOOKS)));
    return list;
  };
  return machine.wiring.codes
    .filter((code) => {
      const monitor = monitorOf(machine, code);
      if (!monitor) return false;
      return keysOf(monitor).some((key) => sets(machine, code, monitor, key, at(key)));
    })
    .map((code) => ({ module: code.module, code: code.id }));
}
/** At rest; with and without steel; at both ends of a wave. */
const LOOKS: readonly Partial<Moment>[] = [{}, { steel: true, wave: 1 }, { steel: false, wave: -1 }];

function keysOf(m: Monitor): readonly KeyState[] {
  if (m.when) return m.when;
  return m.type === "noActivity" ? ["cranking"] : m.type === "current" ? ["running"] : ["on", "running"];
}

function sets(machine: HiddenMachine, code: Code, m: Monitor, key: KeyState, looks: readonly Volts[]): boolean {
  const [rest, first, second] = looks as [Volts, Volts, Volts];
  const { module } = code;
  if ((rest.get(`${module} on`) ?? 0) < 0.5) return false;
  const supply = (rest.get(supplyOf(module)) ?? 0) - (rest.get(innerGroundOf(module)) ?? 0);
  const [low, high] = m.supply ?? (machine.wiring.nominalVolt === 24 ? [18, 32] : [9, 16]);
  if (supply < low || supply > high) return false;
  switch (m.type) {
    case "below":
      return inside(rest, module, m.at) < m.volt;
    case "above":
      return inside(rest, module, m.at) > m.volt;
    case "outside":
      return inside(rest, module, m.at) < m.low || inside(rest, module, m.at) > m.high;
    case "noActivity":
      return Math.abs(inside(first, module, m.at) - inside(second, module, m.at)) < ACTIVITY_VOLT;
    case "disagree":
      return Math.abs(inside(rest, module, m.other) - m.ratio * inside(rest, module, m.at)) > m.volt;
    case "current": {
      const ampere = Math.abs(machine.driverAmpere(m.at, key));
      return ampere < (m.low ?? -1) || ampere > (m.high ?? Infinity);
    }
    case "silent":
      return !machine.hears(module, m.node, key);
  }
}
