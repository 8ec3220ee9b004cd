"use client";
import { memo, useEffect, useLayoutEffect, useRef } from "react";
import type { CellProps } from "react-datasheet-grid";

export interface TextData { readonly title: string; readonly hints: readonly string[] | undefined; readonly guess: boolean }

/**
 * One cell of the table. What is typed goes into the row when the cell is left, however fast, also when its row is
 * scrolled out of sight meanwhile; Escape takes it back. Where nothing is typed, what was worked out stands in grey.
 */
export const TextCell = memo(function TextCell({ rowData, setRowData, focus, rowIndex, columnData }: CellProps<string | null, TextData>) {
  const input = useRef<HTMLInputElement>(null);
  const editing = useRef(false), typed = useRef("");
  const latest = useRef({ rowData, setRowData });
  useLayoutEffect(() => { latest.current = { rowData, setRowData }; });
  const leave = useRef(() => {
    if (!editing.current) return;
    editing.current = false;
    if (typed.current !== (latest.current.rowData ?? "")) latest.current.setRowData(typed.current);
  });
  useLayoutEffect(() => {
    const box = input.current;
    if (!box) return;
    if (focus) {
      editing.current = true;
      typed.current = box.value = latest.current.rowData ?? "";
      box.focus();
      box.select();
    } else if (editing.current) {
      leave.current();
      box.blur();
    }
  }, [focus]);
  useEffect(() => { if (input.current && !editing.current) input.current.value = rowData ?? ""; }, [rowData]);
  useLayoutEffect(() => { const done = leave.current; return () => done(); }, []);
  const hint = rowData ? "" : columnData.hints?.[rowIndex] ?? "";
  return (
    <input
      ref={input} className="dsg-input" tabIndex={-1} defaultValue={rowData ?? ""} aria-label={`${columnData.title}, line ${rowIndex + 1}`} placeholder={hint && columnData.guess ? `${hint} ?` : hint} title={hint && columnData.guess ? "A guess from the rest: type it once it is read" : undefined}
      style={{ pointerEvents: focus ? "auto" : "none" }} onInput={(e) => { typed.current = e.currentTarget.value; }} onKeyDown={(e) => { if (e.key === "Escape") editing.current = false; }}
    />
  );
});
