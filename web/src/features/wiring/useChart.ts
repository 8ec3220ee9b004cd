"use client";
import type { Chart } from "@radicula/core";
import { useCallback, useMemo, useReducer } from "react";

interface History {
  readonly past: readonly Chart[];
  readonly chart: Chart;
  readonly future: readonly Chart[];
}
type Action =
  | { readonly type: "set"; readonly change: (chart: Chart) => Chart }
  | { readonly type: "undo" }
  | { readonly type: "redo" }
  | { readonly type: "replace"; readonly chart: Chart };
const MOST = 200;

function reduce(h: History, action: Action): History {
  switch (action.type) {
    case "set": {
      const chart = action.change(h.chart);
      return chart === h.chart ? h : { past: [...h.past.slice(-MOST + 1), h.chart], chart, future: [] };
    }
    case "undo": {
      const last = h.past.at(-1);
      return last ? { past: h.past.slice(0, -1), chart: last, future: [h.chart, ...h.future] } : h;
    }
    case "redo": {
      const [next, ...rest] = h.future;
      return next ? { past: [...h.past, h.chart], chart: next, future: rest } : h;
    }
    case "replace":
      return { past: [...h.past, h.chart], chart: action.chart, future: [] };
  }
}

export interface ChartHistory {
  readonly chart: Chart;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  change(change: (chart: Chart) => Chart): void;
  undo(): void;
  redo(): void;
  replace(chart: Chart): void;
}
/** The chart being worked on, with everything undone and done again as one likes. */
export function useChart(initial: Chart): ChartHistory {
  const [h, dispatch] = useReducer(reduce, { past: [], chart: initial, future: [] });
  const change = useCallback((c: (chart: Chart) => Chart) => dispatch({ type: "set", change: c }), []);
  const undo = useCallback(() => dispatch({ type: "undo" }), []);
  const redo = useCallback(() => dispatch({ type: "redo" }), []);
  const replace = useCallback((chart: Chart) => dispatch({ type: "replace", chart }), []);
  return useMemo(
    () => ({ chart: h.chart, canUndo: h.past.length > 0, canRedo: h.future.length > 0, change, undo, redo, replace }),
    [h, change, undo, redo, replace],
  );
}
