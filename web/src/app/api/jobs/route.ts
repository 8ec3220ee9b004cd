import {
  CHART_FORMAT,
  completeWiring,
  formatOf,
  issue,
  MAX_CHARACTERS,
  ok,
  parseCase,
  readChart,
  readWiringOrChart,
  SheetContent,
  WIRING_FORMAT,
  type Case,
  type Chart,
  type Entry,
  type Issue,
  type Result,
  type Wiring,
} from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, limitedBytes, refuse } from "@/server/answers";
import { database } from "@/server/db/connection";
import { cleanPhoto } from "@/server/photos";
import { createJob, startJob, wiringOfJob } from "@/server/repo/jobs";
import { tiledPage } from "@/server/pages";
import { keepPageAs } from "@/server/repo/pages";
import { addPhoto, photographed } from "@/server/repo/photos";
import { aboutRecordings, keepRecording } from "@/server/repo/recordings";
import { blankChart, createWiring, WiringId } from "@/server/repo/wirings";
import { savedUnlessStopped } from "@/server/savedUnlessStopped";
import { isSaveable, unsaveable } from "@/server/saveable";
import { readZip, ZIP } from "@/server/zip";

export const dynamic = "force-dynamic";
/** A job to be started: on a wiring of the library, or on a new, empty one. */
const Start = z.strictObject({
  title: z.string().trim().min(1).max(160),
  machine: z.string().trim().max(120).optional(),
  complaint: z.string().trim().max(4000).optional(),
  wiring: z.union([
    WiringId,
    z.strictObject({
      machineType: z.string().max(80).default(""),
      nominalVolt: z.union([z.literal(12), z.literal(24)]),
    }),
  ]),
});

/**
 * Takes a case, a wiring or chart document as the start of a new one, a zip with photos, or what is said of a new job.
 * Nothing is saved unless all of it reads.
 */
export const POST = (request: Request) =>
  answering(async () => {
    if (/^application\/zip\b/i.test(request.headers.get("content-type") ?? "")) return fromZip(request);
    const sent = await jsonBody(request, MAX_CHARACTERS);
    if (!sent.ok) return sent.refused;
    const start = Start.safeParse(sent.value);
    if (start.success) return fromStart(start.data);
    const read = caseOf(sent.value, sent.text);
    if (!read.ok) return refuse(422, read.issues);
    return savedUnlessStopped(request, async (tx) => ({ id: await createJob(read.value, {}, tx) }));
  });

function caseOf(value: unknown, text: string): Result<Case> {
  const format = formatOf(value);
  if (format !== WIRING_FORMAT && format !== CHART_FORMAT) return parseCase(text);
  const wiring = format === CHART_FORMAT ? completed(readChart(value)) : readWiringOrChart(value);
  return wiring.ok
    ? ok({ format: "radicula/case", version: 1, title: wiring.value.name, wiring: wiring.value, entries: [] })
    : wiring;
}

/** What a chart leaves out is assumed. */
const completed = (chart: Result<Chart>): Result<Wiring> => (chart.ok ? ok(completeWiring(chart.value)) : chart);

async function fromStart(start: z.infer<typeof Start>): Promise<Response> {
  const { wiring, ...about } = start;
  const { job, wiringId } = await database().transaction(async (tx) => {
    const used =
      typeof wiring === "string"
        ? wiring
        : await createWiring(blankChart(start.machine ?? start.title, wiring.machineType, wiring.nominalVolt), tx);
    return { job: await startJob(about, used, tx), wiringId: used };
  });
  return job ? answer({ ...job, wiringId }, 201) : refuse(404, [issue("server.no-such-wiring")]);
}

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
/** An entry that names its recording by the id it has here; one whose recording did not come names none. */
function withRecording(entry: Entry, fresh: ReadonlyMap<string, string>): Entry {
  if (entry.type !== "trace" || entry.recording === undefined) return entry;
  const { recording, ...rest } = entry;
  const own = fresh.get(recording);
  return own === undefined ? rest : { ...rest, recording: own };
}

/** What stands on a page that came in a file; nothing where it does not read. */
function contentOf(text: string | undefined): SheetContent | undefined {
  try {
    const read = SheetContent.safeParse(JSON.parse(text ?? ""));
    return read.success && unsaveable(read.data) === undefined ? read.data : undefined;
  } catch {
    return undefined;
  }
}

async function fromZip(request: Request): Promise<Response> {
  const bytes = await limitedBytes(request, ZIP.bytes);
  if (!bytes) return refuse(413, [issue("file.zip-too-large", [], { limit: ZIP.bytes })]);
  const files = await readZip(bytes);
  if (!files.ok) return refuse(422, files.issues);
  const read = parseCase(files.value.caseText);
  if (!read.ok) return refuse(422, read.issues);
  const clean = await Promise.all(
    files.value.photos.map(async (p) => ({ connector: p.connector.slice(0, 40), photo: await cleanPhoto(p.bytes) })),
  );
  const bad = unsaveable(read.value) ?? clean.find((c) => !isSaveable(c.connector))?.connector;
  if (bad !== undefined) return refuse(422, [issue("text.unsaveable", typeof bad === "string" ? [] : bad)]);
  // recordings get ids of their own: the job they come from may be here, too
  const fresh = new Map(files.value.recordings.map((r) => [r.id, crypto.randomUUID() as string]));
  const about = aboutRecordings(files.value.aboutRecordings);
  const job = { ...read.value, entries: read.value.entries.map((e) => withRecording(e, fresh)) };
  return savedUnlessStopped(request, async (tx) => {
    const left: Issue[] = [];
    const made = await createJob(job, {}, tx);
    for (const { id, bytes } of files.value.recordings) {
      const told = about.get(id);
      const name = told && isSaveable(told.name) ? told.name : "recording";
      await keepRecording(tx, made, { name, reading: told?.reading ?? {}, id: fresh.get(id)! }, once(bytes));
    }
    const wiring = await wiringOfJob(made, tx);
    // a wiring that is in the library already has its photos
    const there = new Set(wiring ? await photographed(wiring, tx) : []);
    for (const { connector, photo } of clean) {
      if (photo.ok && there.has(connector)) continue;
      const added = photo.ok && wiring ? await addPhoto(wiring, connector, photo.value, tx) : "full";
      if (added === "full" || added === "gone") left.push(issue("photo.not-a-photo", [connector]));
    }
    const named = new Set(job.wiring.pages?.sheets.map((s) => s.id));
    for (const { id, jpeg, content } of files.value.pages) {
      if (!wiring || !named.has(id)) continue; // nobody would ever see it
      const page = await tiledPage(jpeg);
      if (!page.ok) left.push(...page.issues);
      else if (!(await keepPageAs(wiring, id, page.value, contentOf(content), tx)))
        left.push(issue("page.no-picture", [id]));
    }
    return { id: made, issues: left };
  });
}
