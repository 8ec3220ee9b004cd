"use client";
import {
  fold,
  Intake,
  isPoint,
  recordAnswer,
  recordReading,
  sharedMatrix,
  subjectsOf,
  withScannedCodes,
  type Candidate,
  type Entry,
  type Finding,
  type Recommendation,
  type RunName,
} from "@radicula/core";
import { CAUTION_WORDS, Instructor, issueText, Namer, sharedText, type Danger } from "@radicula/core/words";
import { Button, Dropdown, Segmented } from "antd";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { say } from "@/messages/issues";
import type { Job } from "@/server/repo/jobs";
import { Logo } from "@/ui/Logo";
import { post } from "@/ui/send";
import { ThemeToggle } from "@/ui/ThemeToggle";
import { useMedia } from "@/ui/useMedia";
import styles from "./Case.module.css";
import { Help } from "./Help";
import { entryNames, logLines } from "./logbook/lines";
import { Logbook } from "./logbook/Logbook";
import type { Maps } from "./map/placed";
import { RootMap } from "./map/RootMap";
import { showsFeeds } from "./map/suspicion";
import { useMap } from "./map/useMap";
import { disturbedText } from "./disturbed/DisturbedList";
import { candidateOf, verdictEntry } from "./reading/entries";
import { NextReading } from "./reading/NextReading";
import { OtherReading, type Other } from "./reading/OtherReading";
import type { How } from "./reading/TakenHow";
import type { TypedValue } from "./reading/ValueBox";
import { METER_BUTTON } from "./reading/SimulatedMeter";
import { Remarks } from "./Remarks";
import { RunPanel } from "./runs/RunPanel";
import { scanSimulated } from "./scan/simulated";
import { BenchSheet } from "../bench/BenchSheet";
import { SavedWord, SaveNote } from "./SaveNote";
import { MakerChartSheet } from "./policy/MakerChartSheet";
import { PolicySwitch } from "./policy/PolicySwitch";
import { Steps } from "./Steps";
import { Suspects } from "./suspects/Suspects";
import { useAnalysis } from "./useAnalysis";
import { usePerson } from "./usePerson";
import { useLogbook } from "./useLogbook";
import { Verdict } from "./Verdict";
import { inSheet } from "@/ui/focus";
import { capital } from "@/ui/text";

const PREFETCH_MS = 250;
// sheets come with their first use: the case itself need not wait for them
const IntakeSheet = dynamic(() => import("./intake/IntakeSheet").then((m) => m.IntakeSheet), { ssr: false });
const ScanSheet = dynamic(() => import("./scan/ScanSheet").then((m) => m.ScanSheet), { ssr: false });
const NameCodes = dynamic(() => import("./scan/NameCodes").then((m) => m.NameCodes), { ssr: false });
const SeenSheet = dynamic(() => import("./seen/SeenSheet").then((m) => m.SeenSheet), { ssr: false });
const Course = dynamic(() => import("./course/Course").then((m) => m.Course), { ssr: false });
const RunSheet = dynamic(() => import("./runs/RunSheet").then((m) => m.RunSheet), { ssr: false });
const DisturbedSheet = dynamic(() => import("./disturbed/DisturbedList").then((m) => m.DisturbedSheet), { ssr: false });
const MeterSheet = dynamic(() => import("./meter/MeterSheet").then((m) => m.MeterSheet), { ssr: false });
const WatchSheet = dynamic(() => import("./watch/WatchSheet").then((m) => m.WatchSheet), { ssr: false });
const SumSheet = dynamic(() => import("./reading/SumSheet").then((m) => m.SumSheet), { ssr: false });
const HandsBusy = dynamic(() => import("./reading/HandsBusy").then((m) => m.HandsBusy), { ssr: false });
const SharedMatrix = dynamic(() => import("./matrix/SharedMatrixView").then((m) => m.SharedMatrixView), { ssr: false });

interface Props {
  readonly job: Job;
  readonly initialEntries: readonly Entry[];
  readonly initialMap: Maps;
  readonly sheet?: SheetName;
}
type View = "map" | "shared" | "course";
export type SheetName =
  | "other"
  | "codes"
  | "name"
  | "intake"
  | "seen"
  | "chart"
  | "help"
  | "runs"
  | "disturbed"
  | "meter"
  | "watch"
  | "sums"
  | "bench"
  | undefined;

/** One case on one screen: the map that argues, the one next thing, the suspects and their reasons, the logbook. */
export function CaseScreen({ job, initialEntries, initialMap, sheet: first }: Props) {
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
  const wiring = useWiring(job.wiring, log.entries);
  const { analysis, ms, working, failed, feedsOf, courseOf, weigh, watch, run, offers } = useAnalysis(
    wiring,
    log.entries,
  );
  const [person, setPerson] = usePerson();
  // a run can wait while something else is read
  const [waitingRun, setWaitingRun] = useState<number | undefined>(undefined);
  const [point, setPoint] = useState<string | undefined>(undefined);
  const namer = useMemo(() => new Namer(wiring), [wiring]);
  const instructor = useMemo(() => new Instructor(wiring), [wiring]);
  const maps = useMap(job.id, initialMap, log.entries, log.saved);
  const [sheet, setSheet] = useState<SheetName>(first);
  // a sheet stays once it was opened, so that it can close gently
  const [opened, setOpened] = useState<ReadonlySet<SheetName>>(new Set());
  if (sheet && !opened.has(sheet)) setOpened(new Set([...opened, sheet]));
  // fetched while nobody waits, so that the first key typed into them is not lost
  useEffect(() => {
    const timer = setTimeout(() => {
      void import("./scan/ScanSheet");
      void import("./intake/IntakeSheet");
      void import("./seen/SeenSheet");
    }, PREFETCH_MS);
    return () => clearTimeout(timer);
  }, []);
  // the address asked for a sheet once; a reload need not ask again
  useEffect(() => {
    if (first) window.history.replaceState(null, "", window.location.pathname);
  }, [first]);
  const [view, setView] = useState<View>("map");
  const [big, setBig] = useState(false);
  const keypad = useMedia("(pointer: coarse)");
  const lines = useMemo(
    () => logLines(log.entries, log.saved, analysis, namer, instructor),
    [log.entries, log.saved, analysis, namer, instructor],
  );
  const names = useMemo(() => entryNames(lines), [lines]);
  const running = run && run.begun !== waitingRun ? run : undefined;
  const planned = other?.reading
    ? undefined
    : (analysis?.next.find((n) => n.candidate.id === other?.offered) ??
      (running?.next ? undefined : analysis?.next[0]));
  const candidate = other?.reading
    ? candidateOf(other.reading, analysis?.folded.state)
    : other?.offered
      ? planned?.candidate
      : (running?.next ?? planned?.candidate);
  const weighed = useWeighed(planned ? undefined : candidate, weigh);
  const recommendation = planned ?? weighed;

  const append = useCallback(
    (entries: readonly Entry[]) => {
      if (entries.length === 0) return;
      log.append(person ? entries.map((e) => ({ by: person, ...e })) : entries);
      setOther(undefined);
      setTexts([]);
    },
    [log, person],
  );
  const now = () => new Date().toISOString();
  const undo = useCallback(
    (target: number, note?: string) => append([{ type: "undo", at: now(), target, ...(note ? { note } : {}) }]),
    [append],
  );
  const onPoint = useCallback(
    (at: string) => {
      if (isPoint(wiring, at)) {
        setPoint(at);
        setSheet("other");
      }
    },
    [wiring],
  );
  const setAside = (reason: "cannotReach" | "noTool") => {
    if (other?.reading) {
      setOther(undefined);
      setTexts([]);
    } else if (candidate) append([{ type: "setAside", at: now(), candidate: candidate.id, reason }]);
  };
  const onLog = (
    values: readonly TypedValue[],
    typed: string,
    swing: readonly [number, number] | undefined,
    how: How,
  ) => {
    if (!candidate) return;
    const corrects = other?.reading?.corrects;
    append(
      recordReading(candidate, values, now(), {
        as: typed,
        ...(swing ? { swing: [...swing] } : {}),
        ...how,
        ...(corrects === undefined ? {} : { corrects }),
      }),
    );
  };
  const onAnswer = (yes: boolean, found: readonly Finding[], photo: string | undefined) => {
    if (candidate) append(recordAnswer(wiring, candidate, yes, now(), found, photo ? { photo } : {}));
  };
  const begin = (name: RunName, on: string) => {
    append([{ type: "run", at: now(), run: name, on, event: "begun" }]);
    setWaitingRun(undefined);
    setSheet(name === "wiggle" ? "watch" : undefined);
  };
  const endRun = (finished: boolean) => {
    if (!run) return;
    append([
      {
        type: "run",
        at: now(),
        run: run.run,
        on: run.on,
        event: finished ? "finished" : "left",
        ...(run.finding ? { found: issueText(run.finding.says).slice(0, 400) } : {}),
      },
    ]);
  };
  const correct = (number: number) => {
    const e = log.entries[number - 1];
    if (e?.type !== "reading") return;
    const { instrument, points, state, black, part } = e;
    setOther({
      reading: {
        instrument,
        points,
        state,
        ...(black === undefined ? {} : { black }),
        ...(part ? { part } : {}),
        corrects: number,
      },
    });
    setTexts(e.as?.split(" · ") ?? e.values.map(String));
  };
  const keepPhoto = async (file: File): Promise<string | undefined> => {
    const thing = candidate && (candidate.at || connectorOf(candidate.points[0] ?? ""));
    if (!job.library || !thing) return undefined;
    try {
      const response = await fetch(`/api/wirings/${job.library.id}/photos?connector=${encodeURIComponent(thing)}`, {
        method: "POST",
        headers: { "Content-Type": /^image\//.test(file.type) ? file.type : "image/unknown" },
        body: file,
      });
      return ((await response.json()) as { id?: string }).id;
    } catch {
      return undefined;
    }
  };
  const keys = useRef<((key: string) => boolean) | undefined>(undefined);
  const lastUndoable = lines.find((l) => l.canUndo)?.number;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      // keys work wherever the focus is, but for what takes text or is over the page
      if (!e.ctrlKey && !e.metaKey && !e.altKey && e.target === document.body && !inSheet() && keys.current?.(e.key)) {
        e.preventDefault();
        return;
      }
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
    const actions: Readonly<Record<string, () => void>> = {
      x: () => setAside("cannotReach"),
      t: () => {
        setPoint(undefined);
        setSheet("other");
      },
      r: () => setSheet("runs"),
      d: () => setSheet("disturbed"),
      b: () => setSheet("meter"),
      p: () => setSheet("watch"),
      k: () => setSheet("sums"),
      w: why,
      f: () => setBig((b) => !b),
      "?": () => setSheet("help"),
      s: () => document.getElementById(METER_BUTTON)?.click(),
      c: () => setSheet("codes"),
      i: () => setSheet("intake"),
      v: () => setSheet("seen"),
    };
    const action = actions[key.toLowerCase()];
    action?.();
    return action !== undefined;
  };
  useEffect(() => {
    keys.current = big ? undefined : shortcut;
  });

  const folded = analysis?.folded;
  const set = useMemo(
    () =>
      folded?.codes.filter((c) => c.entry.status !== "absent" && c.entry.status !== "notRun").map((c) => c.entry) ?? [],
    [folded],
  );
  const subjects = useMemo(
    () =>
      set.map((c) => ({
        code: c.code,
        module: c.module,
        status: c.status,
        about: subjectsOf(wiring, c.module, c.code),
      })),
    [set, wiring],
  );
  const matrix = useMemo(
    () => sharedMatrix(wiring, [...new Set(subjects.flatMap((s) => s.about))]),
    [wiring, subjects],
  );
  // a code with a set condition says what it watches, if not which part
  const unnamed = subjects.filter(
    (s) => s.about.length === 0 && !wiring.codes.some((c) => c.module === s.module && c.id === s.code && c.monitor),
  );
  const workbench = job.library ? `/wiring/${job.library.id}?job=${job.id}` : undefined;
  const unkept = job.library ? wiring.codes.length - job.wiring.codes.length : 0;
  const [kept, setKept] = useState(0);
  const keepCodes = async () => {
    if ((await post(`/api/jobs/${job.id}/codes`)).ok) setKept(unkept);
  };
  const [refused, setRefused] = useState<string | undefined>(undefined);
  const moveOn = async () => {
    const moved = await post(`/api/jobs/${job.id}/revision`);
    if (moved.ok) window.location.reload();
    else setRefused(moved.issues.map((i) => say(i).text).join(" "));
  };
  const intake = folded?.intake?.entry ?? Intake.parse(job.complaint ? { complaint: job.complaint } : {});
  const hasWiring = wiring.devices.length > 0;
  const map = showsFeeds(maps.full, analysis, candidate) ? maps.full : maps.short;
  const leader = analysis?.suspects[0];
  // straight from the logbook, not from the analysis that follows: what was put right is off the list at once
  const { open, closed } = useMemo(() => fold(log.entries), [log.entries]);
  const remarks = analysis?.remarks.filter((r) => r.code !== "remark.meter-not-proven") ?? [];
  const unproven = analysis?.remarks.some((r) => r.code === "remark.meter-not-proven") ?? false;
  const ended =
    analysis &&
    !other?.reading &&
    !running?.next &&
    (analysis.stage === "proven" ||
      analysis.stage === "stuck" ||
      analysis.folded.verdict !== undefined ||
      closed !== undefined);
  const dangers = folded?.intake?.entry.safety.map((d) => CAUTION_WORDS[d]) ?? [];
  // places worth moving: connectors of the strongest suspects
  const places = [...new Set((analysis?.suspects ?? []).flatMap((s) => s.places.map((x) => connectorOf(x.id))))].filter(
    (x) =>
      wiring.connectors.some((c) => c.id === x) ||
      wiring.devices.some((d) => d.id === x && (d.kind === "splice" || d.kind === "ground")),
  );
  const cardProps = (c: Candidate, acknowledged: ReadonlySet<string>) => ({
    jobId: job.id,
    wiring,
    candidate: c,
    recommendation,
    dangers,
    acknowledged,
    confirming: analysis?.stage === "confirming",
    suspects: analysis?.suspects ?? [],
    namer,
    instructor,
    practice: job.practice,
    keypad,
    texts,
    from: {
      planned: planned !== undefined,
      label: other?.reading
        ? other.reading.corrects
          ? `Instead of entry ${other.reading.corrects}`
          : "Another reading"
        : planned
          ? analysis?.again !== undefined
            ? `Once more: entry ${analysis.again} does not fit`
            : analysis?.stage === "confirming"
              ? "Confirm"
              : "Next reading"
          : "Next step of the run",
    },
    onAcknowledge: (list: readonly Danger[]) => append([{ type: "acknowledged", at: now(), cautions: [...list] }]),
    onTexts: (t: string[]) => {
      if (!other && planned) setOther({ offered: planned.candidate.id });
      setTexts(t);
    },
    onLog,
    onAnswer,
    onPhoto: job.library ? keepPhoto : undefined,
    onSetAside: setAside,
    onSum: () => setSheet("sums"),
    onOther: () => {
      setPoint(undefined);
      setSheet("other");
    },
    onWhy: why,
    onShortcut: shortcut,
  });
  const logVerdict = () => {
    if (analysis && leader)
      append([verdictEntry(leader, capital(namer.suspect(leader).title), analysis.suspects, analysis.engine, now())]);
  };

  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <Link href="/" className={styles.brand} aria-label="All jobs">
          <Logo /> radicula
        </Link>
        <h1 className={styles.job}>
          <b>{job.machine ?? job.title}</b>
          {job.machine ? <span className="muted"> · {job.title}</span> : null}
        </h1>
        <SavedWord state={log.state} />
        <Steps analysis={analysis} onIntake={() => setSheet("intake")} onScan={() => setSheet("codes")} />
        <span className={styles.tools}>
          {workbench ? (
            <Link href={workbench} className={styles.tool}>
              Wiring
            </Link>
          ) : null}
          <Dropdown
            trigger={["click"]}
            menu={{
              items: [
                { key: "runs", label: "Guided runs", onClick: () => setSheet("runs") },
                { key: "watch", label: "Move one place at a time", onClick: () => setSheet("watch") },
                {
                  key: "disturbed",
                  label: open.length ? `Not as it was found (${open.length})` : "Not as it was found",
                  onClick: () => setSheet("disturbed"),
                },
                { key: "meter", label: "Is the meter right?", onClick: () => setSheet("meter") },
                { key: "seen", label: "Seen on the machine", onClick: () => setSheet("seen") },
                {
                  key: "other",
                  label: "Another reading",
                  onClick: () => {
                    setPoint(undefined);
                    setSheet("other");
                  },
                },
                {
                  key: "calculators",
                  label: (
                    <Link href="/calculators" target="_blank">
                      Calculators
                    </Link>
                  ),
                },
                { key: "bench", label: "Put this machine on the bench", onClick: () => setSheet("bench") },
                { key: "json", label: <a href={`/api/jobs/${job.id}/export`}>Save the job, JSON</a> },
                { key: "zip", label: <a href={`/api/jobs/${job.id}/export?as=zip`}>Save the job with photos, zip</a> },
              ],
            }}
          >
            <Button type="text">More</Button>
          </Dropdown>
          <Button type="text" onClick={() => setSheet("help")} aria-label="Keys and help">
            ?
          </Button>
          <ThemeToggle />
        </span>
      </header>
      <SaveNote state={log.state} onDismiss={log.dismiss} />
      {failed ? (
        <div className={styles.alert} role="alert">
          The calculation stopped. Reload the page; nothing is lost.
        </div>
      ) : null}
      {job.library && job.library.newest > job.library.revision ? (
        <div className={styles.alert} role="status">
          <span>
            The wiring has a revision {job.library.newest}; this job goes by {job.library.revision}.
          </span>
          <Button size="small" onClick={() => void moveOn()}>
            Go on with the newest
          </Button>
        </div>
      ) : null}
      {refused ? (
        <div className={styles.alert} role="alert">
          {refused}
        </div>
      ) : null}
      {analysis ? (
        <Remarks remarks={remarks} busy={false} onEntry={(e) => append([e])} onName={() => setSheet("name")} />
      ) : null}
      <main className={styles.main} aria-busy={working}>
        <div className={styles.map}>
          <div className={styles.mapHead}>
            <Segmented<View>
              size="small"
              value={view}
              onChange={(v) => setView(v)}
              options={[
                { value: "map", label: "Root map" },
                { value: "shared", label: "What they share" },
                { value: "course", label: "Suspicion over time" },
              ]}
            />{" "}
            <span className="muted">
              {view === "course"
                ? "after each entry of the logbook"
                : view === "shared"
                  ? "from the drawing alone, before any voltage is known"
                  : matrix.coded.length && !folded?.readings.length
                    ? sharedText(matrix)
                    : "codes above, what they share below; thicker means more suspicion"}
            </span>
          </div>
          {view === "map" ? (
            <RootMap
              map={map}
              analysis={analysis}
              next={candidate && !ended ? candidate.points : []}
              unplugged={analysis?.folded.state.unplugged ?? []}
              onPoint={onPoint}
            />
          ) : view === "course" ? (
            <Course
              suspects={analysis?.suspects ?? []}
              entries={log.entries.length}
              courseOf={courseOf}
              namer={namer}
            />
          ) : (
            <SharedMatrix
              matrix={matrix}
              unnamed={unnamed.map((s) => s.code)}
              onName={() => setSheet("name")}
              namer={namer}
            />
          )}
        </div>
        <aside className={styles.side}>
          {run ? (
            <RunPanel
              run={run}
              namer={namer}
              paused={running === undefined}
              onPause={(p) => {
                setWaitingRun(p ? run.begun : undefined);
                setOther(undefined);
              }}
              onEnd={endRun}
            />
          ) : null}
          {ended && analysis ? (
            <Verdict
              analysis={analysis}
              namer={namer}
              open={open}
              closed={closed !== undefined}
              onVerdict={logVerdict}
              onClose={() => append([{ type: "closed", at: now() }])}
              onReopen={() => {
                if (closed !== undefined) undo(closed);
              }}
              onDisturbed={() => setSheet("disturbed")}
              onOther={() => setSheet("other")}
            />
          ) : candidate && analysis && folded && !(running?.finding && !other) ? (
            big ? null : (
              <NextReading {...cardProps(candidate, folded.acknowledged)} />
            )
          ) : running?.finding ? null : !hasWiring ? (
            <section className={styles.start}>
              <h2>No wiring yet</h2>
              <p>
                Type the connectors around the coded sensors: connector, cavity, colour, function, where it goes. A
                dozen lines are enough to start.
              </p>
              {workbench ? (
                <Button type="primary" href={workbench}>
                  Type the wiring
                </Button>
              ) : null}
            </section>
          ) : analysis?.stage === "waiting" && set.length ? (
            <section className={styles.start}>
              <h2>What do these codes name?</h2>
              <p>
                {set.map((c) => c.code).join(", ")}: no part of this wiring is known for{" "}
                {set.length === 1 ? "it" : "them"}, so nothing can be ranked yet.
              </p>
              <Button type="primary" onClick={() => setSheet("name")}>
                Say which part each names
              </Button>
            </section>
          ) : analysis?.stage === "waiting" ? (
            <section className={styles.start}>
              <h2>Start with the codes</h2>
              <p>Scan every module before anything is unplugged. The map then shows what the coded circuits share.</p>
              <Button type="primary" onClick={() => setSheet("codes")}>
                Type or paste the scan
              </Button>
              {folded?.intake ? null : (
                <button type="button" className="link" onClick={() => setSheet("intake")}>
                  First, what the customer says
                </button>
              )}
            </section>
          ) : (
            <section className={styles.start} aria-live="polite">
              <h2>Solving the circuit…</h2>
              <p className="muted">Every fault this wiring can have, at every severity.</p>
            </section>
          )}
          {analysis && !ended && !running && analysis.stage !== "waiting" ? (
            <p className={styles.aside}>
              <button type="button" className="link" onClick={() => setSheet("runs")}>
                {offers[0] ? `Guided runs: ${offers.length} worth their time` : "Guided runs"}
              </button>
              {open.length ? (
                <button
                  type="button"
                  className="link"
                  onClick={() => setSheet("disturbed")}
                  title={open.map((d) => disturbedText(d, namer)).join("; ")}
                >
                  {open.length === 1 ? "1 thing" : `${open.length} things`} not as found
                </button>
              ) : null}
              {unproven ? (
                <button type="button" className="link" onClick={() => setSheet("meter")}>
                  Is the meter right?
                </button>
              ) : null}
            </p>
          ) : null}
          {analysis && !ended && !running && analysis.stage !== "waiting" ? (
            <PolicySwitch
              analysis={analysis}
              busy={false}
              onChange={(school) =>
                append([
                  {
                    type: "school",
                    at: now(),
                    school,
                    ...(school === "chart" && folded?.school?.chart ? { chart: folded.school.chart } : {}),
                  },
                ])
              }
              onChart={() => setSheet("chart")}
            />
          ) : null}
          {analysis && analysis.stage !== "waiting" ? (
            <Suspects
              suspects={analysis.suspects}
              namer={namer}
              instructor={instructor}
              ids={names}
              economics={analysis.economics}
              onChoose={(chosen) => {
                setOther({ offered: chosen.id });
                setTexts([]);
              }}
            />
          ) : null}
        </aside>
        <div className={styles.log}>
          <Logbook
            lines={lines}
            entries={log.entries}
            namer={namer}
            onUndo={undo}
            onCorrect={correct}
            csv={`/api/jobs/${job.id}/export?as=csv`}
            person={person}
            onPerson={setPerson}
          />
        </div>
      </main>
      <OtherReading
        open={sheet === "other"}
        point={point}
        now={folded?.state}
        wiring={wiring}
        namer={namer}
        instructor={instructor}
        offered={
          analysis?.next
            .filter((n) => n.candidate.id !== candidate?.id)
            .slice(0, 5)
            .map((n) => n.candidate) ?? []
        }
        onChoose={(chosen) => {
          setOther(chosen);
          setTexts([]);
          setSheet(undefined);
        }}
        onClose={() => setSheet(undefined)}
      />
      {folded && opened.has("codes") ? (
        <ScanSheet
          open={sheet === "codes"}
          wiring={wiring}
          onSimulated={job.practice ? (when) => scanSimulated(job.id, when) : undefined}
          folded={folded}
          workbench={workbench}
          unkept={unkept - kept}
          onKeep={() => void keepCodes()}
          onLog={(entries) => {
            append(entries);
            if (entries[0]?.type !== "cleared") setSheet(undefined);
          }}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {folded && opened.has("intake") ? (
        <IntakeSheet
          open={sheet === "intake"}
          wiring={wiring}
          intake={intake}
          feedsOf={feedsOf}
          onLog={(i) => {
            append([{ type: "intake", at: now(), intake: i }]);
            setSheet(undefined);
          }}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {folded && opened.has("name") ? (
        <NameCodes
          open={sheet === "name"}
          wiring={wiring}
          unnamed={unnamed}
          scans={folded.scans}
          onLog={(entries) => {
            append(entries);
            setSheet(undefined);
          }}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {opened.has("seen") ? (
        <SeenSheet
          open={sheet === "seen"}
          wiring={wiring}
          connector={candidate?.at}
          onLog={(e) => {
            append([e]);
            setSheet(undefined);
          }}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {opened.has("chart") ? (
        <MakerChartSheet
          open={sheet === "chart"}
          wiring={wiring}
          namer={namer}
          instructor={instructor}
          chart={folded?.school?.chart}
          onLog={(e) => {
            append([e]);
            setSheet(undefined);
          }}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {opened.has("runs") ? (
        <RunSheet
          open={sheet === "runs"}
          wiring={wiring}
          namer={namer}
          offers={offers}
          onBegin={begin}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {opened.has("disturbed") ? (
        <DisturbedSheet
          open={sheet === "disturbed"}
          wiring={wiring}
          namer={namer}
          list={open}
          closed={closed !== undefined}
          onLog={append}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {opened.has("meter") ? (
        <MeterSheet
          open={sheet === "meter"}
          onLog={(e) => {
            append([e]);
            setSheet(undefined);
          }}
          onClose={() => setSheet(undefined)}
        />
      ) : null}
      {opened.has("watch") ? (
        <WatchSheet
          open={sheet === "watch"}
          jobId={job.id}
          wiring={wiring}
          namer={namer}
          instructor={instructor}
          practice={job.practice}
          asked={folded?.run?.entry.run === "wiggle" ? folded.run.entry.on : undefined}
          best={watch}
          places={places}
          onLog={(entries) => {
            append(
              folded?.run?.entry.run === "wiggle"
                ? [...entries, { type: "run", at: now(), run: "wiggle", on: folded.run.entry.on, event: "finished" }]
                : entries,
            );
            setSheet(undefined);
          }}
          onClose={() => {
            if (folded?.run?.entry.run === "wiggle")
              append([{ type: "run", at: now(), run: "wiggle", on: folded.run.entry.on, event: "left" }]);
            setSheet(undefined);
          }}
        />
      ) : null}
      {opened.has("sums") ? (
        <SumSheet open={sheet === "sums"} wiring={wiring} candidate={candidate} onClose={() => setSheet(undefined)} />
      ) : null}
      <BenchSheet open={sheet === "bench"} job={job.id} onClose={() => setSheet(undefined)} />
      {big && candidate && folded && !ended ? (
        <HandsBusy candidate={candidate} instructor={instructor} dangers={dangers} onClose={() => setBig(false)}>
          <NextReading {...cardProps(candidate, folded.acknowledged)} bare />
        </HandsBusy>
      ) : null}
      <Help open={sheet === "help"} onClose={() => setSheet(undefined)} />
      <span hidden data-testid="update-ms" data-working={working}>
        {Math.round(ms)}
      </span>
    </div>
  );
}

/** The wiring with the codes that scans added; the same object until one more is added. */
function useWiring(wiring: Job["wiring"], entries: readonly Entry[]): Job["wiring"] {
  const now = withScannedCodes(wiring, entries);
  const key = JSON.stringify(now.codes.slice(wiring.codes.length));
  return useMemo(
    () =>
      key === "[]" ? wiring : { ...wiring, codes: [...wiring.codes, ...(JSON.parse(key) as Job["wiring"]["codes"])] },
    [wiring, key],
  );
}

/** What the answers to a step that is not in the plan would mean; worked out aside, and shown when it is there. */
function useWeighed(
  candidate: Candidate | undefined,
  weigh: (c: Candidate) => Promise<Recommendation | undefined>,
): Recommendation | undefined {
  const [found, setFound] = useState<{ readonly of: string; readonly recommendation: Recommendation | undefined }>({
    of: "",
    recommendation: undefined,
  });
  const id = candidate?.id;
  useEffect(() => {
    if (!candidate || id === undefined) return;
    let on = true;
    void weigh(candidate).then(
      (recommendation) => {
        if (on) setFound({ of: id, recommendation });
      },
      () => undefined,
    );
    return () => {
      on = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a candidate is the same while its id is
  }, [id, weigh]);
  return found.of === id ? found.recommendation : undefined;
}
