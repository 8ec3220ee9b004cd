import { fisherAtLeast, uniform, wiggleVerdict, type WiggleSample } from "../../src/index.js";

describe("wiggle", () => {
  const NOISE = 0.012;
  function session(seed: number, places: number, guilty: number | undefined): WiggleSample[] {
    const u = uniform(seed);
    const list: WiggleSample[] = [];
    const gauss = () => Math.sqrt(-2 * Math.log(1 - u())) * Math.cos(2 * Math.PI * u());
    const value = (jumps: boolean) =>
      2.5 + 0.02 * Math.sin(list.length / 25) + NOISE * gauss() + (jumps ? -(0.3 + 2 * u()) : u() < 0.004 ? -0.8 : 0);
    for (let p = 0; p < places; p++) {
      for (let i = 0; i < 10; i++) list.push({ place: "", value: value(false) });
      for (let i = 0; i < 20; i++) list.push({ place: `X${p}`, value: value(p === guilty && u() < 0.35) });
    }
    return list;
  }
  test("names the place that reacts in at least 90 % of sessions, and another one in at most 5 %", () => {
    let found = 0;
    let false1 = 0;
    let falseQuiet = 0;
    const N = 300;
    for (let seed = 1; seed <= N; seed++) {
      const places = 3 + (seed % 5);
      const guilty = seed % places;
      const verdicts = wiggleVerdict(session(seed, places, guilty));
      if (verdicts[guilty]!.reacted) found++;
      if (verdicts.some((v, i) => v.reacted && i !== guilty)) false1++;
      if (wiggleVerdict(session(5000 + seed, places, undefined)).some((v) => v.reacted)) falseQuiet++;
    }
    expect(found / N).toBeGreaterThanOrEqual(0.9);
    expect(false1 / N).toBeLessThanOrEqual(0.05);
    expect(falseQuiet / N).toBeLessThanOrEqual(0.05);
  });
  test("the chance of luck is Fisher's: the lady tasting tea", () => {
    // R. A. Fisher, The Design of Experiments, 1935: all four of four, 1 in 70; at least three of four, 17 in 70
    // (values from memory; also counted out)
    expect(fisherAtLeast(4, 4, 4, 8)).toBeCloseTo(1 / 70, 12);
    expect(fisherAtLeast(3, 4, 4, 8)).toBeCloseTo(17 / 70, 12);
  });
  test("a slow drift is no reaction", () => {
    const drift = Array.from({ length: 90 }, (_, i): WiggleSample => ({
      place: i % 30 < 10 ? "" : `X${Math.floor(i / 30)}`,
      value: 2 + i * 0.002,
    }));
    expect(wiggleVerdict(drift).some((v) => v.reacted)).toBe(false);
  });
});
