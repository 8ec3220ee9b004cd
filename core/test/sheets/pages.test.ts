import { readFileSync } from "node:fs";
import { getDocument, OPS } from "pdfjs-dist/legacy/build/pdf.mjs";
import {
  buildChart,
  dropSheet,
  emptyChart,
  pdfContent,
  progressOf,
  readSheet,
  takeWhole,
  type DrawingSheet,
  type PdfPage,
  type ReadEnd,
  type ReadSheet,
  type SheetContent,
} from "../../src/index.js";

interface Truth {
  readonly words: readonly { readonly text: string; readonly x: number; readonly y: number; readonly anchor: string }[];
  readonly wires: readonly { readonly from: string; readonly to: string; readonly colour: string }[];
  readonly boxes: readonly { readonly id: string; readonly pins: readonly string[] }[];
  readonly stars: readonly { readonly id: string }[];
}
// what the script that drew the pages put on them, written by it and not by the reader
const truth = (JSON.parse(readFileSync("demo/stacker-2-pages.json", "utf8")) as { pages: Truth[] }).pages;

let contents: SheetContent[];
let reads: ReadSheet[];
beforeAll(async () => {
  const data = new Uint8Array(readFileSync("demo/stacker-2-pages.pdf"));
  const pdf = await getDocument({ data, verbosity: 0 }).promise;
  contents = [];
  for (let n = 1; n <= pdf.numPages; n++) {
    const page = await pdf.getPage(n);
    const view = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    contents.push(
      pdfContent(
        {
          width: view.width,
          height: view.height,
          transform: view.transform as unknown as PdfPage["transform"],
          operations: await page.getOperatorList(),
          texts: items.flatMap((i) => ("str" in i ? [i] : [])),
        },
        OPS,
      ),
    );
  }
  reads = contents.map(readSheet);
});
const sheets: DrawingSheet[] = [1, 2].map((n) => ({
  id: `p${n}`,
  name: `Sheet ${n}`,
  source: "",
  width: 842,
  height: 595,
}));
const nameOf = (read: ReadSheet, e: ReadEnd) => {
  if (e.kind === "pin") return `${read.boxes[e.of]!.id}:${read.boxes[e.of]!.pins[e.pin]!.cavity}`;
  return e.kind === "star" ? read.stars[e.of]!.id : e.label;
};

describe("two pages of a PDF drawn by a script that knows what is on them", () => {
  test("at least 98 of 100 words are found where they stand", () => {
    let placed = 0;
    truth.forEach((page, i) =>
      page.words.forEach((w) => {
        const at = w.anchor === "start" ? 0 : w.anchor === "end" ? 1 : 0.5;
        const isThere = contents[i]!.words.some(
          (f) => f.text === w.text && Math.hypot(f.x + at * f.width - w.x, f.y + f.height / 2 - w.y) < 4,
        );
        if (isThere) placed++;
      }),
    );
    const all = truth.reduce((sum, p) => sum + p.words.length, 0);
    expect(all).toBeGreaterThan(150);
    expect(placed / all).toBeGreaterThanOrEqual(0.98);
  });

  test("at least 95 of 100 wires are followed to both ends with their colour, and none is made up", () => {
    const key = (a: string | undefined, b: string | undefined) => [a, b].sort().join(" – ");
    let right = 0;
    truth.forEach((page, i) => {
      const wanted = new Set(page.wires.map((w) => key(w.from, w.to)));
      for (const w of reads[i]!.wires)
        expect(wanted).toContain(key(...(w.ends.map((e) => nameOf(reads[i]!, e)) as [string, string])));
      for (const w of page.wires) {
        const found = reads[i]!.wires.find(
          (r) => key(nameOf(reads[i]!, r.ends[0]), nameOf(reads[i]!, r.ends[1])) === key(w.from, w.to),
        );
        // the truth leaves colours out that stand beside an upright stroke
        if (found && (w.colour === "" || w.colour === `${found.mm2} ${found.colour}`)) right++;
      }
    });
    const all = truth.reduce((sum, p) => sum + p.wires.length, 0);
    expect(all).toBeGreaterThan(40);
    expect(right / all).toBeGreaterThanOrEqual(0.95);
  });

  test("boxes have their names and the numbers of their cavities", () => {
    truth.forEach((page, i) => {
      for (const b of page.boxes) {
        const found = reads[i]!.boxes.find((r) => r.id === b.id);
        expect(found?.pins.map((p) => p.cavity).sort()).toEqual([...b.pins].sort());
      }
      expect(reads[i]!.boxes).toHaveLength(page.boxes.length);
    });
  });

  test("taken as a whole they are one circuit: the halves of what goes on elsewhere are joined", () => {
    let chart = { ...emptyChart("Stacker 2", 24), pages: { ...emptyChart().pages, sheets } };
    chart = takeWhole(chart, sheets[0]!, reads[0]!);
    expect(chart.pages.openEnds.map((e) => e.label).sort()).toEqual(["N", "P"]);
    chart = takeWhole(chart, sheets[1]!, reads[1]!);
    expect(chart.pages.openEnds).toEqual([]);
    const { wiring, issues } = buildChart(chart);
    expect(issues.filter((x) => x.code.startsWith("wiring."))).toEqual([]);
    const ends = (from: string) =>
      wiring.wires.flatMap((w) => (w.from === from ? [w.to] : w.to === from ? [w.from] : []));
    expect(ends("S3")).toContain("S1");
    expect(ends("B9:1")).toEqual(["S3"]);
    expect(ends("A1:31")).toEqual(["G1"]);
    expect(wiring.devices.find((d) => d.id === "A1")?.kind).toBe("module");
    expect(wiring.devices.find((d) => d.id === "F1")).toMatchObject({ kind: "fuse", rating: 10 });
    expect(wiring.devices.filter((d) => d.kind === "threeWireSensor")).toHaveLength(12);
    expect(wiring.wires.find((w) => w.from === "B9:1" || w.to === "B9:1")).toMatchObject({
      colour: "RD/WH",
      mm2: 0.5,
      source: expect.stringMatching(/^Sheet 2 [A-F][1-8]$/),
    });
    // everything read is taken, and taken again changes nothing
    const done = progressOf(chart, sheets[1]!, reads[1]!);
    expect([...done.boxes, ...done.stars, ...done.wires].every(Boolean)).toBe(true);
    expect(takeWhole(chart, sheets[1]!, reads[1]!)).toEqual(chart);
    const without = dropSheet(chart, "p2");
    expect(without.rows).toEqual(chart.rows);
    expect(without.pages.marks.every((m) => m.sheet === "p1")).toBe(true);
  });
});
