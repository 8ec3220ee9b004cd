import { z } from "zod";

/** What a page of a drawing holds besides its picture: words and strokes with their places. */
export const SHEET_FORMAT = "radicula/sheet";

const at = z.number().min(-1e6).max(1e6);
const size = z.number().min(0).max(1e6);
/** Place on a page: the page's own units, from its upper left corner. */
export const SheetWord = z.strictObject({
  text: z.string().min(1).max(200),
  x: at,
  y: at,
  width: size,
  height: size,
  sure: z
    .number()
    .min(0)
    .max(1)
    .optional()
    .meta({ description: "How sure a reading of a picture is; left out where the page holds the word itself" }),
});
export type SheetWord = z.infer<typeof SheetWord>;
export const SheetContent = z.strictObject({
  format: z.literal(SHEET_FORMAT),
  version: z.literal(1),
  width: z.number().positive().max(1e6),
  height: z.number().positive().max(1e6),
  words: z.array(SheetWord).max(20_000).default([]),
  lines: z
    .array(z.tuple([at, at, at, at]))
    .max(60_000)
    .default([])
    .meta({ description: "Straight strokes: from x, y to x, y" }),
  boxes: z
    .array(z.tuple([at, at, size, size]))
    .max(20_000)
    .default([])
    .meta({ description: "Rectangles: x, y, width, height" }),
  dots: z
    .array(z.tuple([at, at, size]))
    .max(20_000)
    .default([])
    .meta({ description: "Filled dots: x, y, radius" }),
});
export type SheetContent = z.infer<typeof SheetContent>;

/** part of an address: nothing that could lead elsewhere */
const SheetId = z.string().regex(/^[\w-]{1,40}$/, "letters, digits, - and _");
const Spot = z.tuple([at, at]);
/** A page that a wiring was read from. */
export const DrawingSheet = z.strictObject({
  id: SheetId,
  name: z.string().min(1).max(80),
  source: z.string().max(120).default("").meta({ description: "Where the page is from: which book, which edition" }),
  width: z.number().positive().max(1e6),
  height: z.number().positive().max(1e6),
});
export type DrawingSheet = z.infer<typeof DrawingSheet>;
/** Where a cavity, a splice, a ground or a whole connector stands on a page. */
export const DrawingMark = z.strictObject({
  at: z.string().min(1).max(90).meta({ description: "Cavity as connector:cavity; or a name" }),
  sheet: SheetId,
  x: at,
  y: at,
  width: size.optional().meta({ description: "Of the box round a connector or a module" }),
  height: size.optional(),
});
export type DrawingMark = z.infer<typeof DrawingMark>;
/** How a wire runs on a page. */
export const DrawingTrace = z.strictObject({
  from: z.string().min(1).max(90),
  to: z.string().min(1).max(90),
  sheet: SheetId,
  points: z.array(Spot).min(2).max(400),
});
export type DrawingTrace = z.infer<typeof DrawingTrace>;
/** The end of a wire that goes on elsewhere: it waits for the other end with the same label. */
export const OpenEnd = z.strictObject({
  label: z.string().min(1).max(40),
  from: z.string().min(1).max(90),
  colour: z.string().max(20).default(""),
  sheet: SheetId,
  points: z.array(Spot).min(2).max(400),
});
export type OpenEnd = z.infer<typeof OpenEnd>;
/** The pages of a wiring, and where on them everything stands. */
export const PageDrawing = z.strictObject({
  sheets: z.array(DrawingSheet).max(200).default([]),
  marks: z.array(DrawingMark).max(20_000).default([]),
  traces: z.array(DrawingTrace).max(20_000).default([]),
  openEnds: z.array(OpenEnd).max(4000).default([]),
});
export type PageDrawing = z.infer<typeof PageDrawing>;
export const noPages = (): PageDrawing => ({ sheets: [], marks: [], traces: [], openEnds: [] });
