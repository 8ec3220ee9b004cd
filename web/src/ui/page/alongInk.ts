import type { Spot } from "@radicula/core";
import { wrap } from "comlink";
import type { InkApi } from "@/workers/ink.worker";
import type { Page } from "./fetchPage";
import { pictureOf } from "./pictureOf";
import type { Pixels } from "./straighten";

/** Longer side of the part of a page in which a line is followed, points. */
const MOST_POINTS = 500;
/** So much of the longer way between two places is looked at beyond them: lines lead round things. Judgement. */
const AROUND = 0.3;

/**
 * As `inkPath`, on a page that is kept: places are in its units.
 * @returns undefined where no line of ink leads from one to the other, or the page cannot be had
 */
export async function alongInk(
  sheet: { readonly id: string; readonly width: number },
  page: Page,
  from: Spot,
  to: Spot,
): Promise<readonly Spot[] | undefined> {
  const points = page.width / sheet.width;
  const [a, b] = [from, to].map(([x, y]): Spot => [x * points, y * points]) as [Spot, Spot];
  const margin = AROUND * Math.max(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]));
  const [x, y] = [Math.min(a[0], b[0]) - margin, Math.min(a[1], b[1]) - margin].map((v) => Math.max(0, v)) as [
    number,
    number,
  ];
  const right = Math.min(page.width, Math.max(a[0], b[0]) + margin);
  const bottom = Math.min(page.height, Math.max(a[1], b[1]) + margin);
  try {
    const picture = await pictureOf(sheet.id, page, { x, y, width: right - x, height: bottom - y }, MOST_POINTS);
    const share = picture.width / (right - x);
    const pixels = picture.getContext("2d")!.getImageData(0, 0, picture.width, picture.height);
    const inside = (p: Spot): Spot => [(p[0] - x) * share, (p[1] - y) * share];
    const way = await inWorker(pixels, inside(a), inside(b));
    if (!way || way.length > MOST_CORNERS) return undefined;
    return [from, ...way.slice(1, -1).map((p): Spot => [(x + p[0] / share) / points, (y + p[1] / share) / points]), to];
  } catch {
    return undefined; // a straight line is still a wire
  }
}
/** A way with more corners is a scribble, or a stain. Judgement. */
const MOST_CORNERS = 100;

/** Nobody waits longer for a line than this, ms: the wire is drawn straight then. Judgement. */
const MOST_MS = 1500;

/** In a worker that lives as long as it looks: a page full of lines takes it a moment. */
async function inWorker(pixels: Pixels, from: Spot, to: Spot): Promise<readonly Spot[] | undefined> {
  const worker = new Worker(new URL("../../workers/ink.worker.ts", import.meta.url), { type: "module" });
  const late = AbortSignal.timeout(MOST_MS);
  try {
    return await Promise.race([
      wrap<InkApi>(worker).inkPath(pixels, from, to),
      new Promise<undefined>((done) => late.addEventListener("abort", () => done(undefined))),
    ]);
  } finally {
    worker.terminate();
  }
}
