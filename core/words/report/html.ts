import { readerLanguage } from "../language.js";
import type { Block, Report } from "./blocks.js";

const ESCAPES: Readonly<Record<string, string>> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&#39;",
};
const safe = (text: string) => text.replace(/[&<>"']/g, (c) => ESCAPES[c]!);

const STYLE = `
body { font: 16px/1.45 "Atkinson Hyperlegible", system-ui, sans-serif; color: #23241f; background: #fff; }
body { max-width: 46rem; margin: 2rem auto; padding: 0 1.5rem; overflow-wrap: anywhere; }
h1 { font-size: 1.6rem; margin: 1rem 0 0.3rem; }
h2 { font-size: 1.15rem; margin: 1.4rem 0 0.3rem; }
header p { margin: 0; }
dl { display: grid; grid-template-columns: max-content 1fr; gap: 0.1rem 1rem; margin: 0.4rem 0; }
dt { color: #5c5d54; }
dd { margin: 0; }
table { border-collapse: collapse; width: 100%; font-size: 0.9rem; }
th, td { text-align: left; vertical-align: top; padding: 0.25rem 0.6rem 0.25rem 0; border-top: 1px solid #ddd9cc; }
.caution { border-left: 4px solid #a33b1b; background: #fbeee8; padding: 0.4rem 0.8rem; margin: 0.4rem 0; }
figure { margin: 0.6rem 0; }
figure img { max-width: 100%; max-height: 20rem; }
footer { color: #5c5d54; font-size: 0.85rem; margin-top: 2rem; }
@media print {
  body { margin: 0; max-width: none; }
  h2 { break-after: avoid; }
  tr, figure, .caution { break-inside: avoid; }
}
`;

/**
 * A report as one page of HTML, complete in itself: no scripts, nothing fetched but its pictures.
 * @param photo where the picture of a name is; without it pictures are left out
 */
export function reportHtml(report: Report, photo?: (id: string) => string | undefined): string {
  const letterhead = report.letterhead.map((l, i) => (i === 0 ? `<p><b>${safe(l)}</b></p>` : `<p>${safe(l)}</p>`));
  const sections = report.sections.map((s) => {
    const blocks = s.blocks.map((b) => blockHtml(b, photo));
    return `<section>\n<h2>${safe(s.heading)}</h2>\n${blocks.join("\n")}\n</section>`;
  });
  return `<!doctype html>
<html lang="${readerLanguage()}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${safe(report.title)}</title>
<style>${STYLE}</style>
</head>
<body>
<header>${letterhead.join("")}</header>
<main>
<h1>${safe(report.title)}</h1>
${factsHtml(report.facts)}
${sections.join("\n")}
</main>
<footer><p>${safe(report.foot)}</p></footer>
</body>
</html>
`;
}
const factsHtml = (rows: readonly (readonly [string, string])[]) =>
  `<dl>${rows.map(([name, value]) => `<dt>${safe(name)}</dt><dd>${safe(value)}</dd>`).join("")}</dl>`;

function blockHtml(b: Block, photo: ((id: string) => string | undefined) | undefined): string {
  switch (b.kind) {
    case "text":
      return b.strong ? `<p><b>${safe(b.text)}</b></p>` : `<p>${safe(b.text)}</p>`;
    case "caution":
      return `<p class="caution">${safe(b.text)}</p>`;
    case "list":
      return `<ul>${b.items.map((i) => `<li>${safe(i)}</li>`).join("")}</ul>`;
    case "facts":
      return factsHtml(b.rows);
    case "table": {
      const head = b.head.map((h) => (h ? `<th scope="col">${safe(h)}</th>` : "<td></td>")).join("");
      const rows = b.rows.map((r) => `<tr>${r.map((c) => `<td>${safe(c)}</td>`).join("")}</tr>`).join("");
      return `<table><thead><tr>${head}</tr></thead><tbody>${rows}</tbody></table>`;
    }
    case "photo": {
      const src = photo?.(b.id);
      if (src === undefined) return "";
      return (
        `<figure><img src="${safe(src)}" alt="${safe(b.caption)}">` +
        `<figcaption>${safe(b.caption)}</figcaption></figure>`
      );
    }
  }
}
