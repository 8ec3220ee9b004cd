import { DEFAULTS } from "../defaults.js";
import type { Code, CodeFamily, Device, Monitor, Wiring } from "../format/wiring.js";
import type { Nets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";
import { FAILURE_TYPES } from "./failureType.js";

/** Words in titles that tell the family, most telling first (common practice, no source). */
const TITLE_WORDS: readonly (readonly [RegExp, CodeFamily])[] = [
  [/lost comm|no comm|not communicating|missing message|silent|bus off/i, "lostCommunication"],
  [/no activity|no signal|missing signal|no pulse|erratic/i, "noActivity"],
  [/heater|driver|coil|solenoid|actuator|control circuit|lamp circuit|relay/i, "driver"],
  [/short(ed)? to (ground|chassis)|below|low/i, "low"],
  [/short(ed)? to (battery|supply|positive)|above|high/i, "high"],
  [/range|performance|rationality|plausib|disagree|correlation/i, "performance"],
  [/circuit|open|malfunction/i, "circuit"],
];
/** Failure mode identifiers of heavy machines (SAE J1939-73; values from memory). */
const FMI_FAMILY: Readonly<Record<number, CodeFamily>> = {
  0: "performance",
  1: "performance",
  2: "performance",
  3: "high",
  4: "low",
  5: "driver",
  6: "driver",
  8: "noActivity",
  9: "lostCommunication",
  10: "performance",
  19: "lostCommunication",
};

/** The family of a code: as stated, else from its failure type byte, its failure mode (SPN … FMI …), or its title. */
export function familyOf(code: Pick<Code, "id" | "title" | "family" | "failureType">): CodeFamily | undefined {
  if (code.family) return code.family;
  const byType = code.failureType === undefined ? undefined : FAILURE_TYPES[parseInt(code.failureType, 16)]?.family;
  if (byType) return byType;
  const fmi = /\bFMI\s*(\d{1,2})\b/i.exec(code.id)?.[1];
  if (fmi !== undefined) return FMI_FAMILY[Number(fmi)];
  return TITLE_WORDS.find(([words]) => words.test(code.title ?? ""))?.[1];
}

/**
 * The volts a module finds plausible: those at rest of a sensor on a 5 V reference, with some slack; for any other part
 * all but the neighbourhood of the rails. Common practice, no source.
 */
function plausibleRange(about: Device): { readonly low: number; readonly high: number } {
  const usual =
    about.kind === "threeWireSensor"
      ? (about.restShare ?? DEFAULTS.threeWireSensor.restShare)
      : about.kind === "potentiometer"
        ? (about.restShare ?? DEFAULTS.potentiometer.restShare)
        : undefined;
  if (!usual) return { low: RAIL.low + SLACK_VOLT, high: RAIL.high - SLACK_VOLT };
  const { referenceVolt } = DEFAULTS.module;
  return { low: usual[0] * referenceVolt - SLACK_VOLT, high: usual[1] * referenceVolt + SLACK_VOLT };
}
/** How far a value may stand off before it is implausible, volt. Judgement. */
const SLACK_VOLT = 0.25;

const LOADS: ReadonlySet<string> = new Set(["heater", "solenoid", "lamp", "relay"]);
/** Sensors whose level at rest says nothing. */
const SWITCHING: ReadonlySet<string> = new Set(["hall", "coilSensor"]);
/** Less than this through a driven load is none, ampere; so many times its current is a short. Common practice. */
const NO_CURRENT = 0.02;
const TOO_MUCH = 2.5;

/** "high" is too much current, "low" none; "circuit" and "performance" may be either. */
function driverMonitor(wiring: Wiring, load: Device, family: CodeFamily, at: string): Monitor {
  const scale = (wiring.nominalVolt / 12) ** 2;
  const ohm =
    load.kind === "relay"
      ? (load.coilOhm ?? DEFAULTS.relay.coilOhm * scale)
      : load.kind === "lamp"
        ? wiring.nominalVolt ** 2 / (load.watt ?? DEFAULTS.lamp.watt)
        : load.kind === "heater"
          ? (load.ohm ?? DEFAULTS.heaterOhm * scale)
          : load.kind === "solenoid"
            ? (load.ohm ?? DEFAULTS.solenoidOhm * scale)
            : undefined;
  const high = ohm === undefined ? undefined : (TOO_MUCH * wiring.nominalVolt) / ohm;
  const tooMuch = family !== "low" && family !== "driver" && high !== undefined ? { high } : {};
  return { type: "current", at, ...(family === "high" && high !== undefined ? {} : { low: NO_CURRENT }), ...tooMuch };
}

/** A 5 V input: railed below or above these, volt (common practice, no source). */
const RAIL = { low: 0.25, high: 4.75 };

/**
 * A broad set condition for a code whose own is not known, from what it names and its family.
 * @returns undefined where that is not enough to judge by: such a code weighs nothing
 */
export function broadMonitor(wiring: Wiring, nets: Nets, code: Code): Monitor | undefined {
  const family = familyOf(code);
  const about = wiring.devices.find((d) => d.id === code.about);
  if (!family || !about) return undefined;
  if (family === "lostCommunication") return { type: "silent", node: about.id };
  // a code about a load is about its driver, whatever its words
  const isDriver = family === "driver" || LOADS.has(about.kind);
  const wanted = isDriver ? ["feed", "ground", "coilLow", "coilHigh"] : ["signal", "signal2", "high"];
  const module = wiring.devices.find((d) => d.id === code.module);
  if (module?.kind !== "module") return undefined;
  const roles: ReadonlySet<string> = new Set(isDriver ? ["lowSide", "highSide"] : ["input"]);
  const pins = devicePins(about)
    .filter((p) => wanted.includes(p.role))
    .flatMap((p) => {
      const at = nets.modulePinOf(p.at);
      return at === undefined ? [] : [at];
    });
  const at = pins.find((pin) => module.pins.some((p) => p.at === pin && roles.has(p.role)));
  if (at === undefined) return undefined;
  if (isDriver) return driverMonitor(wiring, about, family, at);
  // either level of a switching sensor is sound: what it can mean is that it stays there
  if (SWITCHING.has(about.kind) && (family === "low" || family === "high"))
    return { type: "noActivity", at, stuck: family };
  if (SWITCHING.has(about.kind)) return { type: "noActivity", at };
  switch (family) {
    case "low":
      return { type: "below", at, volt: RAIL.low };
    case "high":
      return { type: "above", at, volt: RAIL.high };
    case "circuit":
      return { type: "outside", at, low: RAIL.low, high: RAIL.high };
    case "noActivity":
      return { type: "noActivity", at };
    case "performance":
      return { type: "outside", at, ...plausibleRange(about) };
  }
}
