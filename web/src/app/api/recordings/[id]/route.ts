import { Readable } from "node:stream";
import { issue } from "@radicula/core";
import { z } from "zod";
import { answering, refuse } from "@/server/answers";
import { findRecording, recordingBytes } from "@/server/repo/recordings";

export const dynamic = "force-dynamic";

/** A recording as it is kept: the file, compressed with gzip. How it is to be read stands in a header. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = z.uuid().safeParse((await params).id);
    const found = id.success ? await findRecording(id.data) : undefined;
    if (!id.success || !found) return refuse(404, [issue("server.no-such-recording")]);
    return new Response(Readable.toWeb(Readable.from(recordingBytes(id.data))) as ReadableStream<Uint8Array>, {
      headers: {
        "Content-Type": "application/gzip",
        "Content-Length": String(found.bytes),
        "Cache-Control": "private, max-age=86400, immutable",
        "Content-Security-Policy": "default-src 'none'",
        "X-Recording": encodeURIComponent(JSON.stringify({ name: found.name, reading: found.reading })),
      },
    });
  });
