import type { Entry } from "@radicula/core";
import { Entry as EntrySchema } from "@radicula/core";
import { z } from "zod";

/** Entries on their way to the database, kept on this device until it has them. */
export const Batch = z.object({ batch: z.uuid(), after: z.number().int(), entries: z.array(EntrySchema) });
export type Batch = z.infer<typeof Batch>;

export type SendResult =
  | { readonly status: "saved"; readonly last: number }
  | {
      readonly status: "stale";
      readonly missed: readonly Entry[];
      /** how many entries the database has */ readonly last: number;
    }
  | {
      readonly status: "refused";
      readonly issues: readonly {
        code: string;
        path: (string | number)[];
        params: Record<string, string | number | string[]>;
      }[];
    }
  /** no answer, or the database is gone: try again */
  | { readonly status: "unreachable" };

const Issues = z.object({
  issues: z.array(
    z.object({
      code: z.string(),
      path: z.array(z.union([z.string(), z.number()])),
      params: z.record(z.string(), z.union([z.string(), z.number(), z.array(z.string())])),
    }),
  ),
});
const Missed = z.object({ missed: z.array(EntrySchema), last: z.number().int() });
const Last = z.object({ last: z.number().int() });

/** Sends one batch. Sending the same batch twice is safe: the server keeps it once. */
export async function send(jobId: string, batch: Batch, fetcher: typeof fetch = fetch): Promise<SendResult> {
  try {
    const response = await fetcher(`/api/jobs/${jobId}/entries`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(batch),
    });
    const body: unknown = await response.json();
    if (response.status === 201) return { status: "saved", last: Last.parse(body).last };
    if (response.status === 409) return { status: "stale", ...Missed.parse(body) };
    if (response.status >= 500) return { status: "unreachable" };
    return { status: "refused", issues: Issues.parse(body).issues };
  } catch {
    return { status: "unreachable" };
  }
}

/**
 * Entries that others wrote meanwhile come first, ours after them. What ours say of each other by number (an undo, a
 * correction, readings moved) keeps meaning the same entries.
 * @param at how many entries stand before ours @param count how many came in between
 */
export function placeAfterOthers(queue: readonly Batch[], at: number, count: number): Batch[] {
  const moved = (n: number) => (n > at ? n + count : n);
  return queue.map((b) => ({
    ...b,
    after: b.after + count,
    entries: b.entries.map((e): Entry =>
      e.type === "undo"
        ? { ...e, target: moved(e.target) }
        : e.type === "moved"
          ? { ...e, readings: e.readings.map(moved) }
          : e.type === "reading" && e.corrects !== undefined
            ? { ...e, corrects: moved(e.corrects) }
            : e,
    ),
  }));
}

const prefix = (jobId: string) => `radicula.outbox.${jobId}.`;
/**
 * One place for each batch, so that two windows never write over each other; the places sort in the order they were
 * made.
 */
const keyOf = (jobId: string, b: Batch) => `${prefix(jobId)}${String(b.after).padStart(7, "0")}.${b.batch}`;
/** What this device still has to send, from this window or an earlier visit, in order. Rubbish is left where it is. */
export function keptBatches(jobId: string, storage: Storage): Batch[] {
  const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? "")
    .filter((k) => k.startsWith(prefix(jobId)))
    .sort();
  return keys.flatMap((k) => {
    try {
      const parsed = Batch.safeParse(JSON.parse(storage.getItem(k) ?? ""));
      return parsed.success ? [parsed.data] : [];
    } catch {
      return [];
    }
  });
}
/** @returns false where the device has no room: then the entry lives in this window only */
export function keepBatch(jobId: string, batch: Batch, storage: Storage): boolean {
  dropBatch(jobId, batch, storage);
  try {
    storage.setItem(keyOf(jobId, batch), JSON.stringify(batch));
    return true;
  } catch {
    return false;
  }
}
export function dropBatch(jobId: string, batch: Pick<Batch, "batch">, storage: Storage): void {
  for (let i = storage.length - 1; i >= 0; i--) {
    const k = storage.key(i);
    if (k?.startsWith(prefix(jobId)) && k.endsWith(batch.batch)) storage.removeItem(k);
  }
}
