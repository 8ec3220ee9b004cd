import { issue } from "@radicula/core";
import { REPORT_LENGTHS } from "@radicula/core/words";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { findJob, JobId } from "@/server/repo/jobs";
import { signShared } from "@/server/share";

export const dynamic = "force-dynamic";
const MOST_DAYS = 90;
const Asked = z.strictObject({
  length: z.enum(REPORT_LENGTHS),
  days: z.number().int().min(1).max(MOST_DAYS).default(30),
});

/** Makes an address at which the report of a job is read without signing in, until it ends. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const sent = await jsonBody(request, 1000);
    if (!sent.ok) return sent.refused;
    const id = JobId.safeParse((await params).id);
    const job = id.success ? await findJob(id.data) : undefined;
    if (!job) return refuse(404, [issue("server.no-such-job")]);
    const asked = Asked.safeParse(sent.value);
    if (!asked.success)
      return refuse(422, [issue("schema.request", [], { message: asked.error.issues[0]?.message ?? "" })]);
    const { length, days } = asked.data;
    return answer({ path: `/shared/${await signShared({ job: job.id, length }, days)}`, days }, 201);
  });
