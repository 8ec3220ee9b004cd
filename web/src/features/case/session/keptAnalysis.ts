import { ENGINE_VERSION, type Analysis, type Entry } from "@radicula/core";
import { get, set } from "idb-keyval";

/** An analysis with the logbook it is of. It is computed anew all the same; what is kept only spares the wait. */
interface Kept {
  readonly of: string;
  readonly analysis: Analysis;
}
const keyOf = (jobId: string) => `radicula.analysis.${jobId}`;
const nameOf = (entries: readonly Entry[]) => `${ENGINE_VERSION} ${JSON.stringify(entries)}`;

/** The last analysis of a job on this device, where its logbook and the engine are still the same. */
export async function keptAnalysis(jobId: string, entries: readonly Entry[]): Promise<Analysis | undefined> {
  try {
    const kept = await get<Kept>(keyOf(jobId));
    return kept?.of === nameOf(entries) ? kept.analysis : undefined;
  } catch {
    return undefined; // no storage on this device: nothing is spared
  }
}
export async function keepAnalysis(jobId: string, entries: readonly Entry[], analysis: Analysis): Promise<void> {
  try {
    await set(keyOf(jobId), { of: nameOf(entries), analysis } satisfies Kept);
  } catch {
    /* full or forbidden: the next visit computes */
  }
}
