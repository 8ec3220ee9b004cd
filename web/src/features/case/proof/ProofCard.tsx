"use client";
import type { Entry, Proof, ProofStep } from "@radicula/core";
import {
  curedText,
  proofProgress,
  proofStepText,
  repairedText,
  shareText,
  stillWrong,
  worded,
} from "@radicula/core/words";
import { Button } from "antd";
import Link from "next/link";
import cardStyles from "../reading/NextReading.module.css";
import { useCase } from "../session/caseContext";
import { now } from "../session/useCaseSession";
import { CouldBeWrong, CuredBar, Repaired } from "./ClosedCard";
import styles from "./Proof.module.css";
import { t } from "@/messages";

const MARKS: Readonly<Record<ProofStep["status"], string>> = { open: "○", passed: "✓", failed: "✕", leftOut: "–" };
const SAYS: Readonly<Record<ProofStep["status"], string>> = worded(() => ({
  open: t("proof.toDo"),
  passed: "passed",
  failed: "failed",
  leftOut: t("proof.leftOut"),
}));

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
    <section className={cardStyles.card} aria-label={t("proof.proof")}>
      <div className={cardStyles.over}>
        <span>{t("proof.proof2", { progress: proofProgress(proof) })}</span>
        <span className="mono">{shareText(outcome.cured)}</span>
      </div>
      <h2 className={cardStyles.sentence}>{curedText(outcome)}</h2>
      <CuredBar cured={outcome.cured} />
      {last ? <Repaired text={repairedText(last, namer)} temporary={last.temporary} /> : null}
      <CouldBeWrong list={stillWrong(outcome)} />
      <ol className={styles.steps} aria-label={t("proof.stepsOfTheProof")}>
        {steps.map((s) => (
          <Step key={s.id} step={s} isNext={s === next} />
        ))}
      </ol>
      <Button type={isDone ? "primary" : "default"} size="large" block onClick={() => sheets.open("close")}>
        {t("proof.closeTheJob")}
      </Button>
      <div className={cardStyles.under}>
        <button type="button" className="link" onClick={() => sheets.open("repair")}>
          {t("proof.logAnotherRepair")}
        </button>
        <Link href={`/job/${job.id}/report`} className={styles.plain}>
          {t("proof.report")}
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
          {step.again.length ? t("proof.setAgain", { again: step.again.join(", ") }) : ""}
        </span>
      )}
      {isNext ? (
        <div className={styles.now}>
          {caution ? <p className={styles.cautions}>{caution}</p> : null}
          {proves || disproves ? (
            <dl>
              {proves ? (
                <>
                  <dt>{t("proof.good")}</dt>
                  <dd>{proves}</dd>
                </>
              ) : null}
              {disproves ? (
                <>
                  <dt>{t("proof.bad")}</dt>
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
          {t("proof.codesAreCleared")}
        </Button>
      ) : null}
      {action.kind === "scan" ? (
        <Button type="primary" onClick={() => sheets.open("codes")}>
          {t("proof.enterTheScan")}
        </Button>
      ) : null}
      {action.kind === "restore" ? (
        <Button type="primary" onClick={() => sheets.open("disturbed")}>
          {t("proof.restore")}
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
          {t("proof.measure")}
        </Button>
      ) : null}
      {action.kind === "wiggle" ? (
        <>
          <Button type="primary" onClick={() => wiggled(action.thing, false)}>
            {t("proof.nothingMoved")}
          </Button>
          <Button onClick={() => wiggled(action.thing, true)}>{t("proof.theValueJumped")}</Button>
        </>
      ) : null}
      {action.kind === "check" || action.kind === "reset" ? (
        <>
          <Button type="primary" onClick={() => said("passed")}>
            {t("proof.done")}
          </Button>
          <Button onClick={() => said("failed")}>{t("proof.notAsItShouldBe")}</Button>
        </>
      ) : null}
      {action.kind === "restore" ? null : (
        <button type="button" className="link" onClick={() => said("leftOut")}>
          {t("proof.leaveOut")}
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
        <b>{curedText(proof.outcome)}</b> {t("proof.curedTheSearchGoesOn", { share: shareText(proof.outcome.cured) })}
      </span>
      <button type="button" className="link" onClick={() => sheets.open("repair")}>
        {t("proof.logAnotherRepair")}
      </button>
    </div>
  );
}
