"use client";
import { useState } from "react";
import type { LogLine } from "./lines";
import styles from "./Logbook.module.css";

const SHORT = 4;

/** Everything seen and done, newest first. Nothing is erased: what was taken back stays, struck through. */
export function Logbook({ lines, onUndo, busy }: { readonly lines: readonly LogLine[]; readonly onUndo: (number: number) => void; readonly busy: boolean }) {
  const [all, setAll] = useState(false);
  const last = lines.find((l) => l.canUndo);
  return (
    <section className={styles.book} aria-label="Logbook">
      <div className={styles.over}>
        <span>Logbook · {lines.length === 1 ? "1 entry" : `${lines.length} entries`}</span>
        <span>
          {last ? <button type="button" className="link" disabled={busy} onClick={() => onUndo(last.number)}>Undo entry {last.number}</button> : null}
          {lines.length > SHORT ? <button type="button" className="link" style={{ marginLeft: 14 }} onClick={() => setAll(!all)}>{all ? "Latest only" : "All entries"}</button> : null}
        </span>
      </div>
      <ol className={styles.lines} reversed>
        {(all ? lines : lines.slice(0, SHORT)).map((l) => (
          <li key={l.number} data-undone={l.undone}>
            <span className={`mono ${styles.time}`}>{l.time}</span>
            <span className={styles.what}>{l.what}</span>
            <span className={`mono ${styles.value}`}>{l.value}</span>
            <span className={styles.remark}>{l.undone ? "taken back" : l.saved ? l.remark : "not saved yet"}</span>
            {all && l.canUndo ? <button type="button" className="link" disabled={busy} onClick={() => onUndo(l.number)} aria-label={`Take back entry ${l.number}`}>take back</button> : <span />}
          </li>
        ))}
      </ol>
    </section>
  );
}
