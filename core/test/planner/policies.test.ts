import { voltsAt } from "../bench.js";
import { planOf, fourCodes, tugPredictor, tugWiring } from "../warm.js";
import {
  analyse,
  assess,
  choose,
  makePlan,
  Predictor,
  POLICIES,
  type ChartStep,
  type Entry,
  type Wiring,
} from "../../src/index.js";

const AT = "2026-11-24T10:00:00Z";

describe("schools", () => {
  const { belief, plan } = planOf(fourCodes);
  const { folded } = belief.gathered;
  test("each has something to do while suspects are to be told apart, and nothing that was done already", () => {
    for (const school of POLICIES) {
      const chosen = choose(tugPredictor, plan, folded, school, { seed: 4 });
      expect([school, chosen !== undefined]).toEqual([school, true]);
      expect(plan.open.map((c) => c.id)).toContain(chosen!.candidate.id);
    }
  });
  test(
    "easiest takes no longer than the informed one; the fixed chart begins with the feed of the first coded " + "part",
    () => {
      const minutes = (school: "easiest" | "information") =>
        choose(tugPredictor, plan, folded, school)!.candidate.minutes;
      expect(minutes("easiest")).toBeLessThanOrEqual(minutes("information") + 1e-9);
      expect(choose(tugPredictor, plan, folded, "chart")!.candidate.points[0]).toBe("B7:1");
    },
  );
  test("a maker's chart is followed step by step, and branches on what was read", () => {
    const chart: ChartStep[] = [
      {
        id: "1",
        instrument: "voltmeter",
        point: "B9:1",
        state: { key: "on", unplugged: [] },
        low: 4.75,
        high: 5.25,
        ifGood: "end",
        ifBad: "3",
      },
      { id: "2", instrument: "voltmeter", point: "B9:2", state: { key: "on", unplugged: [] }, low: 0, high: 0.1 },
      { id: "3", instrument: "voltmeter", point: "A1:17", state: { key: "on", unplugged: [] }, low: 4.75, high: 5.25 },
    ];
    const next = (entries: Entry[]) => {
      const p = planOf(entries);
      return choose(tugPredictor, p.plan, p.belief.gathered.folded, "chart", { chart })?.candidate.points[0];
    };
    expect(next(fourCodes)).toBe("B9:1");
    expect(next([...fourCodes, voltsAt("B9:1", 0.9)])).toBe("A1:17");
    // at its end the best next reading takes over
    const over = planOf([...fourCodes, voltsAt("B9:1", 5.0)]);
    expect(next([...fourCodes, voltsAt("B9:1", 5.0)])).toBe(over.plan.ranked[0]!.candidate.points[0]);
  });
  test(
    "a step that nothing else would offer is asked for all the same; one at a place not in the wiring is " +
      "passed over",
    () => {
      const step = (id: string, point: string): ChartStep => ({
        id,
        instrument: "voltmeter",
        point,
        state: { key: "cranking", unplugged: [] },
        low: 0,
        high: 1,
      });
      const p = planOf(fourCodes);
      const first = (chart: ChartStep[]) =>
        choose(tugPredictor, p.plan, p.belief.gathered.folded, "chart", { chart })!.candidate;
      expect(first([step("1", "G3")])).toMatchObject({
        instrument: "voltmeter",
        points: ["G3"],
        state: { key: "cranking" },
      });
      expect(first([step("1", "Q9:4"), step("2", "B9:2")]).points).toEqual(["B9:2"]);
    },
  );
  test(
    "a chart leads to nothing that must not be touched: neither leads, nor plugs, nor guarded parts that " +
      "have no plug",
    () => {
      const guarded: Wiring = {
        ...tugWiring,
        connectors: tugWiring.connectors.map((c) => (c.id === "B9" ? { ...c, cautions: ["restraint"] } : c)),
        devices: tugWiring.devices.map((d) => (d.id === "F12" ? { ...d, cautions: ["highVoltage"] } : d)),
      };
      const p = new Predictor(guarded);
      const belief = assess(p, fourCodes);
      const plan_ = makePlan(p, belief);
      const step = (id: string, point: string, unplugged: string[] = []): ChartStep => ({
        id,
        instrument: "voltmeter",
        point,
        state: { key: "cranking", unplugged },
        low: 0,
        high: 1,
      });
      const chart = [step("1", "B9:1"), step("2", "F12:out"), step("3", "B7:1", ["B9"]), step("4", "B7:2")];
      expect(choose(p, plan_, belief.gathered.folded, "chart", { chart })!.candidate.points).toEqual(["B7:2"]);
    },
  );
  test("the school of the logbook is the one that is followed", () => {
    const a = analyse(tugPredictor, [...fourCodes, { type: "school", at: AT, school: "easiest" }]);
    expect(a.school).toBe("easiest");
    expect(a.next[0]!.candidate.minutes).toBeLessThanOrEqual(
      Math.min(...a.next.filter((n) => n.bits >= 0.05).map((n) => n.candidate.minutes)) + 1e-9,
    );
    const m = analyse(tugPredictor, fourCodes).minutesByPolicy!;
    expect(m.information).toBeLessThanOrEqual(m.easiest + 1e-9);
    expect(m.information).toBeLessThanOrEqual(m.halve + 1e-9);
  });
});
