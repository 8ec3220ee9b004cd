import { answerGap, issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { findJob, JobId, moveJob } from "@/server/repo/jobs";
import { findWiring, saveDraft } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

const LookedUp = z.strictObject({ at: z.string().min(3).max(90), goesTo: z.string().trim().min(1).max(90) });

/**
 * Where the wire at a cavity goes, after it was looked up: it is put down in the wiring of the job, and the job goes on
 * with that. Refused: 404 no such job · 422 no such cavity, or no place · 409 changed meanwhile, or the logbook speaks
 * of what is no longer there.
 */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const body = await jsonBody(request);
    if (!body.ok) return body.refused;
    const told = LookedUp.safeParse(body.value);
    if (!told.success) return refuse(422, [issue("gap.not-understood")]);
    const id = JobId.safeParse((await params).id);
    const job = id.success ? await findJob(id.data) : undefined;
    const library = job?.library ? await findWiring(job.library.id) : undefined;
    if (!job || !library) return refuse(404, [issue("server.no-such-job")]);
    const known = answerGap(library.draft, told.data.at, told.data.goesTo);
    // where the drawing says it already, the job only moves on to that
    if (known?.issues.length) return refuse(422, known.issues);
    if (!known && library.revisions[0]?.draftSeq === library.draftSeq && job.library?.revision === job.library?.newest)
      return refuse(422, [issue("gap.not-open", [], { at: told.data.at })]);
    if (known) {
      const saved = await saveDraft(library.id, library.draftSeq, known.chart);
      if (saved.status !== "saved") return refuse(409, [issue("server.changed-meanwhile")]);
    }
    const moved = await moveJob(job.id);
    if (moved.status === "gone") return refuse(404, [issue("server.no-such-job")]);
    return moved.status === "moved" ? answer({ revision: moved.revision }) : refuse(409, moved.issues);
  });
