"use client";
import type { RepairOutcome } from "@radicula/core";
import { CLOSED_WORDS, curedText, repairedText, shareText, stillWrong } from "@radicula/core/words";
import { Button } from "antd";
import Link from "next/link";
import cardStyles from "../reading/NextReading.module.css";
import { useCase } from "../session/caseContext";
import styles from "./Proof.module.css";
import { t } from "@/messages";

/** A closed job, as its proof stood when it was closed: where that was frozen, nothing has to be worked out. */
export function ClosedCard({ outcome, closed }: { readonly outcome: RepairOutcome; readonly closed: number }) {
  const { folded, namer, sheets, write, job } = useCase();
  const because = folded.closing?.entry.because;
  const repaired = folded.repairs.at(-1)?.entry;
  const wrong = stillWrong(outcome);
  return (
    <section className={cardStyles.card} aria-label={t("proof.proof")}>
      <div className={cardStyles.over}>
        <span>{t("proof.jobClosed")}</span>
        <span className="mono">{shareText(outcome.cured)}</span>
      </div>
      <h2 className={cardStyles.sentence}>
        {because && because !== "proven" ? t("proof.closed", { why: CLOSED_WORDS[because] }) : curedText(outcome)}
      </h2>
      <CuredBar cured={outcome.cured} />
      {repaired ? <Repaired text={repairedText(repaired, namer)} temporary={repaired.temporary} /> : null}
      <CouldBeWrong list={wrong} />
      <Link href={`/job/${job.id}/report`}>
        <Button type="primary" size="large" block>
          {t("proof.report")}
        </Button>
      </Link>
      <div className={cardStyles.under}>
        <button type="button" className="link" onClick={() => write.undo(closed)}>
          {t("proof.openItAgain")}
        </button>
        <button type="button" className="link" onClick={() => sheets.open("followUp")}>
          {t("proof.askWhetherItHeld")}
        </button>
      </div>
    </section>
  );
}

/** How sure it is that the cause is cured, as a bar; the number stands beside it. */
export function CuredBar({ cured }: { readonly cured: number }) {
  return (
    <div className={styles.bar} aria-hidden="true">
      <i style={{ width: `${Math.round(cured * 100)}%` }} />
    </div>
  );
}
/** What was repaired, and whether it is for a time only. */
export function Repaired({ text, temporary }: { readonly text: string; readonly temporary: string | undefined }) {
  return (
    <p style={{ margin: "0 0 4px" }}>
      {text}
      {temporary ? <b> {t("proof.temporaryBackBy", { temporary })}</b> : null}
    </p>
  );
}
/** What could still be wrong; a number stays with its unit. */
export function CouldBeWrong({ list }: { readonly list: readonly string[] }) {
  if (list.length === 0) return null;
  return (
    <p className={styles.wrong}>
      {t("proof.whatCouldStillBeWrong", { what: list.join("; ").replaceAll(" %", "\u00a0%") })}
    </p>
  );
}
