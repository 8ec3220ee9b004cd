"use client";
import {
  isNamedBox,
  progressOf,
  takeWhole,
  type Chart,
  type DrawingSheet,
  type Issue,
  type Spot,
} from "@radicula/core";
import { Button } from "antd";
import { useMemo, useRef, useState, type ReactNode } from "react";
import { say } from "@/messages/issues";
import { LongWork } from "@/ui/LongWork";
import type { Page } from "@/ui/page/fetchPage";
import { PageTabs } from "@/ui/page/PageTabs";
import { PageViewer } from "@/ui/page/PageViewer";
import { Done, put } from "@/ui/send";
import type { Bench } from "../useBench";
import { tidyRows } from "../edit";
import { withRow } from "../emptyRow";
import { Notes } from "../Notes";
import { PasteChart, type GivenTable } from "../PasteChart";
import { marked, spotOf, whatIsAt, type Tapped } from "./hit";
import { PageCard } from "./PageCards";
import { Lines, PageName } from "./PageFoot";
import { PageOverlay } from "./PageOverlay";
import styles from "./Pages.module.css";
import { readWords } from "./readWords";
import { TakeIn } from "./TakeIn";
import { Wheel } from "./Wheel";
import { onInk } from "@/ui/page/ink";
import { alongInk } from "@/ui/page/alongInk";
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
  const [table, setTable] = useState<GivenTable | undefined>(undefined);
  const [isDrawing, setDrawing] = useState(false);
  const { page, read } = open;
  const done = useMemo(() => progressOf(chart, sheet, read), [chart, sheet, read]);
  const taps = useRef(0);
  const tap = async (at: Spot, reach: number) => {
    const mine = ++taps.current;
    const found = whatIsAt(chart, sheet, read, at, reach);
    // a photo has no strokes to be followed, but ink to land on
    const isPicture = !page?.content || page.content.lines.length === 0;
    const spot = page && isPicture ? await onPicture(found, page, reach) : found;
    if (taps.current === mine) setTapped(spot);
  };
  /** Where a place of a photo lies on ink, and how the wire that is being laid runs there. */
  const onPicture = async (found: Tapped, picture: Page, reach: number): Promise<Tapped> => {
    if (found.kind !== "spot" && found.kind !== "mark") return found;
    const at = found.kind === "spot" ? await onInk(sheet, picture, found.at, reach) : spotOf(found.mark);
    const start = from === undefined ? undefined : marked(chart, sheet, from);
    const along = start && (await alongInk(sheet, picture, start, at));
    return { ...found, ...(found.kind === "spot" ? { at } : {}), ...(along ? { along } : {}) };
  };
  return (
    <div className={styles.split}>
      {page ? (
        <PageViewer
          sheet={sheet}
          picture={page}
          isDrawing={isDrawing}
          pinned={
            tapped?.kind === "spot" && !tapped.as
              ? {
                  at: tapped.at,
                  shows: (
                    <Wheel
                      onChoose={(as) => setTapped({ ...tapped, as })}
                      onBox={() => {
                        setTapped(undefined);
                        setDrawing(true);
                      }}
                    />
                  ),
                }
              : undefined
          }
          onTap={(at, reach) => void tap(at, reach)}
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
            onTable={(text) => setTable({ text, source: sheet.name })}
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
      <PasteChart
        open={table !== undefined}
        chart={chart}
        given={table}
        onClose={() => setTable(undefined)}
        onTake={(next) => {
          onChart((c) => ({ ...next, rows: tidyRows(next.rows, c.rows) }));
          setTable(undefined);
          setTapped(undefined);
        }}
      />
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
