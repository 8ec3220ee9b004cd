import { DEFAULTS } from "../defaults.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import { CHASSIS, pinBehind } from "../wiring/points.js";
import { PLAIN, type Circuit, type Element, type Gate } from "./element.js";

/**
 * Gives the value of one parameter of one thing. `typed` is false for a generic value.
 * Draws and simulated machines pass their own; the nominal circuit uses the value as it is.
 */
export type ValueOf = (thing: string, parameter: string, nominal: number, kind: ValueKind) => number;
export type ValueKind = "typed" | "generic" | "reference" | "battery";
/** Gives a true physical condition within its range at rest (a share, a temperature, milliampere). */
export type StimulusOf = (thing: string, range: readonly [number, number]) => number;

/** The node that a supply fault or an unwired module supply is fed from. */
export const BATTERY_POINT = "battery+";

/**
 * Rest voltage of the battery by key state, volt. With an alternator in the document the engine running changes nothing
 * at the battery itself.
 */
export function batteryVolt(wiring: Wiring, key: KeyState, on?: number): number {
  const { batteryVolt: by } = DEFAULTS;
  const running = key === "running" && wiring.devices.some((d) => d.kind === "alternator");
  return ((running ? by.off : by[key]) / by.on) * (on ?? by.on * (wiring.nominalVolt / 12));
}

/** Collects nodes, elements and gates while a document is compiled. */
export class Builder {
  private readonly nodes: string[] = [CHASSIS];
  private readonly nodeOf = new Map<string, number>([[CHASSIS, 0]]);
  private readonly elements: Element[] = [];
  private readonly gates: Gate[] = [];
  private readonly gateOf = new Map<string, number>();
  private readonly wired: ReadonlySet<string>;
  private readonly guesses: ReadonlySet<string>;
  constructor(
    readonly wiring: Wiring,
    readonly key: KeyState,
    readonly value: ValueOf,
    readonly stimulus: StimulusOf,
    private readonly set: Readonly<Record<string, number>> = {},
  ) {
    this.wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
    this.guesses = new Set(wiring.guesses);
  }

  node(name: string): number {
    const known = this.nodeOf.get(name);
    if (known !== undefined) return known;
    this.nodes.push(name);
    this.nodeOf.set(name, this.nodes.length - 1);
    return this.nodes.length - 1;
  }
  /** whether its function was guessed and not read anywhere */
  isGuess(cavity: string): boolean {
    return this.guesses.has(cavity);
  }
  isWired(point: string): boolean {
    return this.wired.has(point);
  }
  /** a parameter that may be typed in the document; `nominal` is used with the typed tolerance when it was */
  known(thing: string, parameter: string, typed: number | undefined, nominal?: number, generic?: number): number {
    return this.value(thing, parameter, nominal ?? typed ?? generic ?? 0, typed === undefined ? "generic" : "typed");
  }
  /**
   * What nobody draws of a device's inside, as a number from 0 to 1; 0.5 in the nominal circuit. Like any unknown it is
   * one and the same in every state of one machine, and readings tell it.
   */
  variant(thing: string, name: string): number {
    return this.stimulus(`${thing} ${name}`, [0, 1]);
  }
  /** the true condition at a sensor: set on purpose, else that of the part it follows, else its own at rest */
  condition(thing: string, follows: string | undefined, range: readonly [number, number]): number {
    const set = this.set[thing];
    return set ?? this.set[follows ?? thing] ?? this.stimulus(follows ?? thing, range);
  }
  /** a value of which only the order of magnitude is known, unless it is typed; its middle in the nominal circuit */
  wide(thing: string, parameter: string, typed: number | undefined, [low, high]: readonly [number, number]): number {
    if (typed !== undefined) return this.known(thing, parameter, typed);
    return low * (high / low) ** this.variant(thing, parameter);
  }
  /** a value near the usual one, which it is in the nominal circuit, between a least and a most */
  about(thing: string, parameter: string, usual: number, [low, high]: readonly [number, number]): number {
    const u = this.variant(thing, parameter);
    return u < 0.5 ? low + 2 * u * (usual - low) : usual + (2 * u - 1) * (high - usual);
  }
  /** what a supply pin looks like with the key off, when the electronics behind it sleep, ohm; undefined otherwise */
  asleepOhm(thing: string): number | undefined {
    return this.key === "off" ? this.wide(thing, "asleepOhm", undefined, DEFAULTS.asleepOhm) : undefined;
  }
  /** every element has the same shape, whatever its kind says: the inner loops read them faster for it */
  add(e: Partial<Element> & Pick<Element, "id" | "type" | "a" | "b" | "ohm">) {
    const limitAmpere = e.limitAmpere ?? PLAIN.limitAmpere;
    this.elements.push({
      id: e.id,
      type: e.type,
      a: e.a,
      b: e.b,
      low: e.low ?? PLAIN.low,
      ohm: e.ohm,
      volt: e.volt ?? PLAIN.volt,
      ratio: e.ratio ?? PLAIN.ratio,
      limitAmpere,
      foldAmpere: e.foldAmpere ?? limitAmpere,
      foldVolt: e.foldVolt ?? PLAIN.foldVolt,
      gate: e.gate ?? PLAIN.gate,
      whenAsleep: e.whenAsleep ?? PLAIN.whenAsleep,
      offOhm: e.offOhm ?? PLAIN.offOhm,
      connector: e.connector ?? PLAIN.connector,
      steel: e.steel ?? PLAIN.steel,
      duty: e.duty ?? PLAIN.duty,
      talks: e.talks ?? PLAIN.talks,
    });
  }
  resistor(id: string, a: string, b: string, ohm: number, more: Partial<Element> = {}) {
    this.add({ id, type: "resistor", a: this.node(a), b: this.node(b), ohm, ...more });
  }
  gate(
    device: string,
    high: readonly (readonly string[])[],
    low: string,
    aboveVolt: number,
    more: Partial<Gate> = {},
  ): number {
    this.gates.push({
      id: device,
      high: high.map((group) => group.map((h) => this.node(h))),
      low: this.node(low),
      aboveVolt,
      needsKey: false,
      either: false,
      lowBelowVolt: Infinity,
      ...more,
    });
    this.gateOf.set(device, this.gates.length - 1);
    return this.gates.length - 1;
  }
  /** battery plus: of the document's first battery, or an assumed one */
  batteryPoint(): string {
    const battery = this.wiring.devices.find((d) => d.kind === "battery");
    if (battery) return `${battery.id}:+`;
    if (!this.nodeOf.has(BATTERY_POINT)) this.battery(BATTERY_POINT, BATTERY_POINT, CHASSIS, undefined, undefined);
    return BATTERY_POINT;
  }
  battery(id: string, plus: string, minus: string, volt: number | undefined, ohm: number | undefined) {
    // beside an alternator a battery takes far less current than it gives: its voltage rises while it is charged
    const charged = this.wiring.devices.some((d) => d.kind === "alternator");
    this.add({
      id: `battery ${id}`,
      ...(charged
        ? { type: "reference", offOhm: DEFAULTS.batteryChargeOhm, limitAmpere: DEFAULTS.batteryMostAmpere }
        : { type: "source" }),
      a: this.node(plus),
      b: this.node(minus),
      volt: this.value(id, "volt", batteryVolt(this.wiring, this.key, volt), "battery"),
      ohm: this.known(id, "ohm", ohm, undefined, DEFAULTS.batteryOhm),
    });
  }
  /** a fuse or switch whose feeding side is not wired is taken to hang on the battery */
  feedIfUnwired(point: string) {
    if (!this.isWired(point)) this.resistor(`assumed ${point}`, this.batteryPoint(), point, DEFAULTS.switchOhm);
  }
  finish(): Circuit {
    return {
      key: this.key,
      nodes: this.nodes,
      nodeOf: this.nodeOf,
      elements: this.elements,
      elementOf: new Map(this.elements.map((e, i) => [e.id, i])),
      gates: this.gates,
      gateOf: this.gateOf,
    };
  }

  /** a node on a two-wire bus: biased to half its supply, and pulling the pair apart while it talks */
  twoWireBus(id: string, high: string, low: string, ground: string, gate: number, terminated: boolean) {
    const bus = DEFAULTS.bus;
    for (const [side, at] of [
      ["high", high],
      ["low", low],
    ] as const) {
      this.add({
        id: `recessive ${side} ${id}`,
        type: "source",
        a: this.node(at),
        b: this.node(ground),
        volt: bus.recessiveVolt,
        ohm: bus.recessiveOhm,
        gate,
        offOhm: bus.unpoweredOhm, // it lets go of the lines
      });
    }
    const dominant = {
      type: "reference",
      ohm: this.wide(id, "dominantOhm", undefined, bus.dominantOhm),
      limitAmpere: bus.dominantAmpere,
      gate,
      offOhm: bus.dominantOffOhm,
      duty: this.traffic(bus.duty),
      talks: true,
    } as const;
    this.add({
      id: `dominant high ${id}`,
      a: this.node(high),
      b: this.node(ground),
      volt: bus.dominantHighVolt,
      ...dominant,
    });
    this.add({
      id: `dominant low ${id}`,
      a: this.node(ground),
      b: this.node(low),
      volt: -bus.dominantLowVolt,
      ...dominant,
    });
    if (terminated) this.resistor(`terminator ${id}`, high, low, bus.terminatorOhm);
  }
  /** share of the time in which somebody talks: whatever the machine is doing; the same for all buses of one machine */
  private traffic([least, most]: readonly [number, number]): number {
    return least + (most - least) * this.variant("bus", "traffic");
  }
  /** a node on a single-wire bus: pulled up through a diode, pulled down while it talks */
  singleWireBus(id: string, line: string, supply: string, ground: string, gate: number, commander: boolean) {
    const bus = DEFAULTS.bus;
    this.add({
      id: `pull ${id}`,
      type: "diode",
      a: this.node(supply),
      b: this.node(line),
      ohm: commander ? bus.commanderOhm : bus.responderOhm,
      volt: DEFAULTS.diode.volt,
    });
    this.resistor(`talk ${id}`, line, ground, bus.lineOhm, {
      gate,
      duty: this.traffic(bus.lineDuty),
      talks: true,
      offOhm: bus.lineOffOhm,
    });
  }
}

/** The device's own pins behind its cavities. */
export const pinNodes = <T extends Record<string, string | undefined>>(pins: T): T =>
  Object.fromEntries(
    Object.entries(pins).map(([role, at]) => [role, at === undefined ? undefined : pinBehind(at)]),
  ) as T;
