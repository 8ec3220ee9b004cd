import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { PDFParse } from "pdf-parse";
import { parseCase, type Case, type Entry, WorkshopSettings } from "../../src/index.js";
import { PDF_FONTS, reportPdf } from "../../pdf/reportPdf.js";
import { makeReport, reportFacts, reportHtml, type Report, type ReportLength } from "../../words/index.js";
import { demoText } from "../helpers.js";

const read = (file: string): Case => {
  const r = parseCase(demoText(file));
  if (!r.ok) throw new Error(JSON.stringify(r.issues));
  return r.value;
};
const proven = read("tug-4-inline-proven.case.json");
const settings = WorkshopSettings.parse({ name: "Skerrow Deep workshop", labourPerHour: 60, taxPercent: 20 });
const reportOf = (job: Case, length: ReportLength = "customer"): Report =>
  makeReport({ ...job, settings, facts: reportFacts(job.wiring, job.entries) }, length);
const textOf = (r: Report) =>
  reportHtml(r)
    .replace(/<style>.*<\/style>/s, "")
    .replace(/<[^>]+>/g, " ");
const require = createRequire(import.meta.url);
const fonts = {
  plain: readFileSync(require.resolve(PDF_FONTS.plain)),
  strong: readFileSync(require.resolve(PDF_FONTS.strong)),
};

describe("the report for the customer", () => {
  const text = textOf(reportOf(proven));
  test("says what was wrong, how it is known, what was done, how sure it is, and what was spared", () => {
    expect(text).toContain("Skerrow Deep workshop");
    expect(text).toContain("You told us: Lamps came on going up the ramp");
    expect(text).toContain("Terminal cleaned out, renewed and locked");
    expect(text).toMatch(/Reference at X5 cavity 4, side a: \d\.\d\d V before, \d\.\d\d V after/);
    expect(text).toMatch(/(Very likely cured|Cured) \(9\d %\)/);
    expect(text).toContain("they were not bought");
    expect(text).toContain("Stop where it is safe");
    expect(text).toContain("2026-11-10: still good");
  });
  test("counts work, parts and tax by the settings", () => {
    const only = reportOf({ ...proven, entries: proven.entries.filter((e) => e.type === "repaired") });
    // 25 min at 60 an hour, parts 3.40, 20 % tax: (25 + 3.4) * 1.2
    expect(textOf(only)).toMatch(
      /Work, 25 min\s+EUR 25\.00\s+Parts\s+EUR 3\.40\s+Tax, 20 %\s+EUR 5\.68\s+Sum\s+EUR 34\.08/,
    );
  });
  test("a job that is open says so, and claims nothing", () => {
    const open = textOf(reportOf({ ...proven, entries: proven.entries.filter((e) => e.type === "scan") }));
    expect(open).toContain("Job is open");
    expect(open).toContain("The cause is not known yet.");
    expect(open).toContain("Nothing was repaired, so nothing is proven.");
    expect(open).not.toMatch(/cured/i);
  });
  test("what could not be reproduced, and a brake, are never called fine", () => {
    const at = "2026-11-24T12:00:00Z";
    const intake = { type: "intake", at, intake: { safety: ["brake"] } };
    const closed = { type: "closed", at, because: "notReproduced", note: "Handed to the brake shop" };
    const job = { ...proven, entries: [intake, closed] };
    const again = parseCase(JSON.stringify(job));
    if (!again.ok) throw new Error(JSON.stringify(again.issues));
    const said = textOf(reportOf(again.value));
    expect(said).toContain("That does not mean that it is gone");
    expect(said).toContain("stop at once and do not drive on");
    expect(said).toContain("Handed to the brake shop");
  });
});

test("the longer reports hold the evidence and every entry; what is typed is never markup", () => {
  const note = "<img src=x onerror=alert(1)>";
  const job = { ...proven, entries: proven.entries.map((e) => (e.type === "scan" ? { ...e, note } : e)) };
  const workshop = reportHtml(reportOf(job, "workshop"));
  for (const heading of ["Codes", "Readings", "Verdict as it was given", "Proof"])
    expect(workshop).toContain(`<h2>${heading}</h2>`);
  const record = reportHtml(reportOf(job, "record"));
  expect(record).toContain("&lt;img src=x onerror=alert(1)&gt;");
  expect(record).not.toContain("<img");
  expect(record.match(/<tr>/g)!.length).toBeGreaterThan(job.entries.length);
});

test("a PDF: its text is selectable, headings are tagged, fonts are inside, a page and its number", async () => {
  const report = reportOf(proven, "workshop");
  const bytes = await reportPdf(report, fonts);
  const raw = Buffer.from(bytes).toString("latin1");
  expect(raw.startsWith("%PDF-1.7")).toBe(true);
  expect(raw).toContain("/Marked true");
  for (const tag of ["/S /H1", "/S /H2", "/S /P"]) expect(raw).toContain(tag);
  expect(raw).toMatch(/\/FontFile[23]/);
  const parser = new PDFParse({ data: bytes });
  const { text, pages } = await parser.getText();
  await parser.destroy();
  expect(text).toContain("Tug 4: Boost and lift lamps on the ramp");
  expect(text).toContain("Terminal cleaned out, renewed and locked");
  expect(pages[0]!.text).toContain(`1 / ${pages.length}`);
});

test("200 entries with 12 photos: under 3 MB", async () => {
  const photo = readFileSync(new URL("../../../../docs/screenshots/board.png", import.meta.url));
  const reading = proven.entries.find((e) => e.type === "reading")!;
  const look = (i: number): Entry => ({
    type: "look",
    at: reading.at,
    thing: "X5",
    found: ["green"],
    photo: `00000000-0000-4000-8000-0000000000${String(10 + i)}`,
  });
  const entries = [...Array.from({ length: 188 }, () => reading), ...Array.from({ length: 12 }, (_, i) => look(i))];
  const bytes = await reportPdf(reportOf({ ...proven, entries }, "workshop"), fonts, () => photo);
  expect(bytes.length).toBeLessThan(3_000_000);
});
