import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { gunzipSync, gzipSync } from "node:zlib";
import { answers, openCopy, saved } from "./casePage";
import { applicationForTests, axeFindings, JSON_TYPE, makeWiring, still } from "./server";

const app = applicationForTests();
const TUG = "tug-4-reference.case.json";
const sheet = (page: Page) => page.getByRole("dialog");
const logIt = (page: Page) => sheet(page).getByRole("button", { name: "Log what it shows" });

/** When the contact opens, seconds: at any moment, as loose contacts do. */
const LEAVES = [0.2, 0.31, 0.83, 1.6];

/** A steady signal that drops out now and then, and a square wave, as a scope writes them. */
function scopeFile(seconds = 2, perSecond = 2_000): string {
  const lines = ["Time (ms),B20:3 (V),B2:3 (V)"];
  for (let i = 0; i < seconds * perSecond; i++) {
    const t = i / perSecond;
    const isOut = LEAVES.some((at) => t >= at && t < at + 0.008);
    const noise = 0.01 * Math.sin(i * 12.9898);
    lines.push(
      `${(1000 * t).toFixed(2)},${((isOut ? 4.8 : 0.8) + noise).toFixed(3)},${(t * 50) % 1 < 0.5 ? 4.9 : 0.1}`,
    );
  }
  return `${lines.join("\n")}\n`;
}
async function openSheet(page: Page, title: string): Promise<void> {
  await openCopy(app.address, page, TUG, title);
  await page.goto(`${page.url().split("?")[0]}?sheet=recording`);
  await answers(sheet(page).getByRole("button", { name: "Open a file" }));
}
const give = (page: Page, name: string, text: string | Buffer) =>
  sheet(page)
    .locator("input[type=file]")
    .setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text as string) });

/** Whether a signal is drawn on each canvas: points greener than axes and grid ever are. */
const inkOf = (page: Page) =>
  sheet(page)
    .locator("canvas")
    .evaluateAll((all) =>
      all.map((c) => {
        const canvas = c as HTMLCanvasElement;
        const { data } = canvas.getContext("2d")!.getImageData(0, 0, canvas.width, canvas.height);
        return data.filter((v, i) => i % 4 === 1 && v > data[i - 1]! + 40 && data[i + 2]! > 200).length > 300;
      }),
    );

test("a recording is opened, seen, logged, kept, and looked at again; it counts like any reading", async ({ page }) => {
  await openSheet(page, "Recorded");
  await give(page, "scope.csv", scopeFile());
  await expect(sheet(page)).toContainText("Stays at 0.80 V, drops out 4 times, to 4.8");
  await expect(sheet(page)).toContainText("Switches between 0.10 V and 4.90 V, 50 Hz");
  await expect(sheet(page)).toContainText("B20 cavity 3"); // the channels' names say where they were
  await expect(sheet(page).locator("canvas")).toHaveCount(2);
  await expect.poll(() => inkOf(page)).toEqual([true, true]);
  // seen near by, by key and by a press on what happens
  const range = sheet(page).getByText(/^0 s to /);
  await expect(range).toHaveText("0 s to 2 s");
  await sheet(page)
    .getByRole("img", { name: /over time/ })
    .press("+");
  await expect(range).toBeHidden();
  await sheet(page).getByRole("button", { name: "200 ms" }).click();
  await expect(sheet(page).getByText(/^1\d\d(\.\d)? ms to 2\d\d/)).toBeVisible();
  await sheet(page).getByRole("button", { name: "All of it" }).click();
  await expect(range).toHaveText("0 s to 2 s");
  // two cursors
  const drawing = sheet(page).locator(".u-over").first();
  await drawing.click({ position: { x: 300, y: 60 } });
  await drawing.click({ position: { x: 500, y: 60 } });
  await expect(sheet(page).locator("output")).toContainText(/Δ .* Hz\)/);
  await still(page);
  expect(await axeFindings(page)).toEqual([]);
  // cranked: people stand clear
  await expect(async () => {
    // a list that is still opening may not hear the press
    await sheet(page).getByLabel("Meanwhile").click({ timeout: 5_000 });
    await page.getByText("engine cranked", { exact: true }).last().click({ timeout: 5_000 });
    await expect(sheet(page)).toContainText("everybody clear", { timeout: 5_000 });
  }).toPass();
  await logIt(page).click();
  await expect(sheet(page)).toBeHidden();
  const logbook = page.getByRole("region", { name: "Logbook" });
  await expect(logbook).toContainText("Recorded at B20 cavity 3, B2 cavity 3; cranking");
  await saved(page);
  await page.reload();
  await logbook.getByRole("button", { name: "Look at it" }).click();
  await expect(sheet(page)).toContainText("drops out 4 times");
  await expect(logIt(page)).toBeHidden();
});

test("files that are no recordings are refused with the reason, and half a file with what is there", async ({
  page,
}) => {
  await openSheet(page, "Refused recordings");
  await give(page, "empty.csv", "");
  await expect(sheet(page).getByRole("alert")).toContainText("The file is empty.");
  await give(page, "words.csv", "There is nothing here to measure.\n");
  await expect(sheet(page).getByRole("alert")).toContainText("no samples");
  await give(page, "picture.csv", Buffer.from("\x89PNG\r\n\x1a\n\0\0\0\rIHDR", "latin1"));
  await expect(sheet(page).getByRole("alert")).toContainText("picture.csv");
  const whole = scopeFile();
  await give(page, "half.csv", `${whole.slice(0, whole.length / 2)}\n999999,oops,1\n1,2,3\n99999`);
  await expect(sheet(page)).toContainText("is not a number");
  await expect(sheet(page)).toContainText("Time runs backwards");
  await expect(sheet(page)).toContainText("drops out 3 times");
  await sheet(page).getByRole("button", { name: "Another recording" }).click();
  await give(page, "rateless.csv", `${Array.from({ length: 50 }, (_, i) => 1 + (i % 3) / 100).join("\n")}\n`);
  await expect(sheet(page)).toContainText("Type the samples a second");
  await sheet(page).getByLabel("Samples a second").fill("100");
  await sheet(page).getByLabel("Samples a second").press("Enter");
  await expect(sheet(page)).toContainText("50 samples in 500 ms");
  await expect(logIt(page)).toBeDisabled();
});

test("a recording dropped on an open job is opened there; a list of codes still goes to the scan", async ({ page }) => {
  await openCopy(app.address, page, TUG, "Dropped recording");
  const drop = (name: string, text: string) =>
    page.evaluate(
      ([n, body]) => {
        const data = new DataTransfer();
        data.items.add(new File([body!], n!));
        for (const type of ["dragenter", "drop"])
          window.dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true }));
      },
      [name, text],
    );
  await drop("scope.csv", scopeFile(1));
  await expect(sheet(page)).toContainText("drops out 3 times");
  await page.keyboard.press("Escape");
  await expect(sheet(page)).toBeHidden();
  await drop("scan.txt", "P0642 active\nP0237 stored\n");
  await expect(sheet(page).getByRole("textbox").first()).toHaveValue(/P0642 active/);
});

test("a practice job has a scope on its simulated machine", async ({ page, request }) => {
  const wiring = await makeWiring(app.address, request, JSON.parse(readFileSync("demo/tug-4.wiring.json", "utf8")));
  const made = await request.post(`${app.address}/api/jobs/bench`, { headers: JSON_TYPE, data: { wiring, seed: 7 } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${app.address}/job/${id}?sheet=recording`);
  const where = sheet(page).getByRole("combobox", { name: /Where to record/ });
  await where.click();
  await where.fill("B2 cavity 3");
  await page
    .getByText(/^B2 cavity 3/)
    .last()
    .click();
  await page.keyboard.press("Escape");
  await sheet(page).getByRole("combobox", { name: "Meanwhile" }).click();
  await page.getByText("engine cranked", { exact: true }).click();
  await sheet(page).getByRole("button", { name: "Record", exact: true }).click();
  await expect(sheet(page)).toContainText(/10\s000 samples in 2 s/);
  await expect(sheet(page)).toContainText("levels of a sound machine");
  await logIt(page).click();
  await expect(page.getByRole("region", { name: "Logbook" })).toContainText("Recorded at B2 cavity 3; cranking");
});

test.describe("kept on the server", () => {
  const newJob = async (request: APIRequestContext, title: string): Promise<string> => {
    const text = readFileSync(`demo/${TUG}`, "utf8").replace(/"title": "[^"]*"/, `"title": "${title}"`);
    const made = await request.post(`${app.address}/api/jobs`, { headers: JSON_TYPE, data: text });
    return ((await made.json()) as { id: string }).id;
  };
  const keep = (request: APIRequestContext, job: string, body: Buffer, query = "name=a.csv") =>
    request.post(`${app.address}/api/jobs/${job}/recordings?${query}`, {
      headers: { "Content-Type": "application/gzip" },
      data: body,
    });
  test("comes back byte for byte, and goes with the job as a zip", async ({ request }) => {
    const job = await newJob(request, "Kept");
    const text = scopeFile(20, 20_000); // several parts
    const packed = gzipSync(text, { level: 0 });
    const { id } = (await (
      await keep(request, job, packed, "name=a.csv&reading=%7B%22interval%22%3A0.5%7D")
    ).json()) as {
      id: string;
    };
    const back = await request.get(`${app.address}/api/recordings/${id}`);
    expect((await back.body()).equals(packed)).toBe(true);
    expect(JSON.parse(decodeURIComponent(back.headers()["x-recording"]!))).toEqual({
      name: "a.csv",
      reading: { interval: 0.5 },
    });
    const entry = {
      type: "trace",
      at: "2026-11-30T10:00:00Z",
      recording: id,
      seconds: 20,
      perSecond: 20_000,
      state: { key: "on", unplugged: [] },
      channels: [{ name: "A", on: "B7:3", kind: "steady", low: 1, high: 1.1, mean: 1.05 }],
    };
    const logged = await request.post(`${app.address}/api/jobs/${job}/entries`, {
      headers: JSON_TYPE,
      data: { after: 4, batch: crypto.randomUUID(), entries: [entry] },
    });
    expect(logged.status()).toBe(201);
    const zip = await (await request.get(`${app.address}/api/jobs/${job}/export?as=zip`)).body();
    const again = await request.post(`${app.address}/api/jobs`, {
      headers: { "Content-Type": "application/zip" },
      data: zip,
    });
    const { id: copy } = (await again.json()) as { id: string };
    const { entries } = (await (await request.get(`${app.address}/api/jobs/${copy}/export`)).json()) as {
      entries: { type: string; recording?: string }[];
    };
    const own = entries.find((e) => e.type === "trace")!.recording!;
    expect(own).not.toBe(id);
    const copied = await request.get(`${app.address}/api/recordings/${own}`);
    expect(gunzipSync(await copied.body()).toString()).toBe(text);
  });
  test("what is no recording of a job is refused", async ({ request }) => {
    const job = await newJob(request, "Refused");
    const body = gzipSync("a");
    expect((await keep(request, crypto.randomUUID(), body)).status()).toBe(404);
    expect((await keep(request, "x", body)).status()).toBe(404);
    expect((await keep(request, job, body, "name=")).status()).toBe(400);
    expect((await keep(request, job, body, "name=a&reading=no")).status()).toBe(400);
    const plain = await request.post(`${app.address}/api/jobs/${job}/recordings?name=a`, {
      headers: { "Content-Type": "text/plain" },
      data: "a",
    });
    expect(plain.status()).toBe(415);
    expect((await request.get(`${app.address}/api/recordings/${crypto.randomUUID()}`)).status()).toBe(404);
    expect((await request.get(`${app.address}/api/recordings/x`)).status()).toBe(404);
    const simulated = await request.post(`${app.address}/api/jobs/${job}/record`, { headers: JSON_TYPE, data: {} });
    expect(simulated.status()).toBe(404);
  });
});

test("a demo job of two tracks: they fall together while one wire is moved, and the strip says which", async ({
  page,
}) => {
  await page.goto(app.address);
  await page.getByRole("link", { name: /Starboard throttle flutters/ }).click();
  await page.getByRole("button", { name: "Look at it" }).click();
  const moved = sheet(page).getByRole("region", { name: "Places moved" });
  await expect(moved).toContainText("X31 (starboard engine in-line connector), from 0 s to 3 s. No reaction.");
  await expect(moved).toContainText(/W811|wire from S80 to B83:1/);
  await expect(moved).toContainText("from 6 s to 9 s. It reacted.");
  await sheet(page).getByRole("switch", { name: "Laid over each other" }).click();
  await expect(sheet(page).locator("canvas")).toHaveCount(1);
  await sheet(page).getByText("Look for a pattern of levels and times").click();
  await sheet(page).getByRole("textbox", { name: "Pattern" }).fill("5 for 10 to 3000 ms, 0 for 1 to 50 ms, 5");
  await sheet(page).getByRole("button", { name: "Look", exact: true }).click();
  await expect(sheet(page).getByRole("status").last()).toContainText("B83:1: the pattern is there");
  await sheet(page).getByRole("textbox", { name: "Pattern" }).fill("up and down");
  await sheet(page).getByRole("button", { name: "Look", exact: true }).click();
  await expect(sheet(page).getByRole("status").last()).toContainText("up and down");
  expect(await axeFindings(page)).toEqual([]);
});

test("where something comes and goes the plan asks for a recording, and knows where its channels are", async ({
  page,
}) => {
  await openCopy(app.address, page, "whimbrel-connector.case.json", "Asked to record");
  const card = page.locator("[data-next-reading]");
  // what comes before it is set aside, as by somebody who has his scope at hand
  const heading = card.getByRole("heading");
  await expect(async () => {
    const shown = (await heading.textContent()) ?? "";
    if (!shown.includes("Record the reference on both sides of X30")) {
      await card.getByRole("button", { name: "Can’t reach it" }).click();
      await expect(heading).not.toHaveText(shown);
    }
    await expect(heading).toContainText("Record the reference on both sides of X30", { timeout: 3_000 });
    // the card may still get better: what is pressed must be what was read
    await card.getByRole("button", { name: "Open the recording" }).click({ timeout: 3_000 });
  }).toPass();
  await answers(sheet(page).getByRole("button", { name: "Open a file" }));
  await give(page, "two.csv", `time (s),A (V),B (V)\n${twoSides()}\n`);
  await expect(sheet(page)).toContainText("X30 cavity 1, side a");
  await expect(sheet(page)).toContainText("X30 cavity 1, side b");
  await expect(sheet(page)).toContainText("harness moved");
  // the part that is shown is the part in which the place was moved
  await sheet(page).getByRole("combobox", { name: "Which place was moved?" }).click();
  await page.keyboard.type("X30");
  await page.keyboard.press("Enter");
  await sheet(page)
    .getByRole("button", { name: /It was moved from/ })
    .click();
  await expect(sheet(page).getByRole("region", { name: "Places moved" })).toContainText("X30");
  await logIt(page).click();
  await saved(page);
  await expect(page.getByText("Terminal in X30 cavity 1 not making contact").first()).toBeVisible();
  await expect(card.getByRole("heading")).not.toContainText("Record the reference on both sides of X30");
});

/** Both sides of a terminal that opens now and then: the far side falls, the near one does not. */
const twoSides = () =>
  Array.from({ length: 8_000 }, (_, i) => {
    const isOut = [700, 1_530, 3_011, 5_020, 6_666].some((at) => i >= at && i < at + 30);
    const noise = 0.01 * Math.sin(i * 12.9898);
    return `${(i / 1000).toFixed(3)},${(5 + noise).toFixed(3)},${((isOut ? 0.02 : 5) + noise).toFixed(3)}`;
  }).join("\n");
