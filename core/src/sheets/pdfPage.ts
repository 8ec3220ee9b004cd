import { SHEET_FORMAT, type SheetContent, type SheetWord } from "../format/sheet.js";

/** What of a PDF page is looked at: numbers of drawing operations, as the library that reads PDFs has them. */
export interface PdfOperations {
  readonly save: number;
  readonly restore: number;
  readonly transform: number;
  readonly constructPath: number;
  readonly paintFormXObjectBegin: number;
  readonly paintFormXObjectEnd: number;
  readonly stroke: number;
  readonly closeStroke: number;
  readonly fill: number;
  readonly eoFill: number;
  readonly fillStroke: number;
  readonly eoFillStroke: number;
  readonly closeFillStroke: number;
  readonly closeEOFillStroke: number;
}
/** A page's list of drawing operations, and its texts. */
export interface PdfPage {
  readonly width: number;
  readonly height: number;
  /** from the PDF's own units to the page's, its origin in the upper left corner */
  readonly transform: Matrix;
  readonly operations: { readonly fnArray: readonly number[]; readonly argsArray: readonly unknown[] };
  readonly texts: readonly { readonly str: string; readonly transform: readonly number[]; readonly width: number }[];
}
export type Matrix = readonly [number, number, number, number, number, number];

/** Path data of the library: what follows each number is the places it takes. */
const MOVE = 0;
const LINE = 1;
const CURVE = 2;
const CLOSE = 3;
/** More strokes than these are no wiring drawing, and would take too long. Judgement. */
const MOST = { lines: 60_000, others: 20_000, words: 20_000 };
/** A filled shape as round as this, and no larger than this share of the page's longer side, is a dot. Judgement. */
const ROUND = 1.25;
const LARGEST_DOT = 0.012;
/** Strokes shorter than this share of the longer side are parts of letters or of hatching. Judgement. */
const SHORTEST = 0.0005;

/**
 * Words and strokes of a PDF page that was drawn in vectors. Curves are left out, closed rectangles are boxes, small
 * filled rounds are dots.
 */
export function pdfContent(page: PdfPage, ops: PdfOperations): SheetContent {
  const found = new PathReader(page, ops).read();
  return {
    format: SHEET_FORMAT,
    version: 1,
    width: page.width,
    height: page.height,
    words: page.texts.flatMap((t) => wordOf(t, page.transform)).slice(0, MOST.words),
    ...found,
  };
}

type Pair = [number, number];
class PathReader {
  private readonly lines: [number, number, number, number][] = [];
  private readonly boxes: [number, number, number, number][] = [];
  private readonly dots: [number, number, number][] = [];
  private readonly longer: number;

  constructor(
    private readonly page: PdfPage,
    private readonly ops: PdfOperations,
  ) {
    this.longer = Math.max(page.width, page.height);
  }
  read() {
    const { ops, page } = this;
    const { fnArray, argsArray } = page.operations;
    const stack: Matrix[] = [];
    let now = page.transform;
    fnArray.forEach((fn, i) => {
      const args = argsArray[i];
      if (fn === ops.save) stack.push(now);
      else if (fn === ops.restore) now = stack.pop() ?? now;
      else if (fn === ops.transform) now = times(now, args as Matrix);
      else if (fn === ops.paintFormXObjectBegin) {
        stack.push(now);
        const own = (args as readonly unknown[] | null)?.[0];
        if (Array.isArray(own) && own.length === 6) now = times(now, own as unknown as Matrix);
      } else if (fn === ops.paintFormXObjectEnd) now = stack.pop() ?? now;
      else if (fn === ops.constructPath) this.path(args as readonly unknown[], now);
    });
    return { lines: this.lines, boxes: this.boxes, dots: this.dots };
  }

  private path([how, data]: readonly unknown[], m: Matrix): void {
    const { ops } = this;
    const fills = [
      ops.fill,
      ops.eoFill,
      ops.fillStroke,
      ops.eoFillStroke,
      ops.closeFillStroke,
      ops.closeEOFillStroke,
    ].includes(how as number);
    const strokes = how === ops.stroke || how === ops.closeStroke || (fills && how !== ops.fill && how !== ops.eoFill);
    if (!fills && !strokes) return;
    const closes = how === ops.closeStroke || how === ops.closeFillStroke || how === ops.closeEOFillStroke;
    const numbers = (Array.isArray(data) ? data[0] : data) as ArrayLike<number> | null | undefined;
    if (!numbers) return;
    for (const part of partsOf(numbers, m)) this.part(part, fills, strokes, closes);
  }
  private part({ points, isClosed, isCurved }: PathPart, fills: boolean, strokes: boolean, closes: boolean): void {
    const xs = points.map((p) => p[0]);
    const ys = points.map((p) => p[1]);
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    const [width, height] = [Math.max(...xs) - x, Math.max(...ys) - y];
    if (isCurved) {
      const isRound = width < ROUND * height && height < ROUND * width;
      if (fills && isRound && width < LARGEST_DOT * this.longer && this.dots.length < MOST.others)
        this.dots.push([x + width / 2, y + height / 2, width / 2]);
      return;
    }
    if (!strokes) return;
    const loop = isClosed || closes ? [...points, points[0]!] : points;
    if (isRectangle(loop)) {
      if (this.boxes.length < MOST.others) this.boxes.push([x, y, width, height]);
      return;
    }
    for (let i = 1; i < loop.length && this.lines.length < MOST.lines; i++) {
      const [a, b] = [loop[i - 1]!, loop[i]!];
      if (Math.hypot(a[0] - b[0], a[1] - b[1]) > SHORTEST * this.longer) this.lines.push([...a, ...b]);
    }
  }
}

interface PathPart {
  readonly points: readonly Pair[];
  readonly isClosed: boolean;
  readonly isCurved: boolean;
}
function partsOf(data: ArrayLike<number>, m: Matrix): PathPart[] {
  const parts: { points: Pair[]; isClosed: boolean; isCurved: boolean }[] = [];
  let part: (typeof parts)[number] | undefined;
  const next = (i: number): Pair => placed(m, data[i]!, data[i + 1]!);
  for (let i = 0; i < data.length;) {
    const what = data[i++];
    if (what === MOVE) {
      parts.push((part = { points: [next(i)], isClosed: false, isCurved: false }));
      i += 2;
    } else if (what === LINE) {
      part?.points.push(next(i));
      i += 2;
    } else if (what === CURVE) {
      part?.points.push(next(i), next(i + 2), next(i + 4));
      if (part) part.isCurved = true;
      i += 6;
    } else if (what === CLOSE) {
      if (part) part.isClosed = true;
    } else break; // not a path as this reader knows it
  }
  return parts.filter((p) => p.points.length > 1);
}
function isRectangle(loop: readonly Pair[]): boolean {
  const corners = loop.filter((p, i) => i === 0 || !isSame(p, loop[i - 1]!));
  if (corners.length !== 5 || !isSame(corners[0]!, corners[4]!)) return false;
  return corners.slice(1).every((p, i) => {
    const q = corners[i]!;
    return Math.abs(p[0] - q[0]) < NEAR || Math.abs(p[1] - q[1]) < NEAR;
  });
}
const NEAR = 0.05;
const isSame = (a: Pair, b: Pair) => Math.abs(a[0] - b[0]) < NEAR && Math.abs(a[1] - b[1]) < NEAR;
const placed = (m: Matrix, x: number, y: number): Pair => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];
const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[2] * b[1],
  a[1] * b[0] + a[3] * b[1],
  a[0] * b[2] + a[2] * b[3],
  a[1] * b[2] + a[3] * b[3],
  a[0] * b[4] + a[2] * b[5] + a[4],
  a[1] * b[4] + a[3] * b[5] + a[5],
];

/** A text of the page as a word with its place; texts that stand upright on their side are turned. */
function wordOf({ str, transform, width }: PdfPage["texts"][number], page: Matrix): SheetWord[] {
  const text = str.trim().slice(0, 200);
  if (text === "") return [];
  const m = times(page, transform as unknown as Matrix);
  const size = Math.hypot(m[2], m[3]);
  const along = Math.hypot(m[0], m[1]) || 1;
  const [ux, uy] = [m[0] / along, m[1] / along];
  const scale = Math.hypot(page[0], page[1]);
  const [x, y] = [m[4], m[5]];
  const end: Pair = [x + ux * width * scale, y + uy * width * scale];
  // up from the base line, at right angles to the writing
  const corners: Pair[] = [
    [x, y],
    end,
    [x + uy * size * 0.75, y - ux * size * 0.75],
    [end[0] + uy * size * 0.75, end[1] - ux * size * 0.75],
  ];
  const [left, top] = [Math.min(...corners.map((c) => c[0])), Math.min(...corners.map((c) => c[1]))];
  const right = Math.max(...corners.map((c) => c[0]));
  const bottom = Math.max(...corners.map((c) => c[1]));
  return [{ text, x: left, y: top, width: right - left, height: bottom - top }];
}
