import { faultOn } from "../bench.js";
import {
  analyse,
  parseCase,
  Predictor,
  runOffers,
  runPlaces,
  runView,
  SimulatedMachine,
  watchPoint,
  weighCandidate,
  type FaultAt,
} from "../../src/index.js";
import { demoText } from "../helpers.js";

const AT = "2026-11-24T09:00:00Z";

describe("what is offered", () => {
  const load = (file: string) => {
    const c = parseCase(demoText(file));
    if (!c.ok) throw new Error(file);
    return c.value;
  };
  test(
    "runs that tell the suspects apart, the most for their minutes first; none before a code or after the " + "proof",
    () => {
      const { wiring: w, entries } = load("tug-4-reference.case.json");
      const predictor = new Predictor(w);
      const a = analyse(predictor, entries);
      const offers = runOffers(predictor, a);
      expect(offers.map((o) => o.run)).toContain("unplugSeries");
      for (const o of offers) {
        expect(runPlaces(w, o.run)).toContain(o.on);
        expect(o.shareOfOpen).toBeGreaterThan(0);
        expect(o.shareOfOpen).toBeLessThanOrEqual(1);
        expect(o.minutes).toBeGreaterThan(0);
      }
      for (let i = 1; i < offers.length; i++)
        expect(offers[i]!.bits / offers[i]!.minutes).toBeLessThanOrEqual(offers[i - 1]!.bits / offers[i - 1]!.minutes);
      expect(runOffers(predictor, analyse(predictor, []))).toEqual([]);
      // one repair proven is the end; one of several may still be split by a run
      const outcome = { ...a.outcome!, isOneRepair: true };
      expect(runOffers(predictor, { ...a, stage: "proven", outcome })).toEqual([]);
      expect(runOffers(predictor, { ...a, stage: "proven", outcome: { ...outcome, isOneRepair: false } })).toEqual(
        offers,
      );
    },
  );
  test("the value to watch is one that the leading suspect moves", () => {
    const { wiring: w, entries } = load("whimbrel-connector.case.json");
    const predictor = new Predictor(w);
    const watched = watchPoint(predictor, analyse(predictor, entries))!;
    const shown = (faults: FaultAt[]) =>
      new SimulatedMachine(w, faults, 64).read(watched.point, { key: "on", unplugged: [] }, watched.instrument);
    expect(Math.abs(shown([]) - shown([{ fault: faultOn(w, "X30:1/contactOpen"), severity: NaN }]))).toBeGreaterThan(
      0.3,
    );
    expect(watchPoint(predictor, analyse(predictor, []))).toBeUndefined();
  });
  test("a step outside the plan is weighed as one of the plan would be", () => {
    const { wiring: w, entries } = load("tug-4-reference.case.json");
    const predictor = new Predictor(w);
    const first = analyse(predictor, entries).next[0]!;
    const same = weighCandidate(predictor, entries, first.candidate)!;
    expect(same.bits).toBeCloseTo(first.bits, 9);
    const rounded = (x: unknown) =>
      // sums taken in another order
      JSON.stringify(x, (_, v: unknown) => (typeof v === "number" ? v.toPrecision(9) : v));
    expect(rounded(same.answers)).toBe(rounded(first.answers));
    const step = runView(predictor, [
      ...entries,
      { type: "run", at: AT, run: "fuseRun", on: "F12", event: "begun" },
    ])!.next!;
    expect(weighCandidate(predictor, entries, step)!.answers[0]!.reduce((sum, x) => sum + x.share, 0)).toBeCloseTo(
      1,
      1,
    );
    // a new part says nothing of the machine
    expect(weighCandidate(predictor, entries, { ...step, part: "new" })).toBeUndefined();
  });
});
