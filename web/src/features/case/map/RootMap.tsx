"use client";
import { codesGone, type Analysis, type Folded } from "@radicula/core";
import { shareText } from "@radicula/core/words";
import { memo, useEffect, useMemo, useRef, type CSSProperties } from "react";
import { inlineBars } from "./inlineBars";
import { EdgeDrawing } from "./EdgeDrawing";
import { MapPins } from "./MapPins";
import { MapText } from "./MapText";
import { NodeDrawing, Plug } from "./NodeDrawing";
import { Pill } from "./Pill";
import { placePills, TOLD } from "./pills";
import { pinsOf } from "./pins";
import type { PlacedMap } from "./placed";
import { ReadingTags, TAG_ROOM, tagsOf } from "./ReadingTags";
import styles from "./RootMap.module.css";
import { suspicionOnMap, type MapSuspicion } from "./suspicion";
import { t } from "@/messages";

interface Props {
  readonly map: PlacedMap;
  readonly analysis: Analysis | undefined;
  /** the logbook as it is, which may be ahead of what was worked out */
  readonly folded?: Folded | undefined;
  /** where the red lead goes next */
  readonly next: readonly string[];
  readonly unplugged: readonly string[];
  /** wires that are not on the drawing, by id */
  readonly assumed?: ReadonlySet<string> | undefined;
  /** a cavity, splice or part tapped: a lead goes there */
  readonly onPoint?: ((point: string) => void) | undefined;
}
const NOTHING: MapSuspicion = { through: new Map(), on: new Map() };

/** Codes above, what they share below; thicker means more suspicion passes through. */
export const RootMap = memo(function RootMap({ map, analysis, folded, next, unplugged, assumed, onPoint }: Props) {
  const suspicion = useMemo(
    () => (analysis && analysis.stage !== "waiting" ? suspicionOnMap(map, analysis) : NOTHING),
    [map, analysis],
  );
  const now = folded ?? analysis?.folded;
  const gone = useMemo(() => new Set(now ? codesGone(now).map((c) => c.code) : []), [now]);
  const latest = useMemo(() => new Map(analysis?.readings.map((r) => [r.point, r])), [analysis]);
  const pills = useMemo(() => placePills(map, suspicion, new Set(latest.keys())), [map, suspicion, latest]);
  const tags = useMemo(() => tagsOf(map, latest), [map, latest]);
  const height = Math.max(map.height, ...tags.map((tag) => tag.y + TAG_ROOM));
  const left = Math.min(0, ...tags.map((tag) => tag.x - TAG_ROOM - 2));
  const right = Math.max(map.width, ...tags.map((tag) => tag.x + TAG_ROOM + 2));
  const bars = useMemo(() => inlineBars(map.nodes, unplugged), [map, unplugged]);
  const edges = useMemo(
    () => [...map.edges].sort((a, b) => (suspicion.through.get(a.id) ?? 0) - (suspicion.through.get(b.id) ?? 0)),
    [map, suspicion],
  );
  const pan = useNextInSight(map, next, left, right - left);
  return (
    <figure className={styles.figure}>
      <div ref={pan} className={styles.pan} style={{ "--map-width": `${right - left}px` } as CSSProperties}>
        <svg
          viewBox={`${left} 0 ${right - left} ${height}`}
          className={styles.svg}
          role={onPoint ? "group" : "img"}
          aria-label={describe(map, suspicion)}
          style={{ maxWidth: map.width * 1.12 }}
        >
          <g aria-hidden="true">
            {bars.map((b) =>
              b.pieces.map((p) => (
                <rect
                  key={`${b.id} ${p.left}`}
                  x={p.left}
                  y={b.y}
                  width={p.right - p.left}
                  height={b.height}
                  rx={8}
                  className={styles.plug}
                  strokeDasharray={b.out ? "5 4" : undefined}
                />
              )),
            )}
            {map.nodes.map((n) =>
              n.type === "sensor" ? <Plug key={n.id} node={n} out={unplugged.includes(n.detail)} /> : null,
            )}
            <g>
              {edges.map((e) => (
                <EdgeDrawing
                  key={`${e.id} ${e.from}`}
                  edge={e}
                  through={suspicion.through.get(e.id) ?? 0}
                  isAssumed={assumed?.has(e.id) ?? false}
                />
              ))}
            </g>
            {bars.map((b) =>
              b.room ? (
                <g key={b.id}>
                  <text x={b.left - 10} y={b.y + 11} textAnchor="end" className={styles.name}>
                    {b.id}
                  </text>
                  <text x={b.left - 10} y={b.y + 26} textAnchor="end" className={styles.note}>
                    {b.detail}
                  </text>
                </g>
              ) : (
                <text key={b.id} x={b.left + 4} y={b.y - 8} className={styles.name}>
                  {b.id}
                  <tspan className={styles.note} dx="6">
                    {b.detail}
                  </tspan>
                </text>
              ),
            )}
            {map.nodes.map((n) => (
              <NodeDrawing
                gone={gone}
                key={n.id}
                node={n}
                nodes={map.nodes}
                told={pills.some((p) => p.key === n.id)}
                suspicion={suspicion}
                next={next}
                unplugged={unplugged}
              />
            ))}
            {pills.map((p) => (
              <Pill key={p.key} x={p.x} y={p.y} share={p.share} />
            ))}
            <ReadingTags tags={tags} />
          </g>
          {onPoint ? <MapPins map={map} suspicion={suspicion} next={next} onPoint={onPoint} /> : null}
        </svg>
      </div>
      <div className={styles.under}>
        <figcaption className={styles.caption}>{captionOf(map)}</figcaption>
        <MapText map={map} suspicion={suspicion} readings={latest} />
      </div>
    </figure>
  );
});

/** Where the map is wider than the screen, it is moved so that the next reading is in its middle. */
function useNextInSight(map: PlacedMap, next: readonly string[], left: number, width: number) {
  const pan = useRef<HTMLDivElement>(null);
  const pin = pinsOf(map).find((p) => next.includes(p.point));
  const at = pin && (pin.cx - left) / width;
  useEffect(() => {
    const box = pan.current;
    if (!box || at === undefined || box.scrollWidth <= box.clientWidth) return;
    box.scrollLeft = at * box.scrollWidth - box.clientWidth / 2;
  }, [at]);
  return pan;
}

function captionOf(map: PlacedMap): string {
  const others = map.hidden === 0 ? "" : t("map.otherCircuitsShareNoWireWith", { hidden: map.hidden });
  const folded = map.feeds.length > 0 && !map.nodes.some((n) => n.type === "part");
  return `${others}${folded ? t("map.hiddenNotSuspected", { shortList: shortList(map.feeds) }) : ""}`;
}

function describe(map: PlacedMap, s: MapSuspicion): string {
  const strongest = map.nodes.map((n) => [n, s.on.get(n.thing) ?? 0] as const).sort((a, b) => b[1] - a[1])[0];
  const most =
    strongest && strongest[1] >= TOLD
      ? t("map.mostSuspicionOn", { title: strongest[0].title, share: shareText(strongest[1]) })
      : "";
  const sensors = map.nodes.filter((n) => n.type === "sensor").length;
  return t("map.rootMapOfSensorsAndWhat", { sensors, most });
}

/** A list that fits a line or two. */
const NAMED = 12;
function shortList(names: readonly string[]): string {
  const more = names.length - NAMED;
  return more > 0 ? t("map.andMore", { names: names.slice(0, NAMED).join(", "), more }) : names.join(", ");
}
