"use client";
import { formatQuantity, type DrawingSheet, type Issue, type ReadingView } from "@radicula/core";
import { shareText, unitOf } from "@radicula/core/words";
import { Button } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { say } from "@/messages/issues";
import { fetchPage, type Page } from "@/ui/page/fetchPage";
import { PageTabs } from "@/ui/page/PageTabs";
import { PageViewer } from "@/ui/page/PageViewer";
import { useCase } from "../session/caseContext";
import { isOdd } from "../map/ReadingTags";
import { onPage, pageToShow, placeAt, type OnPage, type PagePlace } from "./onPage";
import styles from "./PageMap.module.css";
import { printPage, savePage } from "./savePage";
import { t } from "@/messages";

/** Suspicion below this is not drawn. */
const SHOWN = 0.01;

/** The user's own drawing: suspicion along its lines, readings where they were taken, the next one marked. */
export function PageMap({ isEnded }: { readonly isEnded: boolean }) {
  const { wiring, analysis, sheets, next, log } = useCase();
  const seen = useMemo(() => log.entries.filter((e) => e.type === "seen"), [log.entries]);
  const points = next.candidate && !isEnded ? next.candidate.points : NOWHERE;
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const pages = wiring.pages?.sheets ?? [];
  const shown = chosen ?? pageToShow(wiring, analysis, points);
  const sheet = pages.find((s) => s.id === shown) ?? pages[0];
  if (!sheet) return <p className={styles.none}>{t("paper.noPagesYet")}</p>;
  const on = onPage(wiring, sheet, analysis, points, seen);
  return (
    <div className={styles.map}>
      <div className={styles.bar}>
        <PageTabs sheets={pages} chosen={sheet} onChoose={setChosen} />
      </div>
      <Shown key={sheet.id} sheet={sheet} on={on} onPoint={sheets.openAt} />
    </div>
  );
}
const NOWHERE: readonly string[] = [];

function Shown({
  sheet,
  on,
  onPoint,
}: {
  readonly sheet: DrawingSheet;
  readonly on: OnPage;
  readonly onPoint: (point: string) => void;
}) {
  const [page, setPage] = useState<Page | undefined>(undefined);
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const drawn = useRef<SVGGElement>(null);
  useEffect(() => {
    let isGone = false;
    void fetchPage(sheet.id).then((answer) => {
      if (isGone) return;
      if (answer.ok) setPage(answer.body);
      else setIssues(answer.issues);
    });
    return () => {
      isGone = true;
    };
  }, [sheet.id]);
  const said = useMemo(() => on.places.filter((p) => p.isNext || p.reading || p.found || p.share >= SHOWN), [on]);
  return (
    <>
      <div className={styles.paper}>
        {issues.map((i, n) => (
          <p key={n} role="alert">
            {say(i).text}
          </p>
        ))}
        {page ? (
          <PageViewer
            sheet={sheet}
            picture={page}
            isDrawing={false}
            onArea={() => undefined}
            onTap={(at, reach) => {
              const place = placeAt(on, at, 2 * reach);
              if (place) onPoint(place.point);
            }}
          >
            <g ref={drawn}>
              <Drawn sheet={sheet} on={on} />
            </g>
          </PageViewer>
        ) : null}
      </div>
      <div className={styles.under}>
        <ul aria-label={t("paper.onThisPage")}>
          {said.map((p) => (
            <li key={p.point}>
              <button type="button" className="link" onClick={() => onPoint(p.point)}>
                {p.point}
              </button>{" "}
              {[
                p.isNext ? t("paper.nextHere") : "",
                p.found ? t("paper.foundOnTheMachine", { colour: p.found }) : "",
                p.reading ? valueText(p.reading) : "",
                p.share >= SHOWN ? shareText(p.share) : "",
              ]
                .filter(Boolean)
                .join(" · ")}
            </li>
          ))}
        </ul>
        {page ? (
          <>
            <Button type="text" onClick={() => void (drawn.current && savePage(sheet, page, drawn.current))}>
              {t("paper.saveAsSvg")}
            </Button>
            <Button type="text" onClick={() => void (drawn.current && printPage(sheet, page, drawn.current))}>
              {t("paper.printIt")}
            </Button>
          </>
        ) : null}
      </div>
    </>
  );
}

const valueText = (r: ReadingView) => `${formatQuantity(r.value, unitOf(r.instrument))}`;
/** Colours of ink on white paper, the same by day and by night; they travel with the page when it is saved. */
const RUST = "#a8401a";
const GREEN = "#1e6a58";

function Drawn({ sheet, on }: { readonly sheet: DrawingSheet; readonly on: OnPage }) {
  const unit = Math.max(sheet.width, sheet.height) / 260;
  const glow = { fill: "none", stroke: RUST, strokeLinecap: "round", strokeLinejoin: "round" } as const;
  return (
    <>
      {on.boxes.map((b) =>
        b.share >= SHOWN ? (
          <rect
            key={b.id}
            {...glow}
            x={b.x}
            y={b.y}
            width={b.width}
            height={b.height}
            strokeWidth={unit * (0.6 + 2 * b.share)}
            strokeOpacity={0.35 + 0.5 * b.share}
          />
        ) : null,
      )}
      {on.lines.map((l) =>
        l.share >= SHOWN ? (
          <polyline
            key={l.key}
            {...glow}
            points={l.points.map((p) => p.join(",")).join(" ")}
            strokeWidth={unit * (0.8 + 2.4 * l.share)}
            strokeOpacity={0.35 + 0.5 * l.share}
          />
        ) : null,
      )}
      {on.places.map((p) => (
        <g key={p.point}>
          {p.share >= SHOWN ? (
            <circle cx={p.x} cy={p.y} r={unit * (1 + 2 * p.share)} fill={RUST} fillOpacity={0.7} />
          ) : null}
          {p.isNext ? (
            <circle
              className={styles.next}
              cx={p.x}
              cy={p.y}
              r={unit * 2.4}
              fill="none"
              stroke={RUST}
              strokeWidth={unit * 0.7}
            />
          ) : null}
          {p.found ? (
            <text x={p.x} y={p.y + unit * 5} fontSize={unit * 3} fontWeight={700} textAnchor="middle" fill={RUST}>
              ≠ {p.found}
            </text>
          ) : null}
          {p.reading ? <ReadingTag unit={unit} place={p} reading={p.reading} /> : null}
        </g>
      ))}
    </>
  );
}

/** A value in a tag whose tip points at where it was read; rust where a sound machine would show something else. */
function ReadingTag({
  unit,
  place,
  reading,
}: {
  readonly unit: number;
  readonly place: PagePlace;
  readonly reading: ReadingView;
}) {
  const { x, y, side } = place;
  const text = valueText(reading);
  const colour = isOdd(reading) ? RUST : GREEN;
  const width = unit * (text.length * 1.75 + 2);
  const left = side === "left" ? x - width - unit * 2 : side === "right" ? x + unit * 2 : x - width / 2;
  const top = side === "above" ? y - unit * 6 : y - unit * 2;
  const tip =
    side === "above"
      ? `M${x} ${y}l${-unit} ${-unit * 2}h${unit * 2}z`
      : `M${x} ${y}l${side === "left" ? -unit * 2 : unit * 2} ${-unit}v${unit * 2}z`;
  return (
    <g>
      <path d={tip} fill={colour} />
      <rect x={left} y={top} width={width} height={unit * 4} rx={unit} fill={colour} />
      <text
        x={left + width / 2}
        y={top + unit * 3}
        fontSize={unit * 2.9}
        textAnchor="middle"
        fill="#ffffff"
        fontFamily="sans-serif"
      >
        {text}
      </text>
    </g>
  );
}
