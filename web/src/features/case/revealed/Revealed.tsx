"use client";
import { compareVerdict, type Played, type VerdictMatch } from "@radicula/core";
import { playedStepText, severityText } from "@radicula/core/words";
import { useMemo } from "react";
import { capital } from "@/ui/text";
import card from "../reading/NextReading.module.css";
import { useCase } from "../session/caseContext";
import { hiddenFaults, type HiddenMachine } from "./hidden";
import styles from "./Revealed.module.css";
import { useHidden, usePlanned } from "./useRevealed";

const MATCHES: Readonly<Record<VerdictMatch, string>> = {
  alone: "You named it.",
  among: "It is among the repairs you named.",
  part: "You named a part of it.",
  other: "You named something else.",
  none: "You named no cause.",
};

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
    <section className={card.card} aria-label="What was hidden">
      <div className={card.over}>
        <span>What was hidden</span>
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
        <p>It comes and goes: there {Math.round(hidden.presence * 100)} % of the time.</p>
      )}
      {hidden.mistaken ? (
        <p>
          The connector that looked like {hidden.mistaken.from} was {hidden.mistaken.to}.
        </p>
      ) : null}
      <p>
        <b>{MATCHES[match]}</b> {verdict ? `Your verdict: ${verdict.text}.` : null}
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
            <th scope="col">Tests</th>
            <th scope="col">Time</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">You</th>
            <td>{taken}</td>
            <td>{minutes} min from the first reading to the last</td>
          </tr>
          <tr>
            <th scope="row">The plan</th>
            {planned.state === "played" ? (
              <>
                <td>{planned.played.steps.length}</td>
                <td>about {Math.max(1, Math.round(planned.played.minutes))} min at the machine</td>
              </>
            ) : (
              <td colSpan={2} role="status">
                {planned.state === "working" ? "Playing the job by the plan …" : "The plan cannot be played here."}
              </td>
            )}
          </tr>
        </tbody>
      </table>
      {planned.state === "played" ? (
        <details className={styles.steps}>
          <summary>The plan’s {planned.played.steps.length} tests</summary>
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
const ENDINGS: Readonly<Record<Played["ending"], string>> = {
  isolated: "It ends at the hidden fault.",
  wrong: "On this machine the plan itself ends at the wrong cause.",
  gaveUp: "On this machine the plan itself finds no cause it can be sure of.",
  noCode: "This fault sets no code.",
};

const MINUTE_MS = 60_000;
function minutesBetween(times: readonly string[]): number {
  const ms = times.map((t) => Date.parse(t)).filter(Number.isFinite);
  return ms.length ? Math.round((Math.max(...ms) - Math.min(...ms)) / MINUTE_MS) : 0;
}
