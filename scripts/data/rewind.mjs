// Going back to a moment: a copy of all files of the database, and everything that was written since.
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { listing, postgresUser, say, Stop } from "./folder.mjs";

const WEEK_MS = 7 * 86_400_000;
/** Copies of all files that are kept, and with them what was written since the oldest of them. */
const BASES_KEPT = 3;
const nameOf = (date) => date.toISOString().slice(0, 19).replaceAll(":", "");
const timeOf = (name) => Date.parse(`${name.slice(0, 13)}:${name.slice(13, 15)}:${name.slice(15, 17)}Z`);

const basesIn = (cluster) => {
  const folder = join(cluster.folder, "bases");
  return existsSync(folder) ? listing(folder).filter((n) => /^\d{4}-\d\d-\d\dT\d{6}$/.test(n)) : [];
};

/** Copies all files of the running database where the newest copy is a week old; the oldest copies are removed. */
export function baseBackup(cluster, { now = false } = {}) {
  const folder = join(cluster.folder, "bases");
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  cluster.owned(folder);
  const newest = basesIn(cluster).at(-1);
  if (newest && !now && Date.now() - timeOf(newest) < WEEK_MS) return;
  const began = new Date();
  const target = join(folder, nameOf(began));
  const made = cluster.run(
    "pg_basebackup",
    ["-D", `${target}.partial`, "--format=tar", "--gzip", "--wal-method=fetch", "--checkpoint=fast"],
    { env: cluster.environment },
  );
  if (made.status !== 0) throw new Stop(`copying the files of the database failed: ${made.stderr}`);
  renameSync(`${target}.partial`, target);
  const all = basesIn(cluster);
  for (const old of all.slice(0, -BASES_KEPT)) rmSync(join(folder, old), { recursive: true });
  // what was archived before the oldest copy began is of no use any more
  const oldest = timeOf(all.slice(-BASES_KEPT)[0]);
  for (const f of listing(cluster.wal))
    if (/^[0-9A-F]{24}\.gz$/.test(f) && statSync(join(cluster.wal, f)).mtimeMs < oldest) rmSync(join(cluster.wal, f));
}

/**
 * Puts the database as it was at a moment into the place of the one in use, which is kept beside it.
 * @param cluster stopped
 * @param moment a date and time
 */
export async function rewind(cluster, moment) {
  const at = new Date(moment);
  if (Number.isNaN(at.getTime())) throw new Stop(`"${moment}" is no time. Write it as 2026-11-29T14:30`);
  const base = basesIn(cluster).findLast((n) => timeOf(n) <= at.getTime());
  if (!base)
    throw new Stop(
      `there is no copy of the files from before ${at.toISOString()}; the oldest is ` +
        `${basesIn(cluster)[0] ?? "not taken yet"}. Nothing was changed.`,
    );
  const made = `${cluster.data}.rewound`;
  if (existsSync(made)) throw new Stop(`${made} is left of an earlier try. Remove it, then try again.`);
  mkdirSync(made, { mode: 0o700 });
  cluster.owned(made);
  const { uid, gid } = postgresUser();
  execFileSync("tar", ["-xzf", join(cluster.folder, "bases", base, "base.tar.gz"), "-C", made], { uid, gid, cwd: "/" });
  const kept = `${cluster.data}-before-${nameOf(new Date())}`;
  // what the archive has not got yet is still in the folder that is in use until now
  const recovery = [
    `restore_command = 'test -e "${cluster.wal}/%f.gz" && gunzip -c "${cluster.wal}/%f.gz" > "%p" || ` +
      `cp "${join(kept, "pg_wal")}/%f" "%p"'`,
    `recovery_target_time = '${at.toISOString().replace("Z", "+00")}'`,
    "recovery_target_action = 'promote'",
  ];
  const own = join(made, "postgresql.auto.conf");
  writeFileSync(own, `${recovery.join("\n")}\n`, { mode: 0o600 });
  writeFileSync(join(made, "recovery.signal"), "");
  cluster.owned(own, join(made, "recovery.signal"));
  renameSync(cluster.data, kept);
  renameSync(made, cluster.data);
  try {
    await cluster.start();
    await promoted(cluster);
  } catch (error) {
    cluster.stop();
    renameSync(cluster.data, `${made}-failed-${nameOf(new Date())}`);
    renameSync(kept, cluster.data);
    throw new Stop(
      `going back to ${at.toISOString()} did not succeed; the database is as it was. Nothing may have been written ` +
        `since that time: then it is the state you have. ${error.message}`,
    );
  }
  writeFileSync(join(cluster.data, "postgresql.auto.conf"), "");
  say(`the database in use until now was kept: ${kept}`);
  return { at: at.toISOString(), base };
}
/** What was copied later than the moment gone back to leads to what was given up: from now on there is a new copy. */
export function startOver(cluster, at) {
  const folder = join(cluster.folder, "bases");
  for (const name of basesIn(cluster).filter((n) => timeOf(n) > Date.parse(at)))
    renameSync(join(folder, name), join(folder, `${name}-given-up`));
  baseBackup(cluster, { now: true });
}
async function promoted(cluster) {
  for (let i = 0; i < 600; i++) {
    if (cluster.sql("select pg_is_in_recovery()").trim() === "f") return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Stop("it is still reading what was written since the copy.");
}
