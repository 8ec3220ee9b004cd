// npm start, once everything is installed and built: keeps the database and the server running until Ctrl-C, and
// takes a backup each day.
import { spawn } from "node:child_process";
import { request } from "node:http";
import { request as tlsRequest } from "node:https";
import { closeSync, existsSync, openSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { sayBackup, takeBackup } from "./backup.mjs";
import { Cluster, freePort, SERVER_ROLE } from "./cluster.mjs";
import { bringEarlier, dataFolder, holdAlone, openFolder, readLine, running, say, Stop } from "./folder.mjs";

const ROOT = join(import.meta.dirname, "../..");
/** How often it is looked whether both still run, how often the server is asked, how long it may not answer, ms. */
const LOOK_MS = 200;
const ASK_MS = 2000;
const ANSWER_MS = 20_000;
/** How long it may take to load on a machine that does much else, ms. */
const LOAD_MS = 60_000;
/** Waits before a thing that died is started again: longer each time it dies before it was well for a moment, ms. */
const WAITS = [0, 250, 500, 1000, 2000, 4000];
/** What was well for so long did not die of its start, ms. */
const STEADY_MS = 1000;
/** A spare server is made ready once the one in use has settled, ms. */
const SPARE_AFTER_MS = 500;
const LOG_BYTES = 5e6;
const LOGS_KEPT = 3;

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** How long to wait before a thing is started again. */
class Patience {
  deaths = 0;
  wellSince = Infinity;
  isWell() {
    this.wellSince = Math.min(this.wellSince, Date.now());
  }
  next() {
    if (Date.now() - this.wellSince > STEADY_MS) this.deaths = 0;
    this.wellSince = Infinity;
    return WAITS[Math.min(this.deaths++, WAITS.length - 1)];
  }
}

class Supervisor {
  isStopping = false;
  webPatience = new Patience();
  constructor(folder, root = ROOT) {
    this.folder = folder;
    this.root = root;
    this.cluster = new Cluster(folder);
    this.runFile = join(folder, "running.json");
  }

  /** @returns whether it was started: another one may run already */
  async start() {
    openFolder(this.folder);
    if (!(await holdAlone(this.folder))) return false;
    stopOrphan(this.folder);
    if (bringEarlier(this.root, this.folder)) this.cluster.addChecksums();
    this.cluster.make();
    await this.cluster.start();
    this.cluster.needDatabase("radicula");
    this.cluster.needServerRole();
    await this.backUpBeforeMigration();
    this.port = await freePort(Number(process.env.PORT) || 3210);
    this.startWeb();
    await this.firstAnswer();
    say(`open ${this.address}   (Ctrl-C stops)`);
    this.sayWhereNobodyMaySignIn();
    this.sayWhereClockIsBehind();
    void this.watchDatabase();
    void this.watchWeb();
    void this.backUpDaily();
    return true;
  }
  hostname = process.env.RADICULA_ADDRESS || "127.0.0.1";
  isSecure = Boolean(process.env.RADICULA_CERT);
  /** where the server is asked from this machine */
  get address() {
    const isEvery = this.hostname === "0.0.0.0" || this.hostname === "::";
    const host = isEvery ? "127.0.0.1" : this.hostname.includes(":") ? `[${this.hostname}]` : this.hostname;
    return `${this.isSecure ? "https" : "http"}://${host}:${this.port}`;
  }

  sayWhereNobodyMaySignIn() {
    const { RADICULA_SIGN_IN, RADICULA_HOSTS, RADICULA_ADDRESS } = process.env;
    if (RADICULA_SIGN_IN !== "on" && !RADICULA_HOSTS && !RADICULA_ADDRESS) return;
    const known = this.cluster.sql("select count(*) from people where role = 'administrator'", "radicula").trim();
    if (known === "0")
      say('nobody can sign in yet. Add the first person: npm run people -- add "FULL NAME" SIGN-IN-NAME administrator');
  }

  /** Entries keep their order whatever the clock says; but nobody would understand their times. */
  sayWhereClockIsBehind() {
    const ahead =
      "select date_trunc('second', max(saved_at)) from entries having max(saved_at) > now() + interval '1 minute'";
    const newest = this.cluster.sql(ahead, "radicula").trim();
    if (newest) say(`the clock of this machine is behind: the newest entry was saved at ${newest}. Set the clock`);
  }

  /** Where migrations wait, everything is backed up first. */
  async backUpBeforeMigration() {
    const table = this.cluster.sql("select to_regclass('drizzle.__drizzle_migrations')", "radicula").trim();
    if (!table) return;
    const applied = Number(this.cluster.sql(`select coalesce(max(created_at), 0) from ${table}`, "radicula"));
    const journal = JSON.parse(readFileSync(join(this.root, "web/drizzle/meta/_journal.json"), "utf8"));
    if (!journal.entries.some((e) => e.when > applied)) return;
    say("the database is of an earlier version: taking a backup before it is brought up to date");
    sayBackup(await takeBackup(this.cluster, { kind: "before-migration" }));
  }

  /** Lets a server listen: the spare one where it is ready, a new one otherwise. */
  startWeb() {
    const { spare } = this;
    this.spare = undefined;
    const isThere = spare?.connected && this.databasePort === this.cluster.port;
    if (spare && !isThere) spare.kill("SIGKILL");
    this.web = isThere ? spare : this.newServer();
    this.web.send("listen", () => undefined);
    this.web.once("message", () => this.webPatience.isWell());
    writeFileSync(this.runFile, JSON.stringify({ address: this.address, web: this.web.pid, root: this.root }));
    clearTimeout(this.spareTimer);
    if (process.env.RADICULA_SPARE !== "off") this.spareTimer = setTimeout(() => this.startSpare(), SPARE_AFTER_MS);
  }
  /** A second server, loaded and not listening yet: it takes over at once where the first one dies. */
  startSpare() {
    if (this.isStopping || this.spare?.connected) return;
    this.spare = this.newServer();
  }
  /** A server that listens once it is told to. */
  newServer() {
    const log = join(this.folder, "logs", "web.log");
    turnOver(log);
    const out = openSync(log, "a", 0o600);
    this.databasePort = this.cluster.port;
    const at = ["--wait", "-H", this.hostname, "-p", String(this.port)];
    const server = spawn(process.execPath, [join(this.root, "web/server.mjs"), ...at], {
      cwd: join(this.root, "web"),
      stdio: ["ignore", out, out, "ipc"],
      env: {
        ...process.env,
        NODE_ENV: "production",
        RADICULA_ROOT: this.root,
        DATABASE_URL: this.cluster.url("radicula", SERVER_ROLE),
        DATABASE_OWNER_URL: this.cluster.url("radicula"),
      },
    });
    closeSync(out);
    return server;
  }
  async firstAnswer() {
    for (let i = 0; i < 240; i++) {
      if (await this.answers("/api/health")) return;
      if (this.web.exitCode !== null) break;
      await wait(250);
    }
    const log = join(this.folder, "logs", "web.log");
    const end = readFileSync(log, "utf8").trimEnd().split("\n").slice(-12).join("\n  ");
    throw new Stop(`the server did not start; its log, ${log}, ends with\n  ${end}`);
  }
  /** Asked by a name that every server answers to; its certificate is for others to check. */
  answers(path) {
    const how = { headers: { host: "localhost" }, timeout: 5000, rejectUnauthorized: false };
    return new Promise((resolve) => {
      const asked = (this.isSecure ? tlsRequest : request)(this.address + path, how, (answer) => {
        answer.resume();
        resolve(answer.statusCode === 200);
      });
      asked.on("timeout", () => asked.destroy());
      asked.on("error", () => resolve(false));
      asked.end();
    });
  }

  async watchDatabase() {
    const patience = new Patience();
    patience.isWell();
    while (!this.isStopping) {
      await wait(LOOK_MS);
      if (this.isStopping || this.cluster.pid()) continue;
      const ms = patience.next();
      say(`the database stopped; starting it again${ms > WAITS[0] ? ` in ${ms / 1000} s` : ""}`);
      await wait(ms);
      if (this.isStopping) return;
      try {
        await this.cluster.start();
        patience.isWell();
        say("the database runs again");
        // its port was taken meanwhile: servers have to be told the new one
        if (this.cluster.port !== this.databasePort) for (const s of [this.web, this.spare]) s?.kill("SIGKILL");
      } catch (error) {
        say(error instanceof Stop ? error.message : String(error));
      }
    }
  }
  async watchWeb() {
    let silentSince = Date.now();
    let asked = 0;
    while (!this.isStopping) {
      await wait(LOOK_MS);
      const isGone = this.web.exitCode !== null || this.web.signalCode !== null;
      if (!isGone && Date.now() - asked > ASK_MS) {
        asked = Date.now();
        if (await this.answers("/api/health/live")) silentSince = Date.now();
      }
      const isLoaded = this.webPatience.wellSince < Infinity;
      const isSilent = Date.now() - silentSince > (isLoaded ? ANSWER_MS : LOAD_MS);
      if (this.isStopping || (!isGone && !isSilent)) continue;
      const ms = this.webPatience.next();
      say(`the server ${isGone ? "stopped" : "does not answer"}; starting it again`);
      if (!isGone) this.web.kill("SIGKILL");
      await wait(ms);
      if (this.isStopping) return;
      this.startWeb();
      silentSince = Date.now();
    }
  }
  /** Looks now and then whether a backup is due. In a process of its own: this one must not be held up by it. */
  async backUpDaily() {
    while (!this.isStopping) {
      const daily = spawn(process.execPath, [join(this.root, "scripts/data/cli.mjs"), "daily"], { stdio: "inherit" });
      const code = await new Promise((resolve) => daily.once("exit", resolve));
      if (code !== 0 && !this.isStopping) say("the daily backup failed; it is tried again in ten minutes");
      for (let i = 0; i < 600 && !this.isStopping; i++) await wait(1000);
    }
  }

  async stop() {
    this.isStopping = true;
    rmSync(this.runFile, { force: true });
    clearTimeout(this.spareTimer);
    this.spare?.kill("SIGKILL");
    if (this.web && this.web.exitCode === null) {
      const gone = new Promise((resolve) => this.web.once("exit", resolve));
      this.web.kill("SIGTERM");
      await Promise.race([gone, wait(5000)]);
      this.web.kill("SIGKILL");
    }
    this.cluster.stop();
  }
}

/** A server whose supervisor was killed goes on by itself, where nobody would start it again. */
function stopOrphan(folder) {
  const left = running(folder);
  if (!left || !readLine(`/proc/${left.web}/cmdline`).includes("server.mjs")) return;
  say("stopping a server that was left running");
  process.kill(left.web, "SIGKILL");
}

/** A log that has grown long is set aside; the oldest is removed. */
function turnOver(log) {
  if (!existsSync(log) || statSync(log).size < LOG_BYTES) return;
  for (let i = LOGS_KEPT - 1; i >= 1; i--) if (existsSync(`${log}.${i}`)) renameSync(`${log}.${i}`, `${log}.${i + 1}`);
  renameSync(log, `${log}.1`);
}

const folder = dataFolder();
const supervisor = new Supervisor(folder);
let ending;
const end = (code) =>
  (ending ??= supervisor.stop().then(() => {
    say("stopped");
    process.exit(code);
  }));
process.on("SIGINT", () => void end(130));
process.on("SIGTERM", () => void end(143));
process.on("SIGHUP", () => void end(129));
try {
  if (!(await supervisor.start())) {
    const run = running(folder);
    say(run ? `already running at ${run.address}` : "another npm start is at it already: try again in a moment");
    process.exit(run ? 0 : 1);
  }
} catch (error) {
  process.stderr.write(`radicula: ${error instanceof Stop ? error.message : error.stack}\n`);
  await end(1);
}
