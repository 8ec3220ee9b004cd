"use client";
import type { Stretch } from "@radicula/core";
import { channelValue, secondsText } from "@radicula/core/words";
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from "react";
import uPlot from "uplot";
import "uplot/dist/uPlot.min.css";
import { useThemeMode } from "@/ui/Theme";
import type { ExpectedLevels } from "@/workers/recording.worker";
import { drawExpected, drawMark, drawOutside } from "./paint";
import type { OpenRecording } from "./useRecording";
import styles from "./Recording.module.css";
import { wholeOf, within, type Seen } from "./seen";
import { t } from "@/messages";

/** Height of one channel, and of all laid over each other. */
const EACH = 150;
const OVER = 320;
export const AXIS_WIDTH = 64;
/** Room for half of the last time beside the drawing. */
export const RIGHT_PAD = 24;
const TIME_HEIGHT = 32;
/** A channel that moves less than this is drawn as still as it is; in its unit. Judgement. */
const LEAST_SPAN = 1;
/** By how much one turn of the wheel or one key zooms, and how much of what is seen one key moves. */
const ZOOM = 1.35;
const STEP = 0.25;
/** Colours of channels, as variables of the theme: no two beside each other alike. */
const COLOURS = ["--accent", "--rust", "--ink", "--wire"];

interface Props {
  readonly recording: OpenRecording;
  /** places of the channels drawn */
  readonly shown: readonly number[];
  readonly isOver: boolean;
  readonly seen: Seen;
  readonly onSee: (seen: Seen) => void;
  readonly expected: ExpectedLevels | undefined;
}

/**
 * Channels over time: one under the other, or laid over each other. The wheel and two fingers zoom, a drag chooses a
 * part, keys do both; a press sets a cursor, a second one the other.
 */
export function TracePlot({ recording, shown, isOver, seen, onSee, expected }: Props) {
  const { channels, worker } = recording;
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const whole = useMemo(() => wholeOf(recording), [recording]);
  const least = useMemo(() => 8 / Math.max(1e-9, ...channels.map((c) => c.perSecond || 1)), [channels]);
  const see = useCallback((next: Seen) => onSee(within(next, whole, least)), [onSee, whole, least]);
  const [marks, setMarks] = useState<readonly number[]>([]);
  const mark = useCallback((at: number) => setMarks((m) => (m.length === 1 ? [m[0]!, at] : [at])), []);
  const groups = useMemo(() => (isOver ? [shown] : shown.map((c) => [c])), [isOver, shown]);
  const zoomAt = useCallback(
    (factor: number, at = (seen.from + seen.to) / 2) =>
      see({ from: at - (at - seen.from) * factor, to: at + (seen.to - at) * factor }),
    [see, seen],
  );
  const move = (share: number) => {
    const by = share * (seen.to - seen.from);
    see({ from: seen.from + by, to: seen.to + by });
  };
  const onKey = (e: KeyboardEvent) => {
    const act = KEYS[e.key];
    if (!act) return;
    e.preventDefault();
    e.stopPropagation();
    if (act === "in") zoomAt(1 / ZOOM);
    else if (act === "out") zoomAt(ZOOM);
    else if (act === "all") see(whole);
    else move(act === "left" ? -STEP : STEP);
  };
  useGestures(box, seen, zoomAt, see);
  return (
    <div className={styles.plots}>
      <div className={styles.bar}>
        <button type="button" onClick={() => zoomAt(1 / ZOOM)} aria-label={t("recording.zoomIn")}>
          +
        </button>
        <button type="button" onClick={() => zoomAt(ZOOM)} aria-label={t("recording.zoomOut")}>
          −
        </button>
        <button type="button" onClick={() => move(-STEP)} aria-label={t("recording.earlier")}>
          ‹
        </button>
        <button type="button" onClick={() => move(STEP)} aria-label={t("recording.later")}>
          ›
        </button>
        <button type="button" onClick={() => see(whole)}>
          {t("recording.allOfIt")}
        </button>
        <span className="muted">
          {t("recording.fromTo", { from: secondsText(seen.from), to: secondsText(seen.to) })}
        </span>
        <Cursors marks={marks} recording={recording} shown={shown} onClear={() => setMarks([])} />
      </div>
      <div
        ref={box}
        tabIndex={0}
        role="img"
        aria-label={t("recording.drawingOf", { names: shown.map((c) => channels[c]!.name).join(", ") })}
        onKeyDown={onKey}
        className={styles.box}
      >
        {width > 0
          ? groups.map((group) => (
              <OnePlot
                key={group.join(" ")}
                {...{ recording, group, seen, width, marks, mark, expected }}
                worker={worker}
                onSee={see}
                height={isOver ? OVER : EACH}
              />
            ))
          : null}
      </div>
    </div>
  );
}
const KEYS: Readonly<Record<string, "in" | "out" | "left" | "right" | "all">> = {
  "+": "in",
  "=": "in",
  "-": "out",
  ArrowLeft: "left",
  ArrowRight: "right",
  "0": "all",
};

interface OnePlotProps {
  readonly recording: OpenRecording;
  readonly group: readonly number[];
  readonly seen: Seen;
  readonly width: number;
  readonly height: number;
  readonly marks: readonly number[];
  readonly mark: (at: number) => void;
  readonly onSee: (seen: Seen) => void;
  readonly expected: ExpectedLevels | undefined;
  readonly worker: OpenRecording["worker"];
}

/** What a value was when the page was last drawn, for what runs at other times. */
function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useEffect(() => {
    latest.current = value;
  });
  return latest;
}

function OnePlot({ recording, group, seen, width, height, marks, mark, onSee, expected, worker }: OnePlotProps) {
  const host = useRef<HTMLDivElement>(null);
  const plot = useRef<uPlot | undefined>(undefined);
  const { mode } = useThemeMode();
  const { channels } = recording;
  // what the drawing itself reads while it is drawn
  const { measured } = recording;
  const drawn = useLatest({ marks, expected, group, measured });
  const stretches = useRef<readonly Stretch[]>([]);
  useEffect(() => plot.current?.redraw(false), [marks, expected, group, measured]);
  // the plot calls the latest of these: made anew for each of them, it would lose what is drawn
  const call = useLatest({ mark, onSee });
  useEffect(() => {
    const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    // asked for when it is drawn: the theme may change after this
    const axis = {
      stroke: () => colour("--muted"),
      grid: { stroke: () => colour("--line"), width: 1 },
      ticks: { show: false },
    };
    const first = channels[group[0]!]!;
    const made = new uPlot(
      {
        width,
        height,
        padding: [null, RIGHT_PAD, null, null],
        scales: { x: { time: false } },
        legend: { show: false },
        cursor: { y: false, drag: { x: true, y: false, setScale: false }, focus: { prox: -1 } },
        axes: [
          { ...axis, size: TIME_HEIGHT, values: (_, ticks) => ticks.map((v) => secondsText(v)) },
          { ...axis, size: AXIS_WIDTH, space: 26, values: (_, ticks) => ticks.map((v) => channelValue(v, first.unit)) },
        ],
        series: [
          {},
          ...group.map((c, i) => ({
            label: channels[c]!.name,
            stroke: () => colour(COLOURS[i % COLOURS.length]!),
            width: 1.25,
            points: { show: false },
            spanGaps: group.length > 1,
          })),
        ],
        hooks: {
          setSelect: [
            (u) => {
              if (u.select.width < 4) return;
              call.current.onSee({
                from: u.posToVal(u.select.left, "x"),
                to: u.posToVal(u.select.left + u.select.width, "x"),
              });
              u.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false);
            },
          ],
          draw: [
            (u) => {
              const { marks: at, expected: bands, group: own, measured: known } = drawn.current;
              own.forEach((c, i) => {
                const shape = { stretch: stretches.current[i], facts: known?.facts[c] };
                drawExpected(u, bands?.sound[c], shape, colour("--accent"), [2, 4]);
                drawExpected(u, bands?.suspect[c], shape, colour("--rust"), [7, 5]);
                drawOutside(u, bands?.sound[c], shape, colour("--rust"));
              });
              for (const m of at) drawMark(u, m, colour("--ink"));
            },
          ],
        },
      },
      [[], ...group.map(() => [])] as unknown as uPlot.AlignedData,
      host.current!,
    );
    plot.current = made;
    const press = () => {
      const { left } = made.cursor;
      if (left !== undefined && left >= 0) call.current.mark(made.posToVal(left, "x"));
    };
    let downAt = 0;
    const down = (e: MouseEvent) => (downAt = e.clientX);
    const up = (e: MouseEvent) => {
      if (Math.abs(e.clientX - downAt) < 4) press();
    };
    made.over.addEventListener("mousedown", down);
    made.over.addEventListener("mouseup", up);
    return () => {
      made.destroy();
      plot.current = undefined;
    };
  }, [channels, group, width, height, mode, call, drawn]);
  useEffect(() => {
    let isHere = true;
    void worker.stretches(group, seen.from, seen.to, width).then(
      (all) => {
        const u = plot.current;
        if (!isHere || !u) return;
        stretches.current = all;
        const data = all.map((s): uPlot.AlignedData => [Array.from(s.seconds), Array.from(s.values, gapless)]);
        u.batch(() => {
          u.setData(data.length === 1 ? data[0]! : uPlot.join(data), false);
          u.setScale("x", { min: seen.from, max: seen.to });
          u.setScale("y", rangeOf(group.map((c) => channels[c]!)));
        });
      },
      () => undefined, // it was closed meanwhile
    );
    return () => {
      isHere = false;
    };
  }, [worker, group, seen, width, height, channels, mode]); // as often as the plot is made anew
  return (
    <div className={styles.one}>
      <span className={styles.name}>
        {group.map((c, i) => (
          <b key={c} style={group.length > 1 ? { color: `var(${COLOURS[i % COLOURS.length]!})` } : {}}>
            {channels[c]!.name}
          </b>
        ))}
      </span>
      <div ref={host} style={{ height }} />
    </div>
  );
}
const gapless = (v: number) => (Number.isNaN(v) ? null : v);

/** All that the channels span, with some air. */
function rangeOf(channels: readonly { readonly least: number; readonly most: number }[]) {
  const least = Math.min(...channels.map((c) => c.least));
  const most = Math.max(...channels.map((c) => c.most));
  const air = Math.max(0.08 * (most - least), (LEAST_SPAN - (most - least)) / 2);
  return Number.isFinite(least) ? { min: least - air, max: most + air } : { min: 0, max: 1 };
}

/** What lies between two cursors: time, frequency, and by how much each channel differs. */
function Cursors({
  marks,
  recording,
  shown,
  onClear,
}: {
  readonly marks: readonly number[];
  readonly recording: OpenRecording;
  readonly shown: readonly number[];
  readonly onClear: () => void;
}) {
  const [values, setValues] = useState<readonly (readonly number[])[]>([]);
  const { worker, channels } = recording;
  useEffect(() => {
    let isHere = true;
    void Promise.all(marks.map((m) => worker.valuesAt(m))).then(
      (all) => {
        if (isHere) setValues(all);
      },
      () => undefined,
    );
    return () => {
      isHere = false;
    };
  }, [marks, worker]);
  if (marks.length === 0) return <span className="muted">{t("recording.pressForACursor")}</span>;
  const [a, b] = marks;
  const between = b === undefined ? undefined : Math.abs(b - a!);
  const shownValue = (c: number) => {
    const first = values[0]?.[c];
    const second = values[1]?.[c];
    if (first === undefined || Number.isNaN(first)) return "";
    const { name, unit } = channels[c]!;
    const value = between === undefined || second === undefined ? first : second - first;
    return `${between === undefined ? "" : "Δ "}${name} ${channelValue(value, unit)}`;
  };
  return (
    <output className={styles.cursors}>
      {between === undefined
        ? secondsText(a!)
        : `Δ ${secondsText(between)}${between > 0 ? ` (${Number((1 / between).toPrecision(3))} Hz)` : ""}`}{" "}
      {shown.map(shownValue).filter(Boolean).join(" · ")}
      <button type="button" className="link" onClick={onClear}>
        {t("recording.noCursor")}
      </button>
    </output>
  );
}

function useWidth(box: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = box.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)));
    watch.observe(element);
    return () => watch.disconnect();
  }, [box]);
  return width;
}

/** Wheel and two fingers. */
function useGestures(
  box: React.RefObject<HTMLDivElement | null>,
  seen: Seen,
  zoomAt: (factor: number, at?: number) => void,
  see: (seen: Seen) => void,
): void {
  useEffect(() => {
    const element = box.current;
    if (!element) return undefined;
    const timeAt = (x: number) => {
      const area = element.getBoundingClientRect();
      const share = (x - area.left - AXIS_WIDTH) / Math.max(1, area.width - AXIS_WIDTH);
      return seen.from + Math.max(0, Math.min(1, share)) * (seen.to - seen.from);
    };
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      if (Math.abs(e.deltaX) > Math.abs(e.deltaY)) {
        const by = (e.deltaX / element.clientWidth) * (seen.to - seen.from);
        see({ from: seen.from + by, to: seen.to + by });
      } else zoomAt(e.deltaY > 0 ? ZOOM : 1 / ZOOM, timeAt(e.clientX));
    };
    const fingers = (e: TouchEvent) => [...e.touches].map((f) => f.clientX);
    let apart = 0;
    const touch = (e: TouchEvent) => {
      const [a, b] = fingers(e);
      if (a === undefined || b === undefined) return;
      e.preventDefault();
      const now = Math.max(10, Math.abs(a - b));
      if (apart > 0) zoomAt(apart / now, timeAt((a + b) / 2));
      apart = now;
    };
    const lift = () => (apart = 0);
    element.addEventListener("wheel", wheel, { passive: false });
    element.addEventListener("touchmove", touch, { passive: false });
    element.addEventListener("touchend", lift);
    return () => {
      element.removeEventListener("wheel", wheel);
      element.removeEventListener("touchmove", touch);
      element.removeEventListener("touchend", lift);
    };
  }, [box, seen, zoomAt, see]);
}
