import type { SheetContent, SheetWord } from "../format/sheet.js";
import { parseColour } from "../units/colour.js";
import { parseSection } from "../units/section.js";
import { throughPins } from "./inLine.js";
import { drawnWires, type DrawnEnd, type DrawnWire, type Spot } from "./drawnWires.js";

/** A box as wide and as high as this share of the page is its frame. Judgement. */
const FRAME = 0.8;
/** Words this near, as a share of the page's longer side, belong to a dot or to a wire's end. Judgement. */
const BESIDE = 0.022;
/** The number of a cavity stands this near to where its wire ends, as a share of the longer side. Judgement. */
const AT_CAVITY = 0.028;

export type DrawnKind = "connector" | "inline" | "module" | "fuse" | "ground" | "battery";
/** A box that stands for a connector, a module or another part, as far as its words tell. */
export interface ReadBox {
  /** place in the content's list of boxes */
  readonly number: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** its name where one stands in it or beside it */
  readonly id: string | undefined;
  /** what else is written in it */
  readonly title: string;
  readonly kind: DrawnKind;
  readonly pins: readonly ReadPin[];
}
export interface ReadPin {
  readonly cavity: string;
  readonly at: Spot;
  /** what is written beside it: 5 V reference, signal */
  readonly says: string;
}
/** A dot, or the sign of a ground, with its name. */
export interface ReadStar {
  readonly id: string | undefined;
  readonly kind: "splice" | "ground";
  readonly at: Spot;
}
/** A drawn wire with what is written along it. */
export interface ReadWire {
  readonly ends: readonly [ReadEnd, ReadEnd];
  readonly points: readonly Spot[];
  readonly colour: string;
  readonly mm2: string;
}
/**
 * What a drawn wire ends at: a pin of a box, a splice or ground, a label under which it goes on elsewhere, another wire
 * without a dot, or nothing that is known.
 */
export interface ReadEnd {
  readonly kind: "pin" | "star" | "label" | "tee" | "open";
  readonly at: Spot;
  /** number of the box and of its pin, or of the star */
  readonly of: number;
  readonly pin: number;
  readonly label: string;
}
export interface ReadSheet {
  readonly boxes: readonly ReadBox[];
  readonly stars: readonly ReadStar[];
  readonly wires: readonly ReadWire[];
}

const NAME = /^(?:[A-Z]{1,4}\d{1,3}|BATT?(?:ERY)?|ECU|ECM|TCU)$/i;
const SHORT = /^(?:\d{1,3}|[A-Z]\d{0,2}|[+-])$/i;
const SPLICE = /^(?:S|SP|SPL|J|JC)\d{1,3}$/i;
const GROUND = /^(?:G|GND|E)\d{0,3}$|^GROUND$/i;
const FUSE = /^(?:F|FU|CB)\d{1,3}$/i;
const MODULE = /^(?:A|ECU|ECM|MCU|CU|TCU|BCU)\d*$/i;
const BATTERY = /^BATT?(?:ERY)?\d*$/i;
/** "to sheet 2", "page 4 B2": where a wire goes on (common practice, no source) */
const ELSEWHERE = /\b(?:sheet|page|blatt|seite)\s*\d+/i;

/**
 * What a page says, as far as its strokes and words tell: boxes with names and pins, splices and grounds, wires with
 * their colours. Everything is an offer; what a name or a number is not known for is left out.
 */
export function readSheet(content: SheetContent): ReadSheet {
  return new SheetReader(content).read();
}

class SheetReader {
  private readonly longer: number;
  private readonly boxes: SheetContent["boxes"];
  private readonly drawn: readonly DrawnWire[];
  private readonly taken = new Set<SheetWord>();

  constructor(private readonly content: SheetContent) {
    const { width, height } = content;
    this.longer = Math.max(width, height);
    this.boxes = content.boxes.filter(([, , w, h]) => w < FRAME * width || h < FRAME * height);
    this.drawn = drawnWires({ ...content, boxes: this.boxes });
  }

  read(): ReadSheet {
    const ends = this.drawn.flatMap((w) => w.ends);
    const numbers = this.boxes.map((_, i) => i).filter((i) => ends.some((e) => e.kind === "box" && e.number === i));
    const boxes = numbers.map((i) => this.readBox(i, ends));
    const stars: ReadStar[] = this.content.dots.flatMap(([x, y], i) =>
      ends.some((e) => e.kind === "dot" && e.number === i)
        ? [{ id: this.nameBeside([x, y], SPLICE), kind: "splice" as const, at: [x, y] as const }]
        : [],
    );
    const starAt = new Map<string, number>(stars.map((s, i) => [key(s.at), i]));
    const written = this.writtenAlong();
    const wires = this.drawn.map((w): ReadWire => {
      const both = w.ends.map((e) => this.readEnd(e, boxes, stars, starAt)) as [ReadEnd, ReadEnd];
      const { colour, mm2 } = written.get(w) ?? { colour: "", mm2: "" };
      return { ends: both, points: w.points, colour, mm2 };
    });
    return { boxes, stars, wires: wires.filter((w) => !this.isSign(w)) };
  }

  private readBox(number: number, ends: readonly DrawnEnd[]): ReadBox {
    const [x, y, width, height] = this.boxes[number]!;
    const inside = this.content.words.filter((w) => isInside(middle(w), x, y, width, height));
    const name =
      inside.find((w) => NAME.test(w.text.trim())) ?? this.nearest([x + width / 2, y], NAME, Math.max(width / 2, 1));
    const id = name?.text.trim();
    if (name) this.taken.add(name);
    const own = ends.filter((e) => e.kind === "box" && e.number === number).map((e) => e.at);
    const kind = kindOf(id);
    const pins = this.pinsOf(own, inside, name, kind, [x, y, width, height]);
    const through = throughPins({ x, y, width, height }, id, pins, (p) => p.words.length > 0);
    const used = new Set([...pins.flatMap((p) => p.words), ...(name ? [name] : [])]);
    used.forEach((w) => this.taken.add(w));
    const title = inside
      .filter((w) => !used.has(w))
      .sort((a, b) => a.y - b.y || a.x - b.x)
      .map((w) => w.text.trim())
      .join(" ");
    inside.forEach((w) => this.taken.add(w));
    return {
      number,
      x,
      y,
      width,
      height,
      id,
      kind: through ? "inline" : kind,
      title,
      pins: (through ?? pins).map(({ cavity, at, says }) => ({ cavity, at, says })),
    };
  }
  /** Each place where a wire meets the box, with the number and the words beside it; numbered where none is. */
  private pinsOf(
    own: readonly Spot[],
    inside: readonly SheetWord[],
    name: SheetWord | undefined,
    kind: DrawnKind,
    box: SheetContent["boxes"][number],
  ): (ReadPin & { readonly words: readonly SheetWord[] })[] {
    const sorted = [...own].sort((a, b) => a[1] - b[1] || a[0] - b[0]);
    const reach = AT_CAVITY * this.longer;
    const free = new Set(inside.filter((w) => SHORT.test(w.text.trim()) && w !== name));
    const numbers = new Map<Spot, SheetWord>();
    const pairs = sorted
      .flatMap((at) => [...free].map((word) => ({ at, word, far: apart(at, middle(word)) })))
      .filter((p) => p.far < reach)
      .sort((a, b) => a.far - b.far);
    for (const { at, word } of pairs) if (!numbers.has(at) && free.delete(word)) numbers.set(at, word);
    const taken = new Set([...numbers.values()].map((w) => w.text.trim()));
    return sorted.map((at, i) => {
      const word = numbers.get(at);
      const terminal = kind === "fuse" ? (i === 0 ? "in" : "out") : undefined;
      const cavity = word?.text.trim() ?? terminal ?? freeNumber(taken);
      const beside = word
        ? inside.filter((w) => w !== word && !NAME.test(w.text.trim()) && isBeside(w, word, at, box))
        : [];
      return {
        cavity,
        at,
        says: beside.map((w) => w.text.trim()).join(" "),
        words: [...(word ? [word] : []), ...beside],
      };
    });
  }

  /** the strokes of a ground's sign, and others that join nothing */
  private isSign({ ends: [a, b], points }: ReadWire): boolean {
    if (a.kind === "star" && b.kind === "star" && a.of === b.of) return true;
    const length = points.slice(1).reduce((sum, p, i) => sum + apart(points[i]!, p), 0);
    const joins = (e: ReadEnd) => e.kind === "pin" || e.kind === "label" || e.kind === "star";
    return !joins(a) && !joins(b) && length < BESIDE * this.longer;
  }

  private readEnd(end: DrawnEnd, boxes: readonly ReadBox[], stars: ReadStar[], starAt: Map<string, number>): ReadEnd {
    const { at } = end;
    const none = { at, of: -1, pin: -1, label: "" };
    if (end.kind === "box") {
      const of = boxes.findIndex((b) => b.number === end.number);
      return { ...none, kind: "pin", of, pin: boxes[of]!.pins.findIndex((p) => key(p.at) === key(at)) };
    }
    if (end.kind === "dot") {
      const [x, y] = this.content.dots[end.number]!;
      return { ...none, kind: "star", of: starAt.get(key([x, y])) ?? -1 };
    }
    if (end.kind === "tee") return { ...none, kind: "tee" };
    const ground = this.nameBeside(at, GROUND);
    if (ground) {
      const known = stars.findIndex((s) => s.kind === "ground" && s.id === ground);
      if (known < 0) stars.push({ id: ground, kind: "ground", at });
      return { ...none, kind: "star", of: known < 0 ? stars.length - 1 : known };
    }
    const label = this.labelAt(at);
    return label ? { ...none, kind: "label", label } : { ...none, kind: "open" };
  }
  /** the label of a wire that goes on elsewhere: a name beside its end, with "sheet 2" in the same words */
  private labelAt(at: Spot): string | undefined {
    const far = (w: SheetWord) => distanceTo(w, at);
    const near = this.content.words
      .filter((w) => far(w) < BESIDE * this.longer && !this.taken.has(w))
      .sort((a, b) => far(a) - far(b));
    const says = near.find((w) => ELSEWHERE.test(w.text));
    if (!says) return undefined;
    return [says, ...near]
      .flatMap((w) => w.text.replace(ELSEWHERE, " ").split(/[\s,;:()]+/))
      .find((t) => /^[A-Z]{1,3}\d{0,3}$/.test(t))
      ?.toUpperCase();
  }

  private nameBeside(at: Spot, pattern: RegExp): string | undefined {
    return this.nearest(at, pattern, BESIDE * this.longer)?.text.trim();
  }
  private nearest(at: Spot, pattern: RegExp, reach: number): SheetWord | undefined {
    let best: SheetWord | undefined;
    let least = reach;
    for (const w of this.content.words) {
      if (this.taken.has(w) || !pattern.test(w.text.trim())) continue;
      const far = distanceTo(w, at);
      if (far < least) [best, least] = [w, far];
    }
    return best;
  }
  /** Colour and size written along each wire: every such word belongs to the wire whose stroke is nearest to it. */
  private writtenAlong(): ReadonlyMap<DrawnWire, Written> {
    const of = new Map<DrawnWire, Written & { readonly far: number }>();
    for (const word of this.content.words) {
      const read = colourAndSize(word.text);
      if (!read) continue;
      let best: DrawnWire | undefined;
      let least = (BESIDE * this.longer) / 2;
      for (const wire of this.drawn) {
        const far = distanceAlong(word, wire.points, this.longer);
        if (far < least) [best, least] = [wire, far];
      }
      if (best && least < (of.get(best)?.far ?? Infinity)) of.set(best, { ...read, far: least });
    }
    return of;
  }
}
interface Written {
  readonly colour: string;
  readonly mm2: string;
}
/** A stroke across what is written counts as so much further, as a share of the page's longer side. Judgement. */
const ACROSS = 0.005;
/** How far a word is from the strokes of a wire, those that run as it is written first. */
function distanceAlong(word: SheetWord, points: readonly Spot[], longer: number): number {
  const isWide = word.width >= word.height;
  let least = Infinity;
  points.slice(1).forEach((p, i) => {
    const q = points[i]!;
    const runsWide = Math.abs(p[0] - q[0]) >= Math.abs(p[1] - q[1]);
    least = Math.min(least, wordToStroke(word, q, p) + (runsWide === isWide ? 0 : ACROSS * longer));
  });
  return least;
}
/** From the word's middle or its nearest corner, whichever is nearer; 0 where the stroke runs through the middle. */
function wordToStroke(w: SheetWord, a: Spot, b: Spot): number {
  const corners: Spot[] = [w.x, w.x + w.width].flatMap((x) => [w.y, w.y + w.height].map((y): Spot => [x, y]));
  return Math.min(...[middle(w), ...corners].map((p) => distanceToStroke(p, a, b)));
}

/** The lowest number that no pin has, and takes it: a pin without a number is never taken for one that has it. */
function freeNumber(taken: Set<string>): string {
  let n = 1;
  while (taken.has(String(n))) n++;
  taken.add(String(n));
  return String(n);
}
/** "0.5 RD/BK" as colour and size; undefined where a text is neither. */
function colourAndSize(text: string): { readonly colour: string; readonly mm2: string } | undefined {
  const parts = text.trim().split(/\s+/);
  if (parts.length > 3) return undefined;
  let colour = "";
  let mm2 = "";
  for (const p of parts) {
    if (/^[A-Z]{2}(?:[/-]?[A-Z]{2})?$/.test(p) && parseColour(p).status === "read") colour = p;
    else if (/^\d+(?:[.,]\d+)?$/.test(p) && parseSection(p) !== undefined && /[.,]/.test(p)) mm2 = p;
    else if (!/^mm[²2]$/.test(p)) return undefined;
  }
  return colour ? { colour, mm2 } : undefined;
}
function kindOf(id: string | undefined): DrawnKind {
  if (id === undefined) return "connector";
  if (FUSE.test(id)) return "fuse";
  if (MODULE.test(id)) return "module";
  return BATTERY.test(id) ? "battery" : "connector";
}
const key = (p: Spot) => `${p[0].toFixed(2)},${p[1].toFixed(2)}`;
const apart = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const middle = (w: SheetWord): Spot => [w.x + w.width / 2, w.y + w.height / 2];
const isInside = ([px, py]: Spot, x: number, y: number, w: number, h: number) =>
  px >= x && px <= x + w && py >= y && py <= y + h;
function distanceTo(w: SheetWord, [x, y]: Spot): number {
  return Math.hypot(Math.max(w.x - x, 0, x - w.x - w.width), Math.max(w.y - y, 0, y - w.y - w.height));
}
function distanceToStroke(p: Spot, a: Spot, b: Spot): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
  return apart(p, [a[0] + t * dx, a[1] + t * dy]);
}
/** Words that say what a pin is for: in the row of its number; above or below it where the pin is there in the box. */
function isBeside(w: SheetWord, number: SheetWord, at: Spot, [x, y, width, height]: SheetContent["boxes"][number]) {
  const [wx, wy] = middle(w);
  const [nx, ny] = middle(number);
  const toSide = Math.min(Math.abs(at[0] - x), Math.abs(at[0] - x - width));
  if (toSide > Math.min(Math.abs(at[1] - y), Math.abs(at[1] - y - height)))
    return Math.abs(wx - nx) < 2 * number.height && Math.abs(wy - ny) < 3 * number.height;
  return Math.abs(wy - ny) < 0.7 * number.height && wx < x + width / 2 === nx < x + width / 2;
}
