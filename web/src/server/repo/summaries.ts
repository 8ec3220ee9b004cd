import { eq, sql } from "drizzle-orm";
import { DISTURBANCES, fold, toldCodes, type Entry, type Folded } from "@radicula/core";
import { z } from "zod";
import { answerWhenQuiet } from "../answerAhead";
import { database, type Db } from "../db/connection";
import { jobs } from "../db/schema";
import { entriesAfter } from "./entries";
import { keepLesson } from "./lessons";

/** What the board shows of a logbook. */
const LogbookSummary = z.object({
  codes: z.array(z.string()),
  readings: z.int().nonnegative(),
  verdict: z.string().nullable(),
  closed: z.boolean(),
  /** repaired and not come back */
  repaired: z.boolean(),
  /** it came back after a repair, and nothing was repaired since */
  back: z.boolean(),
  /** the day on which somebody is to be asked whether it held, or a temporary repair is to be made good */
  due: z.iso.date().nullable(),
  /** the last repair is a temporary one */
  temporary: z.boolean(),
  /** what is not as it was found */
  open: z.array(z.object({ thing: z.string(), how: z.enum(DISTURBANCES) })),
  lastAt: z.string().nullable(),
  /** who wrote the last entry */
  lastBy: z.string().nullable(),
  /** of how many entries it was made */
  entries: z.int().nonnegative(),
});
export type LogbookSummary = z.infer<typeof LogbookSummary>;

export const EMPTY_SUMMARY: LogbookSummary = {
  codes: [],
  readings: 0,
  verdict: null,
  closed: false,
  repaired: false,
  back: false,
  due: null,
  temporary: false,
  open: [],
  lastAt: null,
  lastBy: null,
  entries: 0,
};

/** @returns nothing where none is kept, or one of an older shape; then it is made from the logbook */
export const readSummary = (kept: unknown): LogbookSummary | undefined => LogbookSummary.safeParse(kept).data;

export function summarise(entries: readonly Entry[]): LogbookSummary {
  const folded = fold(entries);
  return {
    codes: toldCodes(folded).map((c) => c.code),
    readings: folded.readings.length,
    verdict: folded.verdict?.entry.text ?? null,
    closed: folded.closed !== undefined,
    repaired: folded.repairs.some((r) => r.number === folded.since),
    back: folded.since > 0 && folded.repairs.every((r) => r.number !== folded.since),
    due: dueOn(folded),
    temporary: folded.repairs.at(-1)?.entry.temporary !== undefined,
    open: folded.open.map(({ thing, how }) => ({ thing, how })),
    lastAt: entries.at(-1)?.at ?? null,
    lastBy: entries.at(-1)?.by ?? null,
    entries: entries.length,
  };
}

/** The day on which to ask, or by which a temporary repair comes back; none once somebody was asked. */
function dueOn({ closed, closing, followUps, repairs }: Folded): string | null {
  const temporary = repairs.at(-1)?.entry.temporary;
  if (temporary !== undefined) return temporary;
  const isAsked = followUps.some((f) => f.number > (closing?.number ?? 0));
  return closed === undefined || isAsked ? null : (closing?.entry.followUp?.on ?? null);
}

/** A summary is made anew so long after an entry, once for all that came meanwhile, ms. */
const LATER_MS = 1000;
const shared = globalThis as typeof globalThis & { radiculaDue?: Map<string, ReturnType<typeof setTimeout>> };
/** Jobs whose summary does not hold any more: one list for the process, also across the server's separate bundles. */
const due = (shared.radiculaDue ??= new Map<string, ReturnType<typeof setTimeout>>());

/** A job has new entries: its summary is made a moment later, so that nobody who logs waits for it. */
export function outdateSummary(id: string): void {
  if (due.has(id)) return;
  const timer = setTimeout(() => void makeDue(id), LATER_MS);
  timer.unref();
  due.set(id, timer);
}
async function makeDue(id: string): Promise<void> {
  clearTimeout(due.get(id));
  due.delete(id);
  try {
    await database().transaction((tx) => keepSummary(id, tx));
  } catch (error) {
    console.error("a summary was not made:", error);
  }
}
/** Makes what is due now: whoever looks at the board sees what was logged a moment ago. */
export async function settleSummaries(): Promise<void> {
  await Promise.all([...due.keys()].map(makeDue));
}
/** Those that a server which stopped meanwhile left behind, and those never made. Asked once, as a server starts. */
export async function mendSummaries(): Promise<void> {
  const behind = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(sql`${jobs.summary} is null or (${jobs.summary} ->> 'entries')::int <> ${jobs.entryCount}`);
  for (const { id } of behind) await makeDue(id);
}

/** Makes the summary of a job from its logbook and keeps it with the job; and what it teaches in the notebook. */
export async function keepSummary(
  id: string,
  tx: Pick<Db, "select" | "insert" | "update" | "delete">,
): Promise<LogbookSummary> {
  await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, id)).for("update");
  const log = await entriesAfter(id, 0, tx);
  const summary = summarise(log);
  await keepLesson(id, log, tx);
  await tx.update(jobs).set({ summary }).where(eq(jobs.id, id));
  if (!summary.closed) answerWhenQuiet(id);
  return summary;
}
