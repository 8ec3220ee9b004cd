import { XMLBuilder } from "fast-xml-parser";
import type { Wiring } from "../format/wiring.js";
import { inLineEnds } from "./kinds.js";
import { devicePins, meterPoints, resolvePlace, indexWiring, wireId } from "./points.js";
import { findNets } from "./nets.js";

/**
 * The wiring as GraphML (graphml.graphdrawing.org; structure from memory): a node for every point, an edge for every
 * wire, mated contact, fuse and switch, and for every pin to its part.
 */
export function graphml(wiring: Wiring): string {
  const index = indexWiring(wiring);
  const nets = findNets(wiring);
  const node = (id: string, data: Readonly<Record<string, string>>) => ({
    "@_id": id,
    data: Object.entries(data)
      .filter(([, v]) => v !== "")
      .map(([k, v]) => ({ "@_key": k, "#text": v })),
  });
  const edge = (id: string, source: string, target: string, data: Readonly<Record<string, string>>) => ({
    "@_id": id,
    "@_source": source,
    "@_target": target,
    data: Object.entries(data)
      .filter(([, v]) => v !== "")
      .map(([k, v]) => ({ "@_key": k, "#text": v })),
  });
  const points = meterPoints(wiring).map((p) => {
    const place = resolvePlace(index, p);
    const of = place.ok ? (place.value.type === "cavity" ? place.value.connector.id : place.value.device.id) : "";
    return node(p, {
      kind: place.ok ? (place.value.type === "cavity" ? "cavity" : place.value.device.kind) : "",
      of,
      function: nets.functionOf(p),
    });
  });
  const parts = wiring.devices
    .filter((d) => devicePins(d).length)
    .map((d) => node(`part ${d.id}`, { kind: d.kind, of: d.id, name: d.name ?? "" }));
  const edges = [
    ...wiring.wires.map((w) =>
      edge(wireId(w), w.from, w.to, {
        kind: "wire",
        colour: w.colour ?? "",
        mm2: w.mm2 === undefined ? "" : String(w.mm2),
        lengthM: w.lengthM === undefined ? "" : String(w.lengthM),
        bundle: w.bundle ?? "",
      }),
    ),
    ...wiring.connectors
      .filter((c) => c.inline)
      .flatMap((c) =>
        c.cavities.map((k) => edge(`contact ${c.id}:${k}`, `${c.id}:${k}.a`, `${c.id}:${k}.b`, { kind: "contact" })),
      ),
    ...wiring.devices.flatMap((d) => {
      const ends = inLineEnds(d);
      return ends ? [edge(`through ${d.id}`, ends[0], ends[1], { kind: d.kind })] : [];
    }),
    ...wiring.devices.flatMap((d) =>
      devicePins(d).map((p) => edge(`pin ${p.at}`, p.at, `part ${d.id}`, { kind: "pin", function: p.role })),
    ),
  ];
  const keys = [
    ...["kind", "of", "function", "name"].map((k) => ["node", k] as const),
    ...["kind", "function", "colour", "mm2", "lengthM", "bundle"].map((k) => ["edge", k] as const),
  ];
  const doc = {
    "?xml": { "@_version": "1.0", "@_encoding": "UTF-8" },
    graphml: {
      "@_xmlns": "http://graphml.graphdrawing.org/xmlns",
      key: [...new Set(keys.map(([, k]) => k))].map((k) => ({
        "@_id": k,
        "@_for": "all",
        "@_attr.name": k,
        "@_attr.type": "string",
      })),
      graph: { "@_id": "wiring", "@_edgedefault": "undirected", node: [...points, ...parts], edge: edges },
    },
  };
  return new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: true }).build(doc) as string;
}
