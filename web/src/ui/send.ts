import type { Issue } from "@radicula/core";

export type Posted<T> =
  { readonly ok: true; readonly body: T } | { readonly ok: false; readonly issues: readonly Issue[] };
const NO_ANSWER: readonly Issue[] = [{ code: "server.database-gone", path: [], params: {} }];

/** Sends JSON (or text that is JSON already) and gives back what came, or why not; no answer at all is a reason too. */
export async function post<T>(path: string, body: unknown = {}): Promise<Posted<T>> {
  try {
    const response = await fetch(path, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: typeof body === "string" ? body : JSON.stringify(body),
    });
    const answer = (await response.json()) as T & { issues?: readonly Issue[] };
    return response.ok ? { ok: true, body: answer } : { ok: false, issues: answer.issues ?? NO_ANSWER };
  } catch {
    return { ok: false, issues: NO_ANSWER };
  }
}
