import { DEFAULTS } from "../defaults.js";
import type { Code, KeyState, Monitor, Wiring } from "../format/wiring.js";
import { innerGround } from "../network/compileModule.js";
import type { Circuit } from "../network/element.js";
import { elementAmpere, healthyVolt, nodeVolt } from "../network/observe.js";
import type { Solver } from "../network/solver.js";
import { findNets } from "../wiring/nets.js";
import { pinBehind } from "../wiring/points.js";
import { broadMonitor } from "./family.js";

/** The set condition of one code, bound to the nodes of a circuit. */
export interface BoundMonitor {
  readonly code: Code;
  /** place in `wiring.codes` */
  readonly index: number;
  readonly monitor: Monitor;
  /** made from the code's family, since its set condition is not known */
  readonly broad: boolean;
  readonly pin: number;
  readonly innerGround: number;
  /** the module's */
  readonly gate: number;
  /** supply pins of the module, and the volts within which the monitor runs */
  readonly supplies: readonly number[];
  readonly enable: readonly [number, number];
  /** the key state in which it is judged */
  readonly key: KeyState;
  /**
   * disagree: the other pin and its ground; current: the driver; silent: the node's gate and the module's own bus pins
   */
  readonly other?: { readonly pin: number; readonly innerGround: number };
  readonly driver?: number;
  readonly node?: {
    readonly gate: number;
    readonly lines: readonly { readonly here: number }[];
    readonly twoWire: boolean;
  };
}

/** A signal that moves less than this between tooth and gap counts as no activity, volt. */
const ACTIVITY_VOLT = 1;
/** A switched input below this is low, volt (common practice, no source). */
const STUCK_LOW_BELOW_VOLT = 1.5;
/** A two-wire bus at rest stands no further apart than this (ISO 11898-2, value from memory), volt. */
const QUIET_VOLT = 0.5;
const JUDGED_FIRST: readonly KeyState[] = ["on", "cranking", "running"];

/** Binds every code whose set condition, or at least its family and subject, is known. */
export function bindMonitors(wiring: Wiring, circuit: Circuit): BoundMonitor[] {
  const nets = findNets(wiring);
  return wiring.codes.flatMap((code, index) => {
    const monitor = code.monitor ?? broadMonitor(wiring, nets, code);
    return monitor ? bind(wiring, circuit, code, index, monitor) : [];
  });
}

function bind(wiring: Wiring, circuit: Circuit, code: Code, index: number, monitor: Monitor): BoundMonitor[] {
  const when =
    monitor.when ??
    (monitor.type === "noActivity"
      ? (["cranking"] as const)
      : monitor.type === "current"
        ? (["running", "on"] as const)
        : (["on", "running"] as const));
  const key =
    monitor.type === "current" && monitor.when === undefined
      ? "running"
      : JUDGED_FIRST.find((k) => (when as readonly KeyState[]).includes(k));
  const module = wiring.devices.find((d) => d.id === code.module);
  const gate = circuit.gateOf.get(code.module);
  if (!key || gate === undefined || module?.kind !== "module") return [];
  const node = (at: string) => circuit.nodeOf.get(pinBehind(at));
  const domainOf = (at: string) =>
    circuit.nodeOf.get(innerGround(code.module, module.pins.find((p) => p.at === at)?.domain)) ?? 0;
  const supplies = module.pins.flatMap((p) => (p.role === "supply" ? [node(p.at) ?? 0] : []));
  const enable = monitor.supply ?? (wiring.nominalVolt === 24 ? DEFAULTS.codes.enable24 : DEFAULTS.codes.enable12);
  const base = { code, index, monitor, broad: code.monitor === undefined, gate, supplies, enable, key };
  if (monitor.type === "silent") {
    const bound = bindNode(wiring, circuit, module, monitor.node);
    return bound
      ? [{ ...base, pin: 0, innerGround: circuit.nodeOf.get(innerGround(code.module, undefined)) ?? 0, node: bound }]
      : [];
  }
  const pin = node(monitor.at);
  if (pin === undefined) return [];
  const own = { ...base, pin, innerGround: domainOf(monitor.at) };
  if (monitor.type === "disagree") {
    const other = node(monitor.other);
    return other === undefined ? [] : [{ ...own, other: { pin: other, innerGround: domainOf(monitor.other) } }];
  }
  if (monitor.type === "current") {
    const driver = circuit.elementOf.get(`driver ${monitor.at}`);
    return driver === undefined ? [] : [{ ...own, driver }];
  }
  return [own];
}

type BusPins = {
  readonly busHigh?: string | undefined;
  readonly busLow?: string | undefined;
  readonly busLine?: string | undefined;
};
function busPins(wiring: Wiring, id: string): BusPins {
  const d = wiring.devices.find((x) => x.id === id);
  if (d?.kind === "smartSensor") return d.pins;
  if (d?.kind !== "module") return {};
  const of = (role: string) => d.pins.find((p) => p.role === role)?.at;
  return { busHigh: of("busHigh"), busLow: of("busLow"), busLine: of("busLine") };
}

function bindNode(wiring: Wiring, circuit: Circuit, module: { id: string }, id: string): BoundMonitor["node"] {
  const here = busPins(wiring, module.id);
  const there = busPins(wiring, id);
  const gate = circuit.gateOf.get(id);
  const twoWire = Boolean(here.busHigh && there.busHigh && here.busLow && there.busLow);
  const names: readonly (keyof BusPins)[] = twoWire ? ["busHigh", "busLow"] : ["busLine"];
  const lines = names.flatMap((n) => {
    const a = circuit.nodeOf.get(pinBehind(here[n] ?? ""));
    return a === undefined || !there[n] ? [] : [{ here: a }];
  });
  return gate === undefined || lines.length === 0 ? undefined : { gate, lines, twoWire };
}

/** The voltage a module sees at a pin, against its own ground; NaN where the pin floats. */
export function moduleSideVolt(s: Solver, m: Pick<BoundMonitor, "pin" | "innerGround">): number {
  return nodeVolt(s, m.pin) - nodeVolt(s, m.innerGround);
}

/** Whether the monitor runs: a sleeping module judges nothing, and none judges while its supply is out of bounds. */
export function runs(s: Solver, m: BoundMonitor): boolean {
  return s.operating.awake[m.gate] !== 0 && isEnabled(s, m, nodeVolt);
}
const runsHealthy = (s: Solver, m: BoundMonitor) =>
  s.operating.awakeHealthy[m.gate] !== 0 && isEnabled(s, m, healthyVolt);
function isEnabled(s: Solver, m: BoundMonitor, volt: typeof nodeVolt): boolean {
  if (m.supplies.length === 0) return true;
  const ground = volt(s, m.innerGround);
  let most = -Infinity;
  for (const p of m.supplies) most = Math.max(most, volt(s, p) - ground);
  return most >= m.enable[0] && most <= m.enable[1];
}

/** Operating points a monitor is judged at. Most need the one at rest. */
export type Moments = "rest" | "steel" | "driven" | "heard";
export const momentsOf = (m: BoundMonitor): Moments =>
  m.monitor.type === "noActivity"
    ? "steel"
    : m.monitor.type === "current"
      ? "driven"
      : m.monitor.type === "silent"
        ? "heard"
        : "rest";

/** Whether a code judged at rest sets, by the mean volts its module sees. NaN (a pin that floats) sets nothing. */
export function setAtRest(monitor: Monitor, volt: number, other: number): boolean {
  switch (monitor.type) {
    case "below":
      return volt < monitor.volt;
    case "above":
      return volt > monitor.volt;
    case "outside":
      return volt < monitor.low || volt > monitor.high;
    case "disagree":
      return Math.abs(other - monitor.ratio * volt) > monitor.volt;
    default:
      return false;
  }
}

/** As `setAtRest`, at the operating point just settled, with its enable conditions. */
export function isSet(s: Solver, m: BoundMonitor): boolean {
  return (
    momentsOf(m) === "rest" &&
    runs(s, m) &&
    setAtRest(m.monitor, moduleSideVolt(s, m), m.other ? moduleSideVolt(s, m.other) : 0)
  );
}

/**
 * For a noActivity monitor: whether the module-side volts with and without steel at the tip are too much alike, and
 * where it asks for a level, stand there.
 */
export function lacksActivity(
  { monitor }: Pick<BoundMonitor, "monitor">,
  withSteel: number,
  withoutSteel: number,
  running: boolean,
): boolean {
  if (!running || Math.abs(withSteel - withoutSteel) >= ACTIVITY_VOLT) return false;
  const stuck = monitor.type === "noActivity" ? monitor.stuck : undefined;
  return stuck === undefined || (stuck === "low") === withSteel < STUCK_LOW_BELOW_VOLT;
}

/** For current: whether the driver carries too little or too much, at a look at the driven part of the period. */
export function currentFails(s: Solver, m: BoundMonitor): boolean {
  if (m.monitor.type !== "current" || !runs(s, m)) return false;
  if (s.conditions.circuit.elements[m.driver ?? 0]!.duty === 0) return false; // not driven in this key state
  const ampere = Math.abs(elementAmpere(s, m.driver ?? 0));
  return ampere < (m.monitor.low ?? -1) || ampere > (m.monitor.high ?? Infinity);
}

/**
 * How far a fault takes a monitor from where it stands on the healthy machine, at the operating point just settled: 0
 * not at all, 1 as far as it takes to set its code, whether that way or away from it. Where a bus is listened to, or
 * activity looked for, the furthest that anything it watches moves, in volts. Infinity where the monitor no longer
 * runs, or runs only now.
 */
export function shiftOf(s: Solver, m: BoundMonitor): number {
  const { awake, awakeHealthy, mode, modeHealthy } = s.operating;
  const woke = (gate: number) => awake[gate] !== awakeHealthy[gate];
  if (woke(m.gate) || (m.node && woke(m.node.gate))) return Infinity;
  if (runs(s, m) !== runsHealthy(s, m)) return Infinity;
  switch (momentsOf(m)) {
    case "rest":
      return towards(
        sideVolt(healthyVolt, s, m),
        moduleSideVolt(s, m),
        (v, other) => marginAtRest(m.monitor, v, other),
        [m.other ? sideVolt(healthyVolt, s, m.other) : 0, m.other ? moduleSideVolt(s, m.other) : 0],
      );
    case "driven": {
      const driver = m.driver!;
      if (mode[driver] !== modeHealthy[driver] || s.operating.dead[driver] === 1) return Infinity;
      return towards(elementAmpere(s, driver, true), elementAmpere(s, driver), (i) => marginOfCurrent(m.monitor, i));
    }
    default:
      return Math.max(...watchedBy(m).map((node) => moved(s, node)));
  }
}
const watchedBy = (m: BoundMonitor) => [
  m.pin,
  m.innerGround,
  ...m.supplies,
  ...(m.node?.lines ?? []).map((l) => l.here),
];
/** How far a value moved, as a part of the way to being set. Away counts too: another part of its kind may go there. */
function towards(
  healthy: number,
  now: number,
  margin: (x: number, other: number) => number,
  [otherHealthy, otherNow]: readonly [number, number] = [0, 0],
): number {
  const before = margin(healthy, otherHealthy);
  const after = margin(now, otherNow);
  if (Number.isNaN(before) !== Number.isNaN(after)) return Infinity;
  if (Number.isNaN(before)) return 0;
  return Math.abs(before - after) / (before > 0 ? before : 1);
}
/** How far a value is from setting a code, volt; NaN where the pin floats, which sets nothing. */
function marginAtRest(monitor: Monitor, volt: number, other: number): number {
  switch (monitor.type) {
    case "below":
      return volt - monitor.volt;
    case "above":
      return monitor.volt - volt;
    case "outside":
      return Math.min(volt - monitor.low, monitor.high - volt);
    case "disagree":
      return monitor.volt - Math.abs(other - monitor.ratio * volt);
    default:
      return NaN;
  }
}
function marginOfCurrent(monitor: Monitor, ampere: number): number {
  if (monitor.type !== "current") return NaN;
  const a = Math.abs(ampere);
  return Math.min(a - (monitor.low ?? -1), (monitor.high ?? Infinity) - a);
}
const moved = (s: Solver, node: number) => {
  const before = healthyVolt(s, node);
  const now = nodeVolt(s, node);
  return Number.isNaN(before) || Number.isNaN(now) ? (Object.is(before, now) ? 0 : Infinity) : Math.abs(now - before);
};
const sideVolt = (volt: typeof nodeVolt, s: Solver, m: Pick<BoundMonitor, "pin" | "innerGround">) =>
  volt(s, m.pin) - volt(s, m.innerGround);

/** For silent: whether nothing reaches the module, at a look at which only the node talks. */
export function talkFails(s: Solver, m: BoundMonitor): boolean {
  if (!m.node || !runs(s, m)) return false;
  if (s.operating.awake[m.node.gate] === 0) return true;
  const [first, second] = m.node.lines;
  if (m.node.twoWire) return !(nodeVolt(s, first!.here) - nodeVolt(s, second!.here) >= DEFAULTS.bus.aliveVolt);
  return !(nodeVolt(s, first!.here) - nodeVolt(s, m.innerGround) < 0.4 * supplyOf(s, m));
}

/** For silent: whether the bus looks wrong while no one talks: voltage across the pair, a single wire not pulled up. */
export function quietFails(s: Solver, m: BoundMonitor): boolean {
  if (!m.node || !runs(s, m)) return false;
  const [first, second] = m.node.lines;
  if (m.node.twoWire) return Math.abs(nodeVolt(s, first!.here) - nodeVolt(s, second!.here)) > QUIET_VOLT;
  return nodeVolt(s, first!.here) < 0.6 * supplyOf(s, m);
}
const supplyOf = (s: Solver, m: BoundMonitor) =>
  m.supplies.length ? Math.max(...m.supplies.map((p) => nodeVolt(s, p))) : m.enable[0];
