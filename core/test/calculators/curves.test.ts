import { calculate, CALCULATORS, curveOf, type CalculatorId } from "../../src/index.js";

/** What a calculator starts with. */
const startOf = (id: CalculatorId): Record<string, number> =>
  Object.fromEntries(CALCULATORS.find((c) => c.id === id)!.inputs.map((i) => [i.id, i.start]));

describe("curves of sums", () => {
  // U = U0 · R / (R + Rpull): half of the pull-up's voltage where the sensor has as many ohms. Voltage divider
  test("a pulled-up signal rises from ground to the pull-up, through the half at the pull-up's own ohms", () => {
    const values = { ...startOf("divider"), pullVolt: 5, pullOhm: 2200, sensorOhm: 2200, meterOhm: 1e9 };
    const curve = curveOf("divider", values)!;
    expect(curve.here).toEqual({ x: 2200, y: expect.closeTo(2.5, 4) as number });
    expect(curve.x).toEqual({ id: "sensorOhm", unit: "Ω", isLog: true });
    const volts = curve.points.map((p) => p.y);
    expect(volts).toEqual([...volts].sort((a, b) => a - b));
    expect(volts[0]).toBeLessThan(0.06);
    expect(volts.at(-1)).toBeGreaterThan(4.94);
    expect(curve.points.some((p) => Math.abs(p.x - 2200) < 1 && Math.abs(p.y - 2.5) < 0.01)).toBe(true);
  });

  // an NTC has fewer ohms the hotter it is, so that a pulled-up signal falls; 25 °C is where it has its nominal ohms
  test("a thermistor's signal falls with temperature, and 25 °C lies on the curve", () => {
    const values = startOf("thermistor");
    const curve = curveOf("thermistor", { ...values, ohm: values["ohm25"]! })!;
    expect(curve.here.x).toBeCloseTo(25, 6);
    const volts = curve.points.map((p) => p.y);
    expect(volts).toEqual([...volts].sort((a, b) => b - a));
    expect(curve.points[0]!.x).toBeCloseTo(-40, 3);
    expect(curve.points.at(-1)!.x).toBeCloseTo(150, 3);
  });

  // IEC 60751 (value from memory): a Pt100 has 138.51 Ω at 100 °C
  test("a platinum thermometer: 138.51 Ω at 100 °C is on its curve", () => {
    const curve = curveOf("platinum", startOf("platinum"))!;
    expect(curve.here).toEqual({ x: expect.closeTo(100, 1) as number, y: 138.51 });
    const [left, right] = [curve.points.filter((p) => p.x <= 100).at(-1)!, curve.points.find((p) => p.x > 100)!];
    expect(left.y).toBeLessThanOrEqual(138.52);
    expect(right.y).toBeGreaterThan(138.5);
  });

  test("every point is what the sum itself gives", () => {
    const values = startOf("pressure");
    const curve = curveOf("pressure", values)!;
    for (const p of curve.points)
      expect(calculate("pressure", { ...values, volt: p.x }).outputs.find((o) => o.id === "pressure")!.value).toBe(p.y);
  });

  test("none where there is none, and none of values that make no sense", () => {
    expect(curveOf("lamp", startOf("lamp"))).toBeUndefined();
    expect(curveOf("divider", { ...startOf("divider"), pullOhm: undefined })).toBeUndefined();
    expect(curveOf("divider", { ...startOf("divider"), pullOhm: -1 })).toBeUndefined();
    expect(curveOf("pressure", { ...startOf("pressure"), lowShare: 90, highShare: 10 })).toBeUndefined();
    expect(curveOf("pressure", { ...startOf("pressure"), highPressure: 0 })).toBeUndefined(); // flat
    // a point that the sum refuses is left out, the rest stands
    expect(curveOf("divider", { ...startOf("divider"), pullOhm: 1e7 })!.points.every((p) => p.x <= 1e8)).toBe(true);
  });
});
