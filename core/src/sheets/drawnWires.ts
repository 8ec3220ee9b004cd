import type { SheetContent } from "../format/sheet.js";

/** Strokes whose ends are this near each other meet, as a share of the page's longer side. Judgement. */
const MEET = 0.0012;
/** A branch without a dot that is shorter than this, as a share of the longer side, is part of a sign. Judgement. */
const STUB = 0.012;

export type Spot = readonly [number, number];
/**
 * What a drawn wire ends at: the edge of a box, a dot, the middle of another wire without a dot (which the drawing
 * leaves open whether they are joined), or nothing drawn.
 */
export interface DrawnEnd {
  readonly at: Spot;
  readonly kind: "box" | "dot" | "tee" | "open";
  /** number of the box or dot */
  readonly number: number;
}
/** A wire as it is drawn, from one end to the other. */
export interface DrawnWire {
  readonly ends: readonly [DrawnEnd, DrawnEnd];
  readonly points: readonly Spot[];
}

interface Node {
  readonly at: Spot;
  readonly edges: number[];
  kind: "box" | "dot" | "plain";
  number: number;
}
interface Edge {
  readonly a: number;
  readonly b: number;
  gone: boolean;
}

/**
 * The wires of a page that was drawn in strokes: each from one box, dot or open end to the next. Strokes that cross
 * without a dot are two wires (common practice, no source).
 */
export function drawnWires(content: SheetContent): readonly DrawnWire[] {
  return new StrokeNet(content).wires();
}

class StrokeNet {
  private readonly tolerance: number;
  private readonly stub: number;
  private readonly nodes: Node[] = [];
  private readonly edges: Edge[] = [];
  private readonly near = new Map<string, number[]>();

  constructor(private readonly content: SheetContent) {
    const longer = Math.max(content.width, content.height);
    this.tolerance = MEET * longer;
    this.stub = STUB * longer;
    for (const [a, b] of this.pieces()) {
      const [i, j] = [this.node(a), this.node(b)];
      if (i === j || this.isAlongABox(a, b)) continue;
      const known = this.nodes[i]!.edges.some((e) => this.edges[e]!.a === j || this.edges[e]!.b === j);
      if (known) continue;
      this.nodes[i]!.edges.push(this.edges.length);
      this.nodes[j]!.edges.push(this.edges.length);
      this.edges.push({ a: i, b: j, gone: false });
    }
    content.dots.forEach(([x, y, r], number) => this.markDot([x, y], r, number));
    this.nodes.forEach((n) => this.markBox(n));
    this.dropStubs();
  }

  /** Strokes cut where another one ends on them, where a dot sits on them, and where they run into a box. */
  private pieces(): (readonly [Spot, Spot])[] {
    const { lines, dots, boxes } = this.content;
    const ends = new Grid(this.tolerance * 8);
    for (const [x1, y1, x2, y2] of lines) {
      ends.add([x1, y1]);
      ends.add([x2, y2]);
    }
    for (const [x, y] of dots) ends.add([x, y]);
    return lines.flatMap(([x1, y1, x2, y2]) => {
      const [a, b]: [Spot, Spot] = [
        [x1, y1],
        [x2, y2],
      ];
      const cuts = ends
        .along(a, b, this.tolerance)
        .concat(boxes.flatMap((box) => crossings(a, b, box)))
        .map((p) => ({ p, t: shareAlong(a, b, p) }))
        .filter(({ t }) => t > 0 && t < 1)
        .sort((p, q) => p.t - q.t);
      const stops = [a, ...cuts.map((c) => c.p), b];
      return stops.slice(1).map((p, i) => [stops[i]!, p] as const);
    });
  }
  private node(at: Spot): number {
    const size = this.tolerance * 2;
    const [cx, cy] = [Math.floor(at[0] / size), Math.floor(at[1] / size)];
    for (let x = cx - 1; x <= cx + 1; x++)
      for (let y = cy - 1; y <= cy + 1; y++)
        for (const n of this.near.get(`${x},${y}`) ?? []) if (apart(this.nodes[n]!.at, at) <= this.tolerance) return n;
    this.nodes.push({ at, edges: [], kind: "plain", number: -1 });
    const key = `${cx},${cy}`;
    this.near.set(key, [...(this.near.get(key) ?? []), this.nodes.length - 1]);
    return this.nodes.length - 1;
  }
  private markDot(at: Spot, radius: number, number: number): void {
    for (const n of this.nodes) {
      if (apart(n.at, at) > radius + this.tolerance) continue;
      n.kind = "dot";
      n.number = number;
    }
  }
  private markBox(n: Node): void {
    if (n.kind !== "plain") return;
    const number = this.content.boxes.findIndex((box) => isOnEdge(n.at, box, this.tolerance));
    if (number < 0) return;
    n.kind = "box";
    n.number = number;
  }
  /** Whether a stroke is part of a box's own outline, or lies inside it. */
  private isAlongABox(a: Spot, b: Spot): boolean {
    const middle: Spot = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    return this.content.boxes.some(
      ([x, y, w, h]) =>
        middle[0] > x - this.tolerance &&
        middle[0] < x + w + this.tolerance &&
        middle[1] > y - this.tolerance &&
        middle[1] < y + h + this.tolerance,
    );
  }
  /** Short strokes that end nowhere, at a place without a dot, are signs such as that of a ground. */
  private dropStubs(): void {
    for (const n of this.nodes) {
      if (n.kind !== "plain" || this.degree(n) < 3) continue;
      for (const e of n.edges) {
        const other = this.nodes[this.other(e, n)]!;
        if (other.kind === "plain" && this.degree(other) === 1 && apart(n.at, other.at) < this.stub)
          this.edges[e]!.gone = true;
      }
    }
  }
  private degree(n: Node): number {
    return n.edges.reduce((sum, e) => sum + (this.edges[e]!.gone ? 0 : 1), 0);
  }
  private other(e: number, n: Node): number {
    const edge = this.edges[e]!;
    return this.nodes[edge.a] === n ? edge.b : edge.a;
  }

  wires(): DrawnWire[] {
    const done = new Set<number>();
    const found: DrawnWire[] = [];
    this.edges.forEach((edge, e) => {
      if (edge.gone || done.has(e)) return;
      done.add(e);
      const back = this.walk(e, edge.a, done);
      const on = this.walk(e, edge.b, done);
      const points = straightened([...back.points].reverse().concat(on.points));
      found.push({ ends: [back.end, on.end], points });
    });
    return found.filter((w) => w.points.length > 1);
  }
  /** From one end of a stroke on until the wire ends. */
  private walk(from: number, start: number, done: Set<number>): { end: DrawnEnd; points: Spot[] } {
    const points: Spot[] = [];
    let e = from;
    let at = start;
    for (;;) {
      const n = this.nodes[at]!;
      points.push(n.at);
      const next = n.kind === "plain" ? this.straightOn(e, n) : undefined;
      if (next === undefined || done.has(next)) {
        const kind = n.kind === "plain" ? (this.degree(n) > 2 ? "tee" : "open") : n.kind;
        return { end: { at: n.at, kind, number: n.number }, points };
      }
      done.add(next);
      at = this.other(next, n);
      e = next;
    }
  }
  /** The stroke that a wire goes on in: the only other one, or at a crossing the one straight ahead. */
  private straightOn(e: number, n: Node): number | undefined {
    const others = n.edges.filter((o) => o !== e && !this.edges[o]!.gone);
    if (others.length === 1) return others[0];
    const before = this.nodes[this.other(e, n)]!.at;
    const ahead = others.filter((o) => isStraight(before, n.at, this.nodes[this.other(o, n)]!.at));
    // the bar of a T goes on, its stem ends there; of a crossing each goes straight on
    return ahead.length === 1 ? ahead[0] : undefined;
  }
}

const apart = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);
/** How far along a stroke a place is, 0 to 1. */
function shareAlong(a: Spot, b: Spot, p: Spot): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dy * dy;
  return square === 0 ? 0 : ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / square;
}
function isStraight(a: Spot, b: Spot, c: Spot): boolean {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]];
  const cosine = (ux * vx + uy * vy) / (Math.hypot(ux, uy) * Math.hypot(vx, vy) || 1);
  return cosine > 0.94; // within 20 degrees
}
type Box = SheetContent["boxes"][number];
function isOnEdge([px, py]: Spot, [x, y, w, h]: Box, t: number): boolean {
  const inX = px > x - t && px < x + w + t;
  const inY = py > y - t && py < y + h + t;
  const atX = Math.abs(px - x) <= t || Math.abs(px - x - w) <= t;
  const atY = Math.abs(py - y) <= t || Math.abs(py - y - h) <= t;
  return (inX && atY) || (inY && atX);
}
/** Where a stroke crosses the outline of a box. */
function crossings(a: Spot, b: Spot, [x, y, w, h]: Box): Spot[] {
  const found: Spot[] = [];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  if (dx !== 0)
    for (const edge of [x, x + w]) {
      const t = (edge - a[0]) / dx;
      const py = a[1] + t * dy;
      if (t >= 0 && t <= 1 && py >= y && py <= y + h) found.push([edge, py]);
    }
  if (dy !== 0)
    for (const edge of [y, y + h]) {
      const t = (edge - a[1]) / dy;
      const px = a[0] + t * dx;
      if (t >= 0 && t <= 1 && px >= x && px <= x + w) found.push([px, edge]);
    }
  return found;
}
/** Without the places where a line goes straight on. */
function straightened(points: readonly Spot[]): Spot[] {
  const once = points.filter((p, i) => i === 0 || apart(p, points[i - 1]!) > 0);
  return once.filter((p, i) => i === 0 || i === once.length - 1 || !isInLine(once[i - 1]!, p, once[i + 1]!));
}
function isInLine(a: Spot, b: Spot, c: Spot): boolean {
  const cross = (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);
  return Math.abs(cross) < 1e-6 * (apart(a, b) * apart(b, c) + 1);
}

/** Places, found again by where they are. */
class Grid {
  private readonly cells = new Map<string, Spot[]>();
  constructor(private readonly size: number) {}
  add(p: Spot): void {
    const key = `${Math.floor(p[0] / this.size)},${Math.floor(p[1] / this.size)}`;
    const cell = this.cells.get(key);
    if (cell) cell.push(p);
    else this.cells.set(key, [p]);
  }
  /** those that lie on a stroke, within a tolerance */
  along(a: Spot, b: Spot, tolerance: number): Spot[] {
    const found = new Set<Spot>();
    const steps = Math.ceil(apart(a, b) / this.size) + 1;
    for (let i = 0; i <= steps; i++) {
      const t = i / steps;
      const cx = Math.floor((a[0] + t * (b[0] - a[0])) / this.size);
      const cy = Math.floor((a[1] + t * (b[1] - a[1])) / this.size);
      for (let x = cx - 1; x <= cx + 1; x++)
        for (let y = cy - 1; y <= cy + 1; y++)
          for (const p of this.cells.get(`${x},${y}`) ?? []) if (isOnStroke(a, b, p, tolerance)) found.add(p);
    }
    return [...found];
  }
}
function isOnStroke(a: Spot, b: Spot, p: Spot, tolerance: number): boolean {
  const t = shareAlong(a, b, p);
  if (t <= 0 || t >= 1) return false;
  return apart(p, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]) <= tolerance;
}
