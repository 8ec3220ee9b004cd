import { issue, parseJson, type Issue } from "@radicula/core";
import type { z } from "zod";
import { isDatabaseGone, isDiskFull } from "./db/gone";
import { DATABASE_HEADER } from "@/ui/databaseHeader";
import { databaseId, readiness } from "./readiness";
import { unsaveable } from "./saveable";
import { UnreadableRow } from "./repo/rows";

/** Answers of the route handlers: JSON, never cached, expected failures as issues. */
export const answer = (body: unknown, status = 200) =>
  Response.json(body, { status, headers: { "Cache-Control": "no-store", [DATABASE_HEADER]: databaseId() } });
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
    if (isDiskFull(error)) return refuse(503, [issue("server.disk-full")]);
    return isDatabaseGone(error) ? refuse(503, [issue("server.database-gone")]) : refuse(500, [issue("server.failed")]);
  }
}

/**
 * Only JSON is taken: a page of another origin can send a form or plain text here unasked, but not this content type.
 */
const JSON_TYPE = /^application\/json\s*(;|$)/i;
export const isJson = (request: Request) => JSON_TYPE.test(request.headers.get("content-type") ?? "");
export const notJson = () => refuse(415, [issue("server.not-json")]);

/** Enough for what a form sends, in bytes. */
const FORM_BYTES = 100_000;
export type Body =
  | { readonly ok: true; readonly value: unknown; readonly text: string }
  | { readonly ok: false; readonly refused: Response };

/**
 * The JSON that a request brings; never more of it is read than the limit, and nothing is taken that cannot be saved.
 * Refused: 415 another content type · 413 too long · 422 no JSON, or characters that no database keeps.
 */
export async function jsonBody(request: Request, limit = FORM_BYTES): Promise<Body> {
  if (!isJson(request)) return { ok: false, refused: notJson() };
  const text = await limitedText(request, limit);
  if (text === undefined)
    return {
      ok: false,
      refused: refuse(413, [
        issue("file.too-large", [], {
          characters: Number(request.headers.get("content-length") ?? limit + 1),
          limit,
        }),
      ]),
    };
  const json = parseJson(text);
  if (!json.ok) return { ok: false, refused: refuse(422, json.issues) };
  const bad = unsaveable(json.value);
  if (bad) return { ok: false, refused: refuse(422, [issue("text.unsaveable", bad)]) };
  return { ok: true, value: json.value, text };
}

/** 422 with every place of a body that is not of its form. */
export const refuseBody = ({ issues }: z.ZodError): Response =>
  refuse(
    422,
    issues.map(({ path, message }) =>
      issue(
        "schema.request",
        path.map((p) => (typeof p === "symbol" ? String(p) : p)),
        { message },
      ),
    ),
  );

/**
 * How many times its limit, or bytes, a body is read and thrown away, so that the sender hears why before the line is
 * cut.
 */
const PATIENCE = { times: 4, bytes: 16e6 };
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
    if (size > Math.max(PATIENCE.times * limit, PATIENCE.bytes)) {
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
