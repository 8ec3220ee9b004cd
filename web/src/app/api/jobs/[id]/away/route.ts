import { answerPutAway } from "@/server/putAway";
import { putJobAway } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

/** Archives or deletes a job, or puts it back on the board: `{ "where": "archived" | "deleted" | null }`. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answerPutAway(request, params, "server.no-such-job", putJobAway);
