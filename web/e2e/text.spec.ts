import { expect, test, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { card } from "./casePage";
import { applicationForTests, JSON_TYPE } from "./server";

const app = applicationForTests();

/** Text that somebody may paste into any field. Each is cut to what the field takes. */
const TEXTS: readonly (readonly [string, string])[] = [
  ["one word without an end", "x".repeat(10_000)],
  ["right to left", "חיישן לחץ נופל אחרי הגשם ".repeat(400)],
  ["emoji", "🔧⚡️👩‍🔧🚜".repeat(1000)],
  ["a pasted table", "pin\tcolour\tfunction\nB7:1\tOG/WH\t5 V\n".repeat(250)],
  ["marks and markup", "<b onclick=alert(1)>&amp;</b> ‮reversed‬ \u200b\u00ad{{x}} ${y} "],
];
/** By character, as a field cuts it: half an emoji is no text. */
const cut = (text: string, most: number) => {
  let out = "";
  for (const c of text) {
    if (out.length + c.length > most) break;
    out += c;
  }
  return out.trim();
};
const WIDTHS = [1280, 390] as const;

/** A repaired job with a text in every free field that its format has. */
function jobWith(text: string): string {
  const job = JSON.parse(readFileSync("demo/tug-4-came-back.case.json", "utf8")) as {
    title: string;
    machine: string;
    complaint: string;
    wiring: {
      name: string;
      note?: string;
      connectors: { name?: string; place?: string }[];
      devices: { name?: string; place?: string }[];
      wires: { source?: string }[];
    };
    entries: Record<string, unknown>[];
  };
  job.title = cut(text, 160);
  job.machine = cut(text, 120);
  job.complaint = cut(text, 4000);
  job.wiring.name = cut(text, 120);
  job.wiring.note = cut(text, 4000);
  for (const c of [...job.wiring.connectors, ...job.wiring.devices]) {
    if (c.name !== undefined) c.name = cut(text, 80);
    if (c.place !== undefined) c.place = cut(text, 80);
  }
  for (const w of job.wiring.wires) if (w.source !== undefined) w.source = cut(text, 80);
  for (const e of job.entries) {
    e["by"] = cut(text, 60);
    if (e["type"] === "followedUp") e["note"] = cut(text, 400);
  }
  return JSON.stringify(job);
}

async function fits(page: Page, what: string): Promise<void> {
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 844 });
    // what is laid out anew for another width is laid out in the next frame or two
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth), {
        message: `${what} at ${width} pixels`,
      })
      .toBeLessThanOrEqual(0);
  }
}

for (const [name, text] of TEXTS)
  test(`${name}, in every field of a job: kept as it is, and no page grows wider than the screen`, async ({ page }) => {
    const failed: string[] = [];
    page.on("pageerror", (error) => failed.push(error.message));
    page.on("dialog", (dialog) => failed.push(`a dialog: ${dialog.message()}`));
    const made = await page.request.post(`${app.address}/api/jobs`, { headers: JSON_TYPE, data: jobWith(text) });
    expect([made.status(), made.status() === 201 ? "" : await made.text()]).toEqual([201, ""]);
    const { id } = (await made.json()) as { id: string };
    const kept = (await (await page.request.get(`${app.address}/api/jobs/${id}/export`)).json()) as { title: string };
    expect(kept.title).toBe(cut(text, 160));

    await page.goto(app.address);
    await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
    await fits(page, "the board");
    await page.goto(`${app.address}/job/${id}`);
    await expect(card(page)).toBeVisible();
    await fits(page, "the job");
    await page.goto(`${app.address}/job/${id}/report`);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await fits(page, "the report");
    expect(failed).toEqual([]);
  });

/** A chart with a text in every free cell; what a cell names by rule stays as it is. */
function chartWith(text: string) {
  const cell = cut(text, 400);
  const [said, zoned] = [{ name: cell, place: cell, side: cell, comesOff: cell, lookAlikes: cell }, "wet"];
  return {
    format: "radicula/chart",
    version: 1,
    name: cut(text, 120),
    machineType: cut(text, 80),
    note: cut(text, 4000),
    rows: [
      { connector: "B1", cavity: "1", colour: cell, function: cell, goesTo: "A1:4", source: cell, zones: zoned },
      { connector: "B1", cavity: "2", mm2: cell, function: "signal", goesTo: "A1:5", lengthM: cell, values: cell },
      { connector: cell, cavity: cell, goesTo: cell, part: cell, bundle: cell, wire: cell },
    ],
    connectors: [{ id: "B1", ...said, partNumber: cell, alsoNumbers: cell, cautions: cell, minutes: cell }],
    parts: [{ id: "B1", kind: "sensor3", ...said, values: cell }],
  };
}

for (const [name, text] of TEXTS)
  test(`${name}, in every cell of a wiring and in the letterhead: no page grows wider`, async ({ page, request }) => {
    const failed: string[] = [];
    page.on("pageerror", (error) => failed.push(error.message));
    page.on("dialog", (dialog) => failed.push(`a dialog: ${dialog.message()}`));
    const chart = chartWith(text);
    const made = await request.post(`${app.address}/api/wirings`, { headers: JSON_TYPE, data: chart });
    expect([made.status(), made.status() === 201 ? "" : await made.text()]).toEqual([201, ""]);
    const { id } = (await made.json()) as { id: string };
    const letterhead = { name: cut(text, 120), address: cut(text, 400), contact: cut(text, 200) };
    const settings = await request.put(`${app.address}/api/settings`, { headers: JSON_TYPE, data: letterhead });
    expect(settings.status()).toBe(200);
    expect(await (await request.get(`${app.address}/api/settings`)).json()).toMatchObject(letterhead);

    for (const [path, shown] of [
      ["/wirings", page.getByRole("heading", { name: "Wirings" })],
      [`/wiring/${id}`, page.getByRole("button", { name: "Paste a chart" })],
      [`/wiring/${id}?view=drawing`, page.getByRole("region", { name: "Drawing" })],
      [`/wiring/${id}?view=codes`, page.getByRole("main")],
      [`/wiring/${id}?view=revisions`, page.getByRole("main")],
      [`/wiring/${id}/print`, page.getByRole("heading", { level: 1 })],
      ["/settings", page.getByRole("heading", { level: 1 })],
    ] as const) {
      await page.goto(`${app.address}${path}`);
      await expect(shown).toBeVisible();
      await fits(page, path);
    }
    expect(failed).toEqual([]);
  });

test("only spaces are no title, said by the field's name", async ({ request }) => {
  const wiring = (JSON.parse(jobWith("a")) as { wiring: object }).wiring;
  const title = " \t\n ";
  const made = await request.post(`${app.address}/api/jobs`, {
    headers: JSON_TYPE,
    data: JSON.stringify({ format: "radicula/case", version: 1, title, wiring, entries: [] }),
  });
  expect(made.status()).toBe(422);
  expect(JSON.stringify(await made.json())).toContain("title");
});
