import {
  sameColour,
  wireId,
  type Analysis,
  type DrawingMark,
  type DrawingSheet,
  type ReadingView,
  type SeenEntry,
  type Spot,
  type Wiring,
} from "@radicula/core";

/** A line of the page with how much is suspected along it; a place with how much is suspected there. */
export interface PageLine {
  readonly key: string;
  readonly points: readonly Spot[];
  readonly share: number;
}
export interface PagePlace {
  readonly point: string;
  readonly x: number;
  readonly y: number;
  readonly share: number;
  readonly isNext: boolean;
  readonly reading: ReadingView | undefined;
  /** the colour that was found on the machine, where it is not as drawn */
  readonly found: string;
  /** on which side of the place its value stands: away from the box that the place is on the edge of */
  readonly side: "left" | "right" | "above";
}
export interface PageBox {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly share: number;
}
export interface OnPage {
  readonly lines: readonly PageLine[];
  readonly places: readonly PagePlace[];
  readonly boxes: readonly PageBox[];
}

/** What a case says, at the places of one page: suspicion along its lines, readings where they were taken. */
export function onPage(
  wiring: Wiring,
  sheet: DrawingSheet,
  analysis: Pick<Analysis, "suspicion" | "readings"> | undefined,
  next: readonly string[],
  seen: readonly SeenEntry[] = [],
): OnPage {
  const { marks = [], traces = [] } = wiring.pages ?? {};
  const suspicion = analysis?.suspicion ?? new Map<string, number>();
  const latest = new Map(analysis?.readings.map((r) => [r.point, r]));
  const wires = new Map(wiring.wires.flatMap((w) => [w.from, w.to].map((end, i) => [key(end, i ? w.from : w.to), w])));
  const here = marks.filter((m) => m.sheet === sheet.id);
  return {
    lines: traces.flatMap((trace, i): PageLine[] => {
      const wire = wires.get(key(trace.from, trace.to));
      return trace.sheet === sheet.id && wire
        ? [{ key: `${i}`, points: trace.points, share: suspicion.get(wireId(wire)) ?? 0 }]
        : [];
    }),
    places: here.flatMap((m): PagePlace[] => {
      if (m.width !== undefined) return [];
      const point = m.at;
      // one side of an in-line cavity is read at its mark as well
      const at = [point, `${point}.a`, `${point}.b`];
      return [
        {
          point,
          x: m.x,
          y: m.y,
          share: suspicion.get(point) ?? 0,
          isNext: at.some((p) => next.includes(p)),
          reading: at.map((p) => latest.get(p)).find((r) => r !== undefined),
          found: foundAt(wiring, seen, point),
          side: sideOf(here, m),
        },
      ];
    }),
    boxes: here.flatMap((m): PageBox[] => {
      if (m.width === undefined || m.height === undefined) return [];
      return [{ id: m.at, x: m.x, y: m.y, width: m.width, height: m.height, share: suspicion.get(m.at) ?? 0 }];
    }),
  };
}
/** The colour seen at a cavity on the machine, where the wiring has another one. */
function foundAt(wiring: Wiring, seen: readonly SeenEntry[], point: string): string {
  const colon = point.indexOf(":");
  if (colon < 0) return "";
  const [id, cavity] = [point.slice(0, colon), point.slice(colon + 1)];
  const last = seen
    .filter((s) => s.connector === id)
    .at(-1)
    ?.colours.find((c) => c.cavity === cavity)?.colour;
  const drawn = wiring.wires.find((w) => w.from === point || w.to === point)?.colour;
  return last && drawn && !sameColour(last, drawn) ? last : "";
}
/** A pin stands on an edge where it is this near to it, as a share of the box's width. Judgement. */
const ON_EDGE = 0.12;
function sideOf(marks: readonly DrawingMark[], pin: DrawingMark): PagePlace["side"] {
  const box = marks.find((b) => b.width !== undefined && pin.at.toUpperCase().startsWith(`${b.at.toUpperCase()}:`));
  if (box?.width === undefined) return "above";
  if (Math.abs(pin.x - box.x) < ON_EDGE * box.width) return "left";
  return Math.abs(pin.x - box.x - box.width) < ON_EDGE * box.width ? "right" : "above";
}
const key = (a: string, b: string) => `${a.toUpperCase()} ${b.toUpperCase()}`;

/** The place nearest to a tap, within reach. */
export function placeAt({ places }: OnPage, at: Spot, reach: number): PagePlace | undefined {
  let best: PagePlace | undefined;
  let least = reach;
  for (const p of places) {
    const far = Math.hypot(p.x - at[0], p.y - at[1]);
    if (far < least) [best, least] = [p, far];
  }
  return best;
}
/** The page on which the next reading stands; else the one that shows most of what is suspected. */
export function pageToShow(
  wiring: Wiring,
  analysis: Pick<Analysis, "suspicion" | "readings"> | undefined,
  next: readonly string[],
): string | undefined {
  let best: string | undefined;
  let most = -1;
  for (const sheet of wiring.pages?.sheets ?? []) {
    const { lines, places, boxes } = onPage(wiring, sheet, analysis, next);
    const worth =
      [...lines, ...places, ...boxes].reduce((sum, x) => sum + x.share, 0) + (places.some((p) => p.isNext) ? 100 : 0);
    if (worth > most) [best, most] = [sheet.id, worth];
  }
  return best;
}
