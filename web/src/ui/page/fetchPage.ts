import { SheetContent } from "@radicula/core";
import { z } from "zod";
import { get } from "../send";

const Page = z.object({ width: z.number(), height: z.number(), content: SheetContent.nullable() });
/** Size of a page's picture, points; what is written and drawn on it, where that is known. */
export type Page = z.infer<typeof Page>;

export const fetchPage = (id: string) => get(`/api/pages/${id}`, Page);
