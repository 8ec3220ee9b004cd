import { ENGINE_VERSION, type Entry, type WholeAnswer } from "@radicula/core";
import { get, set } from "idb-keyval";

/** An answer with the logbook it is of. It is computed anew all the same; what is kept only spares the wait. */
interface Kept extends WholeAnswer {
  readonly of: string;
}
const keyOf = (jobId: string) => `radicula.analysis.${jobId}`;
/** Counts the shapes in which answers were kept. */
const SHAPE = 2;
const nameOf = (entries: readonly Entry[]) => `${SHAPE} ${ENGINE_VERSION} ${JSON.stringify(entries)}`;

/** The last answer of a job on this device, where its logbook and the engine are still the same. */
export async function keptAnalysis(jobId: string, entries: readonly Entry[]): Promise<WholeAnswer | undefined> {
  try {
    const kept = await get<Kept>(keyOf(jobId));
    return kept?.of === nameOf(entries) ? { analysis: kept.analysis, offers: kept.offers } : undefined;
  } catch {
    return undefined; // no storage on this device: nothing is spared
  }
}
export async function keepAnalysis(
  jobId: string,
  entries: readonly Entry[],
  { analysis, offers }: WholeAnswer,
): Promise<void> {
  try {
    await set(keyOf(jobId), { of: nameOf(entries), analysis, offers } satisfies Kept);
  } catch {
    /* full or forbidden: the next visit computes */
  }
}
