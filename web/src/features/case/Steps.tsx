import type { Analysis, Folded } from "@radicula/core";
import { fetchTypedSheets } from "./session/useSheets";
import styles from "./Case.module.css";
import { t } from "@/messages";

/** The job as a thin line: what is done, where it stands. Intake and scan open from here at any time. */
export function Steps({
  stage,
  folded,
  onIntake,
  onScan,
  onRepair,
}: {
  /** undefined until it is worked out */
  readonly stage: Analysis["stage"] | undefined;
  readonly folded: Folded;
  readonly onIntake: () => void;
  readonly onScan: () => void;
  readonly onRepair: () => void;
}) {
  const at = stepOf(folded, stage);
  const steps = [
    { name: t("job.intake"), done: folded.intake !== undefined, go: onIntake },
    { name: t("job.scan"), done: at > 1, go: onScan },
    { name: t("job.readings2"), done: at > 2 },
    { name: t("job.cause"), done: at > 2 },
    { name: t("job.repair"), done: at > 3, ...(at > 2 ? { go: onRepair } : {}) },
    { name: t("job.proof"), done: at > 4 },
  ];
  return (
    <ol
      className={styles.steps}
      aria-label={t("job.whereTheJobStands")}
      onPointerEnter={fetchTypedSheets}
      onFocus={fetchTypedSheets}
    >
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
function stepOf({ verdict, since, closing, closed }: Folded, stage: Analysis["stage"] | undefined): number {
  if (closed !== undefined && closing?.entry.because === "proven") return 5;
  if (closed !== undefined && closing?.entry.proof) return 4;
  if (!stage || stage === "waiting") return 1;
  if (stage === "proving") return 4;
  return verdict && verdict.number > since ? 3 : 2;
}
