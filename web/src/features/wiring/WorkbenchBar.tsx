"use client";
import { writeCsv } from "@radicula/core";
import { Button, Dropdown, Segmented } from "antd";
import Link from "next/link";
import type { Bench, View } from "./useBench";
import styles from "./Workbench.module.css";
import { t } from "@/messages";
import { wordedList } from "@radicula/core/words";

const VIEWS = wordedList(() => [
  { value: "pins", label: t("wiring.pinChart") },
  { value: "pages", label: t("wiring.pages") },
  { value: "drawing", label: t("wiring.drawing") },
  { value: "codes", label: t("wiring.codes") },
  { value: "revisions", label: t("wiring.revisions") },
]);
const EXPORTS = wordedList(() => [
  ["wiring", t("wiring.wiringJson")],
  ["chart", t("wiring.chartJson")],
  ["csv", t("wiring.pinChartCsv")],
  ["graphml", "GraphML"],
  ["spice", t("wiring.spiceNetlist")],
]);

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
    <nav className={styles.sub} aria-label={t("wiring.thisWiring")}>
      <Segmented<View> value={view} onChange={setView} options={[...VIEWS]} />
      <Button type="text" onClick={onPaste}>
        {t("wiring.pasteAChart")}
      </Button>
      <Button type="text" disabled={!history.canUndo} onClick={history.undo}>
        {t("wiring.undo")}
      </Button>
      <Button type="text" disabled={!history.canRedo} onClick={history.redo}>
        {t("wiring.redo")}
      </Button>
      {view === "pins" ? (
        <Button type="text" onClick={() => setMore((m) => !m)} aria-pressed={more}>
          {more ? t("wiring.fewerColumns") : t("wiring.moreColumns")}
        </Button>
      ) : null}
      <Dropdown trigger={["click"]} menu={{ items: exports }}>
        <Button type="text">{t("wiring.saveAs")}</Button>
      </Dropdown>
      <Link href={`/wiring/${library.id}/print`} className={styles.print} target="_blank">
        {t("wiring.printTheChart")}
      </Link>
    </nav>
  );
}
