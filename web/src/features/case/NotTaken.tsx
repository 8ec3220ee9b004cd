"use client";
import { Button } from "antd";
import { say } from "@/messages/issues";
import styles from "./Case.module.css";
import { logLines } from "./logbook/lines";
import { useCase } from "./session/caseContext";
import { readingIn } from "./session/useCard";
import { t } from "@/messages";

/** Entries that the database refused: they stay here, on this device, until somebody has looked at them. */
export function NotTaken() {
  const { log, card, namer, instructor } = useCase();
  return log.refused.map(({ batch, entries, issues }) => {
    const reading = readingIn(entries);
    const lines = logLines(entries, 0, undefined, namer, instructor).reverse();
    const what = lines.map((l) => [l.what, l.value].filter(Boolean).join(" ")).join(" · ");
    return (
      <div key={batch} className={styles.alert} role="alert">
        <span>{t("job.needsYourEyesWasNotTaken", { what, issues: issues.map((i) => say(i).text).join(" ") })}</span>
        {reading ? (
          <Button
            size="small"
            onClick={() => {
              card.take(reading);
              log.settleRefused(batch);
            }}
          >
            {t("job.putItBackInTheBox")}
          </Button>
        ) : null}
        <Button size="small" onClick={() => log.settleRefused(batch)}>
          {t("job.throwItAway")}
        </Button>
      </div>
    );
  });
}
