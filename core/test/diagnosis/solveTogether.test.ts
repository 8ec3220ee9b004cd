import { gather } from "../../src/diagnosis/evidence.js";
import { setAtSeverities } from "../../src/diagnosis/multipleFaults.js";
import { solveTogether } from "../../src/diagnosis/solveTogether.js";
import { fitsOfSets } from "../../src/diagnosis/weigh.js";
import { Predictor, type Entry } from "../../src/index.js";
import { finished } from "../../src/steps.js";
import { code, tug } from "../helpers.js";

const AT = "2026-01-01T08:00:00Z";
const best = (fits: Float64Array) => fits.reduce((a, b) => Math.max(a, b), -Infinity);

// what is found by a search along one severity at a time is held against every combination, solved one by one
test("two faults on one net: their severities are found by solving, from wherever the search begins", () => {
  const predictor = new Predictor(tug());
  const members = ["S14/spliceHighResistance", "B7:1/contactHighResistance"].map(
    (id) => predictor.faults.findIndex((f) => f.id === id) + 1,
  );
  expect(members.every((h) => h > 0)).toBe(true);
  const counts = members.map((h) => predictor.faults[h - 1]!.severities.length);
  const chosen = counts.map((n) => n - 3);
  const true_ = predictor.combine(members, [[chosen[0]!], [chosen[1]!]]);
  const points = ["B7:1", "S14", "B9:1"].filter((p) => p !== "S14");
  const readings = points.map((point): Entry => {
    const place = gather(predictor, [code("P0237"), reading(point, 1)]).evidence.find((e) => e.kind === "reading");
    return reading(point, predictor.predictAt(true_, place!).at(0));
  });
  const { evidence } = gather(predictor, [code("P0237"), code("P0522"), ...readings]);
  const all = counts.map((n) => Array.from({ length: n }, (_, k) => k));
  const whole = best(fitsOfSets(predictor, evidence, [setAtSeverities(predictor, members, all, undefined)], {})[0]!);
  for (const start of [
    [0, 0],
    [0, counts[1]! - 1],
    [counts[0]! - 1, 0],
  ]) {
    const from = {
      ...setAtSeverities(predictor, members, [[start[0]!], [start[1]!]], undefined),
      together: true,
    };
    const [found] = finished(solveTogether(predictor, evidence, [from], {}, () => false));
    expect(best(fitsOfSets(predictor, evidence, [found!], {})[0]!)).toBeGreaterThan(whole - 1);
  }
  // stopped, it gives back what it was given; sets that act apart are left as they are
  const apart = setAtSeverities(predictor, members, [[0], [0]], undefined);
  expect(finished(solveTogether(predictor, evidence, [apart], {}, () => false))).toEqual([apart]);
  const together = { ...apart, together: true };
  expect(finished(solveTogether(predictor, evidence, [together], {}, () => true))).toEqual([together]);

  function reading(point: string, volt: number): Entry {
    return {
      type: "reading",
      at: AT,
      instrument: "voltmeter",
      points: [point],
      values: [Math.round(volt * 1000) / 1000],
      state: { key: "on", unplugged: [] },
    };
  }
});
