import type { Readable } from "node:stream";
import { fail, issue, MAX_CHARACTERS, ok, type Result } from "@radicula/core";
import yauzl from "yauzl";
import { ZipFile } from "yazl";

/** A zip is unpacked no further than this, whatever it claims of itself. */
export const ZIP = { bytes: 60_000_000, unpacked: 120_000_000, files: 400, photo: 12_000_000 } as const;
export interface JobFiles {
  readonly caseText: string;
  readonly photos: readonly { readonly connector: string; readonly bytes: Buffer }[];
  /** recordings as they are kept, compressed, by the ids that the logbook names them by */
  readonly recordings: readonly { readonly id: string; readonly bytes: Buffer }[];
  /** what `recordings.json` says of them; of a file that nobody has checked */
  readonly aboutRecordings: string | undefined;
  /** pictures of the pages of the drawing, by the ids that the wiring names them by, and what stands on them */
  readonly pages: readonly { readonly id: string; readonly jpeg: Buffer; readonly content: string | undefined }[];
}

/**
 * `case.json`, photos as `photos/B7/1.jpg`, recordings as `recordings/ID.gz` with their names in `recordings.json`,
 * pages of the drawing as `pages/ID.jpg` with what stands on them in `pages/ID.json`.
 */
export async function writeZip(
  caseText: string,
  photos: readonly { readonly connector: string; readonly jpeg: Buffer }[],
  recordings: readonly { readonly id: string; readonly about: unknown; readonly bytes: Buffer }[] = [],
  pages: readonly { readonly id: string; readonly jpeg: Buffer; readonly content: unknown }[] = [],
): Promise<Buffer> {
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from(caseText), "case.json");
  const count = new Map<string, number>();
  for (const p of photos) {
    const n = (count.get(p.connector) ?? 0) + 1;
    count.set(p.connector, n);
    zip.addBuffer(p.jpeg, `photos/${encodeURIComponent(p.connector)}/${n}.jpg`, { compress: false });
  }
  for (const r of recordings) zip.addBuffer(r.bytes, `recordings/${r.id}.gz`, { compress: false });
  if (recordings.length) {
    const about = Object.fromEntries(recordings.map((r) => [r.id, r.about]));
    zip.addBuffer(Buffer.from(JSON.stringify(about)), "recordings.json");
  }
  for (const p of pages) {
    zip.addBuffer(p.jpeg, `pages/${p.id}.jpg`, { compress: false });
    if (p.content) zip.addBuffer(Buffer.from(JSON.stringify(p.content)), `pages/${p.id}.json`);
  }
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream as unknown as AsyncIterable<Buffer>) chunks.push(chunk);
  return Buffer.concat(chunks);
}

const RECORDING_NAME = /^recordings\/([0-9a-f-]{36})\.gz$/;
const PAGE_NAME = /^pages\/([0-9a-f-]{36})\.(jpg|json)$/;
const PHOTO_NAME = /^photos\/([^/]{1,120})\/[^/]{1,80}$/;
/**
 * Reads such a file. Bytes are counted as they come out, so a small file that would unpack to a huge one is given up
 * at the limit. Issues: `file.not-a-zip`, `file.zip-too-large`, `file.zip-without-case`.
 */
export async function readZip(bytes: Buffer): Promise<Result<JobFiles>> {
  let zip: yauzl.ZipFile;
  try {
    zip = await open(bytes);
  } catch {
    return fail([issue("file.not-a-zip")]);
  }
  const tooLarge = () => fail([issue("file.zip-too-large", [], { limit: ZIP.unpacked })]);
  if (zip.entryCount > ZIP.files) return tooLarge();
  let caseText: string | undefined;
  let total = 0;
  let aboutRecordings: string | undefined;
  const photos: { connector: string; bytes: Buffer }[] = [];
  const recordings: { id: string; bytes: Buffer }[] = [];
  const pictures = new Map<string, Buffer>();
  const contents = new Map<string, string>();
  try {
    for (let entry = await next(zip); entry; entry = await next(zip)) {
      const photo = PHOTO_NAME.exec(entry.fileName);
      const recording = RECORDING_NAME.exec(entry.fileName);
      const page = PAGE_NAME.exec(entry.fileName);
      const isAbout = entry.fileName === "recordings.json";
      if (entry.fileName !== "case.json" && !photo && !recording && !page && !isAbout) continue;
      const most = photo ? ZIP.photo : recording || page?.[2] === "jpg" ? ZIP.unpacked : 4 * MAX_CHARACTERS;
      const limit = Math.min(ZIP.unpacked - total, most);
      const data = await unpack(zip, entry, limit);
      if (!data) return tooLarge();
      total += data.byteLength;
      if (photo) photos.push({ connector: decodeURIComponent(photo[1]!), bytes: data });
      else if (recording) recordings.push({ id: recording[1]!, bytes: data });
      else if (page?.[2] === "jpg") pictures.set(page[1]!, data);
      else if (page) contents.set(page[1]!, data.toString("utf8"));
      else if (isAbout) aboutRecordings = data.toString("utf8");
      else caseText = data.toString("utf8");
    }
  } catch {
    return fail([issue("file.not-a-zip")]);
  } finally {
    zip.close();
  }
  return caseText === undefined
    ? fail([issue("file.zip-without-case")])
    : ok({
        caseText,
        photos,
        recordings,
        aboutRecordings,
        pages: [...pictures].map(([id, jpeg]) => ({ id, jpeg, content: contents.get(id) })),
      });
}

const open = (bytes: Buffer) =>
  new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.fromBuffer(bytes, { lazyEntries: true, strictFileNames: true }, (error, zip) =>
      error ? reject(error) : resolve(zip!),
    ),
  );
const next = (zip: yauzl.ZipFile) =>
  new Promise<yauzl.Entry | undefined>((resolve, reject) => {
    const done = () => {
      zip.removeListener("entry", onEntry);
      zip.removeListener("end", onEnd);
      zip.removeListener("error", onError);
    };
    const onEntry = (e: yauzl.Entry) => {
      done();
      resolve(e);
    };
    const onEnd = () => {
      done();
      resolve(undefined);
    };
    const onError = (e: Error) => {
      done();
      reject(e);
    };
    zip.on("entry", onEntry).on("end", onEnd).on("error", onError);
    zip.readEntry();
  });
/** One file's bytes, or undefined once they pass the limit. */
const unpack = (zip: yauzl.ZipFile, entry: yauzl.Entry, limit: number) =>
  new Promise<Buffer | undefined>((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error || !stream) {
        reject(error ?? new Error("no stream"));
        return;
      }
      void (async () => {
        const chunks: Buffer[] = [];
        let size = 0;
        for await (const chunk of stream as Readable) {
          size += (chunk as Buffer).byteLength;
          if (size > limit) {
            stream.destroy();
            resolve(undefined);
            return;
          }
          chunks.push(chunk as Buffer);
        }
        resolve(Buffer.concat(chunks));
      })().catch(reject);
    });
  });
