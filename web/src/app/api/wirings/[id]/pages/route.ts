import { issue } from "@radicula/core";
import { answer, answering, limitedBytes, refuse } from "@/server/answers";
import { tiledPage } from "@/server/pages";
import { keepPage, PageStopped } from "@/server/repo/pages";
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
    const tiled = await tiledPage(bytes);
    if (!tiled.ok) return refuse(422, tiled.issues);
    try {
      const kept = await keepPage(id.data, tiled.value, () => request.signal.aborted);
      if (kept === "gone") return refuse(404, [issue("server.no-such-wiring")]);
      if (kept === "full") return refuse(422, [issue("page.too-many", [], { limit: PAGE.each })]);
      return answer(kept, 201);
    } catch (error) {
      if (error instanceof PageStopped) return refuse(499, [issue("server.stopped")]);
      throw error;
    }
  });
