import type { Chart } from "../format/chart.js";
import type { DrawingMark, DrawingSheet, DrawingTrace, OpenEnd, SheetContent, SheetWord } from "../format/sheet.js";
import type { Spot } from "./drawnWires.js";
import { readSheet, type ReadEnd, type ReadSheet } from "./readSheet.js";

/** A chart whose page has been replaced, and what has to be looked at: names of places, and wires by their ends. */
export interface NewEdition {
  readonly chart: Chart;
  readonly carried: number;
  readonly doubtful: readonly string[];
}
/** Fewer words in common do not tell where things went. Judgement. */
const LEAST_WORDS = 3;
/** A place is where a stroke ends, or meets a box, within this share of the page's longer side. Judgement. */
const NEAR = 0.008;

/**
 * Puts the new edition of a page in the place of the old one. Everything marked on the old page is looked for by name
 * on the new one; what is not found by name goes where the words round about went.
 * @param before what stands on the old page, where that is known @param after on the new one
 */
export function takeNewEdition(
  chart: Chart,
  from: DrawingSheet,
  to: DrawingSheet,
  { before, after }: { readonly before?: SheetContent | undefined; readonly after?: SheetContent | undefined },
): NewEdition {
  const found = new Edition(from, to, before?.words ?? [], after);
  const doubtful = new Set<string>();
  const { sheets, marks, traces, openEnds } = chart.pages;
  const isOld = (x: { readonly sheet: string }) => x.sheet === from.id;
  const movedMarks = marks.filter(isOld).map((m) => found.mark(m, doubtful));
  const movedTraces = traces.filter(isOld).map((t) => found.trace(t, movedMarks, doubtful));
  const movedEnds = openEnds
    .filter(isOld)
    .map((e): OpenEnd => ({ ...e, sheet: to.id, points: e.points.map(found.moved) }));
  // what was marked on the new page already stays
  const had = new Set(marks.filter((m) => m.sheet === to.id).map((m) => m.at.toUpperCase()));
  const others = <T extends { readonly sheet: string }>(list: readonly T[]) => list.filter((x) => !isOld(x));
  return {
    chart: {
      ...chart,
      pages: {
        sheets: sheets.flatMap((s) => (s.id === to.id ? [] : s.id === from.id ? [{ ...to, name: from.name }] : [s])),
        marks: [...others(marks), ...movedMarks.filter((m) => !had.has(m.at.toUpperCase()))],
        traces: [...others(traces), ...movedTraces],
        openEnds: [...others(openEnds), ...movedEnds],
      },
    },
    carried: movedMarks.length + movedTraces.length + movedEnds.length,
    doubtful: [...doubtful],
  };
}

const same = (a: string, b: string) => a.trim().toUpperCase() === b.trim().toUpperCase();

/** Where things of an old page are on a new one. */
class Edition {
  private readonly read: ReadSheet;
  private readonly along: readonly [Move, Move];
  private readonly isTold: boolean;
  private readonly near: number;

  constructor(
    from: DrawingSheet,
    private readonly to: DrawingSheet,
    before: readonly SheetWord[],
    after: SheetContent | undefined,
  ) {
    this.read = after ? readSheet(after) : { boxes: [], stars: [], wires: [] };
    const pairs = inCommon(before, after?.words ?? []);
    this.isTold = pairs.length >= LEAST_WORDS;
    this.along = [
      moveOf(
        pairs.map(([a, b]) => [a.x + a.width / 2, b.x + b.width / 2]),
        to.width / from.width,
        this.isTold,
      ),
      moveOf(
        pairs.map(([a, b]) => [a.y + a.height / 2, b.y + b.height / 2]),
        to.height / from.height,
        this.isTold,
      ),
    ];
    this.near = NEAR * Math.max(to.width, to.height);
  }

  readonly moved = ([x, y]: Spot): [number, number] => [this.along[0](x), this.along[1](y)];

  mark(m: DrawingMark, doubtful: Set<string>): DrawingMark {
    const named = this.named(m);
    if (named) return { ...m, sheet: this.to.id, ...named };
    const [x, y] = this.moved([m.x, m.y]);
    const size =
      m.width === undefined || m.height === undefined ? undefined : this.moved([m.x + m.width, m.y + m.height]);
    if (!this.isTold || !this.isOnSomething([x, y])) doubtful.add(m.at);
    return { ...m, sheet: this.to.id, x, y, ...(size ? { width: size[0] - x, height: size[1] - y } : {}) };
  }
  /** Where a thing stands by its name. */
  private named({ at, width }: DrawingMark): Pick<DrawingMark, "x" | "y" | "width" | "height"> | undefined {
    const [id = "", cavity] = at.split(":");
    const box = this.read.boxes.find((b) => b.id !== undefined && same(b.id, id));
    if (width !== undefined) return box && { x: box.x, y: box.y, width: box.width, height: box.height };
    const spot =
      cavity === undefined
        ? this.read.stars.find((s) => s.id !== undefined && same(s.id, id))?.at
        : box?.pins.find((p) => same(p.cavity, cavity))?.at;
    return spot && { x: spot[0], y: spot[1] };
  }
  private isOnSomething(at: Spot): boolean {
    const ends = this.read.wires.flatMap((w) => w.ends.map((e) => e.at));
    return ends.some((e) => Math.hypot(e[0] - at[0], e[1] - at[1]) < this.near);
  }

  trace(t: DrawingTrace, marks: readonly DrawingMark[], doubtful: Set<string>): DrawingTrace {
    const drawn = this.read.wires.flatMap((w) => {
      const [a, b] = w.ends.map((e) => this.nameOf(e));
      if (a === undefined || b === undefined) return [];
      if (same(a, t.from) && same(b, t.to)) return [w.points];
      return same(a, t.to) && same(b, t.from) ? [[...w.points].reverse()] : [];
    })[0];
    if (drawn) return { ...t, sheet: this.to.id, points: drawn.map(([x, y]) => [x, y]) };
    // a wire to an end on another page, or one that was laid by hand, has no line of its own between two names
    const here = [t.from, t.to].map((end) => marks.find((m) => same(m.at, end)));
    if (this.read.wires.length > 0 && here.every((m) => m && this.named(m))) doubtful.add(`${t.from} – ${t.to}`);
    const points = t.points.map(this.moved);
    here.forEach((m, i) => {
      if (m) points[i === 0 ? 0 : points.length - 1] = [m.x, m.y];
    });
    return { ...t, sheet: this.to.id, points };
  }
  private nameOf(end: ReadEnd): string | undefined {
    if (end.kind === "star") return this.read.stars[end.of]?.id;
    const box = end.kind === "pin" ? this.read.boxes[end.of] : undefined;
    return box?.id === undefined ? undefined : `${box.id}:${box.pins[end.pin]?.cavity ?? ""}`;
  }
}

/** Words that stand once on either page. */
function inCommon(before: readonly SheetWord[], after: readonly SheetWord[]): (readonly [SheetWord, SheetWord])[] {
  const once = (words: readonly SheetWord[]) => {
    const by = new Map<string, SheetWord | undefined>();
    for (const w of words) by.set(w.text, by.has(w.text) ? undefined : w);
    return by;
  };
  const there = once(after);
  return [...once(before)].flatMap(([text, a]) => {
    const b = there.get(text);
    return a && b ? [[a, b] as const] : [];
  });
}
type Move = (x: number) => number;
/** How places moved along one direction: by the middle of all slopes between two words (Theil 1950, Sen 1968). */
function moveOf(pairs: readonly (readonly [number, number])[], scale: number, isTold: boolean): Move {
  if (!isTold) return (x) => x * scale;
  const slopes = pairs.flatMap(([a, b], i) =>
    pairs.slice(i + 1, i + 1 + MOST_PAIRED).flatMap(([c, d]) => (Math.abs(c - a) > 1 ? [(d - b) / (c - a)] : [])),
  );
  const slope = middle(slopes) ?? scale;
  const start = middle(pairs.map(([a, b]) => b - slope * a)) ?? 0;
  return (x) => slope * x + start;
}
/** Words that each is paired with. Judgement: time. */
const MOST_PAIRED = 60;
function middle(list: readonly number[]): number | undefined {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[sorted.length >> 1];
}
