import { and, asc, eq, gt } from "drizzle-orm";
import { Entry, type Entry as EntryT } from "@radicula/core";
import { database, type Db } from "../db/connection";
import { entries } from "../db/schema";

/** Entries numbered above `after`, in order. */
export async function entriesAfter(id: string, after: number, db: Pick<Db, "select"> = database()): Promise<EntryT[]> {
  const rows = await db
    .select({ body: entries.body })
    .from(entries)
    .where(and(eq(entries.jobId, id), gt(entries.seq, after)))
    .orderBy(asc(entries.seq));
  return rows.map((r) => Entry.parse(r.body));
}
