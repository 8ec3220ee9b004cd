import { and, asc, eq, gt } from "drizzle-orm";
import type { Entry } from "@radicula/core";
import { database, type Db } from "../db/connection";
import { entries } from "../db/schema";
import { readEntryRow } from "./rows";

/**
 * Entries numbered above `after`, in order.
 * @throws {UnreadableRow} where one of them does not read: a logbook with a hole would be weighed as another one
 */
export async function entriesAfter(id: string, after: number, db: Pick<Db, "select"> = database()): Promise<Entry[]> {
  const rows = await db
    .select({ seq: entries.seq, body: entries.body })
    .from(entries)
    .where(and(eq(entries.jobId, id), gt(entries.seq, after)))
    .orderBy(asc(entries.seq));
  return rows.map((r) => readEntryRow(r.body, r.seq));
}
