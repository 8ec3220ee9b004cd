import { expect, type Locator, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";

/** A case as a test sees it. */
export const card = (page: Page) => page.getByRole("region", { name: "Next reading" });
export const box = (page: Page) => card(page).locator("form input").first();
export const verdict = (page: Page) => page.getByRole("region", { name: "Verdict" });
export const saved = (page: Page) => expect(page.locator("header [role=status]")).toHaveText("Saved");
export const entryCount = async (page: Page) =>
  Number(/(\d+) entr/.exec((await page.getByRole("region", { name: "Logbook" }).textContent()) ?? "")?.[1]);

/** Waits until the page's script answers for an element: what is pressed or given before that is lost. */
export const answers = (element: Locator) =>
  expect.poll(() => element.evaluate((e) => Object.keys(e).some((key) => key.startsWith("__reactProps")))).toBe(true);

/** Opens a fresh copy of a demo case through the board's own file button. */
export async function openCopy(
  address: string,
  page: Page,
  file: string,
  title: string,
  hidden = false,
): Promise<void> {
  await page.goto(address);
  if (hidden) {
    await page.getByRole("link", { name: title }).first().click();
    return;
  }
  await answers(page.getByTestId("import"));
  const text = readFileSync(`demo/${file}`, "utf8").replace(/"title": "[^"]*"/, `"title": "${title}"`);
  await page
    .getByTestId("import")
    .setInputFiles({ name: file, mimeType: "application/json", buffer: Buffer.from(text) });
  await expect(page.getByRole("heading", { level: 1 })).toContainText(title);
}
