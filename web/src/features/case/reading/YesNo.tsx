"use client";
import { FINDINGS, type Candidate, type Finding } from "@radicula/core";
import { FINDING_WORDS, yesNo } from "@radicula/core/words";
import { Button } from "antd";
import { useEffect, useRef } from "react";
import { inSheet } from "@/ui/focus";
import styles from "./NextReading.module.css";

interface Props {
  readonly candidate: Candidate;
  readonly lines: readonly { readonly yes: boolean; readonly share: string; readonly meaning: string }[];
  /** what the simulated machine showed: the button to press has the focus */
  readonly shown: { readonly yes: boolean; readonly found: Finding | undefined } | undefined;
  readonly disabled: boolean;
  readonly onAnswer: (yes: boolean, found: Finding | undefined) => void;
  readonly onShortcut: (key: string) => boolean;
}

/** The answer of eyes and hands: two buttons, or what was found. */
export function YesNo({ candidate, lines, shown, disabled, onAnswer, onShortcut }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const [yes, no] = yesNo(candidate.kind);
  useEffect(() => { if (!inSheet()) root.current?.querySelector<HTMLButtonElement>(shown?.yes ? `[data-answer="${shown.found ?? "yes"}"]` : "[data-answer='no']")?.focus({ preventScroll: true }); }, [shown]);
  const meaning = (of: boolean) => lines.find((l) => l.yes === of);
  return (
    <div ref={root} onKeyDown={(e) => { if (!e.ctrlKey && !e.metaKey && !e.altKey && onShortcut(e.key)) e.preventDefault(); }}>
      <ul className={styles.answers} aria-label="What each answer would mean">
        {[true, false].map((of) => { const l = meaning(of); return l ? <li key={String(of)}><b>{of ? yes : no}</b><span>{l.meaning}</span><span className={`mono ${styles.odds}`}>{l.share}</span></li> : null; })}
      </ul>
      <div className={styles.choices}>
        <Button size="large" data-answer="no" disabled={disabled} onClick={() => onAnswer(false, undefined)}>{no}</Button>
        {candidate.kind === "look" ? FINDINGS.filter((f) => f !== "nothing").map((f) => <Button key={f} data-answer={f} disabled={disabled} onClick={() => onAnswer(true, f)}>{FINDING_WORDS[f]}</Button>)
          : <Button size="large" data-answer="yes" disabled={disabled} onClick={() => onAnswer(true, undefined)}>{yes}</Button>}
      </div>
    </div>
  );
}
