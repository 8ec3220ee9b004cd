import { expect, test, type APIRequestContext } from "@playwright/test";
import { readFileSync } from "node:fs";
import { applicationForTests, axeFindings, JSON_TYPE } from "./server";
import { box, saved } from "./casePage";

const app = applicationForTests();
const at = "2026-11-24T09:00:00Z";
const tug = JSON.parse(readFileSync("demo/tug-4.wiring.json", "utf8")) as { name: string; machineType: string };
/** A wiring of its own, so that no other test's jobs teach it anything. */
const wiring = (name: string) => ({ ...tug, name });
const send = async (request: APIRequestContext, method: "POST" | "PUT", path: string, body: unknown) => {
  const answer = await request.fetch(`${app.address}${path}`, {
    method,
    headers: JSON_TYPE,
    data: JSON.stringify(body),
  });
  return { status: answer.status(), body: (await answer.json()) as Record<string, unknown> };
};
const codes = ["P0522", "P1A41"].map((code) => ({ module: "A1", code, status: "active" }));
const scan = { type: "scan", at, when: "before", modules: ["A1"], codes };
const outcome = { cured: 0.97, notWell: 0.01, anotherLeft: 0.01, wentAway: 0.01 };
const closedJob = (name: string) => ({
  format: "radicula/case",
  version: 1,
  title: "Two pressures low",
  machine: "Tug 11",
  wiring: wiring(name),
  entries: [
    scan,
    { type: "verdict", at, suspect: "X5:4", text: "Terminal in X5 cavity 4 spread", share: 0.97, engine: "0.7.0" },
    { type: "repaired", at, things: ["X5:4"], how: "repaired" },
    { type: "closed", at, because: "proven", proof: { outcome, steps: [] } },
  ],
});
const entriesOf = async (request: APIRequestContext, id: string) =>
  ((await (await request.get(`${app.address}/api/jobs/${id}/export`)).json()) as { entries: { type: string }[] })
    .entries;

test("a closed job stands in the notebook, counts in the next job of its wiring, and can be switched off", async ({
  page,
  request,
}) => {
  const { body: closed } = await send(request, "POST", "/api/jobs", closedJob("Taught"));
  await page.goto(`${app.address}/notebook?find=Tug+11+spread`);
  const lesson = page.getByRole("listitem").filter({ hasText: "Terminal in X5 cavity 4 spread" });
  await expect(lesson).toContainText("What helped: repaired X5:4");
  await expect(lesson).toContainText("Proof said 97 % cured, not asked yet");
  expect(await axeFindings(page)).toEqual([]);

  // the next job of this wiring begins with what it teaches
  const { body: library } = await send(request, "POST", "/api/wirings", wiring("Taught"));
  const start = { title: "Again", machine: "Tug 12", wiring: library["id"] };
  const { body: next } = await send(request, "POST", "/api/jobs", start);
  expect(next["last"]).toBe(1);
  const logged = { after: 1, batch: crypto.randomUUID(), entries: [scan] };
  await send(request, "POST", `/api/jobs/${String(next["id"])}/entries`, logged);
  await page.goto(`${app.address}/job/${String(next["id"])}`);
  await page.getByRole("button", { name: "1 earlier job counts here" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("link", { name: "Terminal in X5 cavity 4 spread" })).toBeVisible();
  await expect(sheet).toContainText("the same codes");
  expect(await axeFindings(page)).toEqual([]);
  await sheet.getByRole("switch").click();
  await expect(sheet).toContainText("1 closed job of this wiring can count here");
  await page.keyboard.press("Escape");
  await saved(page);
  await expect(page.getByRole("button", { name: "1 earlier job counts here" })).toBeHidden();
  await expect(box(page)).toBeVisible();
  expect((await entriesOf(request, String(next["id"]))).map((e) => e.type)).toEqual(["learned", "scan", "undo"]);

  // switched off in the notebook, it teaches the one after that nothing
  await page.goto(`${app.address}/notebook?find=Tug+11+spread`);
  await lesson.getByRole("switch").click();
  await expect(lesson).toContainText("Does not count");
  await lesson.getByRole("button", { name: "Add a note" }).click();
  await page.getByLabel("Note").fill("The wrong wire colour in the drawing.");
  await page.getByRole("button", { name: "Save the note" }).click();
  await expect(lesson).toContainText("The wrong wire colour in the drawing.");
  const { body: third } = await send(request, "POST", "/api/jobs", { ...start, title: "Third" });
  expect(third["last"]).toBe(0);
  // a job that came back counts nothing, and the notebook says so
  const back = { after: 4, batch: crypto.randomUUID(), entries: [{ type: "followedUp", at, result: "cameBack" }] };
  await send(request, "POST", `/api/jobs/${String(closed["id"])}/entries`, back);
  await page.reload();
  await expect(lesson).toContainText("Does not count: it came back");
  await expect(lesson).toContainText("The wrong wire colour in the drawing.");
});

test("a closed job opens with its frozen proof, before anything is worked out", async ({ page, request }) => {
  const { body: closed } = await send(request, "POST", "/api/jobs", closedJob("Closed"));
  await page.goto(`${app.address}/job/${String(closed["id"])}`);
  const proof = page.getByRole("region", { name: "Proof" });
  await expect(proof).toContainText("97 %");
  await expect(proof.getByRole("button", { name: "Report" })).toBeVisible();
  await expect(page.getByRole("list", { name: "Where the job stands" })).toContainText("Proof");
});

test("practice jobs teach nothing and learn nothing; a workshop can leave lessons out of new jobs", async ({
  request,
}) => {
  await send(request, "POST", "/api/jobs", closedJob("Left out"));
  const { body: library } = await send(request, "POST", "/api/wirings", wiring("Left out"));
  const { body: practice } = await send(request, "POST", "/api/jobs/bench", { wiring: library["id"], seed: 4 });
  const before = await request.get(`${app.address}/api/jobs/${String(practice["id"])}/before`);
  expect(await before.json()).toEqual({ alike: [], learned: null });
  expect((await entriesOf(request, String(practice["id"]))).some((e) => e.type === "learned")).toBe(false);
  const settings = await (await request.get(`${app.address}/api/settings`)).json();
  await send(request, "PUT", "/api/settings", { ...settings, useLessons: false });
  const { body: job } = await send(request, "POST", "/api/jobs", { title: "Without", wiring: library["id"] });
  await send(request, "PUT", "/api/settings", settings);
  expect(job["last"]).toBe(0);
});

test("lessons from a file: added once, bad ones refused with the reason, nothing half-added", async ({
  page,
  request,
}) => {
  const file = await request.get(`${app.address}/api/notebook`);
  const notebook = (await file.json()) as { lessons: { id: string; wiring: string }[] };
  expect(notebook.lessons.length).toBeGreaterThan(20);
  const strange = { ...notebook.lessons[0]!, id: "elsewhere 1", wiring: "A machine nobody has here" };
  await page.goto(`${app.address}/notebook`);
  const drop = (content: string) =>
    page.getByTestId("add-lessons").setInputFiles({
      name: "lessons.json",
      mimeType: "application/json",
      buffer: Buffer.from(content),
    });
  await drop(JSON.stringify({ ...notebook, lessons: [...notebook.lessons.slice(0, 2), strange] }));
  await expect(page.getByText("1 added. 2 were here already, and stayed.")).toBeVisible();
  for (const [content, says] of [
    ['{"format":"radicula/notebook","version":1,"less', "stops in the middle"],
    [JSON.stringify({ format: "radicula/case", version: 1 }), "radicula/notebook"],
    [JSON.stringify({ ...notebook, lessons: [{ ...strange, id: "elsewhere 2" }, { id: "half" }] }), "lessons"],
  ] as const) {
    await drop(content);
    await expect(page.getByRole("alert").filter({ hasText: says })).toBeVisible();
  }
  expect((await send(request, "PUT", "/api/notebook/elsewhere%202", { used: false })).status).toBe(404);
  expect((await send(request, "PUT", "/api/notebook/elsewhere%201", { used: "no" })).status).toBe(422);
  expect((await send(request, "PUT", "/api/notebook/elsewhere%201", {})).status).toBe(422);
  expect((await send(request, "POST", "/api/notebook", { lessons: [] })).status).toBe(422);
});
