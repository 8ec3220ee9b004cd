import {
  barredConnectors,
  connectorOf,
  isPoint,
  meterPoints,
  wireId,
  type ChannelPlace,
  type Wiring,
} from "@radicula/core";
import type { Instructor, Namer } from "@radicula/core/words";
import { t } from "@/messages";

export interface PlaceChoice {
  readonly value: string;
  readonly label: string;
}

/** How a choice is written: the instrument and the place. */
export const placeValue = ({ by, on }: Pick<ChannelPlace, "by" | "on">) => `${by} ${on}`;
export function placeOfValue(value: string): ChannelPlace {
  const [by, ...on] = value.split(" ");
  return { by: by as ChannelPlace["by"], on: on.join(" ") };
}

/** Everywhere a channel can have been: points for a lead, values of the scan tool, wires for a clamp. */
export function placeChoices(wiring: Wiring, namer: Namer, instructor: Instructor): PlaceChoice[] {
  const barred = barredConnectors(wiring);
  return [
    ...meterPoints(wiring)
      .filter((p) => !barred.has(connectorOf(p)))
      .map((on) => ({
        value: placeValue({ by: "scope", on }),
        label: `${namer.point(on)} · ${instructor.functionOf(on)}`,
      })),
    ...wiring.devices.flatMap((d) =>
      d.kind === "module"
        ? d.pins
            .filter((p) => p.role === "input")
            .map((p) => ({
              value: placeValue({ by: "scanTool", on: p.at }),
              label: t("recording.scanToolAt", { point: namer.point(p.at), functionOf: instructor.functionOf(p.at) }),
            }))
        : [],
    ),
    ...wiring.wires.map((w) => ({
      value: placeValue({ by: "clamp", on: wireId(w) }),
      label: t("recording.clampOn", { from: namer.point(w.from), to: namer.point(w.to), id: wireId(w) }),
    })),
  ];
}

/** Where a channel was, as its name tells; undefined where it does not. */
export function guessedPlace(wiring: Wiring, name: string, unit: string): ChannelPlace | undefined {
  const on = name.trim();
  if (wiring.wires.some((w) => wireId(w) === on)) return { on, by: "clamp" };
  return unit !== "A" && isPoint(wiring, on) ? { on, by: "scope" } : undefined;
}
