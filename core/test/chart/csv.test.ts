import { chartRow, emptyChart, readCsv, readTable, writeCsv, type Chart, type ChartRow } from "../../src/index.js";
const row = (connector: string, cavity: string, colour: string, fn: string, goesTo: string, source = ""): ChartRow =>
  chartRow({ connector, cavity, colour, function: fn, goesTo, source });
const chart = (rows: ChartRow[]): Chart => ({ ...emptyChart("t"), rows });

describe("tables from anywhere", () => {
  const rows = (text: string) => {
    const r = readTable(text);
    if (!r.ok) throw new Error(r.issues[0]!.code);
    return r.value;
  };
  test("semicolons, decimal commas, quotes, a head in other words", () => {
    const t = rows(
      'Plug;Pin;Color;Cross-section;Signal;Destination\r\nB7;1;"OG/WH";0,75;"5 V; ' +
        'reference";A1:17\r\n;2;BN;0,75;gnd;S2\r\n',
    );
    expect(t.rows.map((r) => [r.connector, r.cavity, r.colour, r.mm2, r.function, r.goesTo])).toEqual([
      ["B7", "1", "OG/WH", "0,75", "5 V; reference", "A1:17"],
      ["", "2", "BN", "0,75", "gnd", "S2"],
    ]);
    expect(t.issues).toEqual([]);
  });
  test("no head: columns are told by what is in them, and that is said", () => {
    const t = rows("B7\t1\tOG/WH\t5 V\tS14\nB7\t2\tBN\tground\tS22\nB7\t3\tGN\tsignal\tA1:8\n");
    expect(t.columns).toEqual(["connector", "cavity", "colour", "function", "goesTo"]);
    expect(t.issues.map((i) => i.code)).toEqual(["table.columns-guessed"]);
  });
  test("lines selected in a document, columns apart by spaces", () => {
    const t = rows("B7   1   OG/WH   5 V reference   S14\nB7   2   BN      sensor ground   S22\n");
    expect(t.rows.map((r) => r.function)).toEqual(["5 V reference", "sensor ground"]);
    expect(t.rows[0]!.goesTo).toBe("S14");
  });
  test("connector and cavity in one cell", () => {
    expect(rows("connector,colour,goes to\nB7:1,RD,S1\n").rows[0]).toMatchObject({ connector: "B7", cavity: "1" });
  });
  test("a column nobody knows is named, the rest is taken", () => {
    const t = rows("connector,cavity,moon phase\nB7,1,full\n");
    expect(t.issues).toEqual([{ code: "table.column-not-known", path: ["lines", 1], params: { text: "moon phase" } }]);
    expect(t.rows).toHaveLength(1);
  });
  test.each([
    ["", "file.empty"],
    ["  \n ", "file.empty"],
    ["colour,function\nRD,supply\n", "table.no-columns"],
  ])("refused: %p", (text, code) => {
    const r = readTable(text);
    expect(!r.ok && r.issues[0]!.code).toBe(code);
  });
  test("too many rows and cells too long are cut, and said", () => {
    const many = rows(`connector,cavity\n${Array.from({ length: 20_050 }, (_, i) => `B,${i}`).join("\n")}`);
    expect(many.rows).toHaveLength(20_000);
    expect(many.issues.map((i) => i.code)).toContain("table.too-many-rows");
    expect(rows(`connector,cavity,function\nB1,1,${"x".repeat(5000)}`).issues.map((i) => i.code)).toEqual([
      "table.cell-cut",
    ]);
  });
  test("formulas: never written as such, and the same cell comes back", () => {
    const wild = chart([
      row("B1", "1", '=HYPERLINK("x")', "+5 V", "S1", "-2+3"),
      row("BAT", "+", "@x", "\tq", "S1", "'=1"),
    ]);
    const { text } = writeCsv(wild);
    for (const cell of text.split(/[,\r\n]/)) expect(cell.replace(/^"/, "")).not.toMatch(/^[=+@-]/);
    const back = readCsv(text);
    expect(back.ok && back.value.chart.rows.map((r) => [r.colour, r.function, r.cavity, r.source])).toEqual([
      ['=HYPERLINK("x")', "+5 V", "1", "-2+3"],
      ["@x", "q", "+", "'=1"],
    ]);
  });
  test("a number is a number, also below zero", () => {
    const { text } = writeCsv(chart([row("B1", "1", "-2", "", "S1", "")]));
    expect(text.split(/[,\r\n]/)).toContain("-2");
  });
});
