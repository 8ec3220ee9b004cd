import type { Analysis } from "@radicula/core";
import styles from "./Case.module.css";

/** The job as a thin line: what is done, where it stands. Intake and scan open from here at any time. */
export function Steps({
  analysis,
  onIntake,
  onScan,
  onRepair,
}: {
  readonly analysis: Analysis | undefined;
  readonly onIntake: () => void;
  readonly onScan: () => void;
  readonly onRepair: () => void;
}) {
  const at = stepOf(analysis);
  const steps = [
    { name: "Intake", done: analysis?.folded.intake !== undefined, go: onIntake },
    { name: "Scan", done: at > 1, go: onScan },
    { name: "Readings", done: at > 2 },
    { name: "Cause", done: at > 2 },
    { name: "Repair", done: at > 3, ...(at > 2 ? { go: onRepair } : {}) },
    { name: "Proof", done: at > 4 },
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

/** How far the job is: the number of the step that is being done now. */
function stepOf(analysis: Analysis | undefined): number {
  if (!analysis || analysis.stage === "waiting") return 1;
  const { verdict, since, closing, closed } = analysis.folded;
  if (closed !== undefined && closing?.entry.because === "proven") return 5;
  if (analysis.stage === "proving") return 4;
  return verdict && verdict.number > since ? 3 : 2;
}
