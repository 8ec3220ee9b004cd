"use client";
import { useEffect, useState } from "react";
import styles from "./Case.module.css";
import { useCase } from "./session/caseContext";

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
      <progress value={computed.progress} aria-label="Faults compared" />
      <button type="button" className="link" onClick={computed.stop}>
        Stop
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
      <span>
        Stopped before everything was compared: most suspects show reasons from codes only. Nothing in the logbook is
        lost.
      </span>
      <button type="button" className="link" onClick={computed.goOn}>
        Go on
      </button>
    </p>
  );
}
