import { emptyChart, readSheet, SheetContent, takeNewEdition, takeWhole } from "../../src/index.js";

const word = (text: string, x: number, y: number) => ({ text, x: x - 4, y: y - 4, width: 8, height: 8 });
/** Two boxes and the wires between them; a note. All moved and enlarged as asked. */
function page(at: (x: number, y: number) => [number, number], wires: readonly (readonly [number, number])[]) {
  const w = (text: string, x: number, y: number) => word(text, ...at(x, y));
  const box = (x: number, y: number) => [...at(x, y), at(x + 120, y)[0] - at(x, y)[0], at(x, y + 160)[1] - at(x, y)[1]];
  const height = (n: number) => 160 + 40 * n;
  return SheetContent.parse({
    format: "radicula/sheet",
    version: 1,
    width: 1000,
    height: 700,
    boxes: [box(100, 140), box(700, 140)],
    lines: wires.map(([a, b]) => [...at(220, height(a)), ...at(700, height(b))]),
    words: [
      w("B7", 160, 150),
      w("A1", 760, 150),
      ...wires.flatMap(([a, b]) => [w(String(a), 212, height(a)), w(String(b + 20), 708, height(b))]),
      w("Reference", 300, 600),
      w("Left", 80, 640),
      w("Right", 900, 50),
    ],
  });
}
const sheet = (id: string) => ({ id, name: `Page ${id}`, source: "", width: 1000, height: 700 });
const WIRES = [
  [1, 1],
  [2, 2],
] as const;
const old = page((x, y) => [x, y], WIRES);
const chartOn = (content: SheetContent) => takeWhole(emptyChart("X"), sheet("old"), readSheet(content));
/** A splice that was marked by hand beside the wires. */
const byHand = (chart: ReturnType<typeof chartOn>) => ({
  ...chart,
  pages: { ...chart.pages, marks: [...chart.pages.marks, { at: "S9", sheet: "old", x: 460, y: 500 }] },
});

describe("the new edition of a page", () => {
  test("takes the place of the old one: everything found by its name is where it stands now", () => {
    const moved = page((x, y) => [40 + 0.9 * x, 60 + 0.8 * y], WIRES);
    const chart = { ...chartOn(old), pages: { ...chartOn(old).pages, sheets: [sheet("old"), sheet("new")] } };
    const {
      chart: next,
      doubtful,
      carried,
    } = takeNewEdition(chart, sheet("old"), sheet("new"), { before: old, after: moved });
    expect(doubtful).toEqual([]);
    expect(carried).toBe(2 + 4 + 2);
    expect(next.pages.sheets).toEqual([{ ...sheet("new"), name: "Page old" }]);
    expect(next.pages.marks.every((m) => m.sheet === "new")).toBe(true);
    const b71 = next.pages.marks.find((m) => m.at === "B7:1")!;
    expect([b71.x, b71.y]).toEqual([40 + 0.9 * 220, 60 + 0.8 * 200]);
    expect(next.pages.traces.map((t) => [t.from, t.to, t.points[0], t.points.at(-1)])).toEqual([
      ["B7:1", "A1:21", [238, 220], [670, 220]],
      ["B7:2", "A1:22", [238, 252], [670, 252]],
    ]);
    expect(next.rows).toEqual(chart.rows);
  });

  test("what was marked by hand goes where the words round about went, and is to be looked at", () => {
    const moved = page((x, y) => [40 + 0.9 * x, 60 + 0.8 * y], WIRES);
    const { chart: next, doubtful } = takeNewEdition(byHand(chartOn(old)), sheet("old"), sheet("new"), {
      before: old,
      after: moved,
    });
    const s9 = next.pages.marks.find((m) => m.at === "S9")!;
    expect(s9.x).toBeCloseTo(40 + 0.9 * 460, 0);
    expect(s9.y).toBeCloseTo(60 + 0.8 * 500, 0);
    expect(doubtful).toEqual(["S9"]);
  });

  test("a wire that the new page draws elsewhere, and a cavity that it has no more, are to be looked at", () => {
    const other = page(
      (x, y) => [x, y],
      [
        [1, 2],
        [3, 1],
      ],
    );
    const { doubtful } = takeNewEdition(chartOn(old), sheet("old"), sheet("new"), { before: old, after: other });
    expect(doubtful).toContain("B7:1 – A1:21");
    expect(doubtful).toContain("B7:2");
  });

  test("a photo in the place of a drawing: places are kept in proportion, all of them to be looked at", () => {
    const to = { ...sheet("new"), width: 3000, height: 2100 };
    const chart = chartOn(old);
    const { chart: next, doubtful } = takeNewEdition(chart, sheet("old"), to, { before: old });
    expect(next.pages.marks.find((m) => m.at === "B7:1")).toMatchObject({ x: 660, y: 600 });
    expect(new Set(doubtful)).toEqual(new Set(chart.pages.marks.map((m) => m.at)));
  });
});
