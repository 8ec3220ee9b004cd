import { undoneEntries } from "./undone.js";
import type { Entry, ReadingEntry, State } from "../format/case.js";
import { stateName } from "../network/state.js";
import { traceReadings } from "./traceReadings.js";

type Value = ReadingEntry["values"][number];
interface Seen {
  readonly number: number;
  readonly value: Value;
}
/** The same place read in the same way more than once: before and after. */
export interface BeforeAfter {
  readonly point: string;
  readonly instrument: ReadingEntry["instrument"];
  /** unit of a scan value; volts where undefined */
  readonly unit: ReadingEntry["unit"];
  readonly state: State;
  readonly before: Seen;
  readonly after: Seen;
}
/**
 * Readings that stand, taken twice or more with the same instrument at the same place in the same state: the first
 * beside the last.
 * @param repair number of a repair: then only places read on both sides of it, the last value before it beside the last
 * after
 */
export function beforeAfter(entries: readonly Entry[], repair?: number): BeforeAfter[] {
  const undone = undoneEntries(entries);
  const seen = new Map<string, (Pick<BeforeAfter, "point" | "instrument" | "unit" | "state"> & Seen)[]>();
  entries.forEach((e, i) => {
    if (undone.has(i + 1)) return;
    const readings = e.type === "reading" ? [e] : e.type === "trace" ? traceReadings(e) : [];
    for (const { points, values, black, instrument, part, unit, state } of readings)
      points.forEach((point, j) => {
        const name = JSON.stringify([point, black ?? "", instrument, part ?? "", unit ?? "", stateName(state)]);
        const value = values[j]!;
        seen.set(name, [...(seen.get(name) ?? []), { number: i + 1, value, point, instrument, unit, state }]);
      });
  });
  return [...seen.values()].flatMap((l) => {
    const last = l.at(-1)!;
    const first = repair === undefined ? l[0]! : l.filter((r) => r.number < repair).at(-1);
    if (!first || first === last || (repair !== undefined && last.number < repair)) return [];
    return [
      {
        point: first.point,
        instrument: first.instrument,
        unit: first.unit,
        state: first.state,
        before: { number: first.number, value: first.value },
        after: { number: last.number, value: last.value },
      },
    ];
  });
}
