import type { PlacedMapNode } from "./placed";

/**
 * The cavities of one in-line connector belong together: a bar behind them, and over the wires its name, beside the bar
 * where there is room.
 */
export function inlineBars(nodes: readonly PlacedMapNode[], unplugged: readonly string[]) {
  const bars = new Map<string, PlacedMapNode[]>();
  for (const n of nodes) if (n.type === "inline") bars.set(n.thing, [...(bars.get(n.thing) ?? []), n]);
  return [...bars].map(([id, list]) => {
    const y = Math.min(...list.map((n) => n.y));
    const h = Math.max(...list.map((n) => n.y + n.height)) - y;
    const out = unplugged.includes(id);
    // in pieces where something else stands between its cavities
    const others = nodes.filter((n) => n.type !== "inline" && n.y < y + h && n.y + n.height > y);
    const pieces: { left: number; right: number }[] = [];
    for (const n of [...list].sort((a, b) => a.x - b.x)) {
      const last = pieces.at(-1);
      const left = n.x - 12;
      const right = n.x + n.width + 12;
      if (last && !others.some((o) => o.x < left && o.x + o.width > last.right - 12)) last.right = right;
      else pieces.push({ left, right });
    }
    // its name goes by the widest piece
    const { left } = pieces.reduce((a, b) => (b.right - b.left > a.right - a.left ? b : a));
    const room =
      left > 120 &&
      !nodes.some(
        (n) => n.thing !== id && n.x < left && n.x + n.width > left - 150 && n.y < y + 34 && n.y + n.height > y - 6,
      );
    return { id, y, height: h, pieces, left, room, out, detail: out ? "unplugged" : list[0]?.detail };
  });
}
