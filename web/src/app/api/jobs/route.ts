import { issue, MAX_CHARACTERS, parseCase, parseJson, readWiring, type Case } from "@radicula/core";
import { z } from "zod";
import { answer, answering, isJson, limitedBytes, limitedText, notJson, refuse } from "@/server/answers";
import { cleanPhoto } from "@/server/photos";
import { createJob, findJob, startJob } from "@/server/repo/jobs";
import { addPhoto } from "@/server/repo/photos";
import { blankChart, createWiring, findWiring, WiringId } from "@/server/repo/wirings";
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
 * Takes a case, a wiring document as the start of a new one, a zip with photos, or what is said of a new job. Nothing
 * is saved unless all of it reads.
 */
export const POST = (request: Request) =>
  answering(async () => {
    if (/^application\/zip\b/i.test(request.headers.get("content-type") ?? "")) return fromZip(request);
    if (!isJson(request)) return notJson();
    const text = await limitedText(request, MAX_CHARACTERS);
    if (text === undefined)
      return refuse(413, [
        issue("file.too-large", [], {
          characters: Number(request.headers.get("content-length") ?? MAX_CHARACTERS + 1),
          limit: MAX_CHARACTERS,
        }),
      ]);
    const json = parseJson(text);
    if (!json.ok) return refuse(422, json.issues);
    const start = Start.safeParse(json.value);
    if (start.success) return fromStart(start.data);
    const read = caseOf(json.value, text);
    if (!read.ok) return refuse(422, read.issues);
    return answer({ id: await createJob(read.value) }, 201);
  });

function caseOf(value: unknown, text: string) {
  if (typeof value === "object" && value !== null && "format" in value && value.format === "radicula/wiring") {
    const wiring = readWiring(value);
    return wiring.ok
      ? {
          ok: true as const,
          value: {
            format: "radicula/case",
            version: 1,
            title: wiring.value.name,
            wiring: wiring.value,
            entries: [],
          } satisfies Case,
        }
      : wiring;
  }
  return parseCase(text);
}

async function fromStart(start: z.infer<typeof Start>): Promise<Response> {
  const { wiring, ...about } = start;
  const wiringId =
    typeof wiring === "string"
      ? wiring
      : await createWiring(blankChart(start.machine ?? start.title, wiring.machineType, wiring.nominalVolt));
  const id = await startJob(about, wiringId);
  return id ? answer({ id, wiringId }, 201) : refuse(404, [issue("server.no-such-wiring")]);
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
  const id = await createJob(read.value);
  const library = (await findJob(id))?.library;
  // a wiring that is in the library already has its photos
  const there = new Set(library ? (await findWiring(library.id))?.photos.map((p) => p.connector) : []);
  const left: string[] = [];
  for (const { connector, photo } of clean) {
    if (photo.ok && there.has(connector)) continue;
    if (photo.ok && library) await addPhoto(library.id, connector, photo.value);
    else left.push(connector);
  }
  return answer({ id, issues: left.map((connector) => issue("photo.not-a-photo", [connector])) }, 201);
}
