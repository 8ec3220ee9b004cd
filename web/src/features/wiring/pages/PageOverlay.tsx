"use client";
import type { Chart, DrawingSheet, ReadSheet, SheetProgress, Spot } from "@radicula/core";
import type { Tapped } from "./hit";
import styles from "./Pages.module.css";

const line = (points: readonly Spot[]) => points.map((p) => p.join(",")).join(" ");

/** What was read on a page and not taken yet, what the chart has of it, and what is looked at. */
export function PageOverlay({
  chart,
  sheet,
  read,
  done,
  tapped,
}: {
  readonly chart: Chart;
  readonly sheet: DrawingSheet;
  readonly read: ReadSheet;
  readonly done: SheetProgress;
  readonly tapped: Tapped | undefined;
}) {
  const { marks, traces, openEnds } = chart.pages;
  const size = Math.max(sheet.width, sheet.height) / 260;
  const chosen =
    tapped?.kind === "wire"
      ? read.wires[tapped.index]?.points
      : tapped?.kind === "spot" || tapped?.kind === "mark"
        ? tapped.along
        : undefined;
  return (
    <>
      {read.boxes.map((b, i) =>
        done.boxes[i] ? null : (
          <rect key={`b${i}`} className={styles.offered} x={b.x} y={b.y} width={b.width} height={b.height} />
        ),
      )}
      {read.wires.map((w, i) =>
        done.wires[i] ? null : <polyline key={`w${i}`} className={styles.offered} points={line(w.points)} />,
      )}
      {read.stars.map((s, i) =>
        done.stars[i] ? null : <circle key={`s${i}`} className={styles.offered} cx={s.at[0]} cy={s.at[1]} r={size} />,
      )}
      {[...traces, ...openEnds].map((trace, i) =>
        trace.sheet === sheet.id ? (
          <polyline key={`t${i}`} className={styles.taken} data-open={"label" in trace} points={line(trace.points)} />
        ) : null,
      )}
      {marks.map((m) => {
        if (m.sheet !== sheet.id) return null;
        if (m.width === undefined || m.height === undefined)
          return <circle key={m.at} className={styles.mark} cx={m.x} cy={m.y} r={size * 0.8} />;
        return <rect key={m.at} className={styles.taken} x={m.x} y={m.y} width={m.width} height={m.height} />;
      })}
      {chosen ? <polyline className={styles.chosen} points={line(chosen)} /> : null}
      {tapped ? <Chosen tapped={tapped} read={read} size={size} /> : null}
    </>
  );
}

function Chosen({ tapped, read, size }: { readonly tapped: Tapped; readonly read: ReadSheet; readonly size: number }) {
  if (tapped.kind === "area") return <rect className={styles.chosen} {...rectOf(tapped)} />;
  if (tapped.kind === "box") {
    const box = read.boxes[tapped.index];
    return box ? <rect className={styles.chosen} {...rectOf(box)} /> : null;
  }
  const at =
    tapped.kind === "spot"
      ? tapped.at
      : tapped.kind === "mark"
        ? ([tapped.mark.x, tapped.mark.y] as const)
        : tapped.kind === "star"
          ? read.stars[tapped.index]?.at
          : undefined;
  return at ? <circle className={styles.chosen} cx={at[0]} cy={at[1]} r={size * 1.8} /> : null;
}
const rectOf = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => ({
  x,
  y,
  width,
  height,
});
