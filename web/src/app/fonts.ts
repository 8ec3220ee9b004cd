/* eslint max-len: off -- the framework takes whole strings only */
import localFont from "next/font/local";

/**
 * The letters of the program, shipped with it. The common ones are asked for with the page; where they come too late the
 * page stays as it was first drawn, so that nothing jumps.
 */
const sans = localFont({
  src: "../../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2",
  weight: "200 800",
  display: "optional",
  variable: "--font-sans",
});
const mono = localFont({
  src: "../../../node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2",
  weight: "200 800",
  display: "optional",
  variable: "--font-mono",
});
/** Letters of other Latin scripts: fetched where a page has one. */
const sansMore = localFont({
  src: "../../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2",
  weight: "200 800",
  display: "optional",
  variable: "--font-sans-more",
  preload: false,
  adjustFontFallback: false,
  declarations: [
    {
      prop: "unicode-range",
      value: "U+0100-02BA, U+02BD-02C5, U+02C7-02CC, U+02CE-02D7, U+02DD-02FF, U+1E00-1E9F, U+1EF2-1EFF, U+20A0-20AB",
    },
  ],
});
export const FONTS = `${sans.variable} ${mono.variable} ${sansMore.variable}`;
