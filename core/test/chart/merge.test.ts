import { chartOf, chartRow, emptyChart, mergeCharts, takeClaim, type Chart, type ChartRow } from "../../src/index.js";
import { tug } from "../helpers.js";
const row = (connector: string, cavity: string, colour: string, fn: string, goesTo: string, source = ""): ChartRow =>
  chartRow({ connector, cavity, colour, function: fn, goesTo, source });
const chart = (rows: ChartRow[]): Chart => ({ ...emptyChart("t"), rows });

describe("several sources", () => {
  const a = chart([
    row("B7", "1", "OG/WH", "5v", "S14", "chart A"),
    row("", "2", "BN", "", "S22", "chart A"),
    row("", "3", "", "sig", "A1:8", "chart A"),
  ]);
  const b = chart([
    row("B7", "1", "orange/white", "reference", "S14"),
    row("", "2", "BK", "ground", "S22"),
    row("", "3", "GN", "", "A1:9"),
    row("B9", "1", "RD", "5v", "S14"),
  ]);
  const merged = mergeCharts(a, b, "chart B");
  test("agreements, additions, contradictions; nothing is overwritten", () => {
    expect(merged.agreements).toBe(4); // colour, function and way of B7:1, way of B7:2
    expect(merged.filled).toEqual([
      { at: "B7:2", field: "function", value: "ground" },
      { at: "B7:3", field: "colour", value: "GN" },
    ]);
    expect(merged.added).toEqual(["B9:1"]);
    expect(merged.contradictions).toEqual([
      { at: "B7:2", field: "colour", ours: "BN", theirs: "BK" },
      { at: "B7:3", field: "goesTo", ours: "A1:8", theirs: "A1:9" },
    ]);
    expect(merged.chart.rows[1]).toMatchObject({ colour: "BN", function: "ground", source: "chart A, chart B" });
    expect(merged.chart.rows.at(-1)).toMatchObject({ connector: "B9", cavity: "1", source: "chart B" });
    expect(merged.chart.claims).toHaveLength(2);
  });
  test("settling a contradiction swaps what the chart goes by and what is claimed", () => {
    const settled = takeClaim(merged.chart, merged.chart.claims[0]!);
    expect(settled.rows[1]).toMatchObject({ colour: "BK", source: "chart B" });
    expect(settled.claims[0]).toMatchObject({ at: "B7:2", field: "colour", value: "BN" });
    expect(mergeCharts(settled, b, "chart B").contradictions.map((c) => c.at)).toEqual(["B7:3"]);
  });
  test("merging a chart with itself changes nothing", () => {
    const own = chartOf(tug());
    const again = mergeCharts(own, own, "again");
    expect(again.contradictions).toEqual([]);
    expect(again.added).toEqual([]);
    expect(again.chart.rows).toEqual(own.rows);
  });
});
