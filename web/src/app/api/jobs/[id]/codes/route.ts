import { buildChart, issue, withScannedCodes } from "@radicula/core";
import { answer, answering, isJson, notJson, refuse } from "@/server/answers";
import { entriesAfter } from "@/server/repo/entries";
import { findJob, JobId } from "@/server/repo/jobs";
import { findWiring, saveDraft } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

/** Keeps the codes that scans of this job added with its wiring, for the next job on such a machine. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    if (!isJson(request)) return notJson();
    const id = JobId.safeParse((await params).id);
    const job = id.success ? await findJob(id.data) : undefined;
    const library = job?.library ? await findWiring(job.library.id) : undefined;
    if (!job || !library) return refuse(404, [issue("server.no-such-job")]);
    const { wiring } = buildChart(library.draft);
    const codes = withScannedCodes(wiring, await entriesAfter(job.id, 0)).codes.slice(wiring.codes.length);
    if (codes.length === 0) return answer({ kept: 0 });
    const saved = await saveDraft(library.id, library.draftSeq, {
      ...library.draft,
      codes: [...library.draft.codes, ...codes],
    });
    return saved.status === "saved" ? answer({ kept: codes.length }) : refuse(409, [issue("server.changed-meanwhile")]);
  });
