import { DEFAULTS } from "../defaults.js";
import type { Device, KeyState, Wire, Wiring } from "../format/wiring.js";
import { CHASSIS, connectorOf, devicePins, pinBehind, wireId } from "../wiring/points.js";
import { Builder, type StimulusOf, type ValueOf } from "./builder.js";
import { addModule } from "./compileModule.js";
import { addPeripheral } from "./compileDevice.js";
import type { Circuit } from "./element.js";
import { filamentOf, wireOhm } from "./laws.js";

/** What has been put into the machine for a test, or taken out of it. */
export interface Fitted {
  readonly jumpers?: readonly { readonly from: string; readonly to: string; readonly ohm: number }[] | undefined;
  /** a test lamp or other load between two points, by its rating at the machine's nominal voltage */
  readonly loads?: readonly { readonly from: string; readonly to: string; readonly watt: number }[] | undefined;
  /** fuses pulled */
  readonly pulled?: readonly string[] | undefined;
  /** fuses with a resetting breaker in their place */
  readonly breakers?: readonly string[] | undefined;
  /** true conditions set on purpose, by sensor */
  readonly conditions?: Readonly<Record<string, number>> | undefined;
}

/**
 * Turns a wiring document into a circuit for one key state. The topology (nodes, elements, their order) depends
 * only on the document and on what is fitted, never on key state or values, so one analysis serves every state and
 * draw.
 *
 * Where the document is silent: battery minus, module grounds and module supplies that are not wired are taken as
 * good (see docs/engine.md); a battery that is missing altogether is assumed.
 */
export function compile(
  wiring: Wiring,
  key: KeyState,
  value: ValueOf = nominalValue,
  stimulus: StimulusOf = middle,
  fitted: Fitted = {},
): Circuit {
  const b = new Builder(wiring, key, value, stimulus, fitted.conditions);
  for (const connector of wiring.connectors) {
    for (const cavity of connector.cavities) {
      const name = `${connector.id}:${cavity}`;
      const [x, y] = connector.inline ? [`${name}.a`, `${name}.b`] : [name, pinBehind(name)];
      b.resistor(`contact ${name}`, x, y, DEFAULTS.contactOhm, { connector: connector.id });
    }
  }
  const kinds = new Map(wiring.devices.map((d) => [d.id, d.kind]));
  for (const wire of wiring.wires) b.resistor(`wire ${wireId(wire)}`, wire.from, wire.to, ohmOf(b, wire, kinds));
  for (const device of wiring.devices) addDevice(b, device, fitted);
  // grounded through the case: what stands between part and ground point is the point's own contact
  for (const at of new Set(wiring.devices.flatMap((d) => devicePins(d).map((p) => p.at))))
    if (!at.includes(":")) b.resistor(`case ${at}`, at, pinBehind(at), DEFAULTS.groundOhm);
  for (const j of fitted.jumpers ?? []) b.resistor(`jumper ${j.from} ${j.to}`, j.from, j.to, j.ohm);
  for (const l of fitted.loads ?? [])
    b.add({
      id: `load at ${l.from}`,
      type: "filament",
      a: b.node(l.from),
      b: b.node(l.to),
      ...filamentOf(l.watt, wiring.nominalVolt),
    });
  return b.finish();
}

/** Resistance of a wire; where its length is not drawn, only the order of it is known. */
function ohmOf(b: Builder, wire: Wire, kinds: ReadonlyMap<string, Device["kind"]>): number {
  const ends = [wire.from, wire.to].map((e) => kinds.get(connectorOf(e)));
  const { cable, feed, other } = DEFAULTS.wireMm2;
  const usual = ends.some((k) => k === "battery" || k === "alternator")
    ? cable
    : ends.some((k) => k === "ground" || k === "fuse" || k === "breaker" || k === "switch")
      ? feed
      : other;
  const ohm = wireOhm(wire, usual);
  if (wire.lengthM !== undefined) return b.known(wireId(wire), "ohm", wire.lengthM, ohm);
  return b.wide(wireId(wire), "ohm", undefined, [ohm / UNDRAWN, ohm * UNDRAWN]);
}
/** A length that nobody drew is off by up to this factor from the usual one. Common practice, no source. */
const UNDRAWN = 2.5;

function addDevice(b: Builder, device: Device, fitted: Fitted): void {
  switch (device.kind) {
    case "splice":
      b.node(device.id);
      return;
    case "ground":
      b.resistor(`ground ${device.id}`, device.id, CHASSIS, DEFAULTS.groundOhm);
      return;
    case "battery": {
      const minus = `${device.id}:-`;
      b.battery(device.id, `${device.id}:+`, minus, device.volt, device.ohm);
      if (!b.isWired(minus)) b.resistor(`assumed ${minus}`, minus, CHASSIS, DEFAULTS.groundOhm);
      return;
    }
    case "alternator": {
      const a = DEFAULTS.alternator;
      const minus = `${device.id}:-`;
      b.add({
        id: `alternator ${device.id}`,
        type: "reference",
        a: b.node(`${device.id}:+`),
        b: b.node(minus),
        offOhm: a.offOhm,
        ohm: b.key === "running" ? a.ohm : Infinity,
        volt: b.value(device.id, "volt", device.volt ?? (a.volt * b.wiring.nominalVolt) / 12, "battery"),
        limitAmpere: b.known(device.id, "limitAmpere", device.limitAmpere, undefined, a.limitAmpere),
      });
      if (!b.isWired(minus)) b.resistor(`assumed ${minus}`, minus, CHASSIS, DEFAULTS.groundOhm);
      return;
    }
    case "fuse":
    case "breaker": {
      const breaker = fitted.breakers?.includes(device.id);
      const out = breaker || fitted.pulled?.includes(device.id);
      const ends = {
        type: "fuse",
        a: b.node(`${device.id}:in`),
        b: b.node(`${device.id}:out`),
        limitAmpere: device.rating * DEFAULTS.fuseMeltsAt,
      } as const;
      const ohm = DEFAULTS.fuseOhmAmpere / device.rating;
      b.add({ id: `fuse ${device.id}`, ...ends, ohm: out ? Infinity : ohm });
      // in the fuse's place and rated as it: good whatever the fuse was, and it trips as the fuse would melt
      if (breaker) b.add({ id: `breaker ${device.id}`, ...ends, ohm });
      b.feedIfUnwired(`${device.id}:in`);
      return;
    }
    case "switch":
      b.resistor(
        `switch ${device.id}`,
        `${device.id}:in`,
        `${device.id}:out`,
        device.closedIn.includes(b.key) ? DEFAULTS.switchOhm : Infinity,
      );
      b.feedIfUnwired(`${device.id}:in`);
      return;
    case "diode":
      b.add({
        id: `diode ${device.id}`,
        type: "diode",
        a: b.node(`${device.id}:anode`),
        b: b.node(`${device.id}:cathode`),
        ohm: DEFAULTS.diode.ohm,
        volt: DEFAULTS.diode.volt,
      });
      return;
    case "module":
      addModule(b, device);
      return;
    default:
      addPeripheral(b, device);
  }
}

export const nominalValue: ValueOf = (_thing, _parameter, nominal) => nominal;
export const middle: StimulusOf = (_thing, range) => (range[0] + range[1]) / 2;
