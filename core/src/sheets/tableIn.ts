import type { SheetWord } from "../format/sheet.js";

interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
/** Words whose middles differ by less than this share of their height stand in one line. Judgement. */
const ONE_LINE = 0.6;
/** A gap between columns is at least as wide as this share of the height of a line. Judgement. */
const GAP = 0.45;
/** A word of a line that spans several columns, as a title does, is no bound of columns. Judgement: share of lines. */
const IN_MOST = 0.1;

/**
 * The words in a part of a page as a table: lines, and columns where a gap goes through nearly all of them.
 * @returns tab-separated, as of a spreadsheet; "" where there are fewer than two columns or lines
 */
export function tableIn(words: readonly SheetWord[], area: Area): string {
  const inside = words.filter((w) => {
    const [x, y] = [w.x + w.width / 2, w.y + w.height / 2];
    return x >= area.x && x <= area.x + area.width && y >= area.y && y <= area.y + area.height;
  });
  const lines = linesOf(inside);
  const columns = columnsOf(inside, lines.length);
  if (lines.length < 2 || columns.length < 2) return "";
  return lines
    .map((line) =>
      columns
        .map(([from, to]) =>
          line
            .filter((w) => w.x + w.width / 2 >= from && w.x + w.width / 2 < to)
            .map((w) => w.text.replace(/\s+/g, " ").trim())
            .join(" "),
        )
        .join("\t"),
    )
    .join("\n");
}

function linesOf(words: readonly SheetWord[]): SheetWord[][] {
  const lines: SheetWord[][] = [];
  const middle = (w: SheetWord) => w.y + w.height / 2;
  for (const w of [...words].sort((a, b) => middle(a) - middle(b))) {
    const line = lines.at(-1);
    if (line && middle(w) - middle(line[0]!) < ONE_LINE * Math.max(w.height, line[0]!.height)) line.push(w);
    else lines.push([w]);
  }
  return lines.map((l) => l.sort((a, b) => a.x - b.x));
}

/** From where to where each column goes: up to the middle of the gaps, and without bound at both ends. */
function columnsOf(words: readonly SheetWord[], lines: number): (readonly [number, number])[] {
  if (words.length === 0) return [];
  const heights = words.map((w) => w.height).sort((a, b) => a - b);
  const least = GAP * heights[heights.length >> 1]!;
  const ends = words
    .flatMap((w) => [
      { x: w.x, by: 1 },
      { x: w.x + w.width, by: -1 },
    ])
    .sort((a, b) => a.x - b.x || b.by - a.by);
  const bounds: number[] = [];
  const free = Math.floor(IN_MOST * lines);
  let over = 0;
  let since = -Infinity;
  for (const { x, by } of ends) {
    const before = over;
    over += by;
    if (before > free && over <= free) since = x;
    if (before <= free && over > free && x - since >= least && since > -Infinity) bounds.push((since + x) / 2);
  }
  return [-Infinity, ...bounds].map((from, i) => [from, bounds[i] ?? Infinity] as const);
}
