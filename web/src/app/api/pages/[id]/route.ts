import { issue, SheetContent } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse, refuseBody } from "@/server/answers";
import { findPage, setContent } from "@/server/repo/pages";
import { PAGE } from "@/ui/pageLimits";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

/** The size of a page's picture, with the words and strokes on it where they are known. */
export const GET = (_request: Request, { params }: Context) =>
  answering(async () => {
    const id = z.uuid().safeParse((await params).id);
    const page = id.success ? await findPage(id.data) : undefined;
    return page ? answer(page) : refuse(404, [issue("server.no-such-page")]);
  });

/** What is written and drawn on a page. */
export const PUT = (request: Request, { params }: Context) =>
  answering(async () => {
    const body = await jsonBody(request, PAGE.content);
    if (!body.ok) return body.refused;
    const content = SheetContent.safeParse(body.value);
    if (!content.success) return refuseBody(content.error);
    const id = z.uuid().safeParse((await params).id);
    return id.success && (await setContent(id.data, content.data))
      ? answer({})
      : refuse(404, [issue("server.no-such-page")]);
  });
