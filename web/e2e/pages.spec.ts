import { readFileSync } from "node:fs";
import type { Chart } from "@radicula/core";
import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import PDFDocument from "pdfkit";
import sharp from "sharp";
import { ZipFile } from "yazl";
import { answers, card, verdict } from "./casePage";
import { Hands } from "./hands";
import { applicationForTests, axeFindings, JSON_TYPE, makeWiring, still } from "./server";
import { table } from "./workbenchPage";

const app = applicationForTests();
const DEMO = "demo/stacker-2-pages.pdf";
const PHOTO = "demo/stacker-2-page-1.jpg";
const file = (page: Page) => page.getByTestId("page-file");
const addAll = (page: Page) => page.getByRole("button", { name: "Add all of it" });
const add = (page: Page) => page.getByRole("button", { name: "Add to the chart" });
const says = (page: Page) => page.getByRole("complementary", { name: "What the page says" });
const chartOf = async (request: APIRequestContext, id: string) =>
  ((await (await request.get(`${app.address}/api/wirings/${id}/draft`)).json()) as { chart: Chart }).chart;
const wiresOf = async (request: APIRequestContext, id: string) =>
  (await chartOf(request, id)).rows
    .filter((r) => r.goesTo)
    .map((r) => [`${r.connector}${r.cavity ? `:${r.cavity}` : ""}`, r.goesTo, r.colour].join(" "));

/** Where a place of the page is on the screen. */
async function onScreen(page: Page, x: number, y: number): Promise<[number, number]> {
  return page.getByTestId("over-page").evaluate(
    (g: SVGGElement, [px, py]: [number, number]) => {
      const m = g.getScreenCTM()!;
      return [m.a * px + m.e, m.d * py + m.f] as [number, number];
    },
    [x, y] as [number, number],
  );
}
async function drawBox(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  await page.getByRole("button", { name: "Draw a box" }).click();
  await page.mouse.move(...(await onScreen(page, ...from)));
  await page.mouse.down();
  await page.mouse.move(...(await onScreen(page, ...to)), { steps: 5 });
  await page.mouse.up();
}
const tap = async (page: Page, x: number, y: number) => page.mouse.click(...(await onScreen(page, x, y)));
async function openPages(page: Page, request: APIRequestContext): Promise<string> {
  const id = await makeWiring(app.address, request, { name: "Stacker 2", nominalVolt: 24 });
  await page.goto(`${app.address}/wiring/${id}?view=pages`);
  await answers(page.getByRole("button", { name: "Add pages" }));
  return id;
}

/** A wiring with both pages of the demo PDF, and all that needs no question on the first of them in its chart. */
async function openDemo(page: Page, request: APIRequestContext): Promise<string> {
  const id = await openPages(page, request);
  await file(page).setInputFiles(DEMO);
  await expect(page.getByRole("tab")).toHaveCount(2);
  await answers(addAll(page));
  await addAll(page).click();
  await expect.poll(async () => (await chartOf(request, id)).rows.length).toBeGreaterThan(10);
  return id;
}
/** A new job from the demo PDF: pages taken in, everything on them added, codes typed, up to the first suspects. */
async function toSuspects(page: Page, pages: number, sensors: number): Promise<{ hands: Hands; wiring: string }> {
  await page.goto(app.address);
  await answers(page.getByRole("button", { name: "New job" }));
  const hands = new Hands(page);
  await hands.point("New job");
  await expect(page.getByLabel("Machine")).toBeFocused();
  await hands.type("Stacker 2");
  await hands.press("Tab");
  await hands.type("Spreader and steering dead");
  await expect(page.getByLabel("What the customer says")).toHaveValue("Spreader and steering dead");
  await hands.press("Control+Enter");
  await page.waitForURL(/\/wiring\//, { timeout: 40_000 });
  const wiring = /wiring\/([\w-]+)/.exec(page.url())![1]!;
  await table(page);
  await hands.point(page.getByText("Pages", { exact: true }));
  // the window of the system: the file found, and pressed twice
  hands.points += 2;
  hands.minds++;
  await expect(page.getByText("Nothing is sent anywhere else")).toBeVisible();
  await file(page).setInputFiles(DEMO);
  for (let n = 1; n <= pages; n++) {
    if (n > 1) await hands.point(page.getByRole("tab", { name: `page ${n}` }));
    await hands.point(addAll(page));
    await expect(says(page)).toContainText("Everything read on this page is in the chart.");
  }
  await hands.press("Control+Enter");
  await page.waitForURL(/\/job\//);
  await expect(page.getByLabel("Codes, typed or pasted")).toBeFocused();
  for (let i = 0; i < sensors; i++) {
    if (i > 0) await hands.press("Enter");
    await hands.type(`p12${String(i + 10)} b${i + 1} low`);
  }
  await hands.press("Control+Enter");
  const suspects = page.getByRole("region", { name: "Suspects" });
  await expect(suspects).toContainText(`${sensors}/${sensors}`);
  await page.getByText("What they share", { exact: true }).click();
  await expect(page.getByText(`All ${sensors} pass through`)).toBeVisible();
  console.log(
    `${pages} of the pages, ${sensors} sensors: ${hands.keys} keystrokes, ${hands.points} pointings: ` +
      `${hands.seconds.toFixed(0)} s by the keystroke-level model`,
  );
  return { hands, wiring };
}

test("from one page of a PDF to first suspects, by taps: six sensors", async ({ page }) => {
  const { hands } = await toSuspects(page, 1, 6);
  expect(hands.seconds).toBeLessThanOrEqual(90);
});

test("from a PDF of two pages to first suspects, by taps: twelve sensors, and a job solved on them", async ({
  page,
}) => {
  test.slow();
  const { hands, wiring } = await toSuspects(page, 2, 12);
  expect(hands.seconds).toBeLessThanOrEqual(240);

  // the same wiring with its codes on the simulated machine, with a fault hidden in it
  const draft = (await (await page.request.get(`${app.address}/api/wirings/${wiring}/draft`)).json()) as {
    seq: number;
    chart: Chart;
  };
  const codes = Array.from({ length: 12 }, (_, i) => ({
    id: `P12${i + 10}`,
    module: "A1",
    title: `B${i + 1} low`,
    about: `B${i + 1}`,
    family: "low" as const,
  }));
  const saved = await page.request.put(`${app.address}/api/wirings/${wiring}/draft`, {
    headers: JSON_TYPE,
    data: { seq: draft.seq, chart: { ...draft.chart, codes } },
  });
  expect(saved.status()).toBe(200);
  const made = await page.request.post(`${app.address}/api/jobs/bench`, {
    headers: JSON_TYPE,
    data: { wiring, seed: 11 },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${app.address}/job/${id}?sheet=codes`);
  await page.getByRole("button", { name: "Scan it" }).click();
  await page.getByRole("button", { name: /Log the scan, \d+ code/ }).click();
  // the next reading is marked on the page it stands on
  await page.getByText("My drawing", { exact: true }).click();
  await expect(page.getByRole("list", { name: "On this page" })).toContainText("next reading here");
  await expect(page.getByTestId("page").locator("canvas")).toBeVisible();
  await solveOnTheBench(page);
  await expect(page.getByRole("list", { name: "On this page" })).toContainText(/\d V/);
  const [file1] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save this page (SVG)" }).click(),
  ]);
  const svg = readFileSync((await file1.path())!, "utf8");
  expect(svg).toMatch(/^<\?xml/);
  expect(svg).toContain('href="data:image/jpeg;base64,');
  expect(svg).toMatch(/<text[^>]*>-?[\d.]+ V<\/text>/);
  await verdict(page)
    .getByRole("button", { name: /^Log (this as the cause|what is proven)/ })
    .first()
    .click();
  await expect(verdict(page).getByText("Verdict logged")).toBeVisible();
});

/** Takes the readings that are proposed until there is a verdict. */
async function solveOnTheBench(page: Page): Promise<void> {
  for (let reading = 0; reading < 20; reading++) {
    await expect(card(page).or(verdict(page)).first()).toBeVisible();
    if (await verdict(page).isVisible()) return;
    const said = await card(page).getByRole("heading").first().textContent();
    const caution = card(page).getByRole("button", { name: "Read and understood" });
    if (await caution.isVisible()) await caution.click();
    await card(page)
      .getByRole("button", { name: /^(Put the leads on|Read it|Do it)/ })
      .click();
    await expect(card(page).getByLabel("Simulated meter shows")).not.toContainText("– – –");
    await page.keyboard.press("Enter");
    const moved = verdict(page).or(card(page).getByRole("heading").filter({ hasNotText: said! }));
    await expect(moved.first()).toBeVisible();
  }
}

test("a box, a dot and a wire are tapped, checked and added one by one; each is undone", async ({ page, request }) => {
  const id = await openPages(page, request);
  await file(page).setInputFiles(DEMO);
  await expect(addAll(page)).toBeVisible();
  await still(page);
  expect(await axeFindings(page)).toEqual([]);
  // the box of B1: its name is put right before it is added
  await tap(page, 650, 95);
  await expect(page.getByLabel("Name on the drawing")).toHaveValue("B1");
  await page.getByLabel("Name on the drawing").fill("b21");
  await add(page).click();
  await expect.poll(async () => (await chartOf(request, id)).rows.map((r) => r.connector)).toContain("B21");
  // its reference wire goes through two bends to a dot
  await tap(page, 520, 51);
  await expect(says(page).getByRole("heading")).toHaveText("B21:1 to S1");
  await add(page).click();
  await expect.poll(() => wiresOf(request, id)).toEqual(["B21:1 S1 RD/WH"]);
  // where it crosses others without a dot it is not joined to them
  await tap(page, 380, 106);
  await expect(says(page).getByRole("heading")).toHaveText("B1:3 to A1:10".replace("B1", "B21"));
  await page.getByRole("button", { name: "Leave it" }).click();
  // half of a wire waits for the other page
  await tap(page, 500, 552);
  await expect(says(page).getByRole("heading")).toHaveText("S1 to P on another page");
  await add(page).click();
  await expect(says(page)).toContainText("the other end not found yet: P (S1)");
  const undo = page.getByRole("button", { name: "Undo", exact: true });
  await undo.click();
  await undo.click();
  await expect.poll(() => wiresOf(request, id)).toEqual([]);
  await page.getByRole("button", { name: "Redo", exact: true }).click();
  await expect.poll(() => wiresOf(request, id)).toEqual(["B21:1 S1 RD/WH"]);
  // what is typed in the chart is on no page yet, and the page says so
  await page.getByText("Pin chart", { exact: true }).click();
  await table(page);
  await page.keyboard.press("Control+End");
  const sources = (await chartOf(request, id)).rows.map((r) => r.source);
  expect(sources[0]).toMatch(/^stacker-2-pages, page 1 [A-F][1-8]$/);
});

test("a photo is built on by hand: a box with cavities by rule, a splice, wires from end to end", async ({
  page,
  request,
}) => {
  const id = await openPages(page, request);
  await file(page).setInputFiles(PHOTO);
  await page.getByRole("button", { name: "Add it as it is" }).click();
  await expect(says(page)).toContainText("This page is a picture");
  await drawBox(page, [1900, 300], [2300, 600]);
  await page.getByLabel("Name on the drawing").fill("b1");
  await page.getByLabel("In rows").fill("3");
  await add(page).click();
  await expect.poll(async () => (await chartOf(request, id)).rows.map((r) => r.cavity)).toEqual(["1", "2", "3", ""]);
  // wire: from the first cavity to a splice that is named on the way
  await tap(page, 2100, 350);
  await expect(says(page).getByRole("heading")).toHaveText("B1:1");
  await page.getByRole("button", { name: "Wire from here" }).click();
  await tap(page, 1300, 900);
  await says(page).getByText("Splice", { exact: true }).click();
  await page.getByLabel("Name on the drawing").fill("s1");
  await add(page).click();
  await expect.poll(() => wiresOf(request, id)).toEqual(["B1:1 S1 "]);
  const { pages } = await chartOf(request, id);
  expect(pages.traces.map((t) => [t.from, t.to])).toEqual([["B1:1", "S1"]]);
});

test("a fuse is put down by one tap, and a wire of a picture is followed along its ink", async ({ page, request }) => {
  const id = await openPages(page, request);
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1100"><rect width="1600" height="1100"
    fill="#eee"/><path d="M300 200H900V800H1300" stroke="#223" stroke-width="6" fill="none"/></svg>`;
  const buffer = await sharp(Buffer.from(drawn)).png().toBuffer();
  await file(page).setInputFiles({ name: "bent.png", mimeType: "image/png", buffer });
  await page.getByRole("button", { name: "Add it as it is" }).click();
  await expect(says(page)).toContainText("This page is a picture");
  const wheel = page.getByRole("group", { name: "What is here?" });
  await tap(page, 300, 200);
  await wheel.getByRole("button", { name: "Fuse" }).click();
  await page.getByLabel("Name on the drawing").fill("f9");
  await page.getByLabel("Rating, A").fill("15");
  await add(page).click();
  const ends = async () => (await chartOf(request, id)).pages.marks.filter((m) => m.width === undefined);
  await expect.poll(async () => (await ends()).map((m) => m.at)).toEqual(["F9:in", "F9:out"]);
  const [, out] = await ends();
  await tap(page, out!.x, out!.y);
  await page.getByRole("button", { name: "Wire from here" }).click();
  await tap(page, 1300, 800);
  await wheel.getByRole("button", { name: "Splice" }).click();
  await page.getByLabel("Name on the drawing").fill("s1");
  await add(page).click();
  await expect.poll(() => wiresOf(request, id)).toEqual(["F9:out S1 "]);
  const [trace] = (await chartOf(request, id)).pages.traces;
  for (const corner of [
    [900, 200],
    [900, 800],
  ])
    expect(Math.min(...trace!.points.map(([x, y]) => Math.hypot(x - corner[0]!, y - corner[1]!)))).toBeLessThan(12);
  expect(trace!.points.length).toBeLessThan(10);
});

test("a photo is straightened by its corners, its words are read on this device and offered", async ({
  page,
  request,
}) => {
  test.slow();
  const id = await openPages(page, request);
  await file(page).setInputFiles(PHOTO);
  const corner = page.getByRole("slider", { name: "Upper left corner" });
  await expect(corner).toBeVisible();
  await still(page);
  expect(await axeFindings(page)).toEqual([]);
  // the sheet lies turned by 4 degrees: its corners are those of the picture that the script drew
  const photo = await sharp(PHOTO).metadata();
  const ends = [
    ["Upper left corner", 0.12, 0.06],
    ["Upper right corner", 0.94, 0.06 + 0.82 * Math.tan((4 * Math.PI) / 180) * (photo.width / photo.height)],
  ] as const;
  for (const [name, x, y] of ends) {
    const box = (await page.getByRole("dialog").locator("canvas").boundingBox())!;
    const at = (await page.getByRole("slider", { name }).boundingBox())!;
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + x * box.width, box.y + y * box.height, { steps: 4 });
    await page.mouse.up();
  }
  await page.getByRole("button", { name: "Straighten and add" }).click();
  await expect(says(page)).toContainText("This page is a picture");
  await page.getByRole("button", { name: "Read the words of this picture" }).click();
  await expect(says(page)).toContainText(/Words read: \d+/, { timeout: 120_000 });
  const { pages } = await chartOf(request, id);
  const kept = await request.get(`${app.address}/api/pages/${pages.sheets[0]!.id}`);
  const { content } = (await kept.json()) as { content: { words: { text: string }[] } };
  const words = content.words.map((w) => w.text).join(" ");
  for (const name of ["B1", "B4", "B6"]) expect(words).toContain(name);
});

test("what is no page is refused with its reason, and nothing is kept", async ({ page, request }) => {
  const id = await openPages(page, request);
  const pdf = (how: PDFKit.PDFDocumentOptions) =>
    new Promise<Buffer>((done) => {
      const made = new PDFDocument(how);
      const parts: Buffer[] = [];
      made.on("data", (part: Buffer) => parts.push(part));
      made.on("end", () => done(Buffer.concat(parts)));
      made.text("S14");
      made.end();
    });
  const give = (name: string, mimeType: string, buffer: Buffer) => file(page).setInputFiles({ name, mimeType, buffer });
  const refused = (words: string) => expect(page.getByRole("alert").filter({ hasText: words })).toBeVisible();
  await give("locked.pdf", "application/pdf", await pdf({ userPassword: "x" }));
  await refused("locked with a password");
  await give("half.pdf", "application/pdf", readFileSync(DEMO).subarray(0, 900));
  await refused("cannot be read");
  await give("none.pdf", "application/pdf", Buffer.from("hello"));
  await refused("cannot be read");
  await give("half.jpg", "image/jpeg", readFileSync(PHOTO).subarray(0, 40_000));
  await refused("no picture that can be read");
  // 81 million black points in some kilobytes
  const bomb = await sharp({ create: { width: 9000, height: 9000, channels: 3, background: "#000" } })
    .png()
    .toBuffer();
  await give("bomb.png", "image/png", bomb);
  await refused("81 million points");
  expect((await chartOf(request, id)).pages.sheets).toEqual([]);
  const form = await request.post(`${app.address}/api/wirings/${id}/pages`, { multipart: { a: "b" } });
  expect(form.status()).toBe(415);
  const none = await request.get(`${app.address}/api/pages/${id}/9/0_0`);
  expect(none.status()).toBe(404);
  const wrong = await request.put(`${app.address}/api/pages/${id}`, { headers: JSON_TYPE, data: { width: -1 } });
  expect(wrong.status()).toBe(422);
});

test("a PDF that carries a script runs nothing; the same page twice is said and kept once", async ({
  page,
  request,
}) => {
  const id = await openPages(page, request);
  const script = [
    "%PDF-1.7",
    "1 0 obj <</Type/Catalog/Pages 2 0 R/OpenAction<</S/JavaScript/JS(app.alert\\(1\\); this.print\\(\\);)>>>> endobj",
    "2 0 obj <</Type/Pages/Kids[3 0 R]/Count 1>> endobj",
    "3 0 obj <</Type/Page/Parent 2 0 R/MediaBox[0 0 400 300]>> endobj",
    "trailer <</Root 1 0 R>>",
  ].join("\n");
  let asked = 0;
  page.on("dialog", (d) => {
    asked++;
    void d.dismiss();
  });
  await file(page).setInputFiles({ name: "script.pdf", mimeType: "application/pdf", buffer: Buffer.from(script) });
  await expect(page.getByRole("tab", { name: "script" })).toBeVisible();
  await file(page).setInputFiles({ name: "script.pdf", mimeType: "application/pdf", buffer: Buffer.from(script) });
  await expect(page.getByRole("status").filter({ hasText: "already has: script" })).toBeVisible();
  expect((await chartOf(request, id)).pages.sheets).toHaveLength(1);
  expect(asked).toBe(0);
});

test("a photo as tablets save it is opened like any other, and the camera is offered to fingers", async ({
  page,
  request,
}) => {
  const id = await openPages(page, request);
  // made of the demo photo by an encoder of Debian's libheif
  await file(page).setInputFiles("web/e2e/data/page-1.heic");
  await page.getByRole("button", { name: "Add it as it is" }).click({ timeout: 60_000 });
  await expect(says(page)).toContainText("This page is a picture", { timeout: 30_000 });
  await expect
    .poll(async () => (await chartOf(request, id)).pages.sheets.map((s) => [s.width, s.height]))
    .toEqual([[1200, 867]]);
  const half = readFileSync("web/e2e/data/page-1.heic").subarray(0, 9000);
  await file(page).setInputFiles({ name: "half.heic", mimeType: "image/heic", buffer: half });
  await expect(page.getByRole("alert").filter({ hasText: "no picture that can be read" })).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.getByRole("button", { name: "Take a photo" })).toHaveCount(0);
});

test.describe("with fingers", () => {
  test.use({ hasTouch: true, isMobile: true, viewport: { width: 1024, height: 768 } });

  test("a finger that rests aims with a loupe; a wheel round the place says what it is", async ({ page, request }) => {
    const id = await openPages(page, request);
    await expect(page.getByRole("button", { name: "Take a photo" })).toBeVisible();
    await file(page).setInputFiles(PHOTO);
    await page.getByRole("button", { name: "Add it as it is" }).click();
    await expect(says(page)).toContainText("This page is a picture");
    const loupe = page.locator("canvas[class*=loupe]");
    const touch = await page.context().newCDPSession(page);
    const finger = (type: "touchStart" | "touchMove" | "touchEnd", x = 0, y = 0) =>
      touch.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x, y }] });
    const [x, y] = await onScreen(page, 1300, 900);
    const scale = (await onScreen(page, 1400, 900))[0] / 100 - x / 100;
    await expect(loupe).toBeHidden();
    await finger("touchStart", x, y);
    await expect(loupe).toBeVisible();
    await finger("touchMove", x + 30, y + 10);
    await finger("touchEnd");
    await expect(loupe).toBeHidden();
    const wheel = page.getByRole("group", { name: "What is here?" });
    await wheel.getByRole("button", { name: "Splice" }).click();
    await expect(wheel).toHaveCount(0);
    await expect(says(page).getByRole("heading")).toHaveText("Splice");
    await page.getByLabel("Name on the drawing").fill("s7");
    await add(page).click();
    await expect.poll(async () => (await chartOf(request, id)).pages.marks.map((m) => m.at)).toEqual(["S7"]);
    // aimed where the finger was lifted, not where it was put down; ink nearby draws it a little
    const [mark] = (await chartOf(request, id)).pages.marks;
    expect(Math.hypot((mark!.x - 1300) * scale - 30, (mark!.y - 900) * scale - 10)).toBeLessThan(9);
  });
});

test("a table of pins on a page becomes lines of the chart through the preview of pasting", async ({
  page,
  request,
}) => {
  const id = await openPages(page, request);
  const rows = [
    ["Connector", "Cavity", "Colour", "Function", "Goes to"],
    ["B7", "1", "OG/WH", "5 V reference", "S14"],
    ["B7", "2", "BN", "sensor ground", "S22"],
    ["B7", "3", "GN/WH", "signal", "A1:8"],
  ];
  const buffer = await new Promise<Buffer>((done) => {
    const made = new PDFDocument({ size: [600, 400] });
    const parts: Buffer[] = [];
    made.on("data", (part: Buffer) => parts.push(part));
    made.on("end", () => done(Buffer.concat(parts)));
    made.fontSize(10);
    rows.forEach((r, i) => r.forEach((cell, c) => made.text(cell, 40 + 100 * c, 100 + 20 * i, { lineBreak: false })));
    made.end();
  });
  await file(page).setInputFiles({ name: "pins.pdf", mimeType: "application/pdf", buffer });
  await expect(page.getByRole("tab", { name: "pins" })).toBeVisible();
  await drawBox(page, [30, 90], [560, 180]);
  await page.getByRole("button", { name: "Read it as a table of 4 lines" }).click();
  const preview = page.getByRole("dialog");
  await expect(preview.getByLabel("Table")).toHaveValue(rows.map((r) => r.join("\t")).join("\n"));
  await expect(preview.locator('input[maxlength="60"]')).toHaveValue("pins");
  await preview.getByRole("button", { name: "Take it" }).click();
  await expect.poll(() => wiresOf(request, id)).toEqual(["B7:1 S14 OG/WH", "B7:2 S22 BN", "B7:3 A1:8 GN/WH"]);
});

test("a new edition takes the place of a page; what is not found again is listed", async ({ page, request }) => {
  const id = await openDemo(page, request);
  const before = await chartOf(request, id);
  const [first] = before.pages.sheets;
  // the same drawing in another book: a photo of it
  await file(page).setInputFiles(PHOTO);
  await page.getByRole("button", { name: "Add it as it is" }).click();
  await expect(says(page)).toContainText("This page is a picture");
  await page.getByRole("combobox", { name: "It is the new edition of…" }).click();
  await page.getByTitle(first!.name).click();
  const said = page.getByRole("status").filter({ hasText: "carried over" });
  await expect(said).toContainText(/\d+ places carried over\. Look at these: .*B1:1/);
  await expect(page.getByRole("tab")).toHaveCount(2);
  const onOld = async () => (await chartOf(request, id)).pages.marks.filter((m) => m.sheet === first!.id);
  await expect.poll(onOld).toEqual([]);
  const after = await chartOf(request, id);
  expect(after.pages.marks.length).toBe(before.pages.marks.length);
  expect(after.pages.sheets.map((s) => s.name)).toEqual(before.pages.sheets.map((s) => s.name));
  expect(after.rows.map((r) => r.goesTo)).toEqual(before.rows.map((r) => r.goesTo));
});

test("pages travel in the zip of a job, and a page is printed with what stands on it", async ({ page, request }) => {
  const id = await openDemo(page, request);
  const { sheets } = (await chartOf(request, id)).pages;
  const job = await request.post(`${app.address}/api/jobs`, {
    headers: JSON_TYPE,
    data: { title: "Travels", wiring: id },
  });
  const { id: jobId } = (await job.json()) as { id: string };
  const zip = await (await request.get(`${app.address}/api/jobs/${jobId}/export?as=zip`)).body();
  for (const s of sheets) {
    expect(zip.includes(`pages/${s.id}.jpg`)).toBe(true);
    expect(zip.includes(`pages/${s.id}.json`)).toBe(true);
  }
  // as on another server: no page has these ids yet
  const text = await (await request.get(`${app.address}/api/jobs/${jobId}/export`)).text();
  const kept = (await (await request.get(`${app.address}/api/pages/${sheets[0]!.id}`)).json()) as {
    width: number;
    height: number;
    content: unknown;
  };
  const fresh = crypto.randomUUID();
  const made = new ZipFile();
  made.addBuffer(Buffer.from(text.replaceAll(sheets[0]!.id, fresh).replace("Stacker 2", "Stacker 2b")), "case.json");
  const picture = await sharp({ create: { width: 700, height: 600, channels: 3, background: "#eee" } })
    .jpeg()
    .toBuffer();
  made.addBuffer(picture, `pages/${fresh}.jpg`);
  made.addBuffer(Buffer.from(JSON.stringify(kept.content)), `pages/${fresh}.json`);
  // no page of the wiring: not even looked at; and a page of it that is no picture
  made.addBuffer(Buffer.from("no picture"), `pages/${crypto.randomUUID()}.jpg`);
  made.addBuffer(Buffer.from("no picture"), `pages/${sheets[1]!.id}.jpg`);
  made.end();
  const parts: Buffer[] = [];
  for await (const part of made.outputStream as unknown as AsyncIterable<Buffer>) parts.push(part);
  const taken = await request.post(`${app.address}/api/jobs`, {
    headers: { ...JSON_TYPE, "Content-Type": "application/zip" },
    data: Buffer.concat(parts),
  });
  expect(taken.status()).toBe(201);
  const answer = (await taken.json()) as { id: string; issues: { code: string }[] };
  expect(answer.issues.map((i) => i.code)).toEqual(["page.no-picture"]);
  const there = (await (await request.get(`${app.address}/api/pages/${fresh}`)).json()) as typeof kept;
  expect([there.width, there.height]).toEqual([700, 600]);
  expect(there.content).toEqual(kept.content);
  expect((await request.get(`${app.address}/api/pages/${fresh}/10/1_1`)).status()).toBe(200);

  await page.goto(`${app.address}/job/${answer.id}?view=page`);
  await page.evaluate(() => {
    window.print = () => {
      document.body.dataset["printed"] = document.querySelector<HTMLImageElement>("body > .printed-page")?.src ?? "";
    };
  });
  await answers(page.getByRole("button", { name: "Print" }));
  await page.getByRole("button", { name: "Print" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-printed", /^blob:/);
  await expect(page.locator("body > .printed-page")).toHaveCount(0);
});
