import { buildChart, findNets, FUNCTION_WORDS, type Issue, type PinFunction, type Wiring } from "@radicula/core";
import { expose } from "comlink";
import { Chart, readMessage } from "./messages";

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

const WORDS: Readonly<Record<string, PinFunction>> = {
  reference: "reference",
  sensorGround: "sensorGround",
  signal: "signal",
  driver: "lowSide",
  feed: "supply",
  ground: "ground",
};

const api = {
  build(message: unknown): Built {
    const chart = readMessage(Chart, message);
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
  },
};
export type ChartApi = typeof api;
expose(api);
