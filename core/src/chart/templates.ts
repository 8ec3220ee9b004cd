import {
  chartRow,
  connectorRow,
  partRow,
  type Chart,
  type ChartRow,
  type ConnectorRow,
  type PartRow,
} from "../format/chart.js";
import type { Device } from "../format/wiring.js";
import { DEFAULTS } from "../defaults.js";
import { FUNCTION_WORDS, ROLES, type PinFunction } from "./functions.js";
import { writeValues } from "./values.js";

export type TemplateKind =
  | Extract<
      Device["kind"],
      | "threeWireSensor"
      | "hall"
      | "thermistor"
      | "potentiometer"
      | "pedal"
      | "coilSensor"
      | "currentLoop"
      | "smartSensor"
      | "heater"
      | "solenoid"
      | "lamp"
      | "relay"
      | "fuse"
      | "splice"
      | "ground"
      | "battery"
    >
  | "inline"
  | "busNode";
export const TEMPLATES: readonly TemplateKind[] = [
  "threeWireSensor",
  "hall",
  "thermistor",
  "potentiometer",
  "pedal",
  "coilSensor",
  "currentLoop",
  "smartSensor",
  "busNode",
  "heater",
  "solenoid",
  "lamp",
  "relay",
  "fuse",
  "splice",
  "ground",
  "battery",
  "inline",
];

const LETTER: Readonly<Record<TemplateKind, string>> = {
  threeWireSensor: "B",
  hall: "B",
  thermistor: "B",
  potentiometer: "B",
  pedal: "B",
  coilSensor: "B",
  currentLoop: "B",
  smartSensor: "B",
  heater: "E",
  solenoid: "Y",
  lamp: "H",
  relay: "K",
  fuse: "F",
  splice: "S",
  ground: "G",
  battery: "BAT",
  inline: "X",
  busNode: "A",
};
/** Generic values to overwrite, from the defaults; see there for where they come from. */
const VALUES: Readonly<Partial<Record<TemplateKind, Record<string, unknown>>>> = {
  threeWireSensor: {
    supplyAmpere: DEFAULTS.threeWireSensor.supplyAmpere,
    restShare: DEFAULTS.threeWireSensor.restShare,
  },
  hall: { supplyAmpere: DEFAULTS.hall.supplyAmpere },
  thermistor: { ohm25: DEFAULTS.thermistor.ohm25, betaKelvin: DEFAULTS.thermistor.betaKelvin },
  potentiometer: { trackOhm: DEFAULTS.potentiometer.trackOhm },
  pedal: { trackOhm: DEFAULTS.pedal.trackOhm, ratio: DEFAULTS.pedal.ratio },
  coilSensor: { ohm: DEFAULTS.coilSensor.ohm },
  smartSensor: { supplyAmpere: DEFAULTS.smartSensor.supplyAmpere },
  heater: { ohm: DEFAULTS.heaterOhm },
  solenoid: { ohm: DEFAULTS.solenoidOhm },
  lamp: { watt: DEFAULTS.lamp.watt },
  relay: { coilOhm: DEFAULTS.relay.coilOhm },
  fuse: { rating: 10 },
};
const SKIPPED: Readonly<Partial<Record<TemplateKind, readonly string[]>>> = {
  pedal: ["supply2", "ground2"],
  smartSensor: ["busLine"],
  relay: ["resting"],
};
const BUS_NODE: readonly PinFunction[] = ["supply", "ground", "busHigh", "busLow"];

/** Rows for a new part of a kind: a free name, cavities 1 to n with their functions, generic values to overwrite. */
export function addTemplate(
  chart: Chart,
  kind: TemplateKind,
): {
  readonly rows: readonly ChartRow[];
  readonly part?: PartRow;
  readonly connector?: ConnectorRow;
  readonly id: string;
} {
  const id = freeName(chart, LETTER[kind]);
  if (kind === "inline")
    return { id, rows: [chartRow({ connector: id, cavity: "1" })], connector: connectorRow({ id, inline: "yes" }) };
  const values = writeValues(VALUES[kind] ?? {});
  if (kind === "splice" || kind === "ground")
    return { id, rows: [chartRow({ connector: id })], part: partRow({ id, kind }) };
  if (kind === "fuse")
    return {
      id,
      rows: [chartRow({ connector: id, cavity: "in" }), chartRow({ connector: id, cavity: "out" })],
      part: partRow({ id, kind, values }),
    };
  if (kind === "battery")
    return {
      id,
      rows: [chartRow({ connector: id, cavity: "+" }), chartRow({ connector: id, cavity: "-" })],
      part: partRow({ id, kind }),
    };
  if (kind === "busNode")
    return {
      id,
      rows: BUS_NODE.map((f, i) =>
        chartRow({ connector: i ? "" : id, cavity: String(i + 1), function: FUNCTION_WORDS[f] }),
      ),
      part: partRow({ id, kind: "module" }),
    };
  const roles = Object.entries(ROLES[kind] ?? {}).filter(([role]) => !SKIPPED[kind]?.includes(role));
  return {
    id,
    rows: roles.map(([, functions], i) =>
      chartRow({ connector: i ? "" : id, cavity: String(i + 1), function: FUNCTION_WORDS[functions[0]!] }),
    ),
    part: partRow({ id, kind, values }),
  };
}

/** The first free name with this letter: B1, B2, … */
export function freeName(chart: Chart, letter: string): string {
  const taken = new Set(
    [
      ...chart.rows.flatMap((r) => [r.connector, ...r.goesTo.split(/[\s,;:.]+/)]),
      ...chart.parts.map((p) => p.id),
      ...chart.connectors.map((c) => c.id),
    ].map((t) => t.trim().toUpperCase()),
  );
  if (letter === "BAT" && !taken.has("BAT")) return "BAT";
  for (let i = 1; ; i++) if (!taken.has(`${letter}${i}`)) return `${letter}${i}`;
}
