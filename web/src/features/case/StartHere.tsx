"use client";
import { toldCodes } from "@radicula/core";
import { Button } from "antd";
import type { ReactNode } from "react";
import styles from "./Case.module.css";
import { useCase } from "./session/caseContext";
import { Working } from "./Working";
import { t } from "@/messages";

/**
 * What to do first while there is no next reading: wiring, names of codes, the scan; or that it is being worked out.
 */
export function StartHere() {
  const { wiring, analysis, codes } = useCase();
  if (wiring.devices.length === 0) return <TypeWiring />;
  if (codes.set.length === 0 && analysis?.stage === "waiting") return <ScanFirst />;
  // an answer from before the scan says nothing of what it told
  const isOfThisScan = analysis !== undefined && toldCodes(analysis.folded).length > 0;
  return analysis?.stage === "waiting" && isOfThisScan ? <NameTheCodes /> : <Solving />;
}

function Start({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className={styles.start}>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function TypeWiring() {
  const { workbench } = useCase();
  return (
    <Start title={t("job.noWiringYet")}>
      <p>{t("job.typeTheConnectorsAroundTheCoded")}</p>
      {workbench ? (
        <Button type="primary" href={workbench}>
          {t("job.typeTheWiring")}
        </Button>
      ) : null}
    </Start>
  );
}

function NameTheCodes() {
  const { codes, sheets } = useCase();
  return (
    <Start title={t("job.whichComponentIsEachCodeFor")}>
      <p>
        {t("job.noPartOfThisWiringIs", {
          set: codes.set.map((c) => c.code).join(", "),
          count: codes.set.length,
        })}
      </p>
      <Button type="primary" onClick={() => sheets.open("name")}>
        {t("job.sayWhichPartEachNames")}
      </Button>
    </Start>
  );
}

function ScanFirst() {
  const { sheets, folded } = useCase();
  return (
    <Start title={t("job.startWithTheCodes")}>
      <p>{t("job.scanEveryModuleBeforeAnythingIs")}</p>
      <Button type="primary" onClick={() => sheets.open("codes")}>
        {t("job.typeOrPasteTheScan")}
      </Button>
      {folded.intake ? null : (
        <button type="button" className="link" onClick={() => sheets.open("intake")}>
          {t("job.firstWhatTheCustomerSays")}
        </button>
      )}
    </Start>
  );
}

function Solving() {
  const { computed } = useCase();
  if (computed.stopped)
    return (
      <Start title={t("job.stopped")}>
        <p>{t("job.nothingWasWorkedOutYetNothing")}</p>
        <Button type="primary" onClick={computed.goOn}>
          {t("job.goOn")}
        </Button>
      </Start>
    );
  return (
    // the card of the next reading comes here: the room it takes is kept
    <section className={styles.start} data-solving="true" aria-live="polite">
      <h2>{t("job.solvingTheCircuit")}</h2>
      <p className="muted">{t("job.everyFaultThisWiringCanHave")}</p>
      <Working />
    </section>
  );
}
