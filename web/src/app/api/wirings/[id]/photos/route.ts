import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, limitedBytes, refuse } from "@/server/answers";
import { cleanPhoto, PHOTO } from "@/server/photos";
import { addPhoto } from "@/server/repo/photos";
import { WiringId } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";
const Connector = z.string().min(1).max(40);

/** A photo of ?connector=B7: the bytes of a JPEG, PNG or WebP file. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = WiringId.safeParse((await params).id);
    const connector = Connector.safeParse(new URL(request.url).searchParams.get("connector"));
    // a form of another origin cannot send this type
    if (!/^image\//i.test(request.headers.get("content-type") ?? "")) return refuse(415, [issue("photo.not-a-photo")]);
    if (!id.success || !connector.success) return refuse(404, [issue("server.no-such-wiring")]);
    const bytes = await limitedBytes(request, PHOTO.bytes);
    if (!bytes)
      return refuse(413, [
        issue("photo.too-large", [], {
          bytes: Number(request.headers.get("content-length") ?? PHOTO.bytes + 1),
          limit: PHOTO.bytes,
        }),
      ]);
    const clean = await cleanPhoto(bytes);
    if (!clean.ok) return refuse(422, clean.issues);
    const added = await addPhoto(id.data, connector.data, clean.value);
    if (added === "gone") return refuse(404, [issue("server.no-such-wiring")]);
    if (added === "full") return refuse(422, [issue("photo.too-many", [], { limit: PHOTO.each })]);
    return answer({ id: added, width: clean.value.width, height: clean.value.height }, 201);
  });
