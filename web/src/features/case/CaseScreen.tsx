"use client";
import { useState } from "react";
import { CaseAlerts } from "./CaseAlerts";
import styles from "./Case.module.css";
import { CaseHead } from "./CaseHead";
import { CardPane, SidePane } from "./SidePane";
import { Logbook } from "./logbook/Logbook";
import { MapPane } from "./MapPane";
import { LazyHandsBusy } from "./reading/HandsBusyLazy";
import { CaseContext, useCase } from "./session/caseContext";
import { useCaseKeys } from "./session/useCaseKeys";
import { useCaseSession, type CaseProps } from "./session/useCaseSession";
import { DropOnJob } from "./scan/DropOnJob";
import { SheetHost } from "./sheets/SheetHost";

/** One case on one screen: the map that argues, the one next thing, the suspects and their reasons, the logbook. */
export function CaseScreen(props: CaseProps) {
  const session = useCaseSession(props);
  return (
    <CaseContext value={session}>
      <Screen />
    </CaseContext>
  );
}

function Screen() {
  const { next, instructor, dangers, computed } = useCase();
  const [handsBusy, setHandsBusy] = useState(false);
  useCaseKeys({ toggleHandsBusy: () => setHandsBusy((b) => !b) });
  const isEnded = useEnded();
  return (
    <div className={styles.page}>
      {/* the card stands over the map on narrow screens, and comes after it: first drawn when both are there */}
      <link rel="expect" href="#logbook" blocking="render" />
      <CaseHead />
      <CaseAlerts />
      <DropOnJob />
      <main id="content" className={styles.main} aria-busy={computed.working}>
        <div className={styles.map}>
          <MapPane isEnded={isEnded} />
        </div>
        <aside className={styles.side}>
          <SidePane isEnded={isEnded} handsBusy={handsBusy} />
        </aside>
        <div id="logbook" className={styles.log}>
          <JobLogbook />
        </div>
      </main>
      <SheetHost />
      {handsBusy && next.candidate && !isEnded ? (
        <LazyHandsBusy
          candidate={next.candidate}
          instructor={instructor}
          dangers={dangers}
          onClose={() => setHandsBusy(false)}
        >
          <CardPane candidate={next.candidate} bare />
        </LazyHandsBusy>
      ) : null}
      <span hidden data-testid="update-ms" data-working={computed.working}>
        {Math.round(computed.ms)}
      </span>
    </div>
  );
}

/** Whether the job has come to its end: a cause proven or logged, nothing left to try, or closed. */
function useEnded(): boolean {
  const { analysis, card, running, closed, folded: now } = useCase();
  if (closed !== undefined && now.closing?.entry.proof && !card.other?.reading) return true;
  if (!analysis || card.other?.reading || running?.next) return false;
  // a proven group: somebody goes on to tell its repairs apart
  if (analysis.narrowing?.next.some((n) => n.candidate.id === card.other?.offered)) return false;
  const { stage, folded } = analysis;
  // a verdict of before a repair, or a return, is not the end of what is looked for now
  const isFound = folded.verdict !== undefined && folded.verdict.number > folded.since;
  return stage === "proven" || stage === "stuck" || stage === "proving" || isFound || closed !== undefined;
}

function JobLogbook() {
  const { job, lines, log, namer, write, card, sheets, person, setPerson } = useCase();
  const correct = (number: number) => {
    const entry = log.entries[number - 1];
    if (entry?.type === "reading") card.take(entry, number);
  };
  return (
    <Logbook
      lines={lines}
      entries={log.entries}
      namer={namer}
      onUndo={write.undo}
      onCorrect={correct}
      onRecording={sheets.giveRecording}
      csv={`/api/jobs/${job.id}/export?as=csv`}
      person={person}
      onPerson={setPerson}
    />
  );
}
