// npm run bench:load [-- --seconds N]: a workshop at work on one host: 100 technicians each on a job of their own and
// 20 on one job, an entry every few seconds each, while case pages and the board are opened. On a database made for it.
import { spawn, spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";

const ROOT = join(import.meta.dirname, "../..");
const arg = (name, otherwise) => {
  const i = process.argv.indexOf(`--${name}`);
  return i < 0 ? otherwise : Number(process.argv[i + 1]);
};
const SECONDS = arg("seconds", 40);
/** Before that, until every part of the server has been used once, s. */
const WARM_UP = arg("warm-up", 15);
const ALONE = arg("alone", 100);
const TOGETHER = arg("together", 20);
/** Between two entries of one technician, ms. */
const PAUSE_MS = 4000;
const JSON_TYPE = { "Content-Type": "application/json" };
const at = "2026-11-24T10:00:00Z";

const scratch = spawnSync(process.execPath, [join(ROOT, "scripts/data/cli.mjs"), "scratch", "start"], {
  encoding: "utf8",
}).stdout;
const value = (name) => new RegExp(`${name}=(.*)`).exec(scratch)[1];
const port = await new Promise((resolve) => {
  const probe = createServer().listen(0, "127.0.0.1", () => {
    const { port: free } = probe.address();
    probe.close(() => resolve(free));
  });
});
const address = `http://127.0.0.1:${port}`;
const web = spawn(process.execPath, [join(ROOT, "web/server.mjs"), "-p", String(port)], {
  cwd: join(ROOT, "web"),
  stdio: "ignore",
  env: {
    ...process.env,
    NODE_ENV: "production",
    RADICULA_ROOT: ROOT,
    DATABASE_URL: value("export DATABASE_URL"),
    DATABASE_OWNER_URL: value("DATABASE_OWNER_URL"),
  },
});
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const quantile = (list, share) => list.toSorted((a, b) => a - b)[Math.min(list.length - 1, (share * list.length) | 0)];

try {
  while (!(await fetch(`${address}/api/health`).catch(() => undefined))?.ok) await wait(200);
  const text = readFileSync(join(ROOT, "demo/tug-4-reference.case.json"), "utf8");
  const newJob = async () =>
    (await (await fetch(`${address}/api/jobs`, { method: "POST", headers: JSON_TYPE, body: text })).json()).id;
  const jobs = [];
  for (let i = 0; i <= ALONE; i++) jobs.push(await newJob());
  const [shared, ...own] = jobs;

  const posts = [];
  const pages = [];
  const boards = [];
  let saved = 0;
  let refused = 0;
  let isOver = false;
  const technician = async (job, n) => {
    await wait(Math.random() * PAUSE_MS);
    let last = 4;
    for (let k = 0; !isOver; k++) {
      const body = {
        after: last,
        batch: crypto.randomUUID(),
        join: true,
        entries: [{ type: "look", at, thing: "B7", found: ["nothing"], by: `${n} ${k}` }],
      };
      const began = performance.now();
      const answer = await fetch(`${address}/api/jobs/${job}/entries`, {
        method: "POST",
        headers: JSON_TYPE,
        body: JSON.stringify(body),
      });
      const said = await answer.json();
      posts.push(performance.now() - began);
      if (answer.status === 201) {
        saved++;
        last = said.last;
      } else refused++;
      await wait(PAUSE_MS * (0.5 + Math.random()));
    }
  };
  const visitor = async (path, times, pause) => {
    while (!isOver) {
      const began = performance.now();
      await (await fetch(`${address}${path()}`)).text();
      times.push(performance.now() - began);
      await wait(pause);
    }
  };
  const any = () => `/job/${own[Math.floor(Math.random() * own.length)]}`;
  const all = [
    ...own.map((job, n) => technician(job, n)),
    ...Array.from({ length: TOGETHER }, (_, n) => technician(shared, `t${n}`)),
    visitor(any, pages, 500),
    visitor(() => `/job/${shared}`, pages, 1000),
    visitor(() => "/", boards, 2000),
  ];
  await wait(WARM_UP * 1000);
  for (const list of [posts, pages, boards]) list.length = 0;
  await wait(SECONDS * 1000);
  isOver = true;
  await Promise.all(all);
  let kept = 0;
  for (const job of jobs)
    kept += (await (await fetch(`${address}/api/jobs/${job}/entries?after=4`)).json()).entries.length;
  const line = (name, list) =>
    console.log(
      `${name}: ${list.length}, ` +
        [50, 95, 99].map((share) => `${share} % within ${Math.round(quantile(list, share / 100))} ms`).join(", "),
    );
  console.log(`${ALONE} technicians each on a job, ${TOGETHER} on one, ${SECONDS} s after ${WARM_UP} s`);
  line("entry saved", posts);
  line("case page", pages);
  line("board", boards);
  console.log(`saved ${saved}, refused ${refused}, in the database ${kept}`);
  if (kept !== saved || refused > 0) process.exitCode = 1;
} finally {
  web.kill("SIGKILL");
  spawnSync(process.execPath, [join(ROOT, "scripts/data/cli.mjs"), "scratch", "stop", value("SCRATCH")]);
}
