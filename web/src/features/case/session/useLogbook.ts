"use client";
import type { Entry } from "@radicula/core";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import type { Destination, Refused } from "./deviceStore";
import { LogbookSync, type SaveState } from "./logbookSync";

export interface LogbookState {
  /** saved entries, then those on their way */
  readonly entries: readonly Entry[];
  /** how many of them the database has */
  readonly saved: number;
  readonly state: SaveState;
  /** what the database refused and nobody has looked at yet */
  readonly refused: readonly Refused[];
  append(entries: readonly Entry[]): void;
  dismiss(): void;
  settleRefused(batch: string): void;
}

/** The logbook of one job in this window. @param onGivenBack gets the entries that the database refused */
export function useLogbook(
  place: Destination,
  initial: readonly Entry[],
  onGivenBack: (entries: readonly Entry[]) => void,
): LogbookState {
  const [sync] = useState(() => new LogbookSync(place, initial));
  useEffect(() => sync.onRefused(onGivenBack), [sync, onGivenBack]);
  useEffect(() => sync.start(), [sync]);
  const book = useSyncExternalStore(sync.subscribe, sync.snapshot, sync.snapshot);
  const entries = useMemo(
    () => (book.queue.length ? [...book.saved, ...book.queue.flatMap((b) => b.entries)] : book.saved),
    [book],
  );
  const append = useCallback((list: readonly Entry[]) => sync.append(list), [sync]);
  return useMemo(
    () => ({
      entries,
      saved: book.saved.length,
      state: book.state,
      refused: book.refused,
      append,
      dismiss: () => sync.dismiss(),
      settleRefused: (batch: string) => sync.settleRefused(batch),
    }),
    [entries, book, append, sync],
  );
}
