import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { Readable } from "node:stream";
import { drizzle } from "drizzle-orm/postgres-js";
import { migrate } from "drizzle-orm/postgres-js/migrator";
import { parseCase, parseNotebook } from "@radicula/core";
import postgres from "postgres";
import { z } from "zod";
import { env } from "@/env";
import type { Db } from "./db/connection";
import { done, identity } from "./db/schema";
import { DemoRecording, withRecordings } from "./demoRecordings";
import { createJob, Hidden } from "./repo/jobs";
import { addLessons } from "./repo/lessons";
import { keepRecording } from "./repo/recordings";

const DemoList = z.array(
  z.object({ file: z.string(), hidden: Hidden.optional(), recordings: z.array(DemoRecording).default([]) }),
);
const Journal = z.object({ entries: z.array(z.object({ when: z.number() })) });

/** Servers that start at the same time bring the database up to date one after the other. Any number will do. */
const SETUP_LOCK = 727_001;

/** The database was brought up to date by a newer version of the program, which this one must not write to. */
export class SchemaTooNew extends Error {}

/**
 * Brings the database up to date, says what the server's role may do, and loads the demo jobs once.
 * @returns which database it is
 * @throws {SchemaTooNew} and what the database says where it cannot be reached
 */
export async function setUpDatabase(): Promise<string> {
  const { DATABASE_URL, DATABASE_OWNER_URL, RADICULA_ROOT } = env();
  const client = postgres(DATABASE_OWNER_URL ?? DATABASE_URL, {
    max: 1,
    connect_timeout: 3,
    onnotice: () => undefined,
  });
  try {
    const db = drizzle(client);
    await client`select pg_advisory_lock(${SETUP_LOCK})`;
    const migrations = join(RADICULA_ROOT, "web", "drizzle");
    await refuseNewer(client, migrations);
    await migrate(db, { migrationsFolder: migrations });
    if (DATABASE_OWNER_URL) await grantServer(client, roleOf(DATABASE_URL));
    await loadDemo(db, join(RADICULA_ROOT, "demo"));
    const [row] = await db.select({ id: identity.id }).from(identity);
    if (!row) throw new Error("the database does not say which it is: its table identity is empty");
    return row.id;
  } finally {
    await client.end({ timeout: 5 }); // and with it the lock
  }
}

/** Drizzle applies what is newer than the newest applied: a database that knows more than this program is another's. */
async function refuseNewer(client: postgres.Sql, migrations: string): Promise<void> {
  const [table] = await client<{ there: boolean }[]>`
    select to_regclass('drizzle.__drizzle_migrations') is not null as there`;
  if (!table?.there) return;
  const [row] = await client<{ newest: string | null }[]>`
    select max(created_at)::text as newest from drizzle.__drizzle_migrations`;
  const journal = Journal.parse(JSON.parse(await readFile(join(migrations, "meta", "_journal.json"), "utf8")));
  const known = Math.max(...journal.entries.map((e) => e.when));
  if (Number(row?.newest ?? 0) > known)
    throw new SchemaTooNew(
      "the database was brought up to date by a newer version of this program. Start that version, or bring back a " +
        "backup of before: npm run restore",
    );
}

/** Entries and revisions are added and read, never changed or removed; nothing else may be altered or dropped. */
async function grantServer(client: postgres.Sql, role: string): Promise<void> {
  const [owner] = await client<{ isOwner: boolean }[]>`select current_user = ${role} as "isOwner"`;
  if (owner?.isOwner !== false) return; // one role for both: it owns everything
  await client`revoke all on all tables in schema public from ${client(role)}`;
  await client`grant usage on schema public to ${client(role)}`;
  await client`grant select, insert on entries, revisions, done to ${client(role)}`;
  await client`grant select, insert, update on jobs, wirings to ${client(role)}`;
  await client`grant select, insert, delete on photos to ${client(role)}`;
  await client`grant select, insert, update on recordings to ${client(role)}`;
  await client`grant select, insert on recording_parts to ${client(role)}`;
  await client`grant select, insert, update on pages to ${client(role)}`;
  await client`grant select, insert on page_tiles to ${client(role)}`;
  await client`grant select on identity to ${client(role)}`;
  await client`grant select, insert, update on workshop, standing_answers to ${client(role)}`;
  await client`grant select, insert, update, delete on lessons, worked_out to ${client(role)}`;
  await client`grant select, insert on security_events to ${client(role)}`;
  await client`grant select, insert, update on people to ${client(role)}`;
  await client`grant select, insert, update, delete on sessions, credentials, verifications, passkeys, codes,
    device_uses, failed_tries to ${client(role)}`;
}
/** The role in a database's address; several hosts make it no URL by the letter. */
const roleOf = (address: string) => decodeURIComponent(/^[a-z]+:\/\/([^:@/]*)/.exec(address)?.[1] ?? "");

async function loadDemo(db: Pick<Db, "transaction">, folder: string): Promise<void> {
  await db.transaction(async (tx) => {
    const first = await tx.insert(done).values({ what: "demo" }).onConflictDoNothing().returning();
    if (first.length === 0) return;
    const read = async (list: string) => DemoList.parse(JSON.parse(await readFile(join(folder, list), "utf8")));
    const lists = ["jobs.json", "recorded.json", "finished.json"];
    const jobs = (await Promise.all(lists.map(read))).flat();
    // the board shows the newest first: the first of the list stands on top
    for (const { file, hidden, recordings } of jobs.reverse()) {
      const job = parseCase(await readFile(join(folder, file), "utf8"));
      if (!job.ok) throw new Error(`demo/${file} does not read: ${JSON.stringify(job.issues[0])}`);
      const recorded = hidden && recordings.length ? withRecordings(job.value, hidden, recordings) : undefined;
      const id = await createJob(recorded?.job ?? job.value, { ...(hidden ? { hidden } : {}), demo: true }, tx);
      for (const r of recorded?.kept ?? [])
        await keepRecording(tx, id, { name: r.name, reading: {}, id: r.id }, Readable.from([r.bytes]));
    }
    const notebook = parseNotebook(await readFile(join(folder, "notebook.json"), "utf8"));
    if (!notebook.ok) throw new Error(`demo/notebook.json does not read: ${JSON.stringify(notebook.issues[0])}`);
    await addLessons(notebook.value.lessons, tx);
  });
}
