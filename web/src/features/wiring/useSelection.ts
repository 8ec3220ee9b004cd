"use client";
import { connectorOf, type Chart } from "@radicula/core";
import { useCallback, useState, type RefObject } from "react";
import type { GridHandle } from "./grid/PinGrid";

/** The line of the table and the thing that are looked at. */
export function useSelection(points: readonly string[] | undefined, grid: RefObject<GridHandle | null>) {
  const [thing, setThing] = useState<string | undefined>(undefined);
  const [row, setRow] = useState(0);
  const point = points?.[row] ?? "";
  const chosen = thing ?? (point ? connectorOf(point) : undefined);
  const onActive = useCallback((at: number) => {
    setRow(at);
    setThing(undefined);
  }, []);
  const goToRow = useCallback(
    (at: number, column?: keyof Chart["rows"][number]) => {
      grid.current?.goTo(at, column);
      setRow(at);
    },
    [grid],
  );
  const goToThing = useCallback(
    (id: string) => {
      const at = points?.findIndex((p) => p === id || p.startsWith(`${id}:`)) ?? -1;
      if (at >= 0) goToRow(at);
      setThing(id);
    },
    [points, goToRow],
  );
  const onCavity = useCallback(
    (cavity: string) => {
      const at = points?.indexOf(`${chosen ?? ""}:${cavity}`) ?? -1;
      if (at >= 0) goToRow(at);
    },
    [points, chosen, goToRow],
  );
  return { row, point, chosen, onActive, goToRow, goToThing, onCavity, chooseNone: () => setThing(undefined) };
}
