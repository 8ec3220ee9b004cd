import { tugPredictor, tugWiring } from "../warm.js";
import { Predictor, severityOffGrid, SimulatedMachine } from "../../src/index.js";
import { wiring } from "../helpers.js";

describe("the simulated machine", () => {
  const fault = tugPredictor.faults.find((f) => f.id === "B9/shortSupplyGround")!;
  test("severities off the grid lie between its points", () => {
    for (const u of [0, 0.13, 0.5, 0.99]) {
      const s = severityOffGrid(fault, u);
      expect(s).toBeGreaterThanOrEqual(fault.severities[0]!);
      expect(s).toBeLessThanOrEqual(fault.severities.at(-1)!);
    }
    expect(fault.severities).not.toContain(severityOffGrid(fault, 0.37));
  });
  test("slips, missed fourCodes and faults that come and go happen about as often as asked", () => {
    const m = new SimulatedMachine(tugWiring, [{ fault, severity: 5 }], 9, { slips: 0.2, presence: 0.5 });
    const seen = Array.from({ length: 400 }, () => {
      m.look();
      return m.read("B7:1", { key: "on", unplugged: [] }, "voltmeter");
    });
    const low = seen.filter((v) => v < 1.6 && v > 0.4).length;
    const whole = seen.filter((v) => v > 4.7 && v < 5.2).length;
    expect(low).toBeGreaterThan(110);
    expect(whole).toBeGreaterThan(110);
    expect(low + whole).toBeLessThan(390);
    const missed = Array.from(
      { length: 60 },
      (_, i) => new SimulatedMachine(tugWiring, [{ fault, severity: 5 }], i, { missed: 0.25 }).codes().length,
    ).reduce((a, b) => a + b, 0);
    const all = Array.from(
      { length: 60 },
      (_, i) => new SimulatedMachine(tugWiring, [{ fault, severity: 5 }], i).codes().length,
    ).reduce((a, b) => a + b, 0);
    expect(missed / all).toBeGreaterThan(0.6);
    expect(missed / all).toBeLessThan(0.9);
  });
  test("leads in the look-alike read what stands there", () => {
    const at = { key: "on" as const, unplugged: [] };
    const open = tugPredictor.faults.find((f) => f.id === "B7:1/contactOpen")!;
    const honest = new SimulatedMachine(tugWiring, [{ fault: open, severity: NaN }], 2);
    const mistaken = new SimulatedMachine(tugWiring, [{ fault: open, severity: NaN }], 2, {
      mistaken: { from: "B7", to: "B9" },
    });
    expect(Math.abs(mistaken.read("B7:3", at, "voltmeter") - honest.read("B9:3", at, "voltmeter"))).toBeLessThan(0.02);
  });
  test(
    "a fuse that a short melted stays blown with the culprit unplugged, and holds again with a breaker in " +
      "its place",
    () => {
      const w = wiring({
        connectors: [{ id: "Y1", cavities: ["1", "2"] }],
        devices: [
          { kind: "battery", id: "BAT" },
          { kind: "ground", id: "G1" },
          { kind: "fuse", id: "F1", rating: 10 },
          { kind: "solenoid", id: "Y1", pins: { feed: "Y1:1", ground: "Y1:2" } },
        ],
        wires: [
          ["BAT:-", "G1"],
          ["BAT:+", "F1:in"],
          ["F1:out", "Y1:1"],
          ["Y1:2", "G1"],
        ].map(([from, to]) => ({ from, to, mm2: 4 })),
      });
      const p = new Predictor(w);
      const h = p.faults.findIndex((f) => f.id === "Y1/shortInside") + 1;
      const m = new SimulatedMachine(w, [{ fault: p.faults[h - 1]!, severity: 0.05 }], 1);
      const out = (state: object) => m.read("F1:out", { key: "on", unplugged: [], ...state }, "voltmeter");
      expect(m.read("F1:in", { key: "on", unplugged: [] }, "voltmeter")).toBeGreaterThan(11);
      expect(out({})).toBeLessThan(1);
      expect(out({ unplugged: ["Y1"] })).toBeLessThan(1);
      expect(out({ unplugged: ["Y1"], breakers: ["F1"] })).toBeGreaterThan(11);
      expect(out({ breakers: ["F1"] })).toBeLessThan(1); // it trips again
      // and the engine predicts the same
      const predicted = (state: object) =>
        p.predict(h, { key: "on", unplugged: [], ...state }, "voltmeter")[0]![p.placeOf("voltmeter", "F1:out")!]!;
      expect(predicted({ unplugged: ["Y1"] })).toBeLessThan(1);
      expect(predicted({ unplugged: ["Y1"], breakers: ["F1"] })).toBeGreaterThan(11);
    },
  );
});
