import Papa from "papaparse";

/** How a table of samples is written, told from its first lines. */
export interface TableLayout {
  readonly delimiter: string;
  readonly decimal: "." | ",";
  /** rows above the first row of numbers, empty ones too */
  readonly headRows: number;
  readonly columns: readonly TableColumn[];
  /** seconds between two rows where no column tells the time; undefined where nothing does */
  readonly interval: number | undefined;
}
export interface TableColumn {
  readonly name: string;
  /** "V", "s"; empty where none is written */
  readonly unit: string;
  /** what a number is multiplied with to be in `unit`, or a time in seconds */
  readonly factor: number;
  readonly is: "time" | "values" | "ignored";
  /** of a column of values: the column that tells its times */
  readonly timedBy: number | undefined;
}

const DELIMITERS = ["\t", ";", ",", "|", " "] as const;
const TIME_NAME =
  /^(time|zeit|t|x|elapsed|timestamp|time ?stamp|seconds?|second|sec|x-axis|date ?time)( ?\d| ?[a-d])?$/i;
const NUMBER = {
  ".": /^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/,
  ",": /^[-+]?(\d+,?\d*|,\d+)([eE][-+]?\d+)?$/,
} as const;
const NOTHING = /^(|ol|nan|inf|-inf|---?|n\/?a|null)$/i;
const CLOCK = /^(\d{4}-\d\d-\d\d[T ])?\d{1,2}:\d\d(:\d\d([.,]\d+)?)?Z?$/;
const UNITS: Readonly<Record<string, readonly [unit: string, factor: number]>> = {
  s: ["s", 1],
  sec: ["s", 1],
  second: ["s", 1],
  seconds: ["s", 1],
  ms: ["s", 1e-3],
  us: ["s", 1e-6],
  µs: ["s", 1e-6],
  μs: ["s", 1e-6],
  ns: ["s", 1e-9],
  min: ["s", 60],
  v: ["V", 1],
  volt: ["V", 1],
  volts: ["V", 1],
  mv: ["V", 1e-3],
  kv: ["V", 1e3],
  a: ["A", 1],
  amp: ["A", 1],
  amps: ["A", 1],
  ma: ["mA", 1],
  ohm: ["Ω", 1],
  Ω: ["Ω", 1],
  kohm: ["Ω", 1e3],
  hz: ["Hz", 1],
  "%": ["%", 1],
  "°c": ["°C", 1],
  degc: ["°C", 1],
  "°f": ["°F", 1],
  kpa: ["kPa", 1],
  bar: ["bar", 1],
  psi: ["psi", 1],
  rpm: ["rpm", 1],
  "1/min": ["rpm", 1],
  "km/h": ["km/h", 1],
  "g/s": ["g/s", 1],
  "kg/h": ["kg/h", 1],
};
const INTERVAL = /(sample ?interval|sampling ?interval|interval|increment|delta ?t|Δt|x ?incr|sample ?period)/i;
const RATE = /(sample ?rate|sampling ?rate|sampling ?frequency|sample ?frequency|samples? ?(\/|per) ?s)/i;
/** Characters of a name, or of a line above the numbers, that are read. Judgement. */
const LONGEST_NAME = 200;
/** Rows looked at to tell how a table is written. */
const LOOKED_AT = 400;
/** Rows by which it is told that the numbers have begun. */
const NEXT_ROWS = 10;

/** Whether a cell holds a number, or says that nothing was read. */
const isNumber = (cell: string, decimal: "." | ",") => NUMBER[decimal].test(cell);
const isCell = (cell: string, decimal: "." | ",") => isNumber(cell, decimal) || NOTHING.test(cell) || CLOCK.test(cell);

/**
 * How a table is written: which character divides its cells, which stands for the decimal point, where the numbers
 * begin, what the columns are named, and which of them tell the time.
 * @param head the first lines, the last of which may be cut
 * @param isWhole the head is the whole table
 * @returns undefined where there is no row of numbers
 */
export function layoutOf(head: string, isWhole: boolean): TableLayout | undefined {
  const best = bestReading(head, isWhole);
  if (!best) return undefined;
  const { rows, first, delimiter, decimal, width } = best;
  const body = rows.slice(first);
  const named = headOf(rows.slice(0, first), width);
  const columns = Array.from({ length: width }, (_, c) => column(named, c, body, decimal));
  const isTime = columns.map((_, c) => tellsTime(columns[c]!, c, columns, body, decimal));
  let timedBy: number | undefined;
  const told = columns.map((col, c): TableColumn => {
    if (isTime[c]) timedBy = c;
    const isEmpty = body.every((r) => !isNumber((r[c] ?? "").trim(), decimal) && !CLOCK.test((r[c] ?? "").trim()));
    return {
      ...col,
      is: isTime[c] ? "time" : isEmpty && col.name === "" ? "ignored" : "values",
      timedBy: isTime[c] ? undefined : timedBy,
    };
  });
  const firstTime = isTime.indexOf(true);
  return {
    delimiter,
    decimal,
    headRows: first,
    // columns in front of the only time column go by it, too
    columns: told.map((col) =>
      col.is === "values" && col.timedBy === undefined && firstTime >= 0 ? { ...col, timedBy: firstTime } : col,
    ),
    interval: firstTime < 0 ? intervalIn(rows.slice(0, first)) : undefined,
  };
}

interface Reading {
  readonly rows: readonly (readonly string[])[];
  readonly first: number;
  readonly delimiter: string;
  readonly decimal: "." | ",";
  readonly width: number;
  readonly score: number;
}
function bestReading(head: string, isWhole: boolean): Reading | undefined {
  let best: Reading | undefined;
  for (const delimiter of DELIMITERS)
    for (const decimal of [".", ","] as const) {
      if (delimiter === decimal && !head.includes('"')) continue;
      const read = readAs(head, delimiter, decimal, isWhole);
      if (read && read.score > (best?.score ?? 0)) best = read;
    }
  return best;
}

function readAs(head: string, delimiter: string, decimal: "." | ",", isWhole: boolean): Reading | undefined {
  const text = delimiter === " " ? head.replace(/[ \u00a0]+/g, " ").replace(/^ | $/gm, "") : head;
  const all = Papa.parse<string[]>(text, { delimiter, preview: LOOKED_AT }).data;
  const isCut = !isWhole && all.length < LOOKED_AT;
  const rows = isCut ? all.slice(0, -1) : all;
  const isData = (r: readonly string[]) =>
    r.some((c) => isNumber(c.trim(), decimal)) && r.every((c) => isCell(c.trim(), decimal));
  // the numbers begin at the first row of numbers after which most rows are
  const first = rows.findIndex((r, i) => {
    if (!isData(r)) return false;
    const next = rows.slice(i, i + NEXT_ROWS).filter((x) => x.join("").trim() !== "");
    return next.filter(isData).length >= next.length / 2;
  });
  if (first < 0) return undefined;
  const widths = rows.slice(first).map((r) => r.length);
  const counts = new Map<number, number>();
  for (const w of widths) counts.set(w, (counts.get(w) ?? 0) + 1);
  const width = [...counts].reduce((a, b) => (b[1] > a[1] ? b : a))[0];
  const numbers = rows.slice(first).filter(isData).length;
  const cells = rows.slice(first).reduce((sum, r) => sum + r.filter((c) => isNumber(c.trim(), decimal)).length, 0);
  // whole cells of numbers count; of two ways that give as many rows the one that parts them further
  return {
    rows,
    first,
    delimiter,
    decimal,
    width,
    score: numbers * 1_000 + Math.min(900, cells / numbers) + (decimal === "." ? 0.5 : 0),
  };
}

/** The last rows above the numbers that have names, and units. */
function headOf(above: readonly (readonly string[])[], width: number) {
  const full = above.filter(
    (r) =>
      r.filter((c) => c.trim() !== "").length >= Math.min(width, 2) ||
      (width === 1 && r.length === 1 && r[0]!.trim() !== ""),
  );
  const last = full[full.length - 1]?.map((c) => c.trim());
  if (!last) return { names: [], units: [] };
  const areUnits = last.every((c) => c === "" || unitOf(bare(c)) !== undefined) && last.some((c) => c !== "");
  const before = full[full.length - 2]?.map((c) => c.trim());
  return areUnits && before ? { names: before, units: last.map(bare) } : { names: last, units: [] };
}
const bare = (text: string) => text.replace(/^[([]|[)\]]$/g, "").trim();
const unitOf = (text: string) => UNITS[text] ?? UNITS[text.toLowerCase()];

function column(
  { names, units }: { readonly names: readonly string[]; readonly units: readonly string[] },
  c: number,
  body: readonly (readonly string[])[],
  decimal: "." | ",",
): Omit<TableColumn, "is" | "timedBy"> {
  const written = (names[c] ?? "").slice(0, LONGEST_NAME);
  const inside = /^(.*?)\s*[([]([^)\]]*)[)\]]\s*$/.exec(written);
  const behind = /^(.*\S)\s+(\S+)$/.exec(written);
  const known = units[c] !== undefined ? unitOf(units[c]) : undefined;
  const own = inside ? unitOf(inside[2]!.trim()) : behind ? unitOf(behind[2]!) : undefined;
  // a column named "A" may be a channel of that name, unless all columns are named by units
  const isAlone = written.length > 1 || names.every((n) => n === "" || unitOf(n) !== undefined);
  const alone = isAlone ? unitOf(written) : undefined;
  const [unit, factor] = known ?? own ?? alone ?? ["", 1];
  const name = inside && own ? inside[1]! : behind && own && !known ? behind[1]! : written;
  const isClock = body.some((r) => CLOCK.test((r[c] ?? "").trim()) && !isNumber((r[c] ?? "").trim(), decimal));
  return { name: name.replace(/^["']|["']$/g, "").trim(), unit: isClock ? "s" : unit, factor };
}

function tellsTime(
  { name, unit }: { readonly name: string; readonly unit: string },
  c: number,
  all: readonly { readonly name: string; readonly unit: string }[],
  body: readonly (readonly string[])[],
  decimal: "." | ",",
): boolean {
  if (all.length === 1 && !TIME_NAME.test(name) && unit !== "s") return false;
  const cells = body.map((r) => (r[c] ?? "").trim()).filter((t) => t !== "");
  if (cells.some((t) => CLOCK.test(t))) return true;
  const numbers = cells.map((t) => Number(decimal === "," ? t.replace(",", ".") : t));
  const steps = numbers.slice(1).map((v, i) => v - numbers[i]!);
  // a column of milliseconds may be how long something takes: time goes on
  const rises = steps.filter((d) => d > 0).length >= RISES * steps.length;
  if (TIME_NAME.test(name) || (unit === "s" && c === 0)) return all.length > 1 && rises;
  if (name !== "" || c > 0) return false;
  // without a head: the first column, where it only rises, by steps that are alike
  const mean = steps.reduce((a, b) => a + b, 0) / Math.max(1, steps.length);
  return steps.length > 2 && mean > 0 && steps.every((d) => d > 0.3 * mean && d < 1.7 * mean);
}
/** Share of the steps of a time column that go on; a few rows may be out of order. Judgement. */
const RISES = 0.6;

function intervalIn(rows: readonly (readonly string[])[]): number | undefined {
  for (const row of rows) {
    const text = row.join(" ").slice(0, LONGEST_NAME);
    const number = /([-+]?\d+(?:[.,]\d+)?(?:[eE][-+]?\d+)?)\s*([a-zµμ/]*)/i.exec(
      text.replace(/^[^\d]*?(?=[-+]?\d)/, ""),
    );
    if (!number) continue;
    const value = Number(number[1]!.replace(",", "."));
    if (!(value > 0)) continue;
    const unit = (number[2] ?? "").toLowerCase();
    if (INTERVAL.test(text)) return value * (UNITS[unit]?.[0] === "s" ? UNITS[unit][1] : 1);
    if (RATE.test(text)) return 1 / (value * (/^k/.test(unit) ? 1e3 : /^ms|^mhz/.test(unit) ? 1e6 : 1));
  }
  return undefined;
}
