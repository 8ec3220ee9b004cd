import type { Device } from "../format/wiring.js";
import { assignRoles, type PinFunction } from "./functions.js";

type Kind = Device["kind"];
/**
 * What is known of one part when its kind is guessed: its cavities with what they are for, and the nets they are on.
 */
export interface PartPins {
  readonly id: string;
  readonly name: string;
  readonly pins: readonly {
    readonly cavity: string;
    readonly function: PinFunction | undefined;
    readonly net: number;
  }[];
}

/** Words in names that tell the kind (common practice, no source). */
const NAME_WORDS: readonly (readonly [RegExp, Kind])[] = [
  [/\bmodule\b|control unit|controller/i, "module"],
  [/\brelay\b/i, "relay"],
  [/\bpedal\b/i, "pedal"],
  [/terminator|terminating/i, "terminator"],
  [/heater|glow/i, "heater"],
  [/\blamp\b|\blight\b|beacon/i, "lamp"],
  [/valve|solenoid|injector|actuator/i, "solenoid"],
  [/\bhall\b/i, "hall"],
  [/potentiometer|\bpot\b|throttle position|lever/i, "potentiometer"],
  [/temperature|thermistor|\btemp\b/i, "thermistor"],
];
const MODULE_NAME = /^(A|ECU|ECM|MCU|CU|M|TCU|BCU)\d*$/i;
const SIGNAL: ReadonlySet<PinFunction | undefined> = new Set<PinFunction | undefined>([
  "signal",
  "signal2",
  "lowSide",
  "high",
  "low",
]);

/**
 * Which parts are modules: those that the signals of others end at. One that is named like a module, or that hears
 * several others, is one; where none is, the one that hears most.
 */
export function guessModules(parts: readonly PartPins[]): ReadonlySet<string> {
  const onNet = new Map<number, Set<string>>();
  for (const p of parts)
    for (const pin of p.pins)
      if (SIGNAL.has(pin.function)) onNet.set(pin.net, (onNet.get(pin.net) ?? new Set()).add(p.id));
  const partners = new Map(
    parts.map((p) => [
      p.id,
      new Set(
        p.pins.flatMap((pin) =>
          [...(onNet.get(pin.net) ?? [])].filter((id) => id !== p.id && SIGNAL.has(pin.function)),
        ),
      ),
    ]),
  );
  const heard = (p: PartPins) => partners.get(p.id)!.size;
  const named = parts.filter(
    (p) => heard(p) > 0 && (/\bmodule\b|control unit|controller/i.test(p.name) || MODULE_NAME.test(p.id)),
  );
  if (named.length) return new Set([...named, ...parts.filter((p) => heard(p) >= 3)].map((p) => p.id));
  const several = parts.filter((p) => heard(p) >= 2);
  if (several.length) return new Set(several.map((p) => p.id));
  const most = [...parts].sort((a, b) => heard(b) - heard(a) || b.pins.length - a.pins.length)[0];
  return new Set(most && heard(most) > 0 ? [most.id] : []);
}

/**
 * The kind of a part from what its cavities are for and its name.
 * @returns undefined where that does not tell
 */
export function guessKind(part: PartPins): Kind | undefined {
  const functions = part.pins.map((p) => p.function).filter((f): f is PinFunction => f !== undefined);
  const has = (...list: PinFunction[]) => functions.some((f) => list.includes(f));
  const fits = (kind: Kind | undefined) => kind !== undefined && assignRoles(kind, part.pins).missing.length === 0;
  const named = NAME_WORDS.find(([words]) => words.test(part.name))?.[1];
  if (named && named !== "module" && fits(named)) return named;
  if (has("coilHigh", "coilLow")) return fits("relay") ? "relay" : undefined;
  if (has("busHigh", "busLow", "busLine"))
    return has("supply", "reference")
      ? fits("smartSensor")
        ? "smartSensor"
        : undefined
      : fits("terminator")
        ? "terminator"
        : undefined;
  const ground = has("ground", "sensorGround", "ground2");
  const fed = has("supply", "reference", "supply2", "highSide");
  if (has("signal", "signal2") && fed && ground)
    return has("signal2") && has("signal") ? "pedal" : has("reference") ? "threeWireSensor" : "hall";
  if (has("high", "low") || functions.filter((f) => SIGNAL.has(f)).length === 2)
    return fits("coilSensor") ? "coilSensor" : undefined;
  if (has("signal") && ground)
    return /speed|crank|cam|wheel|pickup|coil/i.test(part.name) ? "coilSensor" : "thermistor";
  if (has("signal") && fed) return "currentLoop";
  if (fed && (ground || has("lowSide")) && part.pins.length === 2) return "solenoid";
  return undefined;
}
