import { issue } from "@radicula/core";
import { answer, answering, isJson, notJson, refuse } from "@/server/answers";
import { JobId, moveJob } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

/** Moves the job to the newest state of its wiring; refused where the logbook speaks of things that state lacks. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    if (!isJson(request)) return notJson();
    const id = JobId.safeParse((await params).id);
    const moved = id.success ? await moveJob(id.data) : undefined;
    if (!moved || moved.status === "gone") return refuse(404, [issue("server.no-such-job")]);
    return moved.status === "moved" ? answer({ revision: moved.revision }) : refuse(409, moved.issues);
  });
