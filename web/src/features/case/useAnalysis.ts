"use client";
import type { Analysis, Candidate, CoursePoint, Entry, Feed, Intake, Recommendation, RunOffer, RunView, Wiring } from "@radicula/core";
import { wrap, type Remote } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { AnalystApi } from "@/workers/analyst.worker";

export interface AnalysisState { readonly analysis: Analysis | undefined; readonly ms: number; readonly working: boolean; readonly failed: boolean; readonly feedsOf: (intake: Intake) => Promise<readonly Feed[]>; readonly courseOf: (ids: readonly string[]) => Promise<readonly CoursePoint[]>;
  /** the open guided run, those worth beginning, and what the answers to any other step would mean */
  readonly run: RunView | undefined; readonly offers: readonly RunOffer[]; readonly weigh: (candidate: Candidate) => Promise<Recommendation | undefined>; readonly watch: () => Promise<{ readonly instrument: "voltmeter" | "scanTool"; readonly point: string } | undefined> }
/** what came back last, and the entries it was asked for */
interface Result { readonly analysis: Analysis | undefined; readonly ms: number; readonly of: readonly Entry[] | undefined; readonly failed: boolean; readonly run: RunView | undefined; readonly offers: readonly RunOffer[] }

/** Pause before thinking ahead, so that a quick second reading is not kept waiting. */
const THINK_AFTER_MS = 30;
/** How long the looked-ahead suggestion may take before the first one is shown meanwhile. */
const FIRST_AFTER_MS = 1500;

/** Keeps the analysis of wiring + entries up to date in a worker; while it works the last one stays on screen. */
export function useAnalysis(wiring: Wiring, entries: readonly Entry[]): AnalysisState {
  const [result, setResult] = useState<Result>({ analysis: undefined, ms: 0, of: undefined, failed: false, run: undefined, offers: [] });
  const remote = useRef<Remote<AnalystApi> | undefined>(undefined);
  const latest = useRef(0);

  useEffect(() => {
    const worker = new Worker(new URL("../../workers/analyst.worker.ts", import.meta.url), { type: "module" });
    worker.onerror = () => setResult((r) => ({ ...r, failed: true }));
    remote.current = wrap<AnalystApi>(worker);
    void remote.current.open(wiring);
    return () => { worker.terminate(); remote.current = undefined; };
  }, [wiring]);

  useEffect(() => {
    const api = remote.current;
    if (!api) return;
    const mine = ++latest.current;
    let timer: ReturnType<typeof setTimeout> | undefined, first: ReturnType<typeof setTimeout> | undefined;
    // a guided run knows its next step without any ranking: that comes first
    api.run(entries).then((run) => { if (latest.current === mine) setResult((r) => (r.of === entries || (run === undefined && r.run === undefined) ? r : { ...r, run })); }, () => undefined);
    // both are asked at once: the worker answers in that order, and gives the second up when something newer came
    // the first only shows when the second is slow: a card must not change under somebody's hands for nothing
    api.first(entries).then(({ analysis, ms }) => {
      first = setTimeout(() => { if (latest.current === mine) setResult((r) => (r.of === entries ? r : { ...r, analysis, ms, of: undefined, failed: false })); }, FIRST_AFTER_MS);
    }, () => undefined);
    api.update(entries).then((full) => {
      clearTimeout(first);
      if (latest.current !== mine || !full) return;
      const { analysis, ms, run, offers } = full;
      setResult({ analysis, ms, of: entries, failed: false, run, offers });
      timer = setTimeout(() => { if (latest.current === mine) void api.think(entries, analysis); }, THINK_AFTER_MS);
    }, () => { if (latest.current === mine) setResult((r) => ({ ...r, failed: true })); });
    return () => { clearTimeout(timer); clearTimeout(first); };
  }, [wiring, entries]);

  const feedsOf = useCallback(async (intake: Intake) => (await remote.current?.feeds(intake)) ?? [], []);
  const courseOf = useCallback(async (ids: readonly string[]) => (await remote.current?.course(entries, ids)) ?? [], [entries]);
  const weigh = useCallback(async (candidate: Candidate) => remote.current?.weigh(entries, candidate), [entries]);
  const watch = useCallback(async () => remote.current?.watch(entries), [entries]);
  return { feedsOf, courseOf, weigh, watch, run: result.run, offers: result.offers, analysis: result.analysis, ms: result.ms, working: !result.failed && result.of !== entries, failed: result.failed };
}
