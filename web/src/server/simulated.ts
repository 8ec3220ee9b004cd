import {
  findFault,
  faultsAfterWork,
  fold,
  generateFaults,
  middleSeverity,
  SimulatedMachine,
  undoneEntries,
  type Fault,
  type FaultAt,
  type Folded,
} from "@radicula/core";
import { entriesAfter } from "./repo/entries";
import { findJob, hiddenOf, JobId, type Hidden, type Job } from "./repo/jobs";

/**
 * The simulated machine of a practice job, with what the logbook has made of it. The hidden faults leave the
 * server only once the job is closed.
 */
export interface Simulated {
  readonly job: Job;
  readonly hidden: Hidden;
  readonly logged: number;
  readonly folded: Folded;
  readonly faults: readonly FaultAt[];
  /** those that the repairs of the logbook left */
  readonly left: readonly FaultAt[];
  /** the places where something is wrong */
  readonly isWrong: (place: string) => boolean;
  /** @param there whether what comes and goes is there now */
  readonly machine: (there: boolean) => SimulatedMachine;
}

/** What is hidden in a practice job, as faults of its wiring. */
export const faultsHidden = (all: readonly Fault[], hidden: Hidden): FaultAt[] =>
  [hidden, ...(hidden.also ?? [])].flatMap(({ fault, ohm }) => {
    const found = findFault(all, fault);
    return found ? [{ fault: found.fault, severity: ohm ?? middleSeverity(found.fault) }] : [];
  });

export async function simulatedOf(id: string): Promise<Simulated | undefined> {
  const known = JobId.safeParse(id);
  if (!known.success) return undefined;
  const [job, hidden] = await Promise.all([findJob(known.data), hiddenOf(known.data)]);
  if (!job || !hidden) return undefined;
  const all = generateFaults(job.wiring);
  const entries = await entriesAfter(job.id, 0);
  const undone = undoneEntries(entries);
  const faults = faultsHidden(all, hidden);
  // until its readings are moved to where they were really taken
  const mistaken =
    hidden.mistaken &&
    !entries.some((e, i) => !undone.has(i + 1) && e.type === "moved" && e.from === hidden.mistaken?.from)
      ? hidden.mistaken
      : undefined;
  const folded = fold(entries);
  const left = faultsAfterWork(
    job.wiring,
    faults,
    folded.repairs.map((r) => r.entry),
    hidden.seed,
    all,
  );
  return {
    job,
    hidden,
    logged: entries.length,
    folded,
    faults,
    left,
    isWrong: (place) =>
      left.some(
        ({ fault }) => fault.place.id === place || fault.at === place || fault.place.id.startsWith(`${place}:`),
      ),
    machine: (there) => new SimulatedMachine(job.wiring, there ? left : [], hidden.seed, mistaken ? { mistaken } : {}),
  };
}
