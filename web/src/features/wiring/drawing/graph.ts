import {
  cutText,
  deviceConnectors,
  inLineEnds,
  isPeripheral,
  parseColour,
  preferredWithUnit,
  STORED_UNITS,
  wireId,
  type Units,
  type Wiring,
  connectorOf,
} from "@radicula/core";

/** A thing on the drawing before it has a place: a connector with its cavities, or a part without. */
export interface DrawnNode {
  readonly id: string;
  readonly shape: "plug" | "inline" | "module" | "splice" | "ground" | "through" | "source";
  readonly title: string;
  readonly detail: string;
  readonly width: number;
  readonly height: number;
  readonly ports: readonly DrawnPort[];
}
export interface DrawnPort {
  readonly point: string;
  readonly label: string;
  readonly side: "west" | "east";
}
export interface DrawnEdge {
  readonly id: string;
  readonly from: string;
  readonly fromPort: string;
  readonly to: string;
  readonly toPort: string;
  readonly colour: string;
  readonly letters: string;
  readonly detail: string;
}
export interface DrawnGraph {
  readonly nodes: readonly DrawnNode[];
  readonly edges: readonly DrawnEdge[];
}

const PORT = 24;
/** From sensors on the left to feeds on the right. */
const RANK: Readonly<Record<DrawnNode["shape"], number>> = {
  plug: 0,
  splice: 1,
  inline: 1,
  module: 2,
  through: 3,
  ground: 4,
  source: 4,
};

/**
 * The wiring as a graph to be laid out: sensors and actuators on the left, what lies on the way between, modules and
 * feeds on the right. A wire that runs against that direction is turned for the layout only.
 * @param only the things to draw, by connector and part; everything where it is left out
 */
export function drawnGraph(wiring: Wiring, only?: ReadonlySet<string>, units: Units = STORED_UNITS): DrawnGraph {
  const owner = new Map(wiring.devices.flatMap((d) => deviceConnectors(d).map((c) => [c, d] as const)));
  const nodes: DrawnNode[] = [];
  const sideOf = new Map<string, DrawnPort["side"]>();
  const shown = (id: string) => !only || only.has(id);
  const add = (node: Omit<DrawnNode, "height" | "width"> & { width?: number }) => {
    const rows = Math.max(
      node.ports.filter((p) => p.side === "west").length,
      node.ports.filter((p) => p.side === "east").length,
      1,
    );
    const both = node.shape === "inline" || node.shape === "through";
    const label = Math.max(0, ...node.ports.map((p) => p.label.length * 8));
    const name = Math.max(node.title.length * 8.4, node.detail.length * 6.2);
    // where ports stand on both sides the name stands above
    const wide = both ? label * 2 + 54 : name + label + (node.ports.length ? 46 : 26);
    nodes.push({
      ...node,
      width: node.width ?? Math.round(Math.min(260, Math.max(84, wide))),
      height: node.shape === "splice" ? 16 : node.shape === "ground" ? 64 : rows * PORT + 14,
    });
    for (const p of node.ports) sideOf.set(p.point, p.side);
  };
  const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  for (const c of wiring.connectors) {
    if (!shown(c.id)) continue;
    const device = owner.get(c.id);
    const isModule = device !== undefined && !isPeripheral(device);
    const title = c.id;
    const detail = short(
      device && device.id !== c.id ? `${device.id} ${device.name ?? ""}` : (device?.name ?? c.name ?? ""),
    );
    if (c.inline)
      add({
        id: c.id,
        shape: "inline",
        title,
        detail,
        ports: c.cavities.flatMap((k) =>
          (["a", "b"] as const)
            .filter((s) => wired.has(`${c.id}:${k}.${s}`))
            .map((s) => ({
              point: `${c.id}:${k}.${s}`,
              label: k,
              side: s === "a" ? ("west" as const) : ("east" as const),
            })),
        ),
      });
    else
      add({
        id: c.id,
        shape: isModule ? "module" : "plug",
        title,
        detail,
        ports: c.cavities
          .filter((k) => wired.has(`${c.id}:${k}`) || c.cavities.length <= 12)
          .map((k) => ({ point: `${c.id}:${k}`, label: k, side: isModule ? "west" : "east" })),
      });
  }
  for (const d of wiring.devices) {
    if (!shown(d.id)) continue;
    if (d.kind === "splice") add({ id: d.id, shape: "splice", title: d.id, detail: "", width: 16, ports: [] });
    else if (d.kind === "ground")
      add({ id: d.id, shape: "ground", title: d.id, detail: short(d.name ?? ""), ports: [] });
    else if (d.kind === "battery" || d.kind === "alternator")
      add({
        id: d.id,
        shape: "source",
        title: d.id,
        detail: short(d.name ?? ""),
        ports: [
          { point: `${d.id}:+`, label: "+", side: "west" },
          { point: `${d.id}:-`, label: "−", side: "west" },
        ],
      });
    else {
      const ends = inLineEnds(d);
      // current comes from the right, where the battery stands
      if (ends)
        add({
          id: d.id,
          shape: "through",
          title: d.id,
          detail: short("rating" in d ? `${d.name ?? ""} ${d.rating} A`.trim() : (d.name ?? "")),
          ports: [
            { point: ends[1], label: "out", side: "west" },
            { point: ends[0], label: "in", side: "east" },
          ],
        });
    }
  }
  const shapes = new Map(nodes.map((n) => [n.id, n.shape]));
  const known = shapes;
  const edges = wiring.wires.flatMap((w): DrawnEdge[] => {
    const a = connectorOf(w.from);
    const b = connectorOf(w.to);
    if (!known.has(a) || !known.has(b)) return [];
    const ra = RANK[shapes.get(a)!];
    const rb = RANK[shapes.get(b)!];
    const turned = ra === rb ? sideOf.get(w.from) === "west" && sideOf.get(w.to) !== "west" : ra > rb;
    const [from, to] = turned ? [w.to, w.from] : [w.from, w.to];
    const read = w.colour ? parseColour(w.colour) : undefined;
    return [
      {
        id: wireId(w),
        from: connectorOf(from),
        fromPort: from,
        to: connectorOf(to),
        toPort: to,
        colour: w.colour ?? "",
        letters: read?.status === "read" ? read.colour.letters : (w.colour ?? ""),
        detail: [
          w.mm2 === undefined ? "" : preferredWithUnit(w.mm2, "mm²", units),
          w.lengthM === undefined ? "" : `${w.lengthM} m`,
        ]
          .filter(Boolean)
          .join(" · "),
      },
    ];
  });
  return { nodes, edges };
}
const short = (text: string) => (text.trim().length > 30 ? `${cutText(text.trim(), 29)}…` : text.trim());

/** Everything within so many wires of a thing: what is drawn when only a part of the wiring is wanted. */
export function neighbourhood(wiring: Wiring, id: string, hops: number): Set<string> {
  const next = new Map<string, Set<string>>();
  for (const w of wiring.wires) {
    const a = connectorOf(w.from);
    const b = connectorOf(w.to);
    next.set(a, (next.get(a) ?? new Set()).add(b));
    next.set(b, (next.get(b) ?? new Set()).add(a));
  }
  for (const d of wiring.devices)
    for (const c of deviceConnectors(d))
      if (c !== d.id) {
        next.set(d.id, (next.get(d.id) ?? new Set()).add(c));
        next.set(c, (next.get(c) ?? new Set()).add(d.id));
      }
  const seen = new Set([id]);
  for (let front = [id], i = 0; i < hops && front.length; i++) {
    const ahead: string[] = [];
    for (const x of front)
      for (const n of next.get(x) ?? [])
        if (!seen.has(n)) {
          seen.add(n);
          ahead.push(n);
        }
    front = ahead;
  }
  return seen;
}
