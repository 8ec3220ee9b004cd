import { fold, issue } from "@radicula/core";
import { mapOf } from "@/features/case/map/query";
import { answer, answering, refuse } from "@/server/answers";
import { entriesAfter, findJob, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

/** The root map, laid out for the codes logged so far. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) => answering(async () => {
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  if (!job) return refuse(404, [issue("server.no-such-job")]);
  return answer(await mapOf(job.wiring, fold(await entriesAfter(job.id, 0)).codes.map((c) => c.entry)));
});
