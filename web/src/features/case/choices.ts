import { deviceConnectors, devicePins, type Wiring } from "@radicula/core";
import { t } from "@/messages";

export interface Choice {
  readonly value: string;
  readonly label: string;
}
const named = (id: string, name: string | undefined) => (name && name !== id ? `${id} ${name}` : id);

/** Parts with pins: what a code may name, and what may have been replaced. */
export const partChoices = (wiring: Wiring): Choice[] =>
  wiring.devices.filter((d) => devicePins(d).length).map((d) => ({ value: d.id, label: named(d.id, d.name) }));
export const moduleChoices = (wiring: Wiring): Choice[] =>
  wiring.devices.filter((d) => d.kind === "module").map((d) => ({ value: d.id, label: named(d.id, d.name) }));
export function connectorChoices(wiring: Wiring): Choice[] {
  return wiring.connectors.map((c) => ({
    value: c.id,
    label: named(c.id, wiring.devices.find((d) => deviceConnectors(d).includes(c.id))?.name ?? c.name),
  }));
}
/** What can be unplugged or pulled. */
export const disturbable = (wiring: Wiring): Choice[] => [
  ...connectorChoices(wiring),
  ...wiring.devices
    .filter((d) => d.kind === "fuse" || d.kind === "breaker")
    .map((d) => ({ value: d.id, label: t("job.fuse", { id: d.id }) })),
];
/** Everything with a name that work may have been done at. */
export function thingChoices(wiring: Wiring): Choice[] {
  const all = [
    ...partChoices(wiring),
    ...connectorChoices(wiring),
    ...wiring.devices.filter((d) => !devicePins(d).length).map((d) => ({ value: d.id, label: named(d.id, d.name) })),
  ];
  return [...new Map(all.map((c) => [c.value, c])).values()];
}
