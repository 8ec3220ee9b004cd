import { expect, test, type Locator, type Page } from "@playwright/test";
import { applicationForTests, JSON_TYPE } from "./server";

const app = applicationForTests();
/** The button that reads the simulated machine, whatever the instrument. */
const SIMULATED = /^(Put the leads on|Read it|Do it)/;
test.describe.configure({ timeout: 150_000 });

const card = (page: Page) => page.getByRole("region", { name: "Next reading" });
const panel = (page: Page) => page.getByRole("region", { name: "Guided test" });
const settled = (page: Page) =>
  page.waitForFunction(
    () => document.querySelector("[data-testid='update-ms']")?.getAttribute("data-working") === "false",
    undefined,
    { timeout: 120_000 },
  );

async function openDemo(page: Page, title: string | RegExp): Promise<void> {
  await page.goto(app.address);
  await page.getByRole("link", { name: title }).first().click();
  await expect(page.getByRole("region", { name: "Logbook" })).toBeVisible();
  await settled(page);
}
/** Begins a run by hand, at a place found by its name. */
async function begin(page: Page, run: string, place: string): Promise<void> {
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("menuitem", { name: "Guided tests" }).click();
  const sheet = page.getByRole("dialog", { name: "Guided tests" });
  const choose = async (box: Locator, text: string) => {
    await box.click();
    await box.fill(text);
    await page.keyboard.press("Enter");
  };
  await choose(sheet.getByLabel("Which run"), run);
  await choose(sheet.getByRole("combobox").nth(1), place);
  await expect(sheet.getByRole("button", { name: "Begin" })).toBeEnabled();
  await sheet.getByRole("button", { name: "Begin" }).click();
  await expect(panel(page)).toContainText(run);
}
/**
 * Plays the open run to its end against the simulated machine; every step through the logbook.
 * @returns what it came to
 */
async function play(page: Page): Promise<string> {
  const done = panel(page).getByRole("button", { name: "End the test" });
  for (let step = 0; step < 40; step++) {
    await expect(card(page).or(done).first()).toBeVisible();
    if (await done.isVisible()) break;
    const caution = card(page).getByRole("button", { name: "Read and understood" });
    if (await caution.isVisible()) {
      await caution.click();
      await expect(caution).toBeHidden();
    }
    const before = await panel(page).getByRole("listitem").count();
    const meter = card(page).getByLabel("Simulated meter shows");
    // a card that is written anew while the leads are on begins with an empty display
    await expect(async () => {
      await card(page).getByRole("button", { name: SIMULATED }).click();
      await expect(meter).not.toContainText("– – –", { timeout: 8_000 });
    }).toPass({ timeout: 45_000 });
    const shown = (await meter.textContent())!.trim();
    // an instrument that shows nothing leaves the step aside
    if (shown.startsWith("—")) await card(page).getByRole("button", { name: "Can’t reach it" }).click();
    else if (await card(page).locator("form input").first().isVisible()) {
      await expect(card(page).locator("form input").first()).not.toHaveValue("");
      await card(page).getByRole("button", { name: /^Log/ }).click();
    } else await card(page).getByRole("button", { name: shown, exact: true }).click();
    await expect
      .poll(async () => (await done.isVisible()) || (await panel(page).getByRole("listitem").count()) > before, {
        timeout: 30_000,
        intervals: [80],
      })
      .toBe(true);
  }
  const found = (await panel(page).getByRole("status").textContent())!;
  await done.click();
  await expect(panel(page)).toBeHidden();
  await settled(page);
  return found;
}

// every kind of run is played to its end in core/test/procedures; here those whose steps look differently on the card
test("runs on the tug with a sensor that drags the reference down, each to its end", async ({ page }) => {
  await openDemo(page, /Four codes after rain/);
  await begin(page, "Unplug one at a time", "A1 cavity 17");
  expect(await play(page)).toContain("B9 drags A1:17 off its voltage");
  await begin(page, "Drop by section", "B7 cavity 1");
  expect(await play(page)).toMatch(/None of the|is lost between/);
  await begin(page, "Jumper low, jumper high", "B7");
  // the reference is down: no jumper before that is mended
  expect(await play(page)).toMatch(/not as a healthy machine would have it/);
  await expect(page.getByRole("region", { name: "Logbook" })).toContainText("Finished: jumper low, jumper high");
});

test("runs on a machine whose wiring is sound", async ({ page }) => {
  await openDemo(page, /Oil pressure low, sensor already replaced/);
  await begin(page, "Make the opposite fault", "B92");
  expect(await play(page)).toContain("monitor for B92 is awake");
  await begin(page, "New part before it goes in", "B94");
  expect(await play(page)).toContain("it can go in");
});

test("a fuse that blows: ohms, breaker, plug back, and the place that trips it", async ({ page }) => {
  await openDemo(page, /Hoist module, load sensor and height gone/);
  await begin(page, "A fuse that blows", "F5");
  expect(await play(page)).toMatch(/trips? it|short is in the wiring/);
});

test("a run can wait, be left, and is where it was after a reload", async ({ page }) => {
  await openDemo(page, /Three signals low since the wash-down/);
  await begin(page, "Ground proven three ways", "G3");
  await card(page).getByRole("button", { name: SIMULATED }).click();
  await expect(card(page).locator("form input").first()).not.toHaveValue("");
  await card(page).getByRole("button", { name: /^Log/ }).click();
  await expect(panel(page).getByRole("listitem")).toHaveCount(1);
  await settled(page);
  await panel(page).getByRole("button", { name: "Pause" }).click();
  await expect(card(page)).toContainText("Next reading");
  await page.reload();
  await settled(page);
  await expect(panel(page).getByRole("listitem")).toHaveCount(1);
  await expect(card(page)).toContainText("Next step of this test");
  await panel(page).getByRole("button", { name: "Stop the test" }).click();
  await expect(panel(page)).toBeHidden();
});

test("moving one place at a time finds the connector that comes and goes, by its value alone", async ({ page }) => {
  await openDemo(page, /Port engine stumbles/);
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("menuitem", { name: "Move one place at a time" }).click();
  const sheet = page.getByRole("dialog", { name: "Move one place at a time" });
  await sheet.getByRole("button", { name: "Watch the simulated meter" }).click();
  await expect(sheet.getByLabel("Watched value")).not.toContainText("– – –");
  const trace = sheet.locator("svg[role=img][aria-label*=watched], svg[role=img][aria-label*=values]");
  const values = async () => Number(/last (\d+) values/.exec((await trace.getAttribute("aria-label")) ?? "")?.[1] ?? 0);
  const watch = async (more: number) => {
    const before = await values();
    await expect.poll(values, { timeout: 60_000 }).toBeGreaterThanOrEqual(before + more);
  };
  await watch(12);
  for (const place of [/X30/, /A1/]) {
    await sheet.getByRole("button", { name: place }).click();
    await watch(26);
    await sheet.getByRole("button", { name: "Nothing" }).click();
    await watch(6);
  }
  await expect(sheet.getByRole("listitem").filter({ hasText: "X30" })).toContainText("it reacted");
  await expect(sheet.getByRole("listitem").filter({ hasText: "A1" })).toContainText("no reaction");
  await sheet.getByRole("button", { name: "Log what reacted and what did not" }).click();
  await expect(page.getByRole("region", { name: "Logbook" })).toContainText("it reacted");
  await begin(page, "Swap two like parts", "");
  expect(await play(page)).toMatch(/went with the part|What was wrong stayed/);
});

test("any machine of the library goes on the bench, is scanned and measured; bad requests are refused", async ({
  page,
  request,
}) => {
  expect(
    (
      await request.post(`${app.address}/api/wirings`, { headers: JSON_TYPE, data: { name: "Nothing drawn yet" } })
    ).status(),
  ).toBe(201);
  await page.goto(app.address);
  await page.getByRole("button", { name: "Practise" }).click();
  const sheet = page.getByRole("dialog", { name: "On the bench" });
  const choose = async (machine: string) => {
    await sheet.getByLabel("Machine").fill(machine);
    await page.keyboard.press("Enter");
    await sheet.getByRole("button", { name: "Put it on the bench" }).click();
  };
  await choose("Nothing drawn");
  await expect(sheet.getByRole("alert")).toContainText("No fault could be hidden here");
  await choose("Stacker 2");
  await page.getByRole("button", { name: "Scan it" }).click();
  await page.getByRole("button", { name: /Log the scan, \d+ code/ }).click();
  await settled(page);
  await expect(card(page)).toBeVisible();
  const id = /job\/([0-9a-f-]+)/.exec(page.url())![1]!;
  for (const body of [
    "{",
    "{}",
    JSON.stringify({ job: id, wiring: id }),
    JSON.stringify({ job: id, faults: 9 }),
    JSON.stringify({ job: "x" }),
  ])
    expect((await request.post(`${app.address}/api/jobs/bench`, { headers: JSON_TYPE, data: body })).status()).toBe(
      400,
    );
  expect(
    (
      await request.post(`${app.address}/api/jobs/bench`, {
        headers: JSON_TYPE,
        data: { job: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a11" },
      })
    ).status(),
  ).toBe(404);
  const measure = (data: unknown) =>
    request.post(`${app.address}/api/jobs/${id}/measure`, { headers: JSON_TYPE, data });
  const state = { key: "on", unplugged: [] };
  expect((await measure({ points: ["NOWHERE:1"], instrument: "voltmeter", state })).status()).toBe(400);
  expect((await measure({ points: ["NOWHERE"], instrument: "none", kind: "breaker", state })).status()).toBe(400);
  expect(
    (
      await measure({ points: ["chassis"], instrument: "voltmeter", state: { key: "on", unplugged: ["NOWHERE"] } })
    ).status(),
  ).toBe(400);
  expect(
    (
      await measure({
        points: ["chassis"],
        instrument: "voltmeter",
        state: { key: "on", unplugged: [], jumpers: [{ from: "NOWHERE:1", to: "chassis", ohm: 1 }] },
      })
    ).status(),
  ).toBe(400);
  expect(
    (
      await request.post(`${app.address}/api/jobs/${id}/scan`, { headers: JSON_TYPE, data: { when: "never" } })
    ).status(),
  ).toBe(400);
  const csv = await request.get(`${app.address}/api/jobs/${id}/export?as=csv`);
  expect(csv.headers()["content-type"]).toContain("text/csv");
  expect(await csv.text()).toMatch(/number,at,by,type/);
});
