import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { answers, openCopy } from "./casePage";
import { JSON_TYPE, applicationForTests } from "./server";

const app = applicationForTests();

const saved = (page: Page) => expect(page.locator("header [role=status]")).toHaveText("Saved");
const card = (page: Page) => page.getByRole("region", { name: "Next reading" });
const book = (page: Page) => page.getByRole("region", { name: "Logbook" });
const box = (page: Page) => card(page).locator("form input").first();
const sheet = (page: Page) => page.getByRole("dialog");
const scanBox = (page: Page) => page.getByLabel("Codes, typed or pasted");
const step = (page: Page, name: string) => page.getByLabel("Where the job stands").getByRole("button", { name });
const pick = async (page: Page, label: string, text: string) => {
  await sheet(page).getByLabel(label, { exact: true }).last().click();
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
};

/** A job without entries on the demo wiring. */
async function freshJob(
  page: Page,
  request: APIRequestContext,
  title: string,
  change: (wiring: Record<string, unknown>) => void = () => undefined,
): Promise<void> {
  const wiring = JSON.parse(readFileSync("demo/tug-4.wiring.json", "utf8")) as Record<string, unknown>;
  change(wiring);
  const made = (await (
    await request.post(`${app.address}/api/jobs`, {
      headers: JSON_TYPE,
      data: JSON.stringify({
        format: "radicula/case",
        version: 1,
        title,
        machine: "Tug 4",
        complaint: "Lamps on after rain",
        wiring,
      }),
    })
  ).json()) as { id: string };
  await page.goto(`${app.address}/job/${made.id}`);
  await expect(page.getByText("Start with the codes")).toBeVisible();
}
async function logScan(page: Page, text: string) {
  await expect(scanBox(page)).toBeFocused();
  await page.keyboard.insertText(text);
  await page.keyboard.press("Control+Enter");
  await expect(sheet(page)).toBeHidden();
  await saved(page);
}

test("a job started from the board on a wiring of the library goes straight to its scan", async ({ page, request }) => {
  await freshJob(page, request, "Brings the wiring into the library");
  await page.goto(app.address);
  await answers(page.getByRole("button", { name: "New job" }));
  await page.getByRole("button", { name: "New job" }).click();
  await page.keyboard.type("Tug 5");
  await page.getByLabel("What the customer says").fill("Slow on the ramp. Comes and goes.");
  await page.getByLabel("Wiring", { exact: true }).click();
  await page.keyboard.type("Tug 4");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await page.waitForURL(/\/job\//);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Slow on the ramp");
  await logScan(page, "P0522\nP0237");
  await expect(card(page)).toBeVisible();
  await expect(box(page)).toBeFocused(); // the sheet gave the focus back
});

test("scans: completion, a paste read line by line, what came back, and codes we set ourselves", async ({
  page,
  request,
}) => {
  await freshJob(page, request, "Scans");
  await page.getByRole("button", { name: "Type or paste the scan" }).click();
  await expect(scanBox(page)).toBeFocused();
  await page.keyboard.type("p052");
  await expect(sheet(page).getByText("Oil pressure signal low")).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(scanBox(page)).toHaveValue("P0522");
  await page.keyboard.insertText(
    " active\nP0237;Boost signal low;active;12:40\nwhat is this\nP2002 soot trap below threshold",
  );
  await expect(sheet(page)).toContainText("line 3:");
  await expect(sheet(page).getByRole("row")).toHaveCount(4);
  await sheet(page).getByLabel("Leave out P2002").click();
  await page.keyboard.press("Escape").catch(() => undefined);
  await step(page, "Scan").click();
  await logScan(page, "P0522 active\nP0237 active");
  await expect(card(page)).toBeVisible();
  await expect(book(page)).toContainText("2 codes");

  // a plug is pulled, codes are read again: the one it sets says nothing
  await step(page, "Scan").click();
  await pick(page, "Disturbed", "B12");
  await expect(sheet(page)).toContainText("Codes that unplugging B12 would set are not taken as evidence");
  await scanBox(page).focus();
  await logScan(page, "P0522\nP0237\nP1A41");
  await expect(page.getByText(/P1A41.*(B12|ourselves|unplugged)/).first()).toBeVisible();

  // cleared, read again: one came back, one stayed away
  await step(page, "Scan").click();
  await sheet(page).getByRole("button", { name: "Codes were cleared just now" }).click();
  await saved(page);
  await scanBox(page).focus();
  await logScan(page, "P0522");
  await step(page, "Scan").click();
  const compared = page.getByLabel("Scans so far");
  await expect(compared.getByRole("row", { name: /P0522/ })).toContainText("there every time");
  await expect(compared.getByRole("row", { name: /P0237/ })).toContainText("stayed away");
});

test(
  "a code nobody has listed waits until it is said what it names; then it ranks, and is kept for the next " + "job",
  async ({ page, request }) => {
    await freshJob(page, request, "Unknown codes", (w) => {
      w["name"] = `Unlisted ${Date.now()}`;
      w["codes"] = [];
    });
    await page.getByRole("button", { name: "Type or paste the scan" }).click();
    await logScan(page, "K-17 lift signal low\nP1177 something low\nP1178 another low");
    await expect(page.getByText("Which component is each code for?")).toBeVisible();
    await page.getByRole("button", { name: "Say which part each names" }).click();
    await pick(page, "Part P1177 names", "B7");
    await pick(page, "Part P1178 names", "B9");
    await sheet(page).getByRole("button", { name: "Log it" }).click();
    await saved(page);
    await expect(page.getByRole("region", { name: "Suspects" })).toContainText("2/2");
    await step(page, "Scan").click();
    await sheet(page)
      .getByRole("button", { name: /Keep them with the wiring/ })
      .click();
    await expect(sheet(page).getByText(/not in the wiring of this machine type/)).toBeHidden();
  },
);

test("the intake feeds the suspects in plain sight, and dangers stand before every step", async ({ page, request }) => {
  await freshJob(page, request, "Intake");
  await page.getByRole("button", { name: "Type or paste the scan" }).click();
  await logScan(page, "P0522\nP0237\nP1A41");
  const first = page.getByRole("region", { name: "Suspects" }).getByRole("listitem").first();
  const before = await first.textContent();
  await step(page, "Intake").click();
  await expect(sheet(page).getByLabel("What the customer says")).toHaveValue("Lamps on after rain");
  await sheet(page).getByRole("button", { name: "wet", exact: true }).click();
  await sheet(page).getByRole("button", { name: "+ replaced" }).click();
  await pick(page, "Where", "B9");
  await page.keyboard.press("Escape");
  await sheet(page).getByLabel("Did it help").click();
  await page.getByTitle("did not help").click();
  await sheet(page).getByRole("button", { name: "+ something said of machines like this" }).click();
  await sheet(page).getByLabel("What it says").fill("the splice under the step corrodes");
  await pick(page, "About", "S22");
  const feeds = page.getByLabel("What this changes");
  await expect(feeds).toContainText("Comes when wet: corrosion and bridged cavities");
  await expect(feeds).toContainText("Replaced (B9): the part itself counts 0.");
  await expect(feeds).toContainText("Hearsay (S22)");
  await sheet(page).getByRole("button", { name: "fuel, high pressure" }).click();
  await sheet(page).getByRole("button", { name: "Log the intake" }).click();
  await saved(page);
  await expect.poll(() => first.textContent()).not.toBe(before);
  await expect(card(page)).toContainText("Fuel and high-pressure lines: no sparks");
  await expect(book(page)).toContainText("wet, replaced B9");
  // and it is there to be changed when opened again
  await step(page, "Intake").click();
  await expect(sheet(page).getByRole("button", { name: "wet", exact: true })).toHaveAttribute("aria-pressed", "true");
});

test(
  "what stands on the machine is not as drawn: said before testing, and readings taken there move together, " +
    "with a trace",
  async ({ page, request }) => {
    await freshJob(page, request, "Wrong plug");
    await page.getByRole("button", { name: "Type or paste the scan" }).click();
    await logScan(page, "P0522\nP0237\nP1A41");
    // two readings at what was taken for B7
    for (const [cavity, value] of [
      ["1", "0.4"],
      ["2", "0.02"],
    ] as const) {
      await box(page).focus();
      await page.keyboard.press("t");
      await pick(page, "Red lead", `B7 cavity ${cavity}`);
      await sheet(page).getByRole("button", { name: "Enter its value" }).click();
      await expect(sheet(page)).toBeHidden();
      await box(page).fill(value);
      await page.keyboard.press("Enter");
      await expect(book(page)).toContainText(value);
      await saved(page);
    }
    // the next card may ask for yes or no, and have no box
    await box(page)
      .focus({ timeout: 5000 })
      .catch(() => undefined);
    await page.getByRole("button", { name: "More", exact: true }).click();
    await page.getByText("Seen on the machine").click();
    await pick(page, "Connector", "B7");
    await sheet(page).getByLabel("Colour seen in cavity 3").fill("violet"); // B12's signal is violet
    await expect(sheet(page).getByRole("alert")).toContainText("B12 fits better");
    await sheet(page).getByRole("button", { name: "Log what stands there" }).click();
    await saved(page);
    const remark = page.getByRole("status").filter({ hasText: "B7 is not as drawn" });
    await expect(remark).toBeVisible();
    await remark.getByRole("button", { name: "Move 2 readings to B12" }).click();
    await saved(page);
    await expect(book(page)).toContainText("Moved readings from B7 to B12");
    await page.getByRole("button", { name: "Whole logbook" }).click();
    await expect(book(page)).toContainText("0.40 V"); // the trace stays
  },
);

test("what they share: from the drawing alone, healthy circuits against", async ({ page, request }) => {
  await freshJob(page, request, "Shared");
  await page.getByRole("button", { name: "Type or paste the scan" }).click();
  await logScan(page, "P0522\nP0237");
  await page.getByTitle("What they share").click();
  await expect(page.getByText(/Both pass through/)).toBeVisible();
  const shared = page.getByRole("row", { name: /S14/ });
  await expect(shared.getByLabel("coded, passes")).toHaveCount(2);
  await expect(shared.getByLabel("healthy, passes")).toHaveCount(1); // B12 hangs on it too, without a code
});

test("a sheet that is tapped away keeps what was typed, says so, and Back closes it before it leaves the job", async ({
  page,
}) => {
  await openCopy(app.address, page, "tug-4-reference.case.json", "Kept");
  await expect(card(page)).toBeVisible();
  await page.keyboard.press("c");
  await expect(scanBox(page)).toBeFocused();
  await page.keyboard.type("P0522 active");
  await page.keyboard.press("Escape");
  await expect(page.getByText("What you typed is kept.")).toBeVisible();
  await expect(scanBox(page)).toBeHidden();
  await page.keyboard.press("c");
  await expect(scanBox(page)).toHaveValue("P0522 active");
  await expect(scanBox(page)).toBeFocused();
  expect(page.url()).toContain("?sheet=codes");
  await page.goBack();
  await expect(scanBox(page)).toBeHidden();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Kept");
  // what was logged is not there again
  await page.keyboard.press("c");
  await sheet(page).getByRole("button", { name: /^Log/ }).click();
  await expect(scanBox(page)).toBeHidden();
  await page.keyboard.press("c");
  await expect(scanBox(page)).toHaveValue("");
});

test("single letters can be turned off, and none of them logs anything", async ({ page }) => {
  await openCopy(app.address, page, "tug-4-reference.case.json", "Letters");
  await expect(card(page)).toBeVisible();
  const before = await book(page).textContent();
  const asked = await card(page).getByRole("heading").textContent();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur()); // the page itself has the keys
  await page.keyboard.press("x");
  await page.keyboard.press("?");
  await page.getByRole("switch", { name: "Single letters are keys on this device" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  await page.keyboard.press("c");
  await expect(page.getByRole("dialog")).toBeHidden();
  expect(await card(page).getByRole("heading").textContent()).toBe(asked);
  expect(await book(page).textContent()).toBe(before);
  await page.keyboard.press("Backspace"); // the letter went into the box of the value
  // what logs takes two keys, and is off with the others
  await page.keyboard.press("?");
  await page.getByRole("switch", { name: "Single letters are keys on this device" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  await page.keyboard.press("Shift+X");
  await expect(card(page).getByRole("heading")).not.toHaveText(asked!);
});
