"use client";
import { memo, useLayoutEffect, useRef } from "react";
import type { CellProps } from "react-datasheet-grid";
import { t } from "@/messages";

export interface TextData {
  readonly title: string;
  readonly hints: readonly string[] | undefined;
  readonly guess: boolean;
}
type Props = CellProps<string | null, TextData>;

/**
 * One cell of the table: plain text, and a box to type in while it is typed in. Where nothing is typed, what was worked
 * out stands in grey.
 */
export const TextCell = memo(function TextCell(props: Props) {
  const { rowData, focus, rowIndex, columnData } = props;
  if (focus) return <Editor {...props} />;
  if (rowData) return <span className="cell">{rowData}</span>;
  const hint = columnData.hints?.[rowIndex];
  if (!hint) return null;
  return (
    <span className="cell hint" title={columnData.guess ? t("grid.aGuessFromTheRestType") : undefined}>
      {columnData.guess ? `${hint} ?` : hint}
    </span>
  );
});

/**
 * What is typed goes into the row when the cell is left, however fast, also when its row is scrolled out of sight
 * meanwhile; Escape takes it back.
 */
function Editor({ rowData, setRowData, rowIndex, columnData }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const typed = useRef(rowData ?? "");
  const kept = useRef(true);
  const latest = useRef({ rowData, setRowData });
  useLayoutEffect(() => {
    latest.current = { rowData, setRowData };
  });
  useLayoutEffect(() => {
    input.current?.focus();
    input.current?.select();
    return () => {
      if (kept.current && typed.current !== (latest.current.rowData ?? "")) latest.current.setRowData(typed.current);
    };
  }, []);
  return (
    <input
      ref={input}
      className="dsg-input"
      defaultValue={rowData ?? ""}
      aria-label={t("grid.line", { title: columnData.title, rowIndex: rowIndex + 1 })}
      onInput={(e) => {
        typed.current = e.currentTarget.value;
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") kept.current = false;
      }}
    />
  );
}
