import type { Analysis, DrawingSheet, SeenEntry, Wiring } from "@radicula/core";
import { emptyChart } from "@radicula/core";
import { onPage, pageToShow, placeAt } from "../src/features/case/page/onPage";
import { whatIsAt, wordsNear } from "../src/features/wiring/pages/hit";

const sheet: DrawingSheet = { id: "p1", name: "Sheet 1", source: "", width: 800, height: 600 };
const pages = {
  sheets: [sheet, { ...sheet, id: "p2", name: "Sheet 2" }],
  marks: [
    { at: "B7", sheet: "p1", x: 500, y: 100, width: 100, height: 60 },
    { at: "B7:1", sheet: "p1", x: 500, y: 110 },
    { at: "B7:2", sheet: "p1", x: 600, y: 130 },
    { at: "S1", sheet: "p1", x: 300, y: 110 },
    { at: "A1:3", sheet: "p2", x: 100, y: 100 },
  ],
  traces: [
    { from: "S1", to: "B7:1", sheet: "p1", points: [[300, 110] as [number, number], [500, 110] as [number, number]] },
  ],
  openEnds: [],
};
const wiring = {
  wires: [{ from: "B7:1", to: "S1", colour: "RD", zones: [] }],
  pages,
} as unknown as Wiring;
const analysis = {
  suspicion: new Map([
    ["B7:1~S1", 0],
    ["B7:1", 0.3],
    ["S1", 0.5],
    ["B7", 0.1],
  ]),
  readings: [{ number: 4, point: "B7:1", value: 0.2, instrument: "voltmeter", healthy: 5, leading: 0.2 }],
} as unknown as Pick<Analysis, "suspicion" | "readings">;
const seen = [{ type: "seen", connector: "B7", colours: [{ cavity: "1", colour: "BU" }] }] as unknown as SeenEntry[];

describe("a case on its pages", () => {
  const on = onPage(wiring, sheet, analysis, ["B7:2"], seen);
  test("readings, suspicion, the next lead and what is not as drawn stand at their places", () => {
    const place = (point: string) => on.places.find((p) => p.point === point)!;
    expect(place("B7:1")).toMatchObject({ share: 0.3, found: "BU", isNext: false, side: "left" });
    expect(place("B7:1").reading?.value).toBe(0.2);
    expect(place("B7:2")).toMatchObject({ isNext: true, side: "right", found: "" });
    expect(place("S1")).toMatchObject({ share: 0.5, side: "above" });
    expect(on.boxes).toEqual([{ id: "B7", x: 500, y: 100, width: 100, height: 60, share: 0.1 }]);
    // the wire is the same whichever end it was traced from
    expect(on.lines).toHaveLength(1);
  });
  test("a tap takes the nearest place within reach", () => {
    expect(placeAt(on, [505, 112], 10)?.point).toBe("B7:1");
    expect(placeAt(on, [450, 300], 10)).toBeUndefined();
  });
  test("the page of the next reading is shown first, else the one with most suspicion", () => {
    expect(pageToShow(wiring, analysis, ["A1:3"])).toBe("p2");
    expect(pageToShow(wiring, analysis, [])).toBe("p1");
  });
});

describe("what a tap on a page means", () => {
  const read = {
    boxes: [
      { number: 0, x: 100, y: 100, width: 100, height: 80, id: "B1", title: "", kind: "connector" as const, pins: [] },
    ],
    stars: [{ id: "S9", kind: "splice" as const, at: [300, 300] as const }],
    wires: [
      {
        ends: [] as never,
        points: [[200, 140] as const, [300, 140] as const, [300, 300] as const],
        colour: "",
        mm2: "",
      },
    ],
  };
  const chart = {
    ...emptyChart(),
    pages: { ...emptyChart().pages, sheets: [sheet], marks: [{ at: "G1", sheet: "p1", x: 302, y: 302 }] },
  };
  test("a mark comes before a dot, a dot before a wire, a box before the wire at its edge", () => {
    expect(whatIsAt(chart, sheet, read, [301, 301], 10)).toMatchObject({ kind: "mark", mark: { at: "G1" } });
    expect(whatIsAt(emptyChart(), sheet, read, [301, 301], 10)).toEqual({ kind: "star", index: 0 });
    expect(whatIsAt(chart, sheet, read, [250, 143], 10)).toEqual({ kind: "wire", index: 0 });
    expect(whatIsAt(chart, sheet, read, [196, 140], 10)).toEqual({ kind: "box", index: 0 });
    expect(whatIsAt(chart, sheet, read, [500, 500], 10)).toEqual({ kind: "spot", at: [500, 500] });
  });
  test("words near are offered, names first, and only those inside a box that was drawn", () => {
    const word = (text: string, x: number, y: number) => ({ text, x, y, width: 20, height: 8 });
    const words = [word("boost", 100, 100), word("B7", 130, 120), word("far", 700, 500)];
    expect(wordsNear(words, { kind: "spot", at: [105, 104] }, 20).map((w) => w.text)).toEqual(["B7", "boost"]);
    const area = { kind: "area" as const, x: 120, y: 110, width: 60, height: 60 };
    expect(wordsNear(words, area, 5).map((w) => w.text)).toEqual(["B7"]);
  });
});
