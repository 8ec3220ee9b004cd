import {
  chartRow,
  emptyChart,
  placeOnSheet,
  buildChart,
  takeBox,
  takeFuse,
  takeHalf,
  takeWire,
  type Chart,
  type DrawingSheet,
} from "../../src/index.js";

const sheet = (n: number): DrawingSheet => ({ id: `p${n}`, name: `Sheet ${n}`, source: "", width: 800, height: 600 });
const points = [[100, 100] as const, [400, 100] as const];
const wire = (from: string, to: string, colour = "", mm2 = "") => ({ from, to, colour, mm2, points });
const lines = (c: Chart) => c.rows.map((r) => [r.connector, r.cavity, r.goesTo, r.colour].join(" "));
const box = (id: string, functions: readonly string[]) => ({
  id,
  kind: "connector" as const,
  title: "",
  x: 100,
  y: 100,
  width: 80,
  height: 60,
  pins: functions.map((f, i) => ({ cavity: String(i + 1), at: [100, 110 + i * 20] as const, function: f })),
});

describe("what is taken from a page", () => {
  test("stands in the chart with its place on the page, as along the edges of a drawing", () => {
    expect(placeOnSheet(sheet(2), [0, 0])).toBe("Sheet 2 A1");
    expect(placeOnSheet(sheet(2), [799, 599])).toBe("Sheet 2 F8");
    const chart = takeWire(
      takeBox(emptyChart(), sheet(1), box("B7", ["signal"])),
      sheet(1),
      wire("B7:1", "A1:3", "GN"),
    );
    expect(lines(chart)).toEqual(["B7 1 A1:3 GN"]);
    expect(chart.rows[0]!.source).toBe("Sheet 1 B2");
  });

  test("a fuse by one tap: two ends to lay wires to, its rating, and it is a fuse in the wiring", () => {
    const { chart, ends } = takeFuse(emptyChart(), sheet(1), { id: undefined, rating: "7,5", at: [400, 300] });
    expect(ends.map((e) => e.name)).toEqual(["F1:in", "F1:out"]);
    expect(ends[0]!.at[1]).toBeLessThan(ends[1]!.at[1]);
    const spots = chart.pages.marks.filter((m) => m.width === undefined).map((m) => [m.at, m.x, m.y]);
    expect(spots).toEqual(ends.map((e) => [e.name, ...e.at]));
    const wired = takeWire(takeWire(chart, sheet(1), wire("F1:in", "BAT")), sheet(1), wire("F1:out", "A1:8"));
    const { wiring } = buildChart(wired);
    expect(wiring.devices.find((d) => d.id === "F1")).toMatchObject({ kind: "fuse", rating: 7.5 });
    expect(wiring.wires.map((w) => [w.from, w.to])).toEqual([
      ["F1:in", expect.stringMatching(/^BAT/)],
      ["F1:out", "A1:8"],
    ]);
    // a second one gets the next free name
    expect(takeFuse(chart, sheet(1), { id: undefined, rating: "", at: [100, 100] }).ends[0]!.name).toBe("F2:in");
  });

  test("a wire that the chart has is not laid twice, whichever end it is drawn from", () => {
    const chart = { ...emptyChart(), rows: [chartRow({ connector: "B7", cavity: "1", goesTo: "A1:3", colour: "GN" })] };
    expect(lines(takeWire(chart, sheet(1), wire("A1:3", "B7:1", "GN")))).toEqual(["B7 1 A1:3 GN"]);
  });

  test("what two pages say differently stays side by side, with the place of each", () => {
    let chart = takeBox(emptyChart(), sheet(1), box("B7", ["signal", "sensor ground"]));
    chart = takeWire(chart, sheet(1), wire("B7:1", "A1:3", "GN", "0.5"));
    chart = takeBox(chart, sheet(2), box("B7", ["5 V reference", "sensor ground"]));
    chart = takeWire(chart, sheet(2), wire("B7:1", "A1:3", "BU", "0.75"));
    chart = takeWire(chart, sheet(2), wire("B7:1", "A1:9"));
    expect(lines(chart)).toEqual(["B7 1 A1:3 GN", "B7 2  "]);
    expect(chart.claims.map((c) => [c.at, c.field, c.value, c.source])).toEqual([
      ["B7:1", "function", "5 V reference", "Sheet 2 B2"],
      ["B7:1", "colour", "BU", "Sheet 2 B2"],
      ["B7:1", "mm2", "0.75", "Sheet 2 B2"],
      ["B7:1", "goesTo", "A1:9", "Sheet 2 B2"],
    ]);
    // said once more it is no other claim
    expect(takeWire(chart, sheet(2), wire("B7:1", "A1:3", "BU")).claims).toHaveLength(4);
  });

  test("a splice takes as many wires as are drawn", () => {
    let chart = emptyChart();
    for (const b of ["B1:1", "B2:1", "B3:1"]) chart = takeWire(chart, sheet(1), wire(b, "S1"));
    chart = takeWire(chart, sheet(2), wire("B4:1", "S1"));
    expect(chart.rows.map((r) => r.goesTo)).toEqual(["S1", "S1", "S1", "S1"]);
    expect(chart.claims).toEqual([]);
  });

  test("half a wire waits for the other half under the same label, in whichever order", () => {
    const half = (from: string, n: number, c: Chart) =>
      takeHalf(c, sheet(n), { from, label: n === 1 ? "K3" : "k3", colour: n === 1 ? "RD" : "", mm2: "", points });
    const waits = half("B7:1", 1, emptyChart());
    expect(waits.rows).toEqual([]);
    expect(half("B7:1", 1, waits).pages.openEnds).toHaveLength(1);
    const whole = half("A1:4", 2, waits);
    expect(lines(whole)).toEqual(["A1 4 B7:1 RD"]);
    expect(whole.pages.openEnds).toEqual([]);
    expect(whole.pages.traces.map((t) => t.sheet)).toEqual(["p2", "p1"]);
  });
});
