import { DEFAULTS } from "../defaults.js";
import type { Instrument, ReadingEntry } from "../format/case.js";
import type { Numbered } from "../logbook/fold.js";
import { connectorOf } from "../wiring/points.js";

/**
 * How surely what comes and goes would have shown itself in a value that stood still while it was watched. Values
 * watched at once share that luck: what one of them shows was there for the others, and what none shows was missed by
 * all of them together.
 */
export function caughtIn(
  { number, entry }: Numbered<ReadingEntry>,
  readings: readonly Numbered<ReadingEntry>[],
): { caught?: number } {
  if (entry.watched === undefined || flickers(entry)) return {};
  // channels of one recording are one entry; values typed one after the other on one plug have one date
  const at = connectorOf(entry.points[0]!);
  const together = readings.filter(
    (r) =>
      r.entry.watched !== undefined &&
      (r.number === number || (r.entry.at === entry.at && connectorOf(r.entry.points[0]!) === at)),
  );
  if (together.some((r) => flickers(r.entry))) return { caught: SHOWN_TOO };
  return { caught: 1 - (1 - DEFAULTS.intermittent.caught[entry.watched]) ** (1 / together.length) };
}
/** It was there: another value watched at the same time showed it. Judgement: samples and slips are left. */
const SHOWN_TOO = 0.98;

/**
 * A swing wider than `DEFAULTS.reading.flickerVolt`, or than this factor between the ends where ohms and amperes are
 * read, is no unsteady hand. A scope's swing is its value.
 */
const FLICKER_FACTOR = 1.5;
const SHOWS_VOLTS: ReadonlySet<Instrument> = new Set<Instrument>(["voltmeter", "scanTool"]);
const SHOWS_SIZES: ReadonlySet<Instrument> = new Set<Instrument>(["ohmmeter", "clamp"]);
/** Sizes below this (ohm, ampere) flicker by themselves. */
const FLICKER_FLOOR = 0.3;
export const flickers = ({ instrument, swing }: ReadingEntry) =>
  swing !== undefined &&
  (SHOWS_VOLTS.has(instrument)
    ? swing[1] - swing[0] > DEFAULTS.reading.flickerVolt
    : SHOWS_SIZES.has(instrument) &&
      Math.abs(swing[1]) + FLICKER_FLOOR > FLICKER_FACTOR * (Math.abs(swing[0]) + FLICKER_FLOOR));
