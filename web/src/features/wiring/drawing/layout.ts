import type { ElkNode } from "elkjs/lib/elk-api";
import type { DrawnEdge, DrawnGraph, DrawnNode, DrawnPort } from "./graph";

export interface PlacedDrawnNode extends DrawnNode {
  readonly x: number;
  readonly y: number;
  readonly at: ReadonlyMap<string, { readonly x: number; readonly y: number; readonly port: DrawnPort }>;
}
export interface PlacedDrawnEdge extends DrawnEdge {
  readonly points: readonly { readonly x: number; readonly y: number }[];
}
export interface Drawing {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly PlacedDrawnNode[];
  readonly edges: readonly PlacedDrawnEdge[];
}

/** The graph as ELK's layered algorithm takes it: ports keep their side, their order is ELK's to choose. */
export function elkGraph(graph: DrawnGraph): ElkNode {
  return {
    id: "root",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": "RIGHT",
      "elk.edgeRouting": "ORTHOGONAL",
      "elk.spacing.nodeNode": "34",
      "elk.layered.spacing.nodeNodeBetweenLayers": "60",
      "elk.layered.spacing.edgeNodeBetweenLayers": "18",
      "elk.spacing.edgeEdge": "11",
      "elk.layered.spacing.edgeEdgeBetweenLayers": "11",
      "elk.spacing.portPort": "24",
      "elk.spacing.componentComponent": "50",
      "elk.padding": "[top=24,left=24,bottom=24,right=24]",
      "elk.layered.nodePlacement.strategy": "BRANDES_KOEPF",
      "elk.layered.thoroughness": "2",
      "elk.layered.layering.strategy": "LONGEST_PATH",
    },
    children: graph.nodes.map((n) => ({
      id: n.id,
      width: n.width,
      height: n.height,
      layoutOptions: {
        "elk.portConstraints": "FIXED_SIDE",
        "elk.spacing.portPort": "24",
        "elk.portAlignment.default": "CENTER",
      },
      ports: n.ports.map((p) => ({
        id: p.point,
        width: 1,
        height: 1,
        layoutOptions: { "elk.port.side": p.side.toUpperCase() },
      })),
    })),
    edges: graph.edges.map((e) => ({
      id: e.id,
      sources: [hasPort(graph, e.from, e.fromPort) ? e.fromPort : e.from],
      targets: [hasPort(graph, e.to, e.toPort) ? e.toPort : e.to],
    })),
  };
}
const hasPort = (graph: DrawnGraph, node: string, port: string) =>
  port.includes(":") && indexOf(graph).get(node)?.has(port) === true;
const indexes = new WeakMap<DrawnGraph, Map<string, Set<string>>>();
function indexOf(graph: DrawnGraph) {
  let index = indexes.get(graph);
  if (!index)
    indexes.set(graph, (index = new Map(graph.nodes.map((n) => [n.id, new Set(n.ports.map((p) => p.point))]))));
  return index;
}

/** What ELK gave back, joined with what each thing is. */
export function placed(graph: DrawnGraph, root: ElkNode): Drawing {
  const nodes = new Map(graph.nodes.map((n) => [n.id, n]));
  const edges = new Map(graph.edges.map((e) => [e.id, e]));
  return {
    width: root.width ?? 0,
    height: root.height ?? 0,
    nodes: (root.children ?? []).flatMap((c): PlacedDrawnNode[] => {
      const node = nodes.get(c.id);
      if (!node) return [];
      const byPoint = new Map(node.ports.map((p) => [p.point, p]));
      const at = new Map(
        (c.ports ?? []).flatMap((p) => {
          const port = byPoint.get(p.id);
          return port
            ? [
                [
                  p.id,
                  {
                    x: (c.x ?? 0) + (port.side === "west" ? 0 : (c.width ?? 0)),
                    y: (c.y ?? 0) + (p.y ?? 0) + 0.5,
                    port,
                  },
                ] as const,
              ]
            : [];
        }),
      );
      return [{ ...node, x: c.x ?? 0, y: c.y ?? 0, width: c.width ?? node.width, height: c.height ?? node.height, at }];
    }),
    edges: (root.edges ?? []).flatMap((e): PlacedDrawnEdge[] => {
      const edge = edges.get(e.id);
      const section = e.sections?.[0];
      return edge && section
        ? [{ ...edge, points: [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] }]
        : [];
    }),
  };
}
