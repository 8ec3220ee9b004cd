import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { join } from "node:path";
import { withScannedCodes } from "@radicula/core";
import { PDF_FONTS, type PdfFonts } from "@radicula/core/pdf";
import { readerLanguage, type Report, type ReportLength, type ReportSource } from "@radicula/core/words";
import { env } from "@/env";
import { entriesAfter } from "./repo/entries";
import { findJob, JobId } from "./repo/jobs";
import { findPhoto } from "./repo/photos";
import { workshopSettings } from "./repo/workshop";
import { threadsOf } from "./threads";

/** The report of a job, from its logbook. Of an open job it is a draft: nothing is weighed here. */
export async function reportOf(id: string, length: ReportLength): Promise<Report | undefined> {
  const known = JobId.safeParse(id);
  const job = known.success ? await findJob(known.data) : undefined;
  if (!job) return undefined;
  const [entries, settings] = await Promise.all([entriesAfter(job.id, 0), workshopSettings()]);
  const { title, machine, complaint } = job;
  const source: Omit<ReportSource, "facts"> = {
    title,
    ...(machine ? { machine } : {}),
    ...(complaint ? { complaint } : {}),
    wiring: withScannedCodes(job.wiring, entries),
    entries,
    settings,
  };
  return threadsOf<unknown, Report>(THREAD).run({ source, length, language: readerLanguage() }, { name: "report" });
}
/** Makes reports and PDFs. */
const THREAD = "makeReport.mjs";

/** A report on paper, with its pictures. */
export async function pdfOf(report: Report, photos: ReadonlyMap<string, Buffer>): Promise<Uint8Array> {
  const fonts = await pdfFonts();
  return threadsOf<unknown, Uint8Array>(THREAD).run(
    { made: report, fonts, photos, language: readerLanguage() },
    { name: "pdf" },
  );
}

/** The pictures a report shows, by name; one that is gone is left out. */
export async function photosIn(report: Report): Promise<ReadonlyMap<string, Buffer>> {
  const ids = report.sections.flatMap((s) => s.blocks.flatMap((b) => (b.kind === "photo" ? [b.id] : [])));
  const found = await Promise.all(ids.map(async (id) => [id, await findPhoto(id)] as const));
  return new Map(found.flatMap(([id, jpeg]) => (jpeg ? [[id, jpeg] as const] : [])));
}

/** The letters that go into a PDF; read once. */
let letters: Promise<PdfFonts> | undefined;
const pdfFonts = (): Promise<PdfFonts> => (letters ??= readLetters());
async function readLetters(): Promise<PdfFonts> {
  const { resolve } = createRequire(join(env().RADICULA_ROOT, "core", "package.json"));
  const [plain, strong] = await Promise.all([readFile(resolve(PDF_FONTS.plain)), readFile(resolve(PDF_FONTS.strong))]);
  return { plain, strong };
}

/** As a page that needs nothing else: pictures are inside it. */
export const dataUrls = (photos: ReadonlyMap<string, Buffer>) => (id: string) => {
  const jpeg = photos.get(id);
  return jpeg && `data:image/jpeg;base64,${jpeg.toString("base64")}`;
};
