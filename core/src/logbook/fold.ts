import type { CodeEntry, Entry, ReadingEntry, State, VerdictEntry } from "../format/case.js";

export interface Numbered<T> { readonly number: number; readonly entry: T }

/** What the logbook adds up to. Numbers count entries from 1. */
export interface Folded {
  /** entries taken back by an undo that itself stands */
  readonly undone: ReadonlySet<number>;
  /** the last word on each code of each module */
  readonly codes: readonly (Numbered<CodeEntry> & { readonly unpluggedThen: readonly string[] })[];
  readonly readings: readonly Numbered<ReadingEntry>[];
  /** the machine now */
  readonly state: State;
  /** everything unplugged and not yet back: must be empty before the job closes */
  readonly disturbed: readonly string[];
  readonly setAside: ReadonlySet<string>;
  readonly verdict?: Numbered<VerdictEntry>;
}

/** Which entries stand: an undo counts unless it is itself undone by a later undo that stands. */
export function undoneEntries(entries: readonly Entry[]): ReadonlySet<number> {
  const undone = new Set<number>();
  for (let i = entries.length - 1; i >= 0; i--) {
    const e = entries[i]!;
    if (e.type === "undo" && !undone.has(i + 1)) undone.add(e.target);
  }
  return undone;
}

/** Adds a logbook up: wiring plus this is the whole case. */
export function fold(entries: readonly Entry[]): Folded {
  const undone = undoneEntries(entries);
  const codes = new Map<string, Folded["codes"][number]>();
  const readings: Numbered<ReadingEntry>[] = [];
  const unplugged = new Set<string>();
  const everUnplugged = new Set<string>();
  const setAside = new Set<string>();
  let key: State["key"] = "on";
  let verdict: Numbered<VerdictEntry> | undefined;
  entries.forEach((entry, i) => {
    const number = i + 1;
    if (undone.has(number)) return;
    switch (entry.type) {
      case "code": codes.set(`${entry.module} ${entry.code}`, { number, entry, unpluggedThen: [...everUnplugged] }); break;
      case "reading":
        readings.push({ number, entry });
        key = entry.state.key;
        for (const c of entry.state.unplugged) everUnplugged.add(c);
        unplugged.clear();
        for (const c of entry.state.unplugged) unplugged.add(c);
        break;
      case "unplugged": unplugged.add(entry.connector); everUnplugged.add(entry.connector); break;
      case "plugged": unplugged.delete(entry.connector); break;
      case "setAside": setAside.add(entry.candidate); break;
      case "verdict": verdict = { number, entry }; break;
      case "undo": break;
    }
  });
  const now = [...unplugged].sort();
  return { undone, codes: [...codes.values()], readings, state: { key, unplugged: now }, disturbed: now, setAside, ...(verdict ? { verdict } : {}) };
}
