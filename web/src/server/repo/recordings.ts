import { and, asc, eq, gt } from "drizzle-orm";
import { z } from "zod";
import { database, type Db } from "../db/connection";
import { jobs, recordingParts, recordings } from "../db/schema";

/** Bytes of one recording as it is kept, compressed, and of one part of it. */
export const RECORDING = { bytes: 300_000_000, part: 1 << 20 } as const;

/** How a file is to be read where it does not tell by itself. */
export const HowToRead = z.strictObject({
  /** seconds between two samples */
  interval: z.number().positive().optional(),
  /** what a value of 1 is, by channel */
  scales: z.array(z.number()).max(64).optional(),
});
export type HowToRead = z.infer<typeof HowToRead>;

type Writing = Pick<Db, "insert" | "select" | "update" | "delete">;

/**
 * Keeps a recording of a job as its bytes come. Inside a transaction: half of one is never kept.
 * @returns its id; "gone" where there is no such job; "large" where it is too large
 */
export async function keepRecording(
  tx: Writing,
  jobId: string,
  about: { readonly name: string; readonly reading: HowToRead; readonly id?: string },
  body: AsyncIterable<Uint8Array>,
): Promise<{ readonly id: string } | "gone" | "large"> {
  const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
  if (!job) return "gone";
  const [row] = await tx
    .insert(recordings)
    .values({ jobId, name: about.name, reading: about.reading, bytes: 0, ...(about.id ? { id: about.id } : {}) })
    .returning({ id: recordings.id });
  const { id } = row!;
  let waiting: Buffer[] = [];
  let held = 0;
  let size = 0;
  let part = 0;
  const write = async () => {
    if (held === 0) return;
    await tx.insert(recordingParts).values({ recordingId: id, part: part++, bytes: Buffer.concat(waiting) });
    waiting = [];
    held = 0;
  };
  for await (const chunk of body) {
    size += chunk.byteLength;
    if (size > RECORDING.bytes) return "large";
    waiting.push(Buffer.from(chunk));
    held += chunk.byteLength;
    if (held >= RECORDING.part) await write();
  }
  await write();
  await tx.update(recordings).set({ bytes: size }).where(eq(recordings.id, id));
  return { id };
}

export async function findRecording(
  id: string,
): Promise<{ readonly name: string; readonly reading: HowToRead; readonly bytes: number } | undefined> {
  const [row] = await database()
    .select({ name: recordings.name, reading: recordings.reading, bytes: recordings.bytes })
    .from(recordings)
    .where(eq(recordings.id, id));
  return row && { ...row, reading: HowToRead.catch({}).parse(row.reading) };
}

/** The parts of a recording, one after the other: never all of it at once. */
export async function* recordingBytes(id: string): AsyncGenerator<Buffer> {
  for (let after = -1; ;) {
    const [row] = await database()
      .select({ part: recordingParts.part, bytes: recordingParts.bytes })
      .from(recordingParts)
      .where(and(eq(recordingParts.recordingId, id), gt(recordingParts.part, after)))
      .orderBy(asc(recordingParts.part))
      .limit(1);
    if (!row) return;
    yield row.bytes;
    after = row.part;
  }
}

/** The recordings of a job with their bytes, oldest first, as many as fit: for a file that holds the whole job. */
export async function wholeRecordings(jobId: string, most: number) {
  const rows = await database()
    .select({ id: recordings.id, name: recordings.name, reading: recordings.reading, bytes: recordings.bytes })
    .from(recordings)
    .where(eq(recordings.jobId, jobId))
    .orderBy(asc(recordings.at));
  const all: { id: string; about: { name: string; reading: unknown }; bytes: Buffer }[] = [];
  let left = most;
  for (const { id, name, reading, bytes } of rows) {
    if (bytes > left) continue;
    left -= bytes;
    const parts: Buffer[] = [];
    for await (const part of recordingBytes(id)) parts.push(part);
    all.push({ id, about: { name, reading }, bytes: Buffer.concat(parts) });
  }
  return all;
}

/** What a file says of the recordings in it, by id; nothing where it does not read. */
export function aboutRecordings(text: string | undefined): ReadonlyMap<string, { name: string; reading: HowToRead }> {
  const About = z.record(z.string(), z.object({ name: z.string().min(1).max(120), reading: HowToRead.catch({}) }));
  try {
    const read = About.safeParse(JSON.parse(text ?? "{}"));
    return new Map(read.success ? Object.entries(read.data) : []);
  } catch {
    return new Map();
  }
}
