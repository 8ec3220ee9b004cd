import type { Chart, DrawingMark, DrawingSheet, ReadSheet, SheetWord, Spot } from "@radicula/core";

/** What a bare place of a page may be. */
export const SPOTS = ["cavity", "splice", "ground", "fuse"] as const;
export type SpotKind = (typeof SPOTS)[number];

/** What was tapped on a page; `along`: how the wire that is being laid runs there, where it was followed. */
export type Tapped =
  | { readonly kind: "mark"; readonly mark: DrawingMark; readonly along?: readonly Spot[] }
  | { readonly kind: "box"; readonly index: number }
  | { readonly kind: "star"; readonly index: number }
  | { readonly kind: "wire"; readonly index: number }
  /** a bare place; `as` once somebody said what it is */
  | { readonly kind: "spot"; readonly at: Spot; readonly as?: SpotKind; readonly along?: readonly Spot[] }
  | { readonly kind: "area"; readonly x: number; readonly y: number; readonly width: number; readonly height: number };

/**
 * What lies at a place of a page: a mark first, then a dot, a wire, the box round it, else the bare place.
 * @param reach how far a finger is off, in units of the page
 */
export function whatIsAt(chart: Chart, sheet: DrawingSheet, read: ReadSheet, at: Spot, reach: number): Tapped {
  const marks = chart.pages.marks.filter((m) => m.sheet === sheet.id && m.width === undefined);
  const mark = nearest(marks, (m) => apart([m.x, m.y], at), reach);
  if (mark !== undefined) return { kind: "mark", mark: marks[mark]! };
  const star = nearest(read.stars, (s) => apart(s.at, at), reach);
  if (star !== undefined) return { kind: "star", index: star };
  const wire = nearest(read.wires, (w) => toLine(w.points, at), reach);
  const box = read.boxes.findIndex(
    (b) => at[0] >= b.x && at[0] <= b.x + b.width && at[1] >= b.y && at[1] <= b.y + b.height,
  );
  if (box >= 0) return { kind: "box", index: box };
  return wire === undefined ? { kind: "spot", at } : { kind: "wire", index: wire };
}

function nearest<T>(list: readonly T[], far: (item: T) => number, reach: number): number | undefined {
  let best: number | undefined;
  let least = reach;
  list.forEach((item, i) => {
    const d = far(item);
    if (d < least) [best, least] = [i, d];
  });
  return best;
}
const apart = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);
function toLine(points: readonly Spot[], p: Spot): number {
  let least = Infinity;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const t = Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
    least = Math.min(least, apart(p, [a[0] + t * dx, a[1] + t * dy]));
  }
  return least;
}

/** Words near a place or in an area, the nearest first; names before all else. */
export function wordsNear(words: readonly SheetWord[], tapped: Tapped, reach: number): readonly SheetWord[] {
  const far = (w: SheetWord): number => {
    const [x, y] = [w.x + w.width / 2, w.y + w.height / 2];
    if (tapped.kind === "spot") return apart([x, y], tapped.at);
    if (tapped.kind !== "area") return Infinity;
    const inside = x > tapped.x && x < tapped.x + tapped.width && y > tapped.y - reach && y < tapped.y + tapped.height;
    return inside ? y - tapped.y : Infinity;
  };
  const isName = (w: SheetWord) => (/^[A-Z]{1,4}\d{1,3}$/i.test(w.text) ? 0 : 1);
  return words
    .map((w) => ({ w, d: far(w) }))
    .filter(({ d }) => (tapped.kind === "area" ? d < Infinity : d < 6 * reach))
    .sort((a, b) => isName(a.w) - isName(b.w) || a.d - b.d)
    .map(({ w }) => w);
}

export const spotOf = ({ x, y }: DrawingMark): Spot => [x, y];
/** Where something is marked on a page; undefined where it is not. */
export function marked(chart: Chart, sheet: DrawingSheet, at: string): Spot | undefined {
  const mark = chart.pages.marks.find((m) => m.at === at && m.sheet === sheet.id);
  return mark && spotOf(mark);
}
/** The points of a wire between two places: along the line that was followed, else straight. */
export const laid = (begin: Spot, end: Spot, along: readonly Spot[] | undefined): readonly Spot[] => [
  begin,
  ...(along?.slice(1, -1) ?? []),
  end,
];
