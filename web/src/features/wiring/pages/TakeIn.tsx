"use client";
/* eslint-disable @next/next/no-img-element -- small pictures made on this page from the file */
import type { DrawingSheet } from "@radicula/core";
import { Button, Checkbox, Modal } from "antd";
import { useEffect, useRef, useState } from "react";
import { say } from "@/messages/issues";
import { LongWork } from "@/ui/LongWork";
import { useMedia } from "@/ui/useMedia";
import { PAGE } from "@/ui/pageLimits";
import { Straighten } from "./Straighten";
import { useGivenFiles, useTakeIn, type LongPdf } from "./useTakeIn";
import styles from "./Pages.module.css";
import { t } from "@/messages";

const ACCEPT = "application/pdf,image/jpeg,image/png,image/webp,image/heic,image/heif,.heic,.heif";

interface Props {
  readonly wiringId: string;
  readonly has: readonly DrawingSheet[];
  readonly onSheets: (sheets: readonly DrawingSheet[]) => void;
  readonly isFirst: boolean;
}

/** Takes pages in: from a file, dropped, pasted, or from the camera of a tablet. */
export function TakeIn({ wiringId, has, onSheets, isFirst }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const camera = useRef<HTMLInputElement>(null);
  const hasCamera = useMedia("(pointer: coarse)");
  const { work, opening, issues, twice, choosing, setChoosing, straightening, take, takePages } = useTakeIn(
    wiringId,
    has,
    onSheets,
  );
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
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        data-testid="page-camera"
        onChange={(e) => {
          void take([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      <Button type={isFirst ? "primary" : "text"} disabled={work !== undefined} onClick={() => input.current?.click()}>
        {t("paper.addPages")}
      </Button>
      {hasCamera ? (
        <Button
          type={isFirst ? "default" : "text"}
          disabled={work !== undefined}
          onClick={() => camera.current?.click()}
        >
          {t("paper.takeAPhoto")}
        </Button>
      ) : null}
      {isFirst ? <p className="muted">{t("paper.staysHere")}</p> : null}
      {work ? (
        <LongWork
          says={t("paper.keepingPage", { page: work.done + 1, of: work.of })}
          value={work.done / work.of}
          onStop={work.stop}
        />
      ) : null}
      {opening ? <LongWork says={t("paper.openingPhoto", { name: opening.name })} onStop={opening.stop} /> : null}
      {issues.map((i, n) => (
        <p key={n} role="alert" className={styles.refused}>
          {say(i).text}
        </p>
      ))}
      {twice.length ? <p role="status">{t("paper.hasItAlready", { names: twice.join(", ") })}</p> : null}
      {straightening ? <Straighten {...straightening} /> : null}
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

/** Which pages of a long PDF are wanted. */
function ChoosePages({
  chosen,
  onTake,
  onClose,
}: {
  readonly chosen: LongPdf;
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
