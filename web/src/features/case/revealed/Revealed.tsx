"use client";
import { compareVerdict, type Played, type VerdictMatch } from "@radicula/core";
import { playedStepText, severityText, worded } from "@radicula/core/words";
import { useMemo } from "react";
import { capital } from "@/ui/text";
import card from "../reading/NextReading.module.css";
import { useCase } from "../session/caseContext";
import { hiddenFaults, type HiddenMachine } from "./hidden";
import styles from "./Revealed.module.css";
import { useHidden, usePlanned } from "./useRevealed";
import { t } from "@/messages";

const MATCHES: Readonly<Record<VerdictMatch, string>> = worded(() => ({
  alone: t("revealed.youNamedIt"),
  among: t("revealed.itIsAmongTheRepairsYou"),
  part: t("revealed.youNamedAPartOfIt"),
  other: t("revealed.youNamedSomethingElse"),
  none: t("revealed.youNamedNoCause"),
}));

/** After a practice job is closed: what was hidden, beside what was found, and what the plan would have taken. */
export function Revealed() {
  const { job } = useCase();
  const hidden = useHidden(job.id);
  return hidden ? <HiddenBeside hidden={hidden} /> : null;
}

function HiddenBeside({ hidden }: { readonly hidden: HiddenMachine }) {
  const { wiring, namer, analysis, folded } = useCase();
  const faults = useMemo(() => hiddenFaults(wiring, hidden), [wiring, hidden]);
  const verdict = folded.verdict?.entry;
  const match = compareVerdict(
    verdict && analysis?.suspects.find((s) => s.id === verdict.suspect),
    faults.map((f) => f.fault),
  );
  return (
    <section className={card.card} aria-label={t("revealed.whatWasHidden")}>
      <div className={card.over}>
        <span>{t("revealed.whatWasHidden")}</span>
      </div>
      {faults.map(({ fault, severity }) => (
        <h2 key={fault.id} className={card.sentence}>
          {capital(namer.fault(fault))}
          {Number.isFinite(severity) && fault.severities.length > 1 ? (
            <span className="muted"> · {severityText(fault, severity)}</span>
          ) : null}
        </h2>
      ))}
      {hidden.presence === undefined ? null : (
        <p>{t("revealed.itComesAndGoesThereOf", { presence: Math.round(hidden.presence * 100) })}</p>
      )}
      {hidden.mistaken ? (
        <p>{t("revealed.theConnectorThatLookedLikeWas", { from: hidden.mistaken.from, to: hidden.mistaken.to })}</p>
      ) : null}
      <p>
        <b>{MATCHES[match]}</b> {verdict ? t("revealed.yourVerdict", { text: verdict.text }) : null}
      </p>
      <Ways hidden={hidden} />
    </section>
  );
}

function Ways({ hidden }: { readonly hidden: HiddenMachine }) {
  const { wiring, log, folded, namer } = useCase();
  const planned = usePlanned(wiring, hidden, log.entries);
  const taken = folded.readings.length;
  const minutes = minutesBetween(folded.readings.map((r) => r.entry.at));
  return (
    <>
      <table className={styles.ways}>
        <thead>
          <tr>
            <td />
            <th scope="col">{t("revealed.tests")}</th>
            <th scope="col">{t("revealed.time")}</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">{t("revealed.you")}</th>
            <td>{taken}</td>
            <td>{t("revealed.minFromTheFirstReadingTo", { minutes })}</td>
          </tr>
          <tr>
            <th scope="row">{t("revealed.thePlan")}</th>
            {planned.state === "played" ? (
              <>
                <td>{planned.played.steps.length}</td>
                <td>
                  {t("revealed.aboutMinAtTheMachine", { minutes: Math.max(1, Math.round(planned.played.minutes)) })}
                </td>
              </>
            ) : (
              <td colSpan={2} role="status">
                {planned.state === "working"
                  ? t("revealed.playingTheJobByThePlan")
                  : t("revealed.thePlanCannotBePlayedHere")}
              </td>
            )}
          </tr>
        </tbody>
      </table>
      {planned.state === "played" ? (
        <details className={styles.steps}>
          <summary>{t("revealed.thePlansTests", { stepsCount: planned.played.steps.length })}</summary>
          <ol>
            {planned.played.steps.map((s, i) => (
              <li key={i}>{playedStepText(s, namer)}</li>
            ))}
          </ol>
          <p className="muted">{ENDINGS[planned.played.ending]}</p>
        </details>
      ) : null}
    </>
  );
}
const ENDINGS: Readonly<Record<Played["ending"], string>> = worded(() => ({
  isolated: t("revealed.itEndsAtTheHiddenFault"),
  wrong: t("revealed.onThisMachineThePlanItself"),
  gaveUp: t("revealed.onThisMachineThePlanItself2"),
  noCode: t("revealed.thisFaultSetsNoCode"),
}));

const MINUTE_MS = 60_000;
function minutesBetween(times: readonly string[]): number {
  const ms = times.map((time) => Date.parse(time)).filter(Number.isFinite);
  return ms.length ? Math.round((Math.max(...ms) - Math.min(...ms)) / MINUTE_MS) : 0;
}
