import type { Chart } from "../format/chart.js";
import type { DrawingMark, DrawingSheet } from "../format/sheet.js";
import type { Spot } from "./drawnWires.js";
import type { ReadBox, ReadEnd, ReadSheet, ReadStar, ReadWire } from "./readSheet.js";
import { functionSaid, takeBox, takeHalf, takeStar, takeWire, type TakenBox } from "./takeFromSheet.js";

/** A mark is at a place where it is this near, as a share of the page's longer side. Judgement. */
const AT = 0.003;

/** How much of what was read on a page the chart has, and what can be taken as it is. */
export interface SheetProgress {
  readonly boxes: readonly boolean[];
  readonly stars: readonly boolean[];
  readonly wires: readonly boolean[];
  /** wires of which both ends are known, or one and a label: these need no question */
  readonly plain: readonly boolean[];
}
/** What of a page the chart has already. */
export function progressOf(chart: Chart, sheet: DrawingSheet, read: ReadSheet): SheetProgress {
  const marks = chart.pages.marks.filter((m) => m.sheet === sheet.id);
  const near = AT * Math.max(sheet.width, sheet.height);
  const ends = [...chart.pages.traces, ...chart.pages.openEnds]
    .filter((t) => t.sheet === sheet.id)
    .map((t) => [t.points[0]!, t.points.at(-1)!] as const);
  const isAt = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]) < near;
  return {
    boxes: read.boxes.map((b) =>
      marks.some((m) => m.width !== undefined && isAt([m.x, m.y], [b.x, b.y]) && Math.abs(m.width - b.width) < near),
    ),
    stars: read.stars.map((s) => marks.some((m) => m.width === undefined && isAt([m.x, m.y], s.at))),
    wires: read.wires.map((w) => {
      const [a, b] = [w.points[0]!, w.points.at(-1)!];
      return ends.some(([p, q]) => (isAt(p, a) && isAt(q, b)) || (isAt(p, b) && isAt(q, a)));
    }),
    plain: read.wires.map((w) => isPlain(read, w)),
  };
}

/** A box with its own name and pins, ready to be taken; its words may be changed before. */
export const boxToTake = (box: ReadBox, id = box.id ?? ""): TakenBox => ({
  id,
  kind: box.kind === "ground" ? "connector" : box.kind,
  title: box.title,
  x: box.x,
  y: box.y,
  width: box.width,
  height: box.height,
  pins: box.pins.map((p) => ({ cavity: p.cavity, at: p.at, function: functionSaid(p.says) })),
});

/** Takes one wire with what it ends at. The chart stays as it is where an end has no name. */
export function takeReadWire(chart: Chart, sheet: DrawingSheet, read: ReadSheet, wire: ReadWire): Chart {
  const [first, second] = wire.ends;
  const a = endTaken(chart, sheet, read, first);
  const b = endTaken(a.chart, sheet, read, second);
  const along = { colour: wire.colour, mm2: wire.mm2 };
  if (a.name && b.name) return takeWire(b.chart, sheet, { from: a.name, to: b.name, points: wire.points, ...along });
  const back = [...wire.points].reverse();
  if (a.name && second.kind === "label")
    return takeHalf(b.chart, sheet, { from: a.name, label: second.label, points: wire.points, ...along });
  if (b.name && first.kind === "label")
    return takeHalf(b.chart, sheet, { from: b.name, label: first.label, points: back, ...along });
  return chart;
}

/** Takes everything on a page that needs no question: boxes with a name, splices and grounds, plain wires. */
export function takeWhole(chart: Chart, sheet: DrawingSheet, read: ReadSheet): Chart {
  const done = progressOf(chart, sheet, read);
  let next = chart;
  read.boxes.forEach((box, i) => {
    if (!done.boxes[i] && isNamedBox(box)) next = takeBox(next, sheet, boxToTake(box));
  });
  read.stars.forEach((star, i) => {
    if (!done.stars[i] && star.id) next = takeStar(next, sheet, star).chart;
  });
  read.wires.forEach((wire, i) => {
    if (!done.wires[i] && done.plain[i]) next = takeReadWire(next, sheet, read, wire);
  });
  return next;
}

function isPlain(read: ReadSheet, { ends: [a, b] }: ReadWire): boolean {
  const named = (e: ReadEnd) =>
    (e.kind === "pin" && isNamedBox(read.boxes[e.of])) || (e.kind === "star" && starOf(read, e)?.id !== undefined);
  return (named(a) && (named(b) || b.kind === "label")) || (named(b) && a.kind === "label");
}
/** Whether a box has a name, and a number of its own for every pin: else two wires would be joined in one cavity. */
export const isNamedBox = (box: ReadBox | undefined): boolean =>
  box?.id !== undefined && new Set(box.pins.map((p) => p.cavity.toUpperCase())).size === box.pins.length;
const starOf = (read: ReadSheet, e: ReadEnd): ReadStar | undefined => read.stars[e.of];

/** The name of what a wire ends at, taken into the chart where it was not; marks by hand come before what was read. */
function endTaken(
  chart: Chart,
  sheet: DrawingSheet,
  read: ReadSheet,
  end: ReadEnd,
): { readonly chart: Chart; readonly name: string | undefined } {
  const marked = markAt(chart, sheet, end.at);
  if (marked) return { chart, name: marked.at };
  if (end.kind === "pin") {
    const box = read.boxes[end.of];
    const pin = box?.pins[end.pin];
    if (!box?.id || !pin || !isNamedBox(box)) return { chart, name: undefined };
    return { chart: takeBox(chart, sheet, boxToTake(box)), name: `${box.id}:${pin.cavity}` };
  }
  const star = end.kind === "star" ? starOf(read, end) : undefined;
  if (!star) return { chart, name: undefined };
  const taken = takeStar(chart, sheet, star);
  return { chart: taken.chart, name: taken.id };
}

/** The cavity, splice or ground that is marked at a place of a page. */
export function markAt(chart: Chart, sheet: DrawingSheet, at: Spot, reach = AT): DrawingMark | undefined {
  let best: DrawingMark | undefined;
  let least = reach * Math.max(sheet.width, sheet.height);
  for (const m of chart.pages.marks) {
    if (m.sheet !== sheet.id || m.width !== undefined) continue;
    const far = Math.hypot(m.x - at[0], m.y - at[1]);
    if (far < least) [best, least] = [m, far];
  }
  return best;
}

/** Cavities, splices and grounds of the chart's lines that no page shows yet, by the names given. */
export function notOnAPage(chart: Chart, points: Iterable<string>): string[] {
  const marked = new Set(chart.pages.marks.map((m) => m.at.toUpperCase()));
  return [...new Set(points)].filter((p) => !marked.has(p.toUpperCase()));
}
