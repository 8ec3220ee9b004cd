import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, refuse } from "@/server/answers";
import { database } from "@/server/db/connection";
import { JobId } from "@/server/repo/jobs";
import { HowToRead, keepRecording, RECORDING } from "@/server/repo/recordings";
import { isSaveable } from "@/server/saveable";

export const dynamic = "force-dynamic";
const Name = z.string().trim().min(1).max(120).refine(isSaveable);

/** Thrown inside the transaction: nothing of the recording is kept. */
class NotKept extends Error {
  constructor(readonly why: "gone" | "large" | "stopped") {
    super(why);
  }
}

/** A recording of ?name=…, compressed with gzip; ?reading= says how it is to be read, as JSON. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    // a form of another origin cannot send this type
    if (!/^application\/gzip\b/i.test(request.headers.get("content-type") ?? ""))
      return refuse(415, [issue("recording.not-compressed")]);
    const id = JobId.safeParse((await params).id);
    const query = new URL(request.url).searchParams;
    const name = Name.safeParse(query.get("name"));
    const reading = HowToRead.safeParse(jsonOr(query.get("reading"), {}));
    if (!id.success) return refuse(404, [issue("server.no-such-job")]);
    if (!name.success || !reading.success || !request.body)
      return refuse(400, [issue("schema.request", [], { message: "name, reading or body" })]);
    const { body } = request;
    try {
      const kept = await database().transaction(async (tx) => {
        const made = await keepRecording(tx, id.data, { name: name.data, reading: reading.data }, bytesOf(body));
        if (typeof made === "string") throw new NotKept(made);
        if (request.signal.aborted) throw new NotKept("stopped");
        return made;
      });
      return answer(kept, 201);
    } catch (error) {
      if (!(error instanceof NotKept)) throw error;
      if (error.why === "gone") return refuse(404, [issue("server.no-such-job")]);
      return error.why === "large"
        ? refuse(413, [issue("recording.too-large", [], { limit: RECORDING.bytes })])
        : refuse(499, [issue("server.stopped")]);
    }
  });

async function* bytesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    yield value;
  }
}
function jsonOr(text: string | null, otherwise: unknown): unknown {
  if (text === null) return otherwise;
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
