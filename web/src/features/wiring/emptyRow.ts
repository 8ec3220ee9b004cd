import { chartRow, type Chart } from "@radicula/core";

/** A table always has a line to type into. */
export const withRow = (chart: Chart): Chart => (chart.rows.length ? chart : { ...chart, rows: [chartRow({})] });
