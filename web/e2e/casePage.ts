import { expect, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";

/** A case as a test sees it. */
export const card = (page: Page) => page.getByRole("region", { name: "Next reading" });
export const box = (page: Page) => card(page).locator("form input").first();
export const verdict = (page: Page) => page.getByRole("region", { name: "Verdict" });
export const saved = (page: Page) => expect(page.locator("header [role=status]")).toHaveText("Saved");
export const entryCount = async (page: Page) =>
  Number(/(\d+) entr/.exec((await page.getByRole("region", { name: "Logbook" }).textContent()) ?? "")?.[1]);

/** Opens a fresh copy of a demo case through the board's own file button. */
export async function openCopy(
  address: string,
  page: Page,
  file: string,
  title: string,
  hidden = false,
): Promise<void> {
  await page.goto(address);
  await page.waitForLoadState("networkidle"); // the file button works once the page's script has run
  if (hidden) {
    await page.getByRole("link", { name: title }).first().click();
    return;
  }
  const text = readFileSync(`demo/${file}`, "utf8").replace(/"title": "[^"]*"/, `"title": "${title}"`);
  await page
    .getByTestId("import")
    .setInputFiles({ name: file, mimeType: "application/json", buffer: Buffer.from(text) });
  await expect(page.getByRole("heading", { level: 1 })).toContainText(title);
}
