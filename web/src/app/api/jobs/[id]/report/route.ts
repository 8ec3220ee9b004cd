import { issue } from "@radicula/core";
import { REPORT_LENGTHS, reportHtml } from "@radicula/core/words";
import { z } from "zod";
import { answer, answering, refuse } from "@/server/answers";
import { dataUrls, pdfOf, photosIn, reportOf } from "@/server/report";
import { fileName } from "@/ui/text";

export const dynamic = "force-dynamic";
const Asked = z.object({
  as: z.enum(["html", "pdf", "json"]).default("html"),
  length: z.enum(REPORT_LENGTHS).default("customer"),
});

/** The report of a job as a file: ?as=html, pdf or json, ?length=customer, workshop or record. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const asked = Asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success) return refuse(400, [issue("schema.request", [], { message: "as, length" })]);
    const { as, length } = asked.data;
    const report = await reportOf((await params).id, length);
    if (!report) return refuse(404, [issue("server.no-such-job")]);
    if (as === "json") return answer(report);
    const photos = await photosIn(report);
    const isPdf = as === "pdf";
    const body = isPdf ? new Uint8Array(await pdfOf(report, photos)) : reportHtml(report, dataUrls(photos));
    return new Response(body, {
      headers: {
        "Content-Type": isPdf ? "application/pdf" : "text/html; charset=utf-8",
        "Cache-Control": "no-store",
        "Content-Disposition": `attachment; filename="${fileName(report.title, "report")}.${as}"`,
      },
    });
  });
