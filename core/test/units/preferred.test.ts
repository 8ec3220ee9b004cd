import {
  fromPreferred,
  preferredText,
  preferredUnit,
  preferredWithUnit,
  STORED_UNITS,
  toPreferred,
  type Units,
} from "../../src/index.js";

const US: Units = { temperature: "°F", pressure: "psi", section: "AWG", distance: "mi" };

describe("units a person prefers", () => {
  test("as stored where nothing else was chosen, and for units nobody chooses", () => {
    expect(preferredWithUnit(20, "°C", STORED_UNITS)).toBe("20 °C");
    expect(preferredUnit("Ω", US)).toBe("Ω");
    expect(toPreferred(47, "Ω", US)).toBe(47);
    expect(fromPreferred("4k7", "Ω", US)).toBe(4700);
  });

  // 0 °C and 100 °C are 32 °F and 212 °F, 1 bar is 100 kPa: by definition. 1 mi = 1.609344 km: definition of 1959.
  // 100 kPa = 14.50377 psi: NIST SP 811 (value from memory)
  test.each([
    [0, "°C", "32"],
    [100, "°C", "212"],
    [100, "kPa", "14.5"],
    [1.609344, "km", "1"],
    [16.09344, "km", "10"],
  ])("%d %s in US units is %s", (value, unit, text) => {
    expect(preferredText(value, unit, US)).toBe(text);
    expect(fromPreferred(text, unit, US)).toBeCloseTo(value, 1);
  });
  test("bar", () => expect(preferredWithUnit(350, "kPa", { ...STORED_UNITS, pressure: "bar" })).toBe("3.5 bar"));

  // ASTM B258 (values from memory): 18 AWG is 0.823 mm², 12 AWG 3.31 mm², 2/0 AWG 67.4 mm²
  test.each([
    [0.823, "18 AWG"],
    [0.75, "18 AWG"],
    [3.31, "12 AWG"],
    [53.5, "1/0 AWG"],
    [67.4, "2/0 AWG"],
  ])("%d mm² is nearest to %s", (mm2, text) => {
    expect(preferredWithUnit(mm2, "mm²", US)).toBe(text);
  });
  test("a gauge that is typed is kept as its cross-section", () => {
    expect(fromPreferred("18", "mm²", US)).toBeCloseTo(0.823, 3);
    expect(fromPreferred("2/0", "mm²", US)).toBeCloseTo(67.4, 1);
  });

  test.each(["", "warm", "1..2"])("%p is no number", (text) => {
    for (const unit of ["°C", "kPa", "mm²", "km"]) expect(fromPreferred(text, unit, US)).toBeUndefined();
  });
});
