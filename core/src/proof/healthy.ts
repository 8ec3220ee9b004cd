import type { Wiring } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import { Focus } from "../prediction/focus.js";

/** What a sound machine shows at the last point of each reading, V, Ω or A; none where that is no figure. */
export function healthyReadings(wiring: Wiring, { readings }: Pick<Folded, "readings">): ReadonlyMap<number, number> {
  const found = new Map<number, number>();
  const predictor = new Focus(wiring).predictor(readings.map((r) => r.entry));
  for (const { number, entry } of readings) {
    const { instrument, state, black } = entry;
    const point = entry.points.at(-1)!;
    if (entry.part !== undefined || predictor.placeOf(instrument, point) === undefined) continue;
    const value = predictor.predictAt(0, { instrument, point, state, black }).at(0);
    if (!Number.isNaN(value)) found.set(number, value);
  }
  return found;
}
