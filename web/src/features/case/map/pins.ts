import type { PlacedMap, PlacedMapNode } from "./placed";
import { portsOf } from "./ports";

/** A place on the map where a lead can be put. */
export interface MapPin {
  readonly point: string;
  readonly node: string;
  readonly cx: number;
  readonly cy: number;
}
export type Arrow = "ArrowUp" | "ArrowDown" | "ArrowLeft" | "ArrowRight";
export const isArrow = (key: string): key is Arrow => key in ARROWS;
const ARROWS: Readonly<Record<Arrow, readonly [number, number]>> = {
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

const pinsOfNode = (node: PlacedMapNode) => portsOf(node).slice(0, node.type === "part" ? 1 : undefined);
/** Every place a lead can be put, from top to bottom and left to right. */
export function pinsOf(map: PlacedMap): readonly MapPin[] {
  // both sides of an in-line cavity stand in one place: one pin is enough
  const at = new Map<string, MapPin>();
  for (const n of map.nodes)
    for (const p of pinsOfNode(n)) at.set(`${p.cx} ${p.cy}`, { point: p.point, node: n.id, cx: p.cx, cy: p.cy });
  return [...at.values()].sort((a, b) => a.cy - b.cy || a.cx - b.cx);
}

/** Both sides of an in-line connector are drawn as one pin. */
const bare = (point: string) => point.replace(/\.[ab]$/, "");
function pinAt(pins: readonly MapPin[], node: string, point: string): MapPin | undefined {
  const there = pins.filter((p) => p.node === node);
  return there.find((p) => bare(p.point) === bare(point)) ?? there[0];
}

/** How far off the way of the arrow a pin may lie, as the cosine of the angle. */
const ALONG = 0.35;

/**
 * Where an arrow key leads: along a wire where one goes that way, else to the nearest pin that way.
 * @returns the pin itself where nothing lies that way
 */
export function nextPin(map: PlacedMap, pins: readonly MapPin[], at: MapPin, arrow: Arrow): MapPin {
  const wired = map.edges.flatMap((e) => {
    const [from, to] = [pinAt(pins, e.from, e.fromPoint), pinAt(pins, e.to, e.toPoint)];
    return from?.point === at.point && to ? [to] : to?.point === at.point && from ? [from] : [];
  });
  return nearest(wired, at, arrow) ?? nearest(pins, at, arrow) ?? at;
}
function nearest(pins: readonly MapPin[], at: MapPin, arrow: Arrow): MapPin | undefined {
  const [dx, dy] = ARROWS[arrow];
  const ranked = pins.flatMap((pin) => {
    const [x, y] = [pin.cx - at.cx, pin.cy - at.cy];
    const far = Math.hypot(x, y);
    const along = far === 0 ? 0 : (x * dx + y * dy) / far;
    return along > ALONG ? [{ pin, rank: far / along ** 2 }] : [];
  });
  return ranked.sort((a, b) => a.rank - b.rank)[0]?.pin;
}
