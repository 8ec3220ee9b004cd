import type { DrawingSheet } from "@radicula/core";
import { fileName } from "@/ui/text";
import type { Page } from "@/ui/page/fetchPage";
import { pictureOf } from "@/ui/page/pictureOf";

/** Longest side of the page's picture in the file, points. */
const LONGEST = 2400;

/** The page with everything drawn over it, as one SVG file. */
async function svgOf(sheet: DrawingSheet, page: Page, over: SVGGElement): Promise<string> {
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
  return URL.createObjectURL(new Blob([text], { type: "image/svg+xml" }));
}

/** Saves the page with everything drawn over it, to be sent or put away. */
export async function savePage(sheet: DrawingSheet, page: Page, over: SVGGElement): Promise<void> {
  const url = await svgOf(sheet, page, over);
  const a = document.createElement("a");
  a.href = url;
  a.download = `${fileName(sheet.name, "page")}.svg`;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Prints the page with everything drawn over it, and nothing else of the screen. */
export async function printPage(sheet: DrawingSheet, page: Page, over: SVGGElement): Promise<void> {
  const url = await svgOf(sheet, page, over);
  const paper = document.createElement("img");
  paper.className = "printed-page";
  paper.alt = "";
  paper.src = url;
  document.body.append(paper);
  try {
    await paper.decode();
    window.print();
  } finally {
    paper.remove();
    URL.revokeObjectURL(url);
  }
}
