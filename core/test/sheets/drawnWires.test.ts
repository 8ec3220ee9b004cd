import {
  drawnWires,
  emptyChart,
  ocrName,
  readSheet,
  SHEET_FORMAT,
  takeWhole,
  type SheetContent,
} from "../../src/index.js";

const page = (cells: Partial<SheetContent>): SheetContent => ({
  format: SHEET_FORMAT,
  version: 1,
  width: 1000,
  height: 700,
  words: [],
  lines: [],
  boxes: [],
  dots: [],
  ...cells,
});
const word = (text: string, x: number, y: number) => ({ text, x, y, width: text.length * 5, height: 8 });

// how drawings are read is common practice, no source
describe("wires of a page drawn in strokes", () => {
  test("strokes that cross without a dot are two wires, also where the drawing breaks them at the crossing", () => {
    const whole = drawnWires(
      page({
        lines: [
          [100, 100, 300, 100],
          [200, 50, 200, 150],
        ],
      }),
    );
    expect(whole.map((w) => w.points)).toEqual([
      [
        [100, 100],
        [300, 100],
      ],
      [
        [200, 50],
        [200, 150],
      ],
    ]);
    const broken = drawnWires(
      page({
        lines: [
          [100, 100, 200, 100],
          [200, 100, 300, 100],
          [200, 50, 200, 100],
          [200, 100, 200, 150],
        ],
      }),
    );
    expect(broken.map((w) => w.points)).toEqual([
      [
        [100, 100],
        [300, 100],
      ],
      [
        [200, 50],
        [200, 150],
      ],
    ]);
  });

  test("a dot on a crossing joins all four", () => {
    const wires = drawnWires(
      page({
        lines: [
          [100, 100, 300, 100],
          [200, 50, 200, 150],
        ],
        dots: [[200, 100, 3]],
      }),
    );
    expect(wires).toHaveLength(4);
    expect(wires.every((w) => w.ends.some((e) => e.kind === "dot" && e.number === 0))).toBe(true);
  });

  test("a wire that ends on another without a dot is asked about: the other one goes on", () => {
    const wires = drawnWires(
      page({
        lines: [
          [100, 100, 300, 100],
          [200, 100, 200, 180],
        ],
      }),
    );
    expect(wires.map((w) => w.points)).toContainEqual([
      [100, 100],
      [300, 100],
    ]);
    expect(
      wires
        .find((w) => w.points.length === 2 && w.points[0]![0] === 200)
        ?.ends.map((e) => e.kind)
        .sort(),
    ).toEqual(["open", "tee"]);
  });

  test("corners are followed, up to the edge of a box; what is drawn inside it is no wire", () => {
    const [wire, ...others] = drawnWires(
      page({
        lines: [
          [100, 100, 200, 100],
          [200, 100, 200, 200],
          [200, 200, 320, 200],
        ],
        boxes: [[300, 150, 80, 100]],
      }),
    );
    expect(others).toEqual([]);
    expect(wire!.points).toEqual([
      [100, 100],
      [200, 100],
      [200, 200],
      [300, 200],
    ]);
    expect(wire!.ends.map((e) => e.kind)).toEqual(["open", "box"]);
  });

  test("ends that miss each other by a hair meet", () => {
    const wires = drawnWires(
      page({
        lines: [
          [100, 100, 200, 100],
          [200.6, 100.4, 200.6, 200],
        ],
      }),
    );
    expect(wires).toHaveLength(1);
  });
});

describe("words of a page beside what is drawn", () => {
  test("the frame of the page is no connector; a box without a name has none", () => {
    const read = readSheet(
      page({
        lines: [[200, 200, 500, 200]],
        boxes: [
          [5, 5, 990, 690],
          [100, 150, 100, 100],
          [500, 150, 100, 100],
        ],
        words: [word("B7", 520, 160)],
      }),
    );
    expect(read.boxes.map((b) => b.id)).toEqual([undefined, "B7"]);
    expect(read.boxes[1]!.pins.map((p) => p.cavity)).toEqual(["1"]);
  });

  test("a pin without a number takes a free one; where two pins have the same number, they are asked about", () => {
    const two = (first: string | undefined, second: string) =>
      readSheet(
        page({
          lines: [
            [200, 170, 500, 170],
            [200, 230, 500, 230],
          ],
          boxes: [[500, 150, 100, 100]],
          words: [word("B7", 560, 160), ...(first ? [word(first, 503, 166)] : []), word(second, 503, 226)],
        }),
      );
    expect(two(undefined, "1").boxes[0]!.pins.map((p) => p.cavity)).toEqual(["2", "1"]);
    const same = two("1", "1");
    expect(same.boxes[0]!.pins.map((p) => p.cavity)).toEqual(["1", "1"]);
    const sheet = { id: "p1", name: "Sheet 1", source: "", width: 1000, height: 700 };
    expect(takeWhole(emptyChart(), sheet, same).rows).toEqual([]);
  });

  test("a wire whose end says another sheet waits there under its label", () => {
    const read = readSheet(page({ lines: [[200, 200, 500, 200]], words: [word("K3 to sheet 4", 505, 196)] }));
    expect(read.wires[0]!.ends.map((e) => [e.kind, e.label])).toContainEqual(["label", "K3"]);
  });
});

test.each([
  ["Bl", "B1"],
  ["SI2", "S12"],
  ["B1O", "B10"],
  ["Sl;", "S1"],
  ["B4", "B4"],
  // words and colours stay
  ["boom", "boom"],
  ["OG", "OG"],
  ["Is", "Is"],
  ["RD/WH", "RD/WH"],
  ["BUS", "BUS"],
])("a name read from a picture as %s is %s", (read, name) => expect(ocrName(read)).toBe(name));
