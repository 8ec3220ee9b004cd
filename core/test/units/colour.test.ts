import { gaugeMm2, parseColour, parseSection, sameColour } from "../../src/index.js";

const letters = (text: string) => {
  const r = parseColour(text);
  return r.status === "read" ? r.colour.letters : r.status;
};

// letters: IEC 60757 (values from memory); other notations: common practice, no source
test.each([
  ["BK", "BK"],
  ["og/wh", "OG/WH"],
  ["OGWH", "OG/WH"],
  ["orange-white", "OG/WH"],
  ["Orange with white stripe", "OG/WH"],
  ["BLK/RED", "BK/RD"],
  ["BLKRED", "BK/RD"],
  ["sw/rt", "BK/RD"],
  ["ge", "YE"],
  ["LT BLU", "BU"],
  ["dark green", "GN"],
  ["violet", "VT"],
  ["PPL", "VT"],
  ["GY", "GY"],
  ["grey", "GY"],
  ["TQ", "TQ"],
  ["pink / black", "PK/BK"],
  ["ws-bn", "WH/BN"],
  ["RD/RD", "RD"],
  ["W/B", "ambiguous"],
  ["GR", "ambiguous"],
  ["BL/WH", "ambiguous"],
  ["", "unknown"],
  ["XQ", "unknown"],
  ["BK/WH/RD", "unknown"],
  ["=cmd()", "unknown"],
  ["12", "unknown"],
])("reads %p as %p", (text, expected) => {
  expect(letters(text)).toBe(expected);
});

test("an unknown colour names letters close to it; an ambiguous one what it could be", () => {
  const near = parseColour("BX");
  const two = parseColour("GR");
  expect(near.status === "unknown" && near.nearest).toEqual(expect.arrayContaining(["BK", "BN", "BU"]));
  expect(two.status === "ambiguous" && two.could).toEqual(["GY", "GN"]);
});
test("the same colour in two notations", () => {
  expect(sameColour("OG/WH", "orange/white")).toBe(true);
  expect(sameColour("BN", "BK")).toBe(false);
  expect(sameColour("GR", "gr")).toBe(true); // as typed, whatever it means
});

test("wire gauges: d = 0.127 mm · 92^((36 − n)/39); AWG 18 is 0.823 mm² (ASTM B258, value from memory)", () => {
  expect(gaugeMm2(18)).toBeCloseTo(0.823, 3);
  expect(parseSection("18 AWG")).toBe(0.823);
  expect(parseSection("AWG18")).toBe(0.823);
});
test.each([
  ["0.75", 0.75],
  ["0,75 mm²", 0.75],
  ["1.5mm2", 1.5],
  [".5", 0.5],
  ["thick", undefined],
  ["-1", undefined],
  ["0", undefined],
  ["1000", undefined],
  ["0.75; 1", undefined],
])("cross-section %p", (text, mm2) => {
  expect(parseSection(text)).toBe(mm2);
});
