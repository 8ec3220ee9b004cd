import { DEFAULTS } from "../defaults.js";
import type { Device, DeviceOf } from "../format/wiring.js";
import { innerGround } from "../network/compileModule.js";
import type { Circuit, Edit } from "../network/element.js";
import { deviceConnectors, pinBehind, type Index } from "../wiring/points.js";
import {
  dead,
  elementIndex,
  fault,
  NO_SEVERITY,
  opened,
  series,
  shuntBetween,
  type Fault,
  type FaultMode,
  type FaultPlace,
} from "./fault.js";
import { DEVICE, zoneFactor } from "./zones.js";

const { severity, prior } = DEFAULTS;

export function moduleFaults(d: DeviceOf<"module">): Fault[] {
  const place: FaultPlace = { type: "module", id: d.id };
  const grounds = d.pins.filter((p) => p.role === "ground");
  return [
    fault(place, d.id, "moduleUnpowered", prior.moduleUnpowered, NO_SEVERITY, (_s, c) => ({
      asleep: [c.gateOf.get(d.id)!],
    })),
    ...(grounds.length
      ? [
          fault(
            place,
            d.id,
            "moduleGroundOpen",
            prior.inputDamaged,
            NO_SEVERITY,
            opened(...grounds.map((p) => `inside ${p.at}`)),
          ),
        ]
      : []),
    ...d.pins.flatMap((pin): Fault[] => {
      const at = { at: pin.at };
      const inner = innerGround(d.id, pin.domain);
      switch (pin.role) {
        case "supply":
        case "ground":
        case "busLow":
          return [];
        case "reference":
          return [
            fault(place, pin.at, "referenceDead", prior.referenceDead, NO_SEVERITY, dead(`reference ${pin.at}`), at),
            fault(
              place,
              pin.at,
              "referenceWeak",
              prior.referenceWeak,
              severity.weak,
              (factor, c) => scaled(c, `reference ${pin.at}`, "volt", factor),
              { ...at, unit: "factor" },
            ),
          ];
        case "sensorGround":
          return [
            fault(place, pin.at, "sensorGroundOpen", prior.inputDamaged, NO_SEVERITY, opened(`inside ${pin.at}`), at),
          ];
        case "input":
        case "busLine":
          return [
            fault(
              place,
              pin.at,
              "inputShort",
              prior.inputDamaged,
              severity.short,
              (ohm, c) => shuntBetween(pinBehind(pin.at), inner)(ohm, c),
              at,
            ),
          ];
        case "lowSide":
        case "highSide":
          return [
            fault(place, pin.at, "driverDead", prior.driverDead, NO_SEVERITY, dead(`driver ${pin.at}`), at),
            fault(
              place,
              pin.at,
              "driverStuck",
              prior.driverStuck,
              NO_SEVERITY,
              (_s, c) => ({ replace: [{ element: elementIndex(c, `driver ${pin.at}`), by: { duty: 1 } }] }),
              at,
            ),
          ];
        case "busHigh":
          return d.pins.some((p) => p.role === "busLow" && (p.bus ?? "") === (pin.bus ?? ""))
            ? [
                fault(
                  place,
                  pin.at,
                  "busDriverDead",
                  prior.driverDead,
                  NO_SEVERITY,
                  dead(`dominant high ${d.id} ${pin.at}`, `dominant low ${d.id} ${pin.at}`),
                  at,
                ),
              ]
            : [];
      }
    }),
  ];
}

const scaled = (c: Circuit, id: string, field: "volt" | "ohm", factor: number): Edit => {
  const element = elementIndex(c, id);
  return { replace: [{ element, by: { [field]: c.elements[element]![field] * factor } }] };
};
/** an output that stands off from where it should by a share of its supply */
const shifted =
  (id: string) =>
  (share: number, c: Circuit): Edit => {
    const element = elementIndex(c, id);
    return {
      replace: [{ element, by: { ratio: Math.min(0.98, Math.max(0.02, c.elements[element]!.ratio + share)) } }],
    };
  };

type Peripheral = Exclude<
  Device,
  { kind: "module" | "battery" | "alternator" | "splice" | "ground" | "fuse" | "breaker" | "switch" | "diode" }
>;

/** Sensors, actuators and relays. */
export function peripheralFaults(index: Index, d: Peripheral): Fault[] {
  const place: FaultPlace = { type: d.kind === "relay" ? "relay" : "device", id: d.id };
  const id = d.id;
  const z = zoneFactor(
    [...d.zones, ...deviceConnectors(d).flatMap((c) => index.connectors.get(c)?.zones ?? [])],
    DEVICE,
  );
  const short = (mode: FaultMode, a: string, b: string, at?: string) =>
    fault(
      place,
      at === undefined ? id : `${id}~${at}`,
      mode,
      prior.internalShort * z,
      severity.short,
      shuntBetween(pinBehind(a), pinBehind(b)),
      at === undefined ? {} : { at },
    );
  const none = (mode: FaultMode, rate: number, edit: Fault["edit"]) =>
    fault(place, id, mode, rate * z, NO_SEVERITY, edit);
  const graded = (
    mode: FaultMode,
    rate: number,
    grid: readonly number[],
    unit: "factor" | "share",
    edit: Fault["edit"],
    where: FaultPlace = place,
  ) => fault(where, id, mode, rate * z, grid, edit, { unit });
  const machine: FaultPlace = { type: "machine", id };
  const three = (p: { supply: string; ground: string; signal: string }) => [
    short("shortSupplyGround", p.supply, p.ground),
    short("shortSignalGround", p.signal, p.ground),
    short("shortSignalSupply", p.signal, p.supply),
  ];
  switch (d.kind) {
    case "relay": {
      const contacts = [
        ...(d.pins.working ? [`contact ${id} working`] : []),
        ...(d.pins.resting ? [`contact ${id} resting`] : []),
      ];
      return [
        none("relayCoilOpen", prior.relayCoilOpen, opened(`coil ${id}`)),
        none("relayContactOpen", prior.relayContactOpen, opened(...contacts)),
        fault(
          place,
          id,
          "relayContactHighResistance",
          prior.relayContactHighResistance * z,
          severity.highResistance,
          series(...contacts),
        ),
        ...(d.pins.working
          ? [
              none("relayStuck", prior.relayStuck, (_s, c) =>
                shuntBetween(pinBehind(d.pins.common), pinBehind(d.pins.working!))(DEFAULTS.relay.contactOhm, c),
              ),
            ]
          : []),
      ];
    }
    case "threeWireSensor":
      return [
        ...three(d.pins),
        none("dead", prior.sensorDead, dead(`output ${id}`)),
        graded("biased", prior.biased, severity.bias, "share", shifted(`output ${id}`)),
        graded("wrongPart", prior.wrongPart, severity.wrongPart, "factor", (factor, c) => {
          const e = elementIndex(c, `output ${id}`);
          return { replace: [{ element: e, by: { ratio: Math.min(0.98, c.elements[e]!.ratio * factor) } }] };
        }),
        graded(
          "trueCondition",
          prior.trueCondition,
          severity.condition,
          "share",
          (share, c) => ({ replace: [{ element: elementIndex(c, `output ${id}`), by: { ratio: share } }] }),
          machine,
        ),
      ];
    case "potentiometer":
      return [...three(d.pins), none("elementOpen", prior.elementOpen, opened(`wiper ${id}`))];
    case "pedal": {
      const p = d.pins;
      const second = { supply: p.supply2 ?? p.supply, ground: p.ground2 ?? p.ground, signal: p.signal2 };
      return [
        ...three(p),
        none("elementOpen", prior.elementOpen, opened(`wiper ${id}`)),
        short("shortSignalGround", second.signal, second.ground, "2"),
        short("shortSignalSupply", second.signal, second.supply, "2"),
        short("shortInside", p.signal, p.signal2, "tracks"),
        fault(place, `${id}~2`, "elementOpen", prior.elementOpen * z, NO_SEVERITY, opened(`wiper ${id} second`), {
          at: "2",
        }),
      ];
    }
    case "hall":
      return [
        ...three(d.pins),
        none("dead", prior.sensorDead, dead(`output ${id}`)),
        fault(machine, id, "targetDamaged", prior.targetDamaged * z, NO_SEVERITY, dead(`output ${id}`)),
      ];
    case "thermistor":
      return [
        none("elementOpen", prior.elementOpen, opened(`element ${id}`)),
        short("shortSignalGround", d.pins.signal, d.pins.ground),
        graded("biased", prior.biased, severity.ohmBias, "factor", (factor, c) =>
          scaled(c, `element ${id}`, "ohm", factor),
        ),
        graded("wrongPart", prior.wrongPart, severity.ohmWrongPart, "factor", (factor, c) =>
          scaled(c, `element ${id}`, "ohm", factor),
        ),
      ];
    case "coilSensor":
      return [
        none("elementOpen", prior.elementOpen, opened(`element ${id}`)),
        short("shortInside", d.pins.high, d.pins.low),
        fault(machine, id, "targetDamaged", prior.targetDamaged * z, NO_SEVERITY, (_s, c) => ({
          replace: [{ element: elementIndex(c, `element ${id}`), by: { volt: 0 } }],
        })),
      ];
    case "currentLoop":
      return [
        none("elementOpen", prior.elementOpen, opened(`element ${id}`)),
        short("shortSignalSupply", d.pins.signal, d.pins.supply),
        graded("biased", prior.biased, severity.loopBias, "factor", (factor, c) => {
          const e = elementIndex(c, `element ${id}`);
          return { replace: [{ element: e, by: { limitAmpere: c.elements[e]!.limitAmpere * factor } }] };
        }),
      ];
    case "smartSensor": {
      const { supply, ground, busHigh, busLow, busLine } = d.pins;
      const talk = busHigh && busLow ? [`dominant high ${id}`, `dominant low ${id}`] : busLine ? [`talk ${id}`] : [];
      return [
        short("shortSupplyGround", supply, ground),
        ...(busHigh && busLow ? [short("shortInside", busHigh, busLow, "bus")] : []),
        ...(talk.length
          ? [none("dead", prior.sensorDead, (_s, c) => ({ asleep: [c.gateOf.get(id)!], ...dead(...talk)(NaN, c) }))]
          : []),
      ];
    }
    case "terminator":
      return [
        none("elementOpen", prior.elementOpen, opened(`element ${id}`)),
        short("shortInside", d.pins.busHigh, d.pins.busLow),
      ];
    case "lamp":
      return [
        none("elementOpen", prior.lampOpen, opened(`element ${id}`)),
        short("shortInside", d.pins.feed, d.pins.ground),
      ];
    case "solenoid":
    case "heater":
      return [
        none("elementOpen", prior.elementOpen, opened(`element ${id}`)),
        short("shortInside", d.pins.feed, d.pins.ground),
        fault(place, id, "highResistance", prior.wireHighResistance * z, severity.element, series(`element ${id}`)),
      ];
  }
}
