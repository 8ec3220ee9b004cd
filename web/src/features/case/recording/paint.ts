import type { ChannelFacts, Stretch } from "@radicula/core";
import type uPlot from "uplot";
import type { Band } from "@/workers/recording.worker";

/** What is drawn of one channel, and what is known of it. */
interface Shape {
  readonly stretch: Stretch | undefined;
  readonly facts: ChannelFacts | undefined;
}
/**
 * What is expected: of a signal that switches its own shape at the levels expected, in step with the edges measured;
 * else the two levels that it would stay between.
 */
export function drawExpected(
  u: uPlot,
  band: Band | undefined,
  { stretch, facts }: Shape,
  colour: string,
  dash: number[],
): void {
  if (!band) return;
  const isInside = (y: number) => y >= u.bbox.top && y <= u.bbox.top + u.bbox.height;
  const levels = facts?.kind === "switching" ? facts.levels : undefined;
  if (!levels || !stretch) {
    for (const v of new Set([band.low, band.high])) {
      const y = u.valToPos(v, "y", true);
      if (isInside(y))
        line(u, colour, dash, [
          [u.bbox.left, y],
          [u.bbox.left + u.bbox.width, y],
        ]);
    }
    return;
  }
  const half = (levels.low + levels.high) / 2;
  const [low, high] = [u.valToPos(band.low, "y", true), u.valToPos(band.high, "y", true)];
  const points: [number, number][] = [];
  stretch.seconds.forEach((t, i) => {
    const v = stretch.values[i]!;
    if (!Number.isNaN(v)) points.push([u.valToPos(t, "x", true), v > half ? high : low]);
  });
  const left = u.bbox.left;
  const steps = points.flatMap(([x, y], i): [number, number][] =>
    i > 0
      ? [
          [x, points[i - 1]![1]],
          [x, y],
        ]
      : [[x, y]],
  );
  line(
    u,
    colour,
    dash,
    steps.filter(([x]) => x >= left && x <= left + u.bbox.width),
  );
}

/** Further outside what a sound machine shows than this is marked. Judgement; in the unit of the channel. */
const OUTSIDE = 0.3;
/** Where a channel leaves what a sound machine would show: a bar along the upper edge. */
export function drawOutside(u: uPlot, band: Band | undefined, { stretch, facts }: Shape, colour: string): void {
  if (!band || !stretch || facts?.kind === "varying") return;
  const air = OUTSIDE + 0.05 * Math.abs(band.high);
  const { ctx } = u;
  ctx.save();
  ctx.fillStyle = colour;
  stretch.seconds.forEach((t, i) => {
    const v = stretch.values[i]!;
    if (!(v < band.low - air || v > band.high + air)) return;
    const x = u.valToPos(t, "x", true);
    if (x >= u.bbox.left && x <= u.bbox.left + u.bbox.width)
      ctx.fillRect(x - devicePixelRatio, u.bbox.top, 2 * devicePixelRatio, 5 * devicePixelRatio);
  });
  ctx.restore();
}
export function drawMark(u: uPlot, at: number, colour: string): void {
  const x = u.valToPos(at, "x", true);
  if (x < u.bbox.left || x > u.bbox.left + u.bbox.width) return;
  line(
    u,
    colour,
    [],
    [
      [x, u.bbox.top],
      [x, u.bbox.top + u.bbox.height],
    ],
  );
}
function line(u: uPlot, colour: string, dash: number[], points: readonly (readonly [number, number])[]): void {
  const { ctx } = u;
  ctx.save();
  ctx.beginPath();
  ctx.setLineDash(dash.map((d) => d * devicePixelRatio));
  ctx.strokeStyle = colour;
  ctx.lineWidth = devicePixelRatio;
  points.forEach(([x, y], i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
  ctx.stroke();
  ctx.restore();
}
