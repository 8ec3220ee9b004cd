import { beforeAfter, fold, type BeforeAfter, type Entry } from "@radicula/core";
import { healthyOf, pairCharts } from "@/features/case/proof/pairs";
import { demoCase } from "./helpers";

const state = { key: "on", unplugged: [] } as unknown as BeforeAfter["state"];
const pair = (point: string, before: number | string, after: number | string, number: number): BeforeAfter => ({
  point,
  instrument: "voltmeter",
  unit: undefined,
  state,
  before: { number: 1, value: before as number },
  after: { number, value: after as number },
});

describe("what is drawn of readings before and after a repair", () => {
  const healthy = new Map([
    [0, 0],
    [1, 5],
  ]);
  const nameOf = (p: BeforeAfter) => p.point;

  test("where it changed most comes first, with what a sound machine shows", () => {
    const charts = pairCharts([pair("B1:2", 0.4, 0.02, 10), pair("B1:1", 0.1, 5, 9)], healthy, nameOf);
    expect(charts).toEqual([
      {
        instrument: "voltmeter",
        unit: undefined,
        rows: [
          { name: "B1:1", healthy: 5, before: 0.1, after: 5 },
          { name: "B1:2", healthy: 0, before: 0.4, after: 0.02 },
        ],
      },
    ]);
  });
  test("instruments and units have a scale each; a word is no bar", () => {
    const warm: BeforeAfter = { ...pair("B2:1", -40, 21, 13), instrument: "scanTool", unit: "°C" };
    expect(pairCharts([warm, { ...warm, unit: undefined }], new Map(), nameOf).map((c) => c.unit)).toEqual([
      "°C",
      undefined,
    ]);
    const ohm: BeforeAfter = { ...pair("S1", 12, 0.2, 11), instrument: "ohmmeter" };
    const charts = pairCharts([pair("B1:1", "OL", 5, 9), ohm, pair("B1:3", 1, 2, 12)], new Map([[0, 5]]), nameOf);
    expect(charts.map((c) => [c.instrument, c.rows.map((r) => [r.name, r.healthy])])).toEqual([
      ["ohmmeter", [["S1", undefined]]],
      ["voltmeter", [["B1:3", undefined]]],
    ]);
    expect(pairCharts([pair("B1:1", "OL", "OL", 9)], healthy, nameOf)).toEqual([]);
  });
});

test("a reading of two places at once has a healthy value for each of them", () => {
  const { wiring } = demoCase();
  const read = (values: number[]): Entry => ({
    type: "reading",
    at: "2026-11-30T10:00:00Z",
    instrument: "voltmeter",
    points: ["B7:1", "B7:2"],
    values,
    state: { key: "on", unplugged: [] },
  });
  const entries = [read([0.2, 0.1]), read([5, 0])];
  const healthy = healthyOf(wiring, beforeAfter(entries), fold(entries).readings);
  // a 5 V reference and its ground (common practice, no source)
  expect(healthy.get(0)).toBeCloseTo(5, 0);
  expect(healthy.get(1)).toBeCloseTo(0, 0);
});
