import type { Connector, Device, Wiring } from "../format/wiring.js";
import { fail, issue, ok, type Issue, type Result } from "../issues/issue.js";
import { STAR_KINDS, TERMINALS } from "./kinds.js";

/**
 * Electrical points are named as a technician names them:
 * `B7:1` the harness side of a cavity, `B7:1#` the device's own pin behind it, `X5:4.a` and `X5:4.b`
 * the two sides of an in-line cavity, `S14` a splice, `G3` a ground point, `F12:in`, `BAT:+`.
 */
export type PointName = string;

export const CHASSIS: PointName = "chassis";
/** The device's own pin behind a cavity. */
export const pinBehind = (cavity: PointName): PointName => `${cavity}#`;
export interface Index {
  readonly connectors: ReadonlyMap<string, Connector>;
  readonly devices: ReadonlyMap<string, Device>;
}

export function indexWiring(wiring: Wiring): Index {
  return {
    connectors: new Map(wiring.connectors.map((c) => [c.id, c])),
    devices: new Map(wiring.devices.map((d) => [d.id, d])),
  };
}

/** What an endpoint as written in the document refers to. */
export type Place =
  | { readonly type: "cavity"; readonly connector: Connector; readonly cavity: string; readonly side?: "a" | "b" }
  | { readonly type: "terminal"; readonly device: Device; readonly terminal: string }
  | { readonly type: "star"; readonly device: Device };

/**
 * Finds what an endpoint text means.
 * @returns the place, or one issue: `wiring.missing-connector`, `.missing-cavity`, `.missing-terminal`,
 * `.inline-needs-side`, `.no-side-here`
 */
export function resolvePlace(index: Index, endpoint: string, path: Issue["path"] = []): Result<Place> {
  const colon = endpoint.indexOf(":");
  const id = colon < 0 ? endpoint : endpoint.slice(0, colon);
  const rest = colon < 0 ? "" : endpoint.slice(colon + 1);
  const connector = index.connectors.get(id);
  const device = index.devices.get(id);
  if (connector && rest !== "") {
    const sided = /^(.*)\.([ab])$/.exec(rest);
    const cavity = sided?.[1] ?? rest;
    if (!connector.cavities.includes(cavity))
      return fail([
        issue("wiring.missing-cavity", path, { connector: id, cavity, known: connector.cavities.slice(0, 12) }),
      ]);
    if (connector.inline && !sided) return fail([issue("wiring.inline-needs-side", path, { connector: id, cavity })]);
    if (!connector.inline && sided) return fail([issue("wiring.no-side-here", path, { connector: id, cavity })]);
    return ok({ type: "cavity", connector, cavity, ...(sided ? { side: sided[2] as "a" | "b" } : {}) });
  }
  if (device && STAR_KINDS.has(device.kind) && rest === "") return ok({ type: "star", device });
  const terminals = device ? TERMINALS[device.kind] : undefined;
  if (device && terminals) {
    if (terminals.includes(rest)) return ok({ type: "terminal", device, terminal: rest });
    return fail([issue("wiring.missing-terminal", path, { device: id, terminal: rest, known: terminals })]);
  }
  if (connector)
    return fail([
      issue("wiring.missing-cavity", path, { connector: id, cavity: rest, known: connector.cavities.slice(0, 12) }),
    ]);
  return fail([issue("wiring.missing-connector", path, { endpoint, id })]);
}

export interface DevicePin {
  readonly role: string;
  readonly at: string;
  readonly path: readonly (string | number)[];
}

/** The cavities a device is connected through, with the role of each pin. */
export function devicePins(device: Device): DevicePin[] {
  if (device.kind === "module") return device.pins.map((p, i) => ({ role: p.role, at: p.at, path: ["pins", i, "at"] }));
  if ("pins" in device)
    return Object.entries(device.pins).flatMap(([role, at]) =>
      typeof at === "string" ? [{ role, at, path: ["pins", role] }] : [],
    );
  return [];
}

/** The connectors a device has, in order of its pins; a ground point under its case is none. */
export function deviceConnectors(device: Device): string[] {
  return [...new Set(devicePins(device).flatMap((p) => (p.at.includes(":") ? [connectorOf(p.at)] : [])))];
}

export const wireId = (wire: { id?: string | undefined; from: string; to: string }) =>
  wire.id ?? `${wire.from}~${wire.to}`;

/** The connector, part or splice a point belongs to. */
export const connectorOf = (point: PointName): string =>
  point.includes(":") ? point.slice(0, point.indexOf(":")) : point;

/** The part of a point's name behind its connector or part: a cavity, a terminal; undefined for a splice or ground. */
export const terminalOf = (point: PointName): string | undefined =>
  point.includes(":") ? point.slice(point.indexOf(":") + 1) : undefined;

/** The points of a connector: one a cavity, or one on each side of it where it is in-line. */
export const connectorPoints = (c: Pick<Connector, "id" | "cavities" | "inline">): string[] =>
  c.cavities.flatMap((cavity) => (c.inline ? [`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`] : [`${c.id}:${cavity}`]));

/** Whether the black lead is where it is unless said: on chassis or battery negative. */
export const isPlainBlack = (black: PointName | undefined): boolean =>
  black === undefined || black === CHASSIS || black.endsWith(":-");

/** Every place a meter lead can touch: cavities on the harness side, terminals, splices and ground points. */
export function meterPoints(wiring: Wiring): string[] {
  return [
    ...wiring.connectors.flatMap(connectorPoints),
    ...wiring.devices.flatMap((d) =>
      STAR_KINDS.has(d.kind) ? [d.id] : (TERMINALS[d.kind] ?? []).map((t) => `${d.id}:${t}`),
    ),
  ];
}
