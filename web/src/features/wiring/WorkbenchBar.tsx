"use client";
import { writeCsv } from "@radicula/core";
import { Button, Dropdown, Segmented } from "antd";
import Link from "next/link";
import type { Bench, View } from "./useBench";
import styles from "./Workbench.module.css";

const VIEWS = [
  { value: "pins" as const, label: "Pin chart" },
  { value: "drawing" as const, label: "Drawing" },
  { value: "codes" as const, label: "Codes" },
  { value: "revisions" as const, label: "Revisions" },
];
const EXPORTS = [
  ["wiring", "Wiring, JSON"],
  ["chart", "Chart, JSON"],
  ["csv", "Pin chart, CSV"],
  ["graphml", "GraphML"],
  ["spice", "SPICE netlist"],
] as const;

/** What is shown of the wiring, and what can be done with all of it. */
export function WorkbenchBar({ bench, onPaste }: { readonly bench: Bench; readonly onPaste: () => void }) {
  const { view, setView, history, more, setMore, library, draft, chart, setLeftOut } = bench;
  const leave = (as: string) => {
    void draft.flush();
    setLeftOut(as === "csv" ? writeCsv(chart).issues : []);
  };
  const exports = EXPORTS.map(([as, label]) => ({
    key: as,
    label: (
      <a href={`/api/wirings/${library.id}/export?as=${as}`} onClick={() => leave(as)}>
        {label}
      </a>
    ),
  }));
  return (
    <nav className={styles.sub} aria-label="This wiring">
      <Segmented<View> value={view} onChange={setView} options={VIEWS} />
      <Button type="text" onClick={onPaste}>
        Paste a chart
      </Button>
      <Button type="text" disabled={!history.canUndo} onClick={history.undo}>
        Undo
      </Button>
      <Button type="text" disabled={!history.canRedo} onClick={history.redo}>
        Redo
      </Button>
      {view === "pins" ? (
        <Button type="text" onClick={() => setMore((m) => !m)} aria-pressed={more}>
          {more ? "Fewer columns" : "More columns"}
        </Button>
      ) : null}
      <Dropdown trigger={["click"]} menu={{ items: exports }}>
        <Button type="text">Save as</Button>
      </Dropdown>
      <Link href={`/wiring/${library.id}/print`} className={styles.print} target="_blank">
        Print the chart
      </Link>
    </nav>
  );
}
