import { fold, issue, seenBefore, toldCodes } from "@radicula/core";
import { answer, answering, refuse } from "@/server/answers";
import { entriesAfter } from "@/server/repo/entries";
import { findJob, JobId } from "@/server/repo/jobs";
import { learnedFor, listLessons } from "@/server/repo/lessons";

export const dynamic = "force-dynamic";
/** So many jobs like this one are given. */
const MOST = 20;

/** Closed jobs like this one, and what the notebook teaches it now; a practice job learns nothing from real ones. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = JobId.safeParse((await params).id);
    const job = id.success ? await findJob(id.data) : undefined;
    if (!job) return refuse(404, [issue("server.no-such-job")]);
    if (job.practice) return answer({ alike: [], learned: null });
    const [lessons, log, learned] = await Promise.all([listLessons(), entriesAfter(job.id, 0), learnedFor(job.wiring)]);
    const codes = toldCodes(fold(log)).map((c) => c.code);
    const here = new Map(lessons.map((kept) => [kept.lesson.id, kept.jobId]));
    const others = lessons.filter((kept) => kept.jobId !== job.id).map((kept) => kept.lesson);
    const alike = seenBefore(others, job.wiring, codes).slice(0, MOST);
    return answer({
      alike: alike.map((a) => ({ ...a, jobId: here.get(a.lesson.id) ?? null })),
      learned: learned ?? null,
    });
  });
