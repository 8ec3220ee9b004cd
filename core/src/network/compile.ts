import { DEFAULTS } from "../defaults.js";
import type { Device, DeviceOf, KeyState, Wire, Wiring } from "../format/wiring.js";
import { CHASSIS, pinBehind, wireId } from "../wiring/points.js";
import type { Circuit, Element, Gate } from "./element.js";

/**
 * Gives the value of one parameter of one thing. `typed` is false for a generic value.
 * Draws and simulated machines pass their own; the nominal circuit uses the value as it is.
 */
export type ValueOf = (thing: string, parameter: string, nominal: number, kind: ValueKind) => number;
export type ValueKind = "typed" | "generic" | "reference" | "battery";
/** Gives a true physical condition within its range at rest (a share, a temperature). */
export type StimulusOf = (thing: string, range: readonly [number, number]) => number;

export const nominalValue: ValueOf = (_thing, _parameter, nominal) => nominal;
export const middle: StimulusOf = (_thing, range) => (range[0] + range[1]) / 2;

/**
 * Turns a wiring document into a circuit for one key state. The topology (nodes, elements, their order) depends
 * only on the document, never on key state or values, so one analysis serves every state and draw.
 *
 * Where the document is silent: battery minus, module grounds and module supplies that are not wired are taken as
 * good (see docs/engine.md); a battery that is missing altogether is assumed.
 */
export function compile(wiring: Wiring, key: KeyState, value: ValueOf = nominalValue, stimulus: StimulusOf = middle): Circuit {
  const b = new Builder(wiring, key, value, stimulus);
  for (const connector of wiring.connectors) {
    for (const cavity of connector.cavities) {
      const name = `${connector.id}:${cavity}`;
      const [x, y] = connector.inline ? [`${name}.a`, `${name}.b`] : [name, pinBehind(name)];
      b.resistor(`contact ${name}`, x, y, DEFAULTS.contactOhm, { connector: connector.id });
    }
  }
  for (const wire of wiring.wires) b.resistor(`wire ${wireId(wire)}`, wire.from, wire.to, b.known(wireId(wire), "ohm", wire.lengthM, wireOhm(wire), DEFAULTS.wireLengthM));
  for (const device of wiring.devices) addDevice(b, device);
  return b.finish();
}

/** Copper resistance of a wire at 20 °C, ohm. Cross-sections: IEC 60228 class 5, else ρ of IEC 60028 (values from memory). */
export function wireOhm(wire: Pick<Wire, "mm2" | "lengthM">): number {
  const mm2 = wire.mm2 ?? DEFAULTS.wireMm2;
  const perKm = DEFAULTS.cableOhmPerKm[String(mm2)] ?? (DEFAULTS.copperOhmMm2PerMetre * 1000) / mm2;
  return Math.max((perKm / 1000) * (wire.lengthM ?? DEFAULTS.wireLengthM), 1e-4);
}

/** The node that a supply fault or an unwired module supply is fed from. */
export const BATTERY_POINT = "battery+";
export const batteryVolt = (wiring: Wiring, key: KeyState, on?: number) => (DEFAULTS.batteryVolt[key] / DEFAULTS.batteryVolt.on) * (on ?? DEFAULTS.batteryVolt.on * (wiring.nominalVolt / 12));

class Builder {
  private readonly nodes: string[] = [CHASSIS];
  private readonly nodeOf = new Map<string, number>([[CHASSIS, 0]]);
  private readonly elements: Element[] = [];
  readonly gates: Gate[] = [];
  readonly gateOf = new Map<string, number>();
  private readonly wired: ReadonlySet<string>;
  constructor(readonly wiring: Wiring, readonly key: KeyState, readonly value: ValueOf, readonly stimulus: StimulusOf) {
    this.wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  }

  node(name: string): number {
    const known = this.nodeOf.get(name);
    if (known !== undefined) return known;
    this.nodes.push(name);
    this.nodeOf.set(name, this.nodes.length - 1);
    return this.nodes.length - 1;
  }
  isWired(point: string): boolean { return this.wired.has(point); }
  /** a parameter that may be typed in the document; `nominal` is used with the typed tolerance when it was */
  known(thing: string, parameter: string, typed: number | undefined, nominal?: number, generic?: number): number {
    return this.value(thing, parameter, nominal ?? typed ?? generic ?? 0, typed === undefined ? "generic" : "typed");
  }
  add(e: Partial<Element> & Pick<Element, "id" | "type" | "a" | "b" | "ohm">) {
    this.elements.push({ low: 0, volt: 0, ratio: 0, limitAmpere: Infinity, gate: -1, offOhm: Infinity, connector: "", hall: false, ...e });
  }
  resistor(id: string, a: string, b: string, ohm: number, more: Partial<Element> = {}) {
    this.add({ id, type: "resistor", a: this.node(a), b: this.node(b), ohm, ...more });
  }
  gate(device: string, high: readonly string[], low: string, aboveVolt: number, needsKey: boolean): number {
    this.gates.push({ id: device, high: high.map((h) => this.node(h)), low: this.node(low), aboveVolt, needsKey });
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
    this.add({
      id: `battery ${id}`, type: "source", a: this.node(plus), b: this.node(minus),
      volt: this.value(id, "volt", batteryVolt(this.wiring, this.key, volt), "battery"),
      ohm: this.known(id, "ohm", ohm, undefined, DEFAULTS.batteryOhm),
    });
  }
  finish(): Circuit {
    return { nodes: this.nodes, nodeOf: this.nodeOf, elements: this.elements, elementOf: new Map(this.elements.map((e, i) => [e.id, i])), gates: this.gates, gateOf: this.gateOf };
  }
}

function addDevice(b: Builder, device: Device): void {
  switch (device.kind) {
    case "splice": b.node(device.id); return;
    case "ground": b.resistor(`ground ${device.id}`, device.id, CHASSIS, DEFAULTS.groundOhm); return;
    case "battery": {
      const minus = `${device.id}:-`;
      b.battery(device.id, `${device.id}:+`, minus, device.volt, device.ohm);
      if (!b.isWired(minus)) b.resistor(`assumed ${minus}`, minus, CHASSIS, DEFAULTS.groundOhm);
      return;
    }
    case "fuse":
      b.add({ id: `fuse ${device.id}`, type: "fuse", a: b.node(`${device.id}:in`), b: b.node(`${device.id}:out`), ohm: DEFAULTS.fuseOhmAmpere / device.rating, limitAmpere: device.rating * DEFAULTS.fuseMeltsAt });
      if (!b.isWired(`${device.id}:in`)) b.resistor(`assumed ${device.id}:in`, b.batteryPoint(), `${device.id}:in`, DEFAULTS.switchOhm);
      return;
    case "switch":
      b.resistor(`switch ${device.id}`, `${device.id}:in`, `${device.id}:out`, device.closedIn.includes(b.key) ? DEFAULTS.switchOhm : Infinity);
      if (!b.isWired(`${device.id}:in`)) b.resistor(`assumed ${device.id}:in`, b.batteryPoint(), `${device.id}:in`, DEFAULTS.switchOhm);
      return;
    case "module": addModule(b, device); return;
    case "threeWireSensor": addThreeWireSensor(b, device); return;
    case "potentiometer": {
      const track = b.known(device.id, "trackOhm", device.trackOhm, undefined, DEFAULTS.potentiometer.trackOhm);
      const share = Math.min(0.98, Math.max(0.02, b.stimulus(device.id, device.restShare ?? DEFAULTS.potentiometer.restShare)));
      const { supply, ground, signal } = pinNodes(device.pins);
      b.resistor(`track ${device.id} upper`, supply, `${device.id} wiper`, track * (1 - share));
      b.resistor(`track ${device.id} lower`, `${device.id} wiper`, ground, track * share);
      b.resistor(`wiper ${device.id}`, `${device.id} wiper`, signal, b.known(device.id, "wiperOhm", device.wiperOhm, undefined, DEFAULTS.potentiometer.wiperOhm));
      return;
    }
    case "thermistor": {
      const celsius = b.stimulus(device.id, device.restCelsius ?? DEFAULTS.thermistor.restCelsius);
      const ohm25 = b.known(device.id, "ohm25", device.ohm25, undefined, DEFAULTS.thermistor.ohm25);
      b.resistor(`element ${device.id}`, pinBehind(device.pins.signal), pinBehind(device.pins.ground), thermistorOhm(ohm25, device.betaKelvin ?? DEFAULTS.thermistor.betaKelvin, celsius));
      return;
    }
    case "hall": addHall(b, device); return;
  }
}

/** B equation: R = R25 · exp(B·(1/T − 1/298.15 K)). */
export function thermistorOhm(ohm25: number, betaKelvin: number, celsius: number): number {
  return ohm25 * Math.exp(betaKelvin * (1 / (celsius + 273.15) - 1 / 298.15));
}

const pinNodes = <T extends Record<string, string>>(pins: T): T => Object.fromEntries(Object.entries(pins).map(([role, at]) => [role, pinBehind(at)])) as T;

function addThreeWireSensor(b: Builder, device: DeviceOf<"threeWireSensor">): void {
  const d = DEFAULTS.threeWireSensor;
  const { supply, ground, signal } = pinNodes(device.pins);
  const feed = DEFAULTS.module.referenceVolt;
  b.resistor(`load ${device.id}`, supply, ground, feed / b.known(device.id, "supplyAmpere", device.supplyAmpere, undefined, d.supplyAmpere));
  const gate = b.gate(device.id, [supply], ground, device.dropOutVolt ?? d.dropOutVolt, false);
  b.add({
    id: `output ${device.id}`, type: "follower", a: b.node(signal), b: b.node(supply), low: b.node(ground), gate, offOhm: d.offOhm,
    ratio: b.stimulus(device.id, device.restShare ?? d.restShare),
    ohm: b.known(device.id, "outputOhm", device.outputOhm, undefined, d.outputOhm),
  });
}

function addHall(b: Builder, device: DeviceOf<"hall">): void {
  const d = DEFAULTS.hall;
  const { supply, ground, signal } = pinNodes(device.pins);
  b.resistor(`load ${device.id}`, supply, ground, DEFAULTS.module.referenceVolt / b.known(device.id, "supplyAmpere", device.supplyAmpere, undefined, d.supplyAmpere));
  const gate = b.gate(device.id, [supply], ground, device.dropOutVolt ?? d.dropOutVolt, false);
  // at rest the tooth may or may not stand at the tip; a half or more counts as steel
  const steel = b.stimulus(device.id, [0, 1]) >= 0.5;
  b.add({ id: `output ${device.id}`, type: "resistor", a: b.node(signal), b: b.node(ground), gate, hall: true, offOhm: d.offOhm, ohm: b.known(device.id, "saturationOhm", device.saturationOhm, undefined, d.saturationOhm), ratio: steel ? 1 : 0 });
}

function addModule(b: Builder, device: DeviceOf<"module">): void {
  const m = DEFAULTS.module;
  const inner = `${device.id} inner ground`;
  const of = (role: string) => device.pins.filter((p) => p.role === role);
  const grounds = of("ground").map((p) => p.at);
  for (const at of grounds) b.resistor(`inside ${at}`, pinBehind(at), inner, m.sensorGroundOhm);
  for (const at of grounds) if (!b.isWired(at)) b.resistor(`assumed ${at}`, at, CHASSIS, DEFAULTS.groundOhm);
  if (grounds.length === 0) b.resistor(`assumed ground ${device.id}`, inner, CHASSIS, DEFAULTS.groundOhm);

  const supplies = device.pins.flatMap((p) => (p.role === "supply" ? [p] : []));
  const nominal = b.wiring.nominalVolt;
  for (const p of supplies) {
    const ampere = b.known(device.id, `supplyAmpere ${p.at}`, p.supplyAmpere, undefined, m.supplyAmpere / supplies.length);
    b.resistor(`load ${p.at}`, pinBehind(p.at), inner, nominal / ampere);
    if (!b.isWired(p.at)) b.resistor(`assumed ${p.at}`, b.batteryPoint(), p.at, DEFAULTS.switchOhm);
  }
  const feeds = supplies.length ? supplies.map((p) => pinBehind(p.at)) : [b.batteryPoint()];
  const gate = b.gate(device.id, feeds, inner, nominal * m.wakesAtShare, true);

  for (const pin of device.pins) {
    const at = pinBehind(pin.at);
    if (pin.role === "sensorGround") b.resistor(`inside ${pin.at}`, at, inner, b.known(device.id, `ohm ${pin.at}`, pin.ohm, undefined, m.sensorGroundOhm));
    if (pin.role === "reference") {
      b.add({
        id: `reference ${pin.at}`, type: "reference", a: b.node(at), b: b.node(inner), gate, offOhm: m.referenceOffOhm,
        volt: b.value(device.id, `volt ${pin.at}`, pin.volt ?? m.referenceVolt, "reference"), ohm: pin.ohm ?? m.referenceOhm,
        limitAmpere: b.known(device.id, `limit ${pin.at}`, pin.limitAmpere, undefined, m.referenceLimitAmpere),
      });
    }
    if (pin.role === "input") {
      const ohm = b.known(device.id, `pull ${pin.at}`, pin.pullOhm, undefined, m.pullOhm[pin.pull]);
      const volt = pin.pull === "up" ? pin.pullVolt ?? m.pullVolt : 0;
      b.add({ id: `pull ${pin.at}`, type: "source", a: b.node(at), b: b.node(inner), volt, ohm, gate, offOhm: ohm });
    }
  }
}
