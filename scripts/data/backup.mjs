// Backups: one file that holds everything, taken while people work, and tried out by bringing it back.
import { execFileSync, spawn } from "node:child_process";
import { createCipheriv, createDecipheriv, createHash, randomBytes, scryptSync } from "node:crypto";
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdtempSync,
  openSync,
  closeSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
  unlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import postgres from "postgres";
import { verifyAt, verifyChains } from "./chain.mjs";
import { programs } from "./cluster.mjs";
import { listing, say, Stop } from "./folder.mjs";

/** The first bytes of an encrypted backup; then salt, nonce, what is encrypted, and the tag that shows it is whole. */
const MARK = Buffer.from("radicula-encrypted-1\n");
const SALT = 16;
const NONCE = 12;
const TAG = 16;
const keyOf = (passphrase, salt) => scryptSync(passphrase, salt, 32, { N: 2 ** 15, maxmem: 2 ** 26 });

/** Kept of the backups that are taken by the clock: so many newest, then one a week, then one a month. */
const KEEP = { newest: 7, weeks: 5, months: 12 };

/**
 * Takes a backup: all jobs with their logbooks, wirings, photos. What is written meanwhile is not in it.
 * @returns its file and what is in it
 */
export async function takeBackup(cluster, { file, passphrase, database = "radicula", kind = "by-hand" } = {}) {
  const at = new Date().toISOString();
  const target =
    file ?? join(cluster.folder, "backups", `radicula-${at.slice(0, 19).replaceAll(":", "")}Z-${kind}.backup`);
  if (existsSync(target)) throw new Stop(`${target} is there already; a backup is never written over another`);
  const partial = `${target}.partial`;
  const url = cluster.url(database);
  const client = postgres(url, { max: 1, onnotice: () => undefined });
  try {
    const about = await client.begin("isolation level repeatable read read only", async (tx) => {
      const [{ snapshot }] = await tx`select pg_export_snapshot() as snapshot`;
      const chain = await verifyChains(tx);
      const dump = spawn(
        join(programs(cluster.major), "pg_dump"),
        ["--format=custom", "--compress=6", `--snapshot=${snapshot}`, "-d", database],
        { stdio: ["ignore", "pipe", "pipe"], env: cluster.environment },
      );
      let complaint = "";
      dump.stderr.on("data", (d) => (complaint += d));
      const ended = new Promise((resolve) => dump.on("close", resolve));
      await writeBackup(dump.stdout, partial, passphrase);
      if ((await ended) !== 0) throw new Stop(`the backup did not end: ${complaint}`);
      return { format: "radicula/backup", version: 1, at, postgres: cluster.major, ...chain };
    });
    const sha256 = await hashOf(partial);
    writeFileSync(
      `${target}.json`,
      `${JSON.stringify({ ...about, sha256, encrypted: Boolean(passphrase) }, null, 1)}\n`,
      { mode: 0o600 },
    );
    renameSync(partial, target);
    return { file: target, bytes: statSync(target).size, ...about };
  } finally {
    rmSync(partial, { force: true });
    await client.end();
  }
}

async function hashOf(file) {
  const hash = createHash("sha256");
  await pipeline(createReadStream(file), hash);
  return hash.digest("hex");
}

async function writeBackup(from, file, passphrase) {
  const out = createWriteStream(file, { mode: 0o600 });
  if (!passphrase) return pipeline(from, out);
  const salt = randomBytes(SALT);
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv("aes-256-gcm", keyOf(passphrase, salt), nonce);
  await pipeline(
    from,
    async function* (source) {
      yield Buffer.concat([MARK, salt, nonce]);
      for await (const chunk of source) yield cipher.update(chunk);
      yield cipher.final();
      yield cipher.getAuthTag();
    },
    out,
  );
}
export function isEncrypted(file) {
  const head = Buffer.alloc(MARK.length);
  const handle = openSync(file, "r");
  readSync(handle, head, 0, head.length, 0);
  closeSync(handle);
  return head.equals(MARK);
}
/** @throws {Stop} where the passphrase is another, or the file was changed or cut */
async function decrypt(file, to, passphrase) {
  const size = statSync(file).size;
  const start = MARK.length + SALT + NONCE;
  if (size < start + TAG) throw new Stop(`${file} is cut off`);
  const handle = openSync(file, "r");
  const head = Buffer.alloc(SALT + NONCE);
  readSync(handle, head, 0, head.length, MARK.length);
  const tag = Buffer.alloc(TAG);
  readSync(handle, tag, 0, TAG, size - TAG);
  closeSync(handle);
  const decipher = createDecipheriv("aes-256-gcm", keyOf(passphrase, head.subarray(0, SALT)), head.subarray(SALT));
  decipher.setAuthTag(tag);
  try {
    await pipeline(
      createReadStream(file, { start, end: size - TAG - 1 }),
      decipher,
      createWriteStream(to, { mode: 0o600 }),
    );
  } catch {
    throw new Stop(
      `${file} does not open: the passphrase is another one, or the file was changed. Nothing was changed.`,
    );
  }
}

/**
 * Fills a new database from a backup and looks whether every logbook in it is whole.
 * @returns what is in it
 * @throws {Stop} where the file does not read, or what is in it is not what was saved
 */
export async function fillFrom(cluster, file, database, passphrase) {
  const about = existsSync(`${file}.json`) ? JSON.parse(readFileSync(`${file}.json`, "utf8")) : undefined;
  if (about && about.sha256 !== (await hashOf(file)))
    throw new Stop(`${file} was changed or cut since it was made (${about.at}). Nothing was changed.`);
  const scratch = mkdtempSync(join(tmpdir(), "radicula-restore-"));
  try {
    let plain = file;
    if (isEncrypted(file)) {
      if (!passphrase)
        throw new Stop(`${file} is encrypted. Give its passphrase: RADICULA_PASSPHRASE=… npm run restore …`);
      await decrypt(file, (plain = join(scratch, "plain")), passphrase);
    }
    cluster.sql(`create database "${database}"`);
    try {
      execFileSync(
        join(programs(cluster.major), "pg_restore"),
        // who may do what is said anew at the next start; the roles of then may not be here
        ["--exit-on-error", "--single-transaction", "--no-owner", "--no-privileges", "-d", database, plain],
        { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"], env: cluster.environment },
      );
    } catch (error) {
      throw new Stop(`${file} does not read as a backup: ${String(error.stderr).split("\n")[0]}. Nothing was changed.`);
    }
    const found = await verifyAt(cluster.url(database));
    if (found.wrong.length) throw new Stop(`what is in ${file} is not whole:\n  ${found.wrong.join("\n  ")}`);
    if (about && about.digest !== found.digest)
      throw new Stop(`the logbooks in ${file} are not those that were backed up (${about.at}). Nothing was changed.`);
    return found;
  } catch (error) {
    cluster.sql(`drop database if exists "${database}" with (force)`);
    throw error;
  } finally {
    rmSync(scratch, { recursive: true });
  }
}

/** Brings a backup back into a database beside the one in use, and throws that one away again: it can be done. */
export async function tryBackup(cluster, file, passphrase) {
  // what a trial that was broken off left behind
  for (const left of cluster
    .sql("select datname from pg_database where datname like 'radicula\\_trial\\_%'")
    .split("\n"))
    if (left) cluster.sql(`drop database "${left}" with (force)`);
  const name = `radicula_trial_${Date.now()}`;
  const found = await fillFrom(cluster, file, name, passphrase);
  cluster.sql(`drop database "${name}" with (force)`);
  return found;
}

/** Removes what is kept longer than needed of the backups taken by the clock; those by hand stay. */
export function thinOut(folder) {
  const ours = backupsIn(folder).filter((f) => f.endsWith("-daily.backup"));
  const keep = new Set(ours.slice(0, KEEP.newest));
  for (const [count, period] of [
    [KEEP.weeks, (f) => weekOf(f)],
    [KEEP.months, (f) => f.slice(9, 16)],
  ]) {
    const seen = new Map();
    for (const f of ours) seen.set(period(f), seen.get(period(f)) ?? f);
    for (const f of [...seen.values()].slice(0, count)) keep.add(f);
  }
  for (const f of ours.filter((x) => !keep.has(x)))
    for (const end of ["", ".json"]) if (existsSync(join(folder, f + end))) unlinkSync(join(folder, f + end));
}
const weekOf = (f) => Math.floor(Date.parse(f.slice(9, 19)) / (7 * 86_400_000));
/** Names of the backups in a folder, newest first. */
export const backupsIn = (folder) =>
  listing(folder)
    .filter((f) => /^radicula-.*\.backup$/.test(f))
    .reverse();
export const sayBackup = ({ file, bytes, jobs, entries }) =>
  say(`backup of ${jobs} jobs with ${entries} entries, ${(bytes / 1e6).toFixed(1)} MB: ${file}`);
