"use client";
import type { Chart, DrawingSheet, Issue, ReadSheet, SheetContent } from "@radicula/core";
import { wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import type { PageApi } from "@/workers/page.worker";
import { fetchPage, type Page } from "@/ui/page/fetchPage";

export const NOTHING_READ: ReadSheet = { boxes: [], stars: [], wires: [] };

/** A page as it is kept, and what it says once it has been read. */
export interface OpenPage {
  readonly page: Page | undefined;
  readonly read: ReadSheet;
  readonly isReading: boolean;
  readonly issues: readonly Issue[];
  /** what was read of a picture is there now */
  readonly setContent: (content: SheetContent) => void;
}

/**
 * The page that is looked at. It is read in a worker, again where somebody marked a splice on it that the drawing does
 * not show as one.
 */
export function useOpenPage(chart: Chart, sheet: DrawingSheet | undefined): OpenPage {
  const [loaded, setLoaded] = useState<
    { readonly id: string; readonly page?: Page; readonly issues: readonly Issue[] } | undefined
  >(undefined);
  const [read, setRead] = useState<
    { readonly id: string; readonly of: SheetContent; readonly read: ReadSheet } | undefined
  >(undefined);
  const id = sheet?.id;
  useEffect(() => {
    if (id === undefined) return;
    let isGone = false;
    void fetchPage(id).then((answer) => {
      if (isGone) return;
      setLoaded(answer.ok ? { id, page: answer.body, issues: [] } : { id, issues: answer.issues });
    });
    return () => {
      isGone = true;
    };
  }, [id]);
  const own = loaded?.id === id ? loaded : undefined;
  const bare = own?.page?.content ?? undefined;
  const dots = useMemo(() => JSON.stringify(id === undefined ? [] : splicesOn(chart, id)), [chart, id]);
  const content = useMemo(() => bare && withDots(bare, JSON.parse(dots) as [number, number][]), [bare, dots]);
  useEffect(() => {
    if (!content || id === undefined) return;
    const worker = new Worker(new URL("../../../workers/page.worker.ts", import.meta.url), { type: "module" });
    void wrap<PageApi>(worker)
      .read(content)
      .then(
        (found) => setRead({ id, of: content, read: found }),
        () => undefined,
      );
    return () => worker.terminate();
  }, [content, id]);
  const isRead = read !== undefined && read.of === content;
  return {
    page: own?.page,
    // what was read before stays while a splice more is taken into account
    read: content && read !== undefined && read.id === id ? read.read : NOTHING_READ,
    isReading: content !== undefined && !isRead,
    issues: own?.issues ?? [],
    setContent: (read) => setLoaded((was) => (was?.page ? { ...was, page: { ...was.page, content: read } } : was)),
  };
}

/** Where splices were marked on a page. */
function splicesOn({ pages, parts }: Chart, sheet: string): [number, number][] {
  const grounds = new Set(parts.flatMap((p) => (p.kind === "ground" ? [p.id.toUpperCase()] : [])));
  return pages.marks.flatMap((m): [number, number][] =>
    m.sheet === sheet && m.width === undefined && !m.at.includes(":") && !grounds.has(m.at.toUpperCase())
      ? [[m.x, m.y]]
      : [],
  );
}
function withDots(content: SheetContent, marked: readonly [number, number][]): SheetContent {
  const near = 0.003 * Math.max(content.width, content.height);
  const added = marked.filter(([x, y]) => !content.dots.some(([a, b]) => Math.hypot(a - x, b - y) < near));
  if (added.length === 0) return content;
  return { ...content, dots: [...content.dots, ...added.map(([x, y]): [number, number, number] => [x, y, near])] };
}
