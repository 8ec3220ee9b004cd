import type { Entry } from "../format/case.js";

/** An entry with every entry number it speaks of (an undo, a correction, readings moved) given by `number`. */
export function renumbered(e: Entry, number: (old: number) => number): Entry {
  if (e.type === "undo") return { ...e, target: number(e.target) };
  if (e.type === "moved") return { ...e, readings: e.readings.map(number) };
  if (e.type === "reading" && e.corrects !== undefined) return { ...e, corrects: number(e.corrects) };
  return e;
}

/**
 * Entries that others wrote meanwhile come first, ours after them: what ours say of each other by number keeps meaning
 * the same entries.
 * @param at how many entries stand before ours
 * @param count how many came in between
 */
export const placedAfter = (ours: readonly Entry[], at: number, count: number): Entry[] =>
  ours.map((e) => renumbered(e, (n) => (n > at ? n + count : n)));

/** Whether an entry speaks of one of those numbered above `after`, up to `last`. */
export function speaksOf(e: Entry, after: number, last: number): boolean {
  let found = false;
  renumbered(e, (n) => {
    found ||= n > after && n <= last;
    return n;
  });
  return found;
}
