import type { Entry, Folded, FrozenProof, Wiring, WorkshopSettings } from "../../src/index.js";

/** What a report is made of. */
export interface ReportSource {
  readonly title: string;
  readonly machine?: string | undefined;
  readonly complaint?: string | undefined;
  readonly wiring: Wiring;
  readonly entries: readonly Entry[];
  readonly settings: WorkshopSettings;
  readonly facts: ReportFacts;
}
/** What is known of a job, as far as a report says it. */
export interface ReportFacts {
  readonly folded: Folded;
  /** what a sound machine shows, by the number of the reading */
  readonly healthy: ReadonlyMap<number, number>;
  readonly proof: FrozenProof | undefined;
  /** what leads where there is no verdict yet */
  readonly likeliest: string | undefined;
}
