import { preferredWithUnit, STORED_UNITS, type Device, type Units, type Wiring } from "../src/index.js";
import { t } from "./messages/index.js";

/** How the true condition at a sensor is set on purpose, and in what it is given. */
export interface StimulusWords {
  readonly kind: "steel" | "share" | "celsius" | "milliampere";
  readonly unit: string;
  readonly least: number;
  readonly most: number;
}
const STIMULI: Readonly<Partial<Record<Device["kind"], StimulusWords>>> = {
  hall: { kind: "steel", unit: "", least: 0, most: 1 },
  coilSensor: { kind: "steel", unit: "", least: 0, most: 1 },
  threeWireSensor: { kind: "share", unit: "%", least: 0, most: 100 },
  potentiometer: { kind: "share", unit: "%", least: 0, most: 100 },
  pedal: { kind: "share", unit: "%", least: 0, most: 100 },
  thermistor: { kind: "celsius", unit: "°C", least: -60, most: 1200 },
  currentLoop: { kind: "milliampere", unit: "mA", least: 0, most: 30 },
};

/** What can be done to a part on purpose; undefined where nothing can. */
export const stimulusOf = (device: Pick<Device, "kind">): StimulusWords | undefined => STIMULI[device.kind];

/** `steel at the tip of B20`, `B4 at 50 %`. @param value as it stands in a state */
export function stimulusText(wiring: Wiring, id: string, value: number, units: Units = STORED_UNITS): string {
  const device = wiring.devices.find((d) => d.id === id);
  const words = device && stimulusOf(device);
  if (!words) return t("stimulus.at", { id, value });
  if (words.kind === "steel")
    return value >= 0.5 ? t("stimulus.steelAtTheTipOf", { id }) : t("stimulus.noSteelAtTheTipOf", { id });
  return words.kind === "share"
    ? t("stimulus.at2", { id, value: Math.round(100 * value) })
    : t("stimulus.at3", { id, value: preferredWithUnit(value, words.unit, units) });
}
