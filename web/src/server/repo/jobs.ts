import { and, desc, eq, isNull, max, ne, not, sql, type SQL } from "drizzle-orm";
import { checkEntries, issue, type Case, type Entry as EntryT, type Issue, type Wiring } from "@radicula/core";
import { z } from "zod";
import { database, type Db } from "../db/connection";
import { entries, jobs, revisions, wirings, type PutAway } from "../db/schema";
import { entriesAfter } from "./entries";
import { EMPTY_SUMMARY, keepSummary, readSummary, settleSummaries, type LogbookSummary } from "./summaries";
import { wiringOf } from "./jobWirings";
import { readRow, UnreadableRow } from "./rows";
import { learnedAtStart } from "./lessons";
import { freezeRevision, keepWiring } from "./wirings";

/** A simulated machine: which fault, how bad, and the seed of its true values. */
const HiddenFault = { fault: z.string(), ohm: z.number().nullable() };
/**
 * What is wrong with the simulated machine of a practice job; `presence` where it comes and goes, `mistaken` where the
 * drawing names the wrong connector.
 */
export const Hidden = z.object({
  ...HiddenFault,
  seed: z.number().int(),
  also: z.array(z.object(HiddenFault)).max(4).optional(),
  presence: z.number().gt(0).lt(1).optional(),
  mistaken: z.object({ from: z.string(), to: z.string() }).optional(),
});
export type Hidden = z.infer<typeof Hidden>;

export interface Job {
  readonly id: string;
  readonly title: string;
  readonly machine: string | null;
  readonly complaint: string | null;
  readonly wiring: Wiring;
  readonly practice: boolean;
  readonly putAway: PutAway | null;
  /** how many other jobs of this machine are on the board */
  readonly others: number;
  /** the library's wiring it uses, and the revision it is pinned to; `newest` is the newest one there */
  readonly library: {
    readonly id: string;
    readonly name: string;
    readonly revision: number;
    readonly newest: number;
  } | null;
}
export interface JobSummary extends LogbookSummary {
  /** its logbook does not read; what is shown of it is empty */
  readonly unreadable: boolean;
  readonly id: string;
  readonly title: string;
  readonly machine: string | null;
  readonly complaint: string | null;
  readonly practice: boolean;
  readonly createdAt: string;
  readonly putAway: PutAway | null;
  /** how many jobs of the same machine are on the board, with this one */
  readonly ofMachine: number;
}
export const JobId = z.uuid();

/** Rows in one statement: PostgreSQL takes 65 535 values in one. */
const AT_ONCE = 5000;
const ALL = 2 ** 31 - 1;
/**
 * Jobs with what the board shows of their logbooks; all of them, or so many. Logbooks are read only where none is kept
 * yet.
 */
export async function listJobs(limit?: number, wanted: JobFilter = {}): Promise<JobSummary[]> {
  await settleSummaries();
  const db = database();
  const rows = await db
    .select({
      id: jobs.id,
      title: jobs.title,
      machine: jobs.machine,
      complaint: jobs.complaint,
      practice: sql<boolean>`${jobs.hidden} is not null`,
      createdAt: jobs.createdAt,
      summary: jobs.summary,
      putAway: jobs.putAway,
      ofMachine: ofMachine(),
    })
    .from(jobs)
    .where(fits(wanted))
    .orderBy(...ORDERS[wanted.sort ?? "touched"], desc(jobs.createdAt), jobs.id)
    .limit(limit ?? ALL);
  const list: JobSummary[] = [];
  for (const { summary, createdAt, ...row } of rows)
    list.push({
      ...row,
      createdAt: createdAt.toISOString(),
      ...(await summaryOf(row.id, summary)),
    });
  return list;
}
export const countJobs = (wanted: JobFilter = {}): Promise<number> => database().$count(jobs, fits(wanted));

/** In which jobs the board looks: each word in machine, title, complaint or codes; how far they have come. */
export interface JobFilter {
  readonly find?: string | undefined;
  readonly state?: JobState | undefined;
  /** the machine as it is named, whole */
  readonly machine?: string | undefined;
  readonly sort?: JobSort | undefined;
}
/** The last two are off the board, and shown only where they are asked for. */
export const JOB_STATES = ["open", "found", "closed", "due", "archived", "deleted"] as const;
export type JobState = (typeof JOB_STATES)[number];
export const JOB_SORTS = ["touched", "started", "machine"] as const;
export type JobSort = (typeof JOB_SORTS)[number];
const summary = (key: string) => sql`${jobs.summary} ->> ${key}`;
const ORDERS: Readonly<Record<JobSort, readonly SQL[]>> = {
  // a job without entries was last worked on when it was begun; as text, since a time in a file may be any
  touched: [
    sql`greatest(${summary("lastAt")}, to_char(${jobs.createdAt} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS')) desc`,
  ],
  started: [],
  machine: [sql`lower(${jobs.machine}) asc nulls last`],
};
/** Counts over the board, whatever it is searched for. */
const ofMachine = () =>
  // written out: of one table only, columns are named without it, and would be those of the inner one
  sql<number>`(select count(*)::int from jobs same where same.machine = jobs.machine and same.put_away is null)`;

const MOST_WORDS = 8;
function fits({ find = "", state, machine }: JobFilter): SQL | undefined {
  const words = find.trim().split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
  const holds = (word: string) => {
    const like = `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
    return sql`concat_ws(' ', ${jobs.machine}, ${jobs.title}, ${jobs.complaint}, ${summary("codes")}) ilike ${like}`;
  };
  const isClosed = sql`coalesce(${summary("closed")}, 'false') = 'true'`;
  const isFound = sql`${summary("verdict")} is not null`;
  const isAway = state === "archived" || state === "deleted";
  return and(
    ...words.map(holds),
    machine === undefined ? undefined : eq(jobs.machine, machine),
    isAway ? eq(jobs.putAway, state) : isNull(jobs.putAway),
    state === "closed" ? isClosed : undefined,
    state === "due" ? sql`${summary("due")} <= to_char(now(), 'YYYY-MM-DD')` : undefined,
    state === "found" ? and(isFound, not(isClosed)) : undefined,
    state === "open" ? and(not(isFound), not(isClosed)) : undefined,
  );
}

/** Takes a job off the board, or puts it back. @returns false where there is no such job */
export async function putJobAway(id: string, where: PutAway | null): Promise<boolean> {
  const changed = await database()
    .update(jobs)
    .set({ putAway: where })
    .where(eq(jobs.id, id))
    .returning({ id: jobs.id });
  return changed.length > 0;
}

/** One logbook that does not read must not hide all the others. */
async function summaryOf(id: string, kept: unknown): Promise<LogbookSummary & Pick<JobSummary, "unreadable">> {
  const summary = readSummary(kept);
  if (summary) return { ...summary, unreadable: false };
  try {
    return { ...(await database().transaction((tx) => keepSummary(id, tx))), unreadable: false };
  } catch (error) {
    if (!(error instanceof UnreadableRow)) throw error;
    return { ...EMPTY_SUMMARY, unreadable: true };
  }
}

export async function findJob(id: string): Promise<Job | undefined> {
  const db = database();
  const [row] = await db
    .select({
      id: jobs.id,
      title: jobs.title,
      machine: jobs.machine,
      complaint: jobs.complaint,
      wiringId: jobs.wiringId,
      revision: jobs.revision,
      practice: sql<boolean>`${jobs.hidden} is not null`,
      putAway: jobs.putAway,
    })
    .from(jobs)
    .where(eq(jobs.id, id));
  const wiring = row && (await wiringOf(row, db));
  if (!wiring) return undefined;
  return {
    id: row.id,
    title: row.title,
    machine: row.machine,
    complaint: row.complaint,
    wiring,
    practice: row.practice,
    putAway: row.putAway,
    others:
      row.machine === null
        ? 0
        : await db.$count(jobs, and(eq(jobs.machine, row.machine), ne(jobs.id, id), isNull(jobs.putAway))),
    library: await libraryOf(row.wiringId, row.revision),
  };
}

async function libraryOf(wiringId: string | null, revision: number | null): Promise<Job["library"]> {
  if (!wiringId || revision === null) return null;
  const db = database();
  const [[row], [last]] = await Promise.all([
    db.select({ name: wirings.name }).from(wirings).where(eq(wirings.id, wiringId)),
    db
      .select({ number: max(revisions.number) })
      .from(revisions)
      .where(eq(revisions.wiringId, wiringId)),
  ]);
  return row ? { id: wiringId, name: row.name, revision, newest: last?.number ?? 0 } : null;
}

/** A new job on the newest state of a wiring of the library. @returns its id, and how many entries it has already */
export async function startJob(
  about: { readonly title: string; readonly machine?: string | undefined; readonly complaint?: string | undefined },
  wiringId: string,
  db: Pick<Db, "transaction"> = database(),
): Promise<{ readonly id: string; readonly last: number } | undefined> {
  return db.transaction(async (tx) => {
    const frozen = await freezeRevision(wiringId, "", tx);
    if (!frozen) return undefined;
    const [row] = await tx
      .insert(jobs)
      .values({
        title: about.title,
        machine: about.machine ?? null,
        complaint: about.complaint ?? null,
        wiring: frozen.wiring,
        wiringId,
        revision: frozen.number,
      })
      .returning({ id: jobs.id });
    return row && { id: row.id, last: await begin(row.id, frozen.wiring, tx) };
  });
}

/** What earlier jobs of the same wiring teach stands at the head of a new one's logbook. @returns its entries so far */
async function begin(id: string, wiring: Wiring, tx: Pick<Db, "select" | "insert">): Promise<number> {
  const learned = await learnedAtStart(wiring, tx);
  if (!learned) return 0;
  await tx.insert(entries).values({ jobId: id, seq: 1, batch: crypto.randomUUID(), body: learned });
  return 1;
}

export type RevisionMove =
  | { readonly status: "moved"; readonly revision: number }
  | { readonly status: "refused"; readonly issues: readonly Issue[] }
  | { readonly status: "gone" };
/**
 * Moves a job to the newest state of its wiring, with everything in its logbook kept; a record of the move is added.
 * Refused where the logbook speaks of things that state no longer has.
 */
export async function moveJob(id: string): Promise<RevisionMove> {
  return database().transaction(async (tx): Promise<RevisionMove> => {
    const [job] = await tx
      .select({ wiringId: jobs.wiringId, revision: jobs.revision })
      .from(jobs)
      .where(eq(jobs.id, id))
      .for("update");
    if (!job?.wiringId) return { status: "gone" };
    const frozen = await freezeRevision(job.wiringId, "", tx);
    if (!frozen) return { status: "gone" };
    if (frozen.number === job.revision) return { status: "moved", revision: frozen.number };
    const log = await entriesAfter(id, 0, tx);
    const lost = checkEntries(frozen.wiring, log);
    if (lost.length)
      return {
        status: "refused",
        issues: [
          issue("revision.breaks-logbook", [], {
            things: [
              ...new Set(
                lost.map((i) =>
                  String(i.params["id"] ?? i.params["connector"] ?? i.params["device"] ?? i.path.join(".")),
                ),
              ),
            ].slice(0, 8),
          }),
        ],
      };
    await tx.update(jobs).set({ wiring: frozen.wiring, revision: frozen.number }).where(eq(jobs.id, id));
    const entry: EntryT = {
      type: "revision",
      at: new Date().toISOString(),
      from: `revision ${job.revision ?? 0}`,
      to: `revision ${frozen.number}`,
    };
    if (log.length)
      await tx.insert(entries).values({ jobId: id, seq: log.length + 1, batch: crypto.randomUUID(), body: entry });
    await keepSummary(id, tx);
    return { status: "moved", revision: frozen.number };
  });
}

/** The library's wiring that a job uses. */
export async function wiringOfJob(id: string, db: Pick<Db, "select">): Promise<string | undefined> {
  const [row] = await db.select({ wiringId: jobs.wiringId }).from(jobs).where(eq(jobs.id, id));
  return row?.wiringId ?? undefined;
}
export async function jobExists(id: string): Promise<boolean> {
  return (await database().select({ id: jobs.id }).from(jobs).where(eq(jobs.id, id))).length > 0;
}

export async function hiddenOf(id: string): Promise<Hidden | undefined> {
  const [row] = await database().select({ hidden: jobs.hidden }).from(jobs).where(eq(jobs.id, id));
  return row?.hidden ? readRow(Hidden, row.hidden, "a simulated machine") : undefined;
}

export async function createJob(
  job: Case,
  more: { hidden?: Hidden; demo?: boolean } = {},
  db: Pick<Db, "transaction"> = database(),
): Promise<string> {
  return db.transaction(async (tx) => {
    const library = await keepWiring(job.wiring, tx);
    const [row] = await tx
      .insert(jobs)
      .values({
        title: job.title,
        machine: job.machine ?? null,
        complaint: job.complaint ?? null,
        wiring: job.wiring,
        ...library,
        hidden: more.hidden ?? null,
        demo: more.demo ?? false,
        createdAt: sql`clock_timestamp()`, // several made in one transaction still have an order
      })
      .returning({ id: jobs.id });
    if (!row) throw new Error("the database took the job but did not say its id");
    const batch = crypto.randomUUID();
    const rows = job.entries.map((body, i) => ({ jobId: row.id, seq: i + 1, batch, body }));
    for (let i = 0; i < rows.length; i += AT_ONCE) await tx.insert(entries).values(rows.slice(i, i + AT_ONCE));
    await keepSummary(row.id, tx);
    return row.id;
  });
}

/** The whole case as the open format has it. */
export async function exportCase(id: string): Promise<Case | undefined> {
  const job = await findJob(id);
  if (!job) return undefined;
  return {
    format: "radicula/case",
    version: 1,
    title: job.title,
    ...(job.machine ? { machine: job.machine } : {}),
    ...(job.complaint ? { complaint: job.complaint } : {}),
    wiring: job.wiring,
    entries: await entriesAfter(id, 0),
  };
}
