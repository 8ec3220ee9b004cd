"use client";
import type { Candidate, RunView } from "@radicula/core";
import dynamic from "next/dynamic";
import { isOneOfSeveral, issueText, repairName, RUN_WORDS, verdictText } from "@radicula/core/words";
import { useMedia } from "@/ui/useMedia";
import { capital } from "@/ui/text";
import styles from "./Case.module.css";
import { disturbedText } from "./disturbed/disturbedText";
import { GapRow, HangsOn } from "./gaps/GapRow";
import { PolicySwitch } from "./policy/PolicySwitch";
import cardStyles from "./reading/NextReading.module.css";
import { verdictEntry } from "./reading/entries";
import { NextReading } from "./reading/NextReading";
import { ClosedCard } from "./proof/ClosedCard";
import { NotCured, ProofCard } from "./proof/ProofCard";
import { RunPanel } from "./runs/RunPanel";
import { useCase } from "./session/caseContext";
import { useCardActions } from "./session/useCardActions";
import { now } from "./session/useCaseSession";
import { StartHere } from "./StartHere";
import { Suspects } from "./suspects/Suspects";
import { Verdict } from "./Verdict";
import { StillOpen, Working } from "./Working";
import { t } from "@/messages";

const LazyRevealed = dynamic(() => import("./revealed/Revealed").then((m) => m.Revealed), { ssr: false });

/** Beside the map: the open run, the one next thing or the verdict, and who could explain it all. */
export function SidePane({ isEnded, handsBusy }: { readonly isEnded: boolean; readonly handsBusy: boolean }) {
  const { job, closed, analysis, run, running } = useCase();
  const isWorking = analysis && analysis.stage !== "waiting";
  return (
    <>
      {run ? <OpenRun run={run} /> : null}
      {isEnded && job.practice && closed !== undefined ? <LazyRevealed /> : null}
      {analysis?.proof && !isEnded ? <NotCured proof={analysis.proof} /> : null}
      {isEnded ? <Ended /> : <NextThing handsBusy={handsBusy} />}
      {isWorking ? (
        <>
          <Working />
          <StillOpen />
        </>
      ) : null}
      {isWorking && !isEnded && !running ? <RunFirst /> : null}
      {closed === undefined ? <GapRow /> : null}
      {isWorking && analysis.stage !== "proving" ? <JobSuspects /> : null}
      {isWorking && !isEnded && !running ? (
        <div className={styles.toolRow}>
          <Asides />
          <OrderOfTests />
        </div>
      ) : null}
    </>
  );
}

function NextThing({ handsBusy }: { readonly handsBusy: boolean }) {
  const { next, analysis, running, card } = useCase();
  const runIsOver = running?.finding !== undefined;
  if (next.candidate && analysis && !(runIsOver && !card.other))
    return handsBusy ? null : <CardPane candidate={next.candidate} />;
  return runIsOver ? null : <StartHere />;
}

/** The card, with all it needs of the case. @param bare only what is asked and the box for it */
export function CardPane({ candidate, bare }: { readonly candidate: Candidate; readonly bare?: boolean }) {
  const { job, wiring, next, dangers, folded, analysis, namer, instructor, card, write, sheets } = useCase();
  const { setReasonsOf, reasonsOf } = useCase();
  const actions = useCardActions();
  const keypad = useMedia("(pointer: coarse)");
  const leader = analysis?.suspects[0]?.id;
  return (
    <NextReading
      jobId={job.id}
      wiring={wiring}
      candidate={candidate}
      recommendation={next.recommendation}
      from={next}
      dangers={dangers}
      acknowledged={folded.acknowledged}
      confirming={analysis?.stage === "confirming"}
      suspects={next.suspects}
      namer={namer}
      instructor={instructor}
      practice={job.practice}
      keypad={keypad}
      texts={card.texts}
      bare={bare ?? false}
      onAcknowledge={(list) => write.append([{ type: "acknowledged", at: now(), cautions: [...list] }])}
      onTexts={(texts) => {
        // what is typed into stays the card, whatever the plan says next
        if (!card.other && next.planned) card.choose({ offered: candidate.id });
        card.setTexts(texts);
      }}
      onLog={actions.logReading}
      onAnswer={actions.logAnswer}
      onPhoto={actions.keepPhoto}
      onSetAside={actions.setAside}
      onSum={() => sheets.open("sums")}
      onOther={() => sheets.open("other")}
      onRecord={() => sheets.open("recording")}
      onWhy={() => setReasonsOf(reasonsOf === leader ? undefined : leader)}
    />
  );
}
function OpenRun({ run }: { readonly run: RunView }) {
  const { namer, running, setWaitingRun, card, write } = useCase();
  const end = (finished: boolean) => {
    const found = run.finding ? { found: issueText(run.finding.says).slice(0, LONGEST_FINDING) } : {};
    write.append([
      { type: "run", at: now(), run: run.run, on: run.on, event: finished ? "finished" : "left", ...found },
    ]);
  };
  return (
    <RunPanel
      run={run}
      namer={namer}
      paused={running === undefined}
      onPause={(paused) => {
        setWaitingRun(paused ? run.begun : undefined);
        card.clear();
      }}
      onEnd={end}
    />
  );
}
/** As long as the format of a case takes. */
const LONGEST_FINDING = 400;

function Ended() {
  const { analysis, namer, instructor, open, closed, write, sheets, computed, card, folded } = useCase();
  const leader = analysis?.suspects[0];
  const frozen = folded.closing?.entry.proof?.outcome ?? analysis?.proof?.outcome;
  if (closed !== undefined && frozen) return <ClosedCard outcome={frozen} closed={closed} />;
  if (!analysis || !leader) return null;
  if (analysis.proof && analysis.stage === "proving") return <ProofCard proof={analysis.proof} />;
  const { outcome, suspects, engine } = analysis;
  const closer = analysis.narrowing?.next[0]?.candidate;
  const logVerdict = () => {
    const { title, detail } = verdictText(analysis, namer);
    const isGroup = isOneOfSeveral(analysis);
    const said = isGroup ? `${title}: ${detail}` : title;
    const repairs = isGroup ? outcome?.repairs.map((r) => ({ repair: repairName(r, namer), share: r.share })) : [];
    write.append([verdictEntry(leader, capital(said), suspects, engine, now(), repairs)]);
  };
  return (
    <Verdict
      analysis={analysis}
      namer={namer}
      open={open}
      closed={closed !== undefined}
      onVerdict={logVerdict}
      onClose={() => sheets.open("close")}
      onRepair={() => sheets.open("repair")}
      onReopen={() => {
        if (closed !== undefined) write.undo(closed);
      }}
      onDisturbed={() => sheets.open("disturbed")}
      onOther={() => sheets.open("other")}
      narrower={closer && { text: instructor.instruct(closer).title, minutes: closer.minutes }}
      onNarrower={() => {
        if (closer) card.choose({ offered: closer.id });
      }}
      run={computed.offers[0]}
      hangsOn={<HangsOn />}
      onRuns={() => sheets.open("runs")}
    />
  );
}

/** A guided run that is expected to get there sooner than the test on the card. */
function RunFirst() {
  const { analysis, card, write, namer } = useCase();
  const first = analysis?.runFirst;
  if (!first || card.other) return null;
  return (
    <button
      type="button"
      className={cardStyles.narrower}
      onClick={() => write.append([{ type: "run", at: now(), run: first.run, on: first.on, event: "begun" }])}
    >
      <b>{t("job.aGuidedTestGetsThereSooner")}</b>
      <span>
        {t("job.atAboutMin", {
          title: RUN_WORDS[first.run].title,
          places: first.on.includes(":") ? namer.point(first.on) : namer.device(first.on),
          minutes: Math.max(1, Math.round(first.minutes)),
        })}
      </span>
    </button>
  );
}

function Asides() {
  const { computed, open, namer, sheets, analysis } = useCase();
  const { offers } = computed;
  const unproven = analysis?.remarks.some((r) => r.code === "remark.meter-not-proven") ?? false;
  return (
    <p className={styles.aside}>
      <button type="button" className="link" onClick={() => sheets.open("runs")}>
        {offers[0] ? t("job.guidedRecommended", { count: offers.length }) : t("job.guidedTests")}
      </button>
      {open.length ? (
        <button
          type="button"
          className="link"
          onClick={() => sheets.open("disturbed")}
          title={open.map((d) => disturbedText(d, namer)).join("; ")}
        >
          {t("job.toRestore", { openCount: open.length })}
        </button>
      ) : null}
      <button type="button" className="link" onClick={() => sheets.open("repair")}>
        {t("job.logARepair")}
      </button>
      {unproven ? (
        <button type="button" className="link" onClick={() => sheets.open("meter")}>
          {t("job.checkTheMeter")}
        </button>
      ) : null}
    </p>
  );
}

function OrderOfTests() {
  const { analysis, folded, write, sheets } = useCase();
  const chart = folded.school?.chart;
  if (!analysis) return null;
  return (
    <PolicySwitch
      analysis={analysis}
      onChange={(school) =>
        write.append([{ type: "school", at: now(), school, ...(school === "chart" && chart ? { chart } : {}) }])
      }
      onChart={() => sheets.open("chart")}
    />
  );
}

function JobSuspects() {
  const { analysis, namer, instructor, entryNames, card, reasonsOf, setReasonsOf, folded, sheets } = useCase();
  if (!analysis) return null;
  return (
    <Suspects
      suspects={analysis.suspects}
      namer={namer}
      instructor={instructor}
      ids={entryNames}
      economics={analysis.economics}
      open={reasonsOf}
      onOpen={setReasonsOf}
      onChoose={(chosen) => card.choose({ offered: chosen.id })}
      lessons={folded.learned?.entry.lessons ?? 0}
      onLessons={() => sheets.open("before")}
    />
  );
}
