import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse, refuseBody } from "@/server/answers";
import { entriesAfter } from "@/server/repo/entries";
import { appendEntries } from "@/server/repo/append";
import { signedEntries, signedIn } from "@/server/people/signedIn";
import { jobExists, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
/** As PostgreSQL counts. */
const MOST = 2 ** 31 - 1;
const EntryNumber = z.number().int().min(0).max(MOST);
const Append = z.object({ after: EntryNumber, batch: z.uuid(), entries: z.unknown(), join: z.boolean().optional() });
const LIMIT = 1_000_000;

/** Entries numbered above ?after=N. */
export const GET = (request: Request, { params }: Context) =>
  answering(async () => {
    const id = JobId.safeParse((await params).id);
    const after = z.coerce
      .number()
      .int()
      .min(0)
      .max(MOST)
      .safeParse(new URL(request.url).searchParams.get("after") ?? 0);
    if (!id.success || !after.success || !(await jobExists(id.data))) return refuse(404, [issue("server.no-such-job")]);
    return answer({ entries: await entriesAfter(id.data, after.data) });
  });

/** Appends a batch: 201 saved, with what others wrote before it · 409 stale, with what was missed · 422 refused. */
export const POST = (request: Request, { params }: Context) =>
  answering(async () => {
    const sent = await jsonBody(request, LIMIT);
    if (!sent.ok) return sent.refused;
    const id = JobId.safeParse((await params).id);
    if (!id.success) return refuse(404, [issue("server.no-such-job")]);
    const append = Append.safeParse(sent.value);
    if (!append.success) return refuseBody(append.error);
    const signed = signedEntries(append.data.entries, signedIn(request.headers)?.name);
    if (!signed.ok) return refuse(403, [issue("sign-in.of-another", [], { name: signed.by })]);
    const result = await appendEntries(id.data, { ...append.data, entries: signed.entries });
    switch (result.status) {
      case "saved":
        return answer({ last: result.last, missed: result.missed }, 201);
      case "stale":
        return answer({ last: result.last, missed: result.missed }, 409);
      case "refused":
        return refuse(422, result.issues);
      case "gone":
        return refuse(404, [issue("server.no-such-job")]);
    }
  });
