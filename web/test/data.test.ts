/** @jest-environment node */
import { spawnSync } from "node:child_process";
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const DATA = join(__dirname, "../../scripts/data");
/** A data folder of its own, as npm start would make it. */
let folder: string;
let cluster: string;
/** One with a database in it, which is copied for each test that wants one. */
let filled: string | undefined;
const freshFolder = () => {
  const made = mkdtempSync(join(tmpdir(), "radicula-data-"));
  chmodSync(made, 0o755);
  return made;
};
const use = (made: string) => {
  folder = made;
  cluster = join(folder, "cluster");
};
beforeEach(() => use(freshFolder()));
afterEach(() => {
  scripted("cluster.stop()");
  rmSync(folder, { recursive: true, force: true });
});
afterAll(() => filled && rmSync(filled, { recursive: true, force: true }));

interface Ended {
  readonly status: number | null;
  readonly said: string;
}
function run(args: readonly string[], more: Record<string, string> = {}): Ended {
  const { status, stdout, stderr } = spawnSync(process.execPath, [...args], {
    encoding: "utf8",
    env: { ...process.env, RADICULA_DATA: folder, ...more },
    timeout: 60_000,
  });
  return { status, said: stdout + stderr };
}
const command = (name: string, args: readonly string[] = [], more: Record<string, string> = {}) =>
  run([join(DATA, "cli.mjs"), name, ...args], more);
/** What npm start does with the database, and a line of what is done with it then. */
const scripted = (code: string) =>
  run([
    "--input-type=module",
    "-e",
    `import { Cluster } from "${DATA}/cluster.mjs"; import { openFolder } from "${DATA}/folder.mjs";
     import { readFileSync, readdirSync } from "node:fs";
     const cluster = new Cluster("${folder}");
     const up = async () => { openFolder("${folder}"); cluster.make(); await cluster.start(); };
     const sql = (text) => cluster.sql(text, "radicula").trim();
     try { ${code} } catch (error) { console.error(error.message); process.exitCode = 1; }`,
  ]);

const JOBS = 6;
/** A database with the program's tables, six jobs and three entries in each. */
function fill(): void {
  if (!filled) {
    const drizzle = join(__dirname, "../drizzle");
    const made = scripted(`
      await up();
      cluster.needDatabase("radicula");
      cluster.needServerRole();
      // the first two entries are of a version that did not chain them yet
      for (const f of readdirSync("${drizzle}").filter((f) => f.endsWith(".sql")).sort()) {
        if (f.startsWith("0003")) {
          sql("insert into jobs (title, wiring) select 'Tug ' || n, '{}' from generate_series(1, ${JOBS}) n");
          ${entry(1)} ${entry(2)}
        }
        sql(readFileSync("${drizzle}/" + f, "utf8"));
      }
      ${entry(3)}
      sql("grant select, insert on entries to radicula_server"); // as the server does at its start
      cluster.stop();`);
    expect(made).toEqual({ status: 0, said: expect.not.stringContaining("rror") });
    filled = freshFolder();
    spawnSync("cp", ["-aT", folder, filled]);
  }
  spawnSync("cp", ["-aT", filled, folder]);
}
/** The next entry of every job. */
const entry = (n: number) => `sql(\`insert into entries (job_id, seq, batch, body)
  select id, ${n}, gen_random_uuid(), '{"n": ${n}}' from jobs\`);`;
const logbook = () =>
  scripted(`await up(); console.log("numbers:", sql(\`select distinct string_agg(body->>'n', ' ' order by seq)
    from entries group by job_id\`));
    cluster.stop();`).said;

test("a folder that is not a database is left as it is, and what is there is said", () => {
  mkdirSync(cluster);
  writeFileSync(join(cluster, "base.tar"), "the only copy");
  const { status, said } = scripted("await up()");
  expect(status).toBe(1);
  expect(said).toContain(cluster);
  expect(said).toContain("base.tar");
  expect(readFileSync(join(cluster, "base.tar"), "utf8")).toBe("the only copy");
});

test("a folder that may not be written is said, with the way out", () => {
  const file = join(folder, "a file");
  writeFileSync(file, "");
  const refused = command("verify", [], { RADICULA_DATA: join(file, "data") });
  expect(refused.status).toBe(1);
  expect(refused.said).toMatch(/cannot be written.*RADICULA_DATA=\/path npm start/s);
});

test("a first start that was killed half way leaves nothing that is taken for a database", () => {
  mkdirSync(`${cluster}.making-1`);
  writeFileSync(join(`${cluster}.making-1`, "PG_VERSION"), "15\n");
  const { status, said } = scripted("await up(); cluster.stop()");
  expect(status).toBe(0);
  expect(said).toMatch(/making-1 is left of a start that was killed; it holds no data/);
  expect(existsSync(join(cluster, "PG_VERSION"))).toBe(true);
  expect(existsSync(`${cluster}.making-1`)).toBe(true);
});

test("nothing saved is lost with the password file; secrets are read by their owner only, pages have checksums", () => {
  fill();
  rmSync(join(folder, "password"));
  expect(logbook()).toContain("numbers: 1 2 3");
  for (const secret of ["password", "cluster.log"]) expect(statSync(join(folder, secret)).mode & 0o077).toBe(0);
  expect(scripted(`await up(); console.log(cluster.sql("show data_checksums")); cluster.stop()`).said).toContain("on");
});

test("the database itself refuses to change, remove, empty or misnumber entries", () => {
  fill();
  for (const [change, why] of [
    ["update entries set body = '{}'", "append-only"],
    ["delete from entries where seq = 2", "append-only"],
    ["truncate entries", "append-only"],
    ["delete from jobs", "append-only"],
    [`insert into entries (job_id, seq, batch, body) select id, 5, gen_random_uuid(), '{}' from jobs`, "not follow"],
  ] as const)
    expect(scripted(`await up(); sql(\`${change}\`)`)).toEqual({ status: 1, said: expect.stringContaining(why) });
  expect(logbook()).toContain("numbers: 1 2 3");
});

test("somebody who goes round the refusal is found out, in every job", () => {
  fill();
  expect(command("verify")).toMatchObject({ status: 0, said: expect.stringContaining("every logbook is whole") });
  const of = (n: number) => `job_id = (select id from jobs where title = 'Tug ${n}')`;
  const changes = [
    `update entries set body = '{"n": 9}' where seq = 2 and ${of(1)}`,
    `update entries set saved_at = saved_at - interval '1 hour' where seq = 3 and ${of(2)}`,
    `delete from entries where seq = 2 and ${of(3)}`,
    `delete from entries where seq = 3 and ${of(4)}`,
    `delete from entries where ${of(5)}`,
    ...[`seq = 9 where seq = 1`, `seq = 1 where seq = 2`, `seq = 2 where seq = 9`].map(
      (move) => `update entries set ${move} and ${of(6)}`,
    ),
  ];
  scripted(`await up(); sql("alter table entries disable trigger user");
    sql(\`${changes.join("; ")}\`); cluster.stop()`);
  const { status, said } = command("verify");
  expect(status).toBe(1);
  const ofJob = (n: number) =>
    said
      .split("\n")
      .filter((line) => line.includes(`"Tug ${n}"`))
      .join("\n");
  expect(ofJob(1)).toContain("changed since it was saved: entry 2");
  expect(ofJob(2)).toContain("changed since it was saved: entry 3");
  expect(ofJob(3)).toContain("an entry is missing before number 3");
  expect(ofJob(4)).toContain("3 entries were saved, 2 are there: the last are missing");
  expect(ofJob(5)).toContain("3 entries were saved, 0 are there");
  expect(ofJob(6)).toContain("changed since it was saved: entry 1, 2, 3");
});

test("a backup brings everything back beside what is there; the database in use until then is kept", () => {
  fill();
  const file = join(folder, "mine.backup");
  expect(command("backup", [file])).toMatchObject({
    status: 0,
    said: expect.stringContaining("6 jobs with 18 entries"),
  });
  expect(command("backup", [file])).toMatchObject({ status: 1, said: expect.stringContaining("never written over") });
  scripted(`await up(); ${entry(4)} cluster.stop()`);
  expect(command("restore", [file])).toMatchObject({
    status: 0,
    said: expect.stringMatching(/was kept.*brought back/s),
  });
  expect(logbook()).toContain("numbers: 1 2 3\n");
  const kept = scripted(`await up(); console.log(cluster.sql("select datname from pg_database order by 1"))`).said;
  expect(kept).toMatch(/radicula_before_/);
});

test("an encrypted backup opens with its passphrase only; one cut or changed changes nothing", () => {
  fill();
  const file = join(folder, "mine.backup");
  expect(command("backup", ["--encrypt", file]).said).toContain("needs a passphrase");
  const RADICULA_PASSPHRASE = "grey heron";
  expect(command("backup", ["--encrypt", file], { RADICULA_PASSPHRASE }).status).toBe(0);
  expect(readFileSync(file).includes("entries_chain")).toBe(false);
  expect(command("restore", [file]).said).toContain("is encrypted");
  expect(command("restore", [file], { RADICULA_PASSPHRASE: "grey horse" }).said).toContain("does not open");
  expect(command("restore", [file], { RADICULA_PASSPHRASE }).status).toBe(0);
  truncateSync(file, statSync(file).size - 5);
  expect(command("restore", [file], { RADICULA_PASSPHRASE }).said).toContain("changed or cut");
  rmSync(`${file}.json`); // a file that came alone
  expect(command("restore", [file], { RADICULA_PASSPHRASE }).said).toContain("does not open");
  writeFileSync(file, "PGDMP and then nothing");
  expect(command("restore", [file]).said).toContain("does not read as a backup");
  expect(logbook()).toContain("numbers: 1 2 3\n");
});

test.each([
  ["is damaged", () => rmSync(join(cluster, "PG_VERSION")), /lost a file.*npm run restore/s],
  ["is of an older PostgreSQL", () => writeFileSync(join(cluster, "PG_VERSION"), "9\n"), /of PostgreSQL 9.*restore/s],
])("a database that %s is not touched; one command brings back the last backup and keeps it", (_, harm, said) => {
  fill();
  expect(command("backup").status).toBe(0);
  harm();
  expect(scripted("await up()")).toEqual({ status: 1, said: expect.stringMatching(said) });
  expect(command("restore")).toMatchObject({ status: 0, said: expect.stringContaining("was kept") });
  expect(logbook()).toContain("numbers: 1 2 3\n");
  expect(readdirSync(folder).filter((f) => f.startsWith("cluster-before-"))).toHaveLength(1);
  // the new one archives from its first file on: what the old one archived does not stand in its way
  const archived = scripted(`await up(); sql("select pg_switch_wal()");
    for (let i = 0; i < 50 && sql("select archived_count + failed_count from pg_stat_archiver") === "0"; i++)
      await new Promise((r) => setTimeout(r, 100));
    console.log("failed:", sql("select failed_count from pg_stat_archiver")); cluster.stop();`);
  expect(archived.said).toContain("failed: 0");
});

test("the database as it was at a moment, from a copy of its files and what was written since", async () => {
  fill();
  expect(command("base").status).toBe(0);
  scripted(`await up(); ${entry(4)} cluster.stop()`);
  await new Promise((resolve) => setTimeout(resolve, 1100));
  const moment = new Date().toISOString();
  scripted(`await up(); ${entry(5)} cluster.stop()`);
  expect(command("restore", ["--at", "2001-01-01"]).said).toContain("no copy of the files from before");
  expect(command("restore", ["--at", "noon"]).said).toContain("is no time");
  expect(command("restore", ["--at", moment])).toMatchObject({
    status: 0,
    said: expect.stringContaining("6 jobs with 24 entries"),
  });
  expect(logbook()).toContain("numbers: 1 2 3 4\n");
  // and once more, to a moment after that: by a copy of what has been in use since
  scripted(`await up(); ${entry(5)} cluster.stop()`);
  await new Promise((resolve) => setTimeout(resolve, 1100));
  const later = new Date().toISOString();
  scripted(`await up(); ${entry(6)} cluster.stop()`);
  expect(command("restore", ["--at", later])).toMatchObject({ status: 0 });
  expect(logbook()).toContain("numbers: 1 2 3 4 5\n");
});

test("the data of an earlier version is moved once, and its password with it", () => {
  fill();
  const project = join(folder, "project");
  mkdirSync(join(project, ".radicula"), { recursive: true });
  const moved = scripted(`
    const { bringEarlier } = await import("${DATA}/folder.mjs");
    const { renameSync } = await import("node:fs");
    renameSync("${cluster}", "${project}/.radicula/postgres");
    renameSync("${folder}/password", "${project}/.radicula/password");
    bringEarlier("${project}", "${folder}");`);
  expect(moved).toEqual({ status: 0, said: expect.stringContaining("moving the data") });
  expect(logbook()).toContain("numbers: 1 2 3\n");
  expect(existsSync(join(project, ".radicula/postgres"))).toBe(false);
});

test("of the daily backups the last 7, one of each of 5 weeks and of 12 months stay; those by hand all", () => {
  const backups = join(folder, "backups");
  mkdirSync(backups);
  const day = (n: number) => new Date(Date.UTC(2026, 10, 29) - n * 86_400_000).toISOString().slice(0, 10);
  const name = (n: number, kind: string) => `radicula-${day(n)}T060000Z-${kind}.backup`;
  for (let n = 0; n < 500; n++)
    for (const end of ["", ".json"]) writeFileSync(join(backups, name(n, "daily") + end), "");
  writeFileSync(join(backups, name(450, "by-hand")), "");
  const thinned = run([
    "--input-type=module",
    "-e",
    `import { thinOut } from "${DATA}/backup.mjs"; thinOut("${backups}"); thinOut("${backups}");`,
  ]);
  expect(thinned).toEqual({ status: 0, said: "" });
  const left = readdirSync(backups).filter((f) => f.endsWith(".backup"));
  expect(left).toContain(name(450, "by-hand"));
  const daily = left.filter((f) => f.includes("daily"));
  for (let n = 0; n < 7; n++) expect(daily).toContain(name(n, "daily"));
  expect(daily.length).toBeGreaterThanOrEqual(7 + 12 - 1);
  expect(daily.length).toBeLessThanOrEqual(7 + 5 + 12);
  expect(new Set(daily.map((f) => f.slice(9, 16))).size).toBe(12); // months
  expect(readdirSync(backups).filter((f) => f.endsWith(".json"))).toHaveLength(daily.length);
});
