import { chartRow, emptyChart, generateHarness } from "@radicula/core";
import { expect, test, type Page } from "@playwright/test";
import { box, card, entryCount, openCopy, saved } from "./casePage";
import postgres from "postgres";
import { applicationForTests, byHand, JSON_TYPE, makeWiring, testDatabase } from "./server";
import { cell, table } from "./workbenchPage";

/**
 * What is judged by the clock runs alone, after everything else. The machine may be shared and slow: a limit is what
 * was measured on a quiet one, made longer by as much as a fixed piece of work takes longer here, and doubled. So a
 * test fails where the program got slower, not where the machine did.
 */
const app = applicationForTests();

/** What the fixed piece of work below took on the quiet machine, ms. */
const QUIET_MS = 150;
function limit(quiet: number): number {
  const times = [1, 2, 3].map(() => {
    const began = performance.now();
    const rows = Array.from({ length: 60_000 }, (_, i) => ({ id: `B${(i * 7919) % 60_000}`, at: [i, i / 3] }));
    const again = JSON.parse(JSON.stringify(rows)) as typeof rows;
    again.sort((a, b) => (a.id < b.id ? -1 : 1));
    return performance.now() - began;
  });
  return 2 * quiet * Math.max(1, Math.min(...times) / QUIET_MS);
}

test("how long a reading's update takes in the worker; the case page needs under 580 kB of script", async ({
  page,
  browser,
}) => {
  await openCopy(app.address, page, "tug-4-reference.case.json", "Timing");
  const fresh = await (await browser.newContext()).newPage();
  const scripts: { name: string; kB: number }[] = [];
  fresh.on("requestfinished", (r) => {
    const url = new URL(r.url());
    if (/\.(js|ts)$/.test(url.pathname))
      void r.sizes().then(
        (s) => scripts.push({ name: url.pathname.split("/").at(-1) ?? "", kB: s.responseBodySize / 1024 }),
        () => undefined,
      );
  });
  await fresh.goto(page.url());
  await expect(card(fresh)).toBeVisible();
  await expect(fresh.getByTestId("update-ms")).toHaveAttribute("data-working", "false"); // all of it is there
  const script = scripts.reduce((sum, s) => sum + s.kB, 0);
  await fresh.context().close();
  await expect(card(page)).toBeVisible();
  const times: number[] = [];
  for (const value of ["0.82", "0.79", "5.02"]) {
    if (!(await card(page).isVisible())) break;
    await box(page).fill(value);
    const before = await entryCount(page);
    await page.keyboard.press("Enter");
    await expect.poll(() => entryCount(page)).toBeGreaterThan(before);
    await saved(page);
    await expect(page.getByTestId("update-ms")).toHaveAttribute("data-working", "false");
    times.push(Number(await page.getByTestId("update-ms").textContent()));
  }
  const largest = scripts
    .map((x) => Math.round(x.kB))
    .sort((x, y) => y - x)
    .slice(0, 4);
  console.log(
    `updates in the browser worker: ${times.join(", ")} ms; script on the case page ${script.toFixed(1)} kB ` +
      `compressed in ${scripts.length} files, largest ${largest.join(", ")} kB`,
  );
  expect(times.length).toBeGreaterThan(1);
  // printed, not held to a limit: the machine that runs this may be shared and noisy
  for (const ms of times) expect(ms).toBeGreaterThan(0);
  expect(script).toBeGreaterThan(50);
  expect(script).toBeLessThan(580);
});

/** The best of three goes: other work on a shared machine only ever makes it worse. */
async function bestOf(times: number, go: (time: number) => Promise<number>): Promise<number> {
  let best = Infinity;
  for (let i = 0; i < times && best > 0; i++) best = Math.min(best, await go(i));
  return best;
}

/** The longest time the page did not answer while something was done, ms. */
async function worstStall(page: Page, what: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const w = window as unknown as { stalls: number[]; watch?: PerformanceObserver };
    w.watch?.disconnect();
    w.stalls = [];
    w.watch = new PerformanceObserver((list) => {
      for (const e of list.getEntries()) w.stalls.push(e.duration);
    });
    w.watch.observe({ type: "longtask" });
  });
  await what();
  await nextFrame(page);
  return page.evaluate(() => Math.max(0, ...(window as unknown as { stalls: number[] }).stalls));
}
/** Until the page has been drawn again, twice: what was put off is then done. */
const nextFrame = (page: Page) =>
  page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
/** Put together again, and saved again. */
const draftSaved = (page: Page) =>
  page.waitForResponse((r) => r.request().method() === "PUT" && r.url().endsWith("/draft") && r.status() === 200);

test("a chart of 5 000 lines scrolls, takes a change and takes a paste without a long stall", async ({
  page,
  request,
}) => {
  const rows = Array.from({ length: 5000 }, (_, i) =>
    chartRow({
      connector: `B${1 + Math.floor(i / 4)}`,
      cavity: String(1 + (i % 4)),
      colour: ["OG", "BN/BK", "GN", "VT"][i % 4]!,
      function: ["5 V", "ground", "signal", ""][i % 4]!,
      goesTo: i % 4 === 2 ? `A1:${i}` : ["S1", "S2", "", `X${i}:1`][i % 4]!,
    }),
  );
  const id = await makeWiring(app.address, request, { ...emptyChart("Five thousand"), rows });
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await expect(page.getByText("Sensors and actuators")).toBeVisible(); // put together
  const scroll = await bestOf(3, () =>
    worstStall(page, async () => {
      await page.mouse.move(500, 400);
      for (let i = 0; i < 25; i++) {
        await page.mouse.wheel(0, 1500);
        await nextFrame(page);
      }
    }),
  );
  await page.mouse.wheel(0, -1_000_000);
  await expect(cell(page, 0, 0)).toHaveText("B1");
  // another value each time: what stands there already is not saved again
  const edit = await bestOf(3, (time) =>
    worstStall(page, async () => {
      const savedAgain = draftSaved(page);
      await cell(page, 3, 2).click();
      await page.keyboard.type(["rd/wh", "gn/wh", "bu/wh"][time]!);
      await page.keyboard.press("Enter");
      await savedAgain;
    }),
  );
  const paste = await bestOf(3, (time) =>
    worstStall(page, async () => {
      const savedAgain = draftSaved(page);
      await cell(page, 4 + time, 0).click(); // a second click on one cell would open it
      await page.evaluate(
        (text) => {
          const data = new DataTransfer();
          data.setData("text/plain", text);
          document.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
        },
        Array.from({ length: 40 }, (_, i) => `C${i}\t1\tBU\tsignal\tA${9 + time}:${i}`).join("\n"),
      );
      await savedAgain;
    }),
  );
  await expect(cell(page, 5, 0)).toHaveText(/^C\d$/);
  console.log(
    `5 000 lines, longest stall: scrolling ${scroll.toFixed(0)} ms, one cell ${edit.toFixed(0)} ms, 40 pasted ` +
      `lines ${paste.toFixed(0)} ms (0: none over 50 ms)`,
  );
  expect(Math.max(scroll, edit, paste)).toBeLessThan(limit(70));
});

test("a drawing of 500 parts is laid out in its worker, and says so meanwhile", async ({ page, request }) => {
  let nodes = 900;
  let wiring = generateHarness({ nodes, seed: 5 });
  const parts = () => new Set([...wiring.connectors.map((c) => c.id), ...wiring.devices.map((d) => d.id)]).size;
  while (parts() < 500) wiring = generateHarness({ nodes: (nodes += 150), seed: 5 });
  const id = await makeWiring(app.address, request, wiring);
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await page.getByTitle("Drawing").click();
  await expect(page.getByRole("group", { name: /Wiring drawing/ })).toBeVisible();
  const seconds = await bestOf(3, async () => {
    await page.getByTitle("Around").click();
    await expect(page.getByRole("region", { name: "Drawing" })).toHaveAttribute("aria-busy", "false");
    const start = Date.now();
    await page.getByTitle("Whole wiring").click();
    await expect(page.getByText(/Laying out \d+ parts/)).toBeVisible();
    await expect(page.getByRole("region", { name: "Drawing" })).toHaveAttribute("aria-busy", "false");
    return (Date.now() - start) / 1000;
  });
  const drawn = Number(
    /with (\d+) parts/.exec(
      (await page.getByRole("group", { name: /Wiring drawing/ }).getAttribute("aria-label")) ?? "",
    )?.[1],
  );
  console.log(`drawing: ${drawn} parts and ${wiring.wires.length} wires laid out and shown in ${seconds.toFixed(1)} s`);
  expect(drawn).toBeGreaterThanOrEqual(400); // sensors stand in their connectors
  expect(seconds).toBeLessThan(limit(2.5));
});

test("a wiring of 5 MB is taken at once", async ({ request }) => {
  const wiring = generateHarness({ nodes: 35_000, seed: 8 });
  const text = JSON.stringify(wiring, null, 2);
  expect(text.length).toBeGreaterThan(5_000_000);
  const seconds = await bestOf(3, async () => {
    const start = Date.now();
    const response = await request.post(`${app.address}/api/wirings`, { headers: JSON_TYPE, data: text });
    expect(response.status()).toBe(201);
    return (Date.now() - start) / 1000;
  });
  console.log(`import: ${(text.length / 1e6).toFixed(1)} MB, ${wiring.wires.length} wires, in ${seconds.toFixed(2)} s`);
  expect(seconds).toBeLessThan(limit(1.3));
});

test("the board of 1 000 jobs with 60 entries each is ready at once, and reads no logbook", async ({
  page,
  request,
}) => {
  const sql = postgres(testDatabase().href, { max: 1, onnotice: () => undefined });
  await sql`insert into jobs (title, wiring)
    select 'Job ' || n, (select wiring from jobs limit 1) from generate_series(1, 1000) n`;
  const reading = {
    type: "reading",
    at: "2026-11-24T10:00:00Z",
    instrument: "voltmeter",
    points: ["B7:1"],
    values: [5],
    state: { key: "on", unplugged: [] },
  };
  await sql`insert into entries (job_id, seq, batch, body)
    select jobs.id, n, gen_random_uuid(), ${sql.json(reading)} from jobs, generate_series(1, 60) n
    where title like 'Job %' order by jobs.id, n`;
  // jobs of an older version have no summary: the first look makes them
  await page.goto(app.address);
  await expect(page.getByText("60 readings so far")).toHaveCount(100); // the newest
  await page.getByRole("link", { name: /^Show \d+ more jobs too$/ }).click();
  await expect(page.getByText("60 readings so far")).toHaveCount(1000);
  const times: number[] = [];
  for (let i = 0; i < 8; i++) {
    const began = performance.now();
    const answer = await request.get(app.address);
    expect(answer.status()).toBe(200);
    await answer.body();
    times.push(performance.now() - began);
  }
  console.log(`the board of 1 000 jobs with 60 entries each: ${times.map(Math.round).join(", ")} ms`);
  // the fastest, as the machine may be shared and noisy
  expect(Math.min(...times)).toBeLessThan(limit(200));
  // what is in the logbooks is not looked at again: unreadable ones do not matter to the board
  await byHand(
    (tx) => tx`update entries set body = '{}' where job_id in (select id from jobs where title like 'Job %')`,
  );
  await page.reload();
  await expect(page.getByText("60 readings so far")).toHaveCount(1000);
  await sql.end();
});
