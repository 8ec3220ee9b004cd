import { issue } from "@radicula/core";
import { z } from "zod";
import { answering, refuse } from "@/server/answers";
import { findTile } from "@/server/repo/pages";

export const dynamic = "force-dynamic";
const Place = z.object({
  id: z.uuid(),
  level: z.coerce.number().int().min(0).max(20),
  tile: z.string().regex(/^\d{1,4}_\d{1,4}$/),
});

/** One tile of a page's picture: its level, and column and row as 3_2. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string; level: string; tile: string }> }) =>
  answering(async () => {
    const place = Place.safeParse(await params);
    const [x, y] = place.success ? place.data.tile.split("_").map(Number) : [];
    const jpeg = place.success ? await findTile(place.data.id, place.data.level, x!, y!) : undefined;
    if (!jpeg) return refuse(404, [issue("server.no-such-page")]);
    return new Response(new Uint8Array(jpeg), {
      headers: {
        "Content-Type": "image/jpeg",
        "Cache-Control": "private, max-age=86400, immutable",
        "Content-Security-Policy": "default-src 'none'",
      },
    });
  });
