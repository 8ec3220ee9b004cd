"use client";
import { LongWork } from "@/ui/LongWork";
import styles from "@/ui/LongWork.module.css";
import { useCase } from "./session/caseContext";
import { t } from "@/messages";

/** How far the first pass over all faults is, with a way to stop; nothing while it is quick. */
export function Working() {
  const { computed } = useCase();
  if (!computed.working) return null;
  return <LongWork says={t("job.faultsCompared")} isQuiet value={computed.progress} onStop={computed.stop} />;
}

/** Said where the comparison was stopped: what is shown may not be the last word. */
export function StillOpen() {
  const { computed } = useCase();
  if (!computed.stopped) return null;
  return (
    <p className={styles.line} role="status">
      <span>{t("job.stoppedBeforeEverythingWasComparedMost")}</span>
      <button type="button" className="link" onClick={computed.goOn}>
        {t("job.goOn")}
      </button>
    </p>
  );
}
