import sharp from "sharp";
import { fail, issue, ok, type Result } from "@radicula/core";

/** Largest upload, largest picture in points, longest side kept, photos at one connector. */
export const PHOTO = { bytes: 12_000_000, points: 60_000_000, side: 1600, each: 8 } as const;
/** Only these are decoded: formats that can hold scripts or other files (SVG, PDF) are not. */
const FORMATS: ReadonlySet<string> = new Set(["jpeg", "png", "webp"]);

/**
 * Decodes a photo and writes it anew as JPEG: whatever the camera or anybody else put beside the picture is left
 * behind.
 * Issues: `photo.not-a-photo`, `photo.too-large`.
 */
export async function cleanPhoto(
  bytes: Buffer,
): Promise<Result<{ readonly jpeg: Buffer; readonly width: number; readonly height: number }>> {
  if (bytes.byteLength > PHOTO.bytes)
    return fail([issue("photo.too-large", [], { bytes: bytes.byteLength, limit: PHOTO.bytes })]);
  try {
    const picture = sharp(bytes, { limitInputPixels: PHOTO.points, failOn: "error" });
    const { format } = await picture.metadata();
    if (!FORMATS.has(format ?? "")) return fail([issue("photo.not-a-photo")]);
    // turned as the camera meant it, before that note is dropped with all others
    const { data, info } = await picture
      .rotate()
      .resize({ width: PHOTO.side, height: PHOTO.side, fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return ok({ jpeg: data, width: info.width, height: info.height });
  } catch {
    return fail([issue("photo.not-a-photo")]);
  }
}
