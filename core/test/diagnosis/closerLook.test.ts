import { assess, findFault, generateHarness, makePlan, Predictor, type Entry, type State } from "../../src/index.js";

const at = "2026-01-01T08:00:00Z";
const on = (...unplugged: string[]): State => ({ key: "on", unplugged });

/**
 * What a simulated machine showed whose terminal A1:5 is open: the reference hangs on what sensors let through, so that
 * every reading depends on all of them. Eight draws of what is not known hold no machine like this one.
 */
const BACKFED: readonly (readonly [string, number, State])[] = [
  ["X1a:1.a", 0.15, on()],
  ["X1a:1.b", 0.15, on()],
  ["X1a:1.b", 0, on("X1a")],
  ["A1:5", 0.15, on()],
  ["X1a:4.b", 0.39, on()],
  ["B1a5:1", 0.06, on("B1a5")],
  ["B1a5:1", 0.36, on("B1a4")],
  ["B1a4:1", 0.36, on("B1a4")],
  ["B1a4:1", 0.15, on()],
  ["B1a1:1", 0.12, on("B1a1")],
  ["B1a1:1", 0.06, on("B1a5")],
  ["B1a5:1", 0.12, on("B1a1")],
];
const CODES = ["NB1a1", "LA1:10", "NB1a5"];

test("readings that hang on many unknowns at once: one open terminal, not that and a short beside it", () => {
  const wiring = generateHarness({ nodes: 100, seed: 63 });
  const predictor = new Predictor(wiring);
  const entries: Entry[] = [
    ...CODES.map((code): Entry => ({ type: "code", at, module: "A1", code, status: "active" })),
    ...BACKFED.map(([point, value, state]): Entry => ({
      type: "reading",
      at,
      instrument: "voltmeter",
      points: [point],
      values: [value],
      state,
    })),
  ];
  const belief = assess(predictor, entries);
  const shareOf = (is: (ids: readonly string[]) => boolean) =>
    belief.posterior.components.reduce(
      (sum, c) => sum + (is(predictor.hypotheses[c.hypothesis]!.faults.map((f) => f.id)) ? c.share : 0),
      0,
    );
  // open in the terminal or dead in the module: nothing read here tells them apart
  expect(shareOf((ids) => ids.length === 1 && ids[0]!.startsWith("A1:5/"))).toBeGreaterThan(0.9);
  expect(shareOf((ids) => ids.length > 1)).toBeLessThan(0.05);
  expect(makePlan(predictor, belief).grouped.suspects[0]!.type).toBe("fault");
  expect(findFault(predictor.faults, "A1:5/contactOpen")).toBeDefined();
}, 60_000);
