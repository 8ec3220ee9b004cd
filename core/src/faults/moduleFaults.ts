import { scaled } from "./edits.js";
import { DEFAULTS } from "../defaults.js";
import type { ModulePin } from "../format/wiring.js";
import { type DeviceOf } from "../format/wiring.js";
import { innerGround } from "../network/compileModule.js";
import { pinBehind } from "../wiring/points.js";
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

const { severity, prior } = DEFAULTS;

/** A driver that is pulsed is off for a part of its period. */
const MOST_DUTY = 0.98;

/** What may be wrong with a module: no power, no ground, and at each pin what its role allows. */
export function moduleFaults(d: DeviceOf<"module">): Fault[] {
  const place = modulePlace(d);
  const grounds = d.pins.filter((p) => p.role === "ground").map((p) => `inside ${p.at}`);
  const asleep: Fault["edit"] = (_s, c) => ({ asleep: [c.gateOf.get(d.id)!] });
  return [
    fault(place, d.id, "moduleUnpowered", prior.moduleUnpowered, NO_SEVERITY, asleep),
    ...(grounds.length
      ? [fault(place, d.id, "moduleGroundOpen", prior.inputDamaged, NO_SEVERITY, opened(...grounds))]
      : []),
    ...d.pins.flatMap((pin) => pinFaults(d, pin)),
  ];
}
const modulePlace = (d: DeviceOf<"module">): FaultPlace => ({ type: "module", id: d.id });

function pinFaults(d: DeviceOf<"module">, pin: ModulePin): Fault[] {
  const place = modulePlace(d);
  const at = { at: pin.at };
  const one = (mode: FaultMode, rate: number, edit: Fault["edit"]) =>
    fault(place, pin.at, mode, rate, NO_SEVERITY, edit, at);
  switch (pin.role) {
    case "supply":
    case "ground":
    case "busLow":
      return [];
    case "reference": {
      const weak: Fault["edit"] = (factor, c) => scaled(c, `reference ${pin.at}`, "volt", factor);
      return [
        one("referenceDead", prior.referenceDead, dead(`reference ${pin.at}`)),
        fault(place, pin.at, "referenceWeak", prior.referenceWeak, severity.weak, weak, { ...at, unit: "factor" }),
        fault(
          place,
          pin.at,
          "referenceResistive",
          prior.referenceResistive,
          severity.highResistance,
          series(`reference ${pin.at}`),
          at,
        ),
      ];
    }
    case "sensorGround":
      return [one("sensorGroundOpen", prior.inputDamaged, opened(`inside ${pin.at}`))];
    case "input":
    case "busLine": {
      const short = shuntBetween(pinBehind(pin.at), innerGround(d.id, pin.domain));
      return [fault(place, pin.at, "inputShort", prior.inputDamaged, severity.short, short, at)];
    }
    case "lowSide":
    case "highSide": {
      const stuck: Fault["edit"] = (_s, c) => ({
        replace: [{ element: elementIndex(c, `driver ${pin.at}`), by: { duty: 1 } }],
      });
      const pulsed: Fault["edit"] = (factor, c) => {
        const element = elementIndex(c, `driver ${pin.at}`);
        return { replace: [{ element, by: { duty: Math.min(MOST_DUTY, factor * c.elements[element]!.duty) } }] };
      };
      return [
        one("driverDead", prior.driverDead, dead(`driver ${pin.at}`)),
        one("driverStuck", prior.driverStuck, stuck),
        ...(pin.duty === undefined || pin.duty >= 1
          ? []
          : [fault(place, pin.at, "dutyWrong", prior.dutyWrong, severity.duty, pulsed, { ...at, unit: "factor" })]),
      ];
    }
    case "busHigh": {
      const hasLow = d.pins.some((p) => p.role === "busLow" && (p.bus ?? "") === (pin.bus ?? ""));
      const talk = dead(`dominant high ${d.id} ${pin.at}`, `dominant low ${d.id} ${pin.at}`);
      return hasLow ? [one("busDriverDead", prior.driverDead, talk)] : [];
    }
  }
}
