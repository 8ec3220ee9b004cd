"use client";
import { Entry, type Entry as EntryT } from "@radicula/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { z } from "zod";
import { dropBatch, keepBatch, keptBatches, placeAfterOthers, send, type Batch } from "./outbox";

export type SaveState =
  | { readonly status: "saved" }
  | { readonly status: "saving" }
  /** kept on this device, sent again until it arrives */
  | { readonly status: "waiting"; readonly count: number }
  /** somebody else wrote meanwhile: ours stand after theirs */
  | { readonly status: "joined"; readonly others: number; readonly ours: readonly EntryT[] }
  | { readonly status: "refused"; readonly codes: readonly { code: string; path: (string | number)[]; params: Record<string, string | number | string[]> }[]; readonly givenBack: readonly EntryT[] };

export interface Logbook {
  /** saved entries, then those on their way */
  readonly entries: readonly EntryT[];
  /** how many of them the database has */
  readonly saved: number;
  readonly state: SaveState;
  /** Appends entries. They are kept on this device until the database has them, however long that takes. */
  append(entries: readonly EntryT[]): void;
  dismiss(): void;
}

const RETRY_MS = 2000, POLL_MS = 3000;
const News = z.object({ entries: z.array(Entry) });
interface Book { readonly saved: readonly EntryT[]; readonly queue: readonly Batch[] }

/**
 * The logbook of one job in this window: append-only, kept before it is sent, sent in order, in step with other windows.
 * @param onGivenBack gets the entries that the database refused
 */
export function useLogbook(jobId: string, initial: readonly EntryT[], onGivenBack: (entries: readonly EntryT[]) => void): Logbook {
  const [book, setBook] = useState<Book>({ saved: initial, queue: [] });
  const [state, setState] = useState<SaveState>({ status: "saved" });
  const now = useRef(book), giveBack = useRef(onGivenBack), sending = useRef(false), gone = useRef(false), timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => { giveBack.current = onGivenBack; });
  const change = useCallback((next: Book) => { now.current = next; setBook(next); }, []);

  /** Sends what is queued, first things first, until nothing is left or nobody answers. */
  const flush = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    clearTimeout(timer.current);
    try {
      for (let first = now.current.queue[0]; first; first = now.current.queue[0]) {
        const sent = await send(jobId, first);
        if (gone.current) return; // another window, or the next visit, has it from here
        const { saved, queue } = now.current, rest = queue.slice(1);
        if (sent.status === "unreachable") {
          setState({ status: "waiting", count: queue.reduce((n, b) => n + b.entries.length, 0) });
          timer.current = setTimeout(() => void flush(), RETRY_MS);
          return;
        }
        if (sent.status === "saved") {
          dropBatch(jobId, first, localStorage);
          // saved now, or it had been before and the answer was lost: then what stands where is for the database to say
          if (saved.length === first.after && sent.last === first.after + first.entries.length) change({ saved: [...saved, ...first.entries], queue: rest });
          else { change({ saved, queue: rest }); await catchUp(); }
          if (rest.length === 0) setState((s) => (s.status === "joined" ? s : { status: "saved" }));
        } else if (sent.status === "stale") {
          const placed = placeAfterOthers(queue, first.after, sent.last - first.after);
          for (const b of placed) keepBatch(jobId, b, localStorage);
          change({ saved: [...saved.slice(0, Math.min(first.after, sent.last)), ...sent.missed], queue: placed });
          if (sent.missed.length) setState({ status: "joined", others: sent.missed.length, ours: placed.flatMap((b) => b.entries) });
        } else {
          dropBatch(jobId, first, localStorage);
          change({ saved, queue: placeAfterOthers(rest, first.after, -first.entries.length) });
          setState({ status: "refused", codes: sent.issues, givenBack: first.entries });
          giveBack.current(first.entries);
        }
      }
    } finally { sending.current = false; }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- catchUp only reads refs
  }, [jobId, change]);

  /** what other windows wrote */
  const catchUp = useCallback(async () => {
    const from = now.current.saved.length;
    try {
      const response = await fetch(`/api/jobs/${jobId}/entries?after=${from}`);
      if (!response.ok) return;
      const news = News.parse(await response.json()).entries;
      const { saved, queue } = now.current;
      if (news.length && saved.length === from) change({ saved: [...saved, ...news], queue });
    } catch { /* the next poll or the next save will tell */ }
  }, [jobId, change]);

  // what an earlier visit could not send
  useEffect(() => {
    gone.current = false;
    void Promise.resolve(keptBatches(jobId, localStorage)).then((kept) => {
      const known = new Set(now.current.queue.map((b) => b.batch)), found = kept.filter((b) => !known.has(b.batch));
      if (found.length === 0) return;
      change({ saved: now.current.saved, queue: [...found, ...now.current.queue] });
      setState({ status: "waiting", count: found.reduce((n, b) => n + b.entries.length, 0) });
      void flush();
    });
    return () => { gone.current = true; clearTimeout(timer.current); };
  }, [jobId, change, flush]);

  useEffect(() => {
    const poll = () => { if (!document.hidden && now.current.queue.length === 0) void catchUp(); };
    const every = setInterval(poll, POLL_MS);
    const online = () => void flush();
    window.addEventListener("online", online);
    return () => { clearInterval(every); window.removeEventListener("online", online); };
  }, [catchUp, flush]);

  const append = useCallback((list: readonly EntryT[]) => {
    const { saved, queue } = now.current;
    const next: Batch = { batch: crypto.randomUUID(), after: queue.length ? queue.at(-1)!.after + queue.at(-1)!.entries.length : saved.length, entries: [...list] };
    keepBatch(jobId, next, localStorage);
    change({ saved, queue: [...queue, next] });
    setState((s) => (s.status === "waiting" ? { status: "waiting", count: s.count + list.length } : { status: "saving" }));
    void flush();
  }, [jobId, change, flush]);

  const shown = useMemo(() => (book.queue.length ? [...book.saved, ...book.queue.flatMap((b) => b.entries)] : book.saved), [book]);
  return { entries: shown, saved: book.saved.length, state, append, dismiss: () => setState({ status: now.current.queue.length ? "saving" : "saved" }) };
}
