import { expect, test, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { english as coreEnglish } from "../../core/dist/words/messages/en/index.js";
import { german as coreGerman } from "../../core/dist/words/messages/de/index.js";
import { german as webGerman } from "../src/messages/de/index";
import { english as webEnglish } from "../src/messages/en/index";
import { answers } from "./casePage";
import { applicationForTests, JSON_TYPE } from "./server";

const app = applicationForTests();
test.use({ locale: "de-DE" });

const JOB = readFileSync("demo/tug-4-came-back.case.json", "utf8");
const SHEETS =
  "other codes name intake seen chart help runs disturbed meter watch recording sums bench repair before".split(" ");
const WIDTHS = [1280, 390] as const;

/** Whole messages in English that German says otherwise, but for words of the job itself. */
type Messages = Readonly<Record<string, string>>;
const saidOtherwise = (english: Messages, german: Messages) =>
  Object.entries(english).flatMap(([key, message]) => {
    const text = message.trim();
    const isSaid = /[a-z]{3}/i.test(text) && !text.includes("{");
    return isSaid && german[key]?.trim() !== text && !JOB.includes(text) ? [text] : [];
  });
const ENGLISH = new Set([...saidOtherwise(coreEnglish, coreGerman), ...saidOtherwise(webEnglish, webGerman)]);
const GERMAN = new Set([...Object.values(coreGerman), ...Object.values(webGerman)].map((m) => m.trim()));

/** English that stands on the page, in text or in what is read aloud. */
async function leftInEnglish(page: Page): Promise<string[]> {
  const texts = await page.evaluate(() => {
    const found: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) found.push(walker.currentNode.textContent ?? "");
    for (const e of document.querySelectorAll("*"))
      for (const name of ["aria-label", "title", "placeholder", "alt"]) found.push(e.getAttribute(name) ?? "");
    return found.map((t) => t.trim());
  });
  return [...new Set(texts)].filter((t) => ENGLISH.has(t) && !GERMAN.has(t));
}
const tooWide = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

async function isGerman(page: Page, what: string): Promise<void> {
  await expect(page.locator("html")).toHaveAttribute("lang", "de");
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 800 });
    await expect.poll(() => tooWide(page), { message: `${what} at ${width} pixels` }).toBeLessThanOrEqual(0);
    expect({ what, left: await leftInEnglish(page) }).toEqual({ what, left: [] });
  }
  await page.setViewportSize({ width: 1280, height: 800 });
}

test("every page is in German, and none grows wider than the screen", async ({ page }) => {
  const failed: string[] = [];
  page.on("pageerror", (error) => failed.push(error.message));
  page.on("console", (m) => m.type() === "error" && failed.push(m.text()));
  const made = await page.request.post(`${app.address}/api/jobs`, { headers: JSON_TYPE, data: JOB });
  const { id } = (await made.json()) as { id: string };
  await page.goto(app.address);
  await expect(page.getByRole("heading", { name: "Aufträge" })).toBeVisible();
  await isGerman(page, "the board");
  for (const at of ["wirings", "notebook", "calculators", "settings", `job/${id}/report`]) {
    await page.goto(`${app.address}/${at}`);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await isGerman(page, at);
  }
  await page.goto(`${app.address}/wirings`);
  const wiring = await page.locator("a[href^='/wiring/']").first().getAttribute("href");
  for (const view of ["", "?view=drawing", "?view=codes", "?view=revisions", "/print"]) {
    await page.goto(`${app.address}${wiring}${view}`);
    await expect(page.locator("main")).toBeVisible();
    await page.waitForLoadState("networkidle");
    await isGerman(page, `the wiring ${view}`);
  }
  expect(failed).toEqual([]);
});

test("a job is worked on in German, sheet by sheet", async ({ page }) => {
  test.slow();
  const made = await page.request.post(`${app.address}/api/jobs`, { headers: JSON_TYPE, data: JOB });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${app.address}/job/${id}`);
  await expect(page.getByRole("region", { name: "Nächste Messung" })).toBeVisible();
  await isGerman(page, "the job");
  for (const sheet of SHEETS) {
    await page.goto(`${app.address}/job/${id}?sheet=${sheet}`);
    await expect(page.getByRole("dialog")).toBeVisible();
    await isGerman(page, sheet);
  }
  for (const view of ["shared", "profile", "course", "beforeAfter"]) {
    await page.goto(`${app.address}/job/${id}?view=${view}`);
    await expect(page.getByRole("region", { name: "Nächste Messung" })).toBeVisible();
    await isGerman(page, view);
  }
});

test.describe("whose browser asks for English", () => {
  test.use({ locale: "en-GB" });
  test("chooses German for this device, and gets the report in it as well", async ({ page }) => {
    const made = await page.request.post(`${app.address}/api/jobs`, { headers: JSON_TYPE, data: JOB });
    const { id } = (await made.json()) as { id: string };
    const report = async () => (await page.request.get(`${app.address}/api/jobs/${id}/report?as=html`)).text();
    expect(await report()).toContain("What was wrong");
    await page.goto(app.address);
    const button = page.getByRole("button", { name: "Units and language" });
    await answers(button);
    // what the tests above look for is found where it is
    expect(await leftInEnglish(page)).toContain("New job");
    await button.click();
    await page.getByText("Deutsch").click();
    await expect(page.getByRole("heading", { name: "Aufträge" })).toBeVisible();
    const german = await report();
    expect(german).toContain('<html lang="de">');
    expect(german).toContain("Was defekt war");
    expect(german).not.toContain("What was wrong");
    await page.getByRole("button", { name: "Einheiten und Sprache" }).click();
    await page.getByText("English").click();
    await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  });
});
