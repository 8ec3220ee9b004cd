import { issue, type Issue } from "@radicula/core";
import { isDatabaseGone } from "./db/gone";
import { readiness } from "./readiness";
import { UnreadableRow } from "./repo/rows";

/** Answers of the route handlers: JSON, never cached, expected failures as issues. */
export const answer = (body: unknown, status = 200) =>
  Response.json(body, { status, headers: { "Cache-Control": "no-store" } });
export const refuse = (status: number, issues: readonly Issue[]) => answer({ issues }, status);

const NOT_READY = {
  starting: "server.starting",
  "database-gone": "server.database-gone",
  "schema-newer": "server.schema-newer",
  failed: "server.failed",
} as const;

/**
 * Runs a handler once the database is up to date. A database that cannot be reached, or a row that does not read, is
 * said so; all else is a bug.
 */
export async function answering(handler: () => Promise<Response>): Promise<Response> {
  const ready = readiness();
  if (!ready.isReady) return refuse(503, [issue(NOT_READY[ready.why])]);
  try {
    return await handler();
  } catch (error) {
    console.error(error);
    if (error instanceof UnreadableRow) return refuse(500, [issue("server.unreadable-row", [], { what: error.what })]);
    return isDatabaseGone(error) ? refuse(503, [issue("server.database-gone")]) : refuse(500, [issue("server.failed")]);
  }
}

/**
 * Only JSON is taken: a page of another origin can send a form or plain text here unasked, but not this content type.
 */
export const isJson = (request: Request) => /^application\/json\b/i.test(request.headers.get("content-type") ?? "");
export const notJson = () => refuse(415, [issue("server.not-json")]);

/** How many times its limit a body is read and thrown away, so that the sender hears why before the line is cut. */
const PATIENCE = 4;
/** The request's body, or undefined where it is longer than the limit: never more than that is kept. */
export async function limitedBytes(request: Request, limit: number): Promise<Buffer | undefined> {
  const reader = request.body?.getReader();
  if (!reader) return Buffer.alloc(0);
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size <= limit) chunks.push(value);
    else chunks.length = 0;
    if (size > PATIENCE * limit) {
      await reader.cancel();
      break;
    }
  }
  return size > limit ? undefined : Buffer.concat(chunks);
}
/** As `limitedBytes`, as text. */
export async function limitedText(request: Request, limit: number): Promise<string | undefined> {
  const bytes = await limitedBytes(request, limit);
  return bytes && new TextDecoder().decode(bytes);
}
