"use client";
import { followPoint, type Follow, type Wiring } from "@radicula/core";
import { Button, Segmented, Select } from "antd";
import { useEffect, useMemo, useRef, useState, type RefObject } from "react";
import { LongWork } from "@/ui/LongWork";
import { fileName } from "@/ui/text";
import { useUnits } from "@/ui/Units";
import { findIn } from "../find";
import { drawnGraph, neighbourhood, type DrawnGraph } from "./graph";
import type { Drawing } from "./layout";
import { layOut } from "./runLayout";
import { pngOf, save, svgText } from "./saveDrawing";
import { DrawnSheet } from "./DrawnSheet";
import styles from "./Drawing.module.css";
import { t } from "@/messages";
import { wordedList } from "@radicula/core/words";

/** Above this many things one part of the wiring is drawn first. */
const WHOLE = 120;
const SMALLEST_FIT = 0.74;
const LARGEST_FIT = 1.2;

/** How much further the neighbourhood of a thing goes, wires. */
const AROUND = 3;
const ZOOM_STEP = 1.25;
const SMALLEST = 0.2;
const LARGEST = 4;

interface Props {
  readonly wiring: Wiring;
  readonly thing: string | undefined;
  readonly find: string;
  readonly onThing: (id: string) => void;
}
type Part = "all" | "around";

/** The wiring drawn: laid out by itself, a chosen cavity followed to its ends, printed or saved. */
export function DrawingView({ wiring, thing, find, onThing }: Props) {
  const things = useMemo(() => [...new Set([...wiring.connectors, ...wiring.devices].map((x) => x.id))], [wiring]);
  const [part, setPart] = useState<Part>(things.length > WHOLE ? "around" : "all");
  const [point, setPoint] = useState<string | undefined>(undefined);
  const svg = useRef<SVGSVGElement>(null);
  const centre = thing ?? things[0];
  const units = useUnits();
  const graph = useMemo(
    () => drawnGraph(wiring, part === "around" && centre ? neighbourhood(wiring, centre, AROUND) : undefined, units),
    [wiring, part, centre, units],
  );
  const { drawing, failed, working, stopped, stop, drawAgain } = useDrawing(graph);
  const { paper, zoom, setZoom } = useZoom(drawing);
  const lit = useMemo(() => (point ? followPoint(wiring, point) : undefined), [wiring, point]);
  const found = useMemo(() => findIn(wiring, find), [wiring, find]);
  return (
    <section className={styles.view} aria-label={t("drawing.drawing")} aria-busy={working}>
      <header className={styles.bar}>
        <Segmented<Part> value={part} onChange={setPart} options={PARTS} />
        {part === "around" ? (
          <Select
            showSearch
            value={centre}
            onChange={(id: string) => {
              onThing(id);
              setPoint(undefined);
            }}
            options={things.map((id) => ({ value: id, label: id }))}
            style={{ width: 120 }}
            aria-label={t("drawing.aroundWhat")}
          />
        ) : null}
        <Hint graph={graph} working={working} point={point} lit={lit} />
        {point && !working ? (
          <button type="button" className="link" onClick={() => setPoint(undefined)}>
            {t("drawing.showAll")}
          </button>
        ) : null}
        <Tools svg={svg} name={fileName(wiring.name, "wiring")} zoom={zoom} onZoom={setZoom} />
      </header>
      <div ref={paper} className={styles.paper} tabIndex={0} aria-label={t("drawing.theSheetToBeScrolled")}>
        {working ? <LongWork says={layingOut(graph)} onStop={stop} /> : null}
        {stopped ? (
          <p className="muted" role="status">
            {t("drawing.stopped")}{" "}
            <button type="button" className="link" onClick={drawAgain}>
              {t("drawing.drawIt")}
            </button>
          </p>
        ) : null}
        {failed ? (
          <p className="muted" role="alert">
            {t("drawing.thisWiringCouldNotBeLaid")}
          </p>
        ) : null}
        {graph.nodes.length === 0 ? <p className="muted">{t("drawing.nothingToDrawYetTypeThe")}</p> : null}
        {drawing ? (
          <DrawnSheet
            ref={svg}
            drawing={drawing}
            zoom={zoom}
            lit={lit}
            found={found}
            thing={thing}
            onPoint={setPoint}
            onThing={onThing}
          />
        ) : null}
      </div>
    </section>
  );
}
const PARTS: { value: Part; label: string }[] = wordedList(() => [
  { value: "all", label: t("drawing.wholeWiring") },
  { value: "around", label: t("drawing.around") },
]);

/** The graph laid out in a worker; the last drawing stays until the next is there. */
function useDrawing(graph: DrawnGraph) {
  const [result, setResult] = useState<
    { readonly of: DrawnGraph; readonly drawing?: Drawing; readonly end?: "failed" | "stopped" } | undefined
  >(undefined);
  const [tries, setTries] = useState(0);
  const running = useRef<ReturnType<typeof layOut> | undefined>(undefined);
  useEffect(() => {
    const job = layOut(graph);
    running.current = job;
    job.drawing.then(
      (drawing) => setResult({ of: graph, drawing }),
      (error: unknown) => {
        if (!(error instanceof DOMException)) setResult({ of: graph, end: "failed" });
      },
    );
    return job.stop;
  }, [graph, tries]);
  return {
    drawing: result?.drawing,
    failed: result?.end === "failed",
    stopped: result?.of === graph && result.end === "stopped",
    working: result?.of !== graph,
    stop: () => {
      running.current?.stop();
      setResult({ of: graph, end: "stopped" });
    },
    drawAgain: () => {
      setResult(undefined);
      setTries((n) => n + 1);
    },
  };
}

/** Without a zoom of one's own: as large as the window shows whole, but never too small to read. */
function useZoom(drawing: Drawing | undefined) {
  const [own, setZoom] = useState<number | undefined>(undefined);
  const [width, setWidth] = useState(900);
  const paper = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = paper.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setWidth(entry.contentRect.width);
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const whole = drawing ? (width - 4) / Math.max(1, drawing.width) : 1;
  const fit = drawing ? Math.min(LARGEST_FIT, Math.max(SMALLEST_FIT, whole)) : 1;
  return { paper, zoom: own ?? fit, setZoom };
}

const layingOut = ({ nodes, edges }: DrawnGraph) =>
  t("drawing.layingOutPartsAndWires", { nodesCount: nodes.length, edgesCount: edges.length });

function Hint({
  graph,
  working,
  point,
  lit,
}: {
  readonly graph: DrawnGraph;
  readonly working: boolean;
  readonly point: string | undefined;
  readonly lit: Follow | undefined;
}) {
  return (
    <span className={`muted ${styles.hint}`}>
      {working ? (
        layingOut(graph)
      ) : point ? (
        <>
          <b className="mono">{point}</b>{" "}
          {lit?.end ? (
            <>
              {t("drawing.leadsTo")} <b className="mono">{lit.end}</b>
            </>
          ) : (
            t("drawing.endsHere")
          )}
          {lit?.others.length ? t("drawing.sharedWith", { others: lit.others.slice(0, 8).join(", ") }) : ""}
        </>
      ) : (
        t("drawing.pressACavityToFollowIt")
      )}
    </span>
  );
}

function Tools({
  svg,
  name,
  zoom,
  onZoom,
}: {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly name: string;
  readonly zoom: number;
  readonly onZoom: (zoom: number | undefined) => void;
}) {
  return (
    <span className={styles.tools}>
      <Button
        type="text"
        aria-label={t("drawing.smaller")}
        onClick={() => onZoom(Math.max(SMALLEST, zoom / ZOOM_STEP))}
      >
        −
      </Button>
      <Button type="text" title={t("drawing.asItFits")} onClick={() => onZoom(undefined)}>
        {Math.round(zoom * 100)} %
      </Button>
      <Button type="text" aria-label={t("drawing.larger")} onClick={() => onZoom(Math.min(LARGEST, zoom * ZOOM_STEP))}>
        +
      </Button>
      <Button type="text" onClick={() => window.print()}>
        {t("drawing.print")}
      </Button>
      <Button
        type="text"
        onClick={() => {
          if (svg.current) save(new Blob([svgText(svg.current)], { type: "image/svg+xml" }), `${name}.svg`);
        }}
      >
        {t("drawing.svg")}
      </Button>
      <Button
        type="text"
        onClick={() => {
          if (svg.current) void pngOf(svg.current).then((png) => save(png, `${name}.png`));
        }}
      >
        {t("drawing.png")}
      </Button>
    </span>
  );
}
