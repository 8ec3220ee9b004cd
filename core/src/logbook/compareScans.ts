import { isSetCode } from "./fold.js";
import type { ScanEntry, ScannedCode } from "../format/case.js";

export type ScanCell = ScannedCode["status"] | "notGiven" | "notScanned";
/** One code across several scans, and what that says: came back, and when. */
export interface ScanRow {
  readonly module: string;
  readonly code: string;
  readonly title?: string;
  readonly cells: readonly ScanCell[];
  readonly story: "onlyOnce" | "cameBack" | "stayedAway" | "always" | "new";
}

/**
 * Scans side by side: which code was there when, and which came back after clearing. Columns are the scans in order.
 */
export function compareScans(scans: readonly ScanEntry[]): ScanRow[] {
  const rows = new Map<string, { module: string; code: string; title?: string }>();
  for (const s of scans)
    for (const c of s.codes)
      rows.set(`${c.module} ${c.code}`, {
        module: c.module,
        code: c.code,
        ...rows.get(`${c.module} ${c.code}`),
        ...(c.title ? { title: c.title } : {}),
      });
  return [...rows.values()].map((row) => {
    const cells = scans.map(
      (s): ScanCell =>
        s.codes.find((c) => c.module === row.module && c.code === row.code)?.status ??
        (s.modules.includes(row.module) ? "notGiven" : "notScanned"),
    );
    const set = cells.map((c) => c !== "notGiven" && c !== "notScanned" && isSetCode({ status: c }));
    const asked = set.filter((_, i) => cells[i] !== "notScanned");
    const story =
      scans.length < 2 || asked.length < 2
        ? "onlyOnce"
        : asked.every(Boolean)
          ? "always"
          : !asked[0]
            ? "new"
            : asked.at(-1)
              ? "cameBack"
              : "stayedAway";
    return { ...row, cells, story };
  });
}
