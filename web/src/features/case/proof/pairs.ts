import type { BeforeAfter, Instrument } from "@radicula/core";

/** One place, in the instrument's own unit. */
export interface PairRow {
  readonly name: string;
  readonly healthy: number | undefined;
  readonly before: number;
  readonly after: number;
}
/** Places read with one instrument: they share a scale. */
export interface PairChart {
  readonly instrument: Instrument;
  readonly rows: readonly PairRow[];
}

/** Places that one chart can hold and still be read. */
const MOST = 8;

/**
 * What can be drawn of readings taken before and after a repair: figures only, one chart for each instrument.
 * Where the value changed most comes first.
 * @param healthy what a sound machine shows, by the number of the later reading
 */
export function pairCharts(
  pairs: readonly BeforeAfter[],
  healthy: ReadonlyMap<number, number>,
  nameOf: (pair: BeforeAfter) => string,
): PairChart[] {
  const by = new Map<Instrument, PairRow[]>();
  for (const pair of pairs) {
    const [before, after] = [pair.before.value, pair.after.value];
    if (typeof before !== "number" || typeof after !== "number") continue;
    const row = { name: nameOf(pair), healthy: healthy.get(pair.after.number), before, after };
    by.set(pair.instrument, [...(by.get(pair.instrument) ?? []), row]);
  }
  const changed = (r: PairRow) => Math.abs(r.after - r.before);
  return [...by].map(([instrument, rows]) => ({
    instrument,
    rows: [...rows].sort((a, b) => changed(b) - changed(a)).slice(0, MOST),
  }));
}
