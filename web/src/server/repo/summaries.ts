import { eq } from "drizzle-orm";
import { DISTURBANCES, fold, setCodes, type Entry } from "@radicula/core";
import { z } from "zod";
import type { Db } from "../db/connection";
import { jobs } from "../db/schema";
import { entriesAfter } from "./entries";

/** What the board shows of a logbook. */
const LogbookSummary = z.object({
  codes: z.array(z.string()),
  readings: z.int().nonnegative(),
  verdict: z.string().nullable(),
  closed: z.boolean(),
  /** what is not as it was found */
  open: z.array(z.object({ thing: z.string(), how: z.enum(DISTURBANCES) })),
  lastAt: z.string().nullable(),
});
export type LogbookSummary = z.infer<typeof LogbookSummary>;

export const EMPTY_SUMMARY: LogbookSummary = {
  codes: [],
  readings: 0,
  verdict: null,
  closed: false,
  open: [],
  lastAt: null,
};

/** @returns nothing where none is kept, or one of an older shape; then it is made from the logbook */
export const readSummary = (kept: unknown): LogbookSummary | undefined => LogbookSummary.safeParse(kept).data;

export function summarise(entries: readonly Entry[]): LogbookSummary {
  const folded = fold(entries);
  return {
    codes: setCodes(folded).map((c) => c.code),
    readings: folded.readings.length,
    verdict: folded.verdict?.entry.text ?? null,
    closed: folded.closed !== undefined,
    open: folded.open.map(({ thing, how }) => ({ thing, how })),
    lastAt: entries.at(-1)?.at ?? null,
  };
}

/**
 * Makes the summary of a job from its logbook and keeps it with the job. Called in the transaction that adds entries,
 * so the two never differ.
 */
export async function keepSummary(id: string, tx: Pick<Db, "select" | "update">): Promise<LogbookSummary> {
  await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, id)).for("update");
  const summary = summarise(await entriesAfter(id, 0, tx));
  await tx.update(jobs).set({ summary }).where(eq(jobs.id, id));
  return summary;
}
