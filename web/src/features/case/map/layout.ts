import type { ElkExtendedEdge, ElkNode, ElkPort } from "elkjs/lib/elk-api";
import { SENSOR, type MapGraph, type MapNode } from "./graph";
import { DOT_X, type PlacedMap, type PlacedMapNode } from "./placed";

/** how far above the foot of its node a line begins: in the middle of a plug, at the foot of a lone code's card */
const LEAD: Readonly<Record<string, number>> = { sensor: SENSOR.plug / 2, code: SENSOR.plug + SENSOR.gap };

/** The graph as ELK's layered algorithm takes it: layer by layer from the sensors down. */
export function mapElkGraph(graph: MapGraph): ElkNode {
  const portOf = new Map(graph.nodes.flatMap((n) => n.ports.map((p) => [`${n.id}|${p.point}`, p] as const)));
  const end = (node: string, point: string, side: "top" | "bottom") =>
    portOf.has(`${node}|${point}`) ? `${node}|${point}` : `${node}|${node} ${side}`;
  return {
    id: "map",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": "DOWN",
      "elk.edgeRouting": "SPLINES",
      "elk.partitioning.activate": "true",
      "elk.separateConnectedComponents": "false",
      "elk.layered.spacing.nodeNodeBetweenLayers": "58",
      "elk.spacing.nodeNode": "18",
      "elk.spacing.edgeNode": "12",
      "elk.spacing.edgeEdge": "10",
      "elk.layered.spacing.edgeNodeBetweenLayers": "14",
      "elk.layered.nodePlacement.strategy": "NETWORK_SIMPLEX",
      "elk.layered.nodePlacement.favorStraightEdges": "true",
      "elk.layered.crossingMinimization.semiInteractive": "false",
      "elk.layered.considerModelOrder.strategy": "NONE",
      "elk.layered.thoroughness": "40",
      "elk.padding": "[top=4,left=4,bottom=4,right=4]",
    },
    children: graph.nodes.map(toElk),
    edges: graph.edges.map((e): ElkExtendedEdge => ({
      id: `${e.id}|${e.from}`,
      sources: [end(e.from, e.fromPort, "bottom")],
      targets: [end(e.to, e.toPort, "top")],
    })),
  };
}

/** What ELK gave back, joined with what each thing is. */
export function placedMap(graph: MapGraph, placed: ElkNode): PlacedMap {
  return {
    width: placed.width ?? 0,
    height: placed.height ?? 0,
    hidden: graph.hidden,
    feeds: graph.feeds,
    nodes: graph.nodes.map((n, i) => fromElk(n, placed.children?.[i])),
    edges: graph.edges.map((e, i) => ({
      id: e.id,
      function: e.function,
      from: e.from,
      to: e.to,
      fromPoint: e.fromPort,
      toPoint: e.toPort,
      ...curve(placed.edges?.[i], LEAD[graph.nodes.find((n) => n.id === e.from)?.type ?? ""] ?? 0),
    })),
  };
}

function toElk(n: MapNode): ElkNode {
  const dotted = n.type === "splice" || n.type === "part";
  const fixed = n.type !== "module";
  return {
    id: n.id,
    width: n.width,
    height: n.height,
    layoutOptions: {
      "elk.partitioning.partition": String(n.rank),
      "elk.portConstraints": fixed ? "FIXED_POS" : "FIXED_SIDE",
    },
    ports: n.ports.map((p): ElkPort => ({
      id: `${n.id}|${p.point}`,
      width: 1,
      height: 1,
      x: dotted ? DOT_X : (p.x ?? n.width / 2),
      y: p.side === "top" ? 0 : n.height,
      layoutOptions: { "elk.port.side": p.side === "top" ? "NORTH" : "SOUTH" },
    })),
  };
}

function fromElk(n: MapNode, e: ElkNode | undefined): PlacedMapNode {
  const x = e?.x ?? 0;
  const y = e?.y ?? 0;
  const plugTop = y + SENSOR.card + SENSOR.gap + SENSOR.plug / 2;
  return {
    ...n,
    x,
    y,
    width: e?.width ?? n.width,
    height: e?.height ?? n.height,
    ports: n.ports.map((p, i) => {
      const q = e?.ports?.[i];
      return {
        ...p,
        cx: x + (q?.x ?? 0),
        cy:
          n.type === "sensor" ? plugTop : n.type === "module" ? (p.side === "top" ? y : y + n.height) : y + (q?.y ?? 0),
      };
    }),
  };
}

/**
 * ELK's spline sections: end points, with bend points as the control points of cubic curves.
 * @param lead how far above its start the line begins, inside a plug
 */
function curve(edge: ElkExtendedEdge | undefined, lead: number): { path: string; middle: readonly [number, number] } {
  const section = edge?.sections?.[0];
  if (!section) return { path: "", middle: [0, 0] };
  const bends = section.bendPoints ?? [];
  const points = [section.startPoint, ...bends, section.endPoint];
  const at = (p: { x: number; y: number } | undefined) => `${round(p?.x)} ${round(p?.y)}`;
  let path = lead
    ? `M${round(section.startPoint.x)} ${round(section.startPoint.y - lead)}L${at(points[0])}`
    : `M${at(points[0])}`;
  if (bends.length % 3 === 2)
    for (let i = 1; i + 2 < points.length; i += 3)
      path += `C${at(points[i])} ${at(points[i + 1])} ${at(points[i + 2])}`;
  else for (const p of points.slice(1)) path += `L${at(p)}`;
  return { path, middle: along(bends.length % 3 === 2 ? samples(points) : points, 0.58) };
}

type Point = { readonly x: number; readonly y: number };

/** points on a chain of cubic curves */
function samples(points: readonly Point[]): Point[] {
  const out: Point[] = [];
  for (let i = 0; i + 3 < points.length; i += 3) {
    const [p, q, r, s] = [points[i]!, points[i + 1]!, points[i + 2]!, points[i + 3]!];
    for (let k = 0; k <= 8; k++) {
      const t = k / 8;
      const u = 1 - t;
      const mix = (a: number, b: number, c: number, d: number) =>
        u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
      out.push({ x: mix(p.x, q.x, r.x, s.x), y: mix(p.y, q.y, r.y, s.y) });
    }
  }
  return out;
}

/** the point at a share of the length of a line */
function along(line: readonly Point[], share: number): readonly [number, number] {
  const steps = line.slice(1).map((p, i) => Math.hypot(p.x - line[i]!.x, p.y - line[i]!.y));
  let left = share * steps.reduce((a, b) => a + b, 0);
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i]!;
    if (left <= step && step > 0)
      return [
        line[i]!.x + ((line[i + 1]!.x - line[i]!.x) * left) / step,
        line[i]!.y + ((line[i + 1]!.y - line[i]!.y) * left) / step,
      ];
    left -= step;
  }
  const last = line.at(-1);
  return [last?.x ?? 0, last?.y ?? 0];
}
const round = (v: number | undefined) => Math.round((v ?? 0) * 10) / 10;
