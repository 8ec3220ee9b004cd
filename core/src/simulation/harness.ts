import { WIRING_FORMAT, type Wiring } from "../format/wiring.js";
import { compile } from "../network/compile.js";
import { uniform } from "../prediction/draws.js";
import { readWiring } from "../wiring/read.js";

export interface HarnessOptions {
  /** about how many nodes the compiled circuit should have */
  readonly nodes: number;
  readonly seed: number;
  readonly nominalVolt?: 12 | 24;
}

type Loose = Record<string, unknown>;
const PERIPHERALS = [
  "threeWireSensor",
  "threeWireSensor",
  "threeWireSensor",
  "thermistor",
  "thermistor",
  "potentiometer",
  "hall",
  "hall",
  "pedal",
  "coilSensor",
  "currentLoop",
  "solenoid",
  "solenoid",
  "heater",
  "lamp",
  "smartSensor",
] as const;
type Kind = (typeof PERIPHERALS)[number];
/** Devices a module looks after, and how many share one splice, one in-line connector and one bundle. */
const PER_MODULE = 14;
const PER_GROUP = 5;
const MODULES_PER_RELAY = 3;

/**
 * Makes up a machine nobody has drawn: battery, alternator, key switch, main relay, fuses, several modules on a
 * two-wire bus, devices of every kind in groups that share a reference splice, a ground splice, an in-line connector
 * and a bundle. Repeatable from its seed; for tests and benchmarks.
 */
export function generateHarness(options: HarnessOptions): Wiring {
  let devices = Math.max(2, Math.round(options.nodes / 17));
  let wiring = build(devices, options);
  for (let tries = 0; tries < 4; tries++) {
    const nodes = compile(wiring, "on").nodes.length;
    const next = Math.max(2, Math.round(devices * (options.nodes / nodes)));
    if (next === devices) break;
    devices = next;
    wiring = build(devices, options);
  }
  return wiring;
}

function build(count: number, { seed, nominalVolt = 12 }: HarnessOptions): Wiring {
  const h = new Harness(seed);
  h.supplies(count);
  const modules = Math.max(1, Math.ceil(count / PER_MODULE));
  for (let m = 1, left = count; m <= modules; m++) {
    const own = Math.min(PER_MODULE, left);
    left -= own;
    h.module(m, own, modules > 1 || own > 6);
  }
  h.finishBus();
  const read = readWiring({
    format: WIRING_FORMAT,
    version: 1,
    name: `Made-up harness ${seed}, ${count} devices`,
    nominalVolt,
    connectors: h.connectors,
    devices: h.devices,
    wires: h.wires,
    codes: h.codes,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.issues.slice(0, 5)));
  return read.value;
}

class Harness {
  readonly connectors: Loose[] = [];
  readonly devices: Loose[] = [];
  readonly wires: Loose[] = [];
  readonly codes: Loose[] = [];
  private readonly random: () => number;
  private feed = "";
  private ground = "";
  private mainCable = 50;
  private readonly bus: { high: string[]; low: string[] } = { high: [], low: [] };
  constructor(seed: number) {
    this.random = uniform(seed);
  }

  private pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.random() * list.length)]!;
  }
  private maybe(p: number): boolean {
    return this.random() < p;
  }
  /** a cable thick enough for what it feeds */
  private cable(from: string, to: string, mm2: number, bundle?: string) {
    this.wire(from, to, bundle, { mm2, lengthM: Math.round(3 + this.random() * 15) / 10 });
  }
  private wire(from: string, to: string, bundle?: string, more: Loose = {}) {
    this.wires.push({
      id: `W${this.wires.length + 1}`,
      from,
      to,
      mm2: this.pick([0.5, 0.75, 0.75, 1, 1.5]),
      lengthM: Math.round(5 + this.random() * 60) / 10,
      ...more,
      ...(bundle === undefined ? {} : { bundle }),
      ...(this.maybe(0.15) ? { zones: [this.pick(["hot", "wet", "vibrating", "chewed", "oily"])] } : {}),
    });
  }
  private connector(id: string, cavities: number, more: Loose = {}) {
    this.connectors.push({
      id,
      cavities: Array.from({ length: cavities }, (_, i) => String(i + 1)),
      reachMinutes: 1 + Math.floor(this.random() * 8),
      ...(this.maybe(0.2) ? { zones: [this.pick(["wet", "hot", "oily"])] } : {}),
      ...more,
    });
  }

  /** battery, alternator, key switch, main relay and the splice behind its fuse */
  supplies(count: number) {
    // a larger machine has a larger battery, alternator and main fuse
    const large = 1 + count / 60;
    const main = Math.min(240, Math.round(50 * large));
    this.devices.push(
      { kind: "battery", id: "BAT", ohm: 0.01 / large },
      { kind: "ground", id: "G1" },
      { kind: "switch", id: "KEY" },
      { kind: "fuse", id: "FM", rating: Math.round(200 * large) },
      { kind: "splice", id: "SM" },
    );
    this.cable("BAT:-", "G1", main);
    this.cable("BAT:+", "FM:in", main);
    this.cable("FM:out", "SM", main);
    this.wire("SM", "KEY:in");
    if (this.maybe(0.7)) {
      this.devices.push({ kind: "alternator", id: "ALT", limitAmpere: Math.round(90 * large) });
      this.cable("ALT:+", "BAT:+", main);
      this.cable("ALT:-", "G1", main);
    }
    this.mainCable = main;
    this.ground = "G1";
  }

  /** a main relay, and the splice it feeds, for every few modules */
  private relay(i: number) {
    const K = `K${i}`;
    const SF = `SF${i}`;
    this.connector(K, 5);
    this.devices.push(
      {
        kind: "relay",
        id: K,
        pins: {
          coilHigh: `${K}:1`,
          coilLow: `${K}:2`,
          common: `${K}:3`,
          working: `${K}:4`,
          ...(this.maybe(0.3) ? { resting: `${K}:5` } : {}),
        },
      },
      { kind: "splice", id: SF },
    );
    this.wire("KEY:out", `${K}:1`);
    this.wire(`${K}:2`, "G1");
    this.cable("SM", `${K}:3`, this.mainCable);
    this.cable(`${K}:4`, SF, this.mainCable);
    this.feed = SF;
  }

  private fuse(id: string, rating: number): string {
    this.devices.push({ kind: "fuse", id, rating });
    this.cable(this.feed, `${id}:in`, 6);
    return `${id}:out`;
  }

  module(m: number, count: number, talks: boolean) {
    const A = `A${m}`;
    const pins: Loose[] = [];
    if (m % MODULES_PER_RELAY === 1) this.relay(Math.ceil(m / MODULES_PER_RELAY));
    const pin = (role: string, more: Loose = {}) => {
      const at = `${A}:${pins.length + 1}`;
      pins.push({ role, at, ...more });
      return at;
    };
    const ground = m % 3 === 1 ? `G${m + 1}` : this.ground;
    if (m % 3 === 1) {
      this.devices.push({ kind: "ground", id: ground });
      this.ground = ground;
    }
    this.cable(this.fuse(`F${m}`, this.pick([10, 15])), pin("supply", { feed: "switched" }), 2.5);
    if (this.maybe(0.5)) this.wire("SM", pin("supply", { feed: "permanent" }));
    for (let grounds = 1 + Math.floor(this.random() * 3); grounds > 0; grounds--)
      this.cable(pin("ground"), ground, 2.5);
    if (talks) {
      this.bus.high.push(pin("busHigh", { terminated: m === 1 }));
      this.bus.low.push(pin("busLow"));
    }
    for (let done = 0, group = 1; done < count; group++) {
      const size = Math.min(PER_GROUP, count - done);
      this.group(A, `${m}${String.fromCharCode(96 + group)}`, size, pin, talks);
      done += size;
    }
    this.connector(A, pins.length);
    this.devices.push({ kind: "module", id: A, pins });
    if (talks && m > 1) this.codes.push({ id: `U${m}`, module: "A1", monitor: { type: "silent", node: A } });
  }

  /** devices that share reference, ground, in-line connector and bundle */
  private group(A: string, g: string, size: number, pin: (role: string, more?: Loose) => string, talks: boolean) {
    const bundle = `bundle ${g}`;
    const X = `X${g}`;
    const SR = `SR${g}`;
    const SG = `SG${g}`;
    const SP = `SP${g}`;
    const inner = { cavities: 0 };
    const through = (from: string, to: string) => {
      inner.cavities++;
      this.wire(from, `${X}:${inner.cavities}.b`, bundle);
      this.wire(`${X}:${inner.cavities}.a`, to, bundle);
    };
    const reference = pin("reference", {
      ...(this.maybe(0.5) ? { limitAmpere: 0.05 + this.random() * 0.25 } : {}),
      ...(this.maybe(0.2) ? { foldAmpere: 0.02 } : {}),
    });
    const low = pin("sensorGround");
    this.devices.push({ kind: "splice", id: SR }, { kind: "splice", id: SG });
    through(reference, SR);
    through(low, SG);
    this.codes.push({ id: `R${g}`, module: A, monitor: { type: "outside", at: reference, low: 4.5, high: 5.5 } });
    let feed: string | undefined;
    const feeding = () => {
      if (feed === undefined) {
        this.devices.push({ kind: "splice", id: SP });
        this.cable(this.fuse(`FP${g}`, 20), SP, 4, bundle);
        feed = SP;
      }
      return feed;
    };
    for (let i = 1; i <= size; i++)
      this.peripheral(`B${g}${i}`, A, talks ? this.pick(PERIPHERALS) : this.pick(PERIPHERALS.slice(0, -1)), {
        SR,
        SG,
        bundle,
        pin,
        through,
        feeding,
      });
    this.connector(X, inner.cavities, { inline: true });
  }

  private peripheral(
    B: string,
    A: string,
    kind: Kind,
    c: {
      SR: string;
      SG: string;
      bundle: string;
      pin: (role: string, more?: Loose) => string;
      through: (from: string, to: string) => void;
      feeding: () => string;
    },
  ) {
    const at = (n: number) => `${B}:${n}`;
    const low = (input: string) =>
      this.codes.push(
        { id: `L${input}`, module: A, monitor: { type: "below", at: input, volt: 0.2 } },
        { id: `H${input}`, module: A, monitor: { type: "above", at: input, volt: 4.8 } },
      );
    const driver = (role: string) =>
      c.pin(role, {
        activeIn: this.pick([["on", "cranking", "running"], ["running"], ["running"], ["running"], [], []]),
        ...(role === "lowSide" && this.maybe(0.6) ? { duty: this.pick([0.3, 0.5]) } : {}),
      });
    const wire = (a: string, b: string) => this.wire(a, b, c.bundle);
    switch (kind) {
      case "threeWireSensor":
      case "potentiometer":
      case "hall": {
        this.connector(B, 3);
        this.devices.push({ kind, id: B, pins: { supply: at(1), ground: at(2), signal: at(3) } });
        wire(at(1), c.SR);
        wire(at(2), c.SG);
        const input = c.pin("input", { pull: kind === "hall" ? "up" : this.pick(["down", "none"]) });
        c.through(input, at(3));
        if (kind === "hall") this.codes.push({ id: `N${B}`, module: A, monitor: { type: "noActivity", at: input } });
        else low(input);
        return;
      }
      case "pedal": {
        this.connector(B, 4);
        this.devices.push({ kind, id: B, pins: { supply: at(1), ground: at(2), signal: at(3), signal2: at(4) } });
        wire(at(1), c.SR);
        wire(at(2), c.SG);
        const first = c.pin("input", { pull: "down" });
        const second = c.pin("input", { pull: "down" });
        c.through(first, at(3));
        c.through(second, at(4));
        this.codes.push({
          id: `D${B}`,
          module: A,
          monitor: { type: "disagree", at: first, other: second, ratio: 0.5 },
        });
        return;
      }
      case "thermistor":
      case "coilSensor": {
        this.connector(B, 2);
        this.devices.push({
          kind,
          id: B,
          pins: kind === "thermistor" ? { signal: at(1), ground: at(2) } : { high: at(1), low: at(2) },
        });
        const input = c.pin("input", { pull: "up" });
        c.through(input, at(1));
        wire(at(2), c.SG);
        if (kind === "thermistor") low(input);
        return;
      }
      case "currentLoop": {
        this.connector(B, 2);
        this.devices.push({ kind, id: B, pins: { supply: at(1), signal: at(2) } });
        wire(at(1), c.feeding());
        c.through(c.pin("input", { pull: "down", pullOhm: 240 }), at(2));
        return;
      }
      case "solenoid":
      case "heater":
      case "lamp": {
        this.connector(B, 2);
        this.devices.push({ kind, id: B, pins: { feed: at(1), ground: at(2) } });
        if (kind === "lamp" && this.maybe(0.5)) {
          c.through(driver("highSide"), at(1));
          wire(at(2), "G1");
          return;
        }
        const output = driver("lowSide");
        wire(at(1), c.feeding());
        c.through(output, at(2));
        if (kind === "heater")
          this.codes.push({ id: `C${B}`, module: A, monitor: { type: "current", at: output, low: 0.1 } });
        return;
      }
      case "smartSensor": {
        this.connector(B, 4);
        this.devices.push({ kind, id: B, pins: { supply: at(1), ground: at(2), busHigh: at(3), busLow: at(4) } });
        wire(at(1), c.feeding());
        wire(at(2), "G1");
        this.bus.high.push(at(3));
        this.bus.low.push(at(4));
        this.codes.push({ id: `S${B}`, module: "A1", monitor: { type: "silent", node: B } });
      }
    }
  }

  /** the bus from end to end: a splice at each node, a terminator at the far one */
  finishBus() {
    if (this.bus.high.length < 2) return; // a module that talks to no one
    for (const [side, points] of Object.entries(this.bus)) {
      const splice = (i: number) => `S${side === "high" ? "H" : "L"}${i + 1}`;
      points.forEach((point, i) => {
        this.devices.push({ kind: "splice", id: splice(i) });
        this.wire(point, splice(i), "bus");
        if (i > 0) this.wire(splice(i - 1), splice(i), "bus");
      });
    }
    this.connector("RT", 2);
    this.devices.push({ kind: "terminator", id: "RT", pins: { busHigh: "RT:1", busLow: "RT:2" } });
    const last = this.bus.high.length;
    this.wire("RT:1", `SH${last}`, "bus");
    this.wire("RT:2", `SL${last}`, "bus");
  }
}
