import { emptyChart, buildChart, readCsv, tableIn } from "../../src/index.js";

/** A table as a page of a book holds it: words with their places, none of them saying which column it is in. */
const table = (rows: readonly (readonly string[])[], columns: readonly number[], top = 100) =>
  rows.flatMap((cells, r) =>
    cells.flatMap((cell, c) => {
      let x = columns[c]!;
      return cell.split(" ").map((text) => {
        const width = 6 * text.length;
        const word = { text, x, y: top + 18 * r + (c % 2), width, height: 10 };
        x += width + 3;
        return word;
      });
    }),
  );
const rows = [
  ["Connector", "Cavity", "Colour", "Function", "Goes to"],
  ["B7", "1", "OG/WH", "5 V reference", "S14"],
  ["B7", "2", "BN", "sensor ground", "S22"],
  ["B7", "3", "GN/WH", "signal", "A1:8"],
];
const words = table(rows, [40, 130, 200, 280, 420]);
const area = { x: 20, y: 80, width: 600, height: 120 };

describe("a table of pins on a page", () => {
  test("is read in lines and columns, words of one cell together, in whatever order they come", () => {
    expect(tableIn([...words].reverse(), area)).toBe(rows.map((r) => r.join("\t")).join("\n"));
  });

  test("becomes lines of the chart like one that was pasted", () => {
    const read = readCsv(tableIn(words, area));
    if (!read.ok) throw new Error("not read");
    const { wiring } = buildChart({ ...emptyChart("T"), rows: read.value.chart.rows });
    expect(wiring.wires.map((w) => [w.from, w.to, w.colour])).toEqual([
      ["B7:1", "S14", "OG/WH"],
      ["B7:2", "S22", "BN"],
      ["B7:3", "A1:8", "GN/WH"],
    ]);
  });

  test("an empty cell stays empty; what stands outside the part that was drawn is no part of it", () => {
    const gaps = rows.map((r, i) => (i === 2 ? [r[0]!, r[1]!, "", r[3]!, r[4]!] : r));
    const outside = [
      { text: "Page", x: 700, y: 110, width: 24, height: 10 },
      { text: "7", x: 40, y: 400, width: 6, height: 10 },
    ];
    const lines = tableIn([...table(gaps, [40, 130, 200, 280, 420]), ...outside], area).split("\n");
    expect(lines[2]).toBe("B7\t2\t\tsensor ground\tS22");
    expect(lines).toHaveLength(4);
  });

  test("a title across all columns does not join them in a long table", () => {
    const many = [rows[0]!, ...Array.from({ length: 14 }, (_, i) => [`B${i}`, "1", "BN", "signal", `A1:${i}`])];
    const title = { text: "Pins-of-the-engine-harness-of-this-machine", x: 60, y: 82, width: 300, height: 10 };
    const lines = tableIn([title, ...table(many, [40, 130, 200, 280, 420])], { ...area, height: 400 }).split("\n");
    expect(lines[4]).toBe("B2\t1\tBN\tsignal\tA1:2");
  });

  test("what is no table is none", () => {
    expect(tableIn([], area)).toBe("");
    expect(tableIn(words.slice(0, 5), area)).toBe("");
    expect(tableIn(table([["one"], ["two"], ["three"]], [40]), area)).toBe("");
  });
});
