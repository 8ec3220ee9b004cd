"use client";
import { takeClaim, type Chart, type Claim, type GroupKind, type Issue, type TemplateKind } from "@radicula/core";
import { useRouter } from "next/navigation";
import { useCallback, useDeferredValue, useEffect, useMemo, useState, type RefObject } from "react";
import { z } from "zod";
import type { LibraryWiring, PhotoInfo } from "@/server/repo/wirings";
import { Done, post } from "@/ui/send";
import { addCircuit, addPart, keepSame } from "./edit";
import { withRow } from "./emptyRow";
import type { GridHandle } from "./grid/PinGrid";
import { useBuilt } from "./useBuilt";
import { useChart } from "./useChart";
import { dropAside, useDraft } from "./useDraft";
import { useFinder } from "./useFinder";
import { useSelection } from "./useSelection";

export type View = "pins" | "pages" | "drawing" | "codes" | "revisions";
export interface BenchProps {
  readonly wiring: LibraryWiring;
  readonly job: { readonly id: string; readonly title: string; readonly started: boolean } | null;
  readonly view: View;
  /** what this device could not save on an earlier visit */
  readonly kept?: { readonly chart: Chart; readonly current: boolean };
}

/** A wiring on the workbench: its chart and what that adds up to, what is chosen and found, and how it is saved. */
export function useBench({ wiring: library, job, view: first, kept }: BenchProps, grid: RefObject<GridHandle | null>) {
  const history = useChart(useMemo(() => withRow(library.draft), [library.draft]));
  const { chart, change, replace } = history;
  // what was put together, and what stands beside the table, may come a moment after the typing
  const built = useDeferredValue(useBuilt(chart).built);
  const slow = useDeferredValue(chart);
  const draft = useDraft(library.id, library.draftSeq, chart);
  const [view, setView] = useState<View>(first);
  const [more, setMore] = useState(false);
  const [photos, setPhotos] = useState<readonly PhotoInfo[]>(library.photos);
  const [leftOut, setLeftOut] = useState<readonly Issue[]>([]);
  const selection = useSelection(built?.points, grid);
  const finder = useFinder(built, chart.rows, selection.row, selection.goToRow);
  const add = (kind: TemplateKind) => {
    const made = addPart(chart, kind);
    change(() => made.chart);
    setView("pins");
    selection.chooseNone();
    const column = kind === "splice" || kind === "ground" ? "goesTo" : "colour";
    setTimeout(() => grid.current?.goTo(made.firstRow, column), 0);
  };
  const addWhole = (kind: GroupKind, members: number) => {
    const made = addCircuit(chart, kind, members);
    change(() => made.chart);
    setView("pins");
    selection.chooseNone();
    setTimeout(() => grid.current?.goTo(made.firstRow, "colour"), 0);
  };
  return {
    library,
    job,
    history,
    chart,
    change,
    built,
    slow,
    draft,
    view,
    setView,
    more,
    setMore,
    photos,
    setPhotos,
    leftOut,
    setLeftOut,
    grid,
    add,
    addWhole,
    ...selection,
    ...finder,
    ...useEdits(change),
    ...useAside(library.id, kept, replace),
    ...useRevisions(library, draft.flush),
    ...useWayToJob(job, draft.flush),
  };
}
export type Bench = ReturnType<typeof useBench>;

type Change = (make: (chart: Chart) => Chart) => void;

function useEdits(change: Change) {
  const onRows = useCallback(
    (make: (rows: Chart["rows"]) => readonly Chart["rows"][number][]) =>
      change((c) => {
        const rows = keepSame(make(c.rows), c.rows);
        return rows === c.rows ? c : { ...c, rows: [...rows] };
      }),
    [change],
  );
  const takeIt = useCallback((claim: Claim) => change((c) => takeClaim(c, claim)), [change]);
  const dropIt = useCallback(
    (claim: Claim) => change((c) => ({ ...c, claims: c.claims.filter((x) => x !== claim) })),
    [change],
  );
  return { onRows, takeIt, dropIt };
}

/**
 * What could not be saved on an earlier visit: shown at once where nobody has changed the wiring since, else offered.
 */
function useAside(id: string, kept: BenchProps["kept"], replace: (chart: Chart) => void) {
  const [aside, setAside] = useState(kept && !kept.current ? kept.chart : undefined);
  useEffect(() => {
    if (kept?.current) replace(withRow(kept.chart));
  }, [kept, replace]);
  const dropTheAside = () => {
    dropAside(id);
    setAside(undefined);
  };
  const showAside = () => {
    if (aside) replace(withRow(aside));
    dropTheAside();
  };
  return { aside, showAside, dropTheAside };
}

const Frozen = z.object({ number: z.number().int() });

function useRevisions(library: LibraryWiring, flush: () => Promise<boolean>) {
  const [revisions, setRevisions] = useState(library.revisions);
  const freeze = async (note: string): Promise<void> => {
    if (!(await flush())) return;
    const made = await post(`/api/wirings/${library.id}/revisions`, { note }, Frozen);
    if (!made.ok) return;
    const { number } = made.body;
    const revision = { number, note, at: new Date().toISOString(), draftSeq: 0 };
    setRevisions((list) => (list.some((r) => r.number === number) ? list : [revision, ...list]));
  };
  return { revisions, freeze };
}

/** Saves, moves the job to what was saved, and goes there. */
function useWayToJob(job: BenchProps["job"], flush: () => Promise<boolean>) {
  const router = useRouter();
  const [going, setGoing] = useState(false);
  const [refused, setRefused] = useState<readonly Issue[]>([]);
  const toJob = useCallback(async () => {
    if (!job) return;
    setGoing(true);
    if (await flush()) {
      const moved = await post(`/api/jobs/${job.id}/revision`, {}, Done);
      if (moved.ok) {
        router.push(`/job/${job.id}${job.started ? "" : "?sheet=codes"}`);
        return;
      }
      setRefused(moved.issues);
    }
    setGoing(false);
  }, [flush, job, router]);
  return { going, refused, toJob };
}
