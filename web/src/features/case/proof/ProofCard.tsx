"use client";
import type { Entry, Proof, ProofStep } from "@radicula/core";
import { curedText, proofProgress, proofStepText, repairedText, shareText, stillWrong } from "@radicula/core/words";
import { Button } from "antd";
import Link from "next/link";
import cardStyles from "../reading/NextReading.module.css";
import { useCase } from "../session/caseContext";
import { now } from "../session/useCaseSession";
import { CouldBeWrong, CuredBar, Repaired } from "./ClosedCard";
import styles from "./Proof.module.css";

const MARKS: Readonly<Record<ProofStep["status"], string>> = { open: "○", passed: "✓", failed: "✕", leftOut: "–" };
const SAYS: Readonly<Record<ProofStep["status"], string>> = {
  open: "to do",
  passed: "passed",
  failed: "failed",
  leftOut: "left out",
};

/** After a repair: how sure it is that the cause is cured, and the one next step that proves it. */
export function ProofCard({ proof }: { readonly proof: Proof }) {
  const { folded, namer, sheets, job } = useCase();
  const { outcome, steps } = proof;
  // what failed, or was left out, can be done again once nothing else is open
  const next =
    steps.find((s) => s.status === "open") ??
    steps.find((s) => s.status === "failed") ??
    steps.find((s) => s.status === "leftOut");
  const isDone = steps.every((s) => s.status !== "open");
  const last = folded.repairs.at(-1)?.entry;
  return (
    <section className={cardStyles.card} aria-label="Proof">
      <div className={cardStyles.over}>
        <span>Proof · {proofProgress(proof)}</span>
        <span className="mono">{shareText(outcome.cured)}</span>
      </div>
      <h2 className={cardStyles.sentence}>{curedText(outcome)}</h2>
      <CuredBar cured={outcome.cured} />
      {last ? <Repaired text={repairedText(last, namer)} temporary={last.temporary} /> : null}
      <CouldBeWrong list={stillWrong(outcome)} />
      <ol className={styles.steps} aria-label="Steps of the proof">
        {steps.map((s) => (
          <Step key={s.id} step={s} isNext={s === next} />
        ))}
      </ol>
      <Button type={isDone ? "primary" : "default"} size="large" block onClick={() => sheets.open("close")}>
        Close the job
      </Button>
      <div className={cardStyles.under}>
        <button type="button" className="link" onClick={() => sheets.open("repair")}>
          Log another repair
        </button>
        <Link href={`/job/${job.id}/report`} className={styles.plain}>
          Report
        </Link>
      </div>
    </section>
  );
}

function Step({ step, isNext }: { readonly step: ProofStep; readonly isNext: boolean }) {
  const { namer, instructor } = useCase();
  const { title, proves, disproves, caution } = proofStepText(step, namer, instructor);
  return (
    <li data-status={step.status} aria-current={isNext ? "step" : undefined}>
      <span className={styles.mark} aria-label={SAYS[step.status]} role="img">
        {MARKS[step.status]}
      </span>
      {isNext ? (
        <b className={styles.what}>{title}</b>
      ) : (
        <span className={styles.what}>
          {title}
          {step.again.length ? `: ${step.again.join(", ")} set again` : ""}
        </span>
      )}
      {isNext ? (
        <div className={styles.now}>
          {caution ? <p className={styles.cautions}>{caution}</p> : null}
          {proves || disproves ? (
            <dl>
              {proves ? (
                <>
                  <dt>Good</dt>
                  <dd>{proves}</dd>
                </>
              ) : null}
              {disproves ? (
                <>
                  <dt>Bad</dt>
                  <dd>{disproves}</dd>
                </>
              ) : null}
            </dl>
          ) : null}
          <StepButtons step={step} />
        </div>
      ) : null}
    </li>
  );
}

/** What is pressed when a step is done. */
function StepButtons({ step }: { readonly step: ProofStep }) {
  const { write, sheets, card } = useCase();
  const { action, id } = step;
  const log = (entry: Entry) => write.append([entry]);
  const said = (result: "passed" | "failed" | "leftOut") => log({ type: "proofStep", at: now(), step: id, result });
  const wiggled = (thing: string, reacted: boolean) => log({ type: "wiggle", at: now(), thing, reacted });
  return (
    <div className={styles.buttons}>
      {action.kind === "clear" ? (
        <Button type="primary" onClick={() => log({ type: "cleared", at: now() })}>
          Codes are cleared
        </Button>
      ) : null}
      {action.kind === "scan" ? (
        <Button type="primary" onClick={() => sheets.open("codes")}>
          Enter the scan
        </Button>
      ) : null}
      {action.kind === "restore" ? (
        <Button type="primary" onClick={() => sheets.open("disturbed")}>
          Restore
        </Button>
      ) : null}
      {action.kind === "reading" ? (
        <Button
          type="primary"
          onClick={() =>
            card.choose({
              reading: {
                instrument: action.instrument,
                points: [action.point],
                state: action.state,
                ...(action.black === undefined ? {} : { black: action.black }),
              },
            })
          }
        >
          Measure
        </Button>
      ) : null}
      {action.kind === "wiggle" ? (
        <>
          <Button type="primary" onClick={() => wiggled(action.thing, false)}>
            Nothing moved
          </Button>
          <Button onClick={() => wiggled(action.thing, true)}>The value jumped</Button>
        </>
      ) : null}
      {action.kind === "check" || action.kind === "reset" ? (
        <>
          <Button type="primary" onClick={() => said("passed")}>
            Done
          </Button>
          <Button onClick={() => said("failed")}>Not as it should be</Button>
        </>
      ) : null}
      {action.kind === "restore" ? null : (
        <button type="button" className="link" onClick={() => said("leftOut")}>
          Leave out
        </button>
      )}
    </div>
  );
}

/** A repair that did not cure it: said in one line over the search that goes on. */
export function NotCured({ proof }: { readonly proof: Proof }) {
  const { sheets } = useCase();
  return (
    <div className={styles.line} role="status">
      <span>
        <b>{curedText(proof.outcome)}</b> ({shareText(proof.outcome.cured)} cured). The search goes on.
      </span>
      <button type="button" className="link" onClick={() => sheets.open("repair")}>
        Log another repair
      </button>
    </div>
  );
}
