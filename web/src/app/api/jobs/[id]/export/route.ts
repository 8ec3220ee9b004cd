import { issue } from "@radicula/core";
import { logbookCsv } from "@radicula/core/words";
import { answering, refuse } from "@/server/answers";
import { exportCase, findJob, JobId } from "@/server/repo/jobs";
import { wholePages } from "@/server/repo/pages";
import { photosOf } from "@/server/repo/photos";
import { fileName } from "@/ui/text";
import { wholeRecordings } from "@/server/repo/recordings";
import { writeZip, ZIP } from "@/server/zip";

export const dynamic = "force-dynamic";

/**
 * The whole case as one JSON file, with ?as=zip as a zip with the photos and pages of its wiring and its recordings,
 * with ?as=csv its logbook as a table.
 */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = JobId.safeParse((await params).id);
    const job = id.success ? await exportCase(id.data) : undefined;
    if (!job) return refuse(404, [issue("server.no-such-job")]);
    const name = fileName(`${job.machine ?? ""} ${job.title}`, "case");
    const text = `${JSON.stringify(job, null, 1)}\n`;
    const as = new URL(request.url).searchParams.get("as");
    if (as === "csv")
      return new Response(`\ufeff${logbookCsv(job.entries)}`, {
        headers: {
          "Content-Type": "text/csv; charset=utf-8",
          "Cache-Control": "no-store",
          "Content-Disposition": `attachment; filename="${name}.csv"`,
        },
      });
    if (as === "zip") {
      const library = (await findJob(id.success ? id.data : ""))?.library;
      const zip = await writeZip(
        text,
        library ? await photosOf(library.id) : [],
        await wholeRecordings(id.success ? id.data : "", ZIP.bytes / 2),
        await wholePages(
          (job.wiring.pages?.sheets ?? []).map((s) => s.id),
          ZIP.bytes / 3,
        ),
      );
      return new Response(new Uint8Array(zip), {
        headers: {
          "Content-Type": "application/zip",
          "Cache-Control": "no-store",
          "Content-Disposition": `attachment; filename="${name}.zip"`,
        },
      });
    }
    return new Response(text, {
      headers: {
        "Content-Type": "application/json",
        "Cache-Control": "no-store",
        "Content-Disposition": `attachment; filename="${name}.case.json"`,
      },
    });
  });
