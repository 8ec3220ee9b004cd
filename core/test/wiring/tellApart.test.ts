import { tellApart } from "../../src/index.js";

describe("which wire is which", () => {
  // common practice, no source: a three-wire Hall unplugged, key on, shows supply, a signal pulled up by the module,
  // ground
  test("a Hall sensor's plug", () => {
    expect(
      tellApart(
        [
          { cavity: "1", toNegative: 12.3 },
          { cavity: "2", toNegative: 5.02 },
          { cavity: "3", toNegative: 0.01, toPositive: 12.3 },
        ],
        12.4,
      ).map((t) => [t.cavity, t.function, t.sure]),
    ).toEqual([
      ["1", "supply", true],
      ["2", "signal", true],
      ["3", "ground", true],
    ]);
  });
  test(
    "a three-wire pressure sensor's plug: reference, ground, and a pulled-down signal that shows nothing " +
      "either way",
    () => {
      expect(
        tellApart(
          [
            { cavity: "1", toNegative: 5.0 },
            { cavity: "2", toNegative: 0, toPositive: 12.35 },
            { cavity: "3", toNegative: 0.02, toPositive: 1.1 },
          ],
          12.4,
        ).map((t) => t.function),
      ).toEqual(["reference", "ground", "signal"]);
    },
  );
  test("zero against battery negative alone proves nothing", () => {
    expect(tellApart([{ cavity: "1", toNegative: 0 }], 12.4)[0]).toMatchObject({ function: "unknown", sure: false });
  });
});
