import { expect, test, type APIRequestContext } from "@playwright/test";
import { readFileSync } from "node:fs";
import { request as plainRequest } from "node:http";
import fc from "fast-check";
import sharp from "sharp";
import { card } from "./casePage";
import { Application, applicationForTests, JSON_TYPE } from "./server";

const app = applicationForTests();
/** Inputs tried; more by FUZZ=100000 npx playwright test door. */
const TRIES = Number(process.env["FUZZ"] ?? 2000);
const AT_ONCE = 8;
const MADE_AT_ONCE = 2000;
const AT = "2026-11-24T10:00:00Z";

/** A request with headers that a browser would not let a page set. */
const plain = (path: string, method: string, headers: Record<string, string>, body = ""): Promise<number> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(app.address); // the path as it stands, not as an address would be tidied
    const sent = plainRequest({ hostname, port, path, method, headers }, (answer) => {
      answer.resume();
      resolve(answer.statusCode ?? 0);
    });
    sent.on("error", reject);
    sent.end(body);
  });

test("only names of ours are answered to; pages of other sites neither write nor read our data", async () => {
  const host = new URL(app.address).host;
  const post = (headers: Record<string, string>) =>
    plain("/api/jobs/bench", "POST", { Host: host, ...JSON_TYPE, ...headers }, "{}");
  expect(await plain("/", "GET", { Host: host })).toBe(200);
  expect(await plain("/", "GET", { Host: "evil.example" })).toBe(421);
  expect(await plain("/api/health", "GET", { Host: `127.0.0.1.evil.example:${app.port}` })).toBe(421);
  expect(await post({ Origin: "https://evil.example" })).toBe(403);
  expect(await post({ Origin: "null" })).toBe(403);
  expect(await post({ "Sec-Fetch-Site": "cross-site" })).toBe(403);
  expect(await post({ Origin: app.address, "Sec-Fetch-Site": "same-origin" })).toBe(400); // let in, and found empty
  expect(await plain("/api/wirings", "GET", { Host: host, "Sec-Fetch-Site": "cross-site" })).toBe(403);
  expect(await plain("/", "GET", { Host: host, "Sec-Fetch-Site": "cross-site" })).toBe(200); // a link to us
  for (const path of ["//evil.example/sign-in", "/\\evil.example", `http://${host}/`])
    expect([path, await plain(path, "GET", { Host: host })]).toEqual([path, 400]);
  for (const method of ["TRACE", "OPTIONS", "PATCH", "PROPFIND"])
    expect(await plain("/", method, { Host: host })).toBe(405);
});

test("too many requests from one address wait; what the server counts is read by this machine", async () => {
  const busy = new Application(0, undefined, { RADICULA_RATE: "60" });
  await busy.start();
  const all = await Promise.all(Array.from({ length: 80 }, () => fetch(`${busy.address}/api/health/live`)));
  const refused = all.filter((a) => a.status === 429);
  expect(refused.length).toBeGreaterThanOrEqual(20);
  expect(refused.length).toBeLessThan(80);
  expect(Number(refused[0]!.headers.get("retry-after"))).toBeGreaterThan(0);
  await busy.kill();
  const metrics = await fetch(`${app.address}/metrics`);
  expect(metrics.headers.get("content-type")).toMatch(/^application\/openmetrics-text/);
  const text = await metrics.text();
  expect(text).toMatch(/radicula_http_seconds_count\{method="GET",route="\/api\/health",status="200"\} \d+/);
  expect(text.trimEnd()).toMatch(/# EOF$/);
});

test("pages run only scripts of their own, and nothing on them is refused for it", async ({ page }) => {
  const complaints: string[] = [];
  page.on("console", (m) => {
    if (m.type() === "error") complaints.push(m.text());
  });
  const answer = await page.goto(app.address);
  expect(answer!.headers()["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']{20,}' 'strict-dynamic'/);
  await page
    .getByRole("link", { name: /Three signals low/ })
    .first()
    .click();
  await expect(card(page)).toBeVisible();
  await page.goto(`${app.address}/calculators`);
  await expect(page.getByRole("heading").first()).toBeVisible();
  expect(complaints).toEqual([]);
  const ran = page.evaluate(() => {
    // what markup can bring in; a script that a script of ours makes may run
    const button = document.createElement("button");
    button.setAttribute("onclick", "window.ran = true");
    document.body.append(button);
    button.click();
    document.body.innerHTML += "<img src=x onerror='window.ran = true'>";
    return new Promise((r) => setTimeout(() => r((window as unknown as { ran?: boolean }).ran), 300));
  });
  expect(await ran).toBeUndefined();
});

test("bodies are refused before they are read whole, wherever they are sent", async ({ request }) => {
  const { job, wiring } = await targets(request);
  const huge = `{"x":"${"y".repeat(2_000_000)}"}`;
  for (const path of ["jobs/bench", `jobs/${job}/measure`, `jobs/${job}/scan`, `jobs/${job}/entries`])
    expect((await request.post(`${app.address}/api/${path}`, { headers: JSON_TYPE, data: huge })).status()).toBe(413);
  for (const type of ["application/json-evil", "text/json", "application/jsonp", ""])
    expect(
      (
        await request.post(`${app.address}/api/wirings/${wiring}/revisions`, {
          headers: { "Content-Type": type },
          data: "{}",
        })
      ).status(),
    ).toBe(415);
});

test("what no database keeps is refused with its place, and nothing of it is kept", async ({ request }) => {
  const { job } = await targets(request);
  const before = (await (await request.get(`${app.address}/api/jobs/${job}/entries`)).json()) as unknown;
  for (const note of ["\0", "\ud800", "a\udc00b"]) {
    const answer = await request.post(`${app.address}/api/jobs/${job}/entries`, {
      headers: JSON_TYPE,
      data: JSON.stringify({
        after: 4,
        batch: crypto.randomUUID(),
        entries: [{ type: "closed", at: AT, by: note }],
      }),
    });
    expect(answer.status()).toBe(422);
    expect(await answer.json()).toMatchObject({
      issues: [{ code: "text.unsaveable", path: ["entries", 0, "by"] }],
    });
  }
  expect(await (await request.get(`${app.address}/api/jobs/${job}/entries`)).json()).toEqual(before);
});

interface Targets {
  readonly job: string;
  readonly practice: string;
  readonly wiring: string;
  readonly page: string;
}
let known: Targets | undefined;
async function targets(request: APIRequestContext): Promise<Targets> {
  if (known) return known;
  const post = async (path: string, data: string) =>
    (await (await request.post(`${app.address}/api/${path}`, { headers: JSON_TYPE, data })).json()) as {
      id: string;
    };
  const text = readFileSync("demo/tug-4-reference.case.json", "utf8");
  const { id: job } = await post("jobs", text);
  const { wiring } = JSON.parse(text) as { wiring: unknown };
  const { id: library } = await post("wirings", JSON.stringify(wiring));
  const { id: practice } = await post("jobs/bench", JSON.stringify({ job, seed: 4 }));
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#fff" } })
    .png()
    .toBuffer();
  const kept = await request.post(`${app.address}/api/wirings/${library}/pages`, {
    headers: { "Content-Type": "image/png" },
    data: picture,
  });
  const { id: page } = (await kept.json()) as { id: string };
  return (known = { job, practice, wiring: library, page });
}

const NASTY = fc.constantFrom<unknown>(
  ...["\0", "\ud800", "'; drop table jobs; --", "../../etc/passwd", "𝄞".repeat(50), "x".repeat(5000), "", " ", "%ff"],
  ...[null, true, -1, 0.5, 2 ** 31, 2 ** 53, 1e308, -0],
  ...[[], {}, [[]], { a: { b: {} } }, "Ꭺ1:1", "A1:1", "__proto__", "constructor"],
);
/** A body that would be taken, with something in it replaced, left out or added; or anything at all. */
function spoilt(good: unknown): fc.Arbitrary<unknown> {
  const paths = placesIn(good);
  const harm = fc.record({ path: fc.constantFrom(...paths), value: fc.oneof(NASTY, fc.jsonValue()), how: fc.nat(2) });
  const harmed = fc
    .array(harm, { minLength: 1, maxLength: 3 })
    .map((list) =>
      list.reduce((body, { path, value, how }) => withHarm(body, path, value, how), structuredClone(good)),
    );
  return fc.oneof({ weight: 5, arbitrary: harmed }, { weight: 1, arbitrary: fc.jsonValue() });
}
const placesIn = (value: unknown, path: string[] = []): string[][] =>
  typeof value === "object" && value !== null
    ? [path, ...Object.entries(value).flatMap(([k, v]) => placesIn(v, [...path, k]))]
    : [path];
function withHarm(body: unknown, [key, ...rest]: readonly string[], value: unknown, how: number): unknown {
  if (key === undefined) return value;
  if (typeof body !== "object" || body === null) return body;
  const copy = (Array.isArray(body) ? [...(body as unknown[])] : { ...body }) as Record<string, unknown>;
  if (rest.length === 0 && how === 1) delete copy[key];
  else if (rest.length === 0 && how === 2) copy[`${key}x`] = value;
  else copy[key] = withHarm(copy[key], rest, value, how);
  return copy;
}

interface Shot {
  readonly method: "POST" | "PUT" | "GET" | "DELETE";
  readonly path: string;
  readonly body?: unknown;
}
function shots({ job, practice, wiring, page }: Targets): fc.Arbitrary<Shot> {
  const post = (path: string, good: unknown, method: "POST" | "PUT" = "POST") =>
    spoilt(good).map((body): Shot => ({ method, path, body }));
  const state = { key: "on", unplugged: ["B9"] };
  const reading = { type: "reading", at: AT, instrument: "voltmeter", points: ["B7:1"], values: [0.8], state };
  const trace = {
    type: "trace",
    at: AT,
    seconds: 1,
    perSecond: 100,
    state,
    channels: [{ name: "A", on: "B7:3", kind: "steady", low: 1, high: 1.2, mean: 1.1 }],
    moved: [{ thing: "B7", from: 0, to: 1, reacted: true }],
  };
  const content = {
    format: "radicula/sheet",
    version: 1,
    width: 60,
    height: 40,
    words: [{ text: "B7", x: 1, y: 1, width: 5, height: 4 }],
    lines: [[0, 0, 10, 0]],
    boxes: [[1, 1, 10, 10]],
    dots: [[5, 5, 1]],
  };
  const pages = {
    sheets: [{ id: page, name: "Sheet 1", source: "", width: 60, height: 40 }],
    marks: [{ at: "B7:1", sheet: page, x: 1, y: 1 }],
    traces: [
      {
        from: "B7:1",
        to: "S1",
        sheet: page,
        points: [
          [0, 0],
          [1, 1],
        ],
      },
    ],
    openEnds: [
      {
        label: "P",
        from: "S1",
        colour: "",
        sheet: page,
        points: [
          [0, 0],
          [1, 1],
        ],
      },
    ],
  };
  const odd = fc.oneof(NASTY.map(String), fc.string(), fc.uuid());
  const text = JSON.parse(readFileSync("demo/tug-4-reference.case.json", "utf8")) as { wiring: object };
  return fc.oneof(
    post(`jobs/${job}/entries`, { after: 4, batch: crypto.randomUUID(), entries: [reading], join: true }),
    post(`jobs/${job}/entries`, {
      after: 0,
      batch: crypto.randomUUID(),
      entries: [
        { type: "look", at: AT, thing: "B7", found: ["nothing"] },
        { type: "undo", at: AT, target: 1 },
      ],
    }),
    post(`jobs/${practice}/measure`, { points: ["B7:1"], instrument: "voltmeter", kind: "voltage", state }),
    post(`jobs/${practice}/measure`, { points: ["A1:1", "B7:1"], instrument: "clamp", kind: "watch", state }),
    post(`jobs/${job}/entries`, { after: 4, batch: crypto.randomUUID(), entries: [trace], join: true }),
    post(`jobs/${practice}/record`, {
      places: [{ on: "B7:3", by: "scope" }],
      state,
      doing: "sweep",
      seconds: 0.1,
      perSecond: 1_000,
    }),
    post(`jobs/${practice}/scan`, { when: "afterDrive" }),
    post(`jobs/${job}/revision`, {}),
    post(`jobs/${job}/codes`, {}),
    post(`jobs/${job}/drawing`, { at: "B7:1", goesTo: "S14" }),
    post("jobs/bench", { job, faults: 1, seed: 3 }),
    post("jobs", { title: "Tug", machine: "Tug 4", complaint: "stalls", wiring }),
    post("jobs", text),
    post("wirings", { name: "W", machineType: "", nominalVolt: 12 }),
    post("wirings", { csv: "connector,cavity\nB7,1\n", name: "W" }),
    post("wirings", text.wiring),
    post(`wirings/${wiring}/revisions`, { note: "looked at" }),
    post(`wirings/${wiring}/draft`, { seq: 1, chart: { format: "radicula/chart", version: 1, rows: [] } }, "PUT"),
    post(
      `wirings/${wiring}/draft`,
      { seq: 1, chart: { format: "radicula/chart", version: 1, rows: [], pages } },
      "PUT",
    ),
    post(`pages/${page}`, content, "PUT"),
    post(`wirings/${wiring}/pages`, content),
    fc
      .tuple(odd, odd)
      .map(([level, tile]): Shot => ({ method: "GET", path: `pages/${page}/${enc(level)}/${enc(tile)}` })),
    fc
      .tuple(fc.constantFrom("jobs", "wirings", "photos", "recordings", "pages"), odd, odd)
      .map(([kind, id, query]): Shot => ({
        method: "GET",
        path: `${kind}/${enc(id)}${isFile(kind) ? "" : `/export?as=${enc(query)}&revision=${enc(query)}`}`,
      })),
    odd.map((after): Shot => ({ method: "GET", path: `jobs/${job}/entries?after=${enc(after)}` })),
    odd.map((id): Shot => ({ method: "DELETE", path: `photos/${enc(id)}`, body: {} })),
    odd.map((raw): Shot => ({ method: "GET", path: `jobs/${raw.replace(/[^\x21-\x7e]|[#?\\]/g, "")}/export` })),
  );
}
const isFile = (kind: string) => kind === "photos" || kind === "recordings" || kind === "pages";
const enc = (text: string) => encodeURIComponent(text.replace(/[\ud800-\udfff]/g, ""));

test(`${TRIES} spoilt requests: none is answered with a failure of the server, and none holds up others`, async ({
  request,
}) => {
  test.setTimeout(60_000 + TRIES * 60);
  const seed = Number(process.env["SEED"] ?? 20_261_129);
  const shot = shots(await targets(request));
  const failures: string[] = [];
  const counted = new Map<number, number>();
  let slowest = 0;
  let isOver = false;
  const others = (async () => {
    while (!isOver) {
      const began = performance.now();
      await fetch(`${app.address}/api/health`);
      slowest = Math.max(slowest, performance.now() - began);
      await new Promise((r) => setTimeout(r, 50));
    }
  })();
  const go = async (list: Shot[]) => {
    for (let one = list.pop(); one; one = list.pop()) {
      const { method, path, body } = one;
      const answer = await fetch(`${app.address}/api/${path}`, {
        method,
        ...(body === undefined ? {} : { headers: JSON_TYPE, body: JSON.stringify(body) }),
      });
      await answer.arrayBuffer();
      counted.set(answer.status, (counted.get(answer.status) ?? 0) + 1);
      if (answer.status >= 500)
        failures.push(`${answer.status} ${method} ${path} ${JSON.stringify(body)?.slice(0, 300) ?? ""}`);
    }
  };
  // made in parts: connections end while nothing is heard of the test
  for (let i = 0; i < TRIES; i += MADE_AT_ONCE) {
    const list = fc.sample(shot, { numRuns: Math.min(MADE_AT_ONCE, TRIES - i), seed: seed + i });
    await Promise.all(Array.from({ length: AT_ONCE }, () => go(list)));
  }
  isOver = true;
  await others;
  const answers = [...counted].sort(([a], [b]) => a - b).map(([status, n]) => `${n} × ${status}`);
  console.log(`fuzz: ${TRIES} requests, seed ${seed}: ${answers.join(", ")}; others waited ${Math.round(slowest)} ms`);
  expect(failures).toEqual([]);
  expect(counted.get(201) ?? 0).toBeGreaterThan(0); // not all of it is refused at the door
  expect(slowest).toBeLessThan(5000);
});
