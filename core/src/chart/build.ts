import type { Chart, ConnectorRow } from "../format/chart.js";
import { WIRING_FORMAT, type Claim, type Code, type Device, type Wire, type Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { checkWiring } from "../wiring/check.js";
import { STAR_KINDS, TERMINALS } from "../wiring/kinds.js";
import { connectorOf } from "../wiring/points.js";
import { bareDevice, connectorFor, deviceOf } from "./devices.js";
import { endName, Names, readRows, type End } from "./ends.js";
import { partsOf } from "./parts.js";
import { chartWires } from "./wires.js";
import { cutText } from "../units/cutText.js";

export interface BuiltChart {
  /** always in order (see `checkWiring`): what could not be taken is left out and stands in `issues` */
  readonly wiring: Wiring;
  /** `chart.…`, with the row and column in the path: refused cells first said, then what was guessed */
  readonly issues: readonly Issue[];
  /** the electrical point each row is about, by row number */
  readonly points: ReadonlyMap<number, string>;
}

/**
 * Makes a wiring of a pin chart. Kinds of parts, functions of cavities and sides of in-line connectors that the chart
 * does not say are guessed from the rest and listed in the wiring's `guesses`.
 * @example
 * const { rows } = readCsv(text); // "connector,cavity,goes to\nB1,1,A1:4\n…"
 * const { wiring, issues } = buildChart({ ...emptyChart("Loader 6", 24), rows });
 */
export function buildChart(chart: Chart): BuiltChart {
  const { rows, issues: rowIssues } = readRows(chart);
  const issues: Issue[] = [...rowIssues];
  const names = new Names(
    chart,
    rows.flatMap((r) => [r.own, ...r.to]),
  );
  const connectorRows = new Map(chart.connectors.map((c, i) => [names.spelt(c.id.trim()), { row: c, index: i }]));
  const partRows = new Map(chart.parts.map((p, i) => [names.spelt(p.id.trim()), { row: p, index: i }]));
  const ends = endsOf(rows, names);
  const found = new Map<string, boolean>();
  const inLine = (id: string) => {
    const known = found.get(id) ?? isInLine(id, connectorRows.get(id)?.row, names, ends);
    found.set(id, known);
    return known;
  };
  const functions = new Map<string, string[]>();
  for (const r of rows) {
    const id = names.spelt(r.own.id);
    const said = functions.get(id) ?? [];
    functions.set(id, said);
    said.push(chart.rows[r.index]!.function);
  }
  const { wires, issues: wireIssues, claims, owns } = chartWires(chart, names, rows, inLine);
  issues.push(...wireIssues);
  const joined = spliceDoubles(
    wires.map((w) => ({ ...w.wire, from: endName(w.from), to: endName(w.to) })),
    names,
    inLine,
    issues,
  );
  const cavities = cavitiesOf(ends);
  const connectors = [...cavities].map(([id, list]) =>
    connectorFor(id, list, inLine(id), connectorRows.get(id), issues),
  );
  for (const [id, { row, index }] of connectorRows)
    if (id && !cavities.has(id))
      issues.push(issue("chart.connector-without-rows", ["connectors", index, "id"], { id: row.id }));
  const bare = [...names.all()].flatMap((id) => {
    const kind = names.bare(id);
    return kind ? [bareDevice(id, kind, partRows.get(id), functions.get(id) ?? [], issues)] : [];
  });
  const draft: Wiring = {
    format: WIRING_FORMAT,
    version: 1,
    name: chart.name.trim() || "unnamed wiring",
    nominalVolt: chart.nominalVolt,
    connectors,
    devices: [...bare, ...joined.splices],
    wires: joined.wires,
    codes: [],
  };
  const made = partsOf(chart, draft, rows, names, inLine, partRows, issues);
  const order = new Map(chart.parts.map((p, i) => [p.id.trim(), i]));
  const devices = [...draft.devices, ...made.devices, ...loneParts(chart, names, made.devices, issues)].sort(
    (a, b) => (order.get(a.id) ?? Infinity) - (order.get(b.id) ?? Infinity) || 0,
  );
  const read = new Set(chart.read);
  const guesses = [...names.guessed, ...joined.splices.map((s) => s.id), ...made.guesses].filter((g) => !read.has(g));
  const points = new Map([...owns].map(([row, e]) => [row, endName(e)]));
  const wiring: Wiring = {
    ...draft,
    devices,
    ...(chart.note ? { note: chart.note } : {}),
    ...(chart.machineType ? { machineType: chart.machineType } : {}),
    ...(chart.claims.length + claims.length ? { claims: [...chart.claims, ...claims] as Claim[] } : {}),
    ...(guesses.length ? { guesses: [...new Set(guesses)] } : {}),
    ...(chart.resets.length ? { resets: chart.resets } : {}),
    ...(chart.pages.sheets.length ? { pages: chart.pages } : {}),
  };
  return { wiring: soundOnly(wiring, chart.codes, issues), issues, points };
}

/**
 * Every end of every wire and every row, by the connector's spelling; connectors with a side named, and those where
 * wires to more than one place meet in a cavity.
 */
function endsOf(rows: ReturnType<typeof readRows>["rows"], names: Names) {
  const pairs = new Map<string, Set<string>>();
  const own = new Map<string, string[]>();
  const at = (e: End) => `${names.spelt(e.id)}:${e.cavity}`;
  for (const r of rows) {
    const id = names.spelt(r.own.id);
    if (!names.bare(id) && r.own.cavity) {
      const cavities = own.get(id) ?? [];
      own.set(id, cavities);
      cavities.push(r.own.cavity);
    }
    for (const t of r.to)
      for (const [x, y] of [
        [r.own, t],
        [t, r.own],
      ] as const)
        pairs.set(at(x), (pairs.get(at(x)) ?? new Set()).add(at(y)));
  }
  const seen: End[] = rows
    .flatMap((r) => [r.own, ...r.to])
    .map((e) => ({ ...e, id: names.spelt(e.id) }))
    .filter((e) => !names.bare(e.id) && e.cavity !== "");
  const sided = new Set(seen.filter((e) => e.side).map((e) => e.id));
  const joining = new Set(
    [...pairs].flatMap(([at, others]) => (others.size > 1 ? [at.slice(0, at.indexOf(":"))] : [])),
  );
  return { own, seen, sided, joining };
}
type Ends = ReturnType<typeof endsOf>;

/**
 * Cavities of each connector: those of its own rows in their order, then those only others name; numbers count upwards
 * once some were added.
 */
function cavitiesOf(ends: Ends): Map<string, string[]> {
  const list = new Map<string, string[]>();
  for (const [id, own] of ends.own) list.set(id, [...new Set(own)]);
  for (const e of ends.seen) {
    const known = list.get(e.id) ?? [];
    if (!known.includes(e.cavity)) known.push(e.cavity);
    list.set(e.id, known);
  }
  for (const [id, known] of list)
    if (known.length > new Set(ends.own.get(id)).size && known.every((c) => /^\d+$/.test(c)))
      known.sort((a, b) => Number(a) - Number(b));
  return list;
}

function isInLine(id: string, row: ConnectorRow | undefined, names: Names, ends: Ends): boolean {
  if (row && row.inline.trim() !== "") return /^(y|yes|true|1|x)$/i.test(row.inline.trim());
  if (names.statedKind(id) || names.bare(id)) return false;
  return ends.sided.has(id) || (/^(X|IC|C|J)\d/i.test(id) && ends.joining.has(id));
}

/** A cavity takes one wire: where a chart gives it two, there must be a splice that the drawing does not show. */
function spliceDoubles(
  wires: Wire[],
  names: Names,
  inLine: (id: string) => boolean,
  issues: Issue[],
): { wires: Wire[]; splices: Device[] } {
  const count = new Map<string, number>();
  const single = (end: string) => {
    const id = connectorOf(end);
    return end.includes(":") && !names.bare(id);
  };
  for (const w of wires) for (const end of [w.from, w.to]) if (single(end)) count.set(end, (count.get(end) ?? 0) + 1);
  const splices: Device[] = [];
  const links: Wire[] = [];
  const spliceAt = new Map<string, string>();
  for (const [end, n] of count) {
    if (n < 2) continue;
    const id = `SP-${end.replace(/[:.]/g, "-")}`.slice(0, 40);
    spliceAt.set(end, id);
    splices.push({ kind: "splice", id, zones: [], reachMinutes: 1, cautions: [], name: "assumed" });
    links.push({ from: id, to: end, lengthM: 0.1, zones: [] });
    issues.push(
      issue("chart.splice-assumed", ["rows"], {
        cavity: end,
        wires: n,
        splice: id,
        inline: inLine(connectorOf(end)) ? 1 : 0,
      }),
    );
  }
  return {
    wires: [
      ...wires.map((w) => ({ ...w, from: spliceAt.get(w.from) ?? w.from, to: spliceAt.get(w.to) ?? w.to })),
      ...links,
    ],
    splices,
  };
}

/** Parts of the list that no row mentions: splices and grounds may stand alone, others need rows. */
function loneParts(chart: Chart, names: Names, made: readonly Device[], issues: Issue[]): Device[] {
  const mentioned = new Set(names.all());
  const present = new Set(made.map((d) => d.id));
  return chart.parts.flatMap((row, index): Device[] => {
    const id = row.id.trim();
    const kind = names.statedKind(id);
    if (id === "" || mentioned.has(id) || present.has(id)) return [];
    if (kind && (STAR_KINDS.has(kind) || TERMINALS[kind])) {
      const d = deviceOf(id, kind, { row, index }, kind === "fuse" || kind === "breaker" ? { rating: 10 } : {}, issues);
      return d ? [d] : [];
    }
    issues.push(issue("chart.part-without-rows", ["parts", index, "id"], { id: cutText(id, 60) }));
    return [];
  });
}

/** Leaves out what `checkWiring` would refuse, and says so; codes are added as far as they fit. */
function soundOnly(wiring: Wiring, codes: readonly Code[], issues: Issue[]): Wiring {
  let sound: Wiring = { ...wiring, codes: codes.map((c) => c) };
  for (let round = 0; round < 4; round++) {
    const wrong = checkWiring(sound);
    if (wrong.length === 0) return sound;
    const out = (list: string) => new Set(wrong.filter((w) => w.path[0] === list).map((w) => Number(w.path[1])));
    for (const w of wrong) issues.push({ ...w, path: ["wiring", ...w.path] });
    const [w, d, c, r] = [out("wires"), out("devices"), out("codes"), out("resets")];
    sound = {
      ...sound,
      wires: sound.wires.filter((_, i) => !w.has(i)),
      devices: sound.devices.filter((_, i) => !d.has(i)),
      codes: sound.codes.filter((_, i) => !c.has(i)),
      ...(sound.resets ? { resets: sound.resets.filter((_, i) => !r.has(i)) } : {}),
    };
  }
  return { ...sound, connectors: [], devices: [], wires: [], codes: [], resets: [] };
}
