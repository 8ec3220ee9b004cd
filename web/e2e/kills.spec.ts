import { chromium, expect, test } from "@playwright/test";
import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { chmodSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { uniform } from "@radicula/core";
import { box, card, openCopy, saved } from "./casePage";
import { applicationForTests, JSON_TYPE } from "./server";

const ROOT = process.env["RADICULA_ROOT"] ?? process.cwd();
/** Kills of the server or the database; more by npm run bench:kills. */
const KILLS = Number(process.env["KILLS"] ?? 3);
const RECOVERED_MS = 25_000; // on a machine that does other work too
const AT = "2026-11-24T10:00:00Z";
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test(`server and database killed ${KILLS} times under npm start: both come back, nothing is lost`, async () => {
  test.setTimeout(120_000 + KILLS * 30_000);
  const folder = mkdtempSync(join(tmpdir(), "radicula-kills-"));
  chmodSync(folder, 0o755);
  const start = () =>
    spawn(process.execPath, [join(ROOT, "scripts/data/supervise.mjs")], {
      env: { ...process.env, RADICULA_DATA: folder, PORT: "3400" },
      stdio: "ignore",
    });
  let supervised = start();
  try {
    await addressOf(folder, supervised);
    // npm start itself is killed: the next one takes over what it left running
    const left = (JSON.parse(readFileSync(join(folder, "running.json"), "utf8")) as { web: number }).web;
    supervised.kill("SIGKILL");
    await new Promise((resolve) => supervised.once("exit", resolve));
    supervised = start();
    await expect.poll(() => isRunning(left)).toBe(false);
    const address = await addressOf(folder, supervised);
    const pid = (file: string) => readFileSync(join(folder, file), "utf8");
    const post = (path: string, data: unknown) =>
      fetch(`${address}/api/${path}`, {
        method: "POST",
        headers: JSON_TYPE,
        body: typeof data === "string" ? data : JSON.stringify(data),
        signal: AbortSignal.timeout(5000),
      });
    const made = await post("jobs", readFileSync(join(ROOT, "demo/tug-4-reference.case.json"), "utf8"));
    const { id } = (await made.json()) as { id: string };
    const acknowledged: string[] = [];
    let isOver = false;
    // as the page does: the same batch again until it is acknowledged
    const writer = (async () => {
      for (let n = 0; !isOver; n++) {
        const entry = { type: "look", at: AT, thing: "B7", found: ["nothing"], by: `entry ${n}` };
        const batch = { after: 4 + n, batch: crypto.randomUUID(), entries: [entry] };
        while ((await post(`jobs/${id}/entries`, batch).catch(() => undefined))?.status !== 201) await wait(100);
        acknowledged.push(entry.by);
        await wait(20);
      }
    })();
    // the one that takes over was loaded already
    const webNow = () => (JSON.parse(pid("running.json")) as { web: number }).web;
    const servers = () => childrenOf(supervised).filter((child) => child !== webNow());
    await expect.poll(servers).toHaveLength(1);
    const [spare] = servers();
    kill(webNow());
    await expect.poll(webNow).toBe(spare);
    const random = uniform(Number(process.env["SEED"] ?? 7));
    const recoveries: number[] = [];
    for (let k = 0; k < KILLS; k++) {
      await wait(300 + random() * 1500);
      const which = ["web", "database", "both"][Math.floor(random() * 3)];
      if (which !== "database") kill((JSON.parse(pid("running.json")) as { web: number }).web);
      if (which !== "web") kill(Number(pid("cluster/postmaster.pid").split("\n")[0]));
      const began = Date.now();
      const before = acknowledged.length;
      while (acknowledged.length < before + 2 && Date.now() - began < RECOVERED_MS * 2) await wait(20);
      recoveries.push(Date.now() - began);
    }
    isOver = true;
    await writer;
    const answer = await fetch(`${address}/api/jobs/${id}/entries?after=4`);
    const { entries } = (await answer.json()) as { entries: { by?: string }[] };
    const sorted = [...recoveries].sort((a, b) => a - b);
    console.log(
      `kills: ${KILLS} of server and database, ${acknowledged.length} entries acknowledged, ${entries.length} kept; ` +
        `back after ${sorted[sorted.length >> 1]} ms (median), 95 % within ${sorted[Math.floor(0.95 * KILLS)]} ms, ` +
        `${sorted.at(-1)} ms at the most`,
    );
    expect(entries.map((e) => e.by)).toEqual(acknowledged); // each once, in order
    for (const ms of recoveries) expect(ms).toBeLessThan(RECOVERED_MS);
    const verified = execFileSync(process.execPath, [join(ROOT, "scripts/data/cli.mjs"), "verify"], {
      encoding: "utf8",
      env: { ...process.env, RADICULA_DATA: folder },
    });
    expect(verified).toContain("every logbook is whole");
    // a second start says where the first one runs, and disturbs nothing
    const second = execFileSync(process.execPath, [join(ROOT, "scripts/data/supervise.mjs")], {
      encoding: "utf8",
      env: { ...process.env, RADICULA_DATA: folder },
    });
    expect(second).toContain(`already running at ${address}`);
  } finally {
    if (supervised.exitCode === null) {
      const gone = new Promise((resolve) => supervised.once("exit", resolve));
      supervised.kill("SIGTERM");
      await gone;
    }
    rmSync(folder, { recursive: true, force: true });
  }
});
function isRunning(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
}
/** The servers that npm start has started. */
const childrenOf = (supervised: ChildProcess): number[] =>
  readFileSync(`/proc/${supervised.pid}/task/${supervised.pid}/children`, "utf8")
    .split(" ")
    .map(Number)
    .filter((child) => child > 0 && readFileSync(`/proc/${child}/cmdline`, "utf8").includes("server.mjs"));
const kill = (pid: number) => process.kill(pid, "SIGKILL");

async function addressOf(folder: string, supervised: ChildProcess): Promise<string> {
  for (let i = 0; i < 600 && supervised.exitCode === null; i++) {
    await wait(100);
    try {
      const { address, web } = JSON.parse(readFileSync(join(folder, "running.json"), "utf8")) as {
        address: string;
        web: number;
      };
      if (isRunning(web) && (await fetch(`${address}/api/health`)).ok) return address;
    } catch {
      /* not yet */
    }
  }
  throw new Error("npm start did not come up");
}

test.describe("on the device", () => {
  const app = applicationForTests();

  test("what was said to be kept on this device is there after the browser was killed", async () => {
    const profile = mkdtempSync(join(tmpdir(), "radicula-profile-"));
    const { launchOptions } = test.info().project.use;
    const open = () => chromium.launchPersistentContext(profile, { ...launchOptions });
    try {
      let context = await open();
      const page = context.pages()[0]!;
      await openCopy(app.address, page, "tug-4-reference.case.json", "Killed");
      await expect(card(page)).toBeVisible();
      const address = page.url();
      await app.kill();
      await box(page).fill("0.77");
      await page.keyboard.press("Enter");
      await expect(page.getByText("kept on this device")).toBeVisible();
      execFileSync("pkill", ["-9", "-f", profile]);
      await context.close().catch(() => undefined);
      await app.start();
      context = await open();
      const again = context.pages()[0]!;
      await again.goto(address);
      await expect(again.getByRole("region", { name: "Logbook" })).toContainText("0.77 V");
      await saved(again);
      await context.close();
    } finally {
      // its processes end one by one
      rmSync(profile, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
    }
  });

  test("another server on that address takes nothing and loses nothing", async ({ page }) => {
    await openCopy(app.address, page, "tug-4-reference.case.json", "Strangers");
    await expect(card(page)).toBeVisible();
    await app.kill();
    const stranger = strangerAt(app.port);
    try {
      await box(page).fill("0.78");
      await page.keyboard.press("Enter");
      await expect(page.getByText("Not saved yet:")).toBeVisible();
      await wait(2500); // asked again meanwhile
      await expect(page.getByRole("region", { name: "Logbook" })).toContainText("not saved yet");
    } finally {
      stranger.kill("SIGKILL");
      await new Promise((resolve) => stranger.once("exit", resolve));
    }
    await app.start();
    await saved(page);
    await page.reload();
    await expect(page.getByRole("region", { name: "Logbook" })).toContainText("0.78 V");
  });
});

/** A server of somebody else, which refuses whatever it is sent. */
function strangerAt(port: number): ChildProcess {
  const code = `require("node:http").createServer((q, a) => {
    q.resume(); a.writeHead(q.url.length % 2 ? 404 : 422, { "Content-Type": "application/json" });
    a.end(JSON.stringify({ issues: [{ code: "entry.absurd", path: [], params: {} }] }));
  }).listen(${port}, "127.0.0.1")`;
  return spawn(process.execPath, ["-e", code], { stdio: "ignore" });
}
