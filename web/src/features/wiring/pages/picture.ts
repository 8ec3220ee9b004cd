import { fail, issue, ok, type Result } from "@radicula/core";
import { wrap } from "comlink";
import { imageSize } from "image-size";
import { PAGE } from "@/ui/pageLimits";
import type { HeicApi } from "@/workers/heic.worker";

/** Enough of a file to tell how large its picture is, bytes. */
const HEAD = 512 * 1024;

/** A picture opened upright on this device, and a file of it that every browser and the server read. */
export interface OpenPicture {
  readonly picture: ImageBitmap;
  readonly file: Blob;
}

/**
 * Opens a picture. Its size is read from its head before anything is decoded.
 * @param signal stops it
 * Issues: `page.no-picture`, `page.too-many-points`.
 */
export async function openPicture(given: File, signal: AbortSignal): Promise<Result<OpenPicture>> {
  try {
    const { width, height, type } = imageSize(new Uint8Array(await given.slice(0, HEAD).arrayBuffer()));
    if (width * height > PAGE.points)
      return fail([
        issue("page.too-many-points", [], {
          millions: Math.ceil((width * height) / 1e6),
          limit: Math.floor(PAGE.points / 1e6),
        }),
      ]);
    const file = HEIC.has(type ?? "") ? await jpegOf(given, signal) : given;
    return ok({ picture: await createImageBitmap(file, { imageOrientation: "from-image" }), file });
  } catch {
    return fail([issue("page.no-picture")]);
  }
}
/** What tablets save photos as, and few browsers open. */
const HEIC: ReadonlySet<string> = new Set(["heic", "heif"]);

async function jpegOf(file: File, signal: AbortSignal): Promise<Blob> {
  const worker = new Worker(new URL("../../../workers/heic.worker.ts", import.meta.url), { type: "module" });
  try {
    // a worker that cannot be loaded answers nothing
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = () => reject(new Error("not loaded"));
      signal.addEventListener("abort", () => reject(new Error("stopped")));
    });
    return await Promise.race([wrap<HeicApi>(worker).toJpeg(file), failed]);
  } finally {
    worker.terminate();
  }
}
