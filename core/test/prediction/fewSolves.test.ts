import { Predictor, Rig, type State } from "../../src/index.js";
import { fillSeverities } from "../../src/prediction/severityFill.js";
import { tugPredictor, tugWiring } from "../warm.js";

const GRID = [0.05, 0.15, 0.4, 1.2, 3, 6, 10, 14, 18, 22, 26, 30, 35, 42, 60, 120, 400];

/** Source: a source of 12 V behind 3 ohm, loaded by R: V = 12 R / (R + 3) (Thévenin's theorem). */
test("a divider at seventeen severities from four solves, to a tenth of a millivolt; an open end included", () => {
  const volts = (ohm: number) => (ohm === Infinity ? 12 : (12 * ohm) / (ohm + 3));
  for (const grid of [GRID, [...GRID, Infinity]]) {
    const found = new Map<number, Float32Array>();
    let solves = 0;
    fillSeverities(
      grid,
      "volts",
      (k) => {
        solves++;
        return { values: Float32Array.of(volts(grid[k]!), 7, NaN), mode: 0 };
      },
      (k, row) => found.set(k, row),
    );
    expect(solves).toBe(4);
    grid.forEach((ohm, k) => {
      expect(Math.abs(found.get(k)![0]! - volts(ohm))).toBeLessThan(1e-4);
      expect(found.get(k)![1]).toBe(7);
      expect(found.get(k)![2]).toBeNaN();
    });
  }
});

/** A reference that gives a limited current: above the limit it is no longer the same straight circuit. */
test("where a device changes its state along the way each side is solved by itself", () => {
  const volts = (ohm: number) => Math.min(5, 0.15 * ohm);
  const found = new Map<number, number>();
  fillSeverities(
    GRID,
    "volts",
    (k) => ({ values: Float32Array.of(volts(GRID[k]!)), mode: volts(GRID[k]!) < 5 ? 1 : 0 }),
    (k, row) => found.set(k, row[0]!),
  );
  GRID.forEach((ohm, k) => expect(Math.abs(found.get(k)! - volts(ohm))).toBeLessThan(2e-3));
});

test("rows filled in for the tug are those solved one by one", () => {
  const state: State = { key: "on", unplugged: ["B9"] };
  const whole = new Predictor(tugWiring);
  const single = new Predictor(tugWiring);
  let compared = 0;
  let worst = 0;
  for (let h = 5; h <= whole.faults.length; h += 23) {
    const { samples } = whole.hypotheses[h]!;
    const rows = whole.predict(h, state, "voltmeter");
    for (let s = 0; s < samples; s += 5) {
      const wanted = new Uint8Array(samples);
      wanted[s] = 1;
      const own = single.predict(h, state, "voltmeter", wanted)[s]!;
      own.forEach((v, i) => {
        const filled = rows[s]![i]!;
        if (!Object.is(v, filled)) worst = Math.max(worst, Math.abs(v - filled) / (1 + Math.abs(v)));
        compared++;
      });
    }
  }
  expect(compared).toBeGreaterThan(5000);
  expect(worst).toBeLessThan(2e-3);
});

/** Judged with a machine that has the fault, every monitor at every look: nothing spared. */
test("codes that are only worked out where a fault moves them are those of a machine that has the fault", () => {
  const n = tugPredictor.monitors.length;
  const differ: string[] = [];
  let compared = 0;
  for (let h = 2; h <= tugPredictor.faults.length; h += 17) {
    const fault = tugPredictor.faults[h - 1]!;
    const bits = tugPredictor.codesSet(h, [...tugPredictor.monitors.keys()]);
    for (const k of fault.severities.keys()) {
      const rig = new Rig(tugWiring, [{ fault, severity: fault.severities[k]! }]);
      const shown = new Set(
        (["on", "cranking", "running"] as const).flatMap((key) => rig.codesIn({ key, unplugged: [] })),
      );
      tugPredictor.monitors.forEach((m, i) => {
        compared++;
        if ((bits[k * tugPredictor.draws * n + i] === 1) !== shown.has(i))
          differ.push(`${fault.id} at ${fault.severities[k]}: ${m.code.id}`);
      });
    }
  }
  expect(compared).toBeGreaterThan(500);
  expect(differ).toEqual([]);
});
