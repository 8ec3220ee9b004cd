import { chartRow, emptyChart, type Chart } from "@radicula/core";
import { expect, test, type APIRequestContext } from "@playwright/test";
import { readFileSync } from "node:fs";
import { deflateRawSync } from "node:zlib";
import sharp from "sharp";
import { ZipFile } from "yazl";
import { JSON_TYPE, applicationForTests } from "./server";

const app = applicationForTests();

const at = "2026-11-25T10:00:00Z";
type Answer = {
  id: string;
  wiringId?: string;
  seq?: number;
  number?: number;
  revision?: number;
  issues?: { code: string; path: (string | number)[]; params: Record<string, unknown> }[];
};
const send = (request: APIRequestContext, method: "POST" | "PUT", path: string, body: unknown) =>
  request.fetch(`${app.address}${path}`, { method, headers: JSON_TYPE, data: JSON.stringify(body) });
async function got(response: { status(): number; json(): Promise<unknown> }, status = 201): Promise<Answer> {
  expect(response.status()).toBe(status);
  return (await response.json()) as Answer;
}
const row = (connector: string, cavity: string, goesTo: string, more: Partial<ReturnType<typeof chartRow>> = {}) =>
  chartRow({ connector, cavity, goesTo, ...more });
const chart = (name: string, rows: Chart["rows"]): Chart => ({ ...emptyChart(name), rows });
const SENSOR = [
  row("B1", "1", "S1", { colour: "OG", function: "5 V" }),
  row("B1", "2", "S2", { colour: "BN", function: "ground" }),
  row("B1", "3", "A1:3", { colour: "GN", function: "signal" }),
  row("S1", "", "A1:1"),
  row("S2", "", "A1:2"),
];
const append = (request: APIRequestContext, id: string, after: number, entries: unknown[]) =>
  send(request, "POST", `/api/jobs/${id}/entries`, { after, batch: crypto.randomUUID(), entries });
const exported = async (request: APIRequestContext, id: string) =>
  (await (await request.get(`${app.address}/api/jobs/${id}/export`)).json()) as {
    wiring: { connectors: { id: string }[]; codes: { id: string }[] };
    entries: { type: string }[];
  };

test("a draft saved from an old state is refused with the count it should have had; nothing is lost", async ({
  request,
}) => {
  const { id } = await got(await send(request, "POST", "/api/wirings", { name: "Drafts" }));
  const first = await got(
    await send(request, "PUT", `/api/wirings/${id}/draft`, { seq: 1, chart: chart("Drafts", SENSOR) }),
    200,
  );
  expect(first.seq).toBe(2);
  const stale = await got(
    await send(request, "PUT", `/api/wirings/${id}/draft`, { seq: 1, chart: chart("other", []) }),
    409,
  );
  expect(stale.seq).toBe(2);
  const many = await Promise.all(
    Array.from({ length: 8 }, (_, i) =>
      send(request, "PUT", `/api/wirings/${id}/draft`, { seq: 2, chart: chart(`writer ${i}`, SENSOR) }),
    ),
  );
  expect(many.map((r) => r.status()).sort()).toEqual([200, ...Array<number>(7).fill(409)]);
  for (const bad of [
    { seq: 3 },
    { seq: 3, chart: { ...chart("x", SENSOR), rows: "all" } },
    { seq: "3", chart: chart("x", []) },
    { seq: 3, chart: { ...chart("x", []), rows: Array.from({ length: 20_001 }, () => ({})) } },
  ]) {
    await got(await send(request, "PUT", `/api/wirings/${id}/draft`, bad), 422);
  }
  const now = (await (await request.get(`${app.address}/api/wirings/${id}/draft`)).json()) as { chart: Chart };
  expect(now.chart.rows).toHaveLength(5);
});

test("revisions: frozen states are compared; a copy goes its own way", async ({ request }) => {
  const { id } = await got(await send(request, "POST", "/api/wirings", chart("Revisions", SENSOR)));
  expect((await got(await send(request, "POST", `/api/wirings/${id}/revisions`, { note: "as drawn" }))).number).toBe(1);
  await got(
    await send(request, "PUT", `/api/wirings/${id}/draft`, {
      seq: 1,
      chart: chart(
        "Revisions",
        SENSOR.map((r) => (r.cavity === "3" ? { ...r, colour: "VT" } : r)),
      ),
    }),
    200,
  );
  expect((await got(await send(request, "POST", `/api/wirings/${id}/revisions`, { note: "as seen" }))).number).toBe(2);
  const { changes } = (await (
    await request.get(`${app.address}/api/wirings/${id}/revisions?before=1&after=2`)
  ).json()) as { changes: { what: string; fields: { field: string; before: string; after: string }[] }[] };
  expect(changes).toHaveLength(1);
  expect(changes[0]).toMatchObject({ what: "wire", fields: [{ field: "colour", before: "GN", after: "VT" }] });
  const copy = await got(await send(request, "POST", "/api/wirings", { copyOf: id }));
  await got(await send(request, "PUT", `/api/wirings/${copy.id}/draft`, { seq: 1, chart: chart("mine", []) }), 200);
  expect(
    ((await (await request.get(`${app.address}/api/wirings/${id}/draft`)).json()) as { chart: Chart }).chart.rows,
  ).toHaveLength(5);
  await got(await send(request, "POST", "/api/wirings", { copyOf: crypto.randomUUID() }), 404);
});

test(
  "a job stays with its revision until it is moved, keeps its readings, and is not moved where they would " +
    "lose their place",
  async ({ request }) => {
    const { id } = await got(await send(request, "POST", "/api/wirings", chart("Moves", SENSOR)));
    const job = await got(await send(request, "POST", "/api/jobs", { title: "Moves", wiring: id }));
    await got(
      await append(request, job.id, 0, [
        {
          type: "reading",
          at,
          instrument: "voltmeter",
          points: ["B1:1"],
          values: [4.9],
          state: { key: "on", unplugged: [] },
        },
      ]),
    );
    await got(
      await send(request, "PUT", `/api/wirings/${id}/draft`, {
        seq: 1,
        chart: chart("Moves", [...SENSOR, row("B2", "1", "S1")]),
      }),
      200,
    );
    expect((await exported(request, job.id)).wiring.connectors.some((d) => d.id === "B2")).toBe(false);
    expect((await got(await send(request, "POST", `/api/jobs/${job.id}/revision`, {}), 200)).revision).toBe(2);
    const moved = await exported(request, job.id);
    expect(moved.wiring.connectors.some((d) => d.id === "B2")).toBe(true);
    expect(moved.entries.map((e) => e.type)).toEqual(["reading", "revision"]);
    // a state without the cavity that was measured
    await got(
      await send(request, "PUT", `/api/wirings/${id}/draft`, { seq: 2, chart: chart("Moves", SENSOR.slice(1)) }),
      200,
    );
    const refused = await got(await send(request, "POST", `/api/jobs/${job.id}/revision`, {}), 409);
    expect(refused.issues?.[0]?.code).toBe("revision.breaks-logbook");
    expect((await exported(request, job.id)).entries).toHaveLength(2);
  },
);

test("codes from a scan are kept with the wiring and there for the next job", async ({ request }) => {
  const { id } = await got(await send(request, "POST", "/api/wirings", chart("Kept codes", SENSOR)));
  const job = await got(await send(request, "POST", "/api/jobs", { title: "First", wiring: id }));
  await got(
    await append(request, job.id, 0, [
      {
        type: "scan",
        at,
        when: "before",
        modules: ["A1"],
        codes: [{ module: "A1", code: "K-17", status: "active", title: "Lift signal low", about: "B1", family: "low" }],
      },
    ]),
  );
  expect(await (await send(request, "POST", `/api/jobs/${job.id}/codes`, {})).json()).toEqual({ kept: 1 });
  expect(await (await send(request, "POST", `/api/jobs/${job.id}/codes`, {})).json()).toEqual({ kept: 0 });
  const next = await got(await send(request, "POST", "/api/jobs", { title: "Second", wiring: id }));
  expect((await exported(request, next.id)).wiring.codes).toEqual([
    expect.objectContaining({ id: "K-17", title: "Lift signal low", about: "B1" }),
  ]);
});

test("the library is searched by what stands in it", async ({ request }) => {
  const number = `PN-${Math.floor(Math.random() * 1e9)}`;
  const made = await got(
    await send(request, "POST", "/api/wirings", {
      ...chart("Searched", SENSOR),
      parts: [{ id: "B1", partNumber: number }],
    }),
  );
  await got(await send(request, "POST", "/api/wirings", chart("Not it", SENSOR)));
  const page = await (await request.get(`${app.address}/wirings?find=${number.toLowerCase()}`)).text();
  expect(page).toContain(made.id);
  expect(page).not.toContain("Not it");
  for (const odd of ["%", "_", "\\", '"', "'; drop table wirings; --"]) {
    const answer = await request.get(`${app.address}/wirings?find=${encodeURIComponent(odd)}`);
    expect(answer.status()).toBe(200);
    expect(await answer.text()).not.toContain(made.id);
  }
  expect(
    await (await request.get(`${app.address}/wirings?find=${encodeURIComponent("<b>nothing</b>")}`)).text(),
  ).not.toContain("<b>nothing</b>");
});

test("the board is searched by machine, complaint and code, and by how far a job is", async ({ page }) => {
  const titles = async (query: string) => {
    await page.goto(`${app.address}/?${query}`);
    return page.getByRole("main").getByRole("listitem").allInnerTexts();
  };
  const all = await titles("");
  expect(all.length).toBeGreaterThan(9);
  const tugs = await titles("find=tug+P0522");
  expect(tugs.length).toBeGreaterThan(0);
  expect(tugs.every((t) => t.includes("P0522"))).toBe(true);
  expect(tugs.length).toBeLessThan(all.length);
  // of the demo jobs two are closed, one of them due to be asked after, and one has come back
  expect(await titles("state=open")).toHaveLength(all.length - 3);
  expect(await titles("state=closed")).toHaveLength(2);
  expect((await titles("state=found")).join()).toContain("Came back");
  expect((await titles("state=due")).join()).toContain("Ask: did it hold?");
  expect(await titles("state=closed&find=wash-down")).toHaveLength(0);
  await expect(page.getByText("No job fits.")).toBeVisible();
  // signs that mean something to the database mean themselves; what no search can be is left out
  expect(await titles("find=%25")).toHaveLength(0);
  expect(await titles("find=a_b")).toHaveLength(0);
  expect((await titles("state=nonsense&find=a&find=b")).length).toBe(all.length);
  await page.getByLabel("Find jobs").fill("wash-down");
  await page.getByRole("button", { name: "Find", exact: true }).click();
  await expect(page.getByRole("main").getByRole("listitem")).toHaveCount(1);
  await page.getByRole("link", { name: "Show all" }).click();
  await expect(page.getByRole("main").getByRole("listitem")).toHaveCount(all.length);
});

test("exports: CSV that a spreadsheet opens safely, GraphML, SPICE, JSON that reads back", async ({ request }) => {
  const hostile = { ...chart("Out", [...SENSOR, row("B2", "1", "S1", { source: '=HYPERLINK("x")', function: "+1" })]) };
  const { id } = await got(await send(request, "POST", "/api/wirings", hostile));
  const as = async (form: string) => (await request.get(`${app.address}/api/wirings/${id}/export?as=${form}`)).text();
  const csv = await as("csv");
  expect(csv.charCodeAt(0)).toBe(0xfeff); // or a spreadsheet takes it for an old code page
  for (const cell of csv.slice(1).split(/[\r\n,]+/)) expect(cell).not.toMatch(/^"?[=+@-]/);
  expect(await as("graphml")).toMatch(/<graphml[\s\S]*<node id=/);
  expect(await as("spice")).toMatch(/\.end\s*$/i);
  const back = await got(await send(request, "POST", "/api/wirings", JSON.parse(await as("wiring"))));
  expect(back.id).not.toBe(id);
  const again = await got(await send(request, "POST", "/api/wirings", { csv, name: "Back" }));
  expect(
    (
      (await (await request.get(`${app.address}/api/wirings/${again.id}/draft`)).json()) as { chart: Chart }
    ).chart.rows.at(-1),
  ).toMatchObject({ source: '=HYPERLINK("x")', function: "+1" });
  expect((await request.get(`${app.address}/api/wirings/${id}/export?as=exe`)).status()).toBe(404);
});

const photo = (request: APIRequestContext, id: string, bytes: Buffer, type = "image/jpeg") =>
  request.post(`${app.address}/api/wirings/${id}/photos?connector=B1`, {
    headers: { "Content-Type": type },
    data: bytes,
  });

test("photos: what the camera wrote beside the picture is gone; what is no photo is refused", async ({ request }) => {
  const { id } = await got(await send(request, "POST", "/api/wirings", chart("Photos", SENSOR)));
  const raw = await sharp({ create: { width: 2400, height: 900, channels: 3, background: "#6a5" } })
    .withExif({ IFD0: { Artist: "somebody", Copyright: "secret place" } })
    .jpeg()
    .toBuffer();
  expect(raw.includes("secret place")).toBe(true);
  const added = (await got(await photo(request, id, raw))) as Answer & { width: number };
  expect(added.width).toBe(1600);
  const kept = await (await request.get(`${app.address}/api/photos/${added.id}`)).body();
  expect(kept.includes("secret place")).toBe(false);
  expect((await sharp(kept).metadata()).exif).toBeUndefined();
  const refusals: [Buffer, string, number][] = [
    [Buffer.from("<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>"), "image/svg+xml", 422],
    [Buffer.from("not a picture at all"), "image/png", 422],
    [Buffer.alloc(0), "image/png", 422],
    [raw.subarray(0, 400), "image/jpeg", 422],
    [raw, "application/x-www-form-urlencoded", 415],
    [Buffer.alloc(13_000_000, 1), "image/jpeg", 413],
  ];
  for (const [bytes, type, status] of refusals) expect((await photo(request, id, bytes, type)).status()).toBe(status);
  // a picture that is small to send and huge to open
  const bomb = await sharp({
    create: { width: 12_000, height: 12_000, channels: 3, background: "#000" },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 9 })
    .toBuffer();
  expect(bomb.byteLength).toBeLessThan(3_000_000);
  expect((await photo(request, id, bomb, "image/png")).status()).toBe(422);
  for (let i = 1; i < 8; i++) await got(await photo(request, id, raw));
  expect((await got(await photo(request, id, raw), 422)).issues?.[0]?.code).toBe("photo.too-many");
  // another origin's page cannot
  expect((await request.fetch(`${app.address}/api/photos/${added.id}`, { method: "DELETE" })).status()).toBe(415);
  expect(
    (await request.fetch(`${app.address}/api/photos/${added.id}`, { method: "DELETE", headers: JSON_TYPE })).status(),
  ).toBe(200);
  expect((await request.get(`${app.address}/api/photos/${added.id}`)).status()).toBe(404);
});

async function zipOf(files: Readonly<Record<string, Buffer | string>>): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, data] of Object.entries(files)) zip.addBuffer(Buffer.from(data as string), name);
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream as unknown as AsyncIterable<Buffer>) chunks.push(chunk);
  return Buffer.concat(chunks);
}
const unzip = (request: APIRequestContext, bytes: Buffer) =>
  request.post(`${app.address}/api/jobs`, { headers: { "Content-Type": "application/zip" }, data: bytes });

test("a whole job as a zip with its photos goes out and comes back", async ({ request }) => {
  const { id } = await got(await send(request, "POST", "/api/wirings", chart(`Zip ${Date.now()}`, SENSOR)));
  const copied = async () =>
    (
      await (
        await request.get(
          `${app.address}/wiring/${(await got(await send(request, "POST", "/api/wirings", { copyOf: id }))).id}`,
        )
      ).text()
    ).match(/\\"width\\":40,/g)?.length ?? 0;
  expect(await copied()).toBe(0);
  await got(
    await photo(
      request,
      id,
      await sharp({ create: { width: 40, height: 30, channels: 3, background: "#a40" } })
        .png()
        .toBuffer(),
      "image/png",
    ),
  );
  expect(await copied()).toBe(1); // a copy knows where its connectors are
  const job = await got(
    await send(request, "POST", "/api/jobs", { title: "Zipped", wiring: id, complaint: "as said" }),
  );
  const zip = await (await request.get(`${app.address}/api/jobs/${job.id}/export?as=zip`)).body();
  expect(zip.subarray(0, 2).toString()).toBe("PK");
  const back = await got(await unzip(request, zip));
  expect(back.issues).toEqual([]);
  expect(await exported(request, back.id)).toMatchObject({ title: "Zipped", complaint: "as said" });
  expect(
    (await (await request.get(`${app.address}/api/jobs/${back.id}/export?as=zip`)).body()).includes("photos/B1/1.jpg"),
  ).toBe(true);
});

test("zips that are none, hold no case, lie about their size, climb out of their folder or hold no photos", async ({
  request,
}) => {
  const text = readFileSync("demo/tug-4-reference.case.json", "utf8");
  const code = async (bytes: Buffer) => (await got(await unzip(request, bytes), 422)).issues?.[0]?.code;
  expect(await code(Buffer.from("PK no"))).toBe("file.not-a-zip");
  expect(await code((await zipOf({ "case.json": text })).subarray(0, 500))).toBe("file.not-a-zip");
  expect(await code(await zipOf({ "notes.txt": "x" }))).toBe("file.zip-without-case");
  expect(await code(await zipOf({ "case.json": text.slice(0, 900) }))).toBe("file.cut-short");
  const many = Object.fromEntries(Array.from({ length: 401 }, (_, i) => [`n${i}`, ""]));
  expect(await code(await zipOf(many))).toBe("file.zip-too-large");
  // 200 MB of nothing in 200 kB
  const bomb = await zipOf({ "case.json": Buffer.alloc(200_000_000) });
  expect(bomb.byteLength).toBeLessThan(400_000);
  expect(await code(bomb)).toBe("file.zip-too-large");
  // the same, saying of itself that it is small
  expect(await code(lyingZip("case.json", Buffer.alloc(200_000_000), 100))).toMatch(
    /^file\.(not-a-zip|zip-too-large)$/,
  );
  expect(await code(lyingZip("../../case.json", Buffer.from(text), text.length))).toMatch(
    /^file\.(not-a-zip|zip-without-case)$/,
  );
  const left = await got(
    await unzip(request, await zipOf({ "case.json": text, "photos/B7/1.jpg": "<script>alert(1)</script>" })),
  );
  expect(left.issues?.map((i) => i.code)).toEqual(["photo.not-a-photo"]);
});

/** A zip of one file made by hand, with a size and a name of one's own choosing. */
function lyingZip(name: string, data: Buffer, says: number): Buffer {
  const packed = deflateRawSync(data, { level: 9 });
  const n = Buffer.from(name);
  const common = Buffer.alloc(26);
  common.writeUInt16LE(20, 0);
  common.writeUInt16LE(8, 4);
  common.writeUInt32LE(packed.length, 14);
  common.writeUInt32LE(says, 18);
  common.writeUInt16LE(n.length, 22);
  const local = Buffer.concat([Buffer.from("PK\x03\x04"), common, n, packed]);
  const central = Buffer.concat([Buffer.from("PK\x01\x02"), Buffer.from([20, 0]), common, Buffer.alloc(14), n]);
  const end = Buffer.alloc(22);
  end.write("PK\x05\x06", 0, "latin1");
  end.writeUInt16LE(1, 8);
  end.writeUInt16LE(1, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(local.length, 16);
  return Buffer.concat([local, central, end]);
}
