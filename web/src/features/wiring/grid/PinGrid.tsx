"use client";
import type { ChartRow, Issue } from "@radicula/core";
import {
  memo,
  useCallback,
  useEffect,
  useImperativeHandle,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type Ref,
} from "react";
import { flushSync } from "react-dom";
import { DynamicDataSheetGrid, type DataSheetGridRef } from "react-datasheet-grid";
import "react-datasheet-grid/dist/style.css";
import { t } from "@/messages";
import type { Built } from "@/workers/chart.worker";
import { fillDown, rowBelow, tidyRows } from "../edit";
import { gridColumns, MAIN, MORE, type Key } from "./columns";
import styles from "./PinGrid.module.css";

export interface GridHandle {
  goTo(row: number, column?: Key): void;
}
interface Props {
  readonly rows: readonly ChartRow[];
  readonly built: Built | undefined;
  readonly more: boolean;
  readonly ref?: Ref<GridHandle>;
  onRows(change: (rows: readonly ChartRow[]) => readonly ChartRow[]): void;
  onActive(row: number): void;
}
const ROW = 38;
const HEAD = 36;

/** The pin chart as a table: quick to type, to paste into, to fill down. Enter begins the next line. */
export const PinGrid = memo(function PinGrid({ rows, built, more, ref, onRows, onActive }: Props) {
  const grid = useRef<DataSheetGridRef>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [height, setHeight] = useState(420);
  const keys = useMemo(() => (more ? [...MAIN, ...MORE] : MAIN), [more]);
  const columns = useMemo(() => gridColumns(keys, built), [keys, built]);
  const marks = useMemo(() => marksOf(built?.issues ?? []), [built]);
  const pending = useRef<{ row: number; col: number } | undefined>(undefined);
  const known = useRef(rows);
  useLayoutEffect(() => {
    known.current = rows;
    const to = pending.current;
    if (!to || to.row >= rows.length) return;
    pending.current = undefined;
    grid.current?.setActiveCell(to);
  }, [rows]);
  // an empty chart waits for typing
  const empty = useRef(rows.length === 1 && Object.values(rows[0]!).every((c) => c === ""));
  useEffect(() => {
    if (empty.current) grid.current?.setActiveCell({ row: 0, col: 0 });
  }, []);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setHeight(Math.max(200, Math.floor(entry.contentRect.height)));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const goTo = useCallback(
    (row: number, column: Key = "cavity") => {
      const col = Math.max(0, keys.indexOf(column));
      if (row < known.current.length) grid.current?.setActiveCell({ row, col });
      else pending.current = { row, col };
    },
    [keys],
  );
  // its columns take their widths once it stands: not shown before, so that nothing jumps
  const [isMeasured, setMeasured] = useState(false);
  useEffect(() => {
    let frames = requestAnimationFrame(() => (frames = requestAnimationFrame(() => setMeasured(true))));
    return () => cancelAnimationFrame(frames);
  }, []);
  useImperativeHandle(ref, () => ({ goTo }), [goTo]);

  // the sheet is reached by Tab, and the first cell with it
  useEffect(() => {
    const sheet = frame.current?.querySelector<HTMLElement>(".dsg-container");
    if (!sheet) return;
    sheet.tabIndex = 0;
    sheet.setAttribute("role", "group");
    sheet.setAttribute("aria-label", t("wiring.pinChart"));
    const enter = () => {
      if (!grid.current?.activeCell && sheet.matches(":focus-visible")) grid.current?.setActiveCell({ row: 0, col: 0 });
    };
    sheet.addEventListener("focus", enter);
    return () => sheet.removeEventListener("focus", enter);
  }, []);

  useEffect(() => {
    // before the grid's own listener on the document: Enter begins the next line instead of the cell below
    const onKey = (e: KeyboardEvent) => {
      const at = grid.current?.activeCell;
      if (
        !at ||
        e.isComposing ||
        !(e.target instanceof Node) ||
        (e.target !== document.body && !frame.current?.contains(e.target))
      )
        return;
      if (e.key === "Enter" && !e.ctrlKey && !e.metaKey && !e.altKey && !e.shiftKey) {
        e.preventDefault();
        e.stopPropagation();
        const next = at.row + 1;
        const col = keys.indexOf("cavity");
        // at once, so that the next key, however fast, falls into the next line: the cell is left, which puts what was
        // typed into its row; a line is made where there is none; the cursor goes there
        flushSync(() => grid.current?.setActiveCell({ row: at.row, col: at.col === 0 ? 1 : 0 }));
        if (next >= known.current.length) flushSync(() => onRows((now) => [...now, rowBelow(now.at(-1))]));
        flushSync(() => grid.current?.setActiveCell({ row: next, col }));
      } else if (e.key === "Tab" && !e.shiftKey && at.col === 0) {
        // a pin typed whole, `b1.1`, fills both columns: the cursor goes on behind them
        e.preventDefault();
        e.stopPropagation();
        const before = known.current[at.row]?.cavity;
        flushSync(() => grid.current?.setActiveCell({ row: at.row, col: 1 }));
        const after = known.current[at.row]?.cavity;
        if (!before && after) flushSync(() => grid.current?.setActiveCell({ row: at.row, col: 2 }));
      } else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "d") {
        e.preventDefault();
        e.stopPropagation();
        const s = grid.current?.selection ?? { min: at, max: at };
        const [from, to] = s.min.row === s.max.row ? [s.min.row - 1, s.min.row] : [s.min.row, s.max.row];
        onRows((now) => fillDown(now, keys.slice(s.min.col, s.max.col + 1), Math.max(0, from), to));
      }
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [keys, onRows]);

  return (
    <div
      ref={frame}
      className={styles.frame}
      data-testid="pin-grid"
      style={{ visibility: isMeasured ? "visible" : "hidden" }}
    >
      <DynamicDataSheetGrid<ChartRow>
        ref={grid}
        value={rows as ChartRow[]}
        columns={columns}
        height={height}
        rowHeight={ROW}
        headerRowHeight={HEAD}
        addRowsComponent={false}
        createRow={() => rowBelow(undefined)}
        gutterColumn={{ basis: 44, minWidth: 44, maxWidth: 44 }}
        onChange={(next) => onRows((now) => tidyRows(next, now))}
        onActiveCellChange={({ cell }) => {
          if (cell) onActive(cell.row);
        }}
        cellClassName={({ rowIndex, columnId }) => marks.get(`${rowIndex} ${columnId ?? ""}`)}
      />
    </div>
  );
});

/** Cells that were not taken, or only with a doubt. */
function marksOf(issues: readonly Issue[]): ReadonlyMap<string, string> {
  return new Map(
    issues.flatMap((i) =>
      i.path[0] === "rows" && typeof i.path[1] === "number"
        ? [[`${i.path[1]} ${String(i.path[2] ?? "connector")}`, styles["wrong"] ?? ""] as const]
        : [],
    ),
  );
}
