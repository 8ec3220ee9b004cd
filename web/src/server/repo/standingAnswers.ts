import { promisify } from "node:util";
import { deserialize, serialize } from "node:v8";
import { gunzip, gzip } from "node:zlib";
import { ENGINE_VERSION, type WholeAnswer } from "@radicula/core";
import { and, desc, eq, isNull, sql } from "drizzle-orm";
import { database } from "../db/connection";
import { jobs, standingAnswers } from "../db/schema";

const pack = promisify(gzip);
const unpack = promisify(gunzip);

/** What stands for a job whose logbook has so many entries; undefined where it is of another length or engine. */
export async function findStanding(jobId: string, entries: number): Promise<WholeAnswer | undefined> {
  const [row] = await database()
    .select({ body: standingAnswers.body })
    .from(standingAnswers)
    .where(
      and(
        eq(standingAnswers.jobId, jobId),
        eq(standingAnswers.entries, entries),
        eq(standingAnswers.engine, ENGINE_VERSION),
      ),
    );
  if (!row) return undefined;
  try {
    return deserialize(await unpack(row.body)) as WholeAnswer;
  } catch (error) {
    console.error("a standing answer does not read:", error);
    return undefined; // it is worked out anew all the same
  }
}

export async function keepStanding(jobId: string, entries: number, answer: WholeAnswer): Promise<void> {
  const row = { engine: ENGINE_VERSION, entries, body: await pack(serialize(answer)), at: new Date() };
  await database()
    .insert(standingAnswers)
    .values({ jobId, ...row })
    .onConflictDoUpdate({ target: standingAnswers.jobId, set: row });
}

/** Open jobs of the board for which none stands, the newest first. */
export async function withoutStanding(most: number): Promise<readonly string[]> {
  const rows = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .leftJoin(standingAnswers, eq(standingAnswers.jobId, jobs.id))
    .where(
      and(
        isNull(jobs.putAway),
        sql`coalesce(${jobs.summary} ->> 'closed', 'false') = 'false'`,
        sql`(${standingAnswers.entries} is null or ${standingAnswers.entries} <> ${jobs.entryCount}
          or ${standingAnswers.engine} <> ${ENGINE_VERSION})`,
      ),
    )
    .orderBy(desc(jobs.createdAt))
    .limit(most);
  return rows.map((r) => r.id);
}
