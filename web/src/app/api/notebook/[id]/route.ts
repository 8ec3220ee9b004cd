import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse, refuseBody } from "@/server/answers";
import { changeLesson } from "@/server/repo/lessons";

export const dynamic = "force-dynamic";
const Change = z
  .strictObject({ used: z.boolean().optional(), note: z.string().max(2000).optional() })
  .refine((c) => c.used !== undefined || c.note !== undefined, { message: "used, note" });

/** Says whether a lesson counts, and what is to be added to it. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const change = Change.safeParse(sent.value);
    if (!change.success) return refuseBody(change.error);
    const { id } = await params;
    const isThere = id.length <= 60 && (await changeLesson(id, change.data));
    return isThere ? answer({}) : refuse(404, [issue("server.no-such-lesson")]);
  });
