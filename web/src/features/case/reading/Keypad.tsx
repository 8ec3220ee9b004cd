"use client";
import styles from "./NextReading.module.css";
import { t } from "@/messages";

const KEYS = ["7", "8", "9", "k", "4", "5", "6", "M", "1", "2", "3", "m", "0", ".", "-", "OL"] as const;

/** Large keys for fingers; the same characters the value box takes from a keyboard. */
export function Keypad({ onKey, onErase }: { readonly onKey: (key: string) => void; readonly onErase: () => void }) {
  return (
    <div className={styles.keypad} role="group" aria-label={t("reading.keypad")}>
      {KEYS.map((key) => (
        <button key={key} type="button" className="mono" onClick={() => onKey(key)}>
          {key}
        </button>
      ))}
      <button type="button" className={styles.erase} onClick={onErase}>
        {t("reading.erase")}
      </button>
    </div>
  );
}
