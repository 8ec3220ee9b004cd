import { chartRow, connectorRow, partRow, type Chart, type ChartRow } from "../format/chart.js";
import type { DrawingMark, DrawingSheet, DrawingTrace, OpenEnd } from "../format/sheet.js";
import type { Claim } from "../format/wiring.js";
import { sameColour } from "../units/colour.js";
import { parseSection } from "../units/section.js";
import { freeName } from "../chart/templates.js";
import { parseFunction } from "../chart/functions.js";
import type { Spot } from "./drawnWires.js";

/** Columns and rows of the grid by which a place on a page is named, as along the edges of a drawing. */
const COLUMNS = 8;
const ROWS = 6;

/** Where on a page something stands, in words for a source: "Sheet 1 C4". */
export function placeOnSheet(sheet: DrawingSheet, [x, y]: Spot): string {
  const cell = (share: number, count: number) => Math.max(0, Math.min(count - 1, Math.floor(share * count)));
  const row = String.fromCharCode(65 + cell(y / sheet.height, ROWS));
  return `${sheet.name} ${row}${cell(x / sheet.width, COLUMNS) + 1}`;
}

/** A box on a page: a connector, or a part with pins, as somebody named it. */
export interface TakenBox {
  readonly id: string;
  readonly kind: "connector" | "inline" | "module" | "fuse" | "battery";
  readonly title: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly pins: readonly { readonly cavity: string; readonly at: Spot; readonly function: string }[];
}
/** Takes a box and its pins into the chart: a row for every cavity that has none, marks where they stand. */
export function takeBox(chart: Chart, sheet: DrawingSheet, box: TakenBox): Chart {
  const { id } = box;
  const has = new Set(cavitiesOf(chart, id));
  const added = box.pins
    .filter((p) => !has.has(p.cavity.toUpperCase()))
    .map((p) => chartRow({ connector: id, cavity: p.cavity, function: p.function, source: placeOnSheet(sheet, p.at) }));
  const claims: Claim[] = [];
  const filled = chart.rows.map((r, i) => {
    const pin = box.pins.find((p) => p.function && isAt(chart.rows, i, id, p.cavity));
    if (!pin) return r;
    if (r.function.trim() === "") return { ...r, function: pin.function };
    if (parseFunction(r.function) !== parseFunction(pin.function))
      claims.push(claim(`${id}:${pin.cavity}`, "function", pin.function, placeOnSheet(sheet, pin.at)));
    return r;
  });
  const mark: DrawingMark = { at: id, sheet: sheet.id, x: box.x, y: box.y, width: box.width, height: box.height };
  const marks = [mark, ...box.pins.map((p) => spotMark(`${id}:${p.cavity}`, sheet, p.at))];
  return withMarks(named(withClaims({ ...chart, rows: insertedBehind(filled, id, added) }, claims), box), marks);
}
/** The kind and the name of what a box stands for. */
function named(chart: Chart, { id, kind, title }: TakenBox): Chart {
  const name = title.slice(0, 200);
  if (kind === "connector" && name === "") return chart;
  if (kind === "inline") {
    if (chart.connectors.some((c) => sameName(c.id, id))) return chart;
    return { ...chart, connectors: [...chart.connectors, connectorRow({ id, inline: "yes", name })] };
  }
  const known = chart.parts.find((p) => sameName(p.id, id));
  const stated = kind === "connector" ? "" : kind;
  const rating = kind === "fuse" ? /(\d+(?:[.,]\d+)?)\s*A\b/.exec(title)?.[1] : undefined;
  const values = rating ? `rating=${rating.replace(",", ".")}` : "";
  if (!known) return { ...chart, parts: [...chart.parts, partRow({ id, kind: stated, name, values })] };
  const filled = { ...known, kind: known.kind.trim() || stated, name: known.name.trim() || name };
  return { ...chart, parts: chart.parts.map((p) => (p === known ? filled : p)) };
}

/** Takes a splice or a ground; one that the chart has already is only marked. @returns the name it has in the chart */
export function takeStar(
  chart: Chart,
  sheet: DrawingSheet,
  star: { readonly id: string | undefined; readonly kind: "splice" | "ground"; readonly at: Spot },
): { readonly chart: Chart; readonly id: string } {
  const id = star.id ?? freeName(chart, star.kind === "splice" ? "S" : "G");
  const has = chart.parts.some((p) => sameName(p.id, id));
  const parts = has ? chart.parts : [...chart.parts, partRow({ id, kind: star.kind })];
  return { id, chart: withMarks({ ...chart, parts }, [spotMark(id, sheet, star.at)]) };
}

/** A fuse is marked this share of the page wide and twice as high: its ends lie apart far enough to be tapped. */
const FUSE_SIZE = 0.012;
/**
 * Takes a fuse, drawn upright round the place: its fed end above, the other below (common practice, no source).
 * @param fuse its rating in A, as it is written; empty where it is not known
 * @returns its ends with where they are marked, the fed one first
 */
export function takeFuse(
  chart: Chart,
  sheet: DrawingSheet,
  fuse: { readonly id: string | undefined; readonly rating: string; readonly at: Spot },
): { readonly chart: Chart; readonly ends: readonly { readonly name: string; readonly at: Spot }[] } {
  const id = fuse.id ?? freeName(chart, "F");
  const half = FUSE_SIZE * Math.max(sheet.width, sheet.height);
  const [x, y] = fuse.at;
  const pins = [
    { cavity: "in", at: [x, y - half] as const, function: "" },
    { cavity: "out", at: [x, y + half] as const, function: "" },
  ];
  const title = fuse.rating.trim() ? `${fuse.rating.trim()} A` : "";
  const box = { id, kind: "fuse" as const, title, x: x - half / 2, y: y - half, width: half, height: 2 * half, pins };
  return { chart: takeBox(chart, sheet, box), ends: pins.map((p) => ({ name: `${id}:${p.cavity}`, at: p.at })) };
}

/** A cavity by itself. */
export function takeCavity(chart: Chart, sheet: DrawingSheet, id: string, cavity: string, at: Spot): Chart {
  const rows = cavitiesOf(chart, id).includes(cavity.toUpperCase())
    ? chart.rows
    : insertedBehind(chart.rows, id, [chartRow({ connector: id, cavity, source: placeOnSheet(sheet, at) })]);
  return withMarks({ ...chart, rows }, [spotMark(`${id}:${cavity}`, sheet, at)]);
}

/** A wire between two things of the chart, and how it runs on the page. */
export interface TakenWire {
  readonly from: string;
  readonly to: string;
  readonly colour: string;
  readonly mm2: string;
  readonly points: readonly Spot[];
}
/**
 * Takes a wire into the row of the end it is drawn from; a wire that the chart has is not laid twice. What a page says
 * otherwise than another source stands beside it as a claim: nothing is overwritten.
 */
export function takeWire(chart: Chart, sheet: DrawingSheet, wire: TakenWire): Chart {
  const trace: DrawingTrace = { from: wire.from, to: wire.to, sheet: sheet.id, points: spots(wire.points) };
  const pages = { ...chart.pages, traces: [...chart.pages.traces, trace] };
  const source = placeOnSheet(sheet, wire.points[0]!);
  const known = rowOfWire(chart.rows, wire);
  if (known >= 0) {
    const row = chart.rows[known]!;
    const claims: Claim[] = [];
    if (wire.colour && row.colour.trim() && !sameColour(row.colour, wire.colour))
      claims.push(claim(wire.from, "colour", wire.colour, source));
    if (wire.mm2 && row.mm2.trim() && parseSection(row.mm2) !== parseSection(wire.mm2))
      claims.push(claim(wire.from, "mm2", wire.mm2, source));
    const filled = { ...row, colour: row.colour || wire.colour, mm2: row.mm2 || wire.mm2 };
    return withClaims({ ...chart, pages, rows: chart.rows.map((r, i) => (i === known ? filled : r)) }, claims);
  }
  for (const [from, to] of [
    [wire.from, wire.to],
    [wire.to, wire.from],
  ] as const)
    if (isOnAnotherPage(chart, sheet, from))
      return withClaims({ ...chart, pages }, [claim(from, "goesTo", to, source)]);
  return { ...chart, pages, rows: withWire(chart.rows, wire, source) };
}
/** Whether another page has a wire at this cavity: a cavity takes one. */
function isOnAnotherPage({ pages }: Chart, sheet: DrawingSheet, end: string): boolean {
  if (!end.includes(":") || /\.[ab]$/.test(end)) return false;
  const at = (t: DrawingTrace) => t.sheet !== sheet.id && (sameName(t.from, end) || sameName(t.to, end));
  return pages.traces.some(at);
}
const claim = (at: string, field: Claim["field"], value: string, source: string): Claim => ({
  at,
  field,
  value,
  source: source.slice(0, 120),
});
function withClaims(chart: Chart, claims: readonly Claim[]): Chart {
  const isNew = (c: Claim) => !chart.claims.some((k) => k.at === c.at && k.field === c.field && k.value === c.value);
  const added = claims.filter(isNew);
  return added.length ? { ...chart, claims: [...chart.claims, ...added] } : chart;
}

/**
 * Takes a wire that goes on elsewhere under a label. Where the other half waits under the same label, both become one
 * wire; else this half waits.
 */
export function takeHalf(
  chart: Chart,
  sheet: DrawingSheet,
  half: Omit<TakenWire, "to"> & { readonly label: string },
): Chart {
  const { openEnds } = chart.pages;
  const other = openEnds.find((e) => sameName(e.label, half.label) && !sameName(e.from, half.from));
  if (!other) {
    const waiting: OpenEnd = {
      label: half.label,
      from: half.from,
      colour: half.colour,
      sheet: sheet.id,
      points: spots(half.points),
    };
    const others = openEnds.filter((e) => !(sameName(e.label, half.label) && sameName(e.from, half.from)));
    return { ...chart, pages: { ...chart.pages, openEnds: [...others, waiting] } };
  }
  const ends = { from: half.from, to: other.from };
  const wire = { ...ends, colour: half.colour || other.colour, mm2: half.mm2, points: half.points };
  const rest = { ...chart.pages, openEnds: openEnds.filter((e) => e !== other) };
  const joined = takeWire({ ...chart, pages: rest }, sheet, wire);
  const trace: DrawingTrace = { ...ends, sheet: other.sheet, points: other.points };
  return { ...joined, pages: { ...joined.pages, traces: [...joined.pages.traces, trace] } };
}

/** A page with everything that was marked on it taken off the chart's drawing; the lines of the chart stay. */
export function dropSheet(chart: Chart, id: string): Chart {
  const kept = <T extends { readonly sheet: string }>(list: readonly T[]) => list.filter((x) => x.sheet !== id);
  const { sheets, marks, traces, openEnds } = chart.pages;
  return {
    ...chart,
    pages: {
      sheets: sheets.filter((s) => s.id !== id),
      marks: kept(marks),
      traces: kept(traces),
      openEnds: kept(openEnds),
    },
  };
}

/** Cavities by rule: `count` of them in a box, row by row or column by column, from the upper left or lower right. */
export function cavitiesInBox(
  box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
  rule: { readonly count: number; readonly rows: number; readonly isReversed?: boolean; readonly first?: number },
): { readonly cavity: string; readonly at: Spot }[] {
  const rows = Math.max(1, Math.min(rule.rows, rule.count));
  const columns = Math.ceil(rule.count / rows);
  return Array.from({ length: rule.count }, (_, i) => {
    const place = rule.isReversed ? rows * columns - 1 - i : i;
    const at: Spot = [
      box.x + ((place % columns) + 0.5) * (box.width / columns),
      box.y + (Math.floor(place / columns) + 0.5) * (box.height / rows),
    ];
    return { cavity: String((rule.first ?? 1) + i), at };
  });
}

const sameName = (a: string, b: string) => a.trim().toUpperCase() === b.trim().toUpperCase();
const spotMark = (at: string, sheet: DrawingSheet, [x, y]: Spot): DrawingMark => ({ at, sheet: sheet.id, x, y });
const spots = (points: readonly Spot[]) => points.map(([x, y]): [number, number] => [x, y]);

function withMarks(chart: Chart, marks: readonly DrawingMark[]): Chart {
  const isNew = (m: DrawingMark) => !marks.some((n) => n.sheet === m.sheet && sameName(n.at, m.at));
  return { ...chart, pages: { ...chart.pages, marks: [...chart.pages.marks.filter(isNew), ...marks] } };
}

/** Names of the connectors of all rows: an empty one means the one above. */
function connectorsOf(rows: readonly ChartRow[]): string[] {
  let above = "";
  return rows.map((r) => (above = r.connector.trim() || above).toUpperCase());
}
function isAt(rows: readonly ChartRow[], i: number, id: string, cavity: string): boolean {
  return connectorsOf(rows.slice(0, i + 1)).at(-1) === id.toUpperCase() && sameName(rows[i]!.cavity, cavity);
}
function cavitiesOf(chart: Chart, id: string): string[] {
  const of = connectorsOf(chart.rows);
  return chart.rows.flatMap((r, i) => (of[i] === id.toUpperCase() ? [r.cavity.trim().toUpperCase()] : []));
}
const isEmptyRow = (r: ChartRow) => Object.values(r).every((c) => c.trim() === "");
function lastOf(rows: readonly ChartRow[], is: (row: ChartRow, i: number) => boolean): number {
  for (let i = rows.length - 1; i >= 0; i--) if (is(rows[i]!, i)) return i;
  return -1;
}
/** New rows behind the last one of the same connector, or at the end. */
function insertedBehind(rows: readonly ChartRow[], id: string, added: readonly ChartRow[]): ChartRow[] {
  if (added.length === 0) return [...rows];
  const of = connectorsOf(rows);
  const last = lastOf(rows, (r, i) => of[i] === id.toUpperCase() && !isEmptyRow(r));
  if (last >= 0) return [...rows.slice(0, last + 1), ...added, ...rows.slice(last + 1)];
  const end = lastOf(rows, (r) => !isEmptyRow(r)) + 1;
  return [...rows.slice(0, end), ...added, ...rows.slice(end)];
}

/** One end of a wire as a connector and a cavity; a splice or ground has none. */
function split(end: string): readonly [string, string] {
  const colon = end.indexOf(":");
  return colon < 0 ? [end, ""] : [end.slice(0, colon), end.slice(colon + 1)];
}
function isRowOf(rows: readonly ChartRow[], of: readonly string[], i: number, end: string): boolean {
  const [id, cavity] = split(end);
  return of[i] === id.toUpperCase() && sameName(rows[i]!.cavity, cavity) && !isEmptyRow(rows[i]!);
}
/** The row in which a wire stands, from either end; -1 where it stands in none. */
function rowOfWire(rows: readonly ChartRow[], { from, to }: TakenWire): number {
  const of = connectorsOf(rows);
  const goes = (r: ChartRow, end: string) => r.goesTo.split(/[,;]+/).some((g) => sameName(g, end));
  return rows.findIndex(
    (r, i) => (isRowOf(rows, of, i, from) && goes(r, to)) || (isRowOf(rows, of, i, to) && goes(r, from)),
  );
}
/** The rows with a wire: in the row of its first end that says of no other wire yet, else in a row of its own. */
function withWire(rows: readonly ChartRow[], wire: TakenWire, source: string): ChartRow[] {
  const of = connectorsOf(rows);
  for (const [from, to] of [
    [wire.from, wire.to],
    [wire.to, wire.from],
  ] as const) {
    const free = rows.findIndex((r, i) => isRowOf(rows, of, i, from) && r.goesTo.trim() === "");
    if (free < 0) continue;
    const r = rows[free]!;
    const colour = r.colour || wire.colour;
    const filled = { ...r, goesTo: to, colour, mm2: r.mm2 || wire.mm2, source: r.source || source };
    return rows.map((x, i) => (i === free ? filled : x));
  }
  const [id, cavity] = split(wire.from);
  const { colour, mm2 } = wire;
  return insertedBehind(rows, id, [chartRow({ connector: id, cavity, goesTo: wire.to, colour, mm2, source })]);
}

/** What a drawing writes beside a pin, as the function of the row; nothing where it is not known as one. */
export const functionSaid = (text: string): string => (parseFunction(text) ? text : "");
