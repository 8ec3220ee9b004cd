import { canSeen, linSeen, matchPattern, parsePattern } from "../../src/index.js";
import { signal } from "./signals.js";

describe("a pattern of levels and times", () => {
  // the wake-up of a current-loop sensor, of invented levels: common practice, no source
  const wake = (t: number) => (t < 0.1 ? 0.1 : t < 0.13 ? 5 : t < 0.135 ? 0.2 : 2.5);
  const channel = signal(wake, { seconds: 0.5, perSecond: 5_000, noise: 0.02 });
  const steps = (text: string) => {
    const read = parsePattern(text);
    if (!read.ok) throw new Error(JSON.stringify(read.issues));
    return read.value;
  };
  test("it is found where it was written", () => {
    const found = matchPattern(channel, steps("5 for 20 to 40 ms, 0.2 for 5 ms, 2.5"));
    expect(found).toMatchObject({ from: expect.closeTo(0.1, 3) as number });
  });
  test("what does not fit is told, and when", () => {
    expect(matchPattern(channel, steps("5 for 20 to 40 ms, 0.2 for 20 ms, 2.5"))).toMatchObject({
      fitted: 1,
      at: expect.closeTo(0.13, 2) as number,
    });
    expect(matchPattern(channel, steps("9 for 1 ms"))).toMatchObject({ fitted: 0 });
  });
  test("a step that is not understood is named", () => {
    const read = parsePattern("5 for 20 ms, up a bit, 0");
    expect(read.ok).toBe(false);
    expect(!read.ok && read.issues[0]).toMatchObject({
      code: "trace.pattern-step",
      params: { step: 2, text: "up a bit" },
    });
  });
  test("decimal commas, tolerances, microseconds", () => {
    expect(steps("2,5±0,3 for 100 us; 0")).toEqual([
      { low: 2.2, high: 2.8, least: expect.closeTo(80e-6, 9) as number, most: expect.closeTo(120e-6, 9) as number },
      { low: -0.2, high: 0.2, least: undefined, most: undefined },
    ]);
  });
});

describe("bus lines, against the levels of ISO 11898-2 and ISO 17987-4 (values from memory)", () => {
  const bit = (t: number) => Math.floor(t * 20_000) % 3 === 0;
  const line = (dominant: number, recessive: number, seed: number) =>
    signal((t) => (bit(t) ? dominant : recessive), { seconds: 0.1, perSecond: 200_000, noise: 0.02, seed });
  const still = (volt: number, seed: number) =>
    signal(() => volt, { seconds: 0.1, perSecond: 200_000, noise: 0.02, seed });
  test("two sound lines that talk", () => {
    const seen = canSeen(line(3.5, 2.5, 1), line(1.5, 2.5, 2));
    expect(seen).toMatchObject({ is: "talking", outside: [] });
    expect(seen.dominantShare).toBeCloseTo(1 / 3, 1);
    expect(seen.dominant).toBeCloseTo(2, 1);
  });
  test("at rest, stuck, one line missing, joined to each other, without power", () => {
    expect(canSeen(still(2.5, 1), still(2.5, 2)).is).toBe("atRest");
    expect(canSeen(still(3.5, 1), still(1.5, 2)).is).toBe("stuckDominant");
    expect(canSeen(line(3.5, 2.5, 1), still(2.5, 2)).is).toBe("oneLineMissing");
    expect(canSeen(line(2.9, 2.5, 1), line(2.9, 2.5, 1)).is).toBe("shorted");
    expect(canSeen(still(0.1, 1), still(0.1, 2)).is).toBe("dead");
  });
  test("levels outside the standard are named with what it allows", () => {
    const seen = canSeen(line(4.9, 2.5, 1), line(0.3, 2.5, 2));
    expect(seen.outside.map((o) => o.what)).toEqual(["highDominant", "lowDominant", "betweenDominant"]);
    expect(seen.lacksTerminator).toBe(true);
    expect(canSeen(line(3.5, 2.5, 1), line(1.5, 2.5, 2)).lacksTerminator).toBe(false);
  });
  test("one line of a LIN bus at 12 V", () => {
    expect(linSeen(line(0.8, 11.8, 1), 12)).toMatchObject({ is: "talking", outside: [] });
    expect(linSeen(still(0.3, 1), 12).is).toBe("stuckDominant");
    expect(linSeen(line(3.5, 8.9, 1), 12).outside.map((o) => o.what)).toEqual(["lineRecessive", "lineDominant"]);
  });
});
