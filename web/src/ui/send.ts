import type { Issue } from "@radicula/core";
import { z } from "zod";

export type Posted<T> =
  { readonly ok: true; readonly body: T } | { readonly ok: false; readonly issues: readonly Issue[] };

const NO_ANSWER: readonly Issue[] = [{ code: "server.database-gone", path: [], params: {} }];
const STOPPED: readonly Issue[] = [{ code: "server.stopped", path: [], params: {} }];
const NOT_UNDERSTOOD: readonly Issue[] = [{ code: "server.answer-not-understood", path: [], params: {} }];

/** What a route of ours says when it refuses. */
export const RefusedAnswer = z.object({
  issues: z
    .array(
      z.object({
        code: z.string(),
        path: z.array(z.union([z.string(), z.number()])),
        params: z.record(z.string(), z.union([z.string(), z.number(), z.array(z.string())])),
      }),
    )
    .min(1),
});

/** What making a thing gives back: a job, with the wiring it is to be typed into; a wiring; a photo. */
export const Made = z.object({ id: z.string().min(1), wiringId: z.string().min(1).optional() });
/** Where only whether it was done is of interest. */
export const Done = z.unknown();

/**
 * Sends JSON and gives back what came, or why not; no answer at all, or one that does not read, is a reason too.
 * @param signal stops it; it is then refused with `server.stopped`
 */
export const post = <T>(path: string, body: unknown, schema: z.ZodType<T>, signal?: AbortSignal): Promise<Posted<T>> =>
  postAs("application/json", path, JSON.stringify(body), schema, signal);

/** As `post`, for what is changed as a whole. */
export const put = <T>(path: string, body: unknown, schema: z.ZodType<T>): Promise<Posted<T>> =>
  ask(path, { method: "PUT", headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) }, schema);

/** As `post`, for what is not JSON, or is already. */
export const postAs = <T>(
  type: string,
  path: string,
  body: BodyInit,
  schema: z.ZodType<T>,
  signal?: AbortSignal,
): Promise<Posted<T>> =>
  ask(path, { method: "POST", headers: { "Content-Type": type }, body, ...(signal ? { signal } : {}) }, schema);

/** Asks for what a route gives. */
export const get = <T>(path: string, schema: z.ZodType<T>): Promise<Posted<T>> => ask(path, undefined, schema);

async function ask<T>(path: string, how: RequestInit | undefined, schema: z.ZodType<T>): Promise<Posted<T>> {
  let response: Response;
  let answer: unknown;
  try {
    response = await (how ? fetch(path, how) : fetch(path));
    answer = await response.json();
  } catch {
    return { ok: false, issues: how?.signal?.aborted ? STOPPED : NO_ANSWER };
  }
  return answerOf(response.ok, answer, schema);
}

/** A parsed answer of one of our routes: what was asked for, or the reasons it gives. */
export function answerOf<T>(isOk: boolean, answer: unknown, schema: z.ZodType<T>): Posted<T> {
  if (!isOk) {
    const refusal = RefusedAnswer.safeParse(answer);
    return { ok: false, issues: refusal.success ? refusal.data.issues : NO_ANSWER };
  }
  const read = schema.safeParse(answer);
  return read.success ? { ok: true, body: read.data } : { ok: false, issues: NOT_UNDERSTOOD };
}
