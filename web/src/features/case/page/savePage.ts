import type { DrawingSheet } from "@radicula/core";
import { fileName } from "@/ui/text";
import type { Page } from "@/ui/page/fetchPage";
import { pictureOf } from "@/ui/page/pictureOf";

/** Longest side of the page's picture in the file, points. */
const LONGEST = 2400;

/** The page with everything drawn over it, as one SVG file to print or to send. */
export async function savePage(sheet: DrawingSheet, page: Page, over: SVGGElement): Promise<void> {
  const whole = { x: 0, y: 0, width: page.width, height: page.height };
  const picture = (await pictureOf(sheet.id, page, whole, LONGEST)).toDataURL("image/jpeg", 0.86);
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
