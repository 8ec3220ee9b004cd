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
      addTrack(b, id, pins.supply, pins.ground, pins.signal, b.stimulus(id, device.restShare ?? d.restShare), ohm);
      return;
    }
    case "pedal":
      addPedal(b, device);
      return;
    case "thermistor": {
      const d = DEFAULTS.thermistor;
      const pins = pinNodes(device.pins);
      const celsius = b.stimulus(id, device.restCelsius ?? d.restCelsius);
      b.resistor(
        `element ${id}`,
        pins.signal,
        pins.ground,
        thermistorOhm(
          b.known(id, "ohm25", device.ohm25, undefined, d.ohm25),
          device.betaKelvin ?? d.betaKelvin,
          celsius,
        ),
      );
      return;
    }
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
        volt: turning ? d.volt : 0,
        steel: "generates",
      });
      return;
    }
    case "currentLoop": {
      const d = DEFAULTS.currentLoop;
      const pins = pinNodes(device.pins);
      const ampere = b.stimulus(id, device.restMilliampere ?? d.restMilliampere) / 1000;
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
      b.resistor(
        `load ${id}`,
        pins.supply,
        pins.ground,
        volts / b.known(id, "supplyAmpere", device.supplyAmpere, undefined, d.supplyAmpere),
      );
      const gate = b.gate(id, [[pins.supply]], pins.ground, device.dropOutVolt ?? volts * d.dropOutShare);
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
    case "heater": {
      const pins = pinNodes(device.pins);
      const generic = (device.kind === "heater" ? DEFAULTS.heaterOhm : DEFAULTS.solenoidOhm) * (volts / 12) ** 2;
      b.resistor(`element ${id}`, pins.feed, pins.ground, b.known(id, "ohm", device.ohm, undefined, generic));
      return;
    }
  }
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
  const share = b.stimulus(id, device.restShare ?? d.restShare);
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
  b.resistor(
    `load ${id}`,
    supply,
    ground,
    DEFAULTS.module.referenceVolt / b.known(id, "supplyAmpere", device.supplyAmpere, undefined, d.supplyAmpere),
  );
  const gate = b.gate(id, [[supply]], ground, device.dropOutVolt ?? d.dropOutVolt);
  b.add({
    id: `output ${id}`,
    type: "follower",
    a: b.node(signal),
    b: b.node(supply),
    low: b.node(ground),
    gate,
    offOhm: d.offOhm,
    ratio: b.stimulus(id, device.restShare ?? d.restShare),
    ohm: b.known(id, "outputOhm", device.outputOhm, undefined, d.outputOhm),
  });
}

function addHall(b: Builder, device: DeviceOf<"hall">): void {
  const d = DEFAULTS.hall;
  const { id } = device;
  const { supply, ground, signal } = pinNodes(device.pins);
  b.resistor(
    `load ${id}`,
    supply,
    ground,
    DEFAULTS.module.referenceVolt / b.known(id, "supplyAmpere", device.supplyAmpere, undefined, d.supplyAmpere),
  );
  const gate = b.gate(id, [[supply]], ground, device.dropOutVolt ?? d.dropOutVolt);
  // at rest the tooth may or may not stand at the tip; a half or more counts as steel
  const steel = b.stimulus(id, [0, 1]) >= 0.5;
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
