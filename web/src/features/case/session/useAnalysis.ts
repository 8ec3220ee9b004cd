"use client";
import type {
  Analysis,
  Candidate,
  CoursePoint,
  Entry,
  Feed,
  Intake,
  Recommendation,
  RunOffer,
  RunView,
  WholeAnswer,
  Wiring,
} from "@radicula/core";
import { proxy, wrap, type Remote } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import { keepAnalysis, keptAnalysis } from "./keptAnalysis";
import { startAnalysts } from "./analysts";
import { watchCard } from "./whatStays";
import { NOT_UNDERSTOOD } from "@/workers/messages";
import type { AnalystApi } from "@/workers/analyst.worker";
import type { RunnerApi } from "@/workers/runner.worker";

export interface AnalysisState {
  readonly analysis: Analysis | undefined;
  readonly ms: number;
  readonly working: boolean;
  /** the code of the issue the worker stopped with */
  readonly failed: string | undefined;
  /** how much of the first pass over all faults is done, 0 to 1; undefined where nothing was told yet */
  readonly progress: number | undefined;
  /** ended by whoever is working; what was found by then stands */
  readonly stopped: boolean;
  readonly stop: () => void;
  readonly goOn: () => void;
  readonly feedsOf: (intake: Intake) => Promise<readonly Feed[]>;
  readonly courseOf: (ids: readonly string[]) => Promise<readonly CoursePoint[]>;
  /** the open guided run, those worth beginning, and what the answers to any other step would mean */
  readonly run: RunView | undefined;
  readonly offers: readonly RunOffer[];
  readonly weigh: (candidate: Candidate) => Promise<Recommendation | undefined>;
  readonly watch: () => Promise<{ readonly instrument: "voltmeter" | "scanTool"; readonly point: string } | undefined>;
}
/** what came back last, and the entries it was asked for */
interface Result {
  readonly analysis: Analysis | undefined;
  readonly ms: number;
  readonly of: readonly Entry[] | undefined;
  readonly failed: string | undefined;
  readonly offers: readonly RunOffer[];
}

/** Pause before thinking ahead, so that a quick second reading is not kept waiting. */
const THINK_AFTER_MS = 30;
/** How long the whole answer may take before the first suggestion is shown meanwhile. */
const FIRST_AFTER_MS = 80;

/** A worker's error comes as its name and text; only one name is expected, any other is a bug. */
const failureCode = (error: unknown) =>
  error instanceof Error && error.name === NOT_UNDERSTOOD ? NOT_UNDERSTOOD : "worker.stopped";

/**
 * Keeps the analysis of wiring + entries up to date in a worker; while it works the last one stays on screen.
 * @param standing what the server had worked out for these very entries
 */
export function useAnalysis(
  jobId: string,
  wiring: Wiring,
  entries: readonly Entry[],
  standing?: WholeAnswer,
): AnalysisState {
  const [result, setResult] = useState<Result>({
    analysis: standing?.analysis,
    ms: 0,
    of: standing && entries,
    failed: undefined,
    offers: standing?.offers ?? [],
  });
  // of the first look only: a page that is fetched anew changes nothing here
  const [stood] = useState(standing?.analysis);
  const remote = useRef<Remote<AnalystApi> | undefined>(undefined);
  const latest = useRef(0);
  const [progress, setProgress] = useState<number | undefined>(undefined);
  /** the entries that were not to be looked at any further; a worker ends only with its thread */
  const [stoppedAt, setStoppedAt] = useState<readonly Entry[] | undefined>(undefined);
  const stopped = stoppedAt === entries;

  useEffect(() => {
    if (stopped) return;
    const failed = (error: unknown) => setResult((r) => ({ ...r, failed: failureCode(error) }));
    const crew = startAnalysts(wiring, failed);
    remote.current = crew.first;
    return () => {
      crew.end();
      remote.current = undefined;
    };
  }, [wiring, stopped]);

  useEffect(() => {
    const api = remote.current;
    if (!api) return;
    setProgress(undefined);
    const mine = ++latest.current;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let first: ReturnType<typeof setTimeout> | undefined;
    const stands = mine === 1 ? stood : undefined;
    let isKept = stands !== undefined; // what was kept is whole: nothing less takes its place
    const card = watchCard();
    // both are asked at once: the worker answers in that order, and gives the second up when something newer came
    // the first only shows when the second is slow: a card must not change under somebody's hands for nothing
    const asked = performance.now();
    const since = () => performance.now() - asked;
    if (stands) card.shows(stands);
    else if (mine === 1)
      void keptAnalysis(jobId, entries).then((kept) => {
        if (!kept || latest.current !== mine) return;
        isKept = true;
        card.shows(kept.analysis);
        setResult((r) => (r.analysis ? r : { ...kept, ms: since(), of: entries, failed: undefined }));
      });
    const told = proxy((share: number) => {
      if (latest.current === mine) setProgress(share);
    });
    api.first(entries, told).then(
      (analysis) => {
        if (!analysis) return;
        first = setTimeout(() => {
          if (latest.current !== mine || isKept) return;
          card.shows(analysis);
          setResult((r) => (r.of === entries ? r : { ...r, analysis, ms: since(), of: undefined, failed: undefined }));
        }, FIRST_AFTER_MS);
      },
      () => undefined,
    );
    api.update(entries).then(
      (full) => {
        clearTimeout(first);
        if (latest.current !== mine || !full) return;
        void keepAnalysis(jobId, entries, full);
        const analysis = card.settles(full.analysis);
        setResult({ analysis, ms: since(), of: entries, failed: undefined, offers: full.offers });
        timer = setTimeout(() => {
          if (latest.current === mine) void api.think(entries);
        }, THINK_AFTER_MS);
      },
      (error: unknown) => {
        if (latest.current === mine) setResult((r) => ({ ...r, failed: failureCode(error) }));
      },
    );
    return () => {
      clearTimeout(timer);
      clearTimeout(first);
      card.leave();
    };
  }, [jobId, wiring, entries, stopped, stood]);

  const stop = useCallback(() => setStoppedAt(entries), [entries]);
  const goOn = useCallback(() => setStoppedAt(undefined), []);
  const feedsOf = useCallback(async (intake: Intake) => (await remote.current?.feeds(intake)) ?? [], []);
  const courseOf = useCallback(
    async (ids: readonly string[]) => (await remote.current?.course(entries, ids)) ?? [],
    [entries],
  );
  const weigh = useCallback(async (candidate: Candidate) => remote.current?.weigh(entries, candidate), [entries]);
  const watch = useCallback(async () => remote.current?.watch(entries), [entries]);
  const run = useRun(wiring, entries);
  return {
    feedsOf,
    courseOf,
    weigh,
    watch,
    run,
    offers: result.offers,
    analysis: result.analysis,
    ms: result.ms,
    working: result.failed === undefined && result.of !== entries && !stopped,
    progress,
    stopped: stopped && result.of !== entries,
    stop,
    goOn,
    failed: result.failed,
  };
}

/** The open guided run, from a worker of its own that starts with the first run of a job. */
function useRun(wiring: Wiring, entries: readonly Entry[]): RunView | undefined {
  const [run, setRun] = useState<RunView | undefined>(undefined);
  const remote = useRef<Remote<RunnerApi> | undefined>(undefined);
  const latest = useRef(0);
  const wanted = entries.some((e) => e.type === "run");
  useEffect(() => {
    if (!wanted) return;
    const worker = new Worker(new URL("../../../workers/runner.worker.ts", import.meta.url), { type: "module" });
    remote.current = wrap<RunnerApi>(worker);
    void remote.current.open(wiring);
    return () => {
      worker.terminate();
      remote.current = undefined;
    };
  }, [wiring, wanted]);
  useEffect(() => {
    if (!wanted || !remote.current) return;
    const mine = ++latest.current;
    remote.current.run(entries).then(
      (view) => {
        if (latest.current === mine) setRun(view);
      },
      () => undefined,
    );
  }, [wiring, wanted, entries]);
  return wanted ? run : undefined;
}
