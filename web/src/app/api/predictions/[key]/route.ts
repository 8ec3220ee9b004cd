import { z } from "zod";
import { answering } from "@/server/answers";
import { packedWorkedOut } from "@/server/repo/workedOut";

export const dynamic = "force-dynamic";
const Key = z.string().regex(/^[0-9a-f]{64}$/);

/** What was predicted for a machine, by its key (`keptKeys`), compressed with gzip. 204 where nothing is kept. */
export const GET = (_request: Request, { params }: { params: Promise<{ key: string }> }) =>
  answering(async () => {
    const key = Key.safeParse((await params).key);
    const body = key.success ? await packedWorkedOut("predictions", key.data) : undefined;
    if (!body) return new Response(null, { status: 204, headers: { "Cache-Control": "no-store" } });
    return new Response(new Uint8Array(body), {
      headers: {
        "Content-Type": "application/gzip",
        "Content-Length": String(body.length),
        "Cache-Control": "no-store",
        "Content-Security-Policy": "default-src 'none'",
      },
    });
  });
