import { readSheet, SheetContent, type ReadSheet } from "@radicula/core";
import { expose } from "comlink";
import { readMessage } from "./messages";

const api = {
  /** What the strokes and words of a page say. */
  read: (content: unknown): ReadSheet => readSheet(readMessage(SheetContent, content)),
};
export type PageApi = typeof api;
expose(api);
