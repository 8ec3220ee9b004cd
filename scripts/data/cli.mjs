// npm run backup · restore · verify · people, and the throw-away database of the tests.
import { chmodSync, existsSync, mkdtempSync, renameSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { backupsIn, fillFrom, sayBackup, takeBackup, thinOut, tryBackup } from "./backup.mjs";
import { verifyAt } from "./chain.mjs";
import { Cluster } from "./cluster.mjs";
import { dataFolder, openFolder, running, say, Stop } from "./folder.mjs";
import { people } from "./people.mjs";
import { baseBackup, rewind, startOver } from "./rewind.mjs";

const passphrase = process.env.RADICULA_PASSPHRASE || undefined;
const DAY_MS = 86_400_000;
const stamp = () => new Date().toISOString().slice(0, 19).replace(/[-:]/g, "").replace("T", "_");

/** The cluster in use, started where it is not; stopped again afterwards where it was not running before. */
async function withCluster(work, { make = false } = {}) {
  const folder = dataFolder();
  openFolder(folder);
  const cluster = new Cluster(folder);
  if (make) cluster.make();
  else if (!existsSync(join(cluster.data, "PG_VERSION")))
    throw new Stop(`there is no database in ${folder} yet: npm start makes one`);
  else cluster.refuseOtherMajor();
  const wasRunning = cluster.pid() !== undefined;
  await cluster.start();
  try {
    return await work(cluster);
  } finally {
    if (!wasRunning) cluster.stop();
  }
}
function refuseWhileOpen() {
  const { web } = running(dataFolder()) ?? {};
  if (web) throw new Stop("the program is running. Stop it first with Ctrl-C where it was started; then try again.");
}
const wholeness = ({ isChained }) =>
  isChained ? "every logbook is whole" : "of a version whose logbooks could not be looked through yet";

/** Taken by the clock: where the newest backup is a day old, and where the newest copy of all files is a week old. */
async function daily() {
  const cluster = new Cluster(dataFolder());
  if (!cluster.pid()) return; // being started again: the next time
  const folder = join(cluster.folder, "backups");
  const newest = backupsIn(folder).find((f) => f.endsWith("-daily.backup"));
  if (!newest || Date.now() - statSync(join(folder, newest)).mtimeMs > DAY_MS) {
    const taken = await takeBackup(cluster, { kind: "daily", passphrase });
    await tryBackup(cluster, taken.file, passphrase);
    sayBackup(taken);
    thinOut(folder);
  }
  baseBackup(cluster);
}

async function backup(args) {
  const isEncrypted = args.includes("--encrypt");
  if (isEncrypted && !passphrase)
    throw new Stop("an encrypted backup needs a passphrase: RADICULA_PASSPHRASE=… npm run backup -- --encrypt");
  const file = args.find((a) => !a.startsWith("--"));
  await withCluster(async (cluster) => {
    const taken = await takeBackup(cluster, {
      ...(file ? { file: resolve(process.env.INIT_CWD ?? ".", file) } : {}),
      ...(isEncrypted ? { passphrase } : {}),
    });
    if (taken.wrong.length) say(`not all in it is whole:\n  ${taken.wrong.join("\n  ")}`);
    sayBackup(taken);
    await tryBackup(cluster, taken.file, isEncrypted ? passphrase : undefined);
    say(`brought back for trial beside the database in use: ${wholeness(taken)}`);
  });
}

async function restore(args) {
  refuseWhileOpen();
  const moment = args.indexOf("--at");
  if (moment >= 0) return restoreAt(args[moment + 1]);
  const folder = dataFolder();
  openFolder(folder);
  const named = args.find((a) => !a.startsWith("--"));
  const newest = backupsIn(join(folder, "backups"))[0];
  if (!named && !newest)
    throw new Stop(`there is no backup in ${join(folder, "backups")}. Name a file: npm run restore FILE`);
  const file = named ? resolve(process.env.INIT_CWD ?? ".", named) : join(folder, "backups", newest);
  if (!existsSync(file)) throw new Stop(`there is no file ${file}`);
  setAsideUnusable(folder);
  await withCluster(
    async (cluster) => {
      const fresh = `radicula_restored_${stamp()}`;
      const found = await fillFrom(cluster, file, fresh, passphrase);
      if (cluster.hasDatabase("radicula")) {
        const kept = `radicula_before_${stamp()}`;
        cluster.sql(`alter database radicula rename to "${kept}"`);
        say(`what was in use until now was kept as the database ${kept}`);
      }
      cluster.sql(`alter database "${fresh}" rename to radicula`);
      say(`brought back ${file}: ${found.jobs} jobs with ${found.entries} entries, ${wholeness(found)}`);
      say("npm start opens it");
    },
    { make: true },
  );
}
/** A database folder that this machine cannot use is kept beside the new one. */
function setAsideUnusable(folder) {
  const cluster = new Cluster(folder);
  if (!existsSync(cluster.data)) return;
  try {
    cluster.make();
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    const kept = `${cluster.data}-before-${stamp()}`;
    renameSync(cluster.data, kept);
    say(`the folder that could not be used was kept: ${kept}`);
  }
}
async function restoreAt(moment) {
  const cluster = new Cluster(dataFolder());
  await withCluster(async (c) => c.sql("select pg_switch_wal()"));
  cluster.stop();
  const { at } = await rewind(cluster, moment ?? "");
  const found = await verifyAt(cluster.url("radicula"));
  startOver(cluster, at);
  cluster.stop();
  if (found.wrong.length) say(`not all in it is whole:\n  ${found.wrong.join("\n  ")}`);
  say(`the database is as it was at ${at}: ${found.jobs} jobs with ${found.entries} entries. npm start opens it`);
}

async function verify() {
  const found = await withCluster((cluster) => verifyAt(cluster.url("radicula")));
  say(`${found.jobs} jobs with ${found.entries} entries, mark ${found.digest.slice(0, 16)}`);
  if (found.wrong.length === 0) return say("every logbook is whole: no entry was changed, left out or put elsewhere");
  for (const line of found.wrong) say(line);
  process.exitCode = 1;
}

/** Prints shell lines for a database that only the tests use; `scratch stop FOLDER` stops it and takes it away. */
async function scratch([what, given]) {
  if (what === "stop") {
    const cluster = new Cluster(given, { throwaway: true });
    cluster.stop();
    if (given.startsWith(join(tmpdir(), "radicula-scratch-"))) rmSync(given, { recursive: true });
    return;
  }
  const folder = mkdtempSync(join(tmpdir(), "radicula-scratch-"));
  chmodSync(folder, 0o755);
  const cluster = new Cluster(folder, { throwaway: true });
  cluster.make(true);
  await cluster.start();
  cluster.needServerRole();
  cluster.needDatabase("radicula_test");
  process.stdout.write(
    `SCRATCH=${folder}\nexport DATABASE_OWNER_URL=${cluster.url("radicula_test")}\n` +
      `export DATABASE_URL=${cluster.url("radicula_test", "radicula_server")}\n`,
  );
}

const COMMANDS = {
  backup,
  restore,
  verify,
  scratch,
  daily,
  /** of the database in use here, or of the one that DATABASE_URL names */
  people: (args) => {
    const { DATABASE_URL } = process.env;
    return DATABASE_URL ? people(DATABASE_URL, args) : withCluster((cluster) => people(cluster.url("radicula"), args));
  },
  /** a copy of all files, from which `restore --at` sets out */
  base: () => withCluster((cluster) => baseBackup(cluster, { now: true })),
};
const [command, ...rest] = process.argv.slice(2);
try {
  await COMMANDS[command](rest);
} catch (error) {
  process.stderr.write(`radicula: ${error instanceof Stop ? error.message : error.stack}\n`);
  process.exitCode = 1;
}
