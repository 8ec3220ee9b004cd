import { hideFaults, SimulatedMachine } from "../../src/index.js";
import { tug } from "../helpers.js";

describe("faults hidden for practice", () => {
  test("each sets a code by itself, at places of its own, the same for the same seed", () => {
    const w = tug();
    for (const [count, seed] of [
      [1, 1],
      [2, 7],
      [3, 11],
    ] as const) {
      const hidden = hideFaults(w, count, seed)!;
      expect(new Set(hidden.map((f) => f.fault.place.id)).size).toBe(count);
      for (const f of hidden) expect(new SimulatedMachine(w, [f], seed).codes().length).toBeGreaterThan(0);
      expect(hideFaults(w, count, seed)!.map((f) => [f.fault.id, f.severity])).toEqual(
        hidden.map((f) => [f.fault.id, f.severity]),
      );
    }
  });
  test("where no code can set there is nothing to hide", () =>
    expect(hideFaults({ ...tug(), codes: [] }, 1, 1)).toBeUndefined());
});
