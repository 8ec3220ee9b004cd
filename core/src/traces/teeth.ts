import { median } from "./numbers.js";
import type { Edge } from "./edges.js";

/** A place where a pulse is missing, or one too many. */
export interface ToothFault {
  readonly at: number;
  readonly kind: "missing" | "extra";
  /** how many */
  readonly count: number;
}
/** A target wheel as its pulses tell it. */
export interface Teeth {
  /** a gap that comes back after the same number of teeth every time: made so */
  readonly gap: { readonly teeth: number; readonly missing: number } | undefined;
  /** beside that gap pulses are missing at the same place of every turn: a tooth is broken off */
  readonly returns: boolean;
  readonly faults: readonly ToothFault[];
}

/** Neighbours on either side by which a period is judged. Judgement. */
const AROUND = 4;
/** A period this many times its neighbours' holds a missing tooth; one this much shorter an extra one. Judgement. */
const LONG = 1.55;
const SHORT = 0.65;
/** A gap comes back this often before it is taken to be made so; this share of its distances is alike. Judgement. */
const TURNS = 3;
const ALIKE = 0.8;

/**
 * Missing and extra pulses among evenly spaced ones, each period judged by those around it, so that a changing speed is
 * no fault. A gap that comes back at the same count is part of the target.
 */
export function teethOf(edges: readonly Edge[]): Teeth {
  const rising = edges.filter((e) => e.rises).map((e) => e.at);
  const periods = rising.slice(1).map((t, i) => t - rising[i]!);
  const found: (ToothFault & { readonly place: number })[] = [];
  for (let i = 0; i < periods.length; i++) {
    const around = [...periods.slice(Math.max(0, i - AROUND), i), ...periods.slice(i + 1, i + 1 + AROUND)];
    if (around.length < 3) continue;
    const usual = median(around);
    const ratio = periods[i]! / usual;
    if (ratio > LONG) found.push({ at: rising[i]! + usual, kind: "missing", count: Math.round(ratio) - 1, place: i });
    else if (ratio < SHORT && (periods[i + 1] ?? usual) / usual + ratio < LONG) {
      found.push({ at: rising[i + 1]!, kind: "extra", count: 1, place: i });
      i++; // the rest of the same tooth
    }
  }
  const missing = found.filter((f) => f.kind === "missing");
  const gap = regularGap(missing);
  if (!gap) return { gap, returns: false, faults: found };
  return {
    gap: { teeth: teethBetween(gap.places, found), missing: gap.missing },
    returns: regularGap(missing.filter((f) => !gap.places.has(f.place))) !== undefined,
    faults: found.filter((f) => f.kind === "extra" || f.count !== gap.missing || !gap.places.has(f.place)),
  };
}

/** A gap of the same size that comes back at the same distance. */
function regularGap(missing: readonly (ToothFault & { readonly place: number })[]) {
  for (const size of [...new Set(missing.map((f) => f.count))].sort((a, b) => b - a)) {
    const own = missing.filter((f) => f.count === size);
    if (own.length < TURNS) continue;
    const distances = own.slice(1).map((f, i) => f.place - own[i]!.place);
    const usual = median([...distances]);
    const alike = distances.filter((d) => Math.abs(d - usual) <= 1).length;
    if (distances.length < TURNS - 1 || alike < ALIKE * distances.length) continue;
    const places = new Set(
      own.filter((f, i) => near(own[i + 1], f, usual) || near(f, own[i - 1], usual)).map((f) => f.place),
    );
    return { missing: size, places };
  }
  return undefined;
}
/** Teeth from one gap to the next: the pulses between them, those that are missing among them, too. */
function teethBetween(gaps: ReadonlySet<number>, found: readonly (ToothFault & { readonly place: number })[]): number {
  const places = [...gaps];
  return median(
    places.slice(1).map((end, i) => {
      const between = found.filter((f) => f.place > places[i]! && f.place < end);
      const lost = between.reduce((sum, f) => sum + (f.kind === "missing" ? f.count : -f.count), 0);
      return end - places[i]! + lost;
    }),
  );
}
const near = (after: { place: number } | undefined, before: { place: number } | undefined, usual: number) =>
  after !== undefined && before !== undefined && Math.abs(after.place - before.place - usual) <= 1;

/** Rising edges of one channel between each two of another, as of teeth in a turn. */
export function pulsesPerTurn(edges: readonly Edge[], turns: readonly Edge[]): number[] {
  const marks = turns.filter((e) => e.rises).map((e) => e.at);
  const rising = edges.filter((e) => e.rises).map((e) => e.at);
  let from = 0;
  return marks.slice(1).map((end, i) => {
    while (from < rising.length && rising[from]! < marks[i]!) from++;
    let to = from;
    while (to < rising.length && rising[to]! < end) to++;
    return to - from;
  });
}
