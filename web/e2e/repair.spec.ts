import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { axeFindings, applicationForTests, JSON_TYPE } from "./server";
import { box, card, saved, verdict } from "./casePage";

const app = applicationForTests();
const at = "2026-11-24T09:00:00Z";
const codes = ["P0237", "P0522", "P1A41"];
const scan = {
  type: "scan",
  at,
  when: "before",
  modules: ["A1"],
  codes: codes.map((code) => ({ module: "A1", code })),
};
const volts = (point: string, value: number) => ({
  type: "reading",
  at,
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged: [] },
});
const found = {
  type: "verdict",
  at,
  suspect: "S22",
  text: "Splice S22 corroded",
  share: 0.97,
  engine: "0.7.0",
};
/** A job with its cause found, on no simulated machine. */
async function foundJob(request: APIRequestContext, title: string, more: object[] = []): Promise<string> {
  const wiring = JSON.parse(readFileSync("demo/tug-4.wiring.json", "utf8")) as object;
  const entries = [scan, volts("B7:2", 2.4), volts("A1:31", 0.02), found, ...more];
  const made = await request.post(`${app.address}/api/jobs`, {
    headers: JSON_TYPE,
    data: { format: "radicula/case", version: 1, title, machine: "Tug 4", wiring, entries },
  });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { id: string }).id;
}
const proof = (page: Page) => page.getByRole("region", { name: "Proof" });
const dialog = (page: Page) => page.getByRole("dialog");

test("what was read before the repair stands beside what was read after it, drawn and as a table", async ({
  page,
  request,
}) => {
  const before = await foundJob(request, "Not repaired yet");
  await page.goto(`${app.address}/job/${before}?view=beforeAfter`);
  await expect(page.getByText("Log a repair first.")).toBeVisible();
  const repair = { type: "repaired", at, how: "cleaned", things: ["S22"] };
  const id = await foundJob(request, "Read again", [repair, volts("B7:2", 0.03), volts("A1:31", 0.02)]);
  await page.goto(`${app.address}/job/${id}`);
  await page.getByText("Before and after", { exact: true }).click();
  await expect(page.getByRole("img", { name: /^B7.* 2.* 2\.40 V before, 0\.03 V after; / })).toBeVisible();
  await page.getByText("As a table").click();
  const row = page.getByRole("row", { name: /B7/ });
  await expect(row.getByRole("cell")).toHaveText(["key on, engine off", /^0\.\d\d V$/, "2.40 V", "0.03 V"]);
  expect(await axeFindings(page)).toEqual([]);
});

test("from the cause to a proven repair, a report and its address, and the day on which it is asked for", async ({
  page,
  request,
}) => {
  const id = await foundJob(request, "Repaired");
  await page.goto(`${app.address}/job/${id}`);
  await verdict(page).getByRole("button", { name: "Log the repair" }).click();
  await expect(dialog(page).getByText("splice S22 (sensor ground)")).toBeVisible();
  await expect(dialog(page).getByText(/Key off, and the battery off/)).toBeVisible();
  await dialog(page).getByLabel("Minutes").fill("25");
  await dialog(page).getByRole("button", { name: "Log the repair" }).click();
  await expect(proof(page)).toContainText("0 of 4 steps done");
  await saved(page);
  expect(await axeFindings(page)).toEqual([]);
  await proof(page).getByRole("button", { name: "Codes are cleared" }).click();
  await proof(page).getByRole("button", { name: "Measure" }).click();
  await expect(card(page)).toContainText("B7 cavity 2");
  await box(page).fill("0.03");
  await page.keyboard.press("Enter");
  await expect(proof(page)).toContainText("2 of 4 steps done");
  await proof(page).getByRole("button", { name: "Nothing moved" }).click();
  await expect(proof(page)).toContainText("3 of 4 steps done");
  await proof(page).getByRole("button", { name: "Enter the scan" }).click();
  await expect(dialog(page).getByLabel("cleared, key cycled")).toBeChecked();
  await dialog(page).getByRole("button", { name: "Log the scan, no codes" }).click();
  await expect(proof(page)).toContainText("All steps passed");
  await expect(proof(page).getByRole("heading")).toHaveText(/Very likely cured|Cured/);
  await proof(page).getByRole("button", { name: "Close the job" }).click();
  await expect(dialog(page).getByLabel("Repair proven")).toBeChecked();
  await dialog(page).getByLabel("On", { exact: true }).fill("2026-11-01");
  expect(await axeFindings(page)).toEqual([]);
  await dialog(page).getByRole("button", { name: "Close the job" }).click();
  await expect(proof(page)).toContainText("Job closed");
  await saved(page);

  await proof(page).getByRole("link", { name: "Report" }).first().click();
  const paper = page.getByRole("main");
  await expect(paper).toContainText("Splice S22 corroded.");
  await expect(paper).toContainText("Sensor ground at B7 cavity 2: 2.40 V before, 0.03 V after.");
  await expect(paper).toContainText("Repaired splice S22 (sensor ground)");
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole("link", { name: "For the workshop" }).click();
  await expect(paper.getByRole("heading", { name: "Proof" })).toBeVisible();
  await page.getByRole("button", { name: /Make an address/ }).click();
  const address = (await page.getByRole("status").getByRole("link").getAttribute("href"))!;
  const shared = await request.get(address);
  expect(shared.status()).toBe(200);
  expect(await shared.text()).toContain("Splice S22 corroded.");
  for (const wrong of [address.slice(0, -2), `${address.slice(0, -2)}aa`, `${app.address}/shared/${id}`]) {
    const answer = await request.get(wrong);
    expect([answer.status(), await answer.text()]).toEqual([404, "Not found"]);
  }

  await page.goto(`${app.address}/?state=due`);
  await page.getByRole("link", { name: /Repaired.*Ask: did it hold/s }).click();
  await proof(page).getByRole("button", { name: "Ask whether it held" }).click();
  await dialog(page).getByRole("button", { name: "The same fault came back" }).click();
  await expect(page.getByText("Needs codes").or(page.getByRole("region", { name: "Proof" }))).toBeHidden();
  await page.goto(app.address);
  await expect(page.getByRole("link", { name: /Repaired/ })).toContainText("Came back");
});

test("a repair that did not cure it is said, and the search goes on; closing without proof asks why", async ({
  page,
  request,
}) => {
  const repaired = { type: "repaired", at, things: ["S22"], how: "repaired" };
  const id = await foundJob(request, "In vain", [repaired, volts("B7:2", 2.4)]);
  await page.goto(`${app.address}/job/${id}`);
  await expect(page.getByText(/did not take|another fault is left/)).toBeVisible();
  await expect(card(page)).toBeVisible();
  await page.goto(`${app.address}/job/${id}?sheet=close`);
  const close = dialog(page).getByRole("button", { name: "Close the job" });
  await expect(close).toBeDisabled();
  await dialog(page).getByText("Another reason").click();
  await expect(close).toBeDisabled();
  await dialog(page).getByRole("textbox", { name: "Reason" }).fill("Sold as it is");
  await close.click();
  await saved(page);
  await page.goto(`${app.address}/job/${id}/report`);
  await expect(page.getByRole("main")).toContainText("Sold as it is");
});

test("reports as files; settings of the workshop; what cannot be is refused", async ({ request }) => {
  const id = await foundJob(request, "Filed <script>alert(1)</script>");
  const file = (query: string) => request.get(`${app.address}/api/jobs/${id}/report?${query}`);
  const settings = { name: "Harbour workshop", currency: "EUR", labourPerHour: 90, taxPercent: 20 };
  const put = (data: unknown) => request.put(`${app.address}/api/settings`, { headers: JSON_TYPE, data });
  expect((await put(settings)).status()).toBe(200);
  for (const wrong of [{ ...settings, currency: "euro" }, { ...settings, taxPercent: -1 }, { colour: "red" }, 7])
    expect((await put(wrong)).status()).toBe(422);
  const page = await (await file("as=html&length=workshop")).text();
  expect(page).toContain("Harbour workshop");
  expect(page).not.toContain("<script>");
  const pdf = await file("as=pdf&length=record");
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  expect((await pdf.body()).subarray(0, 5).toString()).toBe("%PDF-");
  expect((await file("as=word")).status()).toBe(400);
  expect((await request.get(`${app.address}/api/jobs/none/report`)).status()).toBe(404);
  const share = (data: unknown) => request.post(`${app.address}/api/jobs/${id}/share`, { headers: JSON_TYPE, data });
  expect((await share({ length: "customer", days: 900 })).status()).toBe(422);
  expect((await share({ length: "secret" })).status()).toBe(422);
});
