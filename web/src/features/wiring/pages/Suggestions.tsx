"use client";
/* eslint-disable @next/next/no-img-element -- cut out of the page on this device */
import type { DrawingSheet, SheetWord } from "@radicula/core";
import { useEffect, useState } from "react";
import type { Page } from "@/ui/page/fetchPage";
import { pictureOf } from "@/ui/page/pictureOf";
import styles from "./Pages.module.css";
import { t } from "@/messages";

/** A word read with less than this is shown as it stands on the page, beside the guess. Judgement. */
const UNSURE = 0.8;
const MOST = 6;
const LONGEST = 240;

/** Words of the page near to what was tapped, to be chosen instead of typed. */
export function Suggestions({
  sheet,
  page,
  words,
  onChoose,
}: {
  readonly sheet: DrawingSheet;
  readonly page: Page;
  readonly words: readonly SheetWord[];
  readonly onChoose: (text: string) => void;
}) {
  if (words.length === 0) return null;
  return (
    <ul className={styles.words} aria-label={t("paper.wordsNearby")}>
      {words.slice(0, MOST).map((w, i) => (
        <li key={`${i} ${w.text}`}>
          <button type="button" onClick={() => onChoose(w.text)}>
            {(w.sure ?? 1) < UNSURE ? <CutOut sheet={sheet} page={page} word={w} /> : null}
            {w.text}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** The word as it stands on the page. */
function CutOut({
  sheet,
  page,
  word,
}: {
  readonly sheet: DrawingSheet;
  readonly page: Page;
  readonly word: SheetWord;
}) {
  const [picture, setPicture] = useState("");
  useEffect(() => {
    let isGone = false;
    const scale = page.width / sheet.width;
    const air = word.height * 0.3;
    const area = {
      x: Math.max(0, (word.x - air) * scale),
      y: Math.max(0, (word.y - air) * scale),
      width: (word.width + 2 * air) * scale,
      height: (word.height + 2 * air) * scale,
    };
    void pictureOf(sheet.id, page, area, LONGEST).then((canvas) => {
      if (!isGone) setPicture(canvas.toDataURL("image/png"));
    });
    return () => {
      isGone = true;
    };
  }, [sheet, page, word]);
  return picture ? <img src={picture} alt="" /> : null;
}
