"use client";
import type { Chart } from "@radicula/core";
import { wrap, type Remote } from "comlink";
import { useEffect, useRef, useState } from "react";
import type { Built, ChartApi } from "@/workers/chart.worker";

/** Pause after the last keystroke before the chart is put together. */
const PAUSE_MS = 120;

/**
 * The chart put together in a worker; while it works the last one stays. `fresh` says whether it is of this very chart.
 */
export function useBuilt(chart: Chart): { readonly built: Built | undefined; readonly fresh: boolean } {
  const [result, setResult] = useState<{ readonly of: Chart; readonly built: Built } | undefined>(undefined);
  const remote = useRef<Remote<ChartApi> | undefined>(undefined);
  const latest = useRef<Chart | undefined>(undefined);
  useEffect(() => {
    const worker = new Worker(new URL("../../workers/chart.worker.ts", import.meta.url), { type: "module" });
    remote.current = wrap<ChartApi>(worker);
    return () => {
      worker.terminate();
      remote.current = undefined;
    };
  }, []);
  useEffect(() => {
    latest.current = chart;
    const timer = setTimeout(() => {
      remote.current?.build(chart).then(
        (built) => {
          if (latest.current === chart) setResult({ of: chart, built });
        },
        () => undefined,
      );
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [chart]);
  return { built: result?.built, fresh: result?.of === chart };
}
