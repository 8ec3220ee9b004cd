"use client";
import type { DrawingSheet, Issue } from "@radicula/core";
import { useEffect, useRef, useState, type ComponentProps } from "react";
import { openPdf, type OpenPdf } from "./pdf";
import { openPicture } from "./picture";
import { sendPage } from "./sendPage";
import type { Straighten } from "./Straighten";
import { t } from "@/messages";

/** A PDF with no more pages than these is taken whole. */
const WHOLE = 4;

/** A PDF of many pages, of which some are to be chosen. */
export interface LongPdf {
  readonly pdf: OpenPdf;
  readonly file: File;
}

/** Files become pages of a wiring, one after the other: pictures straightened first, long PDFs asked about. */
export function useTakeIn(
  wiringId: string,
  has: readonly DrawingSheet[],
  onSheets: (sheets: readonly DrawingSheet[]) => void,
) {
  const [work, setWork] = useState<
    { readonly of: number; readonly done: number; readonly stop: () => void } | undefined
  >(undefined);
  /** a photo that is being opened */
  const [opening, setOpening] = useState<{ readonly name: string; readonly stop: () => void } | undefined>(undefined);
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const [twice, setTwice] = useState<readonly string[]>([]);
  const [choosing, setChoosing] = useState<LongPdf | undefined>(undefined);
  const [straightening, setStraightening] = useState<ComponentProps<typeof Straighten> | undefined>(undefined);
  const keep = async (
    list: readonly {
      readonly name: string;
      readonly make: () => ReturnType<OpenPdf["take"]> | { readonly picture: Blob };
    }[],
    source: string,
  ) => {
    const stop = new AbortController();
    const added: DrawingSheet[] = [];
    const known: string[] = [];
    let wrong: readonly Issue[] = [];
    for (const [done, { name, make }] of list.entries()) {
      setWork({ of: list.length, done, stop: () => stop.abort() });
      try {
        const kept = await sendPage(wiringId, { name, source, ...(await make()) }, stop.signal);
        if (!kept.ok) wrong = kept.issues;
        else if (has.some((s) => s.id === kept.value.sheet.id)) known.push(name);
        else added.push(kept.value.sheet);
      } catch {
        wrong = [{ code: "page.no-pdf", path: [], params: {} }];
      }
      if (stop.signal.aborted || wrong.length) break;
    }
    setWork(undefined);
    setIssues(wrong);
    setTwice(known);
    if (added.length) onSheets(added);
  };
  const takePages = ({ pdf, file }: LongPdf, pages: readonly number[]) => {
    setChoosing(undefined);
    const name = file.name.replace(/\.pdf$/i, "");
    const list = pages.map((n) => ({
      name: pdf.pages === 1 ? name : t("paper.pageOf", { name, page: n }),
      make: () => pdf.take(n),
    }));
    void keep(list, file.name.slice(0, 120)).finally(pdf.close);
  };
  const takePicture = async (file: File) => {
    const name = file.name.replace(/\.\w+$/, "") || t("paper.photo");
    const stop = new AbortController();
    setOpening({ name, stop: () => stop.abort() });
    const opened = await openPicture(file, stop.signal);
    setOpening(undefined);
    if (stop.signal.aborted) return;
    if (!opened.ok) {
      setIssues(opened.issues);
      return;
    }
    const picture = await new Promise<Blob | undefined>((done) =>
      setStraightening({
        picture: opened.value.picture,
        name,
        onTake: (straight) => done(straight ?? opened.value.file),
        onClose: () => done(undefined),
      }),
    );
    setStraightening(undefined);
    opened.value.picture.close();
    if (picture) await keep([{ name, make: () => ({ picture }) }], file.name.slice(0, 120));
  };
  const take = async (files: readonly File[]) => {
    setIssues([]);
    setTwice([]);
    for (const file of files) {
      if (file.type !== "application/pdf" && !/\.pdf$/i.test(file.name)) {
        await takePicture(file);
        continue;
      }
      const opened = await openPdf(file);
      if (!opened.ok) setIssues(opened.issues);
      else if (opened.value.pages <= WHOLE)
        takePages(
          { pdf: opened.value, file },
          Array.from({ length: opened.value.pages }, (_, i) => i + 1),
        );
      else setChoosing({ pdf: opened.value, file });
    }
  };
  return { work, opening, issues, twice, choosing, setChoosing, straightening, take, takePages };
}

/** Files that are dropped on the window, or pasted. */
export function useGivenFiles(onFiles: (files: readonly File[]) => Promise<void>) {
  const latest = useRef(onFiles);
  useEffect(() => {
    latest.current = onFiles;
  });
  useEffect(() => {
    const give = (list: FileList | undefined) => {
      if (list?.length) void latest.current([...list]);
    };
    const onPaste = (e: ClipboardEvent) => give(e.clipboardData?.files);
    const onOver = (e: DragEvent) => e.preventDefault();
    const onDrop = (e: DragEvent) => {
      e.preventDefault();
      give(e.dataTransfer?.files);
    };
    window.addEventListener("paste", onPaste);
    window.addEventListener("drop", onDrop);
    window.addEventListener("dragover", onOver);
    return () => {
      window.removeEventListener("paste", onPaste);
      window.removeEventListener("drop", onDrop);
      window.removeEventListener("dragover", onOver);
    };
  }, []);
}
