import { peripheralFaults } from "./peripheralFaults.js";
import { touchingWireFaults } from "./touchingWires.js";
import { moduleFaults } from "./moduleFaults.js";
import { DEFAULTS } from "../defaults.js";
import type { Connector, Device, Wire, Wiring } from "../format/wiring.js";
import { findNets } from "../wiring/nets.js";
import { indexWiring, pinBehind, resolvePlace, wireId, type Index } from "../wiring/points.js";
import {
  elementIndex,
  fault,
  NO_SEVERITY,
  nodeIndex,
  opened,
  series,
  shuntBetween,
  type Fault,
  type FaultPlace,
} from "./fault.js";
import { CONTACT, WIRE, zoneFactor } from "./zones.js";

const { severity, prior } = DEFAULTS;

/** Every single fault this document can have, in document order. Priors already count the zones in. */
export function generateFaults(wiring: Wiring): Fault[] {
  const index = indexWiring(wiring);
  const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  const { netOf } = findNets(wiring);
  return [
    ...wiring.connectors.flatMap((c) => connectorFaults(c, wired, netOf)),
    ...wiring.wires.flatMap((w) => wireFaults(index, w)),
    ...touchingWireFaults(wiring, netOf),
    ...wiring.devices.flatMap((d) => deviceFaults(wiring, index, d)),
  ];
}

/** Connectors with more used cavities than this are not repinned by hand in a repair. */
const REPINNED = 12;

function connectorFaults(
  connector: Connector,
  wired: ReadonlySet<string>,
  netOf: ReadonlyMap<string, number>,
): Fault[] {
  const z = zoneFactor(connector.zones, CONTACT);
  const wet = connector.zones.includes("wet");
  const oily = connector.zones.includes("oily");
  const sides = (cavity: string) => {
    const name = `${connector.id}:${cavity}`;
    return connector.inline ? ([`${name}.a`, `${name}.b`] as const) : ([name, pinBehind(name)] as const);
  };
  const used = connector.cavities.filter((c) => sides(c).some((s) => wired.has(s)));
  const contacts = used.flatMap((cavity) => {
    const name = `${connector.id}:${cavity}`;
    const place: FaultPlace = { type: "cavity", id: name };
    const contact = `contact ${name}`;
    return [
      fault(place, name, "contactOpen", prior.contactOpen * z, NO_SEVERITY, opened(contact)),
      fault(
        place,
        name,
        "contactHighResistance",
        prior.contactHighResistance * z,
        severity.highResistance,
        series(contact),
      ),
      ...(oily ? [fault(place, name, "contactFilm", prior.contactFilm, severity.film, series(contact))] : []),
    ];
  });
  const pairs = used.slice(1).flatMap((second, i) => {
    const first = used[i]!;
    const name = `${connector.id}:${first}+${second}`;
    const place: FaultPlace = { type: "connector", id: connector.id };
    const [a, behindA] = sides(first);
    const [b, behindB] = sides(second);
    if (netOf.get(a) !== undefined && netOf.get(a) === netOf.get(b)) return []; // the same conductor in both
    return [
      fault(
        place,
        name,
        "cavitiesBridged",
        wet ? prior.cavitiesBridgedWet : prior.cavitiesBridged,
        severity.fluid,
        shuntBetween(a, b),
        { at: second },
      ),
      ...(used.length > REPINNED
        ? []
        : [
            fault(
              place,
              name,
              "cavitiesSwapped",
              prior.cavitiesSwapped,
              NO_SEVERITY,
              (_s, c) => ({
                ...opened(`contact ${connector.id}:${first}`, `contact ${connector.id}:${second}`)(NaN, c),
                shunts: [
                  [a, behindB],
                  [b, behindA],
                ].map(([x, y]) => ({ a: nodeIndex(c, x!), b: nodeIndex(c, y!), ohm: DEFAULTS.contactOhm })),
              }),
              { at: second },
            ),
          ]),
    ];
  });
  const unseated =
    used.length > 1
      ? [
          fault(
            { type: "connector", id: connector.id },
            connector.id,
            "unseated",
            prior.unseated * z,
            NO_SEVERITY,
            opened(...used.map((c) => `contact ${connector.id}:${c}`)),
          ),
        ]
      : [];
  return [...contacts, ...pairs, ...unseated];
}

function wireFaults(index: Index, wire: Wire): Fault[] {
  const id = wireId(wire);
  const place: FaultPlace = { type: "wire", id };
  const element = `wire ${id}`;
  const z = zoneFactor(wire.zones, WIRE);
  const ends = [wire.from, wire.to].map((e) => resolvePlace(index, e));
  const touches = (kinds: readonly Device["kind"][], terminal?: string) =>
    ends.some(
      (p) =>
        p.ok &&
        p.value.type !== "cavity" &&
        kinds.includes(p.value.device.kind) &&
        (terminal === undefined || (p.value.type === "terminal" && p.value.terminal === terminal)),
    );
  const faults = [
    fault(place, id, "open", prior.wireOpen * z, NO_SEVERITY, opened(element)),
    fault(place, id, "highResistance", prior.wireHighResistance * z, severity.highResistance, series(element)),
    fault(place, id, "fewStrands", prior.fewStrands * z, severity.strands, series(element)),
  ];
  // a wire that is itself at chassis, or itself the battery feed, cannot be shorted to it
  if (!touches(["ground"]) && !touches(["battery", "alternator"], "-"))
    faults.push(
      fault(place, id, "shortToChassis", prior.wireToChassis * z, severity.short, (ohm, c) => ({
        shunts: [{ a: nodeIndex(c, wire.from), b: 0, ohm }],
      })),
    );
  if (!touches(["battery", "alternator", "fuse", "breaker", "switch"]))
    faults.push(
      fault(place, id, "shortToSupply", prior.wireToSupply * z, severity.short, (ohm, c, volt) => ({
        shunts: [{ a: nodeIndex(c, wire.from), b: 0, ohm, volt }],
      })),
    );
  return faults;
}

function deviceFaults(wiring: Wiring, index: Index, d: Device): Fault[] {
  const contacts = zoneFactor(d.zones, CONTACT);
  const id = d.id;
  switch (d.kind) {
    case "battery": {
      const volt = d.volt ?? (DEFAULTS.batteryVolt.on * wiring.nominalVolt) / 12;
      return [
        fault(
          { type: "supply", id },
          id,
          "supplyLow",
          prior.supplyLow,
          severity.supplyLow,
          (factor, c) => {
            const element = elementIndex(c, `battery ${id}`);
            return { replace: [{ element, by: { volt: (c.elements[element]?.volt ?? volt) * factor } }] };
          },
          { unit: "factor" },
        ),
      ];
    }
    case "alternator":
      return [
        fault(
          { type: "supply", id },
          id,
          "supplyHigh",
          prior.supplyHigh,
          severity.supplyHigh,
          (factor, c) => {
            const element = elementIndex(c, `alternator ${id}`);
            return { replace: [{ element, by: { volt: (c.elements[element]?.volt ?? 0) * factor } }] };
          },
          { unit: "factor" },
        ),
        fault({ type: "supply", id }, id, "dead", prior.alternatorDead, NO_SEVERITY, opened(`alternator ${id}`)),
      ];
    case "splice":
      return spliceFaults(wiring, d, contacts);
    case "ground":
      return [
        fault(
          { type: "ground", id },
          id,
          "groundOpen",
          prior.groundOpen * contacts,
          NO_SEVERITY,
          opened(`ground ${id}`),
        ),
        fault(
          { type: "ground", id },
          id,
          "groundHighResistance",
          prior.groundHighResistance * contacts,
          severity.highResistance,
          series(`ground ${id}`),
        ),
      ];
    case "fuse":
    case "breaker":
      return [
        fault({ type: "fuse", id }, id, "fuseBlown", prior.fuseBlown, NO_SEVERITY, opened(`fuse ${id}`)),
        fault(
          { type: "fuse", id },
          id,
          "fuseHighResistance",
          prior.fuseHighResistance * contacts,
          severity.highResistance,
          series(`fuse ${id}`),
        ),
      ];
    case "switch":
      return [
        fault({ type: "switch", id }, id, "switchOpen", prior.switchOpen, NO_SEVERITY, opened(`switch ${id}`)),
        fault(
          { type: "switch", id },
          id,
          "switchHighResistance",
          prior.switchHighResistance,
          severity.highResistance,
          series(`switch ${id}`),
        ),
      ];
    case "diode":
      return [
        fault({ type: "device", id }, id, "elementOpen", prior.elementOpen, NO_SEVERITY, opened(`diode ${id}`)),
        fault(
          { type: "device", id },
          id,
          "shortInside",
          prior.internalShort,
          severity.short,
          shuntBetween(`${id}:anode`, `${id}:cathode`),
        ),
      ];
    case "module":
      return moduleFaults(d);
    default:
      return peripheralFaults(index, d);
  }
}

function spliceFaults(wiring: Wiring, d: Device, z: number): Fault[] {
  const place: FaultPlace = { type: "splice", id: d.id };
  const legs = wiring.wires.filter((w) => w.from === d.id || w.to === d.id).map(wireId);
  if (legs.length < 2) return [];
  // the whole splice is corroded: half the resistance on every leg, so that `ohm` stands between any two
  const whole = fault(
    place,
    d.id,
    "spliceHighResistance",
    prior.spliceHighResistance * z,
    severity.highResistance,
    (ohm, c) => series(...legs.map((leg) => `wire ${leg}`))(ohm / 2, c),
  );
  return [
    whole,
    ...legs.flatMap((leg) => [
      fault(
        place,
        `${d.id}~${leg}`,
        "legOpen",
        (prior.spliceOpen * z) / legs.length,
        NO_SEVERITY,
        opened(`wire ${leg}`),
        { at: leg },
      ),
      fault(
        place,
        `${d.id}~${leg}`,
        "legHighResistance",
        (prior.spliceHighResistance * z) / legs.length,
        severity.highResistance,
        series(`wire ${leg}`),
        { at: leg },
      ),
    ]),
  ];
}

/**
 * Splits `B9/shortSupplyGround@5` into the fault and its severity.
 * @returns undefined where no such fault exists here
 */
export function findFault(
  faults: readonly Fault[],
  text: string,
): { fault: Fault; ohm: number | undefined } | undefined {
  const at = text.lastIndexOf("@");
  const id = at < 0 ? text : text.slice(0, at);
  const fault = faults.find((f) => f.id === id);
  const ohm = at < 0 ? undefined : Number(text.slice(at + 1));
  if (!fault || (ohm !== undefined && !(fault.unit === "share" ? Number.isFinite(ohm) : ohm > 0))) return undefined;
  return { fault, ohm };
}
