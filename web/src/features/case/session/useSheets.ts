"use client";
import { isPoint, type Wiring } from "@radicula/core";
import { useCallback, useEffect, useRef, useState } from "react";
import type { GivenRecording } from "../recording/useRecording";
import { SHEETS, type GivenCodes, type SheetName } from "./sheetNames";

/** Which sheet is open over the case. */
export interface Sheets {
  readonly sheet: SheetName | undefined;
  /** those opened so far: they stay, so that they can close gently, and what was typed in them is kept */
  readonly opened: ReadonlySet<SheetName>;
  /** how often what a sheet is for was done: it begins anew the next time it is opened */
  readonly done: Readonly<Partial<Record<SheetName, number>>>;
  readonly open: (sheet: SheetName) => void;
  /** what the sheet is for was done */
  readonly close: () => void;
  /** tapped away: what was typed stays in it */
  readonly dismiss: () => void;
  /** codes that were dropped on the job, for the scan box */
  readonly given: GivenCodes | undefined;
  readonly giveCodes: (text: string) => void;
  /** a recording that was dropped on the job, or one of the logbook to be looked at again, by its id */
  readonly recording: GivenRecording | string | undefined;
  readonly giveRecording: (recording: GivenRecording | string) => void;
  /** where a reading of one's own is to be taken, when a point of the map was pressed */
  readonly point: string | undefined;
  readonly openAt: (point: string) => void;
}

/** Time until sheets that take typing are fetched, ms: while nobody waits, so that the first key typed is not lost. */
const PREFETCH_MS = 250;
/** Fetches the sheets that take typing at once. */
export function fetchTypedSheets(): void {
  void import("../scan/ScanSheet");
  void import("../intake/IntakeSheet");
}

/**
 * @param first the sheet the address asks for
 * @param isAtStart nothing is scanned yet: then these sheets are what comes next
 */
export function useSheets(wiring: Wiring, first: SheetName | undefined, isAtStart: boolean): Sheets {
  const [sheet, setSheet] = useState(first);
  const [opened, setOpened] = useState<ReadonlySet<SheetName>>(new Set());
  const [point, setPoint] = useState<string | undefined>(undefined);
  const [given, setGiven] = useState<GivenCodes | undefined>(undefined);
  if (sheet && !opened.has(sheet)) setOpened(new Set([...opened, sheet]));
  useEffect(() => {
    if (!isAtStart) return undefined;
    const timer = setTimeout(fetchTypedSheets, PREFETCH_MS);
    return () => clearTimeout(timer);
  }, [isAtStart]);
  const [done, setDone] = useState<Sheets["done"]>({});
  // read in handlers only, which may be older than the last drawing
  const finished = useRef(new Set<SheetName>());
  const shown = useRef(first);
  /** Whatever opened or closed it: a press, Back or Forward. */
  const change = useCallback((name: SheetName | undefined) => {
    if (name && finished.current.delete(name)) setDone((d) => ({ ...d, [name]: (d[name] ?? 0) + 1 }));
    shown.current = name;
    setSheet(name);
  }, []);
  const { push, leave } = useSheetHistory(first, change);
  const show = useCallback(
    (name: SheetName) => {
      change(name);
      push(name);
    },
    [change, push],
  );
  const open = useCallback(
    (name: SheetName) => {
      setPoint(undefined);
      show(name);
    },
    [show],
  );
  const dismiss = useCallback(() => {
    change(undefined);
    leave();
  }, [change, leave]);
  const close = useCallback(() => {
    if (shown.current) finished.current.add(shown.current);
    dismiss();
  }, [dismiss]);
  const openAt = useCallback(
    (at: string) => {
      if (!isPoint(wiring, at)) return;
      setPoint(at);
      show("other");
    },
    [wiring, show],
  );
  const giveCodes = useCallback(
    (text: string) => {
      setGiven({ text });
      open("codes");
    },
    [open],
  );
  const [recording, setRecording] = useState<Sheets["recording"]>(undefined);
  const giveRecording = useCallback(
    (next: GivenRecording | string) => {
      setRecording(next);
      show("recording");
    },
    [show],
  );
  const openSheet = useCallback(
    (name: SheetName) => {
      if (name === "recording") setRecording(undefined);
      open(name);
    },
    [open],
  );
  return {
    sheet,
    opened,
    done,
    open: openSheet,
    close,
    dismiss,
    given,
    giveCodes,
    recording,
    giveRecording,
    point,
    openAt,
  };
}

const SHEET_PARAM = "sheet";
const sheetInAddress = (): SheetName | undefined => {
  const named = new URLSearchParams(window.location.search).get(SHEET_PARAM);
  return SHEETS.find((s) => s === named);
};
/** The address of the job with a sheet open or none; what else stands in it stays. */
function addressWith(sheet: SheetName | undefined): string {
  const address = new URL(window.location.href);
  if (sheet) address.searchParams.set(SHEET_PARAM, sheet);
  else address.searchParams.delete(SHEET_PARAM);
  return `${address.pathname}${address.search}`;
}
/**
 * An open sheet stands in the address: Back closes it first, and the address leads to it. The job is left by the next
 * Back only.
 */
function useSheetHistory(
  first: SheetName | undefined,
  change: (sheet: SheetName | undefined) => void,
): { readonly push: (name: SheetName) => void; readonly leave: () => void } {
  /** an entry of ours is the newest of the browser's history */
  const isPushed = useRef(false);
  /** the browser is on its way back to the entry before ours, which takes it a moment */
  const isLeaving = useRef(false);
  /** opened meanwhile: it gets an entry once the browser is there */
  const awaited = useRef<SheetName | undefined>(undefined);
  const push = useCallback((name: SheetName) => {
    if (isLeaving.current) {
      awaited.current = name;
      return;
    }
    const address = addressWith(name);
    if (isPushed.current) window.history.replaceState(null, "", address);
    else window.history.pushState(null, "", address);
    isPushed.current = true;
  }, []);
  const leave = useCallback(() => {
    awaited.current = undefined;
    if (!isPushed.current) return;
    isPushed.current = false;
    isLeaving.current = true;
    window.history.back();
  }, []);
  useEffect(() => {
    // where the address asked for a sheet, the page stands before it
    if (first) window.history.replaceState(null, "", addressWith(undefined));
    const moved = () => {
      if (isLeaving.current) {
        isLeaving.current = false;
        if (awaited.current) push(awaited.current);
        awaited.current = undefined;
        return;
      }
      const now = sheetInAddress();
      isPushed.current = now !== undefined;
      change(now);
    };
    window.addEventListener("popstate", moved);
    return () => window.removeEventListener("popstate", moved);
  }, [first, change, push]);
  return { push, leave };
}
