import { median } from "../traces/numbers.js";
/** One value seen while a place was moved; place "" while nothing was. */
export interface WiggleSample {
  readonly place: string;
  readonly value: number;
}
/**
 * What moving one place did: how many values jumped, of how many, and the chance that still hands would show as many.
 */
export interface WiggleVerdict {
  readonly place: string;
  readonly jumps: number;
  readonly of: number;
  readonly chance: number;
  readonly reacted: boolean;
}

/**
 * A value this far from where it stood is a jump: in spreads of the still value, and at least so many volts (or units
 * of the value).
 */
const JUMP_SPREADS = 6;
const JUMP_LEAST = 0.08;
/** A place is only named where chance alone would do so less often than this over all places. */
const LUCK = 0.05;

/**
 * Which place reacts while a value is watched. A jump is a value far from the still level around it (a slow drift is
 * none); jumps while one place is moved are held against all others by Fisher's exact test, one-sided, with the limit
 * divided by the number of places (Fisher 1935; Bonferroni).
 */
export function wiggleVerdict(samples: readonly WiggleSample[], floor = JUMP_LEAST): WiggleVerdict[] {
  const places = [...new Set(samples.map((s) => s.place))].filter((p) => p !== "");
  const jumped = jumps(samples, floor);
  const total = samples.length;
  const all = jumped.reduce((n, j) => n + Number(j), 0);
  return places.map((place) => {
    let k = 0;
    let n = 0;
    samples.forEach((s, i) => {
      if (s.place === place) {
        n++;
        if (jumped[i]) k++;
      }
    });
    // jumps at other reacting places are no still hands: this place is held against what did not move, and the calmer
    // half of the rest
    const rest = restOf(samples, jumped, place, places);
    const chance = k === 0 ? 1 : fisherAtLeast(k, n, k + rest.jumps, n + rest.of);
    return {
      place,
      jumps: k,
      of: n,
      chance: Math.min(1, chance),
      reacted: total > 0 && all > 0 && chance < LUCK / Math.max(1, places.length),
    };
  });
}
function restOf(
  samples: readonly WiggleSample[],
  jumped: readonly boolean[],
  place: string,
  places: readonly string[],
): { jumps: number; of: number } {
  const count = (p: string) => {
    let k = 0;
    let n = 0;
    samples.forEach((s, i) => {
      if (s.place === p) {
        n++;
        if (jumped[i]) k++;
      }
    });
    return { jumps: k, of: n };
  };
  const still = count("");
  const others = places
    .filter((p) => p !== place)
    .map(count)
    .sort((a, b) => a.jumps / Math.max(1, a.of) - b.jumps / Math.max(1, b.of));
  const calm = others.slice(0, Math.ceil(others.length / 2));
  return [still, ...calm].reduce((sum, x) => ({ jumps: sum.jumps + x.jumps, of: sum.of + x.of }), { jumps: 0, of: 0 });
}

/**
 * Which values are far from the level around them: the median of the still values near in time, or of all where none is
 * still.
 */
function jumps(samples: readonly WiggleSample[], floor: number): boolean[] {
  const still = samples.some((s) => s.place === "")
    ? samples.map((s, i) => ({ v: s.value, i })).filter(({ i }) => samples[i]!.place === "")
    : samples.map((s, i) => ({ v: s.value, i }));
  const levelAt = (i: number) =>
    median(
      [...still]
        .sort((a, b) => Math.abs(a.i - i) - Math.abs(b.i - i))
        .slice(0, 15)
        .map((x) => x.v),
    );
  const off = samples.map((s, i) => Math.abs(s.value - levelAt(i)));
  const spread = 1.4826 * median(still.map(({ i }) => off[i]!));
  return off.map((d) => !(d <= Math.max(floor, JUMP_SPREADS * spread)));
}
/** Probability of at least k marked among n drawn from `of` things with `marked` marked (hypergeometric tail). */
export function fisherAtLeast(k: number, n: number, marked: number, of: number): number {
  const ln: number[] = [0];
  for (let i = 1; i <= of; i++) ln.push(ln[i - 1]! + Math.log(i));
  const choose = (a: number, b: number) => (b < 0 || b > a ? -Infinity : ln[a]! - ln[b]! - ln[a - b]!);
  let p = 0;
  for (let j = k; j <= Math.min(n, marked); j++)
    p += Math.exp(choose(marked, j) + choose(of - marked, n - j) - choose(of, n));
  return p;
}
