import type { Entry } from "@radicula/core";
import { Entry as EntrySchema } from "@radicula/core";
import { z } from "zod";

/** Entries on their way to the database, kept on this device until it has them. */
export const Batch = z.object({ batch: z.uuid(), after: z.number().int(), entries: z.array(EntrySchema) });
export type Batch = z.infer<typeof Batch>;

export type Sent =
  | { readonly status: "saved"; readonly last: number }
  | { readonly status: "stale"; readonly missed: readonly Entry[] }
  | { readonly status: "refused"; readonly issues: readonly { code: string; path: (string | number)[]; params: Record<string, string | number | string[]> }[] }
  /** no answer, or the database is gone: try again */
  | { readonly status: "unreachable" };

const Issues = z.object({ issues: z.array(z.object({ code: z.string(), path: z.array(z.union([z.string(), z.number()])), params: z.record(z.string(), z.union([z.string(), z.number(), z.array(z.string())])) })) });
const Missed = z.object({ missed: z.array(EntrySchema) });
const Last = z.object({ last: z.number().int() });

/** Sends one batch. Sending the same batch twice is safe: the server keeps it once. */
export async function send(jobId: string, batch: Batch, fetcher: typeof fetch = fetch): Promise<Sent> {
  try {
    const response = await fetcher(`/api/jobs/${jobId}/entries`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(batch) });
    const body: unknown = await response.json();
    if (response.status === 201) return { status: "saved", last: Last.parse(body).last };
    if (response.status === 409) return { status: "stale", missed: Missed.parse(body).missed };
    if (response.status >= 500) return { status: "unreachable" };
    return { status: "refused", issues: Issues.parse(body).issues };
  } catch {
    return { status: "unreachable" };
  }
}

const key = (jobId: string) => `radicula.outbox.${jobId}`;
/** What this device still has to send, from an earlier visit. */
export function keptBatch(jobId: string, storage: Storage): Batch | undefined {
  const text = storage.getItem(key(jobId));
  if (!text) return undefined;
  try {
    const parsed = Batch.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : undefined;
  } catch { return undefined; }
}
export const keepBatch = (jobId: string, batch: Batch, storage: Storage) => storage.setItem(key(jobId), JSON.stringify(batch));
export const dropBatch = (jobId: string, storage: Storage) => storage.removeItem(key(jobId));
