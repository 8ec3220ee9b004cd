"use client";
import { assumedAt, type DrawingGap, type Entry, type Wiring } from "@radicula/core";
import { wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import type { DrawingApi } from "@/workers/drawing.worker";

export interface Gaps {
  /** how many wires of the job are only assumed */
  readonly count: number;
  /** those that tell most first; none before they are worked out */
  readonly list: readonly DrawingGap[];
  /** whether what they would tell has been worked out for the logbook as it is */
  readonly weighed: boolean;
}
const NONE: Gaps = { count: 0, list: [], weighed: true };
/** Pause after an answer, so that a next reading is not kept waiting, ms. */
const AFTER_MS = 400;

/**
 * What the drawing leaves open, in a worker of its own that lives as long as it works.
 * @param entries the logbook, once it is worked out and something is to be explained; undefined before
 */
export function useGaps(wiring: Wiring, entries: readonly Entry[] | undefined): Gaps {
  const count = useMemo(() => assumedAt(wiring).size, [wiring]);
  const [found, setFound] = useState<{
    readonly list: readonly DrawingGap[];
    readonly wiring: Wiring;
    readonly of: readonly Entry[] | undefined;
  }>();
  useEffect(() => {
    if (count === 0) return undefined;
    let started: Worker | undefined;
    const begin = () => {
      const worker = new Worker(new URL("../../../workers/drawing.worker.ts", import.meta.url), { type: "module" });
      started = worker;
      const api = wrap<DrawingApi>(worker);
      void (async () => {
        // what is open comes first: what each would tell takes longer
        const list = await api.list(wiring);
        setFound((f) => (f?.wiring === wiring ? f : { list, wiring, of: undefined }));
        if (entries) setFound({ list: await api.gaps(wiring, entries), wiring, of: entries });
        worker.terminate();
      })().catch(() => undefined); // the job goes on without
    };
    const timer = setTimeout(begin, AFTER_MS);
    return () => {
      clearTimeout(timer);
      started?.terminate();
    };
  }, [wiring, entries, count]);
  if (count === 0) return NONE;
  const isThis = found?.wiring === wiring;
  return { count, list: isThis ? found.list : [], weighed: isThis && entries !== undefined && found.of === entries };
}
