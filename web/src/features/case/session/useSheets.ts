"use client";
import { isPoint, type Wiring } from "@radicula/core";
import { useCallback, useEffect, useState } from "react";

export const SHEETS = [
  "other",
  "codes",
  "name",
  "intake",
  "seen",
  "chart",
  "help",
  "runs",
  "disturbed",
  "meter",
  "watch",
  "sums",
  "bench",
] as const;
export type SheetName = (typeof SHEETS)[number];

/** Which sheet is open over the case. */
export interface Sheets {
  readonly sheet: SheetName | undefined;
  /** those opened so far: they stay, so that they can close gently */
  readonly opened: ReadonlySet<SheetName>;
  readonly open: (sheet: SheetName) => void;
  readonly close: () => void;
  /** where a reading of one's own is to be taken, when a point of the map was pressed */
  readonly point: string | undefined;
  readonly openAt: (point: string) => void;
}

/** Time until sheets that take typing are fetched, ms: while nobody waits, so that the first key typed is not lost. */
const PREFETCH_MS = 250;

/** @param first the sheet the address asks for */
export function useSheets(wiring: Wiring, first: SheetName | undefined): Sheets {
  const [sheet, setSheet] = useState(first);
  const [opened, setOpened] = useState<ReadonlySet<SheetName>>(new Set());
  const [point, setPoint] = useState<string | undefined>(undefined);
  if (sheet && !opened.has(sheet)) setOpened(new Set([...opened, sheet]));
  useEffect(() => {
    const timer = setTimeout(() => {
      void import("../scan/ScanSheet");
      void import("../intake/IntakeSheet");
      void import("../seen/SeenSheet");
    }, PREFETCH_MS);
    return () => clearTimeout(timer);
  }, []);
  // the address asked for a sheet once; a reload need not ask again
  useEffect(() => {
    if (first) window.history.replaceState(null, "", window.location.pathname);
  }, [first]);
  const open = useCallback((name: SheetName) => {
    setPoint(undefined);
    setSheet(name);
  }, []);
  const close = useCallback(() => setSheet(undefined), []);
  const openAt = useCallback(
    (at: string) => {
      if (!isPoint(wiring, at)) return;
      setPoint(at);
      setSheet("other");
    },
    [wiring],
  );
  return { sheet, opened, open, close, point, openAt };
}
