"use client";
import type { Entry } from "@radicula/core";
import { Instructor, issueText, Namer } from "@radicula/core/words";
import { Button } from "antd";
import Link from "next/link";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Job } from "@/server/repo/jobs";
import { Logo } from "@/ui/Logo";
import { ThemeToggle } from "@/ui/ThemeToggle";
import { useMedia } from "@/ui/useMedia";
import styles from "./Case.module.css";
import { CodesForm } from "./CodesForm";
import { Help } from "./Help";
import { entryNames, logLines } from "./logbook/lines";
import { Logbook } from "./logbook/Logbook";
import type { Maps } from "./map/placed";
import { RootMap } from "./map/RootMap";
import { showsFeeds } from "./map/suspicion";
import { useMap } from "./map/useMap";
import { candidateOf, readingEntries, verdictEntry } from "./reading/entries";
import { NextReading } from "./reading/NextReading";
import { OtherReading, type Other } from "./reading/OtherReading";
import { METER_BUTTON } from "./reading/SimulatedMeter";
import { SavedWord, SaveNote } from "./SaveNote";
import { Steps } from "./Steps";
import { Suspects } from "./suspects/Suspects";
import { useAnalysis } from "./useAnalysis";
import { useLogbook } from "./useLogbook";
import { Verdict } from "./Verdict";

interface Props { readonly job: Job; readonly initialEntries: readonly Entry[]; readonly initialMap: Maps }
type Sheet = "other" | "codes" | "help" | undefined;

/** One case on one screen: the map that argues, the one next thing, the suspects and their reasons, the logbook. */
export function CaseScreen({ job, initialEntries, initialMap }: Props) {
  // instead of the first choice: another one on offer, or a reading of one's own (also one that could not be saved)
  const [other, setOther] = useState<Other | undefined>(undefined);
  const [texts, setTexts] = useState<readonly string[]>([]);
  const takeBack = (entries: readonly Entry[]) => {
    const reading = entries.find((e) => e.type === "reading");
    if (reading?.type !== "reading") return;
    setOther({ reading });
    setTexts(reading.as?.split(" · ") ?? reading.values.map(String));
  };
  const log = useLogbook(job.id, initialEntries, takeBack);
  const { analysis, ms, working, failed } = useAnalysis(job.wiring, log.entries);
  const namer = useMemo(() => new Namer(job.wiring), [job.wiring]);
  const instructor = useMemo(() => new Instructor(job.wiring), [job.wiring]);
  const maps = useMap(job.id, initialMap, log.entries, log.saved);
  const [sheet, setSheet] = useState<Sheet>(undefined);
  const [big, setBig] = useState(false);
  const keypad = useMedia("(pointer: coarse)");
  const lines = useMemo(() => logLines(log.entries, log.saved, analysis, namer, instructor), [log.entries, log.saved, analysis, namer, instructor]);
  const names = useMemo(() => entryNames(lines), [lines]);
  const onTheirWay = log.saved < log.entries.length;

  const recommendation = other?.reading ? undefined : analysis?.next.find((n) => n.candidate.id === other?.offered) ?? analysis?.next[0];
  const candidate = other?.reading ? candidateOf(other.reading, analysis?.folded.state) : recommendation?.candidate;

  const append = useCallback((entries: readonly Entry[]) => {
    if (entries.length && log.append(entries)) { setOther(undefined); setTexts([]); }
  }, [log]);
  const now = () => new Date().toISOString();
  const undo = useCallback((target: number) => append([{ type: "undo", at: now(), target }]), [append]);
  const setAside = () => {
    if (other?.reading) { setOther(undefined); setTexts([]); } else if (candidate) append([{ type: "setAside", at: now(), candidate: candidate.id, reason: "cannotReach" }]);
  };
  const onLog = (values: number[], typed: string) => {
    if (candidate) append(readingEntries(candidate, values, typed, now()));
  };
  const lastUndoable = lines.find((l) => l.canUndo)?.number;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z" || e.shiftKey) return;
      if (e.target instanceof HTMLInputElement && e.target.value !== "") return;
      e.preventDefault();
      if (lastUndoable !== undefined) undo(lastUndoable);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [lastUndoable, undo]);
  const why = () => document.querySelector<HTMLButtonElement>("[aria-label='Suspects'] button")?.click();
  const shortcut = (key: string): boolean => {
    const actions: Readonly<Record<string, () => void>> = { x: setAside, t: () => setSheet("other"), w: why, f: () => setBig((b) => !b), "?": () => setSheet("help"), s: () => document.getElementById(METER_BUTTON)?.click() };
    const action = actions[key.toLowerCase()];
    action?.();
    return action !== undefined;
  };

  const map = showsFeeds(maps.full, analysis, candidate) ? maps.full : maps.short;
  const leader = analysis?.suspects[0];
  const ended = analysis && !other?.reading && (analysis.stage === "proven" || analysis.stage === "stuck" || analysis.folded.verdict !== undefined);
  const logVerdict = () => { if (analysis && leader) append([verdictEntry(leader, capital(namer.suspect(leader).title), analysis.suspects, analysis.engine, now())]); };

  return (
    <div className={styles.page} data-big={big}>
      <header className={styles.head}>
        <Link href="/" className={styles.brand} aria-label="All jobs"><Logo /> radicula</Link>
        <h1 className={styles.job}><b>{job.machine ?? job.title}</b>{job.machine ? <span className="muted"> · {job.title}</span> : null}</h1>
        <SavedWord state={log.state} />
        <Steps analysis={analysis} />
        <span className={styles.tools}>
          <Button type="text" onClick={() => setSheet("codes")}>Codes</Button>
          <Button type="text" href={`/api/jobs/${job.id}/export`}>Export</Button>
          <Button type="text" onClick={() => setSheet("help")} aria-label="Keys and help">?</Button>
          <ThemeToggle />
        </span>
      </header>
      <SaveNote state={log.state} onDismiss={log.dismiss} />
      {failed ? <div className={styles.alert} role="alert">The calculation stopped. Reload the page; nothing is lost.</div> : null}
      {analysis?.remarks.map((r, i) => <div key={i} className={styles.alert} role="status">{issueText(r)}</div>)}
      <main className={styles.main} aria-busy={working}>
        <div className={styles.map}>
          <p className={styles.mapHead}><b>Root map</b> <span className="muted">codes above, what they share below; thicker means more suspicion</span></p>
          <RootMap map={map} analysis={analysis} next={candidate && !ended ? candidate.points : []} unplugged={analysis?.folded.state.unplugged ?? []} />
        </div>
        <aside className={styles.side}>
          {ended && analysis ? <Verdict analysis={analysis} namer={namer} busy={onTheirWay} onVerdict={logVerdict} onPlugBack={(list) => append(list.map((connector) => ({ type: "plugged", at: now(), connector })))} onOther={() => setSheet("other")} />
            : candidate && analysis ? (
              <NextReading
                jobId={job.id} candidate={candidate} recommendation={recommendation} confirming={analysis.stage === "confirming"} suspects={analysis.suspects} namer={namer} instructor={instructor} practice={job.practice} busy={onTheirWay} keypad={keypad}
                texts={texts} onTexts={setTexts} onLog={onLog} onSetAside={setAside} onOther={() => setSheet("other")} onWhy={why} onShortcut={shortcut}
              />
            ) : analysis?.stage === "waiting" ? <section className={styles.start}><h2>Start with the codes</h2><p>Scan every module and log what is set. The map then shows what the coded circuits share.</p><Button type="primary" onClick={() => setSheet("codes")}>Log codes</Button></section>
            : <section className={styles.start} aria-live="polite"><h2>Solving the circuit…</h2><p className="muted">Every fault this wiring can have, at every severity.</p></section>}
          {analysis && analysis.stage !== "waiting" ? <Suspects suspects={analysis.suspects} namer={namer} ids={names} /> : null}
        </aside>
        <div className={styles.log}><Logbook lines={lines} onUndo={undo} busy={onTheirWay} /></div>
      </main>
      <OtherReading open={sheet === "other"} wiring={job.wiring} namer={namer} instructor={instructor} offered={analysis?.next.filter((n) => n.candidate.id !== candidate?.id).slice(0, 5).map((n) => n.candidate) ?? []} onChoose={(chosen) => { setOther(chosen); setTexts([]); setSheet(undefined); }} onClose={() => setSheet(undefined)} />
      <CodesForm open={sheet === "codes"} wiring={job.wiring} onLog={(entries) => { append(entries); setSheet(undefined); }} onClose={() => setSheet(undefined)} />
      <Help open={sheet === "help"} onClose={() => setSheet(undefined)} />
      <span hidden data-testid="update-ms" data-working={working}>{Math.round(ms)}</span>
    </div>
  );
}
const capital = (t: string) => t.charAt(0).toUpperCase() + t.slice(1);
