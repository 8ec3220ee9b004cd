import type { BeforeAfter } from "@radicula/core";
import { pairCharts } from "@/features/case/proof/pairs";

const state = { key: "on", unplugged: [] } as unknown as BeforeAfter["state"];
const pair = (point: string, before: number | string, after: number | string, number: number): BeforeAfter => ({
  point,
  instrument: "voltmeter",
  state,
  before: { number: 1, value: before as number },
  after: { number, value: after as number },
});

describe("what is drawn of readings before and after a repair", () => {
  const healthy = new Map([
    [9, 5],
    [10, 0],
  ]);
  const nameOf = (p: BeforeAfter) => p.point;

  test("where it changed most comes first, with what a sound machine shows", () => {
    const charts = pairCharts([pair("B1:2", 0.4, 0.02, 10), pair("B1:1", 0.1, 5, 9)], healthy, nameOf);
    expect(charts).toEqual([
      {
        instrument: "voltmeter",
        rows: [
          { name: "B1:1", healthy: 5, before: 0.1, after: 5 },
          { name: "B1:2", healthy: 0, before: 0.4, after: 0.02 },
        ],
      },
    ]);
  });
  test("instruments have a scale each; a word is no bar", () => {
    const ohm: BeforeAfter = { ...pair("S1", 12, 0.2, 11), instrument: "ohmmeter" };
    const charts = pairCharts([pair("B1:1", "OL", 5, 9), ohm, pair("B1:3", 1, 2, 12)], healthy, nameOf);
    expect(charts.map((c) => [c.instrument, c.rows.map((r) => [r.name, r.healthy])])).toEqual([
      ["ohmmeter", [["S1", undefined]]],
      ["voltmeter", [["B1:3", undefined]]],
    ]);
    expect(pairCharts([pair("B1:1", "OL", "OL", 9)], healthy, nameOf)).toEqual([]);
  });
});
