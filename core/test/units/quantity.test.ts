import fc from "fast-check";
import { formatQuantity, parsePlain, parseQuantity, parseShown } from "../../src/index.js";

const value = (text: string, unit: "V" | "Ω") => {
  const r = parseQuantity(text, unit);
  return r.ok ? r.value : r.issues[0]?.code;
};

test.each<[string, "V" | "Ω", number]>([
  ["0.15", "V", 0.15],
  ["12,4", "V", 12.4],
  ["150m", "V", 0.15],
  ["150 mV", "V", 0.15],
  ["5V", "V", 5],
  ["-0.02", "V", -0.02],
  ["−0.02", "V", -0.02],
  [".5", "V", 0.5],
  ["12.", "V", NaN],
  ["10k2", "Ω", 10200],
  ["18.4k", "Ω", 18400],
  ["18,4 kΩ", "Ω", 18400],
  ["4R7", "Ω", 4.7],
  ["1M", "Ω", 1e6],
  ["0.5", "Ω", 0.5],
  ["470 ohm", "Ω", 470],
  ["OL", "Ω", Infinity],
  ["o.l.", "Ω", Infinity],
  ["-0.1", "Ω", 0],
])("reads %s in %s", (text, unit, expected) => {
  if (Number.isNaN(expected)) expect(value(text, unit)).toBe("quantity.not-a-number");
  else expect(value(text, unit)).toBeCloseTo(expected, 12);
});

test.each<[string, "V" | "Ω", string]>([
  ["", "V", "empty"],
  ["abc", "V", "not-a-number"],
  ["1.2.3", "V", "not-a-number"],
  ["1k2k", "Ω", "not-a-number"],
  ["1.5k2", "Ω", "not-a-number"],
  ["12kV", "V", "absurd"],
  ["12000", "V", "absurd"],
  ["OL", "V", "overload-not-ohms"],
  ["5 V", "Ω", "wrong-unit"],
  ["10 ohm", "V", "wrong-unit"],
  ["4R7", "V", "wrong-unit"],
  ["-12", "Ω", "negative-ohms"],
  ["9999M", "Ω", "absurd"],
  ["1e3", "V", "not-a-number"],
  ["0x10", "Ω", "not-a-number"],
])("asks again for %s in %s: %s", (text, unit, code) => expect(value(text, unit)).toBe(`quantity.${code}`));

test("what it writes it can read back, to the digits shown (fast-check)", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.01, max: 59, noNaN: true }), (v) => {
      expect(Math.abs((value(formatQuantity(v, "V"), "V") as number) - v)).toBeLessThanOrEqual(
        v < 9.995 ? 0.0051 : 0.051,
      );
    }),
    { seed: 1 },
  );
  fc.assert(
    fc.property(fc.double({ min: 1, max: 9e8, noNaN: true }), (v) => {
      expect((value(formatQuantity(v, "Ω"), "Ω") as number) / v).toBeCloseTo(1, 1);
    }),
    { seed: 2 },
  );
});
test("whatever is typed, it answers (fast-check)", () => {
  fc.assert(
    fc.property(fc.string(), fc.constantFrom("V" as const, "Ω" as const), (text, unit) => {
      expect(typeof parseQuantity(text, unit).ok).toBe("boolean");
    }),
    { numRuns: 500, seed: 3 },
  );
});

describe("what people type from a meter, a lamp, a beeper", () => {
  test.each([
    ["4.2–4.9", "V", { value: 4.55, swing: [4.2, 4.9] }],
    ["4.2-4.9", "V", { value: 4.55, swing: [4.2, 4.9] }],
    ["4,9 to 4,2", "V", { value: 4.55, swing: [4.2, 4.9] }],
    ["-0.2--0.1", "V", { value: -0.15000000000000002, swing: [-0.2, -0.1] }],
    ["100-300 mV", "V", { value: 0.2, swing: [0.1, 0.3] }],
    ["1k-3k", "Ω", { value: 2000, swing: [1000, 3000] }],
    ["1-3k", "Ω", { value: 2000, swing: [1000, 3000] }],
    ["~12.4", "V", { value: 12.4 }],
    ["-0.35", "V", { value: -0.35 }],
    ["10k2", "Ω", { value: 10200 }],
    ["OL", "Ω", { value: Infinity }],
  ] as const)("%s in %s", (text, unit, value) => {
    const read = parseShown(text, unit);
    expect(read.ok && read.value.value).toBeCloseTo(value.value, 9);
    if ("swing" in value) {
      expect(read.ok && read.value.swing![0]).toBeCloseTo(value.swing[0], 9);
      expect(read.ok && read.value.swing![1]).toBeCloseTo(value.swing[1], 9);
    } else expect(read.ok && read.value.swing).toBeFalsy();
  });
  test("words where they make sense, and only there", () => {
    expect(parseShown("Dim", "V", "lamp")).toMatchObject({ ok: true, value: { value: "dim" } });
    expect(parseShown("no beep", "Ω", "beeper")).toMatchObject({ ok: true, value: { value: "silent" } });
    expect(parseShown("beep", "V", "lamp")).toMatchObject({ ok: false, issues: [{ code: "quantity.not-a-word" }] });
    expect(parseShown("dim", "V")).toMatchObject({ ok: false, issues: [{ code: "quantity.not-a-number" }] });
    expect(parseShown("about five, I think", "V")).toMatchObject({ ok: false });
    expect(parseShown("OL", "V")).toMatchObject({ ok: false, issues: [{ code: "quantity.overload-not-ohms" }] });
    expect(parseShown("4 V - 3 Ω", "V")).toMatchObject({ ok: false });
  });
});

test.each([
  ["2k2", 2200],
  ["0,75", 0.75],
  ["-40", -40],
  ["10M", 1e7],
  ["12 500", 12500],
  ["", undefined],
  ["abc", undefined],
  ["1.2k3", undefined],
  ["1e9", undefined],
])("a bare number %s is %s", (text, value) => {
  if (value === undefined) expect(parsePlain(text)).toBeUndefined();
  else expect(parsePlain(text)).toBeCloseTo(value, 9);
});
