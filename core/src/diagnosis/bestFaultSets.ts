import type { FaultAtSeverity } from "./faultsAtSeverities.js";

/** Sets kept, and how many are left when there are too many. Judgement: some more than are ever weighed. */
const MOST_SETS = 400;
const LEFT_SETS = 200;
/** Lesser severities of good sets may still come: ln. Judgement. */
const MARGIN = 12;

/** A set of faults, with the severities it came up with and their scores, by fault. */
export interface FaultSet {
  readonly members: readonly number[];
  score: number;
  readonly severities: Map<number, Map<number, number>>;
}

/** The best few sets of faults. */
export class BestFaultSets {
  private readonly found = new Map<string, FaultSet>();
  /** a set below this score need not be added */
  least = -Infinity;

  add(parts: readonly FaultAtSeverity[], score: number): void {
    const name = parts
      .map((p) => p.h)
      .sort((a, b) => a - b)
      .join(" ");
    let set = this.found.get(name);
    if (!set) this.found.set(name, (set = { members: parts.map((p) => p.h), score, severities: new Map() }));
    set.score = Math.max(set.score, score);
    for (const p of parts) {
      const list = set.severities.get(p.h) ?? new Map<number, number>();
      list.set(p.severity, Math.max(list.get(p.severity) ?? -Infinity, score));
      set.severities.set(p.h, list);
    }
    if (this.found.size > MOST_SETS) this.trim();
  }
  best(count: number): FaultSet[] {
    return [...this.found.values()].sort((a, b) => b.score - a.score).slice(0, count);
  }
  private trim(): void {
    const sorted = [...this.found].sort((a, b) => b[1].score - a[1].score);
    for (const [name] of sorted.slice(LEFT_SETS)) this.found.delete(name);
    this.least = sorted[LEFT_SETS - 1]![1].score - MARGIN;
  }
}
