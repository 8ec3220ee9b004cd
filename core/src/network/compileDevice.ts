import { DEFAULTS } from "../defaults.js";
import type { Device, DeviceOf } from "../format/wiring.js";
import { pinNodes, type Builder } from "./builder.js";
import { filamentOf, thermistorOhm } from "./laws.js";

type Peripheral = Exclude<
  Device,
  { kind: "battery" | "alternator" | "fuse" | "breaker" | "switch" | "diode" | "splice" | "ground" | "module" }
>;

/** Sensors, actuators and relays: what stands behind the cavities of a device's own connector. */
export function addPeripheral(b: Builder, device: Peripheral): void {
  const { id } = device;
  const volts = b.wiring.nominalVolt;
  switch (device.kind) {
    case "relay":
      addRelay(b, device);
      return;
    case "threeWireSensor":
      addThreeWireSensor(b, device);
      return;
    case "potentiometer": {
      const d = DEFAULTS.potentiometer;
      const pins = pinNodes(device.pins);
      const ohm = {
        track: b.known(id, "trackOhm", device.trackOhm, undefined, d.trackOhm),
        wiper: b.known(id, "wiperOhm", device.wiperOhm, undefined, d.wiperOhm),
      };
      addTrack(
        b,
        id,
        pins.supply,
        pins.ground,
        pins.signal,
        b.condition(id, device.follows, device.restShare ?? d.restShare),
        ohm,
      );
      return;
    }
    case "pedal":
      addPedal(b, device);
      return;
    case "thermistor":
      addThermistor(b, device);
      return;
    case "hall":
      addHall(b, device);
      return;
    case "coilSensor": {
      const d = DEFAULTS.coilSensor;
      const pins = pinNodes(device.pins);
      const turning = b.key === "cranking" || b.key === "running";
      b.add({
        id: `element ${id}`,
        type: "source",
        a: b.node(pins.high),
        b: b.node(pins.low),
        ohm: b.known(id, "ohm", device.ohm, undefined, d.ohm),
        volt: turning ? b.wide(id, "volt", undefined, d.volt) : 0,
        steel: "generates",
      });
      return;
    }
    case "currentLoop": {
      const d = DEFAULTS.currentLoop;
      const pins = pinNodes(device.pins);
      const ampere = b.condition(id, undefined, device.restMilliampere ?? d.restMilliampere) / 1000;
      b.add({
        id: `element ${id}`,
        type: "limiter",
        a: b.node(pins.supply),
        b: b.node(pins.signal),
        volt: 1,
        limitAmpere: ampere,
        ohm: b.known(id, "dropOutVolt", device.dropOutVolt, undefined, d.dropOutVolt) / ampere,
      });
      return;
    }
    case "smartSensor": {
      const d = DEFAULTS.smartSensor;
      const pins = pinNodes(device.pins);
      const ampere = b.known(id, "supplyAmpere", device.supplyAmpere, undefined, d.supplyAmpere);
      const starts = b.wide(id, "startsVolt", device.dropOutVolt, d.startsVolt);
      const gate = b.gate(id, [[pins.supply]], pins.ground, starts, { lowBelowVolt: DEFAULTS.bus.groundMostVolt });
      b.add({
        id: `load ${id}`,
        type: "limiter",
        a: b.node(pins.supply),
        b: b.node(pins.ground),
        limitAmpere: ampere,
        ohm: b.asleepOhm(id) ?? b.wide(id, "steadyVolt", undefined, d.steadyVolt) / ampere,
      });
      if (pins.busHigh && pins.busLow)
        b.twoWireBus(id, pins.busHigh, pins.busLow, pins.ground, gate, device.terminated);
      if (pins.busLine) b.singleWireBus(id, pins.busLine, pins.supply, pins.ground, gate, false);
      return;
    }
    case "terminator": {
      const pins = pinNodes(device.pins);
      b.resistor(
        `element ${id}`,
        pins.busHigh,
        pins.busLow,
        b.known(id, "ohm", device.ohm, undefined, DEFAULTS.bus.terminatorOhm),
      );
      return;
    }
    case "lamp": {
      const pins = pinNodes(device.pins);
      b.add({
        id: `element ${id}`,
        type: "filament",
        a: b.node(pins.feed),
        b: b.node(pins.ground),
        ...filamentOf(b.known(id, "watt", device.watt, undefined, DEFAULTS.lamp.watt), volts),
      });
      return;
    }
    case "solenoid":
      addLoad(b, device, DEFAULTS.solenoidOhm);
      return;
    case "heater":
      addLoad(b, device, DEFAULTS.heaterOhm);
      return;
  }
}

function addThermistor(b: Builder, device: DeviceOf<"thermistor">): void {
  const { id } = device;
  const d = DEFAULTS.thermistor;
  const pins = pinNodes(device.pins);
  const celsius = b.condition(id, device.follows, device.restCelsius ?? d.restCelsius);
  b.resistor(
    `element ${id}`,
    pins.signal,
    pins.ground,
    thermistorOhm(b.known(id, "ohm25", device.ohm25, undefined, d.ohm25), device.betaKelvin ?? d.betaKelvin, celsius),
  );
}

/** @param usualOhm on a 12 V machine */
function addLoad(b: Builder, { id, pins, ohm }: DeviceOf<"solenoid" | "heater">, usualOhm: number): void {
  const { feed, ground } = pinNodes(pins);
  const usual = usualOhm * (b.wiring.nominalVolt / 12) ** 2;
  b.resistor(`element ${id}`, feed, ground, b.known(id, "ohm", ohm, undefined, usual));
}

function addTrack(
  b: Builder,
  id: string,
  supply: string,
  ground: string,
  signal: string,
  at: number,
  ohm: { track: number; wiper: number },
): void {
  const share = Math.min(0.98, Math.max(0.02, at));
  const wiper = `${id} wiper`;
  b.resistor(`track ${id} upper`, supply, wiper, ohm.track * (1 - share));
  b.resistor(`track ${id} lower`, wiper, ground, ohm.track * share);
  b.resistor(`wiper ${id}`, wiper, signal, ohm.wiper);
}

function addPedal(b: Builder, device: DeviceOf<"pedal">): void {
  const d = DEFAULTS.pedal;
  const { id } = device;
  const pins = pinNodes(device.pins);
  const share = b.condition(id, undefined, device.restShare ?? d.restShare);
  const ohm = {
    track: b.known(id, "trackOhm", device.trackOhm, undefined, d.trackOhm),
    wiper: b.known(id, "wiperOhm", device.wiperOhm, undefined, d.wiperOhm),
  };
  addTrack(b, id, pins.supply, pins.ground, pins.signal, share, ohm);
  addTrack(
    b,
    `${id} second`,
    pins.supply2 ?? pins.supply,
    pins.ground2 ?? pins.ground,
    pins.signal2,
    share * (device.ratio ?? d.ratio),
    ohm,
  );
}

function addThreeWireSensor(b: Builder, device: DeviceOf<"threeWireSensor">): void {
  const d = DEFAULTS.threeWireSensor;
  const { id } = device;
  const { supply, ground, signal } = pinNodes(device.pins);
  const gate = addDie(b, device, d);
  const fullScale = device.outputVolt === undefined ? supply : addRegulator(b, id, device.outputVolt, ground, gate);
  const { ohm } = d.diode;
  b.add({ id: `back ${id}`, type: "diode", a: b.node(signal), b: b.node(supply), volt: diodeVolt(b, id), ohm });
  b.add({
    id: `output ${id}`,
    type: "follower",
    a: b.node(signal),
    b: b.node(fullScale),
    low: b.node(ground),
    gate,
    offOhm: b.wide(id, "offOhm", undefined, d.offOhm),
    ratio: b.condition(id, device.follows, device.restShare ?? d.restShare),
    ohm: b.known(id, "outputOhm", device.outputOhm, undefined, d.outputOhm),
  });
}

/** What the diodes of a chip drop, volt. */
const diodeVolt = (b: Builder, id: string) => b.wide(id, "diodeVolt", undefined, DEFAULTS.threeWireSensor.diode.volt);

/** A sensor's own regulator, that its output is a share of. @returns its node */
function addRegulator(b: Builder, id: string, volt: number, ground: string, gate: number): string {
  const { ohm, limitAmpere, offOhm } = DEFAULTS.threeWireSensor.regulator;
  const node = `${id} inner supply`;
  b.add({
    id: `regulator ${id}`,
    type: "reference",
    a: b.node(node),
    b: b.node(ground),
    volt: b.value(id, "outputVolt", volt, "reference"),
    ohm,
    limitAmpere,
    offOhm,
    gate,
  });
  return node;
}

/**
 * The chip of a sensor between its supply and ground, and the diode that lifts its output when its ground is lost: then
 * the whole chip floats up. Some have none, and their line falls. @returns the gate of its output
 */
function addDie(
  b: Builder,
  { id, pins, supplyAmpere, dropOutVolt, whenGroundLost }: DeviceOf<"threeWireSensor" | "hall">,
  d: {
    readonly supplyAmpere: number;
    readonly startsVolt: readonly [number, number];
    readonly dieVolt: readonly [number, number];
  },
): number {
  const { withoutDiode, diode, steadyVolt, railsHigh, railOhm } = DEFAULTS.threeWireSensor;
  const { supply, ground, signal } = pinNodes(pins);
  const gate = b.gate(id, [[supply]], ground, b.wide(id, "startsVolt", dropOutVolt, d.startsVolt));
  const ampere = b.known(id, "supplyAmpere", supplyAmpere, undefined, d.supplyAmpere);
  const volt = b.wide(id, "dieVolt", undefined, d.dieVolt);
  // a chip takes much the same current from a volt or two up
  b.add({
    id: `load ${id}`,
    type: "diode",
    a: b.node(supply),
    b: b.node(ground),
    volt,
    limitAmpere: ampere,
    ohm: b.wide(id, "steadyVolt", undefined, steadyVolt) / ampere,
  });
  const falls = whenGroundLost ? whenGroundLost === "low" : b.variant(id, "groundDiode") < withoutDiode;
  const ohm = falls ? Infinity : diode.ohm;
  // a stage that has lost its ground may hold its output at the supply
  const rails = !falls && b.variant(id, "railsHigh") < railsHigh;
  const rail = rails ? b.wide(id, "railOhm", undefined, railOhm) : Infinity;
  b.resistor(`rail ${id}`, supply, signal, rail, { gate, whenAsleep: true, offOhm: Infinity });
  b.add({ id: `lift ${id}`, type: "diode", a: b.node(ground), b: b.node(signal), volt: diodeVolt(b, id), ohm });
  return gate;
}

function addHall(b: Builder, device: DeviceOf<"hall">): void {
  const d = DEFAULTS.hall;
  const { id } = device;
  const { supply, ground, signal } = pinNodes(device.pins);
  const gate = addDie(b, device, d);
  // an output that pulls itself up a little: seen only where its line is open
  b.resistor(`own pull ${id}`, supply, signal, b.wide(id, "ownPullOhm", undefined, d.ownPullOhm));
  // at rest the tooth may or may not stand at the tip; a half or more counts as steel
  const steel = b.condition(id, undefined, [0, 1]) >= 0.5;
  b.resistor(
    `output ${id}`,
    signal,
    ground,
    b.known(id, "saturationOhm", device.saturationOhm, undefined, d.saturationOhm),
    { gate, steel: "conducts", offOhm: d.offOhm, ratio: steel ? 1 : 0 },
  );
}

function addRelay(b: Builder, device: DeviceOf<"relay">): void {
  const d = DEFAULTS.relay;
  const { id } = device;
  const pins = pinNodes(device.pins);
  const volts = b.wiring.nominalVolt;
  // it pulls by the coil's current, so it is judged across a tenth of the winding: a coil that is open pulls nothing
  const coil = b.known(id, "coilOhm", device.coilOhm, undefined, d.coilOhm * (volts / 12) ** 2);
  const inner = `${id} coil`;
  b.resistor(`coil ${id}`, pins.coilHigh, inner, 0.9 * coil);
  b.resistor(`armature ${id}`, inner, pins.coilLow, 0.1 * coil);
  const gate = b.gate(id, [[inner]], pins.coilLow, 0.1 * (device.pullInVolt ?? volts * d.pullsInAtShare), {
    either: true,
  });
  if (pins.working) b.resistor(`contact ${id} working`, pins.common, pins.working, d.contactOhm, { gate });
  if (pins.resting)
    b.resistor(`contact ${id} resting`, pins.common, pins.resting, d.contactOhm, { gate, whenAsleep: true });
}
