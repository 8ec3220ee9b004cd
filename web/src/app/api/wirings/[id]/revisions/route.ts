import { compareWirings, issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { findRevision, freezeRevision, WiringId } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
const Note = z.strictObject({ note: z.string().max(400).default("") });
const RevisionNumber = z.coerce
  .number()
  .int()
  .min(1)
  .max(2 ** 31 - 1);
const Pair = z.object({ before: RevisionNumber, after: RevisionNumber });

/** What changed from ?before=N to ?after=N. */
export const GET = (request: Request, { params }: Context) =>
  answering(async () => {
    const id = WiringId.safeParse((await params).id);
    const pair = Pair.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    const both =
      id.success && pair.success
        ? await Promise.all([findRevision(id.data, pair.data.before), findRevision(id.data, pair.data.after)])
        : [];
    if (!both[0] || !both[1]) return refuse(404, [issue("server.no-such-wiring")]);
    return answer({ changes: compareWirings(both[0].wiring, both[1].wiring) });
  });

/** Freezes the draft as the next revision. */
export const POST = (request: Request, { params }: Context) =>
  answering(async () => {
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const id = WiringId.safeParse((await params).id);
    const note = Note.safeParse(sent.value);
    if (!note.success) return refuse(422, [issue("server.not-a-chart", [], { message: "note" })]);
    const frozen = id.success ? await freezeRevision(id.data, note.data.note) : undefined;
    return frozen ? answer({ number: frozen.number }, 201) : refuse(404, [issue("server.no-such-wiring")]);
  });
