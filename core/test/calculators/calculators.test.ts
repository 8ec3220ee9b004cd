import { off, plug, rig, volt } from "../bench.js";
import { wiring } from "../helpers.js";
import {
  airPressure,
  cableOhmPerMetre,
  calculate,
  CALCULATORS,
  platinumCelsius,
  platinumRatio,
  thermistorCelsius,
  thermistorOhm,
  type Calculator,
} from "../../src/index.js";
import { CALCULATOR_WORDS } from "../../words/index.js";

describe("published values", () => {
  // ISO 2533 standard atmosphere (values from memory)
  test.each([
    [0, 101.325],
    [500, 95.46],
    [1000, 89.87],
    [1500, 84.56],
    [2000, 79.5],
    [3000, 70.11],
  ])("air at %d m is %d kPa", (h, kPa) => expect(airPressure(h)).toBeCloseTo(kPa, 1));
  // IEC 60751 (values from memory)
  test.each([
    [0, 1],
    [100, 1.3851],
    [200, 1.7586],
    [-50, 0.8031],
  ])("platinum at %d °C is %d of R0", (t, ratio) => {
    expect(platinumRatio(t)).toBeCloseTo(ratio, 4);
    expect(platinumCelsius(platinumRatio(t))).toBeCloseTo(t, 6);
  });
  // IEC 60228 class 5 maxima, ohm per km at 20 °C (values from memory)
  test.each([
    [0.5, 39],
    [0.75, 26],
    [1, 19.5],
    [1.5, 13.3],
    [2.5, 7.98],
    [4, 4.95],
    [6, 3.3],
    [10, 1.91],
    [16, 1.21],
  ])("%d mm² has %d Ω/km", (mm2, ohm) => expect(1000 * cableOhmPerMetre(mm2, 20)).toBeCloseTo(ohm, 9));
  test("other cross-sections by IEC 60028 copper, 1/58 Ω·mm²/m and 0.00393 /K (values from memory)", () => {
    expect(cableOhmPerMetre(2, 20)).toBeCloseTo(1 / 58 / 2, 12);
    expect(cableOhmPerMetre(2, 80) / cableOhmPerMetre(2, 20)).toBeCloseTo(1 + 0.00393 * 60, 9);
  });
  test("the B equation both ways", () => {
    for (const t of [-30, 0, 25, 80, 120])
      expect(thermistorCelsius(10_000, 3435, thermistorOhm(10_000, 3435, t))).toBeCloseTo(t, 9);
  });
});

describe("each calculator", () => {
  const start = (c: Calculator) => Object.fromEntries(c.inputs.map((i) => [i.id, i.start]));
  test.each(CALCULATORS.map((c) => [c.id, c] as const))(
    "%s: works from its start, every name is worded, limits hold",
    (id, c) => {
      const { outputs, wrong } = calculate(id, start(c));
      expect(wrong).toEqual([]);
      expect(outputs.length).toBeGreaterThan(0);
      for (const { id: name } of [...c.inputs, ...outputs]) expect(CALCULATOR_WORDS[id].names[name]).toBeTruthy();
      for (const i of c.inputs)
        for (const bad of [undefined, NaN, i.high * 1.01 + 1, i.low - 1 - Math.abs(i.low)])
          expect(calculate(id, { ...start(c), [i.id]: bad })).toEqual({ outputs: [], wrong: [i.id] });
    },
  );
  const value = (id: (typeof CALCULATORS)[number]["id"], more: Record<string, number>, name: string) =>
    calculate(id, { ...start(CALCULATORS.find((c) => c.id === id)!), ...more }).outputs.find((o) => o.id === name)!
      .value;
  test("worked by hand from the formula", () => {
    expect(value("lamp", { watt: 21, volt: 12, circuitAmpere: 3.5 }, "lampAmpere")).toBeCloseTo(1.75, 9);
    expect(value("lamp", { watt: 21, volt: 12, circuitAmpere: 3.5 }, "shareOfCircuit")).toBeCloseTo(50, 9);
    expect(value("wire", { mm2: 1, length: 10, ampere: 5 }, "drop")).toBeCloseTo(0.975, 9);
    // 75 mV at its rating (common practice, no source)
    expect(value("fuse", { millivolt: 7.5, rating: 10 }, "ampere")).toBeCloseTo(1, 9);
    expect(value("divider", { sensorOhm: 2200 }, "volt")).toBeCloseTo(
      (5 * (1 / (1 / 2200 + 1e-7))) / (1 / (1 / 2200 + 1e-7) + 2200),
      9,
    );
    expect(value("pressure", { volt: 4.5 }, "pressure")).toBeCloseTo(1000, 9);
    expect(value("duty", { duty: 25, volt: 12, ohm: 6 }, "averageAmpere")).toBeCloseTo(0.5, 9);
    expect(value("heaters", { ohm1: 1, ohm2: 1, ohm3: 0, ohm4: 0, volt: 12 }, "ampere")).toBeCloseTo(24, 9);
  });
  test("12.4 V through a 100 kΩ ground reads 12.28 V on a 10 MΩ meter (computable from the divider)", () => {
    const w = wiring({
      connectors: [plug("X1", 1)],
      devices: [
        { kind: "battery", id: "BAT" },
        { kind: "ground", id: "G1" },
      ],
      wires: [
        { id: "W1", from: "BAT:+", to: "X1:1" },
        { from: "BAT:-", to: "G1" },
      ],
    });
    const sound = volt(rig(w), off, "X1:1");
    expect((12.4 * volt(rig(w, "W1/highResistance", 100_000), off, "X1:1")) / sound).toBeCloseTo(12.28, 2);
  });
});
