/* eslint-disable max-len -- the path of a font is read at build time: it has to stand in one piece */
import localFont from "next/font/local";

/**
 * The letters of the program. A page waits a moment for them before it is first drawn; where they take longer it is
 * drawn in letters of the same width and stays so. Either way nothing jumps.
 */
const sans = localFont({
  src: "../../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2",
  weight: "200 800",
  display: "optional",
  variable: "--letters",
  adjustFontFallback: "Arial",
});
const mono = localFont({
  src: "../../../node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2",
  weight: "200 800",
  display: "optional",
  variable: "--figures",
  adjustFontFallback: false,
});
/** Goes on the root element: style sheets read the families from it. */
export const fontClasses = `${sans.variable} ${mono.variable}`;
