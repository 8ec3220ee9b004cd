import { chartRow, CHART_FORMAT, type Chart, type ChartRow, type ConnectorRow, type PartRow } from "../format/chart.js";
import { noPages } from "../format/sheet.js";
import type { Connector, Device, Wiring } from "../format/wiring.js";
import { STAR_KINDS, TERMINALS } from "../wiring/kinds.js";
import { devicePins } from "../wiring/points.js";
import { findNets } from "../wiring/nets.js";
import { FUNCTION_WORDS, type PinFunction } from "./functions.js";
import { PIN, writeValues } from "./values.js";

const FROM_ROLE: Readonly<Record<string, PinFunction>> = {
  supply: "supply",
  supply2: "supply2",
  feed: "supply",
  ground: "ground",
  ground2: "ground2",
  signal: "signal",
  signal2: "signal2",
  high: "high",
  low: "low",
  input: "signal",
  reference: "reference",
  sensorGround: "sensorGround",
  lowSide: "lowSide",
  highSide: "highSide",
  busHigh: "busHigh",
  busLow: "busLow",
  busLine: "busLine",
  coilHigh: "coilHigh",
  coilLow: "coilLow",
  common: "common",
  working: "working",
  resting: "resting",
};
const WHERE = [
  "name",
  "place",
  "side",
  "comesOff",
  "lookAlikes",
  "partNumber",
  "alsoNumbers",
  "zones",
  "reachMinutes",
  "cautions",
] as const;

/**
 * A wiring as a pin chart: one row for every cavity and for every wire that leaves a splice or terminal. A wire stands
 * in the row of the end it is drawn from. `buildChart` makes the same wiring of it again.
 */
export function chartOf(wiring: Wiring): Chart {
  const leaving = new Map<string, ChartRow[]>();
  const nets = findNets(wiring);
  const ids = new Set(wiring.wires.map((w) => w.id));
  for (const w of wiring.wires) {
    const row = chartRow({
      goesTo: w.to,
      colour: w.colour ?? "",
      mm2: text(w.mm2),
      lengthM: text(w.lengthM),
      bundle: w.bundle ?? "",
      zones: w.zones.join(" "),
      source: w.source ?? "",
      wire: w.id && ids.has(w.id) ? w.id : "",
    });
    leaving.set(w.from, [...(leaving.get(w.from) ?? []), row]);
  }
  const pinOf = new Map(
    wiring.devices.flatMap((d) => devicePins(d).map((p) => [p.at, { device: d, role: p.role }] as const)),
  );
  const rows: ChartRow[] = [];
  for (const c of wiring.connectors)
    for (const cavity of c.cavities) {
      const point = `${c.id}:${cavity}`;
      if (c.inline) {
        const both = (["a", "b"] as const).flatMap((side) =>
          (leaving.get(`${point}.${side}`) ?? []).map((r) => ({ ...r, connector: c.id, cavity: `${cavity}.${side}` })),
        );
        rows.push(...(both.length ? both : [chartRow({ connector: c.id, cavity })]));
        continue;
      }
      const pin = pinOf.get(point);
      const wired = leaving.get(point)?.[0] ?? chartRow();
      rows.push({
        ...wired,
        connector: c.id,
        cavity,
        function: pin ? functionWords(pin.role, nets.functionOf(point)) : "",
        part: pin && pin.device.id !== c.id ? pin.device.id : "",
        values: pin?.device.kind === "module" ? pinValues(pin.device, point) : "",
      });
    }
  for (const d of wiring.devices) {
    if (STAR_KINDS.has(d.kind)) rows.push(...(leaving.get(d.id) ?? []).map((r) => ({ ...r, connector: d.id })));
    for (const t of TERMINALS[d.kind] ?? [])
      rows.push(...(leaving.get(`${d.id}:${t}`) ?? []).map((r) => ({ ...r, connector: d.id, cavity: t })));
  }
  const guessed = new Set(wiring.guesses);
  const settled = [...[...pinOf.keys()], ...wiring.devices.map((d) => d.id)].filter((p) => !guessed.has(p));
  return {
    format: CHART_FORMAT,
    version: 1,
    name: wiring.name,
    nominalVolt: wiring.nominalVolt,
    machineType: wiring.machineType ?? "",
    note: wiring.note ?? "",
    rows,
    connectors: wiring.connectors.map(connectorRowOf),
    parts: wiring.devices.map((d) =>
      partRowOf(
        d,
        d.kind === "module" ? [] : devicePins(d).filter((p) => !p.at.includes(":") || pinOf.get(p.at)!.device !== d),
      ),
    ),
    codes: [...wiring.codes],
    claims: [...(wiring.claims ?? [])],
    resets: [...(wiring.resets ?? [])],
    read: guessed.size ? settled : [],
    pages: wiring.pages ?? noPages(),
  };
}
const text = (value: number | undefined) => (value === undefined ? "" : String(value));

function functionWords(role: string, net: string): string {
  const f = FROM_ROLE[role];
  if (!f) return "";
  if (role === "supply" && net === "reference") return FUNCTION_WORDS.reference;
  if (role === "ground" && net === "sensorGround") return FUNCTION_WORDS.sensorGround;
  return FUNCTION_WORDS[f];
}

function pinValues(module: Extract<Device, { kind: "module" }>, point: string): string {
  const pin = module.pins.find((p) => p.at === point)!;
  return writeValues(
    Object.fromEntries(
      Object.entries(pin).filter(
        ([key, v]) => key !== "role" && key !== "at" && !((key === "terminated" || key === "commander") && v === false),
      ),
    ),
  );
}

function whereRow(of: Connector | Device) {
  return {
    id: of.id,
    name: of.name ?? "",
    place: of.place ?? "",
    side: of.side ?? "",
    comesOff: of.comesOff ?? "",
    lookAlikes: (of.lookAlikes ?? []).join(" "),
    partNumber: of.partNumber ?? "",
    alsoNumbers: (of.alsoNumbers ?? []).join("; "),
    zones: of.zones.join(" "),
    cautions: of.cautions.join(" "),
    minutes: of.reachMinutes === 1 ? "" : String(of.reachMinutes),
  };
}
const connectorRowOf = (c: Connector): ConnectorRow => ({
  ...whereRow(c),
  inline: c.inline ? "yes" : "no",
  backProbe: c.backProbe ? "" : "no",
});
/** @param shared pins that stand in no row of its own: in a cavity of another part, or at a ground point */
function partRowOf(d: Device, shared: readonly { readonly role: string; readonly at: string }[]): PartRow {
  const own = Object.fromEntries(
    Object.entries(d).filter(
      ([key]) => key !== "kind" && key !== "id" && key !== "pins" && !(WHERE as readonly string[]).includes(key),
    ),
  );
  const pins = Object.fromEntries(shared.map((p) => [`${PIN}${p.role}`, p.at]));
  return { ...whereRow(d), kind: d.kind, values: writeValues({ ...own, ...pins }) };
}
