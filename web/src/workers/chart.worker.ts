import {
  buildChart,
  emptyChart,
  findNets,
  FUNCTION_WORDS,
  mergeCharts,
  readCsv,
  type Issue,
  type Merged,
  type PinFunction,
  type Wiring,
} from "@radicula/core";
import { expose } from "comlink";
import { tidyRow } from "@/features/wiring/edit";
import { Chart, readMessage, TableOver } from "./messages";

/** What the chart adds up to, row by row, for the screen. */
export interface Built {
  readonly wiring: Wiring;
  readonly issues: readonly Issue[];
  /** the electrical point of each row; "" where it has none */
  readonly points: readonly string[];
  /** where the wire of a row goes that is written at its other end */
  readonly otherEnd: readonly string[];
  /** what a cavity is for where the row does not say, as guessed */
  readonly guessed: readonly string[];
  /** the connector a row belongs to, where its cell is empty */
  readonly inherited: readonly string[];
}

/** A table as it was read, and what it says of the chart that is there. */
export interface LaidOver {
  readonly issues: readonly Issue[];
  /** none where nothing of the table could be read */
  readonly found: { readonly second: Chart; readonly merged: Merged; readonly built: Built } | undefined;
}

const WORDS: Readonly<Record<string, PinFunction>> = {
  reference: "reference",
  sensorGround: "sensorGround",
  signal: "signal",
  driver: "lowSide",
  feed: "supply",
  ground: "ground",
};

function builtOf(chart: Chart): Built {
  const built = buildChart(chart);
  const far = new Map<string, string>();
  for (const w of built.wiring.wires) {
    far.set(w.from, far.get(w.from) ?? w.to);
    far.set(w.to, far.get(w.to) ?? w.from);
  }
  const nets = findNets(built.wiring);
  const points = chart.rows.map((_, i) => built.points.get(i) ?? "");
  const at = (p: string) => far.get(p) ?? far.get(`${p}.a`) ?? far.get(`${p}.b`);
  let above = "";
  const inherited = chart.rows.map((r) => {
    if (r.connector.trim()) {
      above = r.connector.trim();
      return "";
    }
    return above;
  });
  return {
    wiring: built.wiring,
    issues: built.issues,
    points,
    inherited,
    otherEnd: chart.rows.map((r, i) => (r.goesTo.trim() || !points[i] ? "" : (at(points[i]) ?? ""))),
    guessed: chart.rows.map((r, i) => {
      const p = points[i];
      const f = r.function.trim() || !p || !at(p) ? undefined : WORDS[nets.functionOf(p)];
      return f ? FUNCTION_WORDS[f] : "";
    }),
  };
}

const api = {
  build: (message: unknown): Built => builtOf(readMessage(Chart, message)),
  /** Reads a table and lays it over the chart. */
  layOver(message: unknown): LaidOver {
    const { chart, text, source } = readMessage(TableOver, message);
    const read = readCsv(text);
    if (!read.ok) return { issues: read.issues, found: undefined };
    const table = read.value.chart;
    const second = { ...emptyChart("", chart.nominalVolt), ...table, rows: table.rows.map((r) => tidyRow(r)) };
    return {
      issues: read.value.issues,
      found: { second, merged: mergeCharts(chart, second, source), built: builtOf(second) },
    };
  },
};
export type ChartApi = typeof api;
expose(api);
