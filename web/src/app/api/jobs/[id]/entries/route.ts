import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, isJson, limitedText, notJson, refuse } from "@/server/answers";
import { entriesAfter } from "@/server/repo/entries";
import { appendEntries, jobExists, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
const Append = z.object({ after: z.number().int().min(0), batch: z.uuid(), entries: z.unknown() });
const LIMIT = 1_000_000;

/** Entries numbered above ?after=N. */
export const GET = (request: Request, { params }: Context) =>
  answering(async () => {
    const id = JobId.safeParse((await params).id);
    const after = z.coerce
      .number()
      .int()
      .min(0)
      .safeParse(new URL(request.url).searchParams.get("after") ?? 0);
    if (!id.success || !after.success || !(await jobExists(id.data))) return refuse(404, [issue("server.no-such-job")]);
    return answer({ entries: await entriesAfter(id.data, after.data) });
  });

/** Appends a batch: 201 saved · 409 stale, with what was missed · 422 refused. */
export const POST = (request: Request, { params }: Context) =>
  answering(async () => {
    if (!isJson(request)) return notJson();
    const id = JobId.safeParse((await params).id);
    if (!id.success) return refuse(404, [issue("server.no-such-job")]);
    const text = await limitedText(request, LIMIT);
    let body: unknown;
    try {
      body = JSON.parse(text ?? "");
    } catch {
      return refuse(400, [issue("file.not-json", [], { line: 1, column: 1 })]);
    }
    const append = Append.safeParse(body);
    if (!append.success)
      return refuse(
        400,
        append.error.issues.map((i) =>
          issue(
            "schema.request",
            i.path.map((p) => (typeof p === "symbol" ? String(p) : p)),
            { message: i.message },
          ),
        ),
      );
    const result = await appendEntries(id.data, append.data.after, append.data.batch, append.data.entries);
    switch (result.status) {
      case "saved":
        return answer({ last: result.last }, 201);
      case "stale":
        return answer({ last: result.last, missed: result.missed }, 409);
      case "refused":
        return refuse(422, result.issues);
      case "gone":
        return refuse(404, [issue("server.no-such-job")]);
    }
  });
