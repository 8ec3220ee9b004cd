import { healthyReadings, type BeforeAfter, type Folded, type Instrument, type Wiring } from "@radicula/core";

/** One place, in the instrument's own unit. */
export interface PairRow {
  readonly name: string;
  readonly healthy: number | undefined;
  readonly before: number;
  readonly after: number;
}
/** Places read with one instrument in one unit: they share a scale. */
export interface PairChart {
  readonly instrument: Instrument;
  readonly unit: BeforeAfter["unit"];
  readonly rows: readonly PairRow[];
}

/** Places that one chart can hold and still be read. */
const MOST = 8;

/**
 * What can be drawn of readings taken before and after a repair: figures only, one chart for each instrument and unit.
 * Where the value changed most comes first.
 * @param healthy what a sound machine shows, by place in the list of pairs
 */
export function pairCharts(
  pairs: readonly BeforeAfter[],
  healthy: ReadonlyMap<number, number>,
  nameOf: (pair: BeforeAfter) => string,
): PairChart[] {
  const charts = new Map<string, { of: BeforeAfter; rows: PairRow[] }>();
  for (const [i, pair] of pairs.entries()) {
    const [before, after] = [pair.before.value, pair.after.value];
    if (typeof before !== "number" || typeof after !== "number") continue;
    const row = { name: nameOf(pair), healthy: healthy.get(i), before, after };
    const name = `${pair.instrument} ${pair.unit ?? ""}`;
    charts.set(name, { of: pair, rows: [...(charts.get(name)?.rows ?? []), row] });
  }
  const changed = (r: PairRow) => Math.abs(r.after - r.before);
  return [...charts.values()].map(({ of: { instrument, unit }, rows }) => ({
    instrument,
    unit,
    rows: [...rows].sort((a, b) => changed(b) - changed(a)).slice(0, MOST),
  }));
}

/** What a sound machine shows where each pair was read, by place in the list; none for a scan value in a unit. */
export function healthyOf(
  wiring: Wiring,
  pairs: readonly BeforeAfter[],
  readings: Folded["readings"],
): ReadonlyMap<number, number> {
  const single = pairs.flatMap((p, number) => {
    const entry = readings.find((r) => r.number === p.after.number)?.entry;
    return entry && p.unit === undefined ? [{ number, entry: { ...entry, points: [p.point] } }] : [];
  });
  return healthyReadings(wiring, { readings: single });
}
