import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, isJson, notJson, refuse } from "@/server/answers";
import { findPhoto, removePhoto } from "@/server/repo/photos";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

export const GET = (_request: Request, { params }: Context) =>
  answering(async () => {
    const id = z.uuid().safeParse((await params).id);
    const photo = id.success ? await findPhoto(id.data) : undefined;
    if (!photo) return refuse(404, [issue("server.no-such-photo")]);
    return new Response(new Uint8Array(photo), {
      headers: {
        "Content-Type": "image/jpeg",
        "Cache-Control": "private, max-age=86400, immutable",
        "Content-Security-Policy": "default-src 'none'",
      },
    });
  });

export const DELETE = (request: Request, { params }: Context) =>
  answering(async () => {
    if (!isJson(request)) return notJson();
    const id = z.uuid().safeParse((await params).id);
    return id.success && (await removePhoto(id.data)) ? answer({}) : refuse(404, [issue("server.no-such-photo")]);
  });
