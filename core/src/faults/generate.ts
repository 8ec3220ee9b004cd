import { DEFAULTS } from "../defaults.js";
import type { Device, DeviceOf, Wiring } from "../format/wiring.js";
import type { Circuit, Edit } from "../network/element.js";
import { deviceConnectors, indexWiring, pinBehind, resolvePlace, wireId, type Index } from "../wiring/points.js";
import type { Fault, FaultMode, FaultPlace } from "./fault.js";

const { severity, prior, zones } = DEFAULTS;
const NO_SEVERITY = [NaN];
const CONTACT = 0, WIRE = 1, DEVICE = 2;

/** Every single fault this document can have, in document order. Priors already count the zones in. */
export function generateFaults(wiring: Wiring): Fault[] {
  const index = indexWiring(wiring);
  return [
    ...wiring.connectors.flatMap((c) => c.cavities.flatMap((cavity) => contactFaults(wiring, c.id, cavity))),
    ...wiring.wires.flatMap((w) => wireFaults(index, w)),
    ...wiring.devices.flatMap((d) => deviceFaults(wiring, index, d)),
  ];
}

const zoneFactor = (list: readonly string[], column: number) => list.reduce((f, z) => f * (zones[z]?.[column] ?? 1), 1);
const series = (id: string) => (ohm: number, circuit: Circuit): Edit => ({ series: [{ element: elementIndex(circuit, id), ohm }] });
const opened = (id: string) => (_ohm: number, circuit: Circuit) => series(id)(Infinity, circuit);

function elementIndex(circuit: Circuit, id: string): number {
  const index = circuit.elementOf.get(id);
  if (index === undefined) throw new Error(`no element "${id}" in this circuit`);
  return index;
}
const node = (circuit: Circuit, name: string) => {
  const index = circuit.nodeOf.get(name);
  if (index === undefined) throw new Error(`no point "${name}" in this circuit`);
  return index;
};

function fault(place: FaultPlace, thing: string, mode: FaultMode, rate: number, severities: readonly number[], edit: Fault["edit"], at?: string): Fault {
  return { id: `${thing}/${mode}`, mode, place, prior: rate, severities, edit, ...(at === undefined ? {} : { at }) };
}

function contactFaults(wiring: Wiring, connectorId: string, cavity: string): Fault[] {
  const connector = wiring.connectors.find((c) => c.id === connectorId)!;
  const name = `${connectorId}:${cavity}`;
  const ends = connector.inline ? [`${name}.a`, `${name}.b`] : [name];
  if (!wiring.wires.some((w) => ends.includes(w.from) || ends.includes(w.to))) return []; // an empty cavity
  const place: FaultPlace = { type: "cavity", id: name };
  const z = zoneFactor(connector.zones, CONTACT);
  return [
    fault(place, name, "contactOpen", prior.contactOpen * z, NO_SEVERITY, opened(`contact ${name}`)),
    fault(place, name, "contactHighResistance", prior.contactHighResistance * z, severity.highResistance, series(`contact ${name}`)),
  ];
}

function wireFaults(index: Index, wire: Wiring["wires"][number]): Fault[] {
  const id = wireId(wire);
  const place: FaultPlace = { type: "wire", id };
  const z = zoneFactor(wire.zones, WIRE);
  const ends = [wire.from, wire.to].map((e) => resolvePlace(index, e));
  const touches = (kind: Device["kind"], terminal?: string) => ends.some((p) => p.ok && p.value.type !== "cavity" && p.value.device.kind === kind && (terminal === undefined || (p.value.type === "terminal" && p.value.terminal === terminal)));
  const faults = [
    fault(place, id, "open", prior.wireOpen * z, NO_SEVERITY, opened(`wire ${id}`)),
    fault(place, id, "highResistance", prior.wireHighResistance * z, severity.highResistance, series(`wire ${id}`)),
  ];
  // a wire that is itself at chassis, or itself the battery feed, cannot be shorted to it
  if (!touches("ground") && !touches("battery", "-")) faults.push(fault(place, id, "shortToChassis", prior.wireToChassis * z, severity.short, (ohm, c) => ({ shunts: [{ a: node(c, wire.from), b: 0, ohm }] })));
  if (!touches("battery") && !touches("fuse") && !touches("switch")) faults.push(fault(place, id, "shortToSupply", prior.wireToSupply * z, severity.short, (ohm, c, volt) => ({ shunts: [{ a: node(c, wire.from), b: 0, ohm, volt }] })));
  return faults;
}

function deviceFaults(wiring: Wiring, index: Index, d: Device): Fault[] {
  const contacts = zoneFactor(d.zones, CONTACT);
  switch (d.kind) {
    case "battery": return [];
    case "splice": return spliceFaults(wiring, d, contacts);
    case "ground": {
      const place: FaultPlace = { type: "ground", id: d.id };
      return [
        fault(place, d.id, "groundOpen", prior.groundOpen * contacts, NO_SEVERITY, opened(`ground ${d.id}`)),
        fault(place, d.id, "groundHighResistance", prior.groundHighResistance * contacts, severity.highResistance, series(`ground ${d.id}`)),
      ];
    }
    case "fuse": {
      const place: FaultPlace = { type: "fuse", id: d.id };
      return [
        fault(place, d.id, "fuseBlown", prior.fuseBlown, NO_SEVERITY, opened(`fuse ${d.id}`)),
        fault(place, d.id, "fuseHighResistance", prior.fuseHighResistance * contacts, severity.highResistance, series(`fuse ${d.id}`)),
      ];
    }
    case "switch": {
      const place: FaultPlace = { type: "switch", id: d.id };
      return [
        fault(place, d.id, "switchOpen", prior.switchOpen, NO_SEVERITY, opened(`switch ${d.id}`)),
        fault(place, d.id, "switchHighResistance", prior.switchHighResistance, severity.highResistance, series(`switch ${d.id}`)),
      ];
    }
    case "module": return moduleFaults(d);
    default: return sensorFaults(index, d);
  }
}

function spliceFaults(wiring: Wiring, d: Device, z: number): Fault[] {
  const place: FaultPlace = { type: "splice", id: d.id };
  const legs = wiring.wires.filter((w) => w.from === d.id || w.to === d.id).map(wireId);
  if (legs.length < 2) return [];
  // the whole splice is corroded: half the resistance on every leg, so that `ohm` stands between any two
  const whole = fault(place, d.id, "spliceHighResistance", prior.spliceHighResistance * z, severity.highResistance, (ohm, c) => ({ series: legs.map((leg) => ({ element: elementIndex(c, `wire ${leg}`), ohm: ohm / 2 })) }));
  return [whole, ...legs.flatMap((leg) => [
    fault(place, `${d.id}~${leg}`, "legOpen", (prior.spliceOpen * z) / legs.length, NO_SEVERITY, opened(`wire ${leg}`), leg),
    fault(place, `${d.id}~${leg}`, "legHighResistance", (prior.spliceHighResistance * z) / legs.length, severity.highResistance, series(`wire ${leg}`), leg),
  ])];
}

function moduleFaults(d: DeviceOf<"module">): Fault[] {
  const place: FaultPlace = { type: "module", id: d.id };
  const inner = `${d.id} inner ground`;
  return [
    fault(place, d.id, "moduleUnpowered", prior.moduleUnpowered, NO_SEVERITY, (_o, c) => ({ asleep: [c.gateOf.get(d.id)!] })),
    ...d.pins.flatMap((pin) => {
      if (pin.role === "reference") return [fault(place, pin.at, "referenceDead", prior.referenceDead, NO_SEVERITY, (_o, c) => ({ dead: [elementIndex(c, `reference ${pin.at}`)] }), pin.at)];
      if (pin.role === "sensorGround") return [fault(place, pin.at, "sensorGroundOpen", prior.inputDamaged, NO_SEVERITY, opened(`inside ${pin.at}`), pin.at)];
      if (pin.role === "input") return [fault(place, pin.at, "inputShort", prior.inputDamaged, severity.short, (ohm, c) => ({ shunts: [{ a: node(c, pinBehind(pin.at)), b: node(c, inner), ohm }] }), pin.at)];
      return [];
    }),
  ];
}

function sensorFaults(index: Index, d: Exclude<Device, { kind: "module" | "battery" | "splice" | "ground" | "fuse" | "switch" }>): Fault[] {
  const place: FaultPlace = { type: "device", id: d.id };
  const z = zoneFactor([...d.zones, ...deviceConnectors(d).flatMap((c) => index.connectors.get(c)?.zones ?? [])], DEVICE);
  const between = (a: string, b: string): Fault["edit"] => (ohm, c) => ({ shunts: [{ a: node(c, pinBehind(a)), b: node(c, pinBehind(b)), ohm }] });
  const short = (mode: FaultMode, a: string, b: string) => fault(place, d.id, mode, prior.internalShort * z, severity.short, between(a, b));
  if (d.kind === "thermistor") {
    return [
      fault(place, d.id, "elementOpen", prior.elementOpen * z, NO_SEVERITY, opened(`element ${d.id}`)),
      short("shortSignalGround", d.pins.signal, d.pins.ground),
    ];
  }
  const { supply, ground, signal } = d.pins;
  const faults = [short("shortSupplyGround", supply, ground), short("shortSignalGround", signal, ground), short("shortSignalSupply", signal, supply)];
  if (d.kind === "potentiometer") {
    faults.push(fault(place, d.id, "elementOpen", prior.elementOpen * z, NO_SEVERITY, opened(`wiper ${d.id}`)));
  } else {
    faults.push(fault(place, d.id, "dead", prior.sensorDead * z, NO_SEVERITY, (_o, c) => ({ dead: [elementIndex(c, `output ${d.id}`)] })));
  }
  return faults;
}

/** The pairs of nodes that faults of this document may join, for the analysis of its pattern. */
export function faultPairs(faults: readonly Fault[], circuit: Circuit): [number, number][] {
  return faults.flatMap((f) => (f.edit(1, circuit, 12).shunts ?? []).map((s): [number, number] => [s.a, s.b]));
}

/** Splits `B9/shortSupplyGround@5` into the fault and its severity. @returns undefined where no such fault exists here */
export function findFault(faults: readonly Fault[], text: string): { fault: Fault; ohm: number | undefined } | undefined {
  const at = text.lastIndexOf("@");
  const id = at < 0 ? text : text.slice(0, at);
  const fault = faults.find((f) => f.id === id);
  const ohm = at < 0 ? undefined : Number(text.slice(at + 1));
  if (!fault || (ohm !== undefined && !(ohm > 0))) return undefined;
  return { fault, ohm };
}
