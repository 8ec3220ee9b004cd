// Where the data lies: outside the project, so that a project that is cleaned, moved or made anew finds it again.
import { execFileSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import {
  accessSync,
  chmodSync,
  constants,
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  realpathSync,
  renameSync,
  statfsSync,
  writeFileSync,
} from "node:fs";
import { createServer } from "node:net";
import { homedir, userInfo } from "node:os";
import { join } from "node:path";

/** Something the person at the terminal can put right; said without a stack. */
export class Stop extends Error {}

export const isRoot = () => process.getuid() === 0;
export const say = (text) => process.stdout.write(`radicula: ${text}\n`);

/** RADICULA_DATA, or the place the system keeps such data at. */
export function dataFolder() {
  if (process.env.RADICULA_DATA) return process.env.RADICULA_DATA;
  if (isRoot()) return "/var/lib/radicula";
  return join(process.env.XDG_DATA_HOME || join(homedir(), ".local", "share"), "radicula");
}

/** PostgreSQL refuses to run as root; then it runs as the user that its Debian package made. */
export function postgresUser() {
  if (!isRoot()) return {};
  const id = (flag) => Number(execFileSync("id", [flag, "postgres"], { encoding: "utf8" }));
  return { uid: id("-u"), gid: id("-g") };
}

const ENOUGH_BYTES = 200e6;
/**
 * Makes the folder where there is none, and says in plain words what keeps it from being used.
 * @throws {Stop} where it cannot be written or reached
 */
export function openFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch (error) {
    throw new Stop(
      `the data folder ${folder} cannot be written (${error.code}). Nothing was changed. ` +
        (error.code === "EROFS"
          ? `Its disk is mounted read-only: look at "dmesg | tail" for the reason, then "mount -o remount,rw".`
          : `Either "sudo chown ${userInfo().username} ${folder}", or name another ` +
            `folder: RADICULA_DATA=/path npm start`),
    );
  }
  const { bavail, bsize } = statfsSync(folder);
  if (bavail * bsize < ENOUGH_BYTES)
    throw new Stop(
      `only ${Math.round((bavail * bsize) / 1e6)} MB are free where the data lies (${folder}), ` +
        `and ${ENOUGH_BYTES / 1e6} MB are needed. Nothing was changed. Make room, then start again. What takes the ` +
        `room: du -xh / | sort -h | tail`,
    );
  // the user of PostgreSQL goes through it to its own folder; every secret in it can be read by its owner only
  chmodSync(folder, isRoot() ? 0o755 : 0o700);
  for (const own of ["backups", "logs"]) mkdirSync(join(folder, own), { recursive: true, mode: 0o700 });
}

/** A secret kept in a file that only its owner reads; made on first asking. */
export function secret(folder, name) {
  const file = join(folder, name);
  if (!existsSync(file)) keepSecret(folder, name, randomBytes(24).toString("base64url"));
  return readFileSync(file, "utf8").trim();
}
export function keepSecret(folder, name, value) {
  writeFileSync(join(folder, `${name}.new`), `${value}\n`, { mode: 0o600 });
  renameSync(join(folder, `${name}.new`), join(folder, name));
}

/** Where earlier versions kept their database: in the project, or beside others under a name made of its path. */
function earlierFolders(root) {
  const mark = createHash("sha256").update(root).digest("hex").slice(0, 12);
  return [join(root, ".radicula", "postgres"), `/var/lib/radicula-${mark}`].filter((d) =>
    existsSync(join(d, "PG_VERSION")),
  );
}

/**
 * Brings the database of an earlier version to where data lies now, once: moved whole, or, where that is on another
 * disk, copied whole and the old one left. What is not needed there is left.
 * @returns whether it was brought
 */
export function bringEarlier(root, folder) {
  const cluster = join(folder, "cluster");
  const [earlier, ...others] = earlierFolders(root);
  if (!earlier || existsSync(cluster)) return false;
  const pid = Number(readLine(join(root, ".radicula", "web.pid")));
  if (pid && isAlive(pid))
    throw new Stop(`an earlier version is running from this folder (process ${pid}). Stop it first with Ctrl-C.`);
  const postmaster = Number(readLine(join(earlier, "postmaster.pid")));
  if (postmaster && isAlive(postmaster))
    throw new Stop(
      `the database of an earlier version is running (process ${postmaster}). Stop it: kill ${postmaster}`,
    );
  const password = readLine(join(root, ".radicula", "password"));
  say(`moving the data from ${earlier} to ${folder}`);
  try {
    renameSync(earlier, cluster);
  } catch (error) {
    if (error.code !== "EXDEV") throw error;
    const copy = `${cluster}.copying`;
    if (existsSync(copy)) throw new Stop(`${copy} is left of a copy that did not end. Remove it, then start again.`);
    cpSync(earlier, copy, { recursive: true, preserveTimestamps: true });
    if (isRoot()) execFileSync("chown", ["-R", "postgres:", copy]);
    execFileSync("sync", ["-f", copy]);
    renameSync(copy, cluster);
    say(`the data is on another disk now; ${earlier} was left as it is and is not used any more`);
  }
  if (password) keepSecret(folder, "password", password);
  for (const other of others) say(`${other} holds a database too, and was left as it is`);
  return true;
}

/**
 * Makes this process the only one that keeps this folder's program running, for as long as it lives: a name on the
 * machine that nobody else can have meanwhile, and that goes with the process however it ends.
 * @returns whether it is
 */
export function holdAlone(folder) {
  const name = createHash("sha256").update(realpathSync(folder)).digest("hex").slice(0, 24);
  return new Promise((resolve) => {
    const server = createServer((socket) => socket.destroy());
    server.once("error", () => resolve(false));
    server.listen(`\0radicula-${name}`, () => resolve(true));
    server.unref();
  });
}

/** What runs from this folder now: its address, and from which copy of the project. */
export function running(folder) {
  const text = readLine(join(folder, "running.json"));
  const run = text ? JSON.parse(text) : undefined;
  return run && isAlive(run.web) ? run : undefined;
}

/** A line of a file, or nothing. */
export function readLine(file, number = 0) {
  try {
    return readFileSync(file, "utf8").split("\n")[number] ?? "";
  } catch {
    return "";
  }
}
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}
export const listing = (folder) => readdirSync(folder).sort();
