import type { Chart, ConnectorRow, PartRow } from "../format/chart.js";
import type { Code, Connector, Wiring } from "../format/wiring.js";
import { Caution, Device, WIRING_FORMAT, type Claim, type Wire } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { checkWiring } from "../wiring/check.js";
import { STAR_KINDS, TERMINALS } from "../wiring/kinds.js";
import { findNets } from "../wiring/nets.js";
import { connectorOf } from "../wiring/points.js";
import { endName, KINDS, Names, readRows, type End } from "./ends.js";
import { assignRoles, MODULE_ROLE, parseFunction, type PinFunction } from "./functions.js";
import { guessKind, guessModules, type PartPins } from "./kinds.js";
import { parseValues } from "./values.js";
import { chartWires, splitZones, zonesOf } from "./wires.js";

type Kind = Device["kind"];
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
  const inLine = (id: string) => isInLine(id, connectorRows.get(id)?.row, names, ends);
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
    return kind
      ? [
          bareDevice(
            id,
            kind,
            partRows.get(id),
            rows.filter((r) => names.spelt(r.own.id) === id).map((r) => chart.rows[r.index]!.function),
            issues,
          ),
        ]
      : [];
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
  };
  return { wiring: soundOnly(wiring, chart.codes, issues), issues, points };
}

/** Every end of every wire and every row, by the connector's spelling. */
function endsOf(rows: ReturnType<typeof readRows>["rows"], names: Names) {
  const pairs = new Map<string, Set<string>>();
  const own = new Map<string, string[]>();
  const at = (e: End) => `${names.spelt(e.id)}:${e.cavity}`;
  for (const r of rows) {
    if (!names.bare(names.spelt(r.own.id)) && r.own.cavity)
      own.set(names.spelt(r.own.id), [...(own.get(names.spelt(r.own.id)) ?? []), r.own.cavity]);
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
  return { pairs, own, seen };
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
  if (ends.seen.some((e) => e.id === id && e.side)) return true;
  return (
    /^(X|IC|C|J)\d/i.test(id) && [...ends.pairs].some(([at, others]) => at.startsWith(`${id}:`) && others.size > 1)
  );
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

function whereOf(row: ConnectorRow | PartRow | undefined, path: readonly (string | number)[], issues: Issue[]) {
  if (!row) return { zones: [], reachMinutes: 1, cautions: [] };
  const bad = (column: string, code: string, params: Issue["params"]) =>
    issues.push(issue(`chart.${code}`, [...path, column], params));
  const minutes =
    row.minutes.trim() === ""
      ? 1
      : Number(
          row.minutes
            .trim()
            .replace(",", ".")
            .replace(/\s*min(utes?)?$/, ""),
        );
  const fine = minutes >= 0 && minutes <= 600;
  if (!fine) bad("minutes", "not-minutes", { text: row.minutes.slice(0, 40) });
  const cautions = [...new Set(row.cautions.split(/[\s,;/]+/).filter(Boolean))].flatMap((c) => {
    const x = Caution.safeParse(c);
    if (!x.success) {
      bad("cautions", "unknown-caution", { text: c.slice(0, 40), known: Caution.options });
      return [];
    }
    return [x.data];
  });
  const text = (key: "name" | "place" | "side" | "comesOff" | "partNumber", most: number) =>
    row[key].trim() ? { [key]: row[key].trim().slice(0, most) } : {};
  const alike = row.lookAlikes.split(/[\s,;]+/).filter(Boolean);
  const also = row.alsoNumbers
    .split(/[,;]/)
    .map((n) => n.trim().slice(0, 60))
    .filter(Boolean);
  return {
    ...text("name", 400),
    ...text("place", 400),
    ...text("side", 60),
    ...text("comesOff", 400),
    ...text("partNumber", 60),
    ...(alike.length ? { lookAlikes: alike.slice(0, 20) } : {}),
    ...(also.length ? { alsoNumbers: also.slice(0, 20) } : {}),
    zones: zonesOf(splitZones(row.zones).join(" "), (z) => bad("zones", "unknown-zone", { text: z })),
    reachMinutes: fine ? minutes : 1,
    cautions,
  };
}

function connectorFor(
  id: string,
  cavities: string[],
  inline: boolean,
  found: { row: ConnectorRow; index: number } | undefined,
  issues: Issue[],
): Connector {
  const { row, index } = found ?? { row: undefined, index: 0 };
  return {
    id,
    cavities,
    inline,
    backProbe: !/^(n|no|false|0)$/i.test(row?.backProbe.trim() ?? ""),
    ...whereOf(row, ["connectors", index], issues),
  };
}

type Found = { row: PartRow; index: number } | undefined;
const AMPERE = /^(\d+(?:[.,]\d+)?)\s*A$/i;
function bareDevice(id: string, kind: Kind, found: Found, functions: readonly string[], issues: Issue[]): Device {
  const stated = functions.map((f) => AMPERE.exec(f.trim())?.[1]).find((a) => a !== undefined);
  const rating =
    kind === "fuse" || kind === "breaker" ? { rating: stated ? Number(stated.replace(",", ".")) : 10 } : {};
  return deviceOf(id, kind, found, rating, issues) ?? deviceOf(id, kind, undefined, rating, issues)!;
}
/** One device, checked against the format. @returns undefined where its values do not fit; an issue says so */
function deviceOf(
  id: string,
  kind: Kind,
  found: Found,
  more: Record<string, unknown>,
  issues: Issue[],
): Device | undefined {
  const path = ["parts", found?.index ?? 0];
  const { values, wrong } = parseValues(found?.row.values ?? "");
  if (wrong.length) issues.push(issue("chart.bad-values", [...path, "values"], { text: wrong }));
  const parsed = Device.safeParse({ kind, id, ...whereOf(found?.row, path, issues), ...more, ...values });
  if (parsed.success) return parsed.data;
  const first = parsed.error.issues[0];
  issues.push(
    issue("chart.values-do-not-fit", [...path, "values"], {
      part: id,
      kind,
      message: `${first?.path.map(String).join(".") ?? ""} ${first?.message ?? ""}`.trim(),
    }),
  );
  const bareParse = found?.row.values
    ? Device.safeParse({ kind, id, ...whereOf(undefined, path, []), ...more })
    : undefined;
  return bareParse?.success ? bareParse.data : undefined;
}

/** Parts on connectors: sensors, actuators, relays, modules. */
function partsOf(
  chart: Chart,
  draft: Wiring,
  rows: ReturnType<typeof readRows>["rows"],
  names: Names,
  inLine: (id: string) => boolean,
  partRows: ReadonlyMap<string, { row: PartRow; index: number }>,
  issues: Issue[],
): { devices: Device[]; guesses: string[] } {
  const { netOf } = findNets(draft);
  const owner = new Map<string, string>();
  const said = new Map<string, PinFunction | undefined>();
  const values = new Map<string, { text: string; row: number }>();
  for (const r of rows) {
    const point = `${names.spelt(r.own.id)}:${r.own.cavity}`;
    const row = chart.rows[r.index]!;
    if (r.part) owner.set(point, names.spelt(r.part));
    const f = parseFunction(row.function);
    if (row.function.trim() && !f && !AMPERE.test(row.function.trim()))
      issues.push(issue("chart.unknown-function", ["rows", r.index, "function"], { text: row.function.slice(0, 40) }));
    if (f) said.set(point, f);
    if (row.values.trim()) values.set(point, { text: row.values, row: r.index });
  }
  const onNet = netFunctions(draft, netOf, said);
  const groups = new Map<string, { cavity: string; function: PinFunction | undefined; net: number }[]>();
  const guesses: string[] = [];
  for (const c of draft.connectors) {
    if (inLine(c.id)) continue;
    const wired = new Set(draft.wires.flatMap((w) => [w.from, w.to]));
    for (const cavity of c.cavities) {
      const point = `${c.id}:${cavity}`;
      const net = netOf.get(point) ?? -1;
      const own = said.get(point);
      const from = onNet.get(net);
      // a "supply" or "ground" on a net that someone calls reference or sensor ground is that
      const f =
        own === "supply" && from === "reference"
          ? "reference"
          : own === "ground" && from === "sensorGround"
            ? "sensorGround"
            : (own ?? (wired.has(point) ? from : undefined));
      if (f && own === undefined) guesses.push(point);
      const id = owner.get(point) ?? c.id;
      groups.set(id, [...(groups.get(id) ?? []), { cavity: point, function: f, net }]);
    }
  }
  const parts: PartPins[] = [...groups].map(([id, pins]) => ({ id, name: partRows.get(id)?.row.name ?? "", pins }));
  const stated = (id: string): Kind | undefined => {
    const kind = names.statedKind(id);
    return kind && !STAR_KINDS.has(kind) && !TERMINALS[kind] ? kind : undefined;
  };
  const known = parts.filter((p) => stated(p.id) === "module").map((p) => p.id);
  const modules = known.length ? new Set(known) : guessModules(parts.filter((p) => stated(p.id) === undefined));
  const devices = parts.flatMap((p): Device[] => {
    const kind = stated(p.id) ?? (modules.has(p.id) ? "module" : guessKind(p));
    const found = partRows.get(p.id);
    const typed = found?.row.kind.trim() ?? "";
    if (typed && !KINDS.has(typed))
      issues.push(
        issue("chart.unknown-kind", ["parts", found?.index ?? 0, "kind"], {
          text: typed.slice(0, 40),
          known: [...KINDS],
        }),
      );
    if (!kind) {
      if (p.pins.some((x) => x.net >= 0))
        issues.push(
          issue(
            "chart.kind-unknown",
            ["rows", rows.find((r) => names.spelt(r.own.id) === p.id)?.index ?? 0, "connector"],
            { part: p.id },
          ),
        );
      return [];
    }
    if (!stated(p.id)) guesses.push(p.id);
    const pins =
      kind === "module"
        ? modulePins(p, parts, values, modules, guesses, issues)
        : rolesOf(kind, p, rows, names, issues);
    if (!pins) return [];
    const made = deviceOf(p.id, kind, found, { pins }, issues);
    return made ? [made] : [];
  });
  return { devices, guesses };
}

/**
 * What each net is for: the most telling of what its cavities are said to be, else from the battery, fuses and grounds
 * on it.
 */
const TELLING: readonly PinFunction[] = [
  "reference",
  "sensorGround",
  "busHigh",
  "busLow",
  "busLine",
  "signal",
  "signal2",
  "lowSide",
  "highSide",
  "high",
  "low",
  "supply",
  "ground",
];
function netFunctions(
  draft: Wiring,
  netOf: ReadonlyMap<string, number>,
  said: ReadonlyMap<string, PinFunction | undefined>,
): ReadonlyMap<number, PinFunction> {
  const found = new Map<number, PinFunction>();
  const add = (net: number | undefined, f: PinFunction) => {
    if (net === undefined) return;
    const before = found.get(net);
    if (before === undefined || TELLING.indexOf(f) < TELLING.indexOf(before)) found.set(net, f);
  };
  const kinds = new Map(draft.devices.map((d) => [d.id, d.kind]));
  for (const w of draft.wires)
    for (const end of [w.from, w.to]) {
      const [id, terminal] = end.split(":");
      const kind = kinds.get(id!);
      if (kind === "ground" || terminal === "-") add(netOf.get(end), "ground");
      else if (kind && TERMINALS[kind]) add(netOf.get(end), "supply");
    }
  for (const [point, f] of said)
    if (f && TELLING.includes(f)) for (const p of [point, `${point}.a`, `${point}.b`]) add(netOf.get(p), f);
  return found;
}

function rolesOf(
  kind: Kind,
  p: PartPins,
  rows: ReturnType<typeof readRows>["rows"],
  names: Names,
  issues: Issue[],
): Record<string, string> | undefined {
  const { roles, missing } = assignRoles(kind, p.pins);
  if (missing.length === 0) return Object.fromEntries(roles);
  issues.push(
    issue("chart.role-missing", ["rows", rows.find((r) => names.spelt(r.own.id) === p.id)?.index ?? 0, "function"], {
      part: p.id,
      kind,
      missing,
    }),
  );
  return undefined;
}

/**
 * Pins of a module. An input that a sensor with an open output or a two-wire one hangs on is pulled up, others down.
 */
function modulePins(
  p: PartPins,
  parts: readonly PartPins[],
  values: ReadonlyMap<string, { text: string; row: number }>,
  modules: ReadonlySet<string>,
  guesses: string[],
  issues: Issue[],
): Record<string, unknown>[] {
  const pins = p.pins.flatMap((pin): Record<string, unknown>[] => {
    const role = pin.function && MODULE_ROLE[pin.function];
    if (!role) return [];
    const typed = values.get(pin.cavity);
    const read = parseValues(typed?.text ?? "");
    if (read.wrong.length)
      issues.push(issue("chart.bad-values", ["rows", typed?.row ?? 0, "values"], { text: read.wrong }));
    const partner = parts.find((o) => o.id !== p.id && !modules.has(o.id) && o.pins.some((x) => x.net === pin.net));
    const kind = partner && guessKind(partner);
    const pull =
      role !== "input" || "pull" in read.values
        ? {}
        : {
            pull: kind === "thermistor" || kind === "hall" ? "up" : kind === "coilSensor" ? "none" : "down",
            ...(kind === "currentLoop" ? { pullOhm: 250 } : {}),
          };
    if ("pull" in pull) guesses.push(pin.cavity);
    return [{ role, at: pin.cavity, ...pull, ...read.values }];
  });
  const whole = (role: string) => pins.some((x) => x["role"] === role);
  if (whole("busHigh") !== whole("busLow")) {
    issues.push(issue("chart.bus-pair", ["rows"], { module: p.id }));
    return pins.filter((x) => x["role"] !== "busHigh" && x["role"] !== "busLow");
  }
  return pins;
}

/** Parts of the list that no row mentions: splices and grounds may stand alone, others need rows. */
function loneParts(chart: Chart, names: Names, made: readonly Device[], issues: Issue[]): Device[] {
  const mentioned = new Set(names.all());
  return chart.parts.flatMap((row, index): Device[] => {
    const id = row.id.trim();
    const kind = names.statedKind(id);
    if (id === "" || mentioned.has(id) || made.some((d) => d.id === id)) return [];
    if (kind && (STAR_KINDS.has(kind) || TERMINALS[kind])) {
      const d = deviceOf(id, kind, { row, index }, kind === "fuse" || kind === "breaker" ? { rating: 10 } : {}, issues);
      return d ? [d] : [];
    }
    issues.push(issue("chart.part-without-rows", ["parts", index, "id"], { id: id.slice(0, 60) }));
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
    const [w, d, c] = [out("wires"), out("devices"), out("codes")];
    sound = {
      ...sound,
      wires: sound.wires.filter((_, i) => !w.has(i)),
      devices: sound.devices.filter((_, i) => !d.has(i)),
      codes: sound.codes.filter((_, i) => !c.has(i)),
    };
  }
  return { ...sound, connectors: [], devices: [], wires: [], codes: [] };
}
