import { FORMULA_CELL } from "./formula.js";
import Papa from "papaparse";
import { chartRow, connectorRow, emptyChart, partRow, type Chart, type ChartRow } from "../format/chart.js";
import { fail, issue, ok, type Issue, type Result } from "../issues/issue.js";
import { fileSort, isForeign } from "../format/fileSort.js";
import { parseColour } from "../units/colour.js";
import { parseSection } from "../units/section.js";
import { parseFunction } from "./functions.js";
import { cutText } from "../units/cutText.js";
import { notText } from "../units/notText.js";

type Column = keyof ChartRow;
/**
 * Columns of the table, in the order they are written, with the heads they are known by (common practice, no source).
 */
const COLUMNS: readonly (readonly [Column, string, RegExp])[] = [
  ["connector", "connector", /^(connector|plug|conn\.?|component|device|unit|id)$/i],
  ["cavity", "cavity", /^(cavity|pin|terminal|pole|cav\.?|pin ?(no\.?|number))$/i],
  ["colour", "colour", /^(wire ?)?colou?r( code)?$|^wire$/i],
  ["mm2", "mm2", /^(mm2|mm²|cross[- ]?section|section|size|gauge|awg|csa)( ?\(?mm[2²]\)?)?$/i],
  ["function", "function", /^(function|description|circuit|signal|use|purpose)$/i],
  ["goesTo", "goes to", /^(goes ?to|to|destination|connects? to|target)$/i],
  ["source", "source", /^(source|from|drawing|sheet)$/i],
  ["lengthM", "length m", /^length( ?\(?m\)?)?$/i],
  ["bundle", "bundle", /^(bundle|loom|harness)$/i],
  ["zones", "zones", /^zones?$/i],
  ["part", "part", /^part( of)?$/i],
  ["values", "values", /^values?$/i],
  ["wire", "wire name", /^wire ?(name|id|no\.?|number)$/i],
];
/** Rows and characters of a cell taken from a table: guards against a wrong file. Judgement. */
export const MOST_ROWS = 20_000;
const MOST_CELL = 400;
/** Lines looked at, empty ones too: what comes behind is a wrong file's, and must not hold everybody up. */
const MOST_LINES = 2 * MOST_ROWS + 100;

function firstLines(text: string): string {
  let at = -1;
  for (let n = 0; n < MOST_LINES; n++) {
    at = text.indexOf("\n", at + 1);
    if (at < 0) return text;
  }
  return text.slice(0, at);
}

/** What became of a pasted table or CSV file. */
export interface TableRead {
  readonly rows: readonly ChartRow[];
  /** line of the text each row came from, from 1 */
  readonly lines: readonly number[];
  /** `table.…`, with the line in the path: what was not taken, what was guessed of the layout */
  readonly issues: readonly Issue[];
  /** which column was taken for what */
  readonly columns: readonly (Column | undefined)[];
}

/**
 * Reads a pin chart from CSV, from cells copied out of a spreadsheet, or from lines selected in a document. The head
 * names the columns in any usual words; without one they are told by what is in them. Cells that were merged (empty
 * connector) mean the one above. Cells that begin like a formula are taken as text, never computed.
 */
export function readTable(text: string): Result<TableRead> {
  const issues: Issue[] = [];
  const bare = firstLines(text.replace(/^\uFEFF/, "")).replace(/\u0000/g, "");
  if (bare.trim() === "") return fail([issue("file.empty")]);
  const sort = fileSort(text);
  if (isForeign(sort)) return fail([issue("file.other-sort", [], { sort })]);
  if (notText(text)) return fail([issue("table.not-text")]);
  const spaced = !/[\t;,|]/.test(bare.split("\n").slice(0, 5).join(""));
  const parsed = Papa.parse<string[]>(spaced ? bare.replace(/[ \u00a0]{2,}/g, "\t") : bare, {
    skipEmptyLines: false,
    ...(spaced ? { delimiter: "\t" } : {}),
    delimitersToGuess: ["\t", ";", ",", "|"],
  });
  for (const row of new Set(parsed.errors.flatMap((e) => (e.type === "Quotes" ? [(e.row ?? 0) + 1] : []))))
    issues.push(issue("table.quotes", ["lines", row]));
  const table = parsed.data.map((r) => r.map((c) => unescapeCell(c)));
  const head = table.findIndex((r) => r.some((c) => c !== ""));
  const named = (table[head] ?? []).map((h) => COLUMNS.find(([, , words]) => words.test(h))?.[0]);
  const hasHead =
    named.filter(Boolean).length >= 2 || (named.filter(Boolean).length === 1 && (table[head]?.length ?? 0) === 1);
  const columns = hasHead ? once(named) : guessColumns(table);
  if (!columns.includes("connector") && !columns.includes("cavity"))
    return fail([issue("table.no-columns", ["lines", head + 1], { known: COLUMNS.map(([, word]) => word) })]);
  if (hasHead)
    (table[head] ?? []).forEach((h, i) => {
      if (h !== "" && columns[i] === undefined)
        issues.push(issue("table.column-not-known", ["lines", head + 1], { text: cutText(h, 40) }));
    });
  else issues.push(issue("table.columns-guessed", [], { columns: columns.map((c) => c ?? "not taken") }));
  const rows: ChartRow[] = [];
  const lines: number[] = [];
  table.forEach((cells, i) => {
    if ((hasHead && i === head) || cells.every((c) => c === "")) return;
    if (rows.length >= MOST_ROWS) {
      if (rows.length === MOST_ROWS) issues.push(issue("table.too-many-rows", ["lines", i + 1], { limit: MOST_ROWS }));
      return;
    }
    const row = chartRow();
    cells.forEach((cell, c) => {
      const column = columns[c];
      if (column) row[column] = cutText(cell, MOST_CELL);
      if (cell.length > MOST_CELL) issues.push(issue("table.cell-cut", ["lines", i + 1], { limit: MOST_CELL }));
    });
    const combined = /^([\p{L}\p{N}_+/-]+)[:.]([\p{L}\p{N}_+/-]+)$/u.exec(row.connector);
    if (combined && row.cavity === "") {
      row.connector = combined[1]!;
      row.cavity = combined[2]!;
    }
    rows.push(row);
    lines.push(i + 1);
  });
  return ok({ rows, lines, issues, columns });
}
const once = (list: readonly (Column | undefined)[]) =>
  list.map((c, i) => (c !== undefined && list.indexOf(c) === i ? c : undefined));

/** Columns told by what is in them: colours, cross-sections, functions, names. */
function guessColumns(table: readonly (readonly string[])[]): (Column | undefined)[] {
  const rows = table.filter((r) => r.some((c) => c !== "")).slice(0, 200);
  const width = Math.max(0, ...rows.map((r) => r.length));
  const share = (c: number, test: (t: string) => boolean) => {
    const filled = rows.map((r) => r[c] ?? "").filter(Boolean);
    return filled.length ? filled.filter(test).length / filled.length : 0;
  };
  const found: (Column | undefined)[] = Array.from({ length: width }, () => undefined);
  const take = (column: Column, test: (t: string) => boolean, least = 0.6) => {
    const best = found.map((f, c) => ({ c, s: f ? 0 : share(c, test) })).sort((a, b) => b.s - a.s || a.c - b.c)[0];
    if (best && best.s >= least) found[best.c] = column;
  };
  take("colour", (t) => parseColour(t).status === "read" && !/^\d/.test(t));
  take("function", (t) => parseFunction(t) !== undefined && !/^[\p{L}]?\d+$/u.test(t), 0.5);
  const free = () => found.map((f, c) => (f ? -1 : c)).filter((c) => c >= 0);
  const [a, b] = free();
  if (a !== undefined) found[a] = "connector";
  if (b !== undefined && share(b, (t) => t.length <= 8) > 0.6) found[b] = "cavity";
  take("mm2", (t) => parseSection(t) !== undefined && /[.,]|awg|mm/i.test(t), 0.5);
  const goes = free()[0];
  if (goes !== undefined) found[goes] = "goesTo";
  const source = free()[0];
  if (source !== undefined) found[source] = "source";
  return found;
}

const oneLine = (cell: string) => cell.replace(/[\t\r\n]+/g, " ").trim();
/** Takes off the apostrophe that the writer put before what looks like a formula. */
const unescapeCell = (cell: string) => {
  const t = cell.trim();
  return /^'+[=+\-@]/.test(t) ? t.slice(1) : t;
};

const SECTION = "#";
/**
 * A chart as CSV: the rows, then connectors and parts in sections of their own, so that nothing the table can hold is
 * lost. Safe to open in a spreadsheet.
 * @returns the text, and what it cannot hold: `csv.left-out`
 */
export function writeCsv(chart: Chart): { readonly text: string; readonly issues: readonly Issue[] } {
  const lines: string[][] = [COLUMNS.map(([, word]) => word), ...chart.rows.map((r) => COLUMNS.map(([key]) => r[key]))];
  const section = (name: string, rows: readonly Readonly<Record<string, string>>[]) => {
    const keys = Object.keys(rows[0] ?? {});
    if (rows.length)
      lines.push([], [`${SECTION}${name}`, ...keys], ...rows.map((r) => ["", ...keys.map((k) => r[k] ?? "")]));
  };
  section("connectors", chart.connectors);
  section("parts", chart.parts);
  section("chart", [
    { name: chart.name, nominalVolt: String(chart.nominalVolt), machineType: chart.machineType, note: chart.note },
  ]);
  const left = [
    ...(chart.codes.length ? ["codes"] : []),
    ...(chart.claims.length ? ["claims"] : []),
    ...(chart.resets.length ? ["resets"] : []),
    ...(chart.read.length ? ["read"] : []),
  ];
  return {
    text: `${Papa.unparse(
      lines.map((l) => l.map(oneLine)),
      { newline: "\r\n", escapeFormulae: FORMULA_CELL },
    )}\r\n`,
    issues: left.length ? [issue("csv.left-out", [], { fields: left })] : [],
  };
}

/** Reads a chart back from `writeCsv`, or a bare table from anywhere. */
export function readCsv(
  text: string,
): Result<{ readonly chart: Chart; readonly issues: readonly Issue[]; readonly lines: readonly number[] }> {
  const at = text.search(/^#(connectors|parts|chart)\b/m);
  const table = readTable(at < 0 ? text : text.slice(0, at));
  if (!table.ok) return table;
  const chart: Chart = { ...emptyChart(), rows: [...table.value.rows] };
  if (at >= 0)
    readSections(
      Papa.parse<string[]>(firstLines(text.slice(at)), { skipEmptyLines: "greedy" }).data.map((r) =>
        r.map((c) => c.trim()),
      ),
      chart,
    );
  return ok({ chart, issues: table.value.issues, lines: table.value.lines });
}
function readSections(lines: readonly (readonly string[])[], chart: Chart): void {
  let name = "";
  let keys: readonly string[] = [];
  for (const line of lines) {
    if (line[0]?.startsWith(SECTION)) {
      name = line[0].slice(1);
      keys = line.slice(1);
      continue;
    }
    const cells = Object.fromEntries(keys.map((k, i) => [k, unescapeCell(line[i + 1] ?? "").slice(0, MOST_CELL)]));
    const fit = <T extends object>(empty: T): T => ({
      ...empty,
      ...Object.fromEntries(Object.entries(cells).filter(([k]) => k in empty)),
    });
    if (name === "connectors") chart.connectors.push(fit(connectorRow()));
    if (name === "parts") chart.parts.push(fit(partRow()));
    if (name === "chart") {
      chart.name = cutText(cells["name"] ?? "", 120);
      chart.machineType = (cells["machineType"] ?? "").slice(0, 80);
      chart.note = cells["note"] ?? "";
      chart.nominalVolt = cells["nominalVolt"] === "24" ? 24 : 12;
    }
  }
}
