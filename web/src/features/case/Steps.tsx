import type { Analysis } from "@radicula/core";
import styles from "./Case.module.css";

/** The job as a thin line: what is done, where it stands. Intake and scan open from here at any time. */
export function Steps({
  analysis,
  onIntake,
  onScan,
}: {
  readonly analysis: Analysis | undefined;
  readonly onIntake: () => void;
  readonly onScan: () => void;
}) {
  const at = !analysis || analysis.stage === "waiting" ? 1 : analysis.folded.verdict ? 3 : 2;
  const steps = [
    { name: "Intake", done: analysis?.folded.intake !== undefined, go: onIntake },
    { name: "Scan", done: at > 1, go: onScan },
    { name: "Map and readings", done: at > 2 },
    { name: "Cause", done: at > 2 },
  ];
  return (
    <ol className={styles.steps} aria-label="Where the job stands">
      {steps.map(({ name, done, go }, i) => (
        <li
          key={name}
          data-state={done ? "done" : i === at ? "now" : "ahead"}
          aria-current={i === at ? "step" : undefined}
        >
          {go ? (
            <button type="button" onClick={go}>
              <i aria-hidden="true" />
              {name}
            </button>
          ) : (
            <span>
              <i aria-hidden="true" />
              {name}
            </span>
          )}
        </li>
      ))}
    </ol>
  );
}
