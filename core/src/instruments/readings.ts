import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { innerGround } from "../network/compileModule.js";
import { elementAmpere, measureOhms, nodeOhm, nodeVolt, ohmBetween } from "../network/observe.js";
import type { Solver } from "../network/solver.js";
import { isTurning } from "../network/state.js";
import { OVERLOAD } from "../units/quantity.js";
import { findNets, type Nets } from "../wiring/nets.js";
import { CHASSIS, connectorOf, devicePins, indexWiring, pinBehind, resolvePlace } from "../wiring/points.js";
import { heldByLeads, OHMS_NEED_BELOW_VOLT } from "./meter.js";
import { Rig } from "./rig.js";

/** What an instrument shows, and what that is worth. `proves` false: it says nothing, for the reasons in `remarks`. */
export interface InstrumentReading<T = number> {
  readonly value: T;
  readonly proves: boolean;
  readonly remarks: readonly Issue[];
}

const shown = <T>(value: T, remarks: readonly Issue[] = [], proves = true): InstrumentReading<T> => ({
  value,
  proves,
  remarks,
});
function node(rig: Rig, point: string, state: State): number {
  const n = rig.node(point, state);
  if (n === undefined) throw new RangeError(`no point "${point}" on this machine`);
  return n;
}
/** mean over the parts of a period */
const mean = (rig: Rig, state: State, read: (phase: number) => number) =>
  rig.phases(state).reduce((sum, p) => sum + p.share * read(p.phase), 0);
const between = (s: Solver, a: number, b: number) => {
  const v = nodeVolt(s, a) - nodeVolt(s, b);
  return Number.isNaN(v) ? 0 : v;
};

/**
 * A 10 MΩ voltmeter between two points, volt; on a pulsed circuit the mean, as a meter on DC shows it.
 * Remarks: `reading.ghost-voltage` where a lamp would make it vanish; `reading.module-asleep`; `reading.battery-low`.
 * @throws RangeError for a point the machine does not have
 */
export function readVolts(rig: Rig, state: State, red: string, black: string = CHASSIS): InstrumentReading {
  const a = node(rig, red, state);
  const b = node(rig, black, state);
  const meter = a === b ? {} : { shunts: [{ a, b, ohm: DEFAULTS.meter.ohm }] };
  const value = mean(rig, state, (phase) => between(rig.settled(state, { phase }, meter), a, b));
  const remarks: Issue[] = [];
  const s = rig.settled(state);
  measureOhms(s);
  const behind = nodeOhm(s, a);
  if (behind > GHOST_OHM && Math.abs(value) > 0.5)
    remarks.push(issue("reading.ghost-voltage", [], { point: red, ohm: Math.round(behind) }));
  const asleep = rig.wiring.devices
    .filter(
      (d) =>
        d.kind === "module" &&
        state.key !== "off" &&
        s.operating.awake[rig.circuit(state).gateOf.get(d.id) ?? -1] === 0,
    )
    .map((d) => d.id);
  if (asleep.length) remarks.push(issue("reading.module-asleep", [], { modules: asleep }));
  const battery = rig.wiring.devices.find((d) => d.kind === "battery");
  const rest = battery ? between(s, node(rig, `${battery.id}:+`, state), node(rig, `${battery.id}:-`, state)) : NaN;
  if (state.key !== "cranking" && rest < SAGGING * rig.wiring.nominalVolt)
    remarks.push(issue("reading.battery-low", [], { volt: rest }));
  return shown(value, remarks);
}
/** A voltage behind more than this is not worth much: a meter shows it, a lamp would not light, ohm. */
const GHOST_OHM = 500_000;
/** A battery below this share of its nominal voltage makes every comparison with a number wrong. */
const SAGGING = 0.93;

/**
 * An ohmmeter between two points, ohm; OL as Infinity. With voltage on the circuit the figure means nothing: remark
 * `reading.live-circuit`, and the value is NaN.
 */
export function readOhms(rig: Rig, state: State, red: string, black: string = CHASSIS): InstrumentReading {
  const a = node(rig, red, state);
  const b = node(rig, black, state);
  const s = rig.settled(state, { phase: lastPhase(rig, state) });
  const live = Math.abs(between(s, a, b)) > OHMS_NEED_BELOW_VOLT;
  if (live || state.key !== "off")
    return shown(NaN, [issue("reading.live-circuit", [], { point: red, volt: between(s, a, b) })], false);
  const ohm = ohmBetween(rig.settled(state, { phase: lastPhase(rig, state) }, heldByLeads(a, b)), a, b);
  return shown(ohm > DEFAULTS.meter.overloadOhm ? OVERLOAD : ohm);
}
const lastPhase = (rig: Rig, state: State) => rig.phases(state).at(-1)!.phase;

/**
 * A continuity beeper: sounds below 30 ohm. It only rules out an open: one strand left still sounds
 * (`reading.beeper-rules-out-open`).
 */
export function readContinuity(
  rig: Rig,
  state: State,
  red: string,
  black: string = CHASSIS,
): InstrumentReading<boolean> {
  const ohms = readOhms(rig, state, red, black);
  if (!ohms.proves) return shown(false, ohms.remarks, false);
  const beeps = ohms.value < DEFAULTS.meter.beeperOhm;
  return shown(beeps, beeps ? [issue("reading.beeper-rules-out-open", [], { ohm: ohms.value })] : []);
}

export type Brightness = "bright" | "dim" | "dark";
export interface LampShown {
  readonly brightness: Brightness;
  readonly volt: number;
  readonly ampere: number;
  readonly pulsing: boolean;
}

/**
 * A test lamp between two points: a filament, a tenth of its resistance when cold.
 * Remarks: `lamp.on-electronics` on a reference, signal, sensor ground or bus line (never to be done);
 * `lamp.too-hungry`
 * where even a healthy circuit could not light it. Neither proves anything.
 * @param watt its rating at the machine's nominal voltage
 */
export function readLamp(
  rig: Rig,
  state: State,
  watt: number,
  red: string,
  black: string = CHASSIS,
): InstrumentReading<LampShown> {
  const remarks: Issue[] = [];
  const nets = findNets(rig.wiring);
  const touched = [red, black].find(
    (p) => p !== CHASSIS && NOT_FOR_LAMPS.has(nets.functionOf(p)) && !isIsolated(rig.wiring, nets, p, state),
  );
  if (touched !== undefined)
    remarks.push(issue("lamp.on-electronics", [], { point: touched, line: nets.functionOf(touched) }));
  const lit = light(rig, state, watt, red, black);
  const healthy = light(new Rig(rig.wiring), state, watt, red, black);
  const unloaded = Math.abs(readVolts(new Rig(rig.wiring), state, red, black).value);
  if (healthy.most < PULLED_DOWN * unloaded && unloaded > 1)
    remarks.push(issue("lamp.too-hungry", [], { watt, ampere: watt / rig.wiring.nominalVolt, volt: healthy.most }));
  const share = lit.most / rig.wiring.nominalVolt;
  const brightness: Brightness =
    share >= DEFAULTS.lampShows.bright ? "bright" : share >= DEFAULTS.lampShows.dark ? "dim" : "dark";
  return shown(
    { brightness, volt: lit.most, ampere: lit.ampere, pulsing: lit.most - lit.least > 0.1 * rig.wiring.nominalVolt },
    remarks,
    remarks.length === 0,
  );
}
/** A lamp that pulls a sound line below this share of its open voltage asks too much of it. Judgement. */
const PULLED_DOWN = 0.8;
/** Whether every part on the copper of a point is unplugged: a lamp then loads nothing but the wire. */
function isIsolated(wiring: Wiring, nets: Nets, point: string, state: State): boolean {
  const net = nets.netOf.get(point);
  return (
    net !== undefined &&
    wiring.devices.every((d) =>
      devicePins(d).every((p) => nets.netOf.get(p.at) !== net || state.unplugged.includes(connectorOf(p.at))),
    )
  );
}
const NOT_FOR_LAMPS: ReadonlySet<string> = new Set(["reference", "signal", "sensorGround", "bus"]);

function light(rig: Rig, state: State, watt: number, red: string, black: string) {
  const with_: State = { ...state, loads: [...(state.loads ?? []), { from: red, to: black, watt }] };
  let most = 0;
  let least = Infinity;
  let ampere = 0;
  for (const p of rig.phases(with_)) {
    const s = rig.settled(with_, { phase: p.phase });
    const element = rig.circuit(with_).elementOf.get(`load at ${red}`)!;
    const v = Math.abs(between(s, node(rig, red, with_), node(rig, black, with_)));
    most = Math.max(most, v);
    least = Math.min(least, v);
    ampere = Math.max(ampere, Math.abs(elementAmpere(s, element)) || 0);
  }
  return { most, least, ampere };
}

/**
 * A clamp around a wire, ampere, in the direction the document writes it; the mean where pulsed.
 * Remark `clamp.below-resolution` where the current is too small for a clamp to show. @throws RangeError for no such
 * wire
 */
export function readClamp(rig: Rig, state: State, wire: string): InstrumentReading {
  const element = rig.circuit(state).elementOf.get(`wire ${wire}`);
  if (element === undefined) throw new RangeError(`no wire "${wire}" on this machine`);
  const ampere = mean(rig, state, (phase) => {
    const i = elementAmpere(rig.settled(state, { phase }), element);
    return Number.isNaN(i) ? 0 : i;
  });
  const small = Math.abs(ampere) < DEFAULTS.meter.clampAmpere;
  return shown(
    ampere,
    small ? [issue("clamp.below-resolution", [], { ampere, least: DEFAULTS.meter.clampAmpere })] : [],
    !small,
  );
}

/** A voltage over time: mean, least and most, volt, and the share of the period above half way between them. */
export interface ScopeShown {
  readonly average: number;
  readonly least: number;
  readonly most: number;
  readonly duty: number;
}

/**
 * A scope between two points, over the parts of a period and, while cranking or running, over steel passing the
 * sensors.
 */
export function readScope(rig: Rig, state: State, red: string, black: string = CHASSIS): InstrumentReading<ScopeShown> {
  const a = node(rig, red, state);
  const b = node(rig, black, state);
  const meter = a === b ? {} : { shunts: [{ a, b, ohm: DEFAULTS.meter.ohm }] };
  const turning = isTurning(state.key);
  const samples = (turning ? [true, false] : [undefined]).flatMap((steel) =>
    rig.phases(state).map((p) => ({
      share: p.share / (turning ? 2 : 1),
      volt: between(rig.settled(state, { steel, phase: p.phase }, meter), a, b),
    })),
  );
  const volts = samples.map((x) => x.volt);
  const least = Math.min(...volts);
  const most = Math.max(...volts);
  const half = (least + most) / 2;
  return shown({
    average: samples.reduce((sum, x) => sum + x.share * x.volt, 0),
    least,
    most,
    duty:
      most - least < 0.05 ? (most > 0.05 ? 1 : 0) : samples.reduce((sum, x) => sum + (x.volt > half ? x.share : 0), 0),
  });
}

/**
 * What the module itself makes of one of its pins, volt against its own ground, as the scan tool shows it.
 * Remark `scan.module-silent` where the module is not awake: then there is no value (NaN).
 * @throws RangeError where no module has this pin
 */
export function readScanTool(rig: Rig, state: State, cavity: string): InstrumentReading {
  const module = rig.wiring.devices.find((d) => d.kind === "module" && d.pins.some((p) => p.at === cavity));
  const pin = module?.kind === "module" ? module.pins.find((p) => p.at === cavity) : undefined;
  if (!module || !pin) throw new RangeError(`no module has a pin at "${cavity}"`);
  const s = rig.settled(state);
  if (s.operating.awake[rig.circuit(state).gateOf.get(module.id)!] === 0)
    return shown(NaN, [issue("scan.module-silent", [], { module: module.id })], false);
  const value = mean(rig, state, (phase) =>
    between(
      rig.settled(state, { phase }),
      node(rig, pinBehind(cavity), state),
      node(rig, innerGround(module.id, pin.domain), state),
    ),
  );
  return shown(value);
}

/** Whether a text names a point of this wiring where a lead can go. */
export const isPoint = (wiring: Wiring, text: string): boolean =>
  text === CHASSIS || resolvePlace(indexWiring(wiring), text).ok;
