import { Chart, issue, MAX_CHARACTERS } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { findWiring, saveDraft, WiringId } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
const Save = z.strictObject({
  seq: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1),
  chart: Chart,
});

export const GET = (_request: Request, { params }: Context) =>
  answering(async () => {
    const id = WiringId.safeParse((await params).id);
    const found = id.success ? await findWiring(id.data) : undefined;
    return found ? answer({ seq: found.draftSeq, chart: found.draft }) : refuse(404, [issue("server.no-such-wiring")]);
  });

/** Saves the chart people are working on: 200 with the new count · 409 when another window saved first. */
export const PUT = (request: Request, { params }: Context) =>
  answering(async () => {
    const sent = await jsonBody(request, MAX_CHARACTERS);
    if (!sent.ok) return sent.refused;
    const id = WiringId.safeParse((await params).id);
    if (!id.success) return refuse(404, [issue("server.no-such-wiring")]);
    const body = Save.safeParse(sent.value);
    if (!body.success)
      return refuse(422, [issue("server.not-a-chart", [], { message: body.error.issues[0]?.message ?? "" })]);
    const saved = await saveDraft(id.data, body.data.seq, body.data.chart);
    if (saved.status === "gone") return refuse(404, [issue("server.no-such-wiring")]);
    return answer({ seq: saved.seq }, saved.status === "saved" ? 200 : 409);
  });
