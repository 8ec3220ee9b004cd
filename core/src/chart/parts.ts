import type { Chart, PartRow } from "../format/chart.js";
import type { Device, Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { STAR_KINDS, TERMINALS } from "../wiring/kinds.js";
import { findNets } from "../wiring/nets.js";
import { AMPERE, deviceOf } from "./devices.js";
import { KINDS, type Names, type readRows } from "./ends.js";
import { assignRoles, MODULE_ROLE, parseFunction, type PinFunction } from "./functions.js";
import { guessKind, guessModules, type PartPins } from "./kinds.js";
import { parseValues, PIN } from "./values.js";
import { cutText } from "../units/cutText.js";

type Kind = Device["kind"];

/** Parts on connectors: sensors, actuators, relays, modules. */
export function partsOf(
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
      issues.push(issue("chart.unknown-function", ["rows", r.index, "function"], { text: cutText(row.function, 40) }));
    if (f) said.set(point, f);
    if (row.values.trim()) values.set(point, { text: row.values, row: r.index });
  }
  const onNet = netFunctions(draft, netOf, said);
  const groups = new Map<string, { cavity: string; function: PinFunction | undefined; net: number }[]>();
  const guesses: string[] = [];
  const wired = new Set(draft.wires.flatMap((w) => [w.from, w.to]));
  for (const c of draft.connectors) {
    if (inLine(c.id)) continue;
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
      const group = groups.get(id) ?? [];
      groups.set(id, group);
      group.push({ cavity: point, function: f, net });
    }
  }
  const parts: PartPins[] = [...groups].map(([id, pins]) => ({ id, name: partRows.get(id)?.row.name ?? "", pins }));
  const stated = (id: string): Kind | undefined => {
    const kind = names.statedKind(id);
    return kind && !STAR_KINDS.has(kind) && !TERMINALS[kind] ? kind : undefined;
  };
  const known = parts.filter((p) => stated(p.id) === "module").map((p) => p.id);
  const modules = known.length ? new Set(known) : guessModules(parts.filter((p) => stated(p.id) === undefined));
  const onEachNet = new Map<number, Set<PartPins>>();
  for (const p of parts)
    for (const { net } of p.pins) {
      const here = onEachNet.get(net) ?? new Set();
      onEachNet.set(net, here.add(p));
    }
  const firstRow = new Map<string, number>();
  for (const r of rows) {
    const id = names.spelt(r.own.id);
    if (!firstRow.has(id)) firstRow.set(id, r.index);
  }
  const devices = parts.flatMap((p): Device[] => {
    const kind = stated(p.id) ?? (modules.has(p.id) ? "module" : guessKind(p));
    const found = partRows.get(p.id);
    const typed = found?.row.kind.trim() ?? "";
    if (typed && !KINDS.has(typed))
      issues.push(
        issue("chart.unknown-kind", ["parts", found?.index ?? 0, "kind"], {
          text: cutText(typed, 40),
          known: [...KINDS],
        }),
      );
    if (!kind) {
      if (p.pins.some((x) => x.net >= 0))
        issues.push(issue("chart.kind-unknown", ["rows", firstRow.get(p.id) ?? 0, "connector"], { part: p.id }));
      return [];
    }
    if (!stated(p.id)) guesses.push(p.id);
    const pins =
      kind === "module"
        ? modulePins(p, onEachNet, values, modules, guesses, issues)
        : rolesOf(kind, p, extraPins(found?.row), firstRow.get(p.id) ?? 0, issues);
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

/** Pins that a part's values name, since no row can hold them. */
function extraPins(row: PartRow | undefined): Record<string, string> {
  return Object.fromEntries(
    Object.entries(parseValues(row?.values ?? "").values).flatMap(([key, at]) =>
      key.startsWith(PIN) && typeof at === "string" ? [[key.slice(PIN.length), at]] : [],
    ),
  );
}

function rolesOf(
  kind: Kind,
  p: PartPins,
  extra: Readonly<Record<string, string>>,
  row: number,
  issues: Issue[],
): Record<string, string> | undefined {
  const { roles, missing: without } = assignRoles(kind, p.pins);
  const missing = without.filter((role) => extra[role] === undefined);
  if (missing.length === 0) return { ...Object.fromEntries(roles), ...extra };
  issues.push(
    issue("chart.role-missing", ["rows", row, "function"], {
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
  onEachNet: ReadonlyMap<number, ReadonlySet<PartPins>>,
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
    const partner = [...(onEachNet.get(pin.net) ?? [])].find((o) => o.id !== p.id && !modules.has(o.id));
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
