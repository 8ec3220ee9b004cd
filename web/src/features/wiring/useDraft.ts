"use client";
import { Chart } from "@radicula/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { z } from "zod";

export type DraftState = "saved" | "saving" | "waiting" | "stale" | "refused";
const Kept = z.object({ seq: z.number().int(), chart: Chart });
const Seq = z.object({ seq: z.number().int() });
const key = (id: string) => `radicula.draft.${id}`;
const breath = () => new Promise((resolve) => setTimeout(resolve, 0));
const PAUSE_MS = 500;
const RETRY_MS = 2000;

/**
 * What this device kept of a chart that could not be saved. `current` says that nobody has saved since; else it is put
 * aside under a name of its own, where later saves do not reach it, until somebody decides.
 */
export function keptDraft(
  id: string,
  seq: number,
  storage: Storage,
): { readonly chart: Chart; readonly current: boolean } | undefined {
  try {
    const kept = Kept.safeParse(JSON.parse(storage.getItem(key(id)) ?? "null"));
    if (kept.success && kept.data.seq === seq) return { chart: kept.data.chart, current: true };
    if (kept.success) {
      storage.setItem(aside(id), JSON.stringify(kept.data));
      storage.removeItem(key(id));
    }
    const old = Kept.safeParse(JSON.parse(storage.getItem(aside(id)) ?? "null"));
    return old.success ? { chart: old.data.chart, current: false } : undefined;
  } catch {
    return undefined;
  }
}
const aside = (id: string) => `${key(id)}.aside`;
/** What was put aside is shown, or not wanted. */
export function dropAside(id: string) {
  try {
    localStorage.removeItem(aside(id));
  } catch {
    /* nothing kept */
  }
}
function keep(id: string, seq: number, chart: Chart) {
  try {
    localStorage.setItem(key(id), JSON.stringify({ seq, chart }));
  } catch {
    /* a chart too large for this store stays in the window */
  }
}
function forget(id: string) {
  try {
    localStorage.removeItem(key(id));
  } catch {
    /* nothing to forget */
  }
}

/**
 * Keeps the database in step with the chart, a moment after each change. Without a connection the chart stays on this
 * device and is sent again; when another window saved first, nothing is overwritten until somebody decides.
 */
export function useDraft(
  id: string,
  initialSeq: number,
  chart: Chart,
): { readonly state: DraftState; flush(): Promise<boolean>; overwrite(): void } {
  const [state, setState] = useState<DraftState>("saved");
  const seq = useRef(initialSeq);
  const saved = useRef(chart);
  const current = useRef(chart);
  const busy = useRef<Promise<boolean> | undefined>(undefined);
  const stale = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => {
    current.current = chart;
  }, [chart]);

  const saveNow = useCallback(async (): Promise<boolean> => {
    while (busy.current) await busy.current;
    const mine = current.current;
    if (mine === saved.current) return true;
    if (stale.current) return false;
    const attempt = (async () => {
      setState("saving");
      try {
        const body = JSON.stringify({ seq: seq.current, chart: mine });
        await breath(); // a large chart is written in one turn and sent in the next, so that typing is not held up
        const response = await fetch(`/api/wirings/${id}/draft`, {
          method: "PUT",
          headers: { "Content-Type": "application/json" },
          body,
        });
        if (response.status === 200 || response.status === 409) {
          const body = Seq.parse(await response.json());
          if (response.status === 409) {
            stale.current = true;
            keep(id, seq.current, mine);
            setState("stale");
            return false;
          }
          seq.current = body.seq;
          saved.current = mine;
          forget(id);
          setState(mine === current.current ? "saved" : "saving");
          return true;
        }
        if (response.status < 500) {
          setState("refused");
          return false;
        }
      } catch {
        /* no answer: kept and tried again */
      }
      keep(id, seq.current, mine);
      setState("waiting");
      return false;
    })();
    busy.current = attempt;
    try {
      return await attempt;
    } finally {
      busy.current = undefined;
    }
  }, [id]);

  useEffect(() => {
    if (chart === saved.current) return;
    let stopped = false;
    const run = async () => {
      const done = await saveNow();
      if (!done && !stopped && !stale.current) timer.current = setTimeout(() => void run(), RETRY_MS);
    };
    timer.current = setTimeout(() => void run(), PAUSE_MS);
    return () => {
      stopped = true;
      clearTimeout(timer.current);
    };
  }, [chart, saveNow]);

  useEffect(() => {
    const onHide = () => {
      if (current.current !== saved.current) {
        keep(id, seq.current, current.current);
        void saveNow();
      }
    };
    window.addEventListener("pagehide", onHide);
    return () => window.removeEventListener("pagehide", onHide);
  }, [id, saveNow]);

  const overwrite = useCallback(() => {
    void (async () => {
      const response = await fetch(`/api/wirings/${id}/draft`).catch(() => undefined);
      if (!response?.ok) return;
      seq.current = Seq.parse(await response.json()).seq;
      stale.current = false;
      await saveNow();
    })();
  }, [id, saveNow]);
  return { state, flush: saveNow, overwrite };
}
