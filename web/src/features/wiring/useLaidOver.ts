"use client";
import type { Chart } from "@radicula/core";
import { wrap } from "comlink";
import { useEffect, useMemo, useRef, useState } from "react";
import type { ChartApi, LaidOver } from "@/workers/chart.worker";

/** Pause after the last keystroke before the table is read. */
const PAUSE_MS = 120;

interface Asked {
  readonly chart: Chart;
  readonly text: string;
  readonly source: string;
}

/**
 * A table read and laid over the chart, in a worker of its own: a large one never freezes the page, and can be stopped.
 * What was read last stays until the next is there; nothing where there is no table.
 */
export function useLaidOver(chart: Chart, text: string, source: string) {
  const asked = useMemo<Asked | undefined>(
    () => (text.trim() ? { chart, text, source } : undefined),
    [chart, text, source],
  );
  const [result, setResult] = useState<
    { readonly of: Asked; readonly read: LaidOver | "stopped" | "failed" } | undefined
  >(undefined);
  const running = useRef<Worker | undefined>(undefined);
  const end = () => {
    running.current?.terminate();
    running.current = undefined;
  };
  useEffect(() => {
    if (!asked) return undefined;
    let here = true;
    const timer = setTimeout(() => {
      running.current = new Worker(new URL("../../workers/chart.worker.ts", import.meta.url), { type: "module" });
      void wrap<ChartApi>(running.current)
        .layOver(asked)
        .then(
          (read) => {
            end();
            if (here) setResult({ of: asked, read });
          },
          () => {
            end();
            if (here) setResult({ of: asked, read: "failed" });
          },
        );
    }, PAUSE_MS);
    return () => {
      here = false;
      clearTimeout(timer);
      end();
    };
  }, [asked]);
  const read = asked && typeof result?.read === "object" ? result.read : undefined;
  return {
    read,
    isWorking: asked !== undefined && result?.of !== asked,
    /** how the reading ended without a result */
    ended: asked !== undefined && result?.of === asked && typeof result.read === "string" ? result.read : undefined,
    stop: () => {
      end();
      if (asked) setResult({ of: asked, read: "stopped" });
    },
  };
}
