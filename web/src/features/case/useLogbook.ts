"use client";
import { Entry, type Entry as EntryT } from "@radicula/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { z } from "zod";
import { dropBatch, keepBatch, keptBatch, send, type Batch } from "./outbox";

export type SaveState =
  | { readonly status: "saved" }
  | { readonly status: "saving" }
  /** kept on this device, sent again until it arrives */
  | { readonly status: "waiting" }
  /** somebody else wrote first; what we had is given back */
  | { readonly status: "stale"; readonly missed: number; readonly givenBack: readonly EntryT[] }
  | { readonly status: "refused"; readonly codes: readonly { code: string; path: (string | number)[]; params: Record<string, string | number | string[]> }[]; readonly givenBack: readonly EntryT[] };

export interface Logbook {
  /** saved entries, then those on their way */
  readonly entries: readonly EntryT[];
  /** how many of them the database has */
  readonly saved: number;
  readonly state: SaveState;
  /** Appends entries. False while earlier ones are still on their way. */
  append(entries: readonly EntryT[]): boolean;
  dismiss(): void;
}

const RETRY_MS = 2000, POLL_MS = 3000;
const News = z.object({ entries: z.array(Entry) });

/**
 * The logbook of one job in this window: append-only, saved before it says so, in step with other windows.
 * @param onGivenBack gets the entries that were not saved because somebody wrote first or they were refused
 */
export function useLogbook(jobId: string, initial: readonly EntryT[], onGivenBack: (entries: readonly EntryT[]) => void): Logbook {
  const [entries, setEntries] = useState<readonly EntryT[]>(initial);
  const [batch, setBatch] = useState<Batch | undefined>(undefined);
  const [state, setState] = useState<SaveState>({ status: "saved" });
  const all = useRef({ entries, batch });
  const giveBack = useRef(onGivenBack);
  useEffect(() => { all.current = { entries, batch }; giveBack.current = onGivenBack; });

  // what an earlier visit could not send
  useEffect(() => {
    void Promise.resolve(keptBatch(jobId, localStorage)).then((kept) => {
      if (kept) { setBatch(kept); setState({ status: "waiting" }); }
    });
  }, [jobId]);

  useEffect(() => {
    if (!batch) return;
    let stopped = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const attempt = async () => {
      const sent = await send(jobId, batch);
      if (stopped) return;
      if (sent.status === "unreachable") {
        setState({ status: "waiting" });
        timer = setTimeout(() => void attempt(), RETRY_MS);
        return;
      }
      dropBatch(jobId, localStorage);
      setBatch(undefined);
      if (sent.status === "saved") {
        setEntries((known) => (known.length >= sent.last ? known : [...known.slice(0, batch.after), ...batch.entries]));
        setState({ status: "saved" });
      } else if (sent.status === "stale") {
        setEntries((known) => [...known.slice(0, batch.after), ...sent.missed]);
        setState({ status: "stale", missed: sent.missed.length, givenBack: batch.entries });
        giveBack.current(batch.entries);
      } else {
        setState({ status: "refused", codes: sent.issues, givenBack: batch.entries });
        giveBack.current(batch.entries);
      }
    };
    void attempt();
    return () => { stopped = true; clearTimeout(timer); };
  }, [batch, jobId]);

  // what other windows wrote
  useEffect(() => {
    const poll = async () => {
      if (document.hidden || all.current.batch) return;
      const from = all.current.entries.length;
      try {
        const response = await fetch(`/api/jobs/${jobId}/entries?after=${from}`);
        if (!response.ok) return;
        const news = News.parse(await response.json()).entries;
        if (news.length && !all.current.batch) setEntries((known) => (known.length === from ? [...known, ...news] : known));
      } catch { /* the next poll or the next save will tell */ }
    };
    const timer = setInterval(() => void poll(), POLL_MS);
    return () => clearInterval(timer);
  }, [jobId]);

  const append = useCallback((list: readonly EntryT[]) => {
    if (all.current.batch) return false;
    const next: Batch = { batch: crypto.randomUUID(), after: all.current.entries.length, entries: [...list] };
    keepBatch(jobId, next, localStorage);
    setBatch(next);
    setState({ status: "saving" });
    return true;
  }, [jobId]);

  const shown = useMemo(() => (batch && batch.after === entries.length ? [...entries, ...batch.entries] : entries), [batch, entries]);
  return { entries: shown, saved: entries.length, state, append, dismiss: () => setState({ status: "saved" }) };
}
