import { buildChart, chartOf, parseWiring, type Case, type Chart, type Wiring } from "@radicula/core";
import { expect, test, type APIRequestContext } from "@playwright/test";
import { readFileSync } from "node:fs";
import { card } from "./casePage";
import { JSON_TYPE, applicationForTests } from "./server";

const app = applicationForTests();

/** Wires of the demo machine that are left out of its drawing. */
const HIDDEN = new Set(["B12:1", "B12:2", "B4:2"]);

function halfChart(): Chart {
  const read = parseWiring(readFileSync("demo/tug-4.wiring.json", "utf8"));
  if (!read.ok) throw new Error("the demo wiring does not read");
  const chart = chartOf(read.value);
  const { points } = buildChart(chart);
  return {
    ...chart,
    rows: chart.rows.map((r, i) =>
      HIDDEN.has(points.get(i) ?? "") ? { ...r, goesTo: "", colour: "", mm2: "", wire: "" } : r,
    ),
  };
}
const demoEntries = () =>
  (JSON.parse(readFileSync("demo/tug-4-reference.case.json", "utf8")) as { entries: unknown[] }).entries.slice(0, 4);
const send = async <T>(request: APIRequestContext, method: "POST" | "PUT", path: string, body: unknown): Promise<T> =>
  (await (
    await request.fetch(`${app.address}/api/${path}`, { method, headers: JSON_TYPE, data: JSON.stringify(body) })
  ).json()) as T;
const exported = async (request: APIRequestContext, job: string) =>
  (await (await request.get(`${app.address}/api/jobs/${job}/export`)).json()) as Case;
const wiresAt = (wiring: Wiring, point: string) =>
  wiring.wires
    .filter((w) => w.from === point || w.to === point)
    .map((w) => [w.source, w.from === point ? w.to : w.from]);

/** A job on half a drawing, with its codes logged. */
async function halfJob(request: APIRequestContext): Promise<{ job: string; wiring: string }> {
  const { id } = await send<{ id: string }>(request, "POST", "wirings", { name: "Half a tug" });
  await send(request, "PUT", `wirings/${id}/draft`, { seq: 1, chart: halfChart() });
  const { id: job, last } = await send<{ id: string; last: number }>(request, "POST", "jobs", {
    title: "Half a tug",
    wiring: id,
  });
  const logged = await send<{ last: number }>(request, "POST", `jobs/${job}/entries`, {
    after: last, // what earlier jobs teach stands before
    batch: crypto.randomUUID(),
    entries: demoEntries(),
  });
  expect(logged.last).toBe(last + 4);
  return { job, wiring: id };
}

test("half a drawing: what is not drawn is assumed and said to be; what was looked up goes into the wiring", async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const { job, wiring } = await halfJob(request);
  const before = await exported(request, job);
  expect(wiresAt(before.wiring, "B12:2")).toEqual([["assumed", "S22"]]);
  // the drawing itself stays as it was drawn
  const draft = async () =>
    ((await (await request.get(`${app.address}/api/wirings/${wiring}/draft`)).json()) as { chart: Chart }).chart;
  expect((await draft()).rows.filter((r) => r.source === "assumed")).toEqual([]);

  await page.goto(`${app.address}/job/${job}`);
  await expect(card(page)).toBeVisible({ timeout: 60_000 });
  // assumed wires are dashed
  await expect(page.locator('svg path[stroke-dasharray="6 5"]').first()).toBeAttached();
  await page.getByRole("button", { name: /not on the drawing|look at the drawing|drawing leaves/i }).click();
  const sheet = page.getByRole("dialog");
  const ground = sheet.getByRole("listitem").filter({ hasText: "B12 cavity 2" });
  await expect(ground.getByText("assumed now")).toBeVisible({ timeout: 30_000 });
  // what each would tell is worked out meanwhile
  await expect(sheet.getByText(/^worth 0\.\d\d bits$/).first()).toBeVisible({ timeout: 60_000 });

  await ground.getByText("another place").click();
  await ground.getByRole("textbox").fill("some where else");
  await ground.getByRole("button", { name: "Put it down in the wiring" }).click();
  await expect(ground.getByRole("alert")).toContainText("some where else");
  await ground.getByRole("textbox").fill("g3");
  await ground.getByRole("button", { name: "Put it down in the wiring" }).click();
  await expect(page.getByRole("button", { name: /^2 wires are not on the drawing/ })).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: /^2 wires are not on the drawing/ }).click();
  await sheet.getByRole("listitem").filter({ hasText: "B4 cavity 2" }).getByText("no wire there").click();
  await sheet.getByRole("button", { name: "Put it down in the wiring" }).click();
  await expect(page.getByRole("button", { name: /^1 wire is not on the drawing/ })).toBeVisible({ timeout: 60_000 });

  const after = await exported(request, job);
  expect(wiresAt(after.wiring, "B12:2")).toEqual([["looked up", "G3"]]);
  expect(wiresAt(after.wiring, "B4:2")).toEqual([]);
  expect(wiresAt(after.wiring, "B12:1")).toEqual([["assumed", "S14"]]);
  expect(after.entries.slice(0, before.entries.length)).toEqual(before.entries);
  expect(after.entries.slice(before.entries.length).map((e) => e.type)).toEqual(["revision", "revision"]);
  expect((await draft()).rows.find((r) => r.connector === "B4" && r.cavity === "2")?.goesTo).toBe("not connected");
});

test("an answer that is none is refused, and nothing is changed by it", async ({ request }) => {
  const { job } = await halfJob(request);
  const before = await exported(request, job);
  for (const [body, status, code] of [
    [{}, 422, "gap.not-understood"],
    [{ at: "B12:2", goesTo: "" }, 422, "gap.not-understood"],
    [{ at: "B12:2", goesTo: 7 }, 422, "gap.not-understood"],
    [{ at: "B12:2", goesTo: "x".repeat(5000) }, 422, "gap.not-understood"],
    [{ at: "B7:1", goesTo: "S14" }, 422, "gap.not-open"],
    [{ at: "B99:1", goesTo: "S14" }, 422, "gap.not-open"],
    [{ at: "B12:2", goesTo: "some where else" }, 422, "chart.bad-goes-to"],
  ] as const) {
    const response = await request.post(`${app.address}/api/jobs/${job}/drawing`, { headers: JSON_TYPE, data: body });
    expect(response.status()).toBe(status);
    expect(((await response.json()) as { issues: { code: string }[] }).issues[0]?.code).toBe(code);
  }
  const none = await request.post(`${app.address}/api/jobs/${crypto.randomUUID()}/drawing`, {
    headers: JSON_TYPE,
    data: { at: "B12:2", goesTo: "S22" },
  });
  expect(none.status()).toBe(404);
  expect(await exported(request, job)).toEqual(before);
});
