import { undoneEntries } from "./undone.js";
import type { Entry, ReadingEntry, State } from "../format/case.js";
import { stateName } from "../network/state.js";

/** The same place read in the same way more than once: before and after. */
export interface BeforeAfter {
  readonly point: string;
  readonly instrument: ReadingEntry["instrument"];
  readonly state: State;
  readonly before: { readonly number: number; readonly value: number | string };
  readonly after: { readonly number: number; readonly value: number | string };
}
/**
 * Readings that stand, taken twice or more with the same instrument at the same place in the same state: the first
 * beside the last.
 */
export function beforeAfter(entries: readonly Entry[]): BeforeAfter[] {
  const undone = undoneEntries(entries);
  const seen = new Map<
    string,
    { number: number; value: number | string; point: string; instrument: ReadingEntry["instrument"]; state: State }[]
  >();
  entries.forEach((e, i) => {
    if (e.type !== "reading" || undone.has(i + 1)) return;
    e.points.forEach((point, j) => {
      const name = JSON.stringify([point, e.black ?? "", e.instrument, e.part ?? "", stateName(e.state)]);
      seen.set(name, [
        ...(seen.get(name) ?? []),
        { number: i + 1, value: e.values[j]!, point, instrument: e.instrument, state: e.state },
      ]);
    });
  });
  return [...seen.values()]
    .filter((l) => l.length > 1)
    .map((l) => ({
      point: l[0]!.point,
      instrument: l[0]!.instrument,
      state: l[0]!.state,
      before: { number: l[0]!.number, value: l[0]!.value },
      after: { number: l.at(-1)!.number, value: l.at(-1)!.value },
    }));
}
