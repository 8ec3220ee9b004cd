import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { desc, eq, inArray, notInArray, sql } from "drizzle-orm";
import { database } from "../db/connection";
import { predictions } from "../db/schema";

const pack = promisify(gzip);
const unpack = promisify(gunzip);

/** Machines whose predictions are kept, those worked out last; some 2 MB each at most. Judgement. */
const MOST_KEPT = 200;

/** Kept predictions of a key as they are sent: compressed with gzip. */
export async function packedPredictions(key: string): Promise<Buffer | undefined> {
  const [row] = await database().select({ body: predictions.body }).from(predictions).where(eq(predictions.key, key));
  return row?.body;
}

/** Kept predictions by key, unpacked; of keys for which there are none nothing. */
export async function findPredictions(keys: readonly string[]): Promise<Record<string, Uint8Array>> {
  const rows = await database()
    .select({ key: predictions.key, body: predictions.body })
    .from(predictions)
    .where(inArray(predictions.key, [...keys]));
  return Object.fromEntries(await Promise.all(rows.map(async (r) => [r.key, await unpack(r.body)] as const)));
}

/** Keeps predictions in the place of those that were there; the oldest of too many are forgotten. */
export async function keepPredictions(found: Readonly<Record<string, Uint8Array>>): Promise<void> {
  for (const [key, bytes] of Object.entries(found)) {
    const row = { body: await pack(bytes), at: sql`now()` };
    await database()
      .insert(predictions)
      .values({ key, ...row })
      .onConflictDoUpdate({ target: predictions.key, set: row });
  }
  const newest = database()
    .select({ key: predictions.key })
    .from(predictions)
    .orderBy(desc(predictions.at))
    .limit(2 * MOST_KEPT);
  await database().delete(predictions).where(notInArray(predictions.key, newest));
}
