import {
  addGroup,
  addTemplate,
  chartRow,
  connectorRow,
  parseColour,
  partRow,
  type Chart,
  type ChartRow,
  type ConnectorRow,
  type PartRow,
  type GroupKind,
  type TemplateKind,
} from "@radicula/core";

/** Changes to a chart: each takes one and gives a new one; nothing is changed in place. */

const SHORT_NAME = /^[a-z]{1,3}\d{1,4}$/;
/** Names typed in small letters stand in capitals, as on drawings: `b7` is B7. Words are left alone. */
export const properName = (text: string) =>
  text
    .split(/(\s*[,;]\s*)/)
    .map((t) =>
      t
        .replace(/^([a-z]{1,3}\d{1,4})(?=[:.\s]|$)/, (id) => id.toUpperCase())
        .replace(/^(bat|gnd)(?=[:.\s]|$)/, (id) => id.toUpperCase()),
    )
    .join("");

/**
 * A row as it was left after typing: `b2.1` is connector B2 cavity 1, in either column, colours stand in capitals.
 */
export function tidyRow(row: ChartRow, before?: ChartRow, isThing: (name: string) => boolean = () => false): ChartRow {
  if (
    before &&
    row.connector === before.connector &&
    row.cavity === before.cavity &&
    row.colour === before.colour &&
    row.goesTo === before.goesTo
  )
    return row;
  let { connector, cavity } = row;
  const both = /^\s*([\p{L}][\p{L}\p{N}_+/-]*)\s*[:.\s]\s*([\p{L}\p{N}+-]+(?:\.[ab])?)\s*$/u.exec(cavity);
  const whole = /^\s*([\p{L}][\p{L}\p{N}_+/-]*)\s*[:.]\s*([\p{L}\p{N}+-]+(?:\.[ab])?)\s*$/u.exec(connector);
  if (both && cavity !== before?.cavity) {
    connector = both[1]!;
    cavity = both[2]!;
  }
  // typed whole where the connector stands
  else if (whole && connector !== before?.connector && cavity.trim() === "") {
    connector = whole[1]!;
    cavity = whole[2]!;
  }
  // a splice or ground that other lines go to, named where the cavity would stand
  else if (
    connector.trim() === "" &&
    cavity !== before?.cavity &&
    SHORT_NAME.test(cavity.trim().toLowerCase()) &&
    isThing(cavity.trim().toUpperCase())
  ) {
    connector = cavity;
    cavity = "";
  }
  const colour = row.colour.trim();
  const letters = /^[A-Za-z]{2}(?:[/-]?[A-Za-z]{2})?$/.test(colour) && parseColour(colour).status === "read";
  return {
    ...row,
    connector: SHORT_NAME.test(connector.trim()) ? connector.trim().toUpperCase() : properName(connector.trim()),
    cavity: cavity.trim(),
    colour: letters ? colour.toUpperCase() : colour,
    goesTo: properName(row.goesTo.trim()),
  };
}

export const tidyRows = (rows: readonly ChartRow[], before: readonly ChartRow[]): ChartRow[] => {
  const known = new Set(before);
  let ends: Set<string> | undefined;
  const isThing = (name: string) => (ends ??= new Set(rows.map((r) => r.goesTo.trim().toUpperCase()))).has(name);
  return rows.map((r, i) => (known.has(r) ? r : tidyRow(r, before[i], isThing)));
};

const KEYS = Object.keys(chartRow()) as (keyof ChartRow)[];
/** The rows as they were where nothing in them changed: the very same list where nothing changed at all. */
export function keepSame(rows: readonly ChartRow[], before: readonly ChartRow[]): readonly ChartRow[] {
  let changed = rows.length !== before.length;
  const kept = rows.map((r, i) => {
    const b = before[i];
    if (r === b) return r;
    if (b && KEYS.every((k) => r[k] === b[k])) return b;
    changed = true;
    return r;
  });
  return changed ? kept : before;
}

export function addPart(
  chart: Chart,
  kind: TemplateKind,
): { readonly chart: Chart; readonly firstRow: number; readonly id: string } {
  const made = addTemplate(chart, kind);
  const rows = chart.rows.filter((r, i) => i < chart.rows.length - 1 || Object.values(r).some((c) => c.trim() !== ""));
  return {
    id: made.id,
    firstRow: rows.length,
    chart: {
      ...chart,
      rows: [...rows, ...made.rows],
      parts: made.part ? [...chart.parts, made.part] : chart.parts,
      connectors: made.connector ? [...chart.connectors, made.connector] : chart.connectors,
    },
  };
}

/** A whole circuit laid down at the end of the chart. */
export function addCircuit(
  chart: Chart,
  kind: GroupKind,
  members: number,
): { readonly chart: Chart; readonly firstRow: number } {
  const made = addGroup(chart, kind, members);
  const rows = chart.rows.filter((r, i) => i < chart.rows.length - 1 || Object.values(r).some((c) => c.trim() !== ""));
  return {
    firstRow: rows.length,
    chart: { ...chart, rows: [...rows, ...made.rows], parts: [...chart.parts, ...made.parts] },
  };
}

const sameId = (a: string, b: string) => a.trim().toUpperCase() === b.trim().toUpperCase();
export function setPart(chart: Chart, id: string, cells: Partial<PartRow>): Chart {
  return chart.parts.some((p) => sameId(p.id, id))
    ? { ...chart, parts: chart.parts.map((p) => (sameId(p.id, id) ? { ...p, ...cells } : p)) }
    : { ...chart, parts: [...chart.parts, partRow({ id, ...cells })] };
}
export function setConnector(chart: Chart, id: string, cells: Partial<ConnectorRow>): Chart {
  return chart.connectors.some((c) => sameId(c.id, id))
    ? { ...chart, connectors: chart.connectors.map((c) => (sameId(c.id, id) ? { ...c, ...cells } : c)) }
    : { ...chart, connectors: [...chart.connectors, connectorRow({ id, ...cells })] };
}
export const partOf = (chart: Chart, id: string) => chart.parts.find((p) => sameId(p.id, id));
export const connectorNameOf = (chart: Chart, id: string) => chart.connectors.find((c) => sameId(c.id, id));

/**
 * The cells of one column from the first chosen row copied into the rows below it; numbers at the end count on for
 * cavities.
 */
export function fillDown(
  rows: readonly ChartRow[],
  columns: readonly (keyof ChartRow)[],
  from: number,
  to: number,
): ChartRow[] {
  const first = rows[from];
  if (!first) return [...rows];
  return rows.map((r, i) =>
    i > from && i <= to
      ? {
          ...r,
          ...Object.fromEntries(
            columns.map((c) => [
              c,
              c === "cavity" && /^\d+$/.test(first.cavity) ? String(Number(first.cavity) + i - from) : first[c],
            ]),
          ),
        }
      : r,
  );
}

/** A new row below one: the next cavity of the same connector, when cavities are counted. */
export function rowBelow(above: ChartRow | undefined): ChartRow {
  return chartRow(above?.source ? { source: above.source } : {});
}

/** Functions told by voltage, written into the rows of a connector and marked as read. */
export function setFunctions(
  chart: Chart,
  rowsOf: readonly { readonly row: number; readonly point: string; readonly function: string }[],
): Chart {
  const by = new Map(rowsOf.map((r) => [r.row, r.function]));
  return {
    ...chart,
    rows: chart.rows.map((r, i) => (by.has(i) ? { ...r, function: by.get(i)! } : r)),
    read: [...new Set([...chart.read, ...rowsOf.map((r) => r.point)])],
  };
}

/** Guesses that somebody has read on the machine or the drawing. */
export const markRead = (chart: Chart, points: readonly string[]): Chart => ({
  ...chart,
  read: [...new Set([...chart.read, ...points])],
});
