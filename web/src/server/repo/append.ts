import { isDeepStrictEqual } from "node:util";
import { and, asc, eq, sql } from "drizzle-orm";
import {
  Entry,
  fold,
  issue,
  placedAfter,
  readEntries,
  renumbered,
  type Entry as EntryT,
  type Folded,
  type Issue,
} from "@radicula/core";
import { z } from "zod";
import { database, type Db } from "../db/connection";
import { entries, jobs } from "../db/schema";
import { entriesAfter } from "./entries";
import { wiringOf } from "./jobWirings";
import { outdateSummary } from "./summaries";

export type Appended =
  /** `missed`: what others had written meanwhile and the writer has not seen; it stands before what was saved */
  | { readonly status: "saved"; readonly last: number; readonly missed: readonly EntryT[] }
  /** somebody else wrote first: nothing was saved, here is what the writer has not seen */
  | { readonly status: "stale"; readonly last: number; readonly missed: readonly EntryT[] }
  | { readonly status: "refused"; readonly issues: readonly Issue[] }
  | { readonly status: "gone" };

/** What a writer sends: entries, how many stood before them as far as the writer knows, and an id for them. */
export interface Sent {
  readonly after: number;
  readonly batch: string;
  readonly entries: unknown;
  /** where others wrote meanwhile, saves them behind that and says so, instead of saving nothing */
  readonly join?: boolean | undefined;
}
/**
 * Appends entries after the last one the writer has seen, or, asked to join, after what others wrote meanwhile. The
 * job's row is locked meanwhile, so numbers never clash; a batch that was already saved (its answer got lost) is
 * answered as saved, not saved twice, and other entries under its id are refused.
 */
export async function appendEntries(id: string, { after, batch, entries: value, join }: Sent): Promise<Appended> {
  return database().transaction(async (tx): Promise<Appended> => {
    const [job] = await tx
      .select({ id: jobs.id, wiringId: jobs.wiringId, revision: jobs.revision })
      .from(jobs)
      .where(eq(jobs.id, id))
      .for("update");
    if (!job) return { status: "gone" };
    const [state] = await tx
      .select({
        last: sql<number>`coalesce(max(${entries.seq}), 0)::int`,
        mine: sql<number>`coalesce(max(${entries.seq}) filter (where ${entries.batch} = ${batch}), 0)::int`,
      })
      .from(entries)
      .where(eq(entries.jobId, id));
    const { last, mine } = state ?? { last: 0, mine: 0 };
    if (mine > 0) return sameBatch(tx, id, batch, value, mine);
    const missed = after < last ? await entriesAfter(id, after, tx) : [];
    if (after !== last && !(join && after < last)) return { status: "stale", last, missed };
    const wiring = await wiringOf(job, tx);
    if (!wiring) return { status: "gone" };
    const ours = missed.length ? placedBehind(value, after, missed.length) : value;
    const parsed = readEntries(wiring, ours, last);
    if (!parsed.ok) return { status: "refused", issues: parsed.issues };
    const left = parsed.value.some((e) => e.type === "closed")
      ? leftAtClosing(await entriesAfter(id, 0, tx), parsed.value)
      : [];
    if (left.length)
      return {
        status: "refused",
        issues: [issue("job.not-as-found", [], { things: [...new Set(left.map((d) => d.thing))] })],
      };
    await tx.insert(entries).values(parsed.value.map((body, i) => ({ jobId: id, seq: last + 1 + i, batch, body })));
    outdateSummary(id);
    return { status: "saved", last: last + parsed.value.length, missed };
  });
}

/** Entries as sent, with what they say of each other moved on; what does not read is left for the check to say. */
function placedBehind(value: unknown, after: number, count: number): unknown {
  const read = z.array(Entry).safeParse(value);
  return read.success ? placedAfter(read.data, after, count) : value;
}

/** A batch that is there already: the same entries, or others that somebody sends under its id. */
async function sameBatch(
  tx: Pick<Db, "select">,
  id: string,
  batch: string,
  value: unknown,
  last: number,
): Promise<Appended> {
  const kept = await tx
    .select({ body: entries.body })
    .from(entries)
    .where(and(eq(entries.jobId, id), eq(entries.batch, batch)))
    .orderBy(asc(entries.seq));
  const read = z.array(Entry).safeParse(value);
  // numbers in them may have been moved on when they were saved behind others
  const plain = (list: readonly unknown[]) => list.map((e) => renumbered(Entry.parse(e), () => 1));
  const isSame = read.success && isDeepStrictEqual(plain(kept.map((k) => k.body)), plain(read.data));
  return isSame ? { status: "saved", last, missed: [] } : { status: "refused", issues: [issue("entries.id-used")] };
}

/** What is not as it was found when a job is to be closed. */
function leftAtClosing(before: readonly EntryT[], more: readonly EntryT[]): Folded["open"] {
  return more.flatMap((e, i) => (e.type === "closed" ? fold([...before, ...more.slice(0, i)]).open : []));
}
