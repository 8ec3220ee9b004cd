import { eq } from "drizzle-orm";
import type { Wiring } from "@radicula/core";
import { LRUCache } from "lru-cache";
import type { Db } from "../db/connection";
import { jobs } from "../db/schema";
import { readWiringRow } from "./rows";

/** So many jobs are worked on at a time. Judgement: some 100 kB each. */
const KEPT = 300;
const kept = new LRUCache<string, Wiring>({ max: KEPT });

/** What a job's wiring hangs on: it is never changed but by moving the job to another revision. */
export interface WiringKey {
  readonly id: string;
  readonly wiringId: string | null;
  readonly revision: number | null;
}

/**
 * The wiring of a job, read from its row once and remembered: an entry must not have all of it checked again.
 * @throws {UnreadableRow}
 */
export async function wiringOf(key: WiringKey, db: Pick<Db, "select">): Promise<Wiring | undefined> {
  const known = kept.get(nameOf(key));
  if (known) return known;
  const [row] = await db
    .select({ id: jobs.id, wiringId: jobs.wiringId, revision: jobs.revision, wiring: jobs.wiring })
    .from(jobs)
    .where(eq(jobs.id, key.id));
  if (!row) return undefined;
  const wiring = readWiringRow(row.wiring);
  kept.set(nameOf(row), wiring); // of the revision it has now: it may have been moved meanwhile
  return wiring;
}
/** As `wiringOf`, of a job by its id. @throws {UnreadableRow} */
export async function wiringByJob(id: string, db: Pick<Db, "select">): Promise<Wiring | undefined> {
  const [key] = await db
    .select({ id: jobs.id, wiringId: jobs.wiringId, revision: jobs.revision })
    .from(jobs)
    .where(eq(jobs.id, id));
  return key && wiringOf(key, db);
}
const nameOf = ({ id, wiringId, revision }: WiringKey) => `${id} ${wiringId ?? "its own"} ${revision ?? 0}`;
