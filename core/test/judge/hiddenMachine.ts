import {
  CHASSIS,
  pinBehind,
  wireId,
  type Instrument,
  type KeyState,
  type Monitor,
  type State,
  type Wiring,
} from "../../src/index.js";
import { uniform } from "../../src/prediction/draws.js";
import { addDevice, type Context, type Draw, type Inside, innerGroundOf, type Moment, supplyOf } from "./devices.js";
import { codesOf } from "./codes.js";
import { Netlist } from "./netlist.js";

/** What is hidden: in the harness, by place, or inside a device. */
export interface Hidden {
  /** the one repair, as a verdict names it: "wire W12", "cavity B7:1", "device B7" */
  readonly repair: string;
  readonly mode: string;
  /** put in series with, or cut in: `contact …`, `wire …`, `ground …`, `fuse …`, `switch …` */
  readonly series?: { readonly part: string; readonly ohm: number };
  /** joins two points; "supply" is battery plus */
  readonly shunt?: { readonly a: string; readonly b: string; readonly ohm: number };
  readonly inside?: Inside;
}

export const REST: Moment = { key: "on", driven: true, talker: undefined, steel: false, wave: 0, stimulus: {} };
const BATTERY: Readonly<Record<KeyState, readonly [number, number]>> = {
  off: [12.3, 12.8],
  on: [12.1, 12.6],
  cranking: [9.8, 11],
  running: [13.1, 13.6], // under charge
};
type Volts = ReadonlyMap<string, number>;
/** The two lines part by this when a frame is heard, and by less than that at rest (ISO 11898-2, from memory), volt. */
const HEARD_VOLT = 0.9;
const QUIET_VOLT = 0.5;
const NONE: ReadonlySet<string> = new Set();
const METER_OHM = 10e6;
/** Melts above this share of its rating (ISO 8820-3: 135 %, value from memory). */
const MELTS_AT = 1.35;

/** A machine in ngspice with one hidden fault, and the instruments a technician has. */
export class HiddenMachine {
  private readonly values = new Map<string, number>();
  private readonly random: () => number;
  private readonly noise: () => number;
  readonly melted = new Set<string>();
  private readonly draw: Draw;
  /** shares of a period: of traffic on a bus, by the machine's own draw */
  private readonly traffic: number;

  /** @param conditions when codes really set whose document gives only a family */
  constructor(
    readonly wiring: Wiring,
    readonly hidden: Hidden | undefined,
    private readonly seed: number,
    readonly conditions: ReadonlyMap<string, Monitor> = new Map(),
  ) {
    this.random = uniform(seed * 31 + 7);
    this.noise = uniform(seed * 77 + 5);
    const share = (name: string) => {
      let u = this.values.get(name);
      if (u === undefined) this.values.set(name, (u = this.random()));
      return u;
    };
    this.draw = {
      even: (name, low, high) => low + (high - low) * share(name),
      log: (name, low, high) => low * (high / low) ** share(name),
      chance: (name, p) => share(name) < p,
    };
    this.traffic = this.draw.even("traffic", 0.03, 0.35);
    for (const key of ["on", "running"] as const) this.melt({ key, unplugged: [] });
  }

  /** The circuit in a state at some moments, its relays as they are pulled. */
  private solve(state: State, moments: readonly Moment[], more: (net: Netlist) => void = () => undefined) {
    const nets = moments.map((moment) => {
      const net = this.netlist(state, moment, this.pullingIn(state, moment));
      more(net);
      return net;
    });
    const solved = Netlist.solveMany(nets, this.near.get(state.key));
    if (!this.near.has(state.key)) this.near.set(state.key, solved[0]!);
    return solved;
  }
  /** what was found first with the key so: the next solution begins there */
  private readonly near = new Map<KeyState, Volts>();
  private readonly pulls = new Map<string, ReadonlySet<string>>();
  /** Which relays pull: tried, looked at, and tried again until it fits. */
  private pullingIn(state: State, moment: Moment): ReadonlySet<string> {
    const relays = this.wiring.devices.filter((d) => d.kind === "relay");
    if (relays.length === 0) return NONE;
    const name = JSON.stringify([state, moment.key, moment.driven, [...this.melted]]);
    const known = this.pulls.get(name);
    if (known) return known;
    let pulling: ReadonlySet<string> = NONE;
    for (let round = 0; round < 5; round++) {
      const volts = Netlist.solveMany([this.netlist(state, moment, pulling)], this.near.get(state.key))[0]!;
      const now = new Set(
        relays.flatMap((d) => {
          const isOpen = this.hidden?.inside?.mode === "coilOpen" && this.hidden.inside.device === d.id;
          const v = Math.abs(volts.get(pinBehind(d.pins.coilHigh))! - volts.get(pinBehind(d.pins.coilLow))!);
          return !isOpen && v > (pulling.has(d.id) ? 0.3 : 0.55) * this.wiring.nominalVolt ? [d.id] : [];
        }),
      );
      if (now.size === pulling.size && [...now].every((d) => pulling.has(d))) break;
      pulling = now;
    }
    this.pulls.set(name, pulling);
    return pulling;
  }

  private netlist(state: State, moment: Moment, pulling: ReadonlySet<string>): Netlist {
    const { wiring, draw, hidden } = this;
    const net = new Netlist();
    const cut = (part: string) => this.cut(part);
    for (const c of wiring.connectors)
      for (const cavity of c.cavities) {
        const name = `${c.id}:${cavity}`;
        const [a, b] = c.inline ? [`${name}.a`, `${name}.b`] : [name, pinBehind(name)];
        const out = state.unplugged.includes(c.id);
        net.resistor(a, b, out ? 1e12 : draw.log(`${name} contact`, 0.002, 0.012) + cut(`contact ${name}`));
      }
    for (const w of wiring.wires) net.resistor(w.from, w.to, this.wireOhm(w) + cut(`wire ${wireId(w)}`));
    for (const d of wiring.devices) this.addFeed(net, d, state, moment, cut);
    const context: Context = { net, wiring, draw, moment, inside: hidden?.inside, pulling };
    for (const d of wiring.devices) addDevice(context, d);
    if (hidden?.shunt) {
      const { a, b, ohm } = hidden.shunt;
      net.resistor(a, b === "supply" ? this.plus() : b === CHASSIS ? "0" : b, ohm);
    }
    const end = (p: string) => (p === CHASSIS ? "0" : p);
    for (const j of state.jumpers ?? []) net.resistor(end(j.from), end(j.to), j.ohm);
    for (const l of state.loads ?? []) addLamp(net, end(l.from), end(l.to), l.watt, wiring.nominalVolt);
    return net;
  }
  /** Copper of a usual thickness for what it joins: a battery cable, a feed or ground, any other wire. */
  private wireOhm(w: Wiring["wires"][number]): number {
    const id = wireId(w);
    const kinds = [w.from, w.to].map((e) => this.wiring.devices.find((d) => d.id === e.split(":")[0])?.kind ?? "");
    const [thin, thick] = kinds.some((k) => k === "battery" || k === "alternator")
      ? [10, 35]
      : kinds.some((k) => ["ground", "fuse", "switch"].includes(k))
        ? [1.5, 4]
        : [0.5, 1.5];
    const metre = w.lengthM ?? this.draw.log(`${id} length`, 0.5, 6);
    return (metre * 0.0205) / (w.mm2 ?? this.draw.even(`${id} section`, thin, thick));
  }
  private cut(part: string): number {
    return this.hidden?.series?.part === part ? this.hidden.series.ohm : 0;
  }
  private plus(): string {
    return `${this.wiring.devices.find((d) => d.kind === "battery")!.id}:+`;
  }

  private addFeed(
    net: Netlist,
    d: Wiring["devices"][number],
    state: State,
    moment: Moment,
    cut: (part: string) => number,
  ): void {
    const { draw, wiring } = this;
    const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
    switch (d.kind) {
      case "battery": {
        const [low, high] = BATTERY[moment.key];
        net.source(`${d.id} cell`, `${d.id}:-`, (draw.even(`${d.id} volt`, low, high) * wiring.nominalVolt) / 12);
        net.resistor(`${d.id} cell`, `${d.id}:+`, draw.log(`${d.id} ohm`, 0.005, 0.02));
        if (!wired.has(`${d.id}:-`)) net.resistor(`${d.id}:-`, "0", 0.0005);
        return;
      }
      case "alternator": {
        if (moment.key === "running") {
          net.source(`${d.id} cell`, `${d.id}:-`, (draw.even(`${d.id} volt`, 13.9, 14.5) * wiring.nominalVolt) / 12);
          net.resistor(`${d.id} cell`, `${d.id}:+`, 0.004);
        }
        if (!wired.has(`${d.id}:-`)) net.resistor(`${d.id}:-`, "0", 0.0005);
        return;
      }
      case "ground":
        net.resistor(d.id, "0", draw.log(`${d.id} ground`, 0.0003, 0.004) + cut(`ground ${d.id}`));
        return;
      case "fuse":
      case "breaker": {
        const ohm = draw.even(`${d.id} fuse`, 0.06, 0.09) / d.rating;
        const out = this.melted.has(d.id) || state.pulled?.includes(d.id);
        const inPlace = state.breakers?.includes(d.id);
        net.resistor(`${d.id}:in`, `${d.id}:out`, inPlace ? 0.02 : out ? 1e12 : ohm + cut(`fuse ${d.id}`));
        return;
      }
      case "switch": {
        const closed = d.closedIn.includes(moment.key);
        net.resistor(`${d.id}:in`, `${d.id}:out`, closed ? 0.005 + cut(`switch ${d.id}`) : 1e12);
        return;
      }
      case "diode":
        net.diode(`${d.id}:anode`, `${d.id}:cathode`);
        return;
      default:
        return;
    }
  }

  /** Blows the fuses that carry too much, one after another. */
  private melt(state: State): void {
    for (let round = 0; round < 4; round++) {
      const [volts] = this.solve(state, [{ ...REST, key: state.key }]);
      const worst = this.wiring.devices.flatMap((d) => {
        if ((d.kind !== "fuse" && d.kind !== "breaker") || this.melted.has(d.id)) return [];
        if (this.hidden?.series?.part === `fuse ${d.id}`) return [];
        const ohm = this.draw.even(`${d.id} fuse`, 0.06, 0.09) / d.rating;
        const share = Math.abs(volts!.get(`${d.id}:in`)! - volts!.get(`${d.id}:out`)!) / ohm / d.rating;
        return share > MELTS_AT ? [{ id: d.id, share }] : [];
      });
      if (worst.length === 0) return;
      this.melted.add(worst.sort((a, b) => b.share - a.share)[0]!.id);
    }
  }

  /** The moments a slow meter averages over, with their shares. */
  private moments(state: State): readonly { readonly moment: Moment; readonly share: number }[] {
    const base: Moment = { ...REST, key: state.key, stimulus: state.stimulus ?? {} };
    const duties = this.wiring.devices.flatMap((d) =>
      d.kind === "module" ? d.pins.flatMap((p) => ("duty" in p && p.duty !== undefined ? [p.duty] : [])) : [],
    );
    const duty = duties[0];
    const quiet =
      duty === undefined
        ? [{ moment: base, share: 1 }]
        : [
            { moment: base, share: duty },
            { moment: { ...base, driven: false }, share: 1 - duty },
          ];
    const talkers = state.key === "off" ? [] : this.nodes();
    if (talkers.length === 0) return quiet;
    const each = this.traffic / talkers.length;
    return [
      ...quiet.map((q) => ({ ...q, share: q.share * (1 - this.traffic) })),
      ...talkers.map((talker) => ({ moment: { ...base, talker }, share: each })),
    ];
  }
  private nodes(): string[] {
    return this.wiring.devices.flatMap((d) => {
      if (d.kind === "smartSensor") return d.pins.busHigh || d.pins.busLine ? [d.id] : [];
      return d.kind === "module" && d.pins.some((p) => p.role === "busHigh" || p.role === "busLine") ? [d.id] : [];
    });
  }

  private between(volts: ReadonlyMap<string, number>, red: string, black: string): number {
    const at = (p: string) => (p === CHASSIS ? 0 : (volts.get(p) ?? 0));
    return at(red) - at(black);
  }
  private mean(state: State, red: string, black: string, meter = true): number {
    const end = (p: string) => (p === CHASSIS ? "0" : p);
    const moments = this.moments(state);
    const solved = this.solve(
      state,
      moments.map((m) => m.moment),
      (net) => {
        if (meter && red !== black) net.resistor(end(red), end(black), METER_OHM);
      },
    );
    return moments.reduce((sum, { share }, i) => sum + share * this.between(solved[i]!, red, black), 0);
  }

  /** What the display of an instrument shows; NaN where it shows nothing that means anything. */
  read(point: string, state: State, instrument: Instrument, black: string = CHASSIS): number {
    const noise = () => 2 * this.noise() - 1;
    const volts = (v: number) => round(v * (1 + 0.004 * noise()) + 0.004 * noise(), 0.01);
    switch (instrument) {
      case "voltmeter":
        return volts(this.mean(state, point, black));
      case "scanTool":
        return this.scanned(point, state, volts);
      case "clamp": {
        const wire = this.wiring.wires.find((w) => wireId(w) === point)!;
        const ohm = this.wireOhm(wire);
        const cut = this.hidden?.series?.part === `wire ${point}` ? this.hidden.series.ohm : 0;
        return round(this.mean(state, wire.from, wire.to, false) / (ohm + cut) + 0.02 * noise(), 0.01);
      }
      case "scope":
      case "scopeLow":
      case "scopeHigh": {
        const looks = [
          ...this.moments(state).map((m) => m.moment),
          ...(state.key === "cranking" || state.key === "running"
            ? [true, false].map((steel) => ({ ...REST, key: state.key, steel, wave: steel ? 1 : -1 }))
            : []),
        ];
        const seen = this.solve(state, looks).map((v) => this.between(v, point, black));
        if (instrument === "scopeLow") return volts(Math.min(...seen));
        return volts(Math.max(...seen) - (instrument === "scopeHigh" ? 0 : Math.min(...seen)));
      }
      case "ohmmeter":
      case "continuity": {
        const ohm = this.ohms(state, point, black);
        if (instrument === "continuity") return Number.isNaN(ohm) ? NaN : ohm < 30 ? 1 : 0;
        if (!(ohm < 20e6)) return Number.isNaN(ohm) ? NaN : Infinity;
        const shown = ohm * (1 + 0.01 * noise()) + 0.2;
        return round(shown, 10 ** Math.max(-1, Math.floor(Math.log10(shown)) - 2));
      }
      case "lamp": {
        const { nominalVolt } = this.wiring;
        const watt = state.loads?.[0]?.watt ?? 5;
        const to = black;
        const v = Math.abs(
          this.mean({ ...state, loads: [{ from: point, to: to as "chassis", watt }] }, point, to, false),
        );
        return v > 0.75 * nominalVolt ? 1 : v < 0.2 * nominalVolt ? 0 : 0.5;
      }
    }
  }
  /** What a module makes of a pin, against its own ground. */
  private scanned(at: string, state: State, volts: (v: number) => number): number {
    const owner = this.wiring.devices.find((d) => d.kind === "module" && d.pins.some((p) => p.at === at));
    if (!owner || !this.isAwake(owner.id, state)) return NaN;
    const inner = pinBehind(at);
    return volts(this.mean(state, inner, innerGroundOf(owner.id), false));
  }
  isAwake(module: string, state: State): boolean {
    const [volts] = this.solve(state, [{ ...REST, key: state.key }]);
    return (volts!.get(`${module} on`) ?? 0) > 0.5;
  }
  /** A test current of a tenth of a milliampere with two volts behind it. */
  private ohms(state: State, red: string, black: string): number {
    const end = (p: string) => (p === CHASSIS ? "0" : p);
    const moment = { ...REST, key: state.key, driven: false };
    const before = this.between(this.solve(state, [moment])[0]!, red, black);
    if (state.key !== "off" || Math.abs(before) > 0.1) return NaN;
    const [volt, behind] = [2, 20_000];
    const [volts] = this.solve(state, [moment], (net) => {
      net.source("test lead", end(black), volt);
      net.resistor("test lead", end(red), behind);
    });
    const v = this.between(volts!, red, black);
    const ampere = (volt - v) / behind;
    return ampere < 1e-8 ? Infinity : v / ampere;
  }

  /** Volts of everything at one moment, for the module's own monitors. */
  at(state: State, moments: readonly Partial<Moment>[]): readonly ReadonlyMap<string, number>[] {
    return this.solve(
      state,
      moments.map((moment) => ({ ...REST, key: state.key, ...moment })),
    );
  }
  /** Current through a driver's pin while it is driven, by the wire on it. */
  driverAmpere(at: string, key: KeyState): number {
    const [volts] = this.at({ key, unplugged: [] }, [{ driven: true }]);
    const ohm = this.draw.log(`${at} contact`, 0.002, 0.012) + this.cut(`contact ${at}`);
    return (volts!.get(at)! - volts!.get(pinBehind(at))!) / ohm;
  }
  /** Whether a frame sent by a node reaches a module. */
  hears(module: string, node: string, key: KeyState): boolean {
    const [quiet, talk] = this.at({ key, unplugged: [] }, [{}, { talker: node }]) as [Volts, Volts];
    const own = this.wiring.devices.find((d) => d.id === module);
    if (own?.kind !== "module") return false;
    const pin = (role: string) => own.pins.find((p) => p.role === role)?.at;
    const [high, low, line] = [pin("busHigh"), pin("busLow"), pin("busLine")];
    const there = this.wiring.devices.find((d) => d.id === node);
    const isTwoWire = there?.kind === "smartSensor" ? Boolean(there.pins.busHigh) : Boolean(high && low);
    if (isTwoWire && high && low) {
      const apart = (v: Volts) => v.get(pinBehind(high))! - v.get(pinBehind(low))!;
      return apart(talk) > HEARD_VOLT && apart(quiet) < QUIET_VOLT;
    }
    if (!line) return false;
    const supply = talk.get(supplyOf(module))!;
    const at = (v: Volts) => v.get(pinBehind(line))! - v.get(innerGroundOf(module))!;
    return at(talk) < 0.4 * supply && at(quiet) > 0.6 * supply;
  }
  codes(): { module: string; code: string }[] {
    return codesOf(this);
  }
  /** The same machine without its fault: its parts are as good as new ones. */
  sound(): HiddenMachine {
    return new HiddenMachine(this.wiring, undefined, this.seed, this.conditions);
  }
}

function addLamp(net: Netlist, a: string, b: string, watt: number, nominalVolt: number): void {
  const hot = nominalVolt ** 2 / watt;
  const v = net.volts(a, b);
  net.current(a, b, `${v}/(${hot.toPrecision(6)}*sqrt(0.015+0.985*min(1,abs(${v})/${nominalVolt})))`);
}
const round = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(6));
