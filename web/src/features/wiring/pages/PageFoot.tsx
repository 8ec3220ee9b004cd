"use client";
import { dropSheet, notOnAPage, takeNewEdition, type Chart, type DrawingSheet, type NewEdition } from "@radicula/core";
import { Button, Input, Select } from "antd";
import { useState } from "react";
import { fetchPage } from "@/ui/page/fetchPage";
import styles from "./Pages.module.css";
import { t } from "@/messages";

interface FootProps {
  readonly chart: Chart;
  readonly sheet: DrawingSheet;
  readonly points: readonly string[];
  readonly onChart: (make: (chart: Chart) => Chart) => void;
}

/** The lines of the chart that come from this page, the newest first; what of the chart no page shows. */
export function Lines({ chart, sheet, points }: Omit<FootProps, "onChart">) {
  const own = chart.rows
    .map((r, i) => ({ r, i, point: points[i] ?? "" }))
    .filter(({ r, point }) => r.source.startsWith(`${sheet.name} `) && point && r.goesTo)
    .reverse();
  const missing = notOnAPage(
    chart,
    points.filter((p) => p.includes(":")),
  );
  return (
    <div className={styles.lines}>
      {own.length ? (
        <ul>
          {own.slice(0, MOST_LINES).map(({ r, i, point }) => (
            <li key={i}>
              <b>{point}</b> → {r.goesTo} <span className="muted">{[r.mm2, r.colour].filter(Boolean).join(" ")}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {chart.pages.openEnds.length ? <OpenEnds chart={chart} /> : null}
      {missing.length ? (
        <p className="muted">
          {t("paper.notOnAPage", { count: missing.length, list: missing.slice(0, 12).join(", ") })}
        </p>
      ) : null}
    </div>
  );
}
const MOST_LINES = 60;

function OpenEnds({ chart }: { readonly chart: Chart }) {
  return <p>{t("paper.waiting", { ends: chart.pages.openEnds.map((e) => `${e.label} (${e.from})`).join(", ") })}</p>;
}

/** The name of a page, and the way to take it off. */
export function PageName({ chart, sheet, onChart }: Omit<FootProps, "points">) {
  const marks = chart.pages.marks.filter((m) => m.sheet === sheet.id).length;
  const rename = (name: string) =>
    onChart((c) => ({
      ...c,
      pages: {
        ...c.pages,
        sheets: c.pages.sheets.map((s) => (s.id === sheet.id ? { ...s, name: name || s.name } : s)),
      },
    }));
  return (
    <div className={styles.form}>
      <label>
        {t("paper.nameOfThePage")}
        <Input key={sheet.id} defaultValue={sheet.name} maxLength={80} onBlur={(e) => rename(e.target.value.trim())} />
      </label>
      <Edition chart={chart} sheet={sheet} onChart={onChart} />
      <Button type="text" onClick={() => onChart((c) => dropSheet(c, sheet.id))}>
        {t("paper.takeThePageOff", { count: marks })}
      </Button>
    </div>
  );
}

/** Puts this page in the place of an older one of the wiring, with everything that was marked on that. */
function Edition({ chart, sheet, onChart }: Omit<FootProps, "points">) {
  const [done, setDone] = useState<Pick<NewEdition, "carried" | "doubtful"> | undefined>(undefined);
  const others = chart.pages.sheets.filter((s) => s.id !== sheet.id);
  const replace = async (old: DrawingSheet) => {
    // without what stands on them, places are kept in proportion
    const [was, is] = await Promise.all([fetchPage(old.id), fetchPage(sheet.id)]);
    const content = {
      before: was.ok ? (was.body.content ?? undefined) : undefined,
      after: is.ok ? (is.body.content ?? undefined) : undefined,
    };
    const { carried, doubtful } = takeNewEdition(chart, old, sheet, content);
    onChart((c) => takeNewEdition(c, old, sheet, content).chart);
    setDone({ carried, doubtful });
  };
  return (
    <>
      {others.length ? (
        <Select
          value={null}
          placeholder={t("paper.newEditionOf")}
          aria-label={t("paper.newEditionOf")}
          options={others.map((s) => ({ value: s.id, label: s.name }))}
          onChange={(id: string) => void replace(others.find((s) => s.id === id)!)}
        />
      ) : null}
      {done ? (
        <p role="status">
          {t("paper.carriedOver", { count: done.carried })}{" "}
          {done.doubtful.length ? t("paper.lookAtThese", { list: done.doubtful.join(", ") }) : null}
        </p>
      ) : null}
    </>
  );
}
