import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { and, desc, eq, inArray, notInArray, sql } from "drizzle-orm";
import { database } from "../db/connection";
import { workedOut, type WORKED_OUT } from "../db/schema";

const pack = promisify(gzip);
const unpack = promisify(gunzip);

export type WorkedOutKind = (typeof WORKED_OUT)[number];
/** How many of a kind are kept, those worked out last. Judgement: some 2 MB and 10 kB each, at most. */
const MOST_KEPT: Readonly<Record<WorkedOutKind, number>> = { predictions: 400, layout: 2_000 };

/** What is kept under a key as it is sent: compressed with gzip. */
export async function packedWorkedOut(kind: WorkedOutKind, key: string): Promise<Buffer | undefined> {
  const [row] = await database()
    .select({ body: workedOut.body })
    .from(workedOut)
    .where(and(eq(workedOut.key, key), eq(workedOut.kind, kind)));
  return row?.body;
}

/** What is kept, by key; of keys for which there is nothing, nothing. */
export async function findWorkedOut(
  kind: WorkedOutKind,
  keys: readonly string[],
): Promise<Readonly<Record<string, Uint8Array>>> {
  const rows = await database()
    .select({ key: workedOut.key, body: workedOut.body })
    .from(workedOut)
    .where(and(inArray(workedOut.key, [...keys]), eq(workedOut.kind, kind)));
  return Object.fromEntries(await Promise.all(rows.map(async (r) => [r.key, await unpack(r.body)] as const)));
}

/** Keeps bytes by key, in the place of those that were there; the oldest of too many are forgotten. */
export async function keepWorkedOut(kind: WorkedOutKind, found: Readonly<Record<string, Uint8Array>>): Promise<void> {
  if (Object.keys(found).length === 0) return;
  for (const [key, bytes] of Object.entries(found)) {
    const row = { body: await pack(bytes), at: sql`now()` };
    await database()
      .insert(workedOut)
      .values({ key, kind, ...row })
      .onConflictDoUpdate({ target: workedOut.key, set: row });
  }
  const newest = database()
    .select({ key: workedOut.key })
    .from(workedOut)
    .where(eq(workedOut.kind, kind))
    .orderBy(desc(workedOut.at))
    .limit(MOST_KEPT[kind]);
  await database()
    .delete(workedOut)
    .where(and(eq(workedOut.kind, kind), notInArray(workedOut.key, newest)));
}
