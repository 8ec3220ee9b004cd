import prand from "pure-rand";
import { evenChannel, type Channel } from "../../src/traces/recording.js";

/** A normal random number source that gives the same numbers for the same seed (Box and Muller 1958). */
export function normal(seed: number): () => number {
  const random = prand.xoroshiro128plus(seed);
  const uniform = () => (prand.unsafeUniformIntDistribution(0, 0x7fffffff, random) + 0.5) / 0x80000000;
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
}

/** A signal written by formula. @param f volts at a moment @param noise σ, volt */
export function signal(
  f: (seconds: number) => number,
  { seconds, perSecond, noise = 0, seed = 1 }: { seconds: number; perSecond: number; noise?: number; seed?: number },
): Channel {
  const gauss = normal(seed);
  const n = Math.round(seconds * perSecond);
  return evenChannel(
    "A",
    "V",
    0,
    1 / perSecond,
    Float32Array.from({ length: n }, (_, i) => f(i / perSecond) + (noise ? noise * gauss() : 0)),
  );
}

/** A square wave of exact edges. */
export const square =
  (low: number, high: number, hertz: number, duty: number) =>
  (t: number): number =>
    (t * hertz) % 1 < duty ? high : low;
