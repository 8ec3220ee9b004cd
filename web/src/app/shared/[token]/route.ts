import { reportHtml } from "@radicula/core/words";
import { answering } from "@/server/answers";
import { dataUrls, photosIn, reportOf } from "@/server/report";
import { readShared } from "@/server/share";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";

/** A report for who has its address. Altered, ended or guessed: not found, and no more is said. */
export const GET = (_: Request, { params }: { params: Promise<{ token: string }> }) =>
  answering(async () => {
    const shared = await readShared((await params).token);
    const report = shared && (await reportOf(shared.job, shared.length));
    if (!report) return new Response(t("pages.notFound"), { status: 404, headers: { "Cache-Control": "no-store" } });
    return new Response(reportHtml(report, dataUrls(await photosIn(report))), {
      headers: {
        "Content-Type": "text/html; charset=utf-8",
        "Cache-Control": "no-store",
        "X-Robots-Tag": "noindex, nofollow",
        "Referrer-Policy": "no-referrer",
      },
    });
  });
