import { followPoint } from "../../src/index.js";
import { tug } from "../helpers.js";

describe("following a cavity", () => {
  test("reference from the sensor to the module, with everything else on it", () => {
    const f = followPoint(tug(), "B7:1");
    expect(f.end).toMatch(/^A1:/);
    expect(f.steps[0]!.from).toBe("B7:1");
    expect(f.steps.at(-1)!.to).toBe(f.end);
    f.steps.forEach((s, i) => {
      if (i) expect(s.from).toBe(f.steps[i - 1]!.to);
    });
    expect(f.others).toEqual(expect.arrayContaining(["B9", "B12"]));
  });
  test("the module's own supply back through fuse and switch to the battery", () => {
    const f = followPoint(tug(), "A1:1");
    expect(f.end).toBe("BAT:+");
    expect(f.steps.map((s) => s.thing)).toEqual(expect.arrayContaining(["F12", "K1"]));
  });
  test("ends where copper ends", () => {
    expect(followPoint(tug(), "nowhere:1")).toMatchObject({ steps: [], end: undefined });
  });
});
