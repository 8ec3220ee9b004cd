import { PAGE } from "../pageLimits";
import type { Page } from "./fetchPage";

/** Part of a picture, in its own points. */
export interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Part of a page's picture, put together from its tiles, its longer side no longer than asked for. */
export async function pictureOf(id: string, page: Page, area: Area, longest: number): Promise<HTMLCanvasElement> {
  const most = Math.max(PAGE.leastLevel, Math.ceil(Math.log2(Math.max(page.width, page.height))));
  const down = Math.max(0, Math.ceil(Math.log2(Math.max(area.width, area.height) / longest)));
  const level = Math.max(PAGE.leastLevel, most - down);
  const share = 2 ** (level - most);
  const [left, top] = [Math.floor(area.x * share), Math.floor(area.y * share)];
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.ceil(area.width * share));
  canvas.height = Math.max(1, Math.ceil(area.height * share));
  const context = canvas.getContext("2d");
  if (!context) throw new Error("the browser draws no picture");
  for (let y = Math.floor(top / PAGE.tile); y * PAGE.tile < top + canvas.height; y++)
    for (let x = Math.floor(left / PAGE.tile); x * PAGE.tile < left + canvas.width; x++) {
      const tile = await fetch(`/api/pages/${id}/${level}/${x}_${y}`);
      if (!tile.ok) continue;
      context.drawImage(await createImageBitmap(await tile.blob()), x * PAGE.tile - left, y * PAGE.tile - top);
    }
  return canvas;
}
