import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "./answers";
import { PUT_AWAY, type PutAway } from "./db/schema";

const Away = z.strictObject({ where: z.enum(PUT_AWAY).nullable() });
const LARGEST_BODY = 1000;

/**
 * Answers a request to archive or delete a thing, or to put it back. Nothing is erased.
 * @param put does it; false where there is no such thing
 */
export const answerPutAway = (
  request: Request,
  params: Promise<{ id: string }>,
  noSuch: "server.no-such-job" | "server.no-such-wiring",
  put: (id: string, where: PutAway | null) => Promise<boolean>,
): Promise<Response> =>
  answering(async () => {
    const id = z.uuid().safeParse((await params).id);
    if (!id.success) return refuse(404, [issue(noSuch)]);
    const sent = await jsonBody(request, LARGEST_BODY);
    if (!sent.ok) return sent.refused;
    const asked = Away.safeParse(sent.value);
    if (!asked.success) return refuse(422, [issue("away.not-understood")]);
    return (await put(id.data, asked.data.where)) ? answer({}) : refuse(404, [issue(noSuch)]);
  });
