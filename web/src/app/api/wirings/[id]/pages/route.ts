import { issue } from "@radicula/core";
import { answer, answering, limitedBytes, refuse } from "@/server/answers";
import { tiledPage } from "@/server/pages";
import { keepPage, PageRefused } from "@/server/repo/pages";
import { WiringId } from "@/server/repo/wirings";
import { PAGE } from "@/ui/pageLimits";

export const dynamic = "force-dynamic";

/** A page of a drawing: the bytes of a JPEG, PNG or WebP picture. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = WiringId.safeParse((await params).id);
    // a form of another origin cannot send this type
    if (!/^image\//i.test(request.headers.get("content-type") ?? "")) return refuse(415, [issue("page.no-picture")]);
    if (!id.success) return refuse(404, [issue("server.no-such-wiring")]);
    const bytes = await limitedBytes(request, PAGE.bytes);
    if (!bytes) return refuse(413, [issue("page.too-large", [], { limit: PAGE.bytes })]);
    return inTurn(() => keep(id.data, bytes, request.signal));
  });

async function keep(wiringId: string, bytes: Buffer, signal: AbortSignal): Promise<Response> {
  if (signal.aborted) return refuse(499, [issue("server.stopped")]);
  const tiled = await tiledPage(bytes);
  if (!tiled.ok) return refuse(422, tiled.issues);
  try {
    const kept = await keepPage(wiringId, tiled.value, () => signal.aborted);
    return kept === "gone" ? refuse(404, [issue("server.no-such-wiring")]) : answer(kept, 201);
  } catch (error) {
    if (!(error instanceof PageRefused)) throw error;
    return error.why === "full"
      ? refuse(422, [issue("page.too-many", [], { limit: PAGE.each })])
      : refuse(499, [issue("server.stopped")]);
  }
}

/** Pictures are opened one after the other: each may take some hundred megabytes. */
let last: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const mine = last.then(work, work);
  last = mine.catch(() => undefined);
  return mine;
}
