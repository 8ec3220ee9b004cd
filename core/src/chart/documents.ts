import { Chart, CHART_FORMAT } from "../format/chart.js";
import { readSchema } from "../format/json.js";
import type { Wiring } from "../format/wiring.js";
import { ok, type Result } from "../issues/issue.js";
import { readWiring } from "../wiring/read.js";
import { buildChart } from "./build.js";
import { chartOf } from "./fromWiring.js";

/** What a parsed document says it is. */
export const formatOf = (value: unknown): unknown =>
  typeof value === "object" && value !== null && "format" in value ? value.format : undefined;

/** A pin chart from a parsed document: a chart, or the chart of a wiring. Issues as of `readSchema`. */
export function readChart(value: unknown): Result<Chart> {
  if (formatOf(value) === CHART_FORMAT) return readSchema(value, Chart, CHART_FORMAT);
  const read = readWiring(value);
  return read.ok ? ok(chartOf(read.value)) : read;
}

/** A wiring from a parsed document: a wiring, or what a pin chart says. Issues as of `readSchema` and `checkWiring`. */
export function readWiringOrChart(value: unknown): Result<Wiring> {
  if (formatOf(value) !== CHART_FORMAT) return readWiring(value);
  const chart = readSchema(value, Chart, CHART_FORMAT);
  return chart.ok ? ok(buildChart(chart.value).wiring) : chart;
}
