"use client";
/* eslint-disable @next/next/no-img-element -- small pictures made on this page from the file */
import type { DrawingSheet, Issue } from "@radicula/core";
import { Button, Checkbox, Modal } from "antd";
import { useEffect, useRef, useState } from "react";
import { say } from "@/messages/issues";
import { LongWork } from "@/ui/LongWork";
import { PAGE } from "@/ui/pageLimits";
import { sendPage } from "./sendPage";
import { openPdf, type OpenPdf } from "./pdf";
import styles from "./Pages.module.css";
import { t } from "@/messages";

/** A PDF with no more pages than these is taken whole. */
const WHOLE = 4;
const ACCEPT = "application/pdf,image/jpeg,image/png,image/webp";

interface Props {
  readonly wiringId: string;
  readonly has: readonly DrawingSheet[];
  readonly onSheets: (sheets: readonly DrawingSheet[]) => void;
  readonly isFirst: boolean;
}
interface Chosen {
  readonly pdf: OpenPdf;
  readonly file: File;
}

/** Takes pages in: from a file, dropped, pasted, or from the camera of a tablet. */
export function TakeIn({ wiringId, has, onSheets, isFirst }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [work, setWork] = useState<
    { readonly of: number; readonly done: number; readonly stop: () => void } | undefined
  >(undefined);
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const [twice, setTwice] = useState<readonly string[]>([]);
  const [choosing, setChoosing] = useState<Chosen | undefined>(undefined);
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
  const takePages = ({ pdf, file }: Chosen, pages: readonly number[]) => {
    setChoosing(undefined);
    const name = file.name.replace(/\.pdf$/i, "");
    const list = pages.map((n) => ({
      name: pdf.pages === 1 ? name : t("paper.pageOf", { name, page: n }),
      make: () => pdf.take(n),
    }));
    void keep(list, file.name.slice(0, 120)).finally(pdf.close);
  };
  const take = async (files: readonly File[]) => {
    setIssues([]);
    setTwice([]);
    for (const file of files) {
      if (file.type !== "application/pdf" && !/\.pdf$/i.test(file.name)) {
        await keep(
          [{ name: file.name.replace(/\.\w+$/, "") || t("paper.photo"), make: () => ({ picture: file }) }],
          file.name.slice(0, 120),
        );
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
  useGivenFiles(take);
  return (
    <div className={isFirst ? styles.first : styles.takeIn}>
      {isFirst ? (
        <>
          <h2>{t("paper.yourOwnDrawing")}</h2>
          <p className="muted">{t("paper.aPdfOrAPhoto")}</p>
        </>
      ) : null}
      <input
        ref={input}
        type="file"
        accept={ACCEPT}
        multiple
        hidden
        data-testid="page-file"
        onChange={(e) => {
          void take([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      <Button type={isFirst ? "primary" : "text"} disabled={work !== undefined} onClick={() => input.current?.click()}>
        {t("paper.addPages")}
      </Button>
      {isFirst ? <p className="muted">{t("paper.staysHere")}</p> : null}
      {work ? (
        <LongWork
          says={t("paper.keepingPage", { page: work.done + 1, of: work.of })}
          value={work.done / work.of}
          onStop={work.stop}
        />
      ) : null}
      {issues.map((i, n) => (
        <p key={n} role="alert" className={styles.refused}>
          {say(i).text}
        </p>
      ))}
      {twice.length ? <p role="status">{t("paper.hasItAlready", { names: twice.join(", ") })}</p> : null}
      {choosing ? (
        <ChoosePages
          chosen={choosing}
          onTake={(pages) => takePages(choosing, pages)}
          onClose={() => {
            choosing.pdf.close();
            setChoosing(undefined);
          }}
        />
      ) : null}
    </div>
  );
}

/** Files that are dropped on the window, or pasted. */
function useGivenFiles(onFiles: (files: readonly File[]) => Promise<void>) {
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

/** Which pages of a long PDF are wanted. */
function ChoosePages({
  chosen,
  onTake,
  onClose,
}: {
  readonly chosen: Chosen;
  readonly onTake: (pages: readonly number[]) => void;
  readonly onClose: () => void;
}) {
  const [pictures, setPictures] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState<ReadonlySet<number>>(new Set());
  const { pdf } = chosen;
  const shown = Math.min(pdf.pages, PAGE.each);
  useEffect(() => {
    let isGone = false;
    void (async () => {
      for (let n = 1; n <= shown && !isGone; n++) {
        const picture = await pdf.thumbnail(n).catch(() => "");
        if (!isGone) setPictures((list) => [...list, picture]);
      }
    })();
    return () => {
      isGone = true;
    };
  }, [pdf, shown]);
  const toggle = (n: number) =>
    setWanted((was) => {
      const next = new Set(was);
      if (!next.delete(n)) next.add(n);
      return next;
    });
  return (
    <Modal
      open
      width={860}
      title={t("paper.whichPages", { pages: pdf.pages })}
      okText={t("paper.takePages", { count: wanted.size })}
      okButtonProps={{ disabled: wanted.size === 0 }}
      onOk={() => onTake([...wanted].sort((a, b) => a - b))}
      onCancel={onClose}
    >
      {shown < pdf.pages ? <p className="muted">{t("paper.firstPagesShown", { count: shown })}</p> : null}
      <div className={styles.choice}>
        {Array.from({ length: shown }, (_, i) => (
          <Checkbox key={i} checked={wanted.has(i + 1)} onChange={() => toggle(i + 1)}>
            {pictures[i] ? <img src={pictures[i]} alt="" /> : <span className={styles.blank} />}
            {i + 1}
          </Checkbox>
        ))}
      </div>
    </Modal>
  );
}
