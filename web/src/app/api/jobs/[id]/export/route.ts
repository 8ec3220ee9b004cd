import { issue } from "@radicula/core";
import { answering, refuse } from "@/server/answers";
import { exportCase, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

/** The whole case as one JSON file. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) => answering(async () => {
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await exportCase(id.data) : undefined;
  if (!job) return refuse(404, [issue("server.no-such-job")]);
  const name = `${job.machine ?? ""} ${job.title}`.trim().toLowerCase().replace(/[^a-z0-9]+/g, "-").slice(0, 60) || "case";
  return new Response(`${JSON.stringify(job, null, 1)}\n`, { headers: { "Content-Type": "application/json", "Cache-Control": "no-store", "Content-Disposition": `attachment; filename="${name}.case.json"` } });
});
