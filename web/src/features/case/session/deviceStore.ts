import { Entry } from "@radicula/core";
import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { z } from "zod";

/** Entries on their way to the database, kept on this device until it has them. */
export const Batch = z.object({ batch: z.uuid(), after: z.number().int(), entries: z.array(Entry) });
export type Batch = z.infer<typeof Batch>;

export const SaidIssue = z.object({
  code: z.string(),
  path: z.array(z.union([z.string(), z.number()])),
  params: z.record(z.string(), z.union([z.string(), z.number(), z.array(z.string())])),
});
export type SaidIssue = z.infer<typeof SaidIssue>;

/** Entries that the database refused, kept until somebody has looked at them. */
export const Refused = z.object({ batch: z.uuid(), entries: z.array(Entry), issues: z.array(SaidIssue) });
export type Refused = z.infer<typeof Refused>;

/** Of which job, in which database: an entry is never sent to another one. */
export interface Destination {
  readonly database: string;
  readonly job: string;
}
interface Kept extends Destination {
  readonly batch: string;
  /** in the order they were made */
  readonly made: number;
  readonly value: unknown;
}
interface Shape extends DBSchema {
  waiting: { key: string; value: Kept; indexes: { job: string } };
  refused: { key: string; value: Kept; indexes: { job: string } };
}
type Shelf = "waiting" | "refused";

const NAME = "radicula.outbox";
let opened: Promise<IDBPDatabase<Shape>> | undefined;
function open(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>(NAME, 1, {
    upgrade(db) {
      for (const shelf of ["waiting", "refused"] as const)
        db.createObjectStore(shelf, { keyPath: "batch" }).createIndex("job", "job");
    },
    terminated: () => (opened = undefined),
  });
  // a device that would not open it may do so the next time
  opened.catch(() => (opened = undefined));
  return opened;
}
/** What is written must be on the disk before it is called kept: a browser that is killed must not take it along. */
const STRICT = { durability: "strict" } as const;

let lastMade = 0;
/** Rises with every call, also within a millisecond and over reloads. */
const madeNow = () => (lastMade = Math.max(lastMade + 1, Date.now() * 1000));

/**
 * Keeps entries on this device.
 * @returns false where the device has no room, or keeps nothing: then they live in this window only
 */
export async function keep(place: Destination, batch: Batch): Promise<boolean> {
  try {
    const db = await open();
    const tx = db.transaction("waiting", "readwrite", STRICT);
    const made = (await tx.store.get(batch.batch))?.made ?? madeNow();
    await tx.store.put({ ...place, batch: batch.batch, made, value: batch });
    await tx.done;
    return true;
  } catch {
    return false;
  }
}
export async function drop(shelf: Shelf, batch: string): Promise<void> {
  try {
    await (await open()).delete(shelf, batch);
  } catch {
    /* it is sent again then, and the server knows it by its id */
  }
}
/** From the entries that wait to those that somebody has to look at, in one step. */
export async function setAside(place: Destination, refused: Refused): Promise<void> {
  try {
    const db = await open();
    const tx = db.transaction(["waiting", "refused"], "readwrite", STRICT);
    await tx.objectStore("refused").put({ ...place, batch: refused.batch, made: madeNow(), value: refused });
    await tx.objectStore("waiting").delete(refused.batch);
    await tx.done;
  } catch {
    /* it stays with those that wait */
  }
}

/** What this device still has to send of a job, from this window or an earlier visit, in the order it was made. */
export const waitingOf = (place: Destination): Promise<Batch[]> => listOf("waiting", place, Batch);
/** What was refused of a job and nobody has looked at yet. */
export const refusedOf = (place: Destination): Promise<Refused[]> => listOf("refused", place, Refused);

/** Rubbish is left where it is; what is meant for another database is left too. */
async function listOf<T>(shelf: Shelf, { database, job }: Destination, schema: z.ZodType<T>): Promise<T[]> {
  try {
    const all = await (await open()).getAllFromIndex(shelf, "job", job);
    return all
      .filter((k) => k.database === database)
      .sort((a, b) => a.made - b.made)
      .flatMap((k) => {
        const read = schema.safeParse(k.value);
        return read.success ? [read.data] : [];
      });
  } catch {
    return [];
  }
}

/** Where an earlier version kept entries. */
const EARLIER = "radicula.outbox.";
/** Takes over what an earlier version of this page kept on the device for a job. */
export async function takeOver(place: Destination, storage: Storage): Promise<void> {
  const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? "")
    .filter((k) => k.startsWith(`${EARLIER}${place.job}.`))
    .sort();
  for (const key of keys) {
    const read = Batch.safeParse(parsed(storage.getItem(key)));
    if (read.success && (await keep(place, read.data))) storage.removeItem(key);
  }
}
function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? "");
  } catch {
    return undefined;
  }
}
