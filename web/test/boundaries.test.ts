/** @jest-environment ./test/environments/node.mjs */
import { parseCase, readScan, readWiring } from "@radicula/core";
import { Made, answerOf, post } from "@/ui/send";
import { say } from "@/messages/issues";
import { answering } from "@/server/answers";
import { becomeReady } from "@/server/readiness";
import { readChartRow, readEntryRow, readRow, readWiringRow, UnreadableRow } from "@/server/repo/rows";
import { readSummary } from "@/server/repo/summaries";
import { Chart, Entries, Ids, Intake, NOT_UNDERSTOOD, readMessage, Step, Wiring } from "@/workers/messages";
import { z } from "zod";
import { demoCase } from "./helpers";

jest.mock("@/server/db/connection", () => ({ database: () => undefined }));

const job = demoCase();
const codesOf = async (response: Response) => {
  const { issues } = (await response.json()) as { issues: { code: string; params: object }[] };
  return issues;
};

describe("a worker reads every message before it does anything", () => {
  test("what the page really sends is taken as it is", () => {
    expect(readMessage(Entries, structuredClone(job.entries))).toEqual(job.entries);
    expect(readMessage(Wiring, structuredClone(job.wiring))).toEqual(job.wiring);
    const step = {
      id: "voltage B7:1",
      kind: "voltage",
      instrument: "voltmeter",
      points: ["B7:1"],
      state: { key: "on", unplugged: [] },
      at: "B7",
      unplug: [],
      plug: [],
      turnKey: false,
      minutes: 1.4,
    };
    expect(readMessage(Step, step)).toEqual(step);
  });
  test.each([
    ["entries that are none", () => readMessage(Entries, "everything"), ""],
    ["half an entry", () => readMessage(Entries, [{ type: "reading" }]), "0.at"],
    ["a reading of another unit", () => readMessage(Entries, [{ ...job.entries[0], type: "volts" }]), "0.type"],
    ["no wiring", () => readMessage(Wiring, undefined), ""],
    ["half a wiring", () => readMessage(Wiring, { ...job.wiring, nominalVolt: undefined }), "nominalVolt"],
    ["half a chart", () => readMessage(Chart, { format: "radicula/chart" }), "version"],
    ["names that are numbers", () => readMessage(Ids, ["B7", 7]), "1"],
    ["an intake of the wrong kind", () => readMessage(Intake, { hours: "many" }), "hours"],
    ["a step with another instrument", () => readMessage(Step, { kind: "voltage", instrument: "nose" }), ""],
  ])("%s", (_name, read, place) => {
    let error: unknown;
    try {
      read();
    } catch (e) {
      error = e;
    }
    expect((error as Error).name).toBe(NOT_UNDERSTOOD);
    expect((error as Error).message).toContain(place);
    expect(say({ code: NOT_UNDERSTOOD, path: [], params: {} }).text).toMatch(/Reload/);
  });
});

describe("a row of the database is read before it is used", () => {
  test.each([
    ["an entry", () => readEntryRow({ type: "reading", at: "today" }, 7), "entry 7"],
    ["a chart", () => readChartRow({ rows: [] }), "a pin chart"],
    ["a wiring", () => readWiringRow({ ...job.wiring, version: 9 }), "a wiring"],
    ["anything else", () => readRow(z.object({ seed: z.int() }), { seed: "1" }, "a simulated machine"), "a simulated"],
  ])("%s that does not read is named, and the route says which", async (_name, read, what) => {
    expect(read).toThrow(UnreadableRow);
    const logged = jest.spyOn(console, "error").mockImplementation(() => undefined);
    await becomeReady(async () => "any");
    const response = await answering(async () => Response.json(read()));
    logged.mockRestore();
    expect(response.status).toBe(500);
    const [first] = await codesOf(response);
    expect(first!.code).toBe("server.unreadable-row");
    expect(say({ path: [], ...first! } as never).text).toContain(what);
  });
  test("a kept summary of another shape is made anew, not shown", () => {
    const good = {
      codes: ["P0642"],
      readings: 2,
      verdict: null,
      closed: false,
      repaired: true,
      back: false,
      due: "2026-12-01",
      temporary: false,
      open: [],
      lastAt: null,
      lastBy: null,
      entries: 4,
    };
    expect(readSummary(good)).toEqual(good);
    expect(readSummary({ ...good, readings: -1 })).toBeUndefined();
    expect(readSummary({ ...good, open: [{ thing: "B7", how: "eaten" }] })).toBeUndefined();
    expect(readSummary(null)).toBeUndefined();
  });
});

describe("what a route answers is read before it is used", () => {
  test.each([
    ["half an answer", true, { id: 7 }, "server.answer-not-understood"],
    ["nothing", true, null, "server.answer-not-understood"],
    ["a refusal without reasons", false, { issues: [] }, "server.database-gone"],
    ["a refusal in prose", false, "no", "server.database-gone"],
    ["a refusal", false, { issues: [{ code: "file.not-json", path: [], params: {} }] }, "file.not-json"],
  ])("%s", (_name, isOk, answer, code) => {
    const posted = answerOf(isOk, answer, Made);
    expect(posted.ok ? undefined : posted.issues[0]!.code).toBe(code);
  });
  test("no answer at all, and one that is not JSON", async () => {
    const kept = globalThis.fetch;
    try {
      globalThis.fetch = () => Promise.reject(new TypeError("network"));
      expect(await post("/x", {}, Made)).toMatchObject({ ok: false, issues: [{ code: "server.database-gone" }] });
      globalThis.fetch = () => Promise.resolve(new Response("<html>"));
      expect(await post("/x", {}, Made)).toMatchObject({ ok: false, issues: [{ code: "server.database-gone" }] });
      globalThis.fetch = () => Promise.resolve(Response.json({ id: "7", more: 1 }));
      expect(await post("/x", {}, Made)).toEqual({ ok: true, body: { id: "7" } });
    } finally {
      globalThis.fetch = kept;
    }
  });
});

test.each([
  ["an empty file", "", "file.empty"],
  ["half a file", JSON.stringify(job).slice(0, 900), "file.cut-short"],
  ["another program's file", '{"format":"netlist"}', "file.not-an-object"],
  ["a case with a reading in no unit", JSON.stringify({ ...job, entries: [{ type: "reading" }] }), "schema"],
])("a file: %s is refused with a name for it", (_name, text, code) => {
  const read = parseCase(text);
  expect(read.ok ? undefined : read.issues[0]!.code).toContain(code);
});

test("a scan with lines that are none: they are said; a wiring that is none is refused", () => {
  const read = readScan("\u0000\u0000 rm -rf\nP0642 active", job.wiring, undefined);
  expect(read.codes.map((c) => c.code)).toEqual(["P0642"]);
  expect(read.issues).toHaveLength(1);
  expect(readWiring([]).ok).toBe(false);
});
