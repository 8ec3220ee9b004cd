"use client";
import type { DrawingSheet } from "@radicula/core";
import styles from "./PageTabs.module.css";
import { t } from "@/messages";

/** The pages of a wiring, one of them chosen. */
export function PageTabs({
  sheets,
  chosen,
  onChoose,
}: {
  readonly sheets: readonly DrawingSheet[];
  readonly chosen: DrawingSheet;
  readonly onChoose: (id: string) => void;
}) {
  return (
    <div role="tablist" aria-label={t("paper.pages")} className={styles.tabs}>
      {sheets.map((s) => (
        <button key={s.id} type="button" role="tab" aria-selected={s === chosen} onClick={() => onChoose(s.id)}>
          {s.name}
        </button>
      ))}
    </div>
  );
}
