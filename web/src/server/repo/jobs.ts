import { and, asc, eq, gt, sql } from "drizzle-orm";
import { Entry, fail, fold, issue, readEntries, readWiring, type Case, type Entry as EntryT, type Issue, type Wiring } from "@radicula/core";
import { z } from "zod";
import { database, type Db } from "../db/connection";
import { entries, jobs } from "../db/schema";

/** A simulated machine: which fault, how bad, and the seed of its true values. */
export const Hidden = z.object({ fault: z.string(), ohm: z.number().positive().nullable(), seed: z.number().int() });
export type Hidden = z.infer<typeof Hidden>;

export interface Job {
  readonly id: string;
  readonly title: string;
  readonly machine: string | null;
  readonly complaint: string | null;
  readonly wiring: Wiring;
  readonly practice: boolean;
}
export interface JobSummary {
  readonly id: string;
  readonly title: string;
  readonly machine: string | null;
  readonly complaint: string | null;
  readonly practice: boolean;
  readonly createdAt: string;
  readonly codes: readonly string[];
  readonly readings: number;
  readonly verdict: string | null;
  readonly disturbed: readonly string[];
  readonly lastAt: string | null;
}
export const JobId = z.uuid();

export async function listJobs(): Promise<JobSummary[]> {
  const db = database();
  const [rows, log] = await Promise.all([db.select({ id: jobs.id, title: jobs.title, machine: jobs.machine, complaint: jobs.complaint, hidden: jobs.hidden, createdAt: jobs.createdAt }).from(jobs).orderBy(asc(jobs.createdAt)), db.select().from(entries).orderBy(asc(entries.seq))]);
  const byJob = groupBy(log);
  return rows.map((row) => {
    const list = (byJob.get(row.id) ?? []).map((e) => Entry.parse(e.body));
    const folded = fold(list);
    return {
      id: row.id, title: row.title, machine: row.machine, complaint: row.complaint, practice: row.hidden !== null, createdAt: row.createdAt.toISOString(),
      codes: folded.codes.filter((c) => c.entry.status !== "absent").map((c) => c.entry.code), readings: folded.readings.length,
      verdict: folded.verdict?.entry.text ?? null, disturbed: folded.disturbed, lastAt: list.at(-1)?.at ?? null,
    };
  });
}
function groupBy<T extends { jobId: string }>(list: readonly T[]): Map<string, T[]> {
  const map = new Map<string, T[]>();
  for (const item of list) map.set(item.jobId, [...(map.get(item.jobId) ?? []), item]);
  return map;
}

export async function findJob(id: string): Promise<Job | undefined> {
  const [row] = await database().select().from(jobs).where(eq(jobs.id, id));
  if (!row) return undefined;
  const wiring = readWiring(row.wiring);
  if (!wiring.ok) throw new Error(`job ${id} holds a wiring that no longer reads: ${wiring.issues[0]?.code ?? ""}`);
  return { id: row.id, title: row.title, machine: row.machine, complaint: row.complaint, wiring: wiring.value, practice: row.hidden !== null };
}

export async function jobExists(id: string): Promise<boolean> {
  return (await database().select({ id: jobs.id }).from(jobs).where(eq(jobs.id, id))).length > 0;
}

export async function hiddenOf(id: string): Promise<Hidden | undefined> {
  const [row] = await database().select({ hidden: jobs.hidden }).from(jobs).where(eq(jobs.id, id));
  return row?.hidden ? Hidden.parse(row.hidden) : undefined;
}

/** Entries numbered above `after`, in order. */
export async function entriesAfter(id: string, after: number, db: Pick<Db, "select"> = database()): Promise<EntryT[]> {
  const rows = await db.select({ body: entries.body }).from(entries).where(and(eq(entries.jobId, id), gt(entries.seq, after))).orderBy(asc(entries.seq));
  return rows.map((r) => Entry.parse(r.body));
}

export async function createJob(job: Case, more: { hidden?: Hidden; demo?: boolean } = {}, db: Pick<Db, "transaction"> = database()): Promise<string> {
  return db.transaction(async (tx) => {
    const [row] = await tx.insert(jobs).values({ title: job.title, machine: job.machine ?? null, complaint: job.complaint ?? null, wiring: job.wiring, hidden: more.hidden ?? null, demo: more.demo ?? false }).returning({ id: jobs.id });
    if (!row) throw new Error("the database took the job but did not say its id");
    if (job.entries.length) {
      const batch = crypto.randomUUID();
      await tx.insert(entries).values(job.entries.map((body, i) => ({ jobId: row.id, seq: i + 1, batch, body })));
    }
    return row.id;
  });
}

export type Appended =
  | { readonly status: "saved"; readonly last: number }
  /** somebody else wrote first: nothing was saved, here is what the writer has not seen */
  | { readonly status: "stale"; readonly last: number; readonly missed: readonly EntryT[] }
  | { readonly status: "refused"; readonly issues: readonly Issue[] }
  | { readonly status: "gone" };

/**
 * Appends entries after the last one the writer has seen. The job's row is locked meanwhile, so numbers never clash;
 * a batch that was already saved (its answer got lost) is answered as saved, not saved twice.
 */
export async function appendEntries(id: string, after: number, batch: string, value: unknown): Promise<Appended> {
  return database().transaction(async (tx): Promise<Appended> => {
    const [job] = await tx.select({ wiring: jobs.wiring }).from(jobs).where(eq(jobs.id, id)).for("update");
    if (!job) return { status: "gone" };
    const [state] = await tx.select({ last: sql<number>`coalesce(max(${entries.seq}), 0)::int`, mine: sql<number>`coalesce(max(${entries.seq}) filter (where ${entries.batch} = ${batch}), 0)::int` }).from(entries).where(eq(entries.jobId, id));
    const { last, mine } = state ?? { last: 0, mine: 0 };
    if (mine > 0) return { status: "saved", last: mine };
    if (after !== last) return { status: "stale", last, missed: await entriesAfter(id, after, tx) };
    const wiring = readWiring(job.wiring);
    const parsed = wiring.ok ? readEntries(wiring.value, value, last) : fail([issue("wiring.unreadable")]);
    if (!parsed.ok) return { status: "refused", issues: parsed.issues };
    await tx.insert(entries).values(parsed.value.map((body, i) => ({ jobId: id, seq: last + 1 + i, batch, body })));
    return { status: "saved", last: last + parsed.value.length };
  });
}

/** The whole case as the open format has it. */
export async function exportCase(id: string): Promise<Case | undefined> {
  const job = await findJob(id);
  if (!job) return undefined;
  return {
    format: "radicula/case", version: 1, title: job.title, ...(job.machine ? { machine: job.machine } : {}), ...(job.complaint ? { complaint: job.complaint } : {}),
    wiring: job.wiring, entries: await entriesAfter(id, 0),
  };
}
