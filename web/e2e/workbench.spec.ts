import { chartRow, emptyChart, generateHarness, type Chart } from "@radicula/core";
import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import { applicationForTests, JSON_TYPE, makeWiring, axeFindings, still } from "./server";
import { answers } from "./casePage";
import { Hands } from "./hands";
import { cell, table } from "./workbenchPage";

const app = applicationForTests();

const saved = (page: Page) => expect(page.locator("header [role=status]")).toHaveText("Saved");
/** Types cells from where the cursor stands, then begins the next line. */
async function typeLine(page: Page, ...cells: string[]) {
  for (const [i, text] of cells.entries()) {
    if (i > 0) await page.keyboard.press("Tab");
    await page.keyboard.type(text);
  }
  await page.keyboard.press("Enter");
}

const draftOf = async (request: APIRequestContext, id: string) =>
  (await (await request.get(`${app.address}/api/wirings/${id}/draft`)).json()) as { seq: number; chart: Chart };

test("typing test: six sensors, two splices, one fuse, by keyboard from an empty document to first suspects", async ({
  page,
}) => {
  await page.goto(app.address);
  await answers(page.getByRole("button", { name: "New job" }));
  const hands = new Hands(page);
  await hands.point("New job");
  await expect(page.getByLabel("Machine")).toBeFocused();
  await hands.type("Tug 9");
  await hands.press("Tab");
  await hands.type("Six gauges dead since the wash");
  await expect(page.getByLabel("What the customer says")).toHaveValue("Six gauges dead since the wash");
  await hands.press("Control+Enter");
  await page.waitForURL(/\/wiring\//, { timeout: 40_000 });
  await table(page);
  await expect(page.locator(".dsg-active-cell")).toBeVisible();

  const signals = ["wh", "ye", "gn", "bu", "vt", "gy"];
  const sensors = signals.flatMap((colour, i) => [
    [`b${i + 1}.1`, "og", "5v", "s1"],
    ["2", "bn", "gnd", "s2"],
    ["3", colour, "sig", `a1.${i + 3}`],
  ]);
  const lines = [
    ...sensors,
    ["s1", "og", "5v", "a1.1"],
    ["s2", "bn", "gnd", "a1.2"],
    ["a1.9", "rd", "feed", "f1"],
    ["f1.in", "rd", "feed", "bat"],
    ["a1.10", "bk", "ground", "g1"],
  ];
  // a pin typed whole fills both columns, whichever of them the cursor stands in
  for (const [i, line] of lines.entries()) {
    if (i > 0) await hands.press("Enter");
    for (const [j, text] of line.entries()) {
      if (j > 0) await hands.press("Tab");
      await hands.type(text);
    }
  }
  await hands.press("Control+Enter");
  await page.waitForURL(/\/job\//);
  await expect(page.getByLabel("Codes, typed or pasted")).toBeFocused();
  for (let i = 0; i < 6; i++) {
    if (i > 0) await hands.press("Enter");
    await hands.type(`p11${i}1 b${i + 1} low`);
  }
  await hands.press("Control+Enter");
  const suspects = page.getByRole("region", { name: "Suspects" });
  await expect(suspects).toBeVisible();
  await expect(suspects).toContainText("6/6");
  // what the lines add up to: six three-wire sensors on one reference and one ground, fed through one fuse
  await page.getByText("What they share", { exact: true }).click();
  await expect(page.getByText(/All 6 pass through S1, S2/)).toBeVisible();
  console.log(
    `typing test: ${hands.keys} keystrokes, ${hands.points} pointings, ${hands.minds} times making up one's ` +
      `mind: ${hands.seconds.toFixed(0)} s by the keystroke-level model`,
  );
  expect(hands.seconds).toBeLessThanOrEqual(300);
  expect(hands.points).toBeLessThanOrEqual(1);
});

test("what is typed while the server is gone is kept and saved when it is back", async ({ page, request }) => {
  const id = await makeWiring(app.address, request, { name: "Gone" });
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await typeLine(page, "B1", "1", "og", "5v", "s1");
  await saved(page);
  await app.kill();
  await typeLine(page, "2", "bn", "gnd", "s2");
  await expect(page.locator("header [role=status]")).toHaveText("Not saved yet: kept on this device");
  await app.start();
  await saved(page);
  expect((await draftOf(request, id)).chart.rows.map((r) => r.colour)).toEqual(["OG", "BN", ""]);
  // and when the window closed before the server was back
  await app.kill();
  await typeLine(page, "3", "gn", "sig", "a1.4");
  await expect(page.locator("header [role=status]")).toHaveText("Not saved yet: kept on this device");
  const address = page.url();
  await page.goto("about:blank");
  await app.start();
  await page.goto(address);
  await table(page);
  await saved(page);
  await expect
    .poll(async () => (await draftOf(request, id)).chart.rows.map((r) => r.goesTo))
    .toEqual(["S1", "S2", "A1.4", ""]);
});

test("two windows on one wiring: the later is told, and neither overwrites the other unasked", async ({
  page,
  context,
  request,
}) => {
  const id = await makeWiring(app.address, request, { name: "Two" });
  const other = await context.newPage();
  for (const p of [page, other]) {
    await p.goto(`${app.address}/wiring/${id}`);
    await table(p);
  }
  await typeLine(page, "B1", "1");
  await saved(page);
  await typeLine(other, "C1", "1");
  await expect(other.getByText(/Somebody changed this wiring in another window/)).toBeVisible();
  expect((await draftOf(request, id)).chart.rows[0]!.connector).toBe("B1");
  await other.getByRole("button", { name: "Keep mine" }).click();
  await saved(other);
  expect((await draftOf(request, id)).chart.rows[0]!.connector).toBe("C1");
});

test("a whole circuit is laid down in one step, and reads without a refused cell", async ({ page, request }) => {
  const id = await makeWiring(app.address, request, { name: "Whole" });
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await answers(page.getByRole("button", { name: "+ a whole circuit" }));
  await page.getByRole("button", { name: "+ a whole circuit" }).click();
  const form = page.getByRole("form", { name: "a whole circuit" });
  await form.getByRole("spinbutton", { name: "How many" }).fill("6");
  await still(page);
  expect(await axeFindings(page)).toEqual([]);
  await form.getByRole("button", { name: "Add it" }).click();
  await expect(form).toBeHidden();
  const kinds = async () => (await draftOf(request, id)).chart.parts.map((p) => p.kind).sort();
  await expect
    .poll(kinds)
    .toEqual([...Array<string>(1).fill("module"), "splice", "splice", ...Array<string>(6).fill("threeWireSensor")]);
  await expect(page.getByLabel("What needs a look")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect.poll(kinds).toEqual([]);
});

test("fill down, undo, a part from the list, and what cannot be taken marked at its line", async ({
  page,
  request,
}) => {
  const id = await makeWiring(app.address, request, { name: "Edits" });
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await page.keyboard.type("b1.1"); // in the connector column it is a name that cannot be
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "+ Hall sensor" }).click();
  await expect.poll(async () => (await draftOf(request, id)).chart.parts.map((p) => p.kind)).toContain("hall");
  const before = (await draftOf(request, id)).chart.rows.length;
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect.poll(async () => (await draftOf(request, id)).chart.rows.length).toBeLessThan(before);
  await page.getByRole("button", { name: "Redo", exact: true }).click();
  await expect.poll(async () => (await draftOf(request, id)).chart.rows.length).toBe(before);
  await cell(page, 1, 2).click();
  await page.keyboard.type("tartan");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("What needs a look")).toContainText('"tartan" is not a wire colour');
  // the colour of the line above, copied down
  await cell(page, 1, 2).click();
  await page.keyboard.type("gn/ye");
  await page.keyboard.press("Enter");
  await cell(page, 2, 2).click();
  await page.keyboard.press("Control+d");
  await expect.poll(async () => (await draftOf(request, id)).chart.rows[2]?.colour).toBe("GN/YE");
});

test("a pasted table is shown row by row before it is taken; contradictions stay beside what is there", async ({
  page,
  request,
}) => {
  const id = await makeWiring(app.address, request, {
    ...emptyChart("Paste"),
    rows: [chartRow({ connector: "B1", cavity: "1", colour: "OG", goesTo: "S1", source: "chart A" })],
  });
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await page.getByRole("button", { name: "Paste a chart" }).click();
  const sheet = page.getByRole("dialog");
  // written by a spreadsheet of another country: semicolons, decimal commas, a merged cell's blank, Windows-1252
  const text =
    "Connector;Cavity;Colour;mm2;Function;Goes to\r\nB1;1;RD;0,75;5 V;S1\r\n;2;brün;0,5;GND;S2\r\n=1+1;1;GN;;;\r\n";
  await page
    .getByTestId("chart-file")
    .setInputFiles({ name: "blatt.csv", mimeType: "text/csv", buffer: Buffer.from(text, "latin1") });
  await expect(sheet).toContainText("read as Windows-1252");
  await expect(sheet).toContainText("3 lines taken");
  await expect(sheet).toContainText("1 contradict");
  await expect(sheet).toContainText('"brün" is not a wire colour');
  await expect(sheet).toContainText('"=1+1" cannot be a name');
  expect((await draftOf(request, id)).chart.rows).toHaveLength(1); // nothing taken yet
  await sheet.getByRole("button", { name: "Take it" }).click();
  const notes = page.getByLabel("What needs a look");
  await expect(notes).toContainText("blatt says colour RD");
  await notes.getByRole("button", { name: "Go by blatt" }).click();
  await expect
    .poll(async () => (await draftOf(request, id)).chart.rows[0])
    .toMatchObject({ colour: "RD", mm2: "0,75" });
});

test("the drawing: a cavity followed to its end, found by colour, saved as SVG without scripts", async ({
  page,
  request,
}) => {
  const hostile = "<script>document.title='owned'</script>";
  const rows = [
    chartRow({ connector: "B1", cavity: "1", colour: "OG/WH", function: "5 V", goesTo: "S1" }),
    chartRow({ connector: "S1", goesTo: "A1:1", colour: "OG/WH" }),
    chartRow({ connector: "B1", cavity: "3", colour: "GN", function: "signal", goesTo: "A1:4" }),
  ];
  const id = await makeWiring(app.address, request, { ...emptyChart(hostile), rows });
  await page.goto(`${app.address}/wiring/${id}`);
  await table(page);
  await page.getByTitle("Drawing").click();
  const drawing = page.getByRole("group", { name: /Wiring drawing with 3 parts and 3 wires/ });
  await expect(drawing).toBeVisible();
  await drawing.getByRole("button", { name: "Follow B1:1" }).click();
  await expect(page.getByRole("region", { name: "Drawing" })).toContainText("leads to A1:1");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "SVG" }).click();
  const file = await (await download).createReadStream();
  let svg = "";
  for await (const chunk of file) svg += String(chunk);
  expect(svg).toContain("OG/WH");
  expect(svg).not.toMatch(/<script/i);
  expect(await page.title()).not.toBe("owned");
});

for (const part of ["workbench", "library, scan and intake"] as const)
  test(`light and dark: no accessibility finding of any weight on the ${part}`, async ({ browser, request }) => {
    const wiring = generateHarness({ nodes: 120, seed: 3 });
    const id = await makeWiring(app.address, request, wiring);
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const serious = () => axeFindings(page);
    if (part === "workbench") {
      await page.goto(`${app.address}/wiring/${id}`);
      await table(page);
      await expect(page.getByText("Sensors and actuators")).toBeVisible();
      expect(await serious()).toEqual([]);
      await page.getByTitle("Drawing").click();
      await expect(page.getByRole("group", { name: /Wiring drawing/ })).toBeVisible();
      expect(await serious()).toEqual([]);
      await page.getByTitle("Codes").click();
      await still(page);
      expect(await serious()).toEqual([]);
    } else {
      const started = (await (
        await request.post(`${app.address}/api/jobs`, {
          headers: JSON_TYPE,
          data: JSON.stringify({ title: "Axe", wiring: id }),
        })
      ).json()) as { id: string };
      await page.goto(`${app.address}/wirings`);
      expect(await serious()).toEqual([]);
      await page.goto(`${app.address}/job/${started.id}?sheet=codes`);
      await page.getByLabel("Codes, typed or pasted").fill(`${wiring.codes[0]!.id} active\nnonsense`);
      await still(page);
      expect(await serious()).toEqual([]);
      await page.goto(`${app.address}/job/${started.id}?sheet=intake`);
      await expect(page.getByRole("dialog")).toBeVisible();
      await still(page);
      expect(await serious()).toEqual([]);
    }
    await context.close();
  });
