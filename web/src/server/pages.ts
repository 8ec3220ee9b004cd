import { createHash } from "node:crypto";
import sharp from "sharp";
import { fail, issue, ok, type Result } from "@radicula/core";
import { PAGE } from "@/ui/pageLimits";

/** Only these are decoded: formats that can hold scripts or other files (SVG, PDF) are not. */
const FORMATS: ReadonlySet<string> = new Set(["jpeg", "png", "webp"]);

export interface Tile {
  readonly level: number;
  readonly x: number;
  readonly y: number;
  readonly jpeg: Buffer;
}
export interface TiledPage {
  readonly hash: string;
  readonly width: number;
  readonly height: number;
  /** made one after the other, the smallest level first: never all of them at once */
  readonly tiles: () => AsyncGenerator<Tile>;
}

/**
 * The picture of a page, upright, ready to be cut into tiles: every level is half as large as the next, the largest has
 * the picture's own size. The size is read before anything is decoded.
 * Issues: `page.no-picture`, `page.too-many-points`.
 */
export async function tiledPage(bytes: Buffer): Promise<Result<TiledPage>> {
  const picture = () => sharp(bytes, { limitInputPixels: PAGE.points, failOn: "error" });
  try {
    const { format, width, height, autoOrient } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (!FORMATS.has(format ?? "") || !width || !height) return fail([issue("page.no-picture")]);
    if (width * height > PAGE.points)
      return fail([
        issue("page.too-many-points", [], {
          millions: Math.ceil((width * height) / 1e6),
          limit: Math.floor(PAGE.points / 1e6),
        }),
      ]);
    // the whole picture is decoded once: a file that ends too soon is told before anything is kept
    const { data, info } = await picture()
      .autoOrient()
      .flatten({ background: "#ffffff" })
      .toColourspace("srgb")
      .raw()
      .toBuffer({ resolveWithObject: true });
    const size = { width: autoOrient.width, height: autoOrient.height };
    const raw = { width: info.width, height: info.height, channels: info.channels };
    const hash = createHash("sha256").update(bytes).digest("hex");
    return ok({ hash, ...size, tiles: () => tilesOf(data, raw) });
  } catch {
    return fail([issue("page.no-picture")]);
  }
}

async function* tilesOf(
  data: Buffer,
  raw: { readonly width: number; readonly height: number; readonly channels: 1 | 2 | 3 | 4 },
): AsyncGenerator<Tile> {
  const most = Math.ceil(Math.log2(Math.max(raw.width, raw.height)));
  for (let level = PAGE.leastLevel; level <= topLevel(raw); level++) {
    const share = 2 ** (level - most);
    const width = Math.max(1, Math.ceil(raw.width * share));
    const height = Math.max(1, Math.ceil(raw.height * share));
    const level0 =
      share >= 1
        ? { data, info: raw }
        : await sharp(data, { raw, limitInputPixels: false })
            .resize(width, height, { fit: "fill" })
            .raw()
            .toBuffer({ resolveWithObject: true });
    const own = { width: level0.info.width, height: level0.info.height, channels: raw.channels };
    for (let y = 0; y * PAGE.tile < own.height; y++)
      for (let x = 0; x * PAGE.tile < own.width; x++)
        yield {
          level,
          x,
          y,
          jpeg: await sharp(level0.data, { raw: own, limitInputPixels: false })
            .extract({
              left: x * PAGE.tile,
              top: y * PAGE.tile,
              width: Math.min(PAGE.tile, own.width - x * PAGE.tile),
              height: Math.min(PAGE.tile, own.height - y * PAGE.tile),
            })
            .jpeg({ quality: 84 })
            .toBuffer(),
        };
  }
}

interface Size {
  readonly width: number;
  readonly height: number;
}
/** The level at which a picture has its own size. */
export const topLevel = ({ width, height }: Size): number =>
  Math.max(Math.ceil(Math.log2(Math.max(width, height))), PAGE.leastLevel);

/** The tiles of the top level, joined to one picture again. */
export async function joined(
  { width, height }: Size,
  tiles: readonly { readonly x: number; readonly y: number; readonly jpeg: Buffer }[],
): Promise<Buffer> {
  return sharp({ create: { width, height, channels: 3, background: "#ffffff" }, limitInputPixels: false })
    .composite(tiles.map(({ x, y, jpeg }) => ({ input: jpeg, left: x * PAGE.tile, top: y * PAGE.tile })))
    .jpeg({ quality: 88 })
    .toBuffer();
}
