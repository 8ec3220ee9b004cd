import type { DrawingSheet } from "@radicula/core";
import { fileName } from "@/ui/text";
import { PAGE } from "@/ui/pageLimits";
import type { Page } from "@/ui/page/fetchPage";

/** Longest side of the page's picture in the file, points. */
const LONGEST = 2400;

/** The page with everything drawn over it, as one SVG file to print or to send. */
export async function savePage(sheet: DrawingSheet, page: Page, over: SVGGElement): Promise<void> {
  const picture = await wholePicture(sheet.id, page);
  const { width, height } = sheet;
  const size = `width="${width}" height="${height}"`;
  const text = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${width} ${height}">`,
    `<image href="${picture}" ${size}/>`,
    new XMLSerializer().serializeToString(over),
    "</svg>",
  ].join("\n");
  const url = URL.createObjectURL(new Blob([text], { type: "image/svg+xml" }));
  const a = document.createElement("a");
  a.href = url;
  a.download = `${fileName(sheet.name, "page")}.svg`;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** The tiles of a level put together, as a data address. */
async function wholePicture(id: string, { width, height }: Page): Promise<string> {
  const most = Math.max(PAGE.leastLevel, Math.ceil(Math.log2(Math.max(width, height))));
  const down = Math.max(0, Math.ceil(Math.log2(Math.max(width, height) / LONGEST)));
  const level = Math.max(PAGE.leastLevel, most - down);
  const share = 2 ** (level - most);
  const canvas = document.createElement("canvas");
  canvas.width = Math.ceil(width * share);
  canvas.height = Math.ceil(height * share);
  const context = canvas.getContext("2d");
  if (!context) throw new Error("the browser draws no picture");
  for (let y = 0; y * PAGE.tile < canvas.height; y++)
    for (let x = 0; x * PAGE.tile < canvas.width; x++) {
      const tile = await fetch(`/api/pages/${id}/${level}/${x}_${y}`);
      if (tile.ok) context.drawImage(await createImageBitmap(await tile.blob()), x * PAGE.tile, y * PAGE.tile);
    }
  return canvas.toDataURL("image/jpeg", 0.86);
}
