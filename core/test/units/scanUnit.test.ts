import { convertScan, parseScan, parseShown } from "../../src/index.js";

test("units of one quantity are converted; others are not", () => {
  expect(convertScan(1, "bar", "kPa")).toBeCloseTo(100, 9);
  expect(convertScan(14.5038, "psi", "bar")).toBeCloseTo(1, 4); // NIST SP 811
  expect(convertScan(212, "°F", "°C")).toBeCloseTo(100, 9);
  expect(convertScan(-40, "°C", "°F")).toBeCloseTo(-40, 9);
  expect(convertScan(3.6, "kg/h", "g/s")).toBeCloseTo(1, 9);
  expect(convertScan(20, "°C", "kPa")).toBeUndefined();
});

test.each([
  ["85 °C", 85, "°C"],
  ["101,3kPa", 101.3, "kPa"],
  ["-40 c", -40, "°C"],
  ["12%", 12, "%"],
  ["4.2", 4.2, "V"],
] as const)("%s is read as it is typed", (text, value, unit) => expect(parseScan(text)).toEqual({ value, unit }));

test("what is no value is refused; words stand for a scan value without a figure", () => {
  expect(parseScan("warm")).toBeUndefined();
  expect(parseScan("12 apples")).toBeUndefined();
  expect(parseShown("Low end", "V", "scan")).toMatchObject({ ok: true, value: { value: "lowEnd" } });
  expect(parseShown("85 °C", "V", "scan")).toMatchObject({ ok: true, value: { value: 85, unit: "°C" } });
  expect(parseShown("4.2-4.9", "V", "scan")).toMatchObject({ ok: true, value: { swing: [4.2, 4.9] } });
  expect(parseShown("85 °C", "V")).toMatchObject({ ok: false });
});
