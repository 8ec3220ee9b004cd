"use client";
import { followPoint, type Wiring } from "@radicula/core";
import { Button, Segmented, Select } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import { fileName } from "@/ui/text";
import { findIn } from "../find";
import { drawnGraph, neighbourhood } from "./graph";
import type { Drawing } from "./layout";
import { layOut } from "./runLayout";
import { pngOf, save, svgText } from "./saveDrawing";
import { DrawnSheet } from "./DrawnSheet";
import styles from "./Drawing.module.css";

/** Above this many things one part of the wiring is drawn first. */
const WHOLE = 120;
const SMALLEST_FIT = 0.74;
const LARGEST_FIT = 1.2;

/** The wiring drawn: laid out by itself, a chosen cavity followed to its ends, printed or saved. */
export function DrawingView({
  wiring,
  thing,
  find,
  onThing,
}: {
  readonly wiring: Wiring;
  readonly thing: string | undefined;
  readonly find: string;
  readonly onThing: (id: string) => void;
}) {
  const count =
    wiring.connectors.length + wiring.devices.filter((d) => !wiring.connectors.some((c) => c.id === d.id)).length;
  const [part, setPart] = useState<"all" | "around">(count > WHOLE ? "around" : "all");
  const [point, setPoint] = useState<string | undefined>(undefined);
  // no zoom of one's own: as large as the window shows whole, but never too small to read
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
  const [result, setResult] = useState<
    { readonly of: unknown; readonly drawing?: Drawing; readonly failed?: boolean } | undefined
  >(undefined);
  const svg = useRef<SVGSVGElement>(null);
  const centre = thing ?? wiring.connectors[0]?.id ?? wiring.devices[0]?.id;
  const graph = useMemo(
    () => drawnGraph(wiring, part === "around" && centre ? neighbourhood(wiring, centre, 3) : undefined),
    [wiring, part, centre],
  );
  useEffect(() => {
    const job = layOut(graph);
    job.drawing.then(
      (drawing) => setResult({ of: graph, drawing }),
      (error: unknown) => {
        if (!(error instanceof DOMException)) setResult({ of: graph, failed: true });
      },
    );
    return job.stop;
  }, [graph]);
  const lit = useMemo(() => (point ? followPoint(wiring, point) : undefined), [wiring, point]);
  const found = useMemo(() => findIn(wiring, find), [wiring, find]);
  const fit = result?.drawing
    ? Math.min(LARGEST_FIT, Math.max(SMALLEST_FIT, (width - 4) / Math.max(1, result.drawing.width)))
    : 1;
  const zoom = own ?? fit;
  const drawing = result?.drawing;
  const working = result?.of !== graph;
  const things = useMemo(
    () =>
      [...new Set([...wiring.connectors, ...wiring.devices].map((x) => x.id))].map((id) => ({ value: id, label: id })),
    [wiring],
  );
  const name = fileName(wiring.name, "wiring");
  return (
    <section className={styles.view} aria-label="Drawing" aria-busy={working}>
      <header className={styles.bar}>
        <Segmented
          value={part}
          onChange={(v) => setPart(v as typeof part)}
          options={[
            { value: "all", label: "Whole wiring" },
            { value: "around", label: "Around" },
          ]}
        />
        {part === "around" ? (
          <Select
            showSearch
            value={centre}
            onChange={(id: string) => {
              onThing(id);
              setPoint(undefined);
            }}
            options={things}
            style={{ width: 120 }}
            aria-label="Around what"
          />
        ) : null}
        <span className={`muted ${styles.hint}`}>
          {working ? (
            `Laying out ${graph.nodes.length} parts and ${graph.edges.length} wires…`
          ) : point ? (
            <>
              <b className="mono">{point}</b>{" "}
              {lit?.end ? (
                <>
                  leads to <b className="mono">{lit.end}</b>
                </>
              ) : (
                "ends here"
              )}
              {lit?.others.length ? `, shared with ${lit.others.slice(0, 8).join(", ")}` : ""}
            </>
          ) : (
            "press a cavity to follow it"
          )}
        </span>
        {point && !working ? (
          <button type="button" className="link" onClick={() => setPoint(undefined)}>
            Show all
          </button>
        ) : null}
        <span className={styles.tools}>
          <Button type="text" aria-label="Smaller" onClick={() => setZoom(Math.max(0.2, zoom / 1.25))}>
            −
          </Button>
          <Button type="text" title="as it fits" onClick={() => setZoom(undefined)}>
            {Math.round(zoom * 100)} %
          </Button>
          <Button type="text" aria-label="Larger" onClick={() => setZoom(Math.min(4, zoom * 1.25))}>
            +
          </Button>
          <Button type="text" onClick={() => window.print()}>
            Print
          </Button>
          <Button
            type="text"
            onClick={() => {
              if (svg.current) save(new Blob([svgText(svg.current)], { type: "image/svg+xml" }), `${name}.svg`);
            }}
          >
            SVG
          </Button>
          <Button
            type="text"
            onClick={() => {
              if (svg.current) void pngOf(svg.current).then((png) => save(png, `${name}.png`));
            }}
          >
            PNG
          </Button>
        </span>
      </header>
      <div ref={paper} className={styles.paper} tabIndex={0} aria-label="The sheet, to be scrolled">
        {result?.failed ? (
          <p className="muted" role="alert">
            This wiring could not be laid out. Draw a part of it instead.
          </p>
        ) : null}
        {graph.nodes.length === 0 ? (
          <p className="muted">Nothing to draw yet: type the first line of the chart.</p>
        ) : null}
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
