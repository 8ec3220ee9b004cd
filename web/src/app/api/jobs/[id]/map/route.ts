import { fold, issue, withScannedCodes } from "@radicula/core";
import { mapOf } from "@/features/case/map/query";
import { answer, answering, refuse } from "@/server/answers";
import { entriesAfter, findJob, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

/** The root map, laid out for the codes logged so far. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = JobId.safeParse((await params).id);
    const job = id.success ? await findJob(id.data) : undefined;
    if (!job) return refuse(404, [issue("server.no-such-job")]);
    const entries = await entriesAfter(job.id, 0);
    return answer(
      await mapOf(
        withScannedCodes(job.wiring, entries),
        fold(entries).codes.map((c) => c.entry),
      ),
    );
  });
