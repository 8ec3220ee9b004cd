import { expect, test, type Page } from "@playwright/test";
import { answers, box, card, verdict } from "./casePage";
import { Hands } from "./hands";
import { applicationForTests } from "./server";

/**
 * Ten tasks of the README, done as somebody new does them: only what stands on the screen is pressed. Each is counted
 * in presses and keys, and timed by the keystroke-level model and by how long the program kept them waiting.
 */
const app = applicationForTests();
test.describe.configure({ mode: "serial" });

const rows: string[] = [];
test.afterAll(() => {
  console.log(
    ["| task | presses | keys | hands, s | waiting, s |", "| --- | --- | --- | --- | --- |", ...rows].join("\n"),
  );
});

function task(name: string, work: (hands: Hands, page: Page) => Promise<void>) {
  test(name, async ({ page }) => {
    await page.goto(app.address);
    await answers(page.getByRole("button", { name: "New job" }));
    const hands = new Hands(page);
    const began = Date.now();
    await work(hands, page);
    const waited = (Date.now() - began) / 1000;
    rows.push(`| ${name} | ${hands.points} | ${hands.keys} | ${hands.seconds.toFixed(0)} | ${waited.toFixed(0)} |`);
  });
}

const FAULT = "Four codes after rain";
const demo = (page: Page) => page.getByRole("link", { name: FAULT }).filter({ hasText: "simulated machine" });
const dialog = (page: Page) => page.getByRole("dialog");
const proof = (page: Page) => page.getByRole("region", { name: "Proof" });

task("find the cause on the simulated machine and log it", async (hands, page) => {
  await hands.point(demo(page));
  for (let reading = 0; reading < 9; reading++) {
    await hands.sees(card(page).or(verdict(page)));
    if (await verdict(page).isVisible()) break;
    const said = await card(page).getByRole("heading").first().textContent();
    const caution = card(page).getByRole("button", { name: "Read and understood" });
    if (await caution.isVisible()) await hands.point(caution);
    await hands.point(card(page).getByRole("button", { name: /^(Put the leads on|Read it|Do it)/ }));
    await expect(card(page).getByLabel("Simulated meter shows")).not.toContainText("– – –");
    await hands.press("Enter");
    const moved = verdict(page).or(card(page).getByRole("heading").filter({ hasNotText: said! }));
    await expect(moved.first()).toBeVisible();
  }
  await hands.point(verdict(page).getByRole("button", { name: "Log this as the cause" }));
  await hands.sees(verdict(page).getByText("Verdict logged"));
});

task("repair it, prove it, close the job, see what was hidden", async (hands, page) => {
  await hands.point(demo(page));
  await hands.point(verdict(page).getByRole("button", { name: "Log the repair" }));
  await hands.point(dialog(page).getByRole("button", { name: "Log the repair" }));
  const next = proof(page).locator("[aria-current=step]").getByRole("button").first();
  for (let step = 0; step < 12; step++) {
    await hands.sees(proof(page));
    if ((await next.count()) === 0) break;
    const before = await proof(page)
      .getByText(/steps? done|All steps/)
      .textContent();
    await hands.point(next);
    const scan = dialog(page).getByRole("button", { name: /^Scan the simulated|^Log the scan/ });
    const back = dialog(page).getByRole("button", { name: "Plugged back in and locked" });
    const put = card(page).getByRole("button", { name: /^(Put the leads on|Read it|Do it)/ });
    const moved = proof(page)
      .getByText(/steps? done|All steps/)
      .filter({ hasNotText: before! });
    await hands.sees(moved.or(scan).or(back).or(put));
    if (await put.isVisible()) {
      await hands.point(put);
      await expect(card(page).getByLabel("Simulated meter shows")).not.toContainText("– – –");
      await hands.press("Enter");
    }
    while (await back.first().isVisible()) await hands.point(back.first());
    if (await dialog(page).isVisible()) {
      if (await scan.first().isVisible()) await hands.point(scan.first());
      else await hands.press("Escape");
    }
    await expect(moved).toBeVisible();
  }
  await hands.point(proof(page).getByRole("button", { name: "Close the job" }));
  await hands.point(dialog(page).getByRole("button", { name: "Close the job" }));
  await hands.sees(page.getByText(/hidden/i));
});

task("the report as PDF", async (hands, page) => {
  await hands.point(demo(page));
  await hands.point(page.getByRole("link", { name: "Report" }));
  const file = page.waitForEvent("download");
  await hands.point(page.getByRole("link", { name: "PDF" }));
  expect((await file).suggestedFilename()).toMatch(/\.pdf$/);
});

task("a job from nothing: three sensors typed, scanned, first suspects", async (hands, page) => {
  await hands.point("New job");
  await hands.type("Tug 9");
  await hands.press("Tab");
  await hands.type("Three gauges dead since the wash");
  await hands.press("Control+Enter");
  await page.waitForURL(/\/wiring\//);
  await hands.sees(page.locator(".dsg-active-cell"));
  const sensor = (n: number, colour: string) => [
    [`b${n}.1`, "og", "5v", "s1"],
    ["2", "bn", "gnd", "s2"],
    ["3", colour, "sig", `a1.${n + 2}`],
  ];
  const rest = [
    ["s1", "og", "5v", "a1.1"],
    ["s2", "bn", "gnd", "a1.2"],
    ["a1.9", "rd", "feed", "f1"],
    ["f1.in", "rd", "feed", "bat"],
    ["a1.10", "bk", "ground", "g1"],
  ];
  for (const [i, line] of [...sensor(1, "wh"), ...sensor(2, "ye"), ...sensor(3, "gn"), ...rest].entries()) {
    if (i > 0) await hands.press("Enter");
    for (const [j, text] of line.entries()) {
      if (j > 0) await hands.press("Tab");
      await hands.type(text);
    }
  }
  await hands.press("Control+Enter");
  await expect(page.getByLabel("Codes, typed or pasted")).toBeFocused();
  for (let i = 1; i <= 3; i++) {
    if (i > 1) await hands.press("Enter");
    await hands.type(`p11${i}1 b${i} low`);
  }
  await hands.press("Control+Enter");
  await expect(page.getByRole("region", { name: "Suspects" })).toContainText("3/3");
});

task("a pin chart from a file, opened as a wiring and drawn", async (hands, page) => {
  await hands.point(page.getByRole("link", { name: "Wirings" }));
  const input = page.getByTestId("wiring-file");
  await answers(page.getByRole("button", { name: "Open a file" }));
  const chart =
    "connector,cavity,colour,function,goes to\nB1,1,OG,5 V,A1:1\nB1,2,BN,sensor ground,A1:2\nB1,3,WH,signal,A1:3\n";
  await hands.file(input, "boom.csv", chart);
  await page.waitForURL(/\/wiring\//);
  await hands.point(page.getByText("Drawing", { exact: true }));
  await hands.sees(page.locator("svg").getByText("B1", { exact: true }));
});

task("what the customer says: one thing ticked", async (hands, page) => {
  await hands.point(page.getByRole("link", { name: /Three signals low since the wash-down/ }));
  await hands.sees(card(page));
  await hands.press("Escape");
  await hands.press("i");
  await hands.sees(dialog(page));
  await hands.point(dialog(page).getByText("Wet", { exact: false }).first());
  await hands.point(dialog(page).getByRole("button", { name: "Log the intake" }));
  await expect(dialog(page)).toBeHidden();
});

task("a guided test begun and paused", async (hands, page) => {
  await hands.point(page.getByRole("link", { name: /Four boom signals low/ }));
  await hands.point(page.getByRole("button", { name: /^\d+ guided tests? recommended|^Guided tests/ }));
  await hands.point(dialog(page).getByRole("list", { name: "Worth their time now" }).getByRole("button").first());
  const panel = page.getByRole("region", { name: "Guided test" });
  await hands.sees(panel);
  await hands.point(panel.getByRole("button", { name: "Pause" }));
  await hands.sees(panel.getByRole("button", { name: "Go on" }));
});

task("a wrong value logged and taken back", async (hands, page) => {
  await hands.point(page.getByRole("link", { name: /Spreader valve weak/ }));
  await hands.sees(card(page));
  await hands.point(box(page));
  await hands.type("51");
  await hands.press("Enter");
  const undo = page.getByRole("button", { name: /^Undo entry/ });
  await hands.point(undo);
  await hands.sees(page.getByRole("region", { name: "Logbook" }).getByText(/taken back|Taken back/i));
});

task("everything in German, temperatures in °F", async (hands, page) => {
  await hands.point(page.getByText("EN · °C"));
  await hands.point(page.getByText("°F", { exact: true }));
  await hands.point(page.getByText("Deutsch", { exact: true }));
  await hands.sees(page.getByRole("heading", { name: "Aufträge" }));
});

task("a job found by its code, archived, brought back", async (hands, page) => {
  await hands.point(page.getByRole("searchbox").or(page.getByPlaceholder(/Find/)).first());
  await hands.type("P0522");
  await hands.press("Enter");
  const first = page.getByRole("listitem").first();
  await hands.sees(first);
  const more = first.getByRole("button", { name: /^More for/ });
  await answers(more);
  await hands.point(more);
  await hands.point(page.getByText("Archive", { exact: true }));
  await hands.point("Undo");
  await hands.sees(page.getByRole("listitem"));
});
