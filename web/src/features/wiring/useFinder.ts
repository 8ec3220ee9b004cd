"use client";
import type { Built } from "@/workers/chart.worker";
import { connectorOf, type Chart } from "@radicula/core";
import { useMemo, useState } from "react";
import { findIn } from "./find";

/** Finds by name, colour or code, and goes from one line found to the next. */
export function useFinder(built: Built | undefined, rows: Chart["rows"], row: number, goToRow: (row: number) => void) {
  const [find, setFind] = useState("");
  const found = useMemo(() => (built ? findIn(built.wiring, find) : undefined), [built, find]);
  const isHit = (i: number): boolean => {
    const p = built?.points[i];
    if (!found || !p) return false;
    const isOn = (w: string) => w === p || w.startsWith(`${p}~`) || w.endsWith(`~${p}`) || rows[i]?.wire === w;
    return found.things.has(connectorOf(p)) || [...found.wires].some(isOn);
  };
  const nextFound = () => {
    const at = rows.findIndex((_, i) => i > row && isHit(i));
    const again = at >= 0 ? at : rows.findIndex((_, i) => isHit(i));
    if (again >= 0) goToRow(again);
  };
  return { find, setFind, nextFound };
}
