import type { Entry } from "../format/case.js";

/** Which entries are taken back: by an undo, or a correction, that itself stands. */
export function undoneEntries(entries: readonly Entry[]): ReadonlySet<number> {
  const undone = new Set<number>();
  for (let i = entries.length - 1; i >= 0; i--) {
    const e = entries[i]!;
    if (undone.has(i + 1)) continue;
    if (e.type === "undo") undone.add(e.target);
    if (e.type === "reading" && e.corrects !== undefined) undone.add(e.corrects);
  }
  return undone;
}
