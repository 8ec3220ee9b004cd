import { issue } from "@radicula/core";
import { answering, refuse } from "@/server/answers";
import { onEntries } from "@/server/live";
import { jobExists, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";
/** Often enough that nothing between takes the line for dead, ms. */
const BEAT_MS = 20_000;

/** The number of the last entry whenever there are new ones, as server-sent events. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = JobId.safeParse((await params).id);
    if (!id.success || !(await jobExists(id.data))) return refuse(404, [issue("server.no-such-job")]);
    const text = new TextEncoder();
    let end = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        let isOver = false;
        const say = (line: string) => {
          if (!isOver) controller.enqueue(text.encode(line));
        };
        const stop = onEntries(id.data, (last) => say(`data: ${last}\n\n`));
        const beat = setInterval(() => say(":\n\n"), BEAT_MS);
        end = () => {
          isOver = true;
          stop();
          clearInterval(beat);
        };
        request.signal.addEventListener("abort", () => {
          if (isOver) return; // the reader has given it up itself
          end();
          controller.close();
        });
        say("retry: 1000\n:\n\n");
      },
      cancel: () => end(),
    });
    return new Response(stream, {
      headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store, no-transform" },
    });
  });
