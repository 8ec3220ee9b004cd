import { fail, ok, type DrawingSheet, type Result, type SheetContent } from "@radicula/core";
import { z } from "zod";
import { Done, postAs, put } from "@/ui/send";

const Kept = z.object({ id: z.string(), width: z.number(), height: z.number(), known: z.boolean() });

/** A page kept, and whether the wiring had it before. */
export interface KeptSheet {
  readonly sheet: DrawingSheet;
  readonly known: boolean;
}

/** Keeps a page's picture with what stands on it. A picture by itself has its own points as units. */
export async function sendPage(
  wiringId: string,
  page: { readonly name: string; readonly picture: Blob; readonly content?: SheetContent; readonly source?: string },
  signal: AbortSignal,
): Promise<Result<KeptSheet>> {
  const type = /^image\//.test(page.picture.type) ? page.picture.type : "image/unknown";
  const kept = await postAs(type, `/api/wirings/${wiringId}/pages`, page.picture, Kept, signal);
  if (!kept.ok) return fail(kept.issues);
  const { id, known } = kept.body;
  const { width, height } = page.content ?? kept.body;
  if (page.content && !known) {
    const said = await put(`/api/pages/${id}`, page.content, Done);
    if (!said.ok) return fail(said.issues);
  }
  return ok({ known, sheet: { id, name: page.name.slice(0, 80), source: page.source ?? "", width, height } });
}
