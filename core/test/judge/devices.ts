import type { Device, KeyState, ModulePin, Wiring } from "../../src/index.js";
import type { Netlist } from "./netlist.js";

/**
 * What devices are made of, in ngspice: written from device physics (data-sheet structure, common practice, no source;
 * bus levels ISO 11898-2 and ISO 17987, values from memory), never through the product's compiler. What differs from
 * maker to maker is drawn anew for every machine.
 */
export interface Draw {
  /** evenly between two values, the same each time for one name */
  even(name: string, low: number, high: number): number;
  /** evenly on a logarithmic scale */
  log(name: string, low: number, high: number): number;
  chance(name: string, p: number): boolean;
}

/** How the machine stands while one value is taken. */
export interface Moment {
  readonly key: KeyState;
  /** pulsed drivers are in the driven part of their period */
  readonly driven: boolean;
  /** the node that holds its bus dominant, if one does */
  readonly talker: string | undefined;
  /** steel stands at the tip of speed sensors */
  readonly steel: boolean;
  /** instant of an alternating signal, −1 to 1 */
  readonly wave: number;
  readonly stimulus: Readonly<Record<string, number>>;
}
/** What is wrong inside a device. `at` is the pin meant, where there are several. */
export interface Inside {
  readonly device: string;
  readonly mode:
    | "dead"
    | "stuckHigh"
    | "biased"
    | "open"
    | "aged"
    | "shortSupplyGround"
    | "shortSignalGround"
    | "shortSignalSupply"
    | "shortInside"
    | "silent"
    | "referenceDead"
    | "inputShort"
    | "driverDead"
    | "driverStuck"
    | "coilOpen"
    | "contactBurnt";
  readonly ohm: number;
  readonly at?: string;
}
export interface Context {
  readonly net: Netlist;
  readonly wiring: Wiring;
  readonly draw: Draw;
  readonly moment: Moment;
  readonly inside: Inside | undefined;
  /** relays that pull */
  readonly pulling: ReadonlySet<string>;
}

const pin = (at: string) => `${at}#`;
const tanh = (x: string) => `tanh(${x})`;
/** A switch of an expression: 0 below `at`, 1 above, over a tenth of a volt. */
const above = (volts: string, at: number) => `(0.5*(1+tanh((${volts}-${at})*8)))`;

export function addDevice(c: Context, d: Device): void {
  const { net, draw, moment } = c;
  const bad = c.inside?.device === d.id ? c.inside : undefined;
  const is = (mode: Inside["mode"]) => bad?.mode === mode;
  const short = (mode: Inside["mode"], a: string, b: string) => {
    if (is(mode)) net.resistor(a, b, bad!.ohm);
  };
  switch (d.kind) {
    case "module":
      addModule(c, d, bad);
      return;
    case "threeWireSensor": {
      const [s, g, o] = [pin(d.pins.supply), pin(d.pins.ground), pin(d.pins.signal)];
      addActiveSensor(c, d.id, s, g, o, d.restShare ?? [0.1, 0.6], bad);
      short("shortSupplyGround", s, g);
      short("shortSignalGround", o, g);
      short("shortSignalSupply", o, s);
      return;
    }
    case "potentiometer": {
      const [s, g, o] = [pin(d.pins.supply), pin(d.pins.ground), pin(d.pins.signal)];
      const track = draw.log(`${d.id} track`, 1500, 9000);
      const share = moment.stimulus[d.id] ?? draw.even(`${d.id} rest`, ...(d.restShare ?? [0.1, 0.3]));
      const wiper = `${d.id} wiper`;
      net.resistor(s, wiper, track * (1 - share));
      net.resistor(wiper, g, track * share);
      net.resistor(wiper, o, is("open") ? 1e12 : draw.log(`${d.id} wiper ohm`, 50, 1000));
      short("shortSupplyGround", s, g);
      short("shortSignalGround", o, g);
      short("shortSignalSupply", o, s);
      return;
    }
    case "thermistor": {
      const [o, g] = [pin(d.pins.signal), pin(d.pins.ground)];
      const celsius = moment.stimulus[d.id] ?? draw.even(`${d.id} rest`, ...(d.restCelsius ?? [0, 60]));
      const ohm25 = d.ohm25 ?? draw.log(`${d.id} ohm25`, 2000, 3000);
      const beta = d.betaKelvin ?? draw.even(`${d.id} beta`, 3300, 3600);
      const ohm = ohm25 * Math.exp(beta * (1 / (celsius + 273.15) - 1 / 298.15));
      net.resistor(o, g, is("open") ? 1e12 : ohm * (is("biased") ? bad!.ohm : 1));
      short("shortSignalGround", o, g);
      return;
    }
    case "hall": {
      const [s, g, o] = [pin(d.pins.supply), pin(d.pins.ground), pin(d.pins.signal)];
      const die = `${d.id} die`;
      net.diode(s, die); // reverse protection
      sink(net, die, g, draw.even(`${d.id} ampere`, 0.004, 0.012), draw.log(`${d.id} leak`, 5e3, 5e5));
      const on = moment.steel && !is("dead") ? 1 : 0;
      const enabled = above(net.volts(die, g), draw.even(`${d.id} starts`, 2.2, 3.6));
      net.current(o, g, `${enabled}*${on}*${net.volts(o, g)}/${draw.even(`${d.id} transistor`, 15, 40)}`);
      net.diode(g, o);
      short("shortSupplyGround", s, g);
      short("shortSignalGround", o, g);
      short("shortSignalSupply", o, s);
      return;
    }
    case "coilSensor": {
      const [h, l] = [pin(d.pins.high), pin(d.pins.low)];
      const turning = moment.key === "cranking" || moment.key === "running";
      const volt = turning && !is("dead") ? draw.even(`${d.id} volt`, 1.5, 4) * moment.wave : 0;
      net.source(`${d.id} emf`, l, volt);
      net.resistor(h, `${d.id} emf`, is("open") ? 1e12 : (d.ohm ?? draw.log(`${d.id} ohm`, 400, 1500)));
      short("shortInside", h, l);
      return;
    }
    case "currentLoop": {
      const [s, o] = [pin(d.pins.supply), pin(d.pins.signal)];
      const rest = d.restMilliampere ?? [4, 12];
      const ampere = (moment.stimulus[d.id] ?? draw.even(`${d.id} rest`, ...rest)) / 1000;
      const across = net.volts(s, o);
      if (!is("open"))
        net.current(s, o, `${(is("biased") ? bad!.ohm : 1) * ampere}*${tanh(`${across}/1.5`)}*(${across}>0)`);
      short("shortSignalSupply", o, s);
      return;
    }
    case "smartSensor": {
      const p = d.pins;
      const [s, g] = [pin(p.supply), pin(p.ground)];
      const nominal = c.wiring.nominalVolt;
      const ampere = d.supplyAmpere ?? draw.log(`${d.id} ampere`, 0.04, 0.15);
      sink(net, s, g, ampere, draw.log(`${d.id} leak`, 2e3, 1e5));
      const enabled = above(net.volts(s, g), draw.even(`${d.id} starts`, 4.5, nominal === 24 ? 9 : 6.5));
      const speaks = moment.talker === d.id && !is("silent");
      if (p.busHigh && p.busLow) {
        addTwoWireNode(c, d.id, pin(p.busHigh), pin(p.busLow), g, enabled, speaks);
        if (d.terminated) net.resistor(pin(p.busHigh), pin(p.busLow), 120);
      }
      if (p.busLine) addSingleWireNode(c, d.id, pin(p.busLine), s, g, enabled, speaks, false);
      short("shortSupplyGround", s, g);
      if (p.busHigh && p.busLow) short("shortInside", pin(p.busHigh), pin(p.busLow));
      return;
    }
    case "terminator":
      net.resistor(pin(d.pins.busHigh), pin(d.pins.busLow), is("open") ? 1e12 : 120);
      return;
    case "lamp":
    case "solenoid":
    case "heater": {
      const [f, g] = [pin(d.pins.feed), pin(d.pins.ground)];
      const scale = (c.wiring.nominalVolt / 12) ** 2;
      const typed = "ohm" in d ? d.ohm : undefined;
      const ohm = typed ?? scale * draw.log(`${d.id} ohm`, OHM_RANGE[d.kind][0], OHM_RANGE[d.kind][1]);
      net.resistor(f, g, is("open") ? 1e12 : is("aged") ? bad!.ohm : ohm);
      short("shortInside", f, g);
      return;
    }
    case "relay": {
      const coil = (c.wiring.nominalVolt / 12) ** 2 * draw.log(`${d.id} coil`, 70, 120);
      net.resistor(pin(d.pins.coilHigh), pin(d.pins.coilLow), is("coilOpen") ? 1e12 : coil);
      const contact = draw.log(`${d.id} contact`, 0.002, 0.03) + (is("contactBurnt") ? bad!.ohm : 0);
      const pulls = c.pulling.has(d.id);
      if (d.pins.working) net.resistor(pin(d.pins.common), pin(d.pins.working), pulls ? contact : 1e12);
      if (d.pins.resting) net.resistor(pin(d.pins.common), pin(d.pins.resting), pulls ? 1e12 : contact);
      return;
    }
    default:
      return;
  }
}
/** On a 12 V machine, ohm; four times that on 24 V. */
const OHM_RANGE = { lamp: [10, 40], solenoid: [8, 20], heater: [4, 14] } as const;

/** A part that takes a constant current once it has a volt, and leaks below. */
function sink(net: Netlist, a: string, b: string, ampere: number, leakOhm: number): void {
  const v = net.volts(a, b);
  net.current(a, b, `${ampere}*${tanh(`max(0,${v}-0.7)/0.8`)}`);
  net.resistor(a, b, leakOhm);
}

/** A ratiometric sensor: a die between supply and ground, an output stage, and the diodes that every chip has. */
function addActiveSensor(
  { net, draw, moment }: Context,
  id: string,
  supply: string,
  ground: string,
  output: string,
  rest: readonly [number, number],
  bad: Inside | undefined,
): void {
  const share = moment.stimulus[id] ?? draw.even(`${id} rest`, rest[0], rest[1]);
  sink(net, supply, ground, draw.even(`${id} ampere`, 0.004, 0.012), draw.log(`${id} leak`, 2e3, 1e6));
  const wanted = bad?.mode === "stuckHigh" ? 0.97 : share + (bad?.mode === "biased" ? bad.ohm : 0);
  const dead = bad?.mode === "dead" ? 0 : 1;
  const enabled = above(net.volts(supply, ground), draw.even(`${id} starts`, 2.4, 4));
  const ohm = draw.log(`${id} output ohm`, 40, 400);
  const most = draw.log(`${id} output ampere`, 0.001, 0.006);
  const off = `(${net.volts(output, ground)}-${wanted}*${net.volts(supply, ground)})`;
  net.current(output, ground, `${dead}*${enabled}*${most}*${tanh(`${off}/${(ohm * most).toPrecision(6)}`)}`);
  net.diode(output, supply);
  if (draw.chance(`${id} ground diode`, 0.7)) net.diode(ground, output);
}

/** Recessive bias and a dominant driver; without power all of it lets go of the lines (ISO 11898-2). */
function addTwoWireNode(
  { net, draw }: Context,
  id: string,
  high: string,
  low: string,
  ground: string,
  enabled: string,
  speaks: boolean,
): void {
  const bias = draw.log(`${id} bias`, 20e3, 50e3);
  for (const line of [high, low])
    net.current(line, ground, `${enabled}*(${net.volts(line, ground)}-2.5)/${bias.toPrecision(6)}`);
  for (const line of [high, low]) net.resistor(line, ground, draw.log(`${id} bus leak`, 1e6, 1e7));
  if (!speaks) return;
  const ohm = draw.even(`${id} driver`, 20, 40);
  net.current(ground, high, `${enabled}*min(0.1,max(0,4.3-${net.volts(high, ground)})/${ohm})`);
  net.current(low, ground, `${enabled}*min(0.1,max(0,${net.volts(low, ground)}-0.7)/${ohm})`);
}

/** A pull-up behind a diode and a transistor to ground. */
function addSingleWireNode(
  { net, draw }: Context,
  id: string,
  line: string,
  supply: string,
  ground: string,
  enabled: string,
  speaks: boolean,
  commander: boolean,
): void {
  const inner = `${id} pull`;
  net.diode(supply, inner);
  net.resistor(inner, line, commander ? 1000 : draw.even(`${id} pull`, 20e3, 60e3));
  net.diode(ground, line);
  if (speaks) net.current(line, ground, `${enabled}*max(0,${net.volts(line, ground)}-0.2)/30`);
}

type Module = Extract<Device, { kind: "module" }>;
export const innerGroundOf = (id: string) => `${id} ground`;
export const inputOf = (at: string) => `${at} input`;
const railOf = (id: string) => `${id} rail`;
export const supplyOf = (id: string) => `${id} supply`;

function addModule(c: Context, d: Module, bad: Inside | undefined): void {
  const { net, draw, moment, wiring } = c;
  const ground = innerGroundOf(d.id);
  const supply = supplyOf(d.id);
  const nominal = wiring.nominalVolt;
  const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  const of = (role: ModulePin["role"]) => d.pins.filter((p) => p.role === role);
  for (const p of of("ground")) {
    net.resistor(pin(p.at), ground, draw.log(`${p.at} inside`, 0.002, 0.03));
    if (!wired.has(p.at)) net.resistor(p.at, "0", 0.005);
  }
  if (of("ground").length === 0) net.resistor(ground, "0", 0.01);
  const supplies = of("supply");
  for (const p of supplies) {
    net.diode(pin(p.at), `${p.at} protected`);
    net.resistor(`${p.at} protected`, supply, 0.05);
    // the diode is bridged by the transistor that makes it nearly lossless
    net.resistor(pin(p.at), supply, draw.log(`${p.at} pass`, 0.02, 0.1));
  }
  const ampere = draw.log(`${d.id} ampere`, 0.1, 0.5);
  sink(net, supply, ground, ampere, 2000);
  const isOn = moment.key === "off" || bad?.mode === "dead" ? 0 : 1;
  const on = `${d.id} on`;
  net.voltage(on, "0", `${isOn}*${above(net.volts(supply, ground), draw.even(`${d.id} starts`, 5, 0.5 * nominal))}`);
  const rail = railOf(d.id);
  regulator(net, rail, ground, net.volts(on), 5, 0.2, 0.3);
  net.resistor(rail, ground, draw.log(`${d.id} logic`, 300, 3000));
  net.diode(rail, supply);
  for (const p of d.pins) addModulePin(c, d, p, bad?.at === p.at ? bad : undefined, on);
}

/** A regulator that gives up to a current and takes none. */
function regulator(net: Netlist, at: string, ground: string, on: string, volt: number, ampere: number, ohm: number) {
  const short = `(${volt}*${on}-${net.volts(at, ground)})`;
  net.current(ground, at, `${on}*${ampere}*${tanh(`max(0,${short})/${(ampere * ohm).toPrecision(6)}`)}`);
}

function addModulePin(c: Context, d: Module, p: ModulePin, bad: Inside | undefined, on: string): void {
  const { net, draw, moment } = c;
  const at = pin(p.at);
  const ground = innerGroundOf(d.id);
  const rail = railOf(d.id);
  switch (p.role) {
    case "sensorGround":
      net.resistor(at, ground, draw.log(`${p.at} inside`, 0.005, 0.15));
      return;
    case "reference": {
      const volt = (p.volt ?? 5) * draw.even(`${p.at} volt`, 0.99, 1.01);
      const limit = p.limitAmpere ?? draw.log(`${p.at} limit`, 0.04, 0.25);
      const folds = draw.chance(`${p.at} folds`, 0.4) ? `*(0.3+0.7*min(1,max(0,${net.volts(at, ground)}/2)))` : "";
      const enabled = bad?.mode === "referenceDead" ? "0" : net.volts(on);
      const short = `(${volt.toPrecision(6)}*${enabled}-${net.volts(at, ground)})`;
      const ohm = draw.log(`${p.at} drop`, 0.015, 0.05) / limit; // what it loses at its limit
      net.current(
        ground,
        at,
        `${enabled}*${limit.toPrecision(6)}${folds}*${tanh(`max(0,${short})/${(limit * ohm).toPrecision(6)}`)}`,
      );
      net.resistor(at, ground, draw.log(`${p.at} divider`, 15e3, 100e3));
      net.diode(at, supplyOf(d.id));
      return;
    }
    case "input": {
      const inner = inputOf(p.at);
      net.resistor(at, inner, draw.log(`${p.at} series`, 1e3, 10e3));
      net.diode(inner, rail);
      net.diode(ground, inner);
      net.resistor(inner, ground, 5e6);
      // a direction that nobody drew is often the other one on a ratiometric input
      const isOther =
        p.pull === "down" && Boolean(c.wiring.guesses?.includes(p.at)) && draw.chance(`${p.at} other`, 0.3);
      const pull = isOther ? "up" : p.pull;
      const range = PULL_OHM[isOther ? "otherUp" : p.pull];
      const ohm = p.pullOhm ?? draw.log(`${p.at} pull`, range[0], range[1]);
      if (pull === "up") {
        if (p.pullVolt === undefined || p.pullVolt <= 5.5) net.resistor(rail, at, ohm);
        else {
          net.diode(supplyOf(d.id), `${p.at} pull`);
          net.resistor(`${p.at} pull`, at, ohm);
        }
      } else net.resistor(at, ground, ohm);
      if (bad?.mode === "inputShort") net.resistor(at, ground, bad.ohm);
      return;
    }
    case "lowSide": {
      const isOn = bad?.mode === "driverStuck" || (isActive(p.activeIn, moment) && driven(p.duty, moment));
      net.diode(ground, at);
      if (isOn && bad?.mode !== "driverDead") {
        const ohm = draw.log(`${p.at} switch`, 0.05, 0.25);
        net.current(at, ground, `${net.volts(on)}*8*${tanh(`${net.volts(at, ground)}/${(8 * ohm).toPrecision(6)}`)}`);
      }
      // the current by which an open load is told while the driver is off
      if (draw.chance(`${p.at} watches`, 0.6)) {
        const watch = draw.even(`${p.at} watch volt`, 2.2, 3.5);
        const ohms = draw.log(`${p.at} watch ohm`, 30e3, 200e3);
        net.current(
          at,
          ground,
          `${net.volts(on)}*(${net.volts(at, ground)}-${watch.toPrecision(5)})/${ohms.toPrecision(6)}`,
        );
      } else net.resistor(at, ground, draw.log(`${p.at} off`, 200e3, 5e6));
      return;
    }
    case "highSide": {
      const isOn = bad?.mode === "driverStuck" || (isActive(p.activeIn, moment) && driven(p.duty, moment));
      const supply = supplyOf(d.id);
      net.diode(at, supply);
      if (isOn && bad?.mode !== "driverDead") {
        const most = p.limitAmpere ?? draw.log(`${p.at} most`, 0.8, 4);
        const ohm = draw.log(`${p.at} switch`, 0.03, 0.15);
        net.current(
          supply,
          at,
          `${net.volts(on)}*${most.toPrecision(6)}*${tanh(`${net.volts(supply, at)}/${(most * ohm).toPrecision(6)}`)}`,
        );
      }
      net.resistor(at, ground, draw.log(`${p.at} off`, 50e3, 2e6));
      return;
    }
    case "busHigh": {
      const low = d.pins.find((o) => o.role === "busLow" && (o.bus ?? "") === (p.bus ?? ""));
      if (!low) return;
      addTwoWireNode(c, `${d.id} ${p.at}`, at, pin(low.at), ground, net.volts(on), moment.talker === d.id);
      if (p.terminated || (low.role === "busLow" && low.terminated)) net.resistor(at, pin(low.at), 120);
      return;
    }
    case "busLine":
      addSingleWireNode(
        c,
        `${d.id} ${p.at}`,
        at,
        supplyOf(d.id),
        ground,
        net.volts(on),
        moment.talker === d.id,
        p.commander,
      );
      return;
    default:
      return;
  }
}
const PULL_OHM = { up: [1.5e3, 3e3], down: [47e3, 220e3], none: [0.8e6, 2e6], otherUp: [22e3, 220e3] } as const;
const isActive = (keys: readonly KeyState[] | undefined, m: Moment) => (keys ?? ["running"]).includes(m.key);
const driven = (duty: number | undefined, m: Moment) => (duty ?? 1) >= 1 || m.driven;
