"use client";
import {
  dropSheet,
  isNamedBox,
  notOnAPage,
  progressOf,
  takeWhole,
  type Chart,
  type DrawingSheet,
  type Issue,
} from "@radicula/core";
import { Button, Input } from "antd";
import { useMemo, useState, type ReactNode } from "react";
import { say } from "@/messages/issues";
import { LongWork } from "@/ui/LongWork";
import type { Page } from "@/ui/page/fetchPage";
import { PageTabs } from "@/ui/page/PageTabs";
import { PageViewer } from "@/ui/page/PageViewer";
import { Done, put } from "@/ui/send";
import type { Bench } from "../useBench";
import { withRow } from "../emptyRow";
import { Notes } from "../Notes";
import { whatIsAt, type Tapped } from "./hit";
import { PageCard } from "./PageCards";
import { PageOverlay } from "./PageOverlay";
import styles from "./Pages.module.css";
import { readWords } from "./readWords";
import { TakeIn } from "./TakeIn";
import { useOpenPage, type OpenPage } from "./usePages";
import { t } from "@/messages";

/** Pages of drawings: tapped, they become the pin chart. */
export function PagesView({ bench }: { readonly bench: Bench }) {
  const { chart, change, library, built, takeIt, dropIt } = bench;
  const { sheets } = chart.pages;
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const sheet = sheets.find((s) => s.id === chosen) ?? sheets[0];
  const open = useOpenPage(chart, sheet);
  const take = (make: (c: Chart) => Chart) => change((c) => withRow(make(c)));
  const add = (added: readonly DrawingSheet[]) => {
    take((c) => {
      const { sheets: had } = c.pages;
      const more = added.filter((s, i) => [...had, ...added.slice(0, i)].every((h) => h.id !== s.id));
      return { ...c, pages: { ...c.pages, sheets: [...had, ...more] } };
    });
    setChosen(added[0]?.id);
  };
  const takeIn = <TakeIn wiringId={library.id} has={sheets} onSheets={add} isFirst={sheets.length === 0} />;
  if (!sheet) return <div className={styles.card}>{takeIn}</div>;
  const claims = (
    <Notes
      issues={NO_ISSUES}
      claims={chart.claims.filter((c) => c.source.startsWith(`${sheet.name} `))}
      onRow={() => undefined}
      onTake={takeIt}
      onDrop={dropIt}
    />
  );
  return (
    <div className={styles.card}>
      <div className={styles.bar}>
        <PageTabs sheets={sheets} chosen={sheet} onChoose={setChosen} />
        {takeIn}
      </div>
      <OnePage
        key={sheet.id}
        chart={chart}
        sheet={sheet}
        open={open}
        points={built?.points ?? NONE}
        claims={claims}
        onChart={take}
      />
    </div>
  );
}
const NONE: readonly string[] = [];
const NO_ISSUES: readonly Issue[] = [];

interface OnePageProps {
  readonly chart: Chart;
  readonly sheet: DrawingSheet;
  readonly open: OpenPage;
  readonly points: readonly string[];
  /** where this page says otherwise than another source */
  readonly claims: ReactNode;
  readonly onChart: (make: (chart: Chart) => Chart) => void;
}
function OnePage({ chart, sheet, open, points, claims, onChart }: OnePageProps) {
  const [tapped, setTapped] = useState<Tapped | undefined>(undefined);
  const [from, setFrom] = useState<string | undefined>(undefined);
  const [isDrawing, setDrawing] = useState(false);
  const { page, read } = open;
  const done = useMemo(() => progressOf(chart, sheet, read), [chart, sheet, read]);
  return (
    <div className={styles.split}>
      {page ? (
        <PageViewer
          sheet={sheet}
          picture={page}
          isDrawing={isDrawing}
          onTap={(at, reach) => setTapped(whatIsAt(chart, sheet, read, at, reach))}
          onArea={(x, y, width, height) => {
            setDrawing(false);
            setTapped({ kind: "area", x, y, width, height });
          }}
        >
          <PageOverlay chart={chart} sheet={sheet} read={read} done={done} tapped={tapped} />
        </PageViewer>
      ) : (
        <div className={styles.none}>
          {open.issues.map((i, n) => (
            <p key={n} role="alert" className={styles.refused}>
              {say(i).text}
            </p>
          ))}
        </div>
      )}
      <aside className={styles.beside} aria-label={t("paper.whatThePageSays")}>
        {tapped ? (
          <PageCard
            key={JSON.stringify(tapped)}
            chart={chart}
            sheet={sheet}
            read={read}
            tapped={tapped}
            from={from}
            page={page}
            onChart={onChart}
            onFrom={setFrom}
            onTap={setTapped}
          />
        ) : (
          <WholePage sheet={sheet} open={open} done={done} from={from} onChart={onChart} />
        )}
        <div className={styles.tools}>
          <Button type="text" aria-pressed={isDrawing} onClick={() => setDrawing((d) => !d)}>
            {isDrawing ? t("paper.moveThePage") : t("paper.drawABox")}
          </Button>
          {tapped || from ? (
            <Button
              type="text"
              onClick={() => {
                setTapped(undefined);
                setFrom(undefined);
              }}
            >
              {t("paper.leaveIt")}
            </Button>
          ) : null}
        </div>
        {claims}
        <Lines chart={chart} sheet={sheet} points={points} />
        {tapped ? null : <PageName chart={chart} sheet={sheet} onChart={onChart} />}
      </aside>
    </div>
  );
}

/** What was read on the page and is not in the chart yet, to be taken at once. */
function WholePage({
  sheet,
  open,
  done,
  from,
  onChart,
}: Pick<OnePageProps, "sheet" | "open" | "onChart"> & {
  readonly done: ReturnType<typeof progressOf>;
  readonly from: string | undefined;
}) {
  const { read, isReading, page } = open;
  const left = (flags: readonly boolean[], may: readonly boolean[]) => flags.filter((f, i) => !f && may[i]).length;
  const boxes = left(done.boxes, read.boxes.map(isNamedBox));
  const stars = left(
    done.stars,
    read.stars.map((s) => s.id !== undefined),
  );
  const wires = left(done.wires, done.plain);
  const asked = left(
    done.wires,
    done.plain.map((p) => !p),
  );
  if (from) return <p className={styles.hint}>{t("paper.tapWhereItGoes", { from })}</p>;
  if (page && (!page.content || page.content.lines.length === 0))
    return <APicture sheet={sheet} page={page} open={open} />;
  if (isReading && read.wires.length === 0) return <p className={styles.hint}>{t("paper.reading")}</p>;
  if (boxes + stars + wires === 0)
    return <p className={styles.hint}>{asked ? t("paper.theRestIsAsked", { count: asked }) : t("paper.allTaken")}</p>;
  return (
    <form
      className={styles.form}
      onSubmit={(e) => {
        e.preventDefault();
        onChart((c) => takeWhole(c, sheet, read));
      }}
    >
      <h2>{t("paper.readHere")}</h2>
      <ul className={styles.counts}>
        <li>{t("paper.boxes", { count: boxes })}</li>
        <li>{t("paper.splicesAndGrounds", { count: stars })}</li>
        <li>{t("paper.wires", { count: wires })}</li>
      </ul>
      <Button type="primary" htmlType="submit" data-testid="take-all">
        {t("paper.takeAll")}
      </Button>
      <p className="muted">{t("paper.orTap")}</p>
    </form>
  );
}
function OpenEnds({ chart }: { readonly chart: Chart }) {
  return <p>{t("paper.waiting", { ends: chart.pages.openEnds.map((e) => `${e.label} (${e.from})`).join(", ") })}</p>;
}

/** A page that is a picture: its words can be read, all else is tapped. */
function APicture({
  sheet,
  page,
  open,
}: {
  readonly sheet: DrawingSheet;
  readonly page: Page;
  readonly open: OpenPage;
}) {
  const [work, setWork] = useState<{ readonly share: number; readonly stop: () => void } | undefined>(undefined);
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const read = async () => {
    const stop = new AbortController();
    const said = (share: number) => setWork({ share, stop: () => stop.abort() });
    setIssues([]);
    said(0);
    try {
      const content = await readWords(sheet, page, said, stop.signal);
      const kept = await put(`/api/pages/${sheet.id}`, content, Done);
      if (kept.ok) open.setContent(content);
      else setIssues(kept.issues);
    } catch {
      if (!stop.signal.aborted) setIssues([{ code: "page.no-words", path: [], params: {} }]);
    }
    setWork(undefined);
  };
  return (
    <>
      <p className={styles.hint}>{t("paper.aPicture")}</p>
      {page.content ? <p className="muted">{t("paper.wordsRead", { count: page.content.words.length })}</p> : null}
      {(page.content ?? work) ? null : <Button onClick={() => void read()}>{t("paper.readTheWords")}</Button>}
      {work ? <LongWork says={t("paper.readingWords")} value={work.share} onStop={work.stop} /> : null}
      {issues.map((i, n) => (
        <p key={n} role="alert" className={styles.refused}>
          {say(i).text}
        </p>
      ))}
    </>
  );
}

/** The lines of the chart that come from this page, the newest first; what of the chart no page shows. */
function Lines({ chart, sheet, points }: Pick<OnePageProps, "chart" | "sheet" | "points">) {
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

/** The name of a page, and the way to take it off. */
function PageName({ chart, sheet, onChart }: Pick<OnePageProps, "chart" | "sheet" | "onChart">) {
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
      <Button type="text" onClick={() => onChart((c) => dropSheet(c, sheet.id))}>
        {t("paper.takeThePageOff", { count: marks })}
      </Button>
    </div>
  );
}
