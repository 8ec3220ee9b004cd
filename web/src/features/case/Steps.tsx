import type { Analysis } from "@radicula/core";
import styles from "./Case.module.css";

/** The job as a thin line: what is done, where it stands. */
export function Steps({ analysis }: { readonly analysis: Analysis | undefined }) {
  const at = !analysis || analysis.stage === "waiting" ? 0 : analysis.folded.verdict ? 2 : 1;
  return (
    <ol className={styles.steps} aria-label="Where the job stands">
      {["Codes", "Map and readings", "Cause"].map((name, i) => <li key={name} data-state={i < at || (i === 2 && at === 2) ? "done" : i === at ? "now" : "ahead"} aria-current={i === at ? "step" : undefined}><i aria-hidden="true" />{name}</li>)}
    </ol>
  );
}
