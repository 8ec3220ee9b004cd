import type { Chart, ChartRow } from "../format/chart.js";
import type { Claim } from "../format/wiring.js";
import { sameColour } from "../units/colour.js";
import { parseSection } from "../units/section.js";
import { buildChart } from "./build.js";
import { parseFunction } from "./functions.js";
import { cutText } from "../units/cutText.js";

export type MergeField = "colour" | "mm2" | "function" | "goesTo";
export interface Difference {
  readonly at: string;
  readonly field: MergeField;
  readonly ours: string;
  readonly theirs: string;
}
/** What a second chart says of the first: how much agrees, what it adds, where it contradicts. */
export interface Merged {
  /** the first chart with what the second adds; contradictions are kept beside it as claims, nothing is overwritten */
  readonly chart: Chart;
  readonly agreements: number;
  /** cells filled in rows that were there */
  readonly filled: readonly { readonly at: string; readonly field: MergeField; readonly value: string }[];
  /** cavities only the second chart has */
  readonly added: readonly string[];
  readonly contradictions: readonly Difference[];
}

const FIELDS: readonly MergeField[] = ["colour", "mm2", "function", "goesTo"];
const same: Readonly<Record<MergeField, (a: string, b: string) => boolean>> = {
  colour: sameColour,
  mm2: (a, b) => parseSection(a) === parseSection(b),
  function: (a, b) => {
    const x = parseFunction(a);
    const y = parseFunction(b);
    return x === undefined || y === undefined
      ? a.trim().toLowerCase() === b.trim().toLowerCase()
      : x === y || (FAMILY[x] !== undefined && FAMILY[x] === FAMILY[y]);
  },
  goesTo: (a, b) => squeeze(a) === squeeze(b),
};
/** words two charts use for the same thing */
const FAMILY: Readonly<Record<string, string>> = {
  reference: "feed",
  supply: "feed",
  ground: "ground",
  sensorGround: "ground",
};
const squeeze = (t: string) =>
  t
    .toUpperCase()
    .replace(/\b(PIN|CAVITY|TERMINAL)\b/g, " ")
    .replace(/[\s.]+/g, ":")
    .replace(/:+/g, ":");

/**
 * Lays a second chart over the first, cavity by cavity.
 * @param source what the second chart is called: added facts carry it
 */
export function mergeCharts(first: Chart, second: Chart, source: string): Merged {
  const ours = byPoint(first);
  const theirs = byPoint(second);
  const rows = first.rows.map((r) => ({ ...r }));
  const filled: { at: string; field: MergeField; value: string }[] = [];
  const contradictions: Difference[] = [];
  const added: string[] = [];
  const claims: Claim[] = [...first.claims];
  let agreements = 0;
  for (const [key, row] of theirs) {
    const known = ours.get(key);
    const index = known?.index;
    const at = known?.at ?? row.at;
    if (index === undefined) {
      added.push(at);
      const [connector = "", cavity = ""] = splitPoint(at);
      rows.push({ ...row.row, connector, cavity, source: row.row.source || source });
      continue;
    }
    let took = false;
    for (const field of FIELDS) {
      const a = rows[index]![field].trim();
      const b = row.row[field].trim();
      if (b === "") continue;
      if (a === "") {
        rows[index]![field] = b;
        filled.push({ at, field, value: b });
        took = true;
      } else if (same[field](a, b)) agreements++;
      else {
        contradictions.push({ at, field, ours: a, theirs: b });
        if (!claims.some((c) => c.at === at && c.field === field && c.value === b))
          claims.push({ at, field, value: cutText(b, 400), source });
      }
    }
    if (took && !rows[index]!.source.includes(source))
      rows[index]!.source = cutText([rows[index]!.source, source].filter(Boolean).join(", "), 120);
  }
  const known = (list: readonly { id: string }[]) => new Set(list.map((x) => x.id.trim().toUpperCase()));
  const parts = known(first.parts);
  const connectors = known(first.connectors);
  return {
    chart: {
      ...first,
      rows,
      claims,
      resets: [...first.resets, ...second.resets.filter((r) => first.resets.every((x) => x.id !== r.id))],
      parts: [...first.parts, ...second.parts.filter((p) => p.id && !parts.has(p.id.trim().toUpperCase()))],
      connectors: [
        ...first.connectors,
        ...second.connectors.filter((c) => c.id && !connectors.has(c.id.trim().toUpperCase())),
      ],
    },
    agreements,
    filled,
    added,
    contradictions,
  };
}

/**
 * Rows by the point they are about, in capitals: two charts need not write names alike. A wire listed only at its other
 * end counts there.
 */
function byPoint(chart: Chart): Map<string, { readonly index: number; readonly row: ChartRow; readonly at: string }> {
  const built = buildChart(chart);
  const found = new Map<string, { index: number; row: ChartRow; at: string }>();
  for (const [index, point] of built.points)
    if (!found.has(point.toUpperCase())) found.set(point.toUpperCase(), { index, row: chart.rows[index]!, at: point });
  return found;
}
const splitPoint = (point: string) => {
  const i = point.indexOf(":");
  return i < 0 ? [point, ""] : [point.slice(0, i), point.slice(i + 1)];
};

/** Settles a contradiction: the claim's value becomes what the chart goes by, what it went by becomes the claim. */
export function takeClaim(chart: Chart, claim: Claim): Chart {
  const index = [...buildChart(chart).points].find(([, p]) => p === claim.at)?.[0];
  const field = FIELDS.find((f) => f === claim.field);
  if (index === undefined || !field) return chart;
  const row = chart.rows[index]!;
  const swapped: Claim = { ...claim, value: row[field], source: row.source || "before" };
  return {
    ...chart,
    rows: chart.rows.map((r, i) => (i === index ? { ...r, [field]: claim.value, source: claim.source } : r)),
    claims: chart.claims.map((c) =>
      c === claim || (c.at === claim.at && c.field === claim.field && c.value === claim.value) ? swapped : c,
    ),
  };
}
