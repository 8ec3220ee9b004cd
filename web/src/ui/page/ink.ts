import type { Spot } from "@radicula/core";
import type { Page } from "./fetchPage";
import { pictureOf } from "./pictureOf";
import type { Pixels } from "./straighten";

/** Paper and ink differ by at least so much, of 255: else there is no ink. Judgement. */
const CONTRAST = 60;
/** Ink this near to the nearest point of it belongs to the same stroke, as a share of how far is looked. Judgement. */
const STROKE = 0.35;

/**
 * The middle of the stroke nearest to a place of a picture.
 * @param at in points of the picture @param reach how far is looked, points
 * @returns undefined where there is no ink within reach
 */
export function nearestInk({ data, width, height }: Pixels, [x, y]: Spot, reach: number): Spot | undefined {
  const [left, right] = [Math.max(0, Math.floor(x - reach)), Math.min(width - 1, Math.ceil(x + reach))];
  const [top, bottom] = [Math.max(0, Math.floor(y - reach)), Math.min(height - 1, Math.ceil(y + reach))];
  const light = (px: number, py: number) => {
    const o = (py * width + px) * 4;
    return 0.3 * data[o]! + 0.59 * data[o + 1]! + 0.11 * data[o + 2]!;
  };
  const points: { readonly x: number; readonly y: number; readonly far: number; readonly light: number }[] = [];
  for (let py = top; py <= bottom; py++)
    for (let px = left; px <= right; px++) {
      const far = Math.hypot(px + 0.5 - x, py + 0.5 - y);
      if (far <= reach) points.push({ x: px + 0.5, y: py + 0.5, far, light: light(px, py) });
    }
  const lights = points.map((p) => p.light);
  const [darkest, lightest] = [Math.min(...lights), Math.max(...lights)];
  if (!(lightest - darkest >= CONTRAST)) return undefined;
  const ink = points.filter((p) => p.light < (darkest + lightest) / 2);
  const nearest = ink.reduce((a, b) => (b.far < a.far ? b : a));
  const own = ink.filter((p) => Math.hypot(p.x - nearest.x, p.y - nearest.y) <= STROKE * reach);
  return [own.reduce((sum, p) => sum + p.x, 0) / own.length, own.reduce((sum, p) => sum + p.y, 0) / own.length];
}

/**
 * As `nearestInk`, on a page that is kept: places and reach are in its units.
 * @returns the place itself where there is no ink
 */
export async function onInk(
  sheet: { readonly id: string; readonly width: number },
  page: Page,
  at: Spot,
  reach: number,
): Promise<Spot> {
  const points = page.width / sheet.width;
  const [x, y, far] = [at[0] * points, at[1] * points, reach * points];
  const area = { x: Math.max(0, x - far), y: Math.max(0, y - far), width: 2 * far, height: 2 * far };
  try {
    const picture = await pictureOf(sheet.id, page, area, MOST_POINTS);
    const share = picture.width / area.width;
    const pixels = picture.getContext("2d")!.getImageData(0, 0, picture.width, picture.height);
    const found = nearestInk(pixels, [(x - area.x) * share, (y - area.y) * share], far * share);
    return found ? [(area.x + found[0] / share) / points, (area.y + found[1] / share) / points] : at;
  } catch {
    return at; // a place by the finger is still a place
  }
}
/** Longer side of the part of a page that is looked at, points. */
const MOST_POINTS = 160;
