// Writes the letters of the program into a style sheet, before the pages are built. The common ones are small and stand
// in the sheet itself, so that they are there when a page is first drawn: nothing jumps, and nobody sees other letters
// first. Those of other Latin scripts are fetched by pages that have one.
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const web = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
const packages = "../../node_modules/@fontsource-variable";
const OTHER_LATIN =
  "U+0100-02BA, U+02BD-02C5, U+02C7-02CC, U+02CE-02D7, U+02DD-02FF, U+1E00-1E9F, U+1EF2-1EFF, U+20A0-20AB";

const file = (name, letters) =>
  `${packages}/atkinson-hyperlegible-${name}/files/atkinson-hyperlegible-${name}-${letters}-wght-normal.woff2`;
const inSheet = (path) => `data:font/woff2;base64,${readFileSync(join(web, ".generated", path)).toString("base64")}`;
const face = (family, source, more = "") => `@font-face {
  font-family: "${family}";
  font-weight: 200 800;
  src: url("${source}") format("woff2");${more}
}
`;

mkdirSync(join(web, ".generated"), { recursive: true });
writeFileSync(
  join(web, ".generated", "fonts.css"),
  face("Radicula Sans", file("next", "latin-ext"), `\n  font-display: swap;\n  unicode-range: ${OTHER_LATIN};`) +
    face("Radicula Sans", inSheet(file("next", "latin"))) +
    face("Radicula Mono", inSheet(file("mono", "latin"))),
);
