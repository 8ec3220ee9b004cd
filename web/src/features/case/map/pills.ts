import type { PlacedMap, PlacedMapNode } from "./placed";
import { SENSOR } from "./graph";
import { DOT_X } from "./placed";
import type { MapSuspicion } from "./suspicion";

/** What is suspected of one thing, and where its figure stands. */
export interface PlacedPill {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly share: number;
}
export const PILL = { width: 50, height: 22 };
/** Suspicion below this gets no figure. */
export const TOLD = 0.04;
/** about the width of a name in map units; SVG text cannot wrap */
export const textWidth = (text: string) => text.length * 7.2;

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
interface Wish {
  readonly key: string;
  readonly share: number;
  /** where it would stand, best first */ readonly at: readonly (readonly [number, number])[];
}

/**
 * Figures of suspicion, the strongest first, each at the first of its places where it covers neither another figure
 * nor a name; one that finds none is left out (the list of suspects has it, and the wire its colour).
 * @param tagged cavities with a reading's tag: a wire's figure would stand there
 */
export function placePills(map: PlacedMap, suspicion: MapSuspicion, tagged: ReadonlySet<string>): PlacedPill[] {
  const taken: Box[] = map.nodes.flatMap(namesOf);
  const placed: PlacedPill[] = [];
  for (const wish of wishes(map, suspicion, tagged).sort((a, b) => b.share - a.share)) {
    const at = wish.at.find(([x, y]) => !taken.some((b) => overlaps(boxOf(x, y), b)));
    if (!at) continue;
    placed.push({ key: wish.key, x: at[0], y: at[1], share: wish.share });
    taken.push(boxOf(at[0], at[1]));
  }
  return placed;
}
const boxOf = (x: number, y: number): Box => ({
  x: x - PILL.width / 2,
  y: y - PILL.height / 2,
  width: PILL.width,
  height: PILL.height,
});
const overlaps = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** where the words of a node stand */
function namesOf(n: PlacedMapNode): Box[] {
  switch (n.type) {
    case "module":
      return [
        {
          x: n.x + n.width / 2 - textWidth(n.title) / 2,
          y: n.y + n.height - 32,
          width: textWidth(n.title),
          height: 18,
        },
      ];
    case "splice":
    case "part":
      return [{ x: n.x + DOT_X + 14, y: n.y + n.height / 2 - 15, width: textWidth(n.title), height: 14 }];
    case "sensor":
      return [
        { x: n.x, y: n.y, width: n.width, height: 52 },
        { x: n.x, y: n.y + SENSOR.card + SENSOR.gap, width: n.width, height: SENSOR.plug },
      ];
    default:
      return n.ports.map((p) => ({ x: p.cx - 8, y: p.cy - 8, width: 16, height: 16 }));
  }
}

function wishes(map: PlacedMap, { on }: MapSuspicion, tagged: ReadonlySet<string>): Wish[] {
  const list: Wish[] = [];
  const add = (key: string, share: number | undefined, at: readonly (readonly [number, number])[]) => {
    if (share !== undefined && share >= TOLD) list.push({ key, share, at });
  };
  for (const n of map.nodes) {
    const cx = n.x + DOT_X;
    const cy = n.y + n.height / 2;
    switch (n.type) {
      case "sensor":
        add(n.id, on.get(n.thing), [[n.x + 38, n.y + 67]]);
        break;
      case "splice":
        add(n.id, on.get(n.thing), [[cx + 49 + textWidth(n.title), cy - 7]]);
        break;
      case "part":
        add(n.id, on.get(n.thing), [[cx + 50 + textWidth(n.title), cy - 8]]);
        break;
      case "inline": {
        const x = n.x + n.width / 2;
        add(n.id, on.get(`${n.thing}:${n.title}`), [
          [x + 40, cy],
          [x - 40, cy],
          [x, cy - 26],
          [x, cy + 26],
        ]);
        break;
      }
      case "module":
        for (const p of n.ports) {
          const way = p.side === "top" ? -1 : 1;
          add(`${n.id} ${p.point}`, on.get(p.point), [
            [p.cx, p.cy - way * 23],
            [p.cx, p.cy + way * 25],
            [p.cx + 30, p.cy + way * 25],
            [p.cx - 30, p.cy + way * 25],
          ]);
        }
        break;
      case "code":
        break;
    }
  }
  const sensors = new Map(map.nodes.filter((n) => n.type === "sensor").map((n) => [n.id, n]));
  for (const e of map.edges) {
    if (tagged.has(e.fromPoint)) continue; // the tag stands there; the suspects list has the figure
    const port = sensors.get(e.from)?.ports.find((p) => p.point === e.fromPoint);
    const [x, y] = e.middle;
    // near the sensor's plug, where wires stand apart; else half-way along
    add(`${e.id} ${e.from}`, on.get(e.id), [
      ...(port ? [[port.cx, port.cy + 36] as const, [port.cx, port.cy + 60] as const] : []),
      [x, y],
      [x, y - 24],
      [x, y + 24],
    ]);
  }
  return list;
}
