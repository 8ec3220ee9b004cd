import { devicePins, type Code, type Monitor, type Wiring } from "@radicula/core";
import { t } from "@/messages";
import { wordedList } from "@radicula/core/words";

export type MonitorType = Monitor["type"];
export const MONITOR_TYPES: readonly { readonly value: MonitorType; readonly label: string }[] = wordedList(() => [
  { value: "below", label: t("codes.signalUnder") },
  { value: "above", label: t("codes.signalOver") },
  { value: "outside", label: t("codes.signalOutside") },
  { value: "noActivity", label: t("codes.signalDoesNotChange") },
  { value: "disagree", label: t("codes.twoSignalsDisagreeBy") },
  { value: "current", label: t("codes.driverCurrentOutside") },
  { value: "silent", label: t("codes.nothingHeardFrom2") },
]);
const ROLES: Readonly<Record<MonitorType, ReadonlySet<string>>> = {
  below: new Set(["input", "reference"]),
  above: new Set(["input", "reference"]),
  outside: new Set(["input", "reference"]),
  noActivity: new Set(["input"]),
  disagree: new Set(["input"]),
  current: new Set(["lowSide", "highSide"]),
  silent: new Set(),
};

export interface ConditionChoice {
  readonly value: string;
  readonly label: string;
}

/** Pins of the code's module that a condition of this type can watch. */
export function pinsFor(wiring: Wiring, code: Code, type: MonitorType): ConditionChoice[] {
  const owner = wiring.devices.find((d) => d.id === code.module);
  if (owner?.kind !== "module") return [];
  return owner.pins
    .filter((p) => ROLES[type].has(p.role))
    .map((p) => ({ value: p.at, label: "name" in p && p.name ? `${p.at} ${p.name}` : p.at }));
}
export const partsFor = (wiring: Wiring, code: Code): ConditionChoice[] =>
  wiring.devices
    .filter((d) => devicePins(d).length && d.id !== code.module)
    .map((d) => ({ value: d.id, label: d.name ? `${d.id} ${d.name}` : d.id }));

/** A condition to begin with; figures are common practice, no source. */
export function startOf(
  type: MonitorType,
  pins: readonly ConditionChoice[],
  node: string,
  before: Monitor | undefined,
): Monitor {
  const at = pins[0]?.value ?? "";
  const more = {
    ...(before?.when ? { when: before.when } : {}),
    ...(before?.seconds ? { seconds: before.seconds } : {}),
  };
  switch (type) {
    case "below":
      return { type, at, volt: 0.25, ...more };
    case "above":
      return { type, at, volt: 4.75, ...more };
    case "outside":
      return { type, at, low: 0.25, high: 4.75, ...more };
    case "noActivity":
      return { type, at, ...more };
    case "disagree":
      return { type, at, other: pins[1]?.value ?? at, ratio: 1, volt: 0.3, ...more };
    case "current":
      return { type, at, low: 0.02, ...more };
    case "silent":
      return { type, node, ...more };
  }
}
