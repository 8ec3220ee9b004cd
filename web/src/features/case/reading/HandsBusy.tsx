"use client";
import type { Candidate } from "@radicula/core";
import { type Instructor, readerLocale } from "@radicula/core/words";
import { Button, Switch } from "antd";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import styles from "./HandsBusy.module.css";
import { t } from "@/messages";

interface Props {
  readonly candidate: Candidate;
  readonly instructor: Instructor;
  readonly dangers: readonly string[];
  readonly onClose: () => void;
  /** the box, or the buttons, for the answer */ readonly children: ReactNode;
}
const SPEAKS = "radicula.speaks";

/**
 * One line at a time, legible from two metres; a tap or one key brings the next, and the last one takes the value.
 * Spoken where wanted.
 */
export function HandsBusy({ candidate, instructor, dangers, onClose, children }: Props) {
  const lines = useMemo(() => {
    const i = instructor.instruct(candidate);
    const lead = (l: (typeof i.red)[number]) => `${l.text}${l.colour ? `, ${l.colour}` : ""}, ${l.how}`;
    return [
      ...[...dangers, ...i.cautions].map((text) => ({ what: t("reading.mind"), text })),
      { what: t("reading.setUp"), text: i.state },
      ...i.red.map((l) => ({ what: t("reading.red"), text: `${lead(l)}${l.place ? `. ${l.place}` : ""}` })),
      ...(i.black ? [{ what: t("reading.black"), text: i.black }] : []),
      { what: i.meter ? t("reading.meterOn", { meter: i.meter }) : t("reading.now"), text: i.title },
    ];
  }, [candidate, instructor, dangers]);
  const [at, setAt] = useState({ of: candidate.id, line: 0 });
  const [speaks, setSpeaks] = useState(false);
  const root = useRef<HTMLDivElement>(null);
  const line = at.of === candidate.id ? at.line : 0;
  const here = lines[Math.min(line, lines.length - 1)]!;
  const last = line >= lines.length - 1;
  useEffect(() => {
    void Promise.resolve().then(() => setSpeaks(localStorage.getItem(SPEAKS) === "yes"));
  }, []);
  useEffect(() => {
    if (!speaks || !("speechSynthesis" in window)) return;
    window.speechSynthesis.cancel();
    const said = new SpeechSynthesisUtterance(`${here.what}. ${here.text}`);
    said.lang = readerLocale();
    window.speechSynthesis.speak(said);
    return () => window.speechSynthesis.cancel();
  }, [speaks, here]);
  const go = (by: number) => setAt({ of: candidate.id, line: Math.max(0, Math.min(lines.length - 1, line + by)) });
  useEffect(() => {
    if (!last) root.current?.focus();
    else root.current?.querySelector<HTMLElement>("form input, [data-answer='no']")?.focus();
  }, [last, candidate.id]);
  const onKey = (e: React.KeyboardEvent) => {
    const typing = e.target instanceof HTMLInputElement;
    if (e.key === "Escape") {
      onClose();
      e.preventDefault();
    } else if (!last && (e.key === " " || e.key === "Enter" || e.key === "ArrowRight" || e.key === "PageDown")) {
      go(1);
      e.preventDefault();
    } else if (!typing && (e.key === "ArrowLeft" || e.key === "PageUp")) {
      go(-1);
      e.preventDefault();
    }
  };
  return (
    <div
      ref={root}
      className={styles.over}
      role="dialog"
      aria-modal="true"
      aria-label={t("reading.handsBusy")}
      tabIndex={-1}
      onKeyDown={onKey}
      onClick={(e) => {
        if (!last && !(e.target as HTMLElement).closest("button, input, label")) go(1);
      }}
    >
      <div className={styles.top}>
        <span className="mono">
          {line + 1} / {lines.length}
        </span>
        <label>
          <Switch
            size="small"
            checked={speaks}
            onChange={(v) => {
              setSpeaks(v);
              localStorage.setItem(SPEAKS, v ? "yes" : "no");
            }}
            aria-label={t("reading.readAloud")}
          />{" "}
          {t("reading.readAloud2")}
        </label>
        <Button onClick={onClose}>{t("reading.backToTheMap")}</Button>
      </div>
      <ol className={styles.lines}>
        {lines.map((l, i) => (
          <li key={i} data-here={i === line} aria-current={i === line ? "step" : undefined}>
            <span>{l.what}</span>
            <b>{l.text}</b>
          </li>
        ))}
      </ol>
      <p className="visually-hidden" aria-live="polite">
        {here.what}: {here.text}
      </p>
      {last ? (
        <div className={styles.answer}>{children}</div>
      ) : (
        <p className={styles.hint}>{t("reading.tapOrSpaceForTheNext")}</p>
      )}
    </div>
  );
}
