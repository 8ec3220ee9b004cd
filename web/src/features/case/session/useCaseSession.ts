"use client";
import { useUnits } from "@/ui/Units";
import { fold, Intake, type Entry, type WholeAnswer } from "@radicula/core";
import { CAUTION_WORDS, Instructor, Namer } from "@radicula/core/words";
import { useCallback, useMemo, useState } from "react";
import type { Job } from "@/server/repo/jobs";
import { entryNames, logLines } from "../logbook/lines";
import type { Maps } from "../map/placed";
import { useMap } from "../map/useMap";
import { useGaps } from "../gaps/useGaps";
import { useAnalysis } from "./useAnalysis";
import { readingIn, useCard, type Card } from "./useCard";
import { useCodedCircuits } from "./useCodedCircuits";
import { useLogbook, type LogbookState } from "./useLogbook";
import { useNextStep } from "./useNextStep";
import { usePerson } from "./usePerson";
import { useScannedWiring } from "./useScannedWiring";
import type { MapView, SheetName } from "./sheetNames";
import { useSheets } from "./useSheets";

export interface CaseProps {
  readonly job: Job;
  /** which database it is in */
  readonly database: string;
  readonly initialEntries: readonly Entry[];
  readonly initialMap: Maps;
  /** the whole answer to those entries, where one stands: shown until it is worked out anew */
  readonly standing?: WholeAnswer | undefined;
  readonly sheet?: SheetName | undefined;
  readonly view?: MapView | undefined;
}

/** Everything one case on one screen hangs on: its logbook, what is computed from it, and what is open. */
export function useCaseSession({
  job,
  database,
  initialEntries,
  initialMap,
  standing,
  sheet,
  view = "map",
}: CaseProps) {
  const card = useCard();
  const { take } = card;
  const giveBack = useCallback(
    (entries: readonly Entry[]) => {
      const reading = readingIn(entries);
      if (reading) take(reading);
    },
    [take],
  );
  const log = useLogbook({ database, job: job.id }, initialEntries, giveBack);
  // straight from the logbook, not from the analysis that follows: what was put right is off the list at once
  const folded = useMemo(() => fold(log.entries), [log.entries]);
  const wiring = useScannedWiring(job.wiring, log.entries);
  const computed = useAnalysis(job.id, wiring, log.entries, standing);
  const { analysis, run } = computed;
  const isExplained = !computed.working && analysis !== undefined && analysis.stage !== "waiting";
  const gaps = useGaps(job.wiring, isExplained ? log.entries : undefined);
  const [person, setPerson] = usePerson();
  const write = useWriting(log, person, card);
  // a run can wait while something else is read
  const [waitingRun, setWaitingRun] = useState<number | undefined>(undefined);
  const running = run && run.begun !== waitingRun ? run : undefined;
  const next = useNextStep(analysis, folded.state, running, card, computed.weigh, computed.working);
  const units = useUnits();
  const words = useMemo(
    () => ({ namer: new Namer(wiring, units), instructor: new Instructor(wiring, units) }),
    [wiring, units],
  );
  const lines = useMemo(
    () => logLines(log.entries, log.saved, analysis, words.namer, words.instructor),
    [log.entries, log.saved, analysis, words],
  );
  const [reasonsOf, setReasonsOf] = useState<string | undefined>(undefined);
  return {
    job,
    log,
    wiring,
    computed,
    gaps,
    analysis,
    folded,
    card,
    next,
    write,
    ...words,
    lines,
    entryNames: useMemo(() => entryNames(lines), [lines]),
    maps: useMap(wiring, initialMap, log.entries),
    sheets: useSheets(wiring, sheet, folded.codes.length === 0),
    view: useView(view),
    codes: useCodedCircuits(folded, wiring),
    open: folded.open,
    closed: folded.closed,
    run,
    running,
    setWaitingRun,
    person,
    setPerson,
    /** the suspect whose reasons are shown */
    reasonsOf,
    setReasonsOf,
    intake: useIntake(job, folded.intake?.entry),
    dangers: folded.intake?.entry.safety.map((d) => CAUTION_WORDS[d]) ?? [],
    workbench: job.library ? `/wiring/${job.library.id}?job=${job.id}` : undefined,
  };
}

/** The way to look at what the codes share. It stands in the address, so that a link leads to it. */
function useView(first: MapView) {
  const [view, setView] = useState(first);
  const show = useCallback((next: MapView) => {
    setView(next);
    const address = new URL(window.location.href);
    if (next === "map") address.searchParams.delete("view");
    else address.searchParams.set("view", next);
    window.history.replaceState(null, "", address);
  }, []);
  return useMemo(() => ({ shown: view, show }), [view, show]);
}
export type CaseSession = ReturnType<typeof useCaseSession>;

/** Entries by whoever is working; every one brings the card back to the plan. */
function useWriting(log: LogbookState, person: string, card: Card) {
  const { clear } = card;
  const append = useCallback(
    (entries: readonly Entry[]) => {
      if (entries.length === 0) return;
      log.append(person ? entries.map((e) => ({ by: person, ...e })) : entries);
      clear();
    },
    [log, person, clear],
  );
  const undo = useCallback(
    (target: number, note?: string) => append([{ type: "undo", at: now(), target, ...(note ? { note } : {}) }]),
    [append],
  );
  return useMemo(() => ({ append, undo }), [append, undo]);
}
export const now = () => new Date().toISOString();

function useIntake(job: Job, told: Intake | undefined): Intake {
  return useMemo(() => told ?? Intake.parse(job.complaint ? { complaint: job.complaint } : {}), [job.complaint, told]);
}
