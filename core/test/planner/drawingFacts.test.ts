import {
  buildChart,
  answerGap,
  assumedAt,
  chartRow,
  completeChart,
  completeWiring,
  drawingGaps,
  emptyChart,
  factsWorth,
  LOOKED_UP,
  NOWHERE,
  ScanEntry,
  type Chart,
  type Entry,
} from "../../src/index.js";

/** Three sensors on one reference and ground; of B3 only that it is there. */
const chart: Chart = {
  ...emptyChart("Half", 12),
  rows: [
    ...["B1", "B2"].flatMap((b, i) => [
      chartRow({ connector: b, cavity: "1", function: "5 V reference", goesTo: "S1" }),
      chartRow({ connector: b, cavity: "2", function: "sensor ground", goesTo: "S2" }),
      chartRow({ connector: b, cavity: "3", function: "signal", goesTo: `A1:${i + 3}` }),
    ]),
    chartRow({ connector: "B3", cavity: "1", function: "5 V reference" }),
    chartRow({ connector: "B3", cavity: "2", function: "sensor ground" }),
    chartRow({ connector: "B3", cavity: "3", function: "signal" }),
    chartRow({ connector: "S1", goesTo: "A1:1" }),
    chartRow({ connector: "S2", goesTo: "A1:2" }),
    chartRow({ connector: "A1", cavity: "1", function: "5 V reference" }),
    chartRow({ connector: "A1", cavity: "2", function: "sensor ground" }),
    chartRow({ connector: "A1", cavity: "3", function: "signal" }),
    chartRow({ connector: "A1", cavity: "4", function: "signal" }),
    chartRow({ connector: "A1", cavity: "8", function: "supply", goesTo: "F1" }),
    chartRow({ connector: "A1", cavity: "9", function: "ground", goesTo: "G1" }),
    chartRow({ connector: "F1", cavity: "in", goesTo: "BAT" }),
  ],
  codes: ["B1", "B2", "B3"].map((b, i) => ({ id: `P010${i}`, module: "A1", about: b, family: "low" as const })),
};
const scan: Entry = ScanEntry.parse({
  type: "scan",
  at: "2026-01-01T08:00:00Z",
  when: "before",
  modules: ["A1"],
  codes: [
    { module: "A1", code: "P0100", status: "active" },
    { module: "A1", code: "P0101", status: "active" },
  ],
  disturbed: [],
  wiped: false,
});

describe("a drawing that leaves ends open", () => {
  test("they are assumed to go where those of others go, and said to be assumed", () => {
    const { chart: whole, facts } = completeChart(chart);
    expect(facts.map((f) => [f.point, f.role, f.options[0]!.to])).toEqual([
      ["B3:1", "supply", "S1"],
      ["B3:2", "ground", "S2"],
      ["B3:3", "signal", "A1:10"],
    ]);
    for (const f of facts) expect(f.options.reduce((sum, o) => sum + o.chance, 0)).toBeCloseTo(1, 9);
    const { wiring } = buildChart(whole);
    const own = wiring.wires.filter((w) => w.from.startsWith("B3") || w.to.startsWith("B3"));
    expect(own.map((w) => w.source)).toEqual(["assumed", "assumed", "assumed"]);
    expect(wiring.devices.find((d) => d.id === "B3")?.kind).toBe("threeWireSensor");
    // the lines that were there are as they were
    expect(whole.rows.filter((r) => r.source !== "assumed")).toEqual(
      chart.rows.filter((r) => !r.connector.startsWith("B3")),
    );
  });

  test("a drawing that leaves nothing open is not touched", () => {
    const { chart: whole } = completeChart(chart);
    expect(completeChart(whole)).toEqual({ chart: whole, facts: [] });
  });

  test("an answer takes the place of what was assumed", () => {
    const { chart: whole, facts } = completeChart(chart, new Map([["B3:2", "G1"]]));
    expect(facts.map((f) => f.point)).toEqual(["B3:1", "B3:3"]);
    expect(whole.rows.find((r) => r.connector === "B3" && r.cavity === "2")).toMatchObject({
      goesTo: "G1",
      source: "",
    });
  });

  test("what would help is where the healthy sensor is fed from: that is what its missing code hangs on", () => {
    const worth = factsWorth(chart, [scan]);
    expect(worth.map((w) => w.fact.point).sort()).toEqual(["B3:1", "B3:2"]);
    for (const w of worth) {
      expect(w.bits).toBeGreaterThanOrEqual(0);
      expect(w.chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    }
    expect(worth[0]!.bits).toBeGreaterThan(0.01);
  });

  test("stopped at once, it says nothing of what it did not weigh", () => {
    expect(factsWorth(chart, [scan], () => true)).toEqual([]);
  });
});

describe("a job on such a drawing", () => {
  test("a cavity that is known to have no wire is not asked about", () => {
    for (const said of [NOWHERE, "-", "n/c", "Nothing"]) {
      const without = answerGap(chart, "B3:2", said)!.chart;
      expect(buildChart(without).issues).toEqual(buildChart(chart).issues);
      expect(completeChart(without).facts.map((f) => f.point)).toEqual(["B3:1", "B3:3"]);
      expect(completeWiring(without).wires.some((w) => [w.from, w.to].includes("B3:2"))).toBe(false);
    }
  });

  test("a wiring for a job holds what was assumed, and says where each was assumed", () => {
    const wiring = completeWiring(chart);
    expect([...assumedAt(wiring)].sort()).toEqual(["B3:1", "B3:2", "B3:3"]);
    const gaps = drawingGaps(wiring, [scan]);
    expect(gaps.map((g) => g.fact.point).sort()).toEqual(["B3:1", "B3:2", "B3:3"]);
    // the signal can only go to the module: nothing is gained by looking it up
    expect(gaps.find((g) => g.fact.point === "B3:3")).toMatchObject({ bits: 0, otherwise: 0 });
    expect(gaps[0]!.bits).toBeCloseTo(Math.max(...factsWorth(chart, [scan]).map((w) => w.bits)), 9);
    expect(drawingGaps(buildChart(chart).wiring, [scan])).toEqual([]);
  });

  test("where to look is the page on which the cavity, its connector or the likeliest other end stands", () => {
    const withPage = (at: string): Chart => ({
      ...chart,
      pages: {
        sheets: [{ id: "p3", name: "Sheet 3", source: "", width: 800, height: 600 }],
        marks: [{ at, sheet: "p3", x: 10, y: 20 }],
        traces: [],
        openEnds: [],
      },
    });
    const gapAt = (at: string) =>
      drawingGaps(completeWiring(withPage(at)), [scan], () => true).find((g) => g.fact.point === "B3:2")!;
    expect(gapAt("B3:2").where).toEqual({ sheet: "p3", name: "Sheet 3", near: "B3:2" });
    expect(gapAt("b3").where).toMatchObject({ near: "B3" });
    expect(gapAt("S2").where).toMatchObject({ near: "S2" });
    expect(gapAt("B9").where).toBeUndefined();
    expect(gapAt("B3").minutes).toBeLessThan(gapAt("B9").minutes);
  });

  test("what was looked up takes the place of the open line and is no longer asked about", () => {
    const { chart: known, issues } = answerGap(chart, "B3:2", "G1")!;
    expect(issues).toEqual([]);
    expect(known.rows).toHaveLength(chart.rows.length);
    expect(known.rows.find((r) => r.connector === "B3" && r.cavity === "2")).toMatchObject({
      goesTo: "G1",
      source: LOOKED_UP,
    });
    expect([...assumedAt(completeWiring(known))].sort()).toEqual(["B3:1", "B3:3"]);
    // as well in a chart that holds what was assumed
    const { chart: whole } = completeChart(chart);
    expect([...assumedAt(completeWiring(answerGap(whole, "B3:2", "G1")!.chart))].sort()).toEqual(["B3:1", "B3:3"]);
  });

  test("an answer that is no place is said to be none; what the drawing says already is not asked again", () => {
    expect(answerGap(chart, "B3:2", "some where else")!.issues.map((i) => i.code)).toEqual(["chart.bad-goes-to"]);
    for (const at of ["B1:2", "B9:1", "", "A1:1"]) expect(answerGap(chart, at, "S2")).toBeUndefined();
  });

  test("how likely another cause leads is the chance that the wire goes the way that makes it lead", () => {
    const [ground] = factsWorth(chart, [scan]).filter((w) => w.fact.point === "B3:2");
    expect(ground!.fact.options.map((o) => o.to)).toEqual(["S2", "G1"]);
    // on the machine's ground, B3 says nothing of the ground that B1 and B2 share
    expect(ground!.otherwise).toBeCloseTo(ground!.chances[1]!, 9);
    const all: Entry = ScanEntry.parse({
      ...scan,
      codes: ["P0100", "P0101", "P0102"].map((code) => ({ module: "A1", code, status: "active" })),
    });
    for (const w of factsWorth(chart, [all])) expect(w.otherwise).toBe(0);
  });

  test("codes that only the scan brought are weighed as well as those that stand in the chart", () => {
    const about = (code: string, part: string) => ({
      module: "A1",
      code,
      status: "active",
      about: part,
      family: "low",
    });
    const told: Entry = ScanEntry.parse({ ...scan, codes: [about("P0100", "B1"), about("P0101", "B2")] });
    const listed = { ...chart, codes: chart.codes.filter((c) => c.id !== "P0102") };
    const gaps = drawingGaps(completeWiring({ ...chart, codes: [] }), [told]);
    expect(gaps[0]!.bits).toBeGreaterThan(0.01);
    expect(gaps[0]!.bits).toBeCloseTo(drawingGaps(completeWiring(listed), [told])[0]!.bits, 9);
  });

  test("a wire that is written at its other end is asked about and answered like any other", () => {
    const rows = [...chart.rows, chartRow({ connector: "S2", goesTo: "B3:2", source: "assumed" })];
    const wiring = completeWiring({ ...chart, rows });
    expect([...assumedAt(wiring)].sort()).toEqual(["B3:1", "B3:2", "B3:3"]);
    const gaps = drawingGaps(wiring, [scan], () => true);
    expect(gaps.map((g) => g.fact.point).sort()).toEqual(["B3:1", "B3:2", "B3:3"]);
    const answered = buildChart(answerGap({ ...chart, rows }, "B3:2", "G1")!.chart).wiring;
    const at = answered.wires.filter((w) => [w.from, w.to].includes("B3:2"));
    expect(at.map((w) => [w.from, w.to, w.source])).toEqual([["B3:2", "G1", LOOKED_UP]]);
  });
});

describe("what is asked for first", () => {
  test("of wires that tell alike, those of a part with a code are asked for first", () => {
    const two: Chart = {
      ...chart,
      rows: [
        ...["B4", "B3"].flatMap((b) => [
          chartRow({ connector: b, cavity: "1", function: "5 V reference", goesTo: "S1" }),
          chartRow({ connector: b, cavity: "2", function: "sensor ground" }),
          chartRow({ connector: b, cavity: "3", function: "signal", goesTo: `A1:${b === "B3" ? 5 : 6}` }),
        ]),
        ...chart.rows.filter((r) => r.connector !== "B3"),
        chartRow({ connector: "A1", cavity: "5", function: "signal" }),
        chartRow({ connector: "A1", cavity: "6", function: "signal" }),
      ],
    };
    const only = (code: string): Entry =>
      ScanEntry.parse({ ...scan, codes: [{ module: "A1", code, status: "active" }] });
    const codes = ["B3", "B4"].map((about, i) => ({ id: `P020${i}`, module: "A1", about, family: "high" as const }));
    // stopped before anything is weighed, none tells more than another
    const order = (code: string) =>
      drawingGaps(completeWiring({ ...two, codes }), [only(code)], () => true).map((g) => [g.fact.point, g.bits]);
    expect(order("P0200")).toEqual([
      ["B3:2", 0],
      ["B4:2", 0],
    ]);
    expect(order("P0201")).toEqual([
      ["B4:2", 0],
      ["B3:2", 0],
    ]);
  });
});
