import { readFileSync } from "node:fs";
import { join } from "node:path";
import postgres from "postgres";
import { Application, DEMO_DATABASE, ROOT, testDatabase, urlsOf } from "./server";

/** Waited no longer: answers that are not there by then are worked out again in the database of each file. */
const PATIENCE_MS = 300_000;

/**
 * Before all browser tests: a database with the demo jobs and the answers to them, worked out once. The database of
 * each file begins as a copy of it.
 */
export default async function prepare(): Promise<void> {
  const sql = postgres(testDatabase().href, { max: 1, onnotice: () => undefined });
  const build = readFileSync(join(ROOT, "web/.next/BUILD_ID"), "utf8").trim();
  const [made] = await sql<{ build: string | null }[]>`
    select shobj_description(oid, 'pg_database') as build from pg_database where datname = ${DEMO_DATABASE}`;
  if (made?.build !== build) {
    await sql.unsafe(`drop database if exists ${DEMO_DATABASE} with (force)`);
    await sql.unsafe(`create database ${DEMO_DATABASE}`);
    const app = new Application(0, () => urlsOf(DEMO_DATABASE));
    await app.start();
    await everythingAnswered();
    await app.kill();
    await sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = ${DEMO_DATABASE}`;
    await sql.unsafe(`comment on database ${DEMO_DATABASE} is '${build.replace(/'/g, "")}'`);
  }
  await sql.end();
}

async function everythingAnswered(): Promise<void> {
  const sql = postgres(urlsOf(DEMO_DATABASE).DATABASE_OWNER_URL, { max: 1 });
  for (const end = Date.now() + PATIENCE_MS; Date.now() < end; await new Promise((r) => setTimeout(r, 1_000))) {
    const [row] = await sql<{ open: number }[]>`
      select count(*)::int as open from jobs left join standing_answers s on s.job_id = jobs.id
      where put_away is null and coalesce(summary ->> 'closed', 'false') = 'false' and s.job_id is null`;
    if (row!.open === 0) break;
  }
  await sql.end();
}
