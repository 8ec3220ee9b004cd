"use client";
import { useEffect, useState } from "react";
import styles from "./Case.module.css";
import { useCase } from "./session/caseContext";
import { t } from "@/messages";

/** Work that takes longer says how far it is, and can be stopped. */
const SAID_AFTER_MS = 1000;

/** How far the first pass over all faults is, with a way to stop; nothing while it is quick. */
export function Working() {
  const { computed } = useCase();
  return computed.working ? <Slow /> : null;
}

function Slow() {
  const { computed } = useCase();
  const [isSlow, setSlow] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), SAID_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!isSlow) return null;
  return (
    <p className={styles.working}>
      <progress value={computed.progress} aria-label={t("job.faultsCompared")} />
      <button type="button" className="link" onClick={computed.stop}>
        {t("job.stop")}
      </button>
    </p>
  );
}

/** Said where the comparison was stopped: what is shown may not be the last word. */
export function StillOpen() {
  const { computed } = useCase();
  if (!computed.stopped) return null;
  return (
    <p className={styles.working} role="status">
      <span>{t("job.stoppedBeforeEverythingWasComparedMost")}</span>
      <button type="button" className="link" onClick={computed.goOn}>
        {t("job.goOn")}
      </button>
    </p>
  );
}
