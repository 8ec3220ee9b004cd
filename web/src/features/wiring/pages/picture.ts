import { fail, issue, ok, type Result } from "@radicula/core";
import { imageSize } from "image-size";
import { PAGE } from "@/ui/pageLimits";

/** Enough of a file to tell how large its picture is, bytes. */
const HEAD = 512 * 1024;

/**
 * A picture opened upright on this device. Its size is read from its head before anything is decoded.
 * Issues: `page.no-picture`, `page.too-many-points`.
 */
export async function openPicture(file: File): Promise<Result<ImageBitmap>> {
  try {
    const { width, height } = imageSize(new Uint8Array(await file.slice(0, HEAD).arrayBuffer()));
    if (width * height > PAGE.points)
      return fail([
        issue("page.too-many-points", [], {
          millions: Math.ceil((width * height) / 1e6),
          limit: Math.floor(PAGE.points / 1e6),
        }),
      ]);
    return ok(await createImageBitmap(file, { imageOrientation: "from-image" }));
  } catch {
    return fail([issue("page.no-picture")]);
  }
}
