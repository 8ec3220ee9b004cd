import { answerPutAway } from "@/server/putAway";
import { putWiringAway } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

/** Archives or deletes a wiring, or puts it back in the library: `{ "where": "archived" | "deleted" | null }`. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answerPutAway(request, params, "server.no-such-wiring", putWiringAway);
