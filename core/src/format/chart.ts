import { z } from "zod";
import { noPages, PageDrawing } from "./sheet.js";
import { Reset, Claim, Code } from "./wiring.js";

/**
 * Pin chart, version 1: a wiring as people type it. Every cell is text as typed; `chart/build` makes a wiring of it and
 * says, row by row, what it could not take and what it guessed.
 */
export const CHART_FORMAT = "radicula/chart";

const cell = z.string().max(400).default("");
/** One cavity (or terminal, or leg of a splice) and the wire that leaves it. An empty connector means the one above. */
export const ChartRow = z.strictObject({
  connector: cell,
  cavity: cell,
  colour: cell,
  mm2: cell,
  function: cell,
  goesTo: cell,
  source: cell,
  lengthM: cell,
  bundle: cell,
  zones: cell,
  part: cell.meta({ description: "The part this cavity belongs to, where it is not named like its connector" }),
  values: cell.meta({ description: "What else is known of this pin: pull=up pullOhm=2k2" }),
  wire: cell.meta({ description: "Name of the wire" }),
});
export type ChartRow = z.infer<typeof ChartRow>;
const where = {
  id: cell,
  name: cell,
  place: cell,
  side: cell,
  comesOff: cell,
  lookAlikes: cell,
  partNumber: cell,
  alsoNumbers: cell,
  zones: cell,
  cautions: cell,
  minutes: cell,
};
/** A plug: in-line or at a device, where it sits, how to get at it. */
export const ConnectorRow = z.strictObject({ ...where, inline: cell, backProbe: cell });
export type ConnectorRow = z.infer<typeof ConnectorRow>;
/** A part: what kind it is and what is known of it (`rating=10`, `ohm25=2k5 restCelsius=-10..90`). */
export const PartRow = z.strictObject({ ...where, kind: cell, values: cell });
export type PartRow = z.infer<typeof PartRow>;

export const Chart = z.strictObject({
  format: z.literal(CHART_FORMAT),
  version: z.literal(1),
  name: z.string().max(120).default(""),
  nominalVolt: z.union([z.literal(12), z.literal(24)]).default(12),
  machineType: z.string().max(80).default(""),
  note: z.string().max(4000).default(""),
  rows: z.array(ChartRow).max(20_000).default([]),
  connectors: z.array(ConnectorRow).max(4000).default([]),
  parts: z.array(PartRow).max(8000).default([]),
  codes: z.array(Code).max(4000).default([]),
  claims: z.array(Claim).max(4000).default([]),
  resets: z.array(Reset).max(400).default([]),
  read: z
    .array(z.string().max(90))
    .max(8000)
    .default([])
    .meta({ description: "Cavities and parts whose function or kind has been read on the machine: no longer guesses" }),
  pages: PageDrawing.default(noPages).meta({ description: "Pages it was read from, and where on them things stand" }),
});
export type Chart = z.infer<typeof Chart>;

export const chartRow = (cells: Partial<ChartRow> = {}): ChartRow => ({
  connector: "",
  cavity: "",
  colour: "",
  mm2: "",
  function: "",
  goesTo: "",
  source: "",
  lengthM: "",
  bundle: "",
  zones: "",
  part: "",
  values: "",
  wire: "",
  ...cells,
});
const noWhere = {
  id: "",
  name: "",
  place: "",
  side: "",
  comesOff: "",
  lookAlikes: "",
  partNumber: "",
  alsoNumbers: "",
  zones: "",
  cautions: "",
  minutes: "",
};
export const connectorRow = (cells: Partial<ConnectorRow> = {}): ConnectorRow => ({
  ...noWhere,
  inline: "",
  backProbe: "",
  ...cells,
});
export const partRow = (cells: Partial<PartRow> = {}): PartRow => ({ ...noWhere, kind: "", values: "", ...cells });
export const emptyChart = (name = "", nominalVolt: 12 | 24 = 12): Chart => ({
  format: CHART_FORMAT,
  version: 1,
  name,
  nominalVolt,
  machineType: "",
  note: "",
  rows: [],
  connectors: [],
  parts: [],
  codes: [],
  claims: [],
  resets: [],
  read: [],
  pages: noPages(),
});
