import type { Wiring } from "../format/wiring.js";
import { connectorOf } from "./points.js";
import { thingsOnTheWay } from "./shared.js";

/** One thing that coded circuits pass through, and who else does. */
export interface SharedRow {
  /** wire, in-line cavity, splice, ground, fuse, switch, relay, module pin */
  readonly thing: string;
  readonly kind: "splice" | "ground" | "fuse" | "switch" | "relay" | "cavity" | "modulePin" | "wire" | "part";
  /**
   * things with the same ones passing through them, nearest the sensors first: they cannot be told apart without a
   * reading
   */
  readonly same: readonly string[];
  /** how many of them are wires; they stand last */
  readonly wires: number;
  readonly coded: readonly string[];
  readonly healthy: readonly string[];
}
export interface SharedMatrix {
  readonly coded: readonly string[];
  /** sensors without a code that share something with a coded one: they argue against what they pass through */
  readonly healthy: readonly string[];
  readonly rows: readonly SharedRow[];
  /**
   * fewest things that together all coded circuits pass through, each set by the rows' `thing`; one set of one is a
   * shared cause
   */
  readonly covers: readonly (readonly string[])[];
}

const SUBJECT_ROLES: ReadonlySet<string> = new Set(["input", "lowSide", "highSide"]);

/** Which sensors or actuators a code is about: the one it names, else those on the pin it watches. */
export function subjectsOf(wiring: Wiring, module: string, id: string, way = thingsOnTheWay(wiring)): string[] {
  const code = wiring.codes.find((c) => c.module === module && c.id === id);
  const monitor = code?.monitor;
  const at = monitor && "at" in monitor ? monitor.at : undefined;
  const named = code?.about ?? (monitor?.type === "silent" ? monitor.node : undefined);
  if (named !== undefined && way.has(named)) return [named];
  const unit = wiring.devices.find((d) => d.id === module);
  const isInput = unit?.kind === "module" && unit.pins.some((pin) => pin.at === at && SUBJECT_ROLES.has(pin.role));
  return isInput && at !== undefined ? [...way].filter(([, things]) => things.has(at)).map(([device]) => device) : [];
}

/**
 * What the coded circuits share, from the drawing alone, before a single volt is known. Things that the very same
 * circuits pass through stand in one row. Rows are ordered by how many coded circuits pass, then by how few healthy
 * ones.
 */
export function sharedMatrix(wiring: Wiring, codedDevices: readonly string[]): SharedMatrix {
  const way = thingsOnTheWay(wiring);
  const coded = codedDevices.filter((d) => way.has(d));
  const theirs = new Set(coded.flatMap((d) => [...way.get(d)!]));
  const healthy = [...way]
    .filter(([d, things]) => !coded.includes(d) && [...things].some((t) => theirs.has(t)))
    .map(([d]) => d);
  const passing = new Map<string, { coded: string[]; healthy: string[] }>();
  for (const [list, key] of [
    [coded, "coded"],
    [healthy, "healthy"],
  ] as const)
    for (const d of list)
      for (const t of way.get(d)!) {
        if (!theirs.has(t)) continue;
        const at = passing.get(t) ?? { coded: [], healthy: [] };
        at[key].push(d);
        passing.set(t, at);
      }
  const groups = new Map<string, { things: string[]; coded: string[]; healthy: string[] }>();
  for (const [thing, p] of passing) {
    if (p.coded.length < 2 && coded.length > 1) continue;
    const key = `${p.coded.join(" ")}|${p.healthy.join(" ")}`;
    const group = groups.get(key) ?? { things: [], ...p };
    group.things.push(thing);
    groups.set(key, group);
  }
  const kindOf = thingKinds(wiring);
  const rows = [...groups.values()]
    .map((g): SharedRow => {
      const ordered = [...g.things].sort((a, b) => WEIGHT.indexOf(kindOf(a)) - WEIGHT.indexOf(kindOf(b)));
      return {
        thing: ordered[0]!,
        kind: kindOf(ordered[0]!),
        same: ordered.slice(1),
        wires: ordered.slice(1).filter((t) => kindOf(t) === "wire").length,
        coded: g.coded,
        healthy: g.healthy,
      };
    })
    .sort(
      (a, b) =>
        b.coded.length - a.coded.length || a.healthy.length - b.healthy.length || a.thing.localeCompare(b.thing),
    );
  return { coded, healthy, rows, covers: covers(coded, passing) };
}

/** What stands for a group: what a technician would point at first. */
const WEIGHT: readonly SharedRow["kind"][] = [
  "splice",
  "ground",
  "fuse",
  "relay",
  "switch",
  "modulePin",
  "cavity",
  "part",
  "wire",
];
function thingKinds(wiring: Wiring): (thing: string) => SharedRow["kind"] {
  const devices = new Map(wiring.devices.map((d) => [d.id, d.kind]));
  const inline = new Set(wiring.connectors.filter((c) => c.inline).map((c) => c.id));
  const pins = new Set(wiring.devices.flatMap((d) => (d.kind === "module" ? d.pins.map((p) => p.at) : [])));
  return (thing) => {
    const kind = devices.get(thing);
    if (kind === "splice" || kind === "ground" || kind === "fuse" || kind === "switch" || kind === "relay") return kind;
    if (kind) return "part";
    if (pins.has(thing)) return "modulePin";
    return thing.includes(":") && !thing.includes("~") && inline.has(connectorOf(thing)) ? "cavity" : "wire";
  };
}

/**
 * Smallest sets of things that every coded circuit passes through at least one of, three at most (Reiter 1987: minimal
 * hitting sets, here by width first).
 */
function covers(
  coded: readonly string[],
  passing: ReadonlyMap<string, { coded: string[]; healthy: string[] }>,
): string[][] {
  if (coded.length < 2) return [];
  // of things with the same coded circuits only the one with the fewest healthy ones matters
  const best = new Map<string, { thing: string; coded: string[]; healthy: number }>();
  for (const [thing, p] of passing) {
    const key = p.coded.join(" ");
    const known = best.get(key);
    if (!known || p.healthy.length < known.healthy) best.set(key, { thing, coded: p.coded, healthy: p.healthy.length });
  }
  const list = [...best.values()].sort((a, b) => b.coded.length - a.coded.length || a.healthy - b.healthy).slice(0, 60);
  for (let size = 1; size <= 3; size++) {
    const found = combinations(list, size).filter((set) => coded.every((d) => set.some((x) => x.coded.includes(d))));
    if (found.length) return found.slice(0, 6).map((set) => set.map((x) => x.thing));
  }
  return [];
}
function combinations<T>(list: readonly T[], size: number, from = 0): T[][] {
  if (size === 0) return [[]];
  return list.slice(from).flatMap((x, i) => combinations(list, size - 1, from + i + 1).map((rest) => [x, ...rest]));
}

/** The parts that codes are about, each once, in the order of the codes. */
export function partsNamed(
  wiring: Wiring,
  words: readonly { readonly entry: { readonly module: string; readonly code: string } }[],
): string[] {
  const way = thingsOnTheWay(wiring);
  return [...new Set(words.flatMap((w) => subjectsOf(wiring, w.entry.module, w.entry.code, way)))];
}
