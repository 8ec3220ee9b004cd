// npm run bench:failover [-- --writers N]: two servers on a database with a hot standby and synchronous commit. While
// entries are written the primary is killed and the standby promoted; counts what was acknowledged and what is kept.
import { spawn } from "node:child_process";
import { chmodSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { verifyAt } from "../data/chain.mjs";
import { Cluster, freePort, SERVER_ROLE } from "../data/cluster.mjs";
import { keepSecret, openFolder } from "../data/folder.mjs";

const ROOT = join(import.meta.dirname, "../..");
const at = process.argv.indexOf("--writers");
const WRITERS = at < 0 ? 20 : Number(process.argv[at + 1]);
const BEFORE_MS = 8000;
const AFTER_MS = 12_000;
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const JSON_TYPE = { "Content-Type": "application/json" };

const folders = ["primary", "standby"].map((name) => mkdtempSync(join(tmpdir(), `radicula-${name}-`)));
for (const f of folders) {
  chmodSync(f, 0o755);
  openFolder(f);
}
const [primary, standby] = folders.map((f) => new Cluster(f));
const servers = [];
try {
  primary.make();
  await primary.start();
  primary.needDatabase("radicula");
  primary.needServerRole();
  for (const name of ["password", `${SERVER_ROLE}-password`])
    keepSecret(standby.folder, name, readFileSync(join(primary.folder, name), "utf8").trim());
  // the standby: a copy of all files that follows the primary
  primary.owned(standby.folder);
  const copied = primary.run(
    "pg_basebackup",
    [...["-D", standby.data, "--write-recovery-conf", "--checkpoint=fast", "--create-slot", "--slot=standby"]],
    { env: primary.environment },
  );
  if (copied.status !== 0) throw new Error(copied.stderr);
  await standby.start();
  primary.sql("alter system set synchronous_standby_names = '*'");
  primary.sql("select pg_reload_conf()");

  const both = (role) => {
    const [a, b] = [primary, standby].map((c) => new URL(c.url("radicula", role)));
    return `postgres://${a.username}:${a.password}@${a.host},${b.host}/radicula?target_session_attrs=primary`;
  };
  for (let i = 0; i < 2; i++) {
    const port = await freePort(3500 + 10 * i);
    servers.push({
      address: `http://127.0.0.1:${port}`,
      process: spawn(process.execPath, [join(ROOT, "web/server.mjs"), "-p", String(port)], {
        stdio: "ignore",
        env: {
          ...process.env,
          NODE_ENV: "production",
          RADICULA_ROOT: ROOT,
          DATABASE_URL: both(SERVER_ROLE),
          DATABASE_OWNER_URL: both("radicula"),
        },
      }),
    });
  }
  for (const { address } of servers)
    while (!(await fetch(`${address}/api/health`).catch(() => undefined))?.ok) await wait(200);

  const send = (server, path, body) =>
    fetch(`${servers[server % 2].address}/api/${path}`, {
      method: "POST",
      headers: JSON_TYPE,
      body,
      signal: AbortSignal.timeout(4000),
    }).catch(() => undefined);
  const text = readFileSync(join(ROOT, "demo/tug-4-reference.case.json"), "utf8");
  const acknowledged = [];
  const times = [];
  let isOver = false;
  const writer = async (n) => {
    const { id } = await (await send(n, "jobs", text)).json();
    const own = [];
    acknowledged.push({ id, own });
    for (let k = 0; !isOver; k++) {
      const entry = { type: "look", at: "2026-11-24T10:00:00Z", thing: "B7", found: ["nothing"], by: `${n} ${k}` };
      const body = JSON.stringify({ after: 4 + k, batch: crypto.randomUUID(), entries: [entry] });
      // the same batch again, at the other server, until it is acknowledged
      for (let go = n + k; (await send(go, `jobs/${id}/entries`, body))?.status !== 201; go++) await wait(200);
      own.push(entry.by);
      times.push(performance.now());
      await wait(100);
    }
  };
  const writers = Array.from({ length: WRITERS }, (_, n) => writer(n));
  await wait(BEFORE_MS);
  process.kill(primary.pid(), "SIGKILL");
  await wait(1000); // until somebody, or something, has noticed
  standby.run("pg_ctl", ["promote", "-D", standby.data]);
  await wait(AFTER_MS);
  isOver = true;
  await Promise.all(writers);

  const gaps = times.slice(1).map((t, i) => t - times[i]);
  const kept = await verifyAt(standby.url("radicula"));
  let lost = 0;
  for (const { id, own } of acknowledged) {
    const { entries } = await (await fetch(`${servers[0].address}/api/jobs/${id}/entries?after=4`)).json();
    if (JSON.stringify(entries.map((e) => e.by)) !== JSON.stringify(own)) lost++;
  }
  const count = acknowledged.reduce((sum, a) => sum + a.own.length, 0);
  console.log(
    `${WRITERS} writers, ${count} entries acknowledged by two servers; primary killed, standby promoted after 1 s: ` +
      `longest time without an acknowledgement ${Math.round(Math.max(...gaps))} ms`,
  );
  console.log(`logbooks that are not entry for entry as acknowledged: ${lost}; ${kept.wrong.length} broken chains`);
  if (lost || kept.wrong.length || count === 0) process.exitCode = 1;
} finally {
  for (const s of servers) s.process.kill("SIGKILL");
  primary.stop();
  standby.stop();
  for (const f of folders) rmSync(f, { recursive: true, force: true });
}
