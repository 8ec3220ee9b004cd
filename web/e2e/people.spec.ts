import { expect, test, type Browser, type BrowserContext, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { request as plainRequest } from "node:http";
import { box, openCopy, saved } from "./casePage";
import { Application, applicationForTests, byHand, JSON_TYPE, testDatabase } from "./server";

const app = applicationForTests({ RADICULA_SIGN_IN: "on" });
const PASSWORD = "copper kettle under rain";
/** As a page of ours sends it. */
const fromPage = () => ({ ...JSON_TYPE, Origin: app.address });
test.describe.configure({ mode: "serial" });

/** npm run people, as somebody at the server types it. @returns what it prints */
const people = (...args: string[]): string =>
  execFileSync(process.execPath, ["scripts/data/cli.mjs", "people", ...args], {
    stdio: "pipe",
    env: { ...process.env, DATABASE_URL: testDatabase().href },
    encoding: "utf8",
  });
const codeIn = (text: string): string => /code=([0-9A-Z-]+)/.exec(text)![1]!;

/** A browser of its own in which an invited person has chosen a password. */
async function newcomer(
  browser: Browser,
  code: string,
  baseURL = app.address,
): Promise<{ context: BrowserContext; page: Page }> {
  const context = await browser.newContext({ baseURL });
  const page = await context.newPage();
  await accept(page, code);
  return { context, page };
}
async function accept(page: Page, code: string): Promise<void> {
  await page.goto(`/invitation?code=${code}`);
  await page.getByLabel("New password").fill(PASSWORD);
  await page.getByRole("button", { name: "Set the password and sign in" }).click();
  await page.waitForURL(/\/account/);
}
async function signIn(page: Page, name: string, password = PASSWORD): Promise<void> {
  await page.getByLabel("Sign-in name").fill(name);
  await page.getByLabel("Password", { exact: true }).fill(password);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
}
/** Logs whatever the card asks for. */
async function log(page: Page): Promise<void> {
  await box(page).fill("5.0");
  await box(page).press("Enter");
}
/** A request with a Host of its own, which no browser would send. */
const posted = (port: number, path: string, headers: Record<string, string>, body: string) =>
  new Promise<{ status: number; cookies: readonly string[] }>((resolve, reject) => {
    const sent = plainRequest({ host: "127.0.0.1", port, path, method: "POST", headers }, (answer) => {
      answer.resume();
      resolve({ status: answer.statusCode ?? 0, cookies: answer.headers["set-cookie"] ?? [] });
    });
    sent.on("error", reject);
    sent.end(body);
  });
const setPin = async (page: Page, pin: string) => {
  await page.getByLabel("New PIN").fill(pin);
  await page.getByRole("button", { name: "Set the PIN" }).click();
  await expect(page.getByText("PIN set")).toBeVisible();
};

test("nobody comes in unasked: every page and every route", async ({ page, request }) => {
  const files = readdirSync("web/src/app", { recursive: true, encoding: "utf8" });
  const paths = files
    .filter((f) => /(?:^|\/)(?:route\.ts|page\.tsx)$/.test(f))
    .map((f) => `/${f.replace(/\/?(?:route\.ts|page\.tsx)$/, "")}`)
    .map((f) => f.replace(/\[[^\]]*\]/g, "5b0f2f9e-2c1f-4d57-8a8e-0c1c4b0e7a11"));
  const isOpen = (p: string) => /^\/(?:sign-in|invitation|shared\/.*|api\/health(?:\/live)?|api\/auth\/.*)$/.test(p);
  expect(paths.length).toBeGreaterThan(20);
  // a report is shown to who has its signed address, and to nobody who guesses one
  const guessed = await request.get(`${app.address}/shared/5b0f2f9e-2c1f-4d57-8a8e-0c1c4b0e7a11`);
  expect([guessed.status(), await guessed.text()]).toEqual([404, "Not found"]);
  for (const path of paths.filter((p) => !isOpen(p))) {
    const answer = await request.get(`${app.address}${path}`, { maxRedirects: 0 });
    if (path.startsWith("/api/")) {
      expect([path, answer.status()]).toEqual([path, 401]);
      const sent = await request.post(`${app.address}${path}`, { headers: fromPage(), data: "{}" });
      expect([path, sent.status()]).toEqual([path, 401]);
    } else {
      expect([path, answer.status()]).toEqual([path, 303]);
      expect(answer.headers()["location"]).toBe(`/sign-in?to=${encodeURIComponent(path)}`);
    }
  }
  // what a browser fetches without a session, to put the page on a home screen
  expect(await (await request.get(`${app.address}/manifest.webmanifest`)).json()).toMatchObject({ name: "Radicula" });
  // nobody writes the door's own headers
  const forged = { "radicula-person": encodeURIComponent('{"id":"1","name":"Me","role":"administrator"}') };
  expect((await request.get(`${app.address}/api/people`, { headers: forged })).status()).toBe(401);
  await page.goto(`${app.address}/wirings`);
  await expect(page.getByText("Nobody can sign in yet")).toBeVisible();
});

test("the first administrator comes by the command line, chooses a password, and adds others", async ({ browser }) => {
  const { page, context } = await newcomer(browser, codeIn(people("add", "Ada Admin", "ada", "administrator")));
  await page.goto("/people");
  await page.getByRole("button", { name: "Add a person" }).click();
  await page.getByLabel("Full name").fill("Tom Tech");
  await page.getByLabel("Sign-in name").fill("Tom");
  await page.getByRole("button", { name: "Add and invite" }).click();
  const link = page.getByText(/\/invitation\?code=/);
  await expect(link).toBeVisible();
  const code = codeIn(await link.innerText());
  await expect(page.getByRole("row", { name: /Tom Tech tom/ })).toContainText("invited");
  // who has a password is offered a new one, not an invitation
  await expect(
    page.getByRole("row", { name: /Ada Admin ada/ }).getByRole("button", { name: "New password" }),
  ).toBeVisible();
  await expect(page.getByRole("row", { name: /added Tom Tech/ })).toContainText("Ada Admin");

  const tom = await newcomer(browser, code);
  // once only
  await tom.page.goto(`/invitation?code=${code}`);
  await expect(tom.page.getByRole("heading", { name: "This invitation has ended" })).toBeVisible();
  // a technician does not look after people
  expect((await tom.page.goto("/people"))!.status()).toBe(403);
  expect((await tom.context.request.get("/api/people")).status()).toBe(403);
  await tom.context.close();
  await context.close();
});

test("a name in any writing is kept, and the page of people grows no wider", async ({ browser }) => {
  const { page, context } = await newcomer(browser, codeIn(people("add", "Nell Names", "nell", "administrator")));
  const names = ["x".repeat(60), "חיישן לחץ נופל אחרי הגשם", "🔧👩‍🔧".repeat(7), "<b onclick=alert(1)>&amp;</b>"];
  for (const [i, name] of names.entries()) {
    const added = await context.request.post("/api/people", {
      headers: fromPage(),
      data: { name, username: `name-${i}`, role: "reader" },
    });
    expect([name, added.status()]).toEqual([name, 201]);
  }
  await page.goto("/people");
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 844 });
    for (const name of names) await expect(page.getByRole("cell", { name }).first()).toBeVisible();
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth))
      .toBeLessThanOrEqual(0);
  }
  await context.close();
});

test("passwords that are guessed at once are refused, and so is what was not invited", async ({ request }) => {
  const code = codeIn(people("add", "Rita Reader", "rita", "reader"));
  const send = (body: object) =>
    request.post(`${app.address}/api/auth/invitation/accept`, { headers: fromPage(), data: JSON.stringify(body) });
  for (const [password, why] of [
    ["short", "sign-in.password-short"],
    ["passwordpassword", "sign-in.password-easy"],
    ["ritareader123", "sign-in.password-easy"],
    ["x".repeat(129), "sign-in.password-long"],
  ]) {
    const answer = await send({ code, password });
    expect([password, answer.status()]).toEqual([password, 400]);
    expect(await answer.json()).toMatchObject({ code: why });
  }
  expect((await send({ code: "2222-3333-4444-5555-6666-7777", password: PASSWORD })).status()).toBe(401);
  expect((await send({ code: 7, password: PASSWORD })).status()).toBe(400);
  // ways of the library that are not ours
  for (const way of ["sign-up/email", "sign-in/email", "update-user", "delete-user", "request-password-reset"])
    expect((await request.post(`${app.address}/api/auth/${way}`, { headers: fromPage(), data: "{}" })).status()).toBe(
      404,
    );
});

test("a reader sees everything and writes nothing; a lead adds those below and no others", async ({ browser }) => {
  const rita = await newcomer(browser, codeIn(people("invite", "rita")));
  await rita.page.goto("/");
  await expect(rita.page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  const written = await rita.context.request.post("/api/jobs", {
    headers: fromPage(),
    data: readFileSync("demo/tug-4-reference.case.json", "utf8"),
  });
  expect(written.status()).toBe(403);
  expect(await written.json()).toMatchObject({ issues: [{ code: "sign-in.may-only-read" }] });

  const lead = await newcomer(browser, codeIn(people("add", "Lea Lead", "lea", "lead")));
  const add = (name: string, role: string) =>
    lead.context.request.post("/api/people", {
      headers: fromPage(),
      data: JSON.stringify({ name: `New ${name}`, username: name, role }),
    });
  expect((await add("one", "administrator")).status()).toBe(403);
  expect((await add("two", "lead")).status()).toBe(403);
  expect((await add("three", "technician")).status()).toBe(201);
  expect((await add("three", "technician")).status()).toBe(409);
  const { people: all } = (await (await lead.context.request.get("/api/people")).json()) as {
    people: { id: string; username: string }[];
  };
  const idOf = (name: string) => all.find((p) => p.username === name)!.id;
  const put = (id: string, body: object) =>
    lead.context.request.put(`/api/people/${id}`, { headers: fromPage(), data: JSON.stringify(body) });
  expect((await put(idOf("ada"), { isDisabled: true })).status()).toBe(403);
  expect((await put(idOf("three"), { role: "administrator" })).status()).toBe(403);
  // shut out means signed out
  expect((await put(idOf("rita"), { isDisabled: true })).status()).toBe(200);
  expect((await rita.context.request.get("/api/wirings")).status()).toBe(401);
  await rita.context.close();
  await lead.context.close();
});

test("at a shared tablet the person changes by PIN, and what was typed stays", async ({ browser }) => {
  const { page, context } = await newcomer(browser, codeIn(people("invite", "tom")));
  await setPin(page, "4071");
  // the second person of this tablet
  await page.getByRole("button", { name: "Tom Tech" }).click();
  await page.getByRole("button", { name: "Sign out" }).click();
  await page.waitForURL(/sign-in/);
  await accept(page, codeIn(people("invite", "lea")));
  await setPin(page, "8092");

  await page.goto("/");
  await page
    .getByRole("link", { name: /Three signals low/ })
    .first()
    .click();
  await log(page);
  await saved(page);
  await box(page).fill("4.2");
  await page.getByRole("button", { name: "Lea Lead" }).click();
  await page.getByRole("button", { name: "Tom Tech" }).click();
  for (const digit of "4071") await page.getByRole("dialog").getByRole("button", { name: digit, exact: true }).click();
  await page.getByRole("button", { name: "OK", exact: true }).click();
  await expect(page.getByRole("banner").getByRole("button", { name: "Tom Tech" })).toBeVisible();
  await expect(page.getByRole("dialog")).toBeHidden();
  await expect(box(page)).toHaveValue("4.2");
  await log(page);
  const job = /job\/([0-9a-f-]+)/.exec(page.url())![1]!;
  const authors = async () => {
    const { entries } = (await (await context.request.get(`/api/jobs/${job}/entries`)).json()) as {
      entries: { by?: string }[];
    };
    return entries.flatMap((e, i) => (e.by && e.by !== entries[i - 1]?.by ? [e.by] : []));
  };
  // the demo's own people come before them
  await expect.poll(async () => (await authors()).slice(-2)).toEqual(["Lea Lead", "Tom Tech"]);

  // in another's name nobody writes
  const count = ((await (await context.request.get(`/api/jobs/${job}/entries`)).json()) as { entries: unknown[] })
    .entries.length;
  const forged = await context.request.post(`/api/jobs/${job}/entries`, {
    headers: fromPage(),
    data: JSON.stringify({
      after: count,
      batch: crypto.randomUUID(),
      entries: [{ type: "undo", at: "2026-11-24T10:00:00Z", target: count, by: "Lea Lead" }],
    }),
  });
  expect(forged.status()).toBe(403);
  // after a PIN nobody changes what they sign in with
  const pin = await context.request.post("/api/auth/pin/set", { headers: fromPage(), data: '{"pin":"5503"}' });
  expect([pin.status(), await pin.json()]).toMatchObject([403, { code: "sign-in.needs-password" }]);
  // five wrong PINs, then not even the right one
  const lea = { id: await idOnDevice(context, "Lea Lead"), pin: "1111" };
  const tryPin = async (data: object) =>
    (await context.request.post("/api/auth/pin/switch", { headers: fromPage(), data: JSON.stringify(data) })).status();
  for (let i = 0; i < 5; i++) expect(await tryPin(lea)).toBe(401);
  expect(await tryPin({ ...lea, pin: "8092" })).toBe(429);
  await context.close();
  // and on another device a PIN is of no use at all
  const other = await browser.newContext({ baseURL: app.address });
  const strange = await other.request.post("/api/auth/pin/switch", {
    headers: fromPage(),
    data: JSON.stringify({ ...lea, pin: "8092" }),
  });
  expect(strange.status()).toBe(401);
  await other.close();
});
async function idOnDevice(context: BrowserContext, name: string): Promise<string> {
  const { people: known } = (await (await context.request.get("/api/auth/device/people")).json()) as {
    people: { id: string; name: string }[];
  };
  return known.find((p) => p.name === name)!.id;
}

test("after a PIN an administrator manages nobody, and gives themselves no new password either", async ({
  browser,
}) => {
  const { page, context } = await newcomer(browser, codeIn(people("add", "Petra Pin", "petra", "administrator")));
  await setPin(page, "6139");
  const id = await idOnDevice(context, "Petra Pin");
  const post = (path: string, data: object) =>
    context.request.post(path, { headers: fromPage(), data: JSON.stringify(data) });
  expect((await post(`/api/people/${id}/invitation`, {})).status()).toBe(201);
  expect((await post("/api/auth/pin/switch", { id, pin: "6139" })).status()).toBe(200);
  const refused = await post(`/api/people/${id}/invitation`, {});
  expect([refused.status(), await refused.json()]).toMatchObject([
    403,
    { issues: [{ code: "sign-in.needs-password" }] },
  ]);
  await context.close();
});

test("a lost password is helped by a recovery code, once; guessing is stopped", async ({ browser, page, request }) => {
  const ada = await newcomer(browser, codeIn(people("invite", "ada")));
  await ada.page.getByRole("button", { name: "Make recovery codes" }).click();
  const code = (await ada.page.getByRole("listitem").first().innerText()).trim();
  await ada.context.close();
  await page.goto(`${app.address}/sign-in?to=/wirings`);
  await page.getByRole("button", { name: "I lost my password" }).click();
  await page.getByLabel("Sign-in name").fill("ada");
  await page.getByLabel("Recovery code").fill(code.toLowerCase().replaceAll("-", " "));
  await page.getByLabel("New password").fill("seven brass owls dancing");
  await page.getByRole("button", { name: "Set the password and sign in" }).click();
  await page.waitForURL((url) => url.pathname === "/wirings");
  const again = await request.post(`${app.address}/api/auth/recover`, {
    headers: fromPage(),
    data: JSON.stringify({ username: "ada", code, password: "seven brass owls dancing" }),
  });
  expect(again.status()).toBe(401);

  const guess = async (password: string) =>
    (
      await request.post(`${app.address}/api/auth/sign-in/username`, {
        headers: fromPage(),
        data: JSON.stringify({ username: "lea", password }),
      })
    ).status();
  // ten at once are no way round
  const all = await Promise.all(Array.from({ length: 14 }, (_, i) => guess(`wrong number ${i}`)));
  expect(all.filter((s) => s === 401)).toHaveLength(10);
  expect(all.filter((s) => s === 429)).toHaveLength(4);
  expect(await guess(PASSWORD)).toBe(429);
  await page.goto(`${app.address}/people`);
  await expect(page.getByRole("row", { name: /locked out/ }).first()).toContainText("lea");
});

test("a new password needs the old one, and signs out every other device", async ({ browser }) => {
  const here = await newcomer(browser, codeIn(people("add", "Nora New", "nora", "technician")));
  const elsewhere = await browser.newContext({ baseURL: app.address });
  const other = await elsewhere.newPage();
  await other.goto("/sign-in");
  await signIn(other, "nora");
  await expect(other.getByRole("button", { name: "Nora New" })).toBeVisible();
  const { page } = here;
  const change = async (old: string) => {
    await page.getByLabel("Old password").fill(old);
    await page.getByLabel("New password").fill("nine paper boats at noon");
    await page.getByRole("button", { name: "Change the password" }).click();
  };
  await change("not the old one at all");
  await expect(page.locator(".ant-alert-error")).toBeVisible();
  expect((await here.context.request.get("/api/jobs")).status()).not.toBe(401);
  await change(PASSWORD);
  await expect(page.getByText("All other devices are signed out")).toBeVisible();
  await other.goto("/");
  await other.waitForURL(/sign-in/);
  await signIn(other, "nora");
  await expect(other.locator(".ant-alert-error")).toBeVisible();
  await signIn(other, "nora", "nine paper boats at noon");
  await expect(other.getByRole("button", { name: "Nora New" })).toBeVisible();
  await Promise.all([here.context.close(), elsewhere.close()]);
});

test("a session ends twelve hours after it began, also when it is used", async ({ browser }) => {
  const { page, context } = await newcomer(browser, codeIn(people("add", "Sven Shift", "sven", "technician")));
  const [first] = await byHand(
    (sql) => sql<{ id: string; hours: number }[]>`
      select id, extract(epoch from expires_at - created_at) / 3600 as hours from sessions
      order by created_at desc limit 1`,
  );
  expect(Number(first!.hours)).toBeCloseTo(12, 1);
  // near its end, and used: it is not renewed
  await byHand(
    (sql) => sql`
      update sessions set expires_at = now() + interval '4 seconds', updated_at = now() - interval '11 hours'
      where id = ${first!.id}`,
  );
  await page.goto("/");
  await expect(page.getByRole("button", { name: "Sven Shift" })).toBeVisible();
  await page.waitForTimeout(4500);
  await page.goto("/");
  await page.waitForURL(/sign-in/);
  await context.close();
});

test("cookies are for this server alone, over TLS, and out of reach of scripts", async () => {
  // as a proxy on this machine passes on what came over TLS
  const secure = new Application(0, undefined, { RADICULA_HOSTS: "radicula.works.example" });
  await secure.start();
  try {
    const headers = {
      ...JSON_TYPE,
      Host: "radicula.works.example",
      Origin: "https://radicula.works.example",
      "X-Forwarded-Proto": "https",
      "X-Forwarded-For": "192.0.2.9",
    };
    people("add", "Tess Tls", "tess", "technician");
    const code = codeIn(people("invite", "tess"));
    const body = JSON.stringify({ code, password: PASSWORD });
    const { status, cookies } = await posted(secure.port, "/api/auth/invitation/accept", headers, body);
    expect(status).toBe(200);
    expect(cookies.length).toBeGreaterThan(0);
    for (const cookie of cookies) {
      expect(cookie).toMatch(/^__Secure-radicula\./);
      for (const word of ["Secure", "HttpOnly", "SameSite=Lax"]) expect(cookie).toContain(word);
      expect(cookie).not.toContain("Domain=");
    }
  } finally {
    await secure.kill();
  }
});

test("pages that were kept on a device are gone once people sign in", async ({ browser }) => {
  const context = await browser.newContext({ serviceWorkers: "allow" });
  const page = await context.newPage();
  const open = new Application(0, undefined, { RADICULA_SIGN_IN: "off" });
  await open.start();
  try {
    const kept = () => page.evaluate(async () => (await caches.keys()).filter((k) => k.includes("pages")));
    await page.goto(open.address);
    await expect.poll(kept).toHaveLength(1);
    await open.kill();
    const closed = new Application(open.port, undefined, { RADICULA_SIGN_IN: "on" });
    await closed.start();
    try {
      await page.goto(`${closed.address}/sign-in`);
      await expect(page.getByLabel("Sign-in name")).toBeVisible();
      await expect.poll(kept).toHaveLength(0);
    } finally {
      await closed.kill();
    }
  } finally {
    await open.kill();
    await context.close();
  }
});

/** Browsers keep passkeys for names, not for numbers. */
const named = () => app.address.replace("127.0.0.1", "localhost");
test("a passkey signs in without a password", async ({ browser }) => {
  const { page, context } = await newcomer(browser, codeIn(people("add", "Pia Pass", "pia", "technician")), named());
  const cdp = await context.newCDPSession(page);
  await cdp.send("WebAuthn.enable");
  await cdp.send("WebAuthn.addVirtualAuthenticator", {
    options: {
      protocol: "ctap2",
      transport: "internal",
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await page.getByRole("button", { name: "Add a passkey of this device" }).click();
  await expect(page.getByText(/Passkey 1, added/)).toBeVisible();
  await page.getByRole("button", { name: "Pia Pass" }).click();
  await page.getByRole("button", { name: "Sign out" }).click();
  await page.waitForURL(/sign-in/);
  await page.getByRole("button", { name: "Use a passkey" }).click();
  await page.waitForURL((url) => url.pathname === "/");
  await expect(page.getByRole("button", { name: "Pia Pass" })).toBeVisible();
  await context.close();
});

test("signed out meanwhile: entries wait on the device, and arrive under the right name", async ({ browser }) => {
  const { page, context } = await newcomer(browser, codeIn(people("invite", "tom")));
  await openCopy(app.address, page, "tug-4-reference.case.json", "Signed out meanwhile");
  await expect(box(page)).toBeVisible();
  await expect(page.getByRole("banner").getByRole("button", { name: "Tom Tech" })).toBeVisible();
  await context.clearCookies({ name: /session/ });
  await log(page);
  await expect(page.getByText(/you are signed out/)).toBeVisible();
  await page
    .getByRole("banner")
    .getByRole("button", { name: /Tom Tech|Sign in/ })
    .click();
  await signIn(page.getByRole("dialog").page(), "tom");
  await expect(page.getByText(/you are signed out/)).toBeHidden();
  const job = /job\/([0-9a-f-]+)/.exec(page.url())![1]!;
  const { entries } = (await (await context.request.get(`/api/jobs/${job}/entries`)).json()) as {
    entries: { by?: string }[];
  };
  expect(entries.at(-1)!.by).toBe("Tom Tech");
  await context.close();
});

test("npm run people says what is wrong with what was typed", () => {
  const fails = (...args: string[]) => {
    try {
      people(...args);
      return "";
    } catch (error) {
      return String((error as { stderr: string }).stderr);
    }
  };
  expect(fails("add", "Tom Tech", "tom", "technician")).toMatch(/somebody has that name/);
  expect(fails("add", "X", "xavier", "technician")).toMatch(/2 to 60 letters/);
  expect(fails("add", "Xavier", "x!", "technician")).toMatch(/sign-in name/);
  expect(fails("add", "Xavier", "xavier", "king")).toMatch(/no role king/);
  expect(fails("invite", "nobody-here")).toMatch(/nobody has the sign-in name/);
  expect(fails("what")).toMatch(/not understood/);
  expect(people()).toMatch(/ada: Ada Admin, administrator/);
});
