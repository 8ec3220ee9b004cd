"use client";
import { useEffect, useState } from "react";
import styles from "./LongWork.module.css";
import { t } from "@/messages";

/** Work that takes longer says so, and can be stopped. */
const SAID_AFTER_MS = 1000;

interface Props {
  /** what is being done; heard where `isQuiet`, else read */
  readonly says: string;
  readonly isQuiet?: boolean;
  /** how much is done, 0 to 1; left out where that is not known */
  readonly value?: number;
  readonly onStop: () => void;
}

/** How far a piece of work is, with a way to stop it; nothing in its first second. Shown as long as the work lasts. */
export function LongWork({ says, isQuiet = false, value, onStop }: Props) {
  const [isSlow, setSlow] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), SAID_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!isSlow) return null;
  return (
    <p className={styles.line} role={isQuiet ? undefined : "status"}>
      {isQuiet ? null : <span>{says}</span>}
      <progress value={value} aria-label={says} />
      <button type="button" className="link" onClick={onStop}>
        {t("ui.stop")}
      </button>
    </p>
  );
}
