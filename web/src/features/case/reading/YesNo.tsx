"use client";
import { FINDINGS, type Candidate, type Finding } from "@radicula/core";
import { FINDING_WORDS, yesNo } from "@radicula/core/words";
import { Button } from "antd";
import { useEffect, useRef, useState } from "react";
import { inSheet } from "@/ui/focus";
import { KEYS } from "@/ui/keys";
import { PhotoField } from "../PhotoField";
import styles from "./NextReading.module.css";
import { t } from "@/messages";

interface Props {
  readonly candidate: Candidate;
  readonly lines: readonly { readonly yes: boolean; readonly share: string; readonly meaning: string }[];
  /** what the simulated machine showed: the button to press has the focus */
  readonly shown: { readonly yes: boolean; readonly found: Finding | undefined } | undefined;
  readonly onAnswer: (yes: boolean, found: readonly Finding[], photo: string | undefined) => void;
  /** keeps a photo of what was found; undefined where there is nowhere to keep it */
  readonly onPhoto?: ((file: File) => Promise<string | undefined>) | undefined;
}

/** The answer of eyes and hands: two buttons, or what was found. */
export function YesNo({ candidate, lines, shown, onAnswer, onPhoto }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const [yes, no] = yesNo(candidate.kind);
  useEffect(() => {
    if (!inSheet())
      root.current
        ?.querySelector<HTMLButtonElement>(
          shown?.yes ? `[data-answer="${shown.found ?? "yes"}"]` : "[data-answer='no']",
        )
        ?.focus({ preventScroll: true });
  }, [shown]);
  const [chosen, setChosen] = useState<readonly Finding[]>([]);
  const [photo, setPhoto] = useState<string | undefined>(undefined);
  const look = candidate.kind === "look";
  const several = look && chosen.length > 0;
  const toggle = (f: Finding) =>
    setChosen((list) => (list.includes(f) ? list.filter((x) => x !== f) : [...list, f].slice(-6)));
  const meaning = (of: boolean) => lines.find((l) => l.yes === of);
  return (
    <div ref={root} {...KEYS}>
      <ul className={styles.answers} aria-label={t("reading.whatEachAnswerWouldMean")}>
        {[true, false].map((of) => {
          const l = meaning(of);
          return l ? (
            <li key={String(of)}>
              <b>{of ? yes : no}</b>
              <span>{l.meaning}</span>
              <span className={`mono ${styles.odds}`}>{l.share}</span>
            </li>
          ) : null;
        })}
      </ul>
      <div className={styles.choices}>
        {several ? null : (
          <Button size="large" data-answer="no" onClick={() => onAnswer(false, [], photo)}>
            {no}
          </Button>
        )}
        {look ? (
          FINDINGS.filter((f) => f !== "nothing").map((f) => (
            <Button
              key={f}
              data-answer={f}
              aria-pressed={chosen.includes(f)}
              type={chosen.includes(f) ? "primary" : "default"}
              ghost={chosen.includes(f)}

              onClick={() => toggle(f)}
              onKeyDown={(e) => {
                if (e.key === "Enter") {
                  e.preventDefault();
                  onAnswer(true, chosen.includes(f) ? chosen : [...chosen, f], photo);
                }
              }}
            >
              {FINDING_WORDS[f]}
            </Button>
          ))
        ) : (
          <Button size="large" data-answer="yes" onClick={() => onAnswer(true, [], undefined)}>
            {yes}
          </Button>
        )}
        {several ? (
          <Button
            type="primary"
            size="large"
            data-answer="yes"

            onClick={() => onAnswer(true, chosen, photo)}
          >
            {t("reading.logFound", { count: chosen.length })}
          </Button>
        ) : null}
      </div>
      {look && onPhoto ? <PhotoField onKeep={onPhoto} onKept={setPhoto} /> : null}
    </div>
  );
}
