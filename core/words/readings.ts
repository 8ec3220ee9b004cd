import {
  connectorOf,
  deviceConnectors,
  devicePins,
  findNets,
  formatQuantity,
  STORED_UNITS,
  type Candidate,
  type Caution,
  type NetFunction,
  type Nets,
  type Units,
  type Wire,
  type Wiring,
  wireId,
} from "../src/index.js";
import { stimulusText } from "./stimulus.js";
import { Namer } from "./faults.js";

const METERS: Readonly<Record<Candidate["instrument"], string>> = {
  voltmeter: "DC volts",
  ohmmeter: "ohms",
  scanTool: "scan tool, live values",
  clamp: "clamp, DC amperes",
  scope: "scope, or a meter with least and most",
  continuity: "continuity",
  lamp: "test lamp",
  none: "",
};
/** What a conductor is for. */
export const CONDUCTORS: Readonly<Record<NetFunction, string>> = {
  reference: "reference",
  sensorGround: "sensor ground",
  signal: "signal",
  driver: "low-side driver",
  feed: "feed",
  ground: "ground",
  bus: "bus",
  unknown: "wire",
};
const KEYS = { off: "key off", on: "key on, engine off", cranking: "cranking", running: "engine running" } as const;

/** One reading as a sentence that can be obeyed, and the lines under it. */
export interface Instruction {
  readonly title: string;
  readonly state: string;
  readonly meter: string;
  readonly red: { readonly text: string; readonly how: string; readonly colour?: string; readonly place?: string }[];
  readonly black: string;
  /** dangers that are acknowledged once a job, by name */
  readonly dangers: readonly Danger[];
  /** what to mind, before the step */
  readonly cautions: readonly string[];
}

/** What a step may touch that can hurt people or machine. */
export type Danger = Caution | "backFeed" | "jumper" | "benchFeed" | "lamp" | "breaker" | "turning";
export const DANGER_WORDS: Readonly<Record<Danger, string>> = {
  restraint: "Restraint circuit: the maker’s procedure and waiting time, by qualified people only.",
  highVoltage: "High voltage: licensed people only.",
  lifted: "Lifted machine: supported on stands, nobody under it while it is moved.",
  hot: "Hot parts near here.",
  rotating: "Rotating parts near here: keep clear, engine off.",
  fuel: "Fuel: no sparks, relieve pressure as the maker says.",
  throttle: "Throttle circuit: chock the machine and stand clear before the key goes on.",
  brake: "Brake circuit: chock the machine before the key goes on.",
  backFeed:
    "Battery voltage goes onto this wire: both ends must be unplugged, so that it reaches no module. Fused lead.",
  jumper: "Device unplugged and pins measured first; high only through 1 kΩ.",
  benchFeed:
    "Part out of the machine. Fused lead from the battery; some sensors take 5 V only: the maker's data first. " +
    "Battery positive reaches the signal pin through the resistor only.",
  lamp: "No lamp on a reference, signal or module line that is still plugged in.",
  breaker: "Rated no higher than the fuse, reset by hand.",
  turning: "Engine turns: everybody clear, hands and leads away from what rotates.",
};

export class Instructor {
  private readonly namer: Namer;
  private readonly nets: Nets;
  private readonly colours: ReadonlyMap<string, string>;
  private readonly wires: ReadonlyMap<string, Wire>;
  constructor(
    private readonly wiring: Wiring,
    private readonly units: Units = STORED_UNITS,
  ) {
    this.namer = new Namer(wiring, units);
    this.nets = findNets(wiring);
    this.wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
    this.colours = new Map(
      wiring.wires.flatMap((w) => (w.colour ? [[w.from, w.colour] as const, [w.to, w.colour] as const] : [])),
    );
  }

  withUnits(units: Units): Instructor {
    return new Instructor(this.wiring, units);
  }
  /** what is done to a sensor on purpose, in words */
  stimulus(id: string, value: number): string {
    return stimulusText(this.wiring, id, value, this.units);
  }
  functionOf(point: string): string {
    return CONDUCTORS[this.nets.functionOf(point)];
  }
  colourOf(point: string): string | undefined {
    return this.colours.get(point);
  }

  instruct(c: Candidate): Instruction {
    return {
      title: capital(this.title(c)),
      state: [
        KEYS[c.state.key],
        ...(c.state.pulled ?? []).map((f) => `fuse ${f} pulled`),
        ...(c.state.breakers ?? []).map((f) => `breaker in place of ${f}`),
        ...this.fitted(c),
        ...Object.entries(c.state.stimulus ?? {}).map(([id, value]) => this.stimulus(id, value)),
        ...(c.plug.length ? [`plug ${c.plug.join(", ")} back in`] : []),
        ...this.unplugged(c),
      ].join(" · "),
      meter: METERS[c.instrument],
      red: c.instrument === "none" || c.instrument === "scanTool" ? [] : c.points.map((p) => this.lead(c, p)),
      black:
        c.instrument === "none" || c.instrument === "scanTool" || c.instrument === "clamp"
          ? ""
          : c.black === undefined
            ? "battery negative"
            : c.part
              ? `its pin ${cavityOf(c.black)}`
              : this.namer.point(c.black),
      cautions: this.cautions(c),
      dangers: this.dangers(c),
    };
  }
  private unplugged(c: Candidate): string[] {
    const { unplugged } = c.state;
    const still = unplugged.filter((u) => !c.unplug.includes(u));
    return [
      ...(c.unplug.length > 4
        ? [`unplug ${c.unplug.length} connectors: ${c.unplug.join(", ")}`]
        : c.unplug.map((u) => `unplug ${u}`)),
      ...(still.length > 3 ? [`${still.length} still unplugged`] : still.map((u) => `${u} still unplugged`)),
    ];
  }
  private fitted(c: Candidate): string[] {
    return [
      ...(c.state.jumpers ?? []).map(
        (j) =>
          `${this.namer.point(j.from)} joined to ${this.namer.point(j.to)}` +
          `${j.ohm >= 100 ? ` through ${formatQuantity(j.ohm, "Ω")}` : ""}`,
      ),
      ...(c.state.loads ?? []).map(
        (l) =>
          `${l.watt} W lamp from ${this.namer.point(l.from)} to ` +
          `${l.to === "chassis" ? "battery negative" : this.namer.point(l.to)}`,
      ),
    ];
  }
  /** What to mind where somebody works: at connectors, parts, cavities or wires. */
  cautionsAt(things: readonly string[]): string[] {
    const ends = things.flatMap((t) => {
      const w = this.wires.get(t);
      return w ? [w.from, w.to] : [t];
    });
    return [...new Set(this.markedAt(new Set(ends.map(connectorOf))).map((d) => DANGER_WORDS[d]))];
  }
  private markedAt(ids: ReadonlySet<string>): Danger[] {
    return [
      ...this.wiring.connectors.filter((x) => ids.has(x.id)),
      ...this.wiring.devices.filter((d) => ids.has(d.id) || deviceConnectors(d).some((x) => ids.has(x))),
    ].flatMap((x) => x.cautions);
  }
  private dangers(c: Candidate): Danger[] {
    const marked = this.markedAt(new Set([c.at, ...c.state.unplugged, ...c.plug]));
    const plus = this.wiring.devices.find((d) => d.kind === "battery");
    if (c.part && c.state.jumpers?.length) marked.push("benchFeed");
    else if (plus && c.state.jumpers?.some((j) => j.from === `${plus.id}:+` || j.to === `${plus.id}:+`))
      marked.push("backFeed");
    else if (c.state.jumpers?.length) marked.push("jumper");
    if (c.state.loads?.length || c.instrument === "lamp") marked.push("lamp");
    if (c.kind === "breaker") marked.push("breaker");
    if (c.state.key === "running" || c.state.key === "cranking") marked.push("turning");
    return [...new Set(marked)];
  }

  /** A Hall sensor fed by itself, with steel at its tip or none. */
  private hallOnBench(c: Candidate): string {
    const [signal = ""] = c.points;
    const steel = Object.values(c.state.stimulus ?? {}).some((x) => x >= 0.5) ? "steel at its tip" : "no steel near it";
    return (
      `${this.namer.device(this.deviceIdOn(signal))} on the bench, ${steel}: ` +
      `measure from battery negative to its signal pin ${cavityOf(signal)}`
    );
  }

  private title(c: Candidate): string {
    const point = c.points[0] ?? "";
    const what = this.functionOf(point);
    const where = this.namer.point(point);
    const device = this.deviceOn(c.state.unplugged[0] ?? "");
    switch (c.kind) {
      case "fuse":
        return `Measure both sides of fuse ${c.at}`;
      case "voltage":
        return `Measure the ${what} at ${where}`;
      case "voltageUnplugged":
        return `Unplug ${c.at} and measure the ${what} in cavity ${cavityOf(point)}`;
      case "watch":
        return `Unplug the ${device} and watch the ${what} at ${where}`;
      case "ohms":
        return `Key off: ohms from the ${what} at ${where} to battery negative`;
      case "ohmsWatch":
        return `Key off: unplug the ${device} and read ohms at ${where} to battery negative`;
      case "scan":
        return `Read the ${this.shownName(point)} signal in the scan tool`;
      case "scanWatch":
        return `Unplug the ${device} and read the ${this.shownName(point)} signal in the scan tool`;
      case "activity":
        return `While cranking, see how far the ${what} swings at ${where}`;
      case "look":
        return this.wires.has(point)
          ? `Look along the ${this.namer.wire(point)}`
          : `Look closely at ${this.thing(point)}`;
      case "branchCurrent":
        return `Put the clamp around the ${this.namer.wire(point)}: does the short draw its current through it?`;
      case "ohmsBetween":
        return `Key off: ohms from ${where} to ${this.namer.point(c.black ?? "")}, both plugs off`;
      case "identity":
        return `Make sure this is ${this.namer.connector(point)}: label, colours, where its harness goes`;
      case "wiggle":
        return `Move ${this.thing(point)} and its harness while you watch a live value`;
      case "swap":
        return `Swap ${this.thing(point)} with ${this.thing(c.points[1] ?? "")} and scan again`;
      case "drop":
        return c.black === undefined
          ? this.title({ ...c, kind: "voltage" })
          : point.endsWith(":+")
            ? `Measure from battery positive to the ${this.functionOf(c.black)} at ${this.namer.point(c.black)}: ` +
              "it rules out an open, no more"
            : `Measure the drop from ${this.namer.point(c.black)} to ${where}`;
      case "jumper": {
        const jumpers = c.state.jumpers?.map(
          (j) => `${this.namer.point(j.from)} to the ${this.functionOf(j.to)}${j.ohm >= 100 ? " through 1 kΩ" : ""}`,
        );
        return `Jumper ${jumpers?.join(", ") ?? ""}, and read the ${this.shownName(point)} signal in the scan tool`;
      }
      case "lamp":
        return (
          `Feed ${c.state.jumpers?.map((j) => this.namer.point(j.to)).join(", ") ?? "the wire"} from ` +
          `battery positive and look at the lamp on ${where}`
        );
      case "breaker":
        return `Breaker in place of fuse ${c.at}: ${breakerStep(c)}. Does it hold?`;
      case "bench":
        if (c.instrument === "voltmeter") return this.hallOnBench(c);
        return c.part === "new"
          ? `New ${this.namer.device(this.deviceIdOn(point))}, before it goes in: ohms between its pins ` +
              `${cavityOf(point)} and ${cavityOf(c.black ?? "")}`
          : `${this.namer.device(this.deviceIdOn(point))} taken out: ohms between its own pins ` +
              `${cavityOf(point)} and ${cavityOf(c.black ?? "")}`;
      case "codeSets":
        return `Make the opposite fault through 1 kΩ and scan: does ${c.points[1]} set?`;
      case "partNumber":
        return `Read the part number on the ${this.namer.device(point)}`;
    }
  }
  /** the sensor whose value stands at a module's pin */
  private shownName(pin: string): string {
    const net = this.nets.netOf.get(pin);
    const d = this.wiring.devices.find(
      (x) =>
        x.kind !== "module" &&
        devicePins(x).some((p) => p.role.startsWith("signal") && this.nets.netOf.get(p.at) === net),
    );
    return d ? this.namer.device(d.id) : pin;
  }
  private thing(id: string): string {
    if (this.wiring.connectors.some((c) => c.id === id)) return `connector ${this.namer.connector(id)}`;
    return this.namer.device(id);
  }
  private deviceIdOn(point: string): string {
    const connector = connectorOf(point);
    return (
      this.wiring.devices.find((d) => d.kind !== "module" && deviceConnectors(d).includes(connector))?.id ?? connector
    );
  }
  private deviceOn(connector: string): string {
    const device = this.wiring.devices.find((d) => d.kind !== "module" && deviceConnectors(d).includes(connector));
    return device ? this.namer.device(device.id) : `connector ${connector}`;
  }
  private lead(c: Candidate, point: string): Instruction["red"][number] {
    const wire = c.instrument === "clamp" ? this.wires.get(point) : undefined;
    if (wire)
      return {
        text: `around the wire at ${this.namer.point(wire.from)}`,
        how: `arrow towards ${this.namer.point(wire.to)}`,
        ...(wire.colour ? { colour: wire.colour } : {}),
      };
    const id = connectorOf(point);
    const connector = this.wiring.connectors.find((x) => x.id === id);
    const device = this.wiring.devices.find((d) => d.id === id);
    const colour = this.colourOf(point);
    const place = connector?.place ?? device?.place;
    if (c.part)
      return {
        text: `${c.part === "new" ? "new part" : "the part"}, its pin ${cavityOf(point)}`,
        how: "on the part itself",
      };
    const how = !connector
      ? "touch the contact"
      : c.state.unplugged.includes(id)
        ? "front of the plug, touch only"
        : "back-probed";
    return { text: this.namer.point(point), how, ...(colour ? { colour } : {}), ...(place ? { place } : {}) };
  }
  private cautions(c: Candidate): string[] {
    const texts: string[] = [];
    for (const d of this.dangers(c)) texts.push(DANGER_WORDS[d]);
    if (c.instrument === "ohmmeter") texts.push("Key off first.");
    if (c.kind === "voltageUnplugged" || c.kind === "ohms" || c.kind === "ohmsBetween")
      texts.push("Front-probe gently: don’t spread the terminal.");
    if (c.unplug.length) texts.push("Key off while unplugging.");
    if (c.kind === "swap") texts.push("Only where the maker allows it; scan before and after.");
    if (c.kind === "fuse") texts.push("Never fit a larger fuse or bypass it.");
    return texts;
  }
}

/** `3`, or `7, side a` of an in-line connector: a cavity without its connector. */
export const cavityOf = (point: string): string =>
  point.slice(point.indexOf(":") + 1).replace(/\.([ab])$/, ", side $1");
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
export const keyText = (key: keyof typeof KEYS) => KEYS[key];

/** What is plugged or unplugged for a breaker to be tried. */
function breakerStep({ plug, unplug, state }: Pick<Candidate, "plug" | "unplug" | "state">): string {
  if (plug.length) return `plug ${plug.join(", ")} back in, key ${state.key}`;
  if (unplug.length === 0) return "key on";
  return `unplug ${unplug.length === 1 ? unplug[0] : `all ${unplug.length} connectors`}, key on`;
}
