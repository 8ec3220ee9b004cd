import { DOT_X, type PlacedMapNode, type PlacedPort } from "./placed";

/** Where the electrical points of a node are drawn. */
export function portsOf(node: PlacedMapNode): readonly Pick<PlacedPort, "point" | "cx" | "cy">[] {
  if (node.type === "part")
    return ["in", "out", "+", "-"].map((t) => ({
      point: `${node.thing}:${t}`,
      cx: node.x + DOT_X,
      cy: node.y + node.height / 2,
    }));
  if (node.type === "inline")
    return node.ports.map((p) => ({ point: p.point, cx: node.x + node.width / 2, cy: node.y + node.height / 2 }));
  if (node.type === "splice") return [{ point: node.thing, cx: node.x + DOT_X, cy: node.y + node.height / 2 }];
  return node.ports;
}
