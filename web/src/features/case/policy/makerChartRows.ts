import { type ChartStep, type Wiring, connectorOf } from "@radicula/core";
import { t } from "@/messages";

/**
 * One row of the chart as it is typed; `good` and `bad` are places in the list, its length the end, NEXT the row below.
 */
export interface MakerChartRow {
  readonly point: string | undefined;
  readonly how: "volts" | "voltsUnplugged" | "ohms" | "scan";
  readonly low: number | null;
  readonly high: number | null;
  readonly good: number;
  readonly bad: number;
}
export const NEXT = -1;
const EMPTY: MakerChartRow = { point: undefined, how: "volts", low: null, high: null, good: NEXT, bad: NEXT };
const END = "end";

/** A chart as rows; one empty row where there is none. */
export function makerChartSteps(chart: readonly ChartStep[] | undefined): MakerChartRow[] {
  if (!chart?.length) return [EMPTY];
  const at = (id: string | undefined) => {
    if (id === undefined) return NEXT;
    const i = chart.findIndex((s) => s.id === id);
    return i < 0 ? chart.length : i;
  };
  return chart.map((s) => ({
    point: s.point,
    how:
      s.instrument === "scanTool"
        ? "scan"
        : s.instrument === "ohmmeter"
          ? "ohms"
          : s.state.unplugged.length
            ? "voltsUnplugged"
            : "volts",
    low: s.low,
    high: s.high,
    good: at(s.ifGood),
    bad: at(s.ifBad),
  }));
}

/** Rows as a chart; undefined while something is missing. */
export function toChart(rows: readonly MakerChartRow[], wiring: Wiring): ChartStep[] | undefined {
  const plugs = new Set(wiring.connectors.map((c) => c.id));
  const goTo = (i: number) => (i === NEXT ? undefined : rows[i] ? String(i + 1) : END);
  const chart: ChartStep[] = [];
  for (const [i, r] of rows.entries()) {
    if (r.point === undefined || r.low === null || r.high === null || r.low > r.high) return undefined;
    const plug = connectorOf(r.point);
    const unplugged = (r.how === "voltsUnplugged" || r.how === "ohms") && plugs.has(plug) ? [plug] : [];
    const ifGood = goTo(r.good);
    const ifBad = goTo(r.bad);
    chart.push({
      id: String(i + 1),
      instrument: r.how === "scan" ? "scanTool" : r.how === "ohms" ? "ohmmeter" : "voltmeter",
      point: r.point,
      state: { key: r.how === "ohms" ? "off" : "on", unplugged },
      low: r.low,
      high: r.high,
      ...(ifGood === undefined ? {} : { ifGood }),
      ...(ifBad === undefined ? {} : { ifBad }),
    });
  }
  return chart;
}

/** What is wrong with what was typed, in words; nothing while rows are merely unfinished. */
export function branchProblems(rows: readonly MakerChartRow[]): string[] {
  return rows.flatMap((r, i) => [
    ...(r.low !== null && r.high !== null && r.low > r.high
      ? [t("policy.stepGoodRunsFromDownTo", { i: i + 1, low: r.low, high: r.high })]
      : []),
    ...(r.good === i || r.bad === i ? [t("policy.stepLeadsToItself", { i: i + 1 })] : []),
  ]);
}
