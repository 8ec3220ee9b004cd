import type { Spot } from "@radicula/core";
import FlatQueue from "flatqueue";
import simplify from "simplify-js";
import type { Pixels } from "./straighten";

/** Paper and ink differ by at least so much, of 255: else there is no ink. Judgement. */
const CONTRAST = 60;
/** What is darker than paper by this share of the whole contrast is ink: thin lines turn grey. Judgement. */
const DARKER = 0.35;
/** A step off the ink costs as much as so many on it: a gap is bridged, a way across paper is not taken. Judgement. */
const OFF_INK = 15;
/** Share of a way that has to lie on ink. Judgement: a crease or a label may break a line. */
const LEAST_ON_INK = 0.85;
/** Ink leads round so many times the straight way at most. Judgement. */
const MOST_ROUND = 5;
/** How far a line drawn through few points may lie beside the ink, points of the picture. Judgement. */
const TOLERANCE = 2;

/** A turn by 45 degrees costs as much as so many steps. Judgement. */
const TURN = 2;

/** The eight directions, each 45 degrees on from the one before. */
const STEPS = Array.from({ length: 8 }, (_, i) => {
  const [dx, dy] = [Math.round(Math.cos((i * Math.PI) / 4)), Math.round(Math.sin((i * Math.PI) / 4))];
  return { dx, dy, length: Math.hypot(dx, dy) };
});

/**
 * The way along ink from one place of a picture to another: the shortest one, in which paper counts many times and a
 * turn some steps.
 * (A*: Hart, Nilsson and Raphael 1968.)
 * @param from and `to`: in points of the picture
 * @returns the corners of the way, both places among them; undefined where no line of ink leads there
 */
export function inkPath(pixels: Pixels, from: Spot, to: Spot): Spot[] | undefined {
  const { width, height } = pixels;
  const isInk = inkOf(pixels);
  const cell = ([x, y]: Spot) =>
    Math.max(0, Math.min(height - 1, Math.floor(y))) * width + Math.max(0, Math.min(width - 1, Math.floor(x)));
  const [start, end] = [cell(from), cell(to)];
  if (!isInk || start === end) return undefined;
  const most = MOST_ROUND * Math.hypot(to[0] - from[0], to[1] - from[1]) + OFF_INK;
  const cells = cheapest(isInk, width, start, end, most);
  if (!cells) return undefined;
  if (cells.filter((c) => isInk[c]).length < LEAST_ON_INK * cells.length) return undefined;
  const way = cells.reverse().map((c): Spot => [(c % width) + 0.5, Math.floor(c / width) + 0.5]);
  return fewer([from, ...way.slice(1, -1), to]);
}

/** 1 where there is ink; undefined where paper and ink do not differ. */
function inkOf({ data, width, height }: Pixels): Uint8Array | undefined {
  const light = new Uint8Array(width * height);
  const count = new Uint32Array(256);
  for (let i = 0; i < light.length; i++) {
    light[i] = 0.3 * data[4 * i]! + 0.59 * data[4 * i + 1]! + 0.11 * data[4 * i + 2]!;
    count[light[i]!]!++;
  }
  // most of a drawing is paper
  const paper = quantile(count, 0.7, light.length);
  const darkest = quantile(count, 0.001, light.length);
  if (paper - darkest < CONTRAST) return undefined;
  const edge = paper - DARKER * (paper - darkest);
  return light.map((l) => (l < edge ? 1 : 0));
}
function quantile(count: Uint32Array, share: number, all: number): number {
  let sum = 0;
  for (let l = 0; l < count.length; l++) if ((sum += count[l]!) > share * all) return l;
  return count.length - 1;
}

/**
 * The cells of the cheapest way, the last first; undefined where it costs more than `most`. A cell reached in another
 * direction is another state: where lines cross, the way goes straight on, all else being equal.
 */
function cheapest(isInk: Uint8Array, width: number, start: number, end: number, most: number): number[] | undefined {
  const cost = new Float32Array(isInk.length * STEPS.length).fill(Infinity);
  const came = new Int32Array(cost.length).fill(-1);
  const closed = new Uint8Array(cost.length);
  const queue = new FlatQueue<number>();
  const [endX, endY] = [end % width, Math.floor(end / width)];
  /** no way from a cell can be cheaper than the straight one, all on ink */
  const left = (at: number) => Math.hypot((at % width) - endX, Math.floor(at / width) - endY);
  for (let d = 0; d < STEPS.length; d++) {
    cost[start * STEPS.length + d] = 0;
    queue.push(start * STEPS.length + d, left(start));
  }
  for (;;) {
    const due = queue.peekValue();
    const state = queue.pop();
    if (state === undefined || due === undefined || due > most) return undefined;
    const at = Math.floor(state / STEPS.length);
    const spent = cost[state]!;
    if (closed[state]) continue;
    closed[state] = 1;
    if (at === end) return back(came, state);
    const x = at % width;
    for (let turn = -2; turn <= 2; turn++) {
      const d = ((state % STEPS.length) + turn + STEPS.length) % STEPS.length;
      const { dx, dy, length } = STEPS[d]!;
      const next = at + dy * width + dx;
      if (x + dx < 0 || x + dx >= width || next < 0 || next >= isInk.length) continue;
      const sum = Math.fround(spent + length * (isInk[next] ? 1 : OFF_INK) + Math.abs(turn) * TURN);
      const to = next * STEPS.length + d;
      if (sum >= cost[to]!) continue;
      cost[to] = sum;
      came[to] = state;
      queue.push(to, sum + left(next));
    }
  }
}
function back(came: Int32Array, last: number): number[] {
  const cells: number[] = [];
  for (let state = last; state >= 0; state = came[state]!) cells.push(Math.floor(state / STEPS.length));
  return cells;
}

/** A line through fewer points that lies near all of them (Douglas and Peucker 1973). */
const fewer = (way: readonly Spot[]): Spot[] =>
  simplify(
    way.map(([x, y]) => ({ x, y })),
    TOLERANCE,
    true,
  ).map(({ x, y }): Spot => [x, y]);
