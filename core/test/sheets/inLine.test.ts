import {
  boxToTake,
  buildChart,
  emptyChart,
  isNamedBox,
  readSheet,
  sidedCavities,
  SheetContent,
  takeWhole,
} from "../../src/index.js";

const word = (text: string, x: number, y: number) => ({ text, x: x - 4, y: y - 4, width: 8, height: 8 });
/** Two sensors at the left, a module at the right, and between them a box through which each wire goes straight. */
const page = (between: (y: number, i: number) => ReturnType<typeof word>[], name = "X5"): SheetContent => {
  const heights = [200, 240, 280];
  return SheetContent.parse({
    format: "radicula/sheet",
    version: 1,
    width: 1000,
    height: 700,
    boxes: [
      [100, 160, 120, 160],
      [450, 160, 100, 160],
      [800, 160, 120, 160],
    ],
    lines: heights.flatMap((y) => [
      [220, y, 450, y],
      [550, y, 800, y],
    ]),
    words: [
      word("B7", 160, 170),
      word(name, 500, 170),
      word("A1", 860, 170),
      ...heights.flatMap((y, i) => [word(`${i + 1}`, 212, y), ...between(y, i), word(`${i + 21}`, 810, y)]),
    ],
  });
};
const sheet = { id: "p1", name: "Sheet 1", source: "", width: 1000, height: 700 };

describe("a connector in a line, drawn as a box", () => {
  const both = page((y, i) => [word(`${i + 4}`, 459, y), word(`${i + 4}`, 541, y)]);

  test("with each number at both its edges, every cavity has two sides, and the wires end at them", () => {
    const read = readSheet(both);
    const box = read.boxes.find((b) => b.id === "X5")!;
    expect(box.kind).toBe("inline");
    expect(box.pins.map((p) => p.cavity).sort()).toEqual(["4.a", "4.b", "5.a", "5.b", "6.a", "6.b"]);
    expect(isNamedBox(box)).toBe(true);
    const { wiring, issues } = buildChart(takeWhole(emptyChart("X"), sheet, read));
    expect(issues.filter((i) => i.code.startsWith("chart.bad"))).toEqual([]);
    const x5 = wiring.connectors.find((c) => c.id === "X5")!;
    expect([x5.inline, x5.cavities]).toEqual([true, ["4", "5", "6"]]);
    expect(wiring.wires.map((w) => [w.from, w.to].sort().join(" ")).sort()).toEqual([
      "A1:21 X5:4.b",
      "A1:22 X5:5.b",
      "A1:23 X5:6.b",
      "B7:1 X5:4.a",
      "B7:2 X5:5.a",
      "B7:3 X5:6.a",
    ]);
  });

  test("one number for both edges is enough where the name says that it joins harnesses", () => {
    const once = (y: number, i: number) => [word(`${i + 4}`, 459, y)];
    expect(
      readSheet(page(once))
        .boxes.find((b) => b.id === "X5")!
        .pins.map((p) => p.cavity),
    ).toContain("6.b");
    // a part of any other name may have pins at both edges, and numbers of its own for each
    const other = readSheet(page(once, "B9")).boxes.find((b) => b.id === "B9")!;
    expect(other.kind).toBe("connector");
    expect(other.pins.some((p) => p.cavity.includes("."))).toBe(false);
  });

  test("numbers that differ from edge to edge are cavities of one connector", () => {
    const read = readSheet(page((y, i) => [word(`${i + 4}`, 459, y), word(`${i + 14}`, 541, y)]));
    const box = read.boxes.find((b) => b.id === "X5")!;
    expect(box.kind).toBe("connector");
    expect(box.pins.map((p) => p.cavity).sort()).toEqual(["14", "15", "16", "4", "5", "6"]);
  });

  test("named as in-line by hand, each pin takes the side of its edge", () => {
    const read = readSheet(page((y, i) => [word(`${i + 4}`, 459, y), word(`${i + 4}`, 541, y)], "B9"));
    const box = {
      ...boxToTake(read.boxes.find((b) => b.id === "B9")!),
      pins: [
        { cavity: "1", at: [450, 200] as const, function: "" },
        { cavity: "1", at: [550, 200] as const, function: "" },
        { cavity: "2.b", at: [550, 240] as const, function: "" },
      ],
    };
    expect(sidedCavities(box)).toEqual(["1.a", "1.b", "2.b"]);
  });
});
