import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { join } from "node:path";
import { withScannedCodes } from "@radicula/core";
import { PDF_FONTS, type PdfFonts } from "@radicula/core/pdf";
import { makeReport, reportFacts, type Report, type ReportLength } from "@radicula/core/words";
import { env } from "@/env";
import { entriesAfter } from "./repo/entries";
import { findJob, JobId } from "./repo/jobs";
import { findPhoto } from "./repo/photos";
import { workshopSettings } from "./repo/workshop";

/** The report of a job, from its logbook. Of an open job it is a draft: nothing is weighed here. */
export async function reportOf(id: string, length: ReportLength): Promise<Report | undefined> {
  const known = JobId.safeParse(id);
  const job = known.success ? await findJob(known.data) : undefined;
  if (!job) return undefined;
  const [entries, settings] = await Promise.all([entriesAfter(job.id, 0), workshopSettings()]);
  const wiring = withScannedCodes(job.wiring, entries);
  const { title, machine, complaint } = job;
  return makeReport(
    {
      title,
      ...(machine ? { machine } : {}),
      ...(complaint ? { complaint } : {}),
      wiring,
      entries,
      settings,
      facts: reportFacts(wiring, entries),
    },
    length,
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
export const pdfFonts = (): Promise<PdfFonts> => (letters ??= readLetters());
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
