import { loadavg, availableParallelism } from "node:os";
import {
  fold,
  toldCodes,
  withScannedCodes,
  type Entry,
  type KeptKeys,
  type WholeAnswer,
  type Wiring,
} from "@radicula/core";
import { mapOf } from "@/features/case/map/query";
import { database } from "./db/connection";
import { layOutInPool } from "./layOutPool";
import { entriesAfter } from "./repo/entries";
import { wiringByJob } from "./repo/jobWirings";
import { findStanding, keepStanding, withoutStanding } from "./repo/standingAnswers";
import { findWorkedOut, keepWorkedOut } from "./repo/workedOut";
import { threadsOf } from "./threads";

/** A job is left alone while somebody is at it: the device in hand answers by itself. Judgement, ms. */
const QUIET_MS = 60_000;
/** A wiring is left alone while somebody draws it. Judgement, ms. */
const DRAWN_MS = 10_000;
/** So many jobs are gone through as a server starts: those on the first page of a board. Judgement. */
const MOST_AT_START = 40;
/** An answer that takes longer than this is left to whoever opens the job, ms. */
const LONGEST_MS = 120_000;
const THREAD = "workOut.mjs";

interface Waiting {
  readonly due: Map<string, ReturnType<typeof setTimeout>>;
  /** one at a time */
  last: Promise<void>;
}
const shared = globalThis as typeof globalThis & { radiculaAhead?: Waiting };
/** One list for the process, also across the server's separate bundles. */
const waiting = (shared.radiculaAhead ??= { due: new Map(), last: Promise.resolve() });

/** A job has new entries: once it is quiet, its answer is worked out, for the next device that opens it. */
export function answerWhenQuiet(id: string): void {
  whenQuiet(id, QUIET_MS, () => workOut(id));
}
/**
 * A wiring of the library was changed: once it is quiet, what its faults would show is worked out, for the first job on
 * such a machine.
 * @param wiring as it is by then; undefined where it is gone
 */
export function predictWhenQuiet(id: string, wiring: () => Promise<Wiring | undefined>): void {
  whenQuiet(id, DRAWN_MS, async () => {
    const found = await wiring();
    if (found) await predictFor(found);
  });
}
function whenQuiet(id: string, quiet: number, work: () => Promise<void>): void {
  clearTimeout(waiting.due.get(id));
  const timer = setTimeout(() => {
    waiting.due.delete(id);
    if (loadavg()[0]! > availableParallelism()) whenQuiet(id, quiet, work);
    else enqueue(work);
  }, quiet);
  timer.unref();
  waiting.due.set(id, timer);
}

/** Works out what is missing on the board, one after the other. */
export async function answerAllMissing(): Promise<void> {
  for (const id of await withoutStanding(MOST_AT_START)) enqueue(() => workOut(id));
}

function enqueue(work: () => Promise<void>): void {
  waiting.last = waiting.last.then(work).catch((error: unknown) => console.error(error));
}

interface Logbook {
  readonly wiring: Wiring;
  readonly entries: readonly Entry[];
}
type Task = Logbook & { readonly kept: Readonly<Record<string, Uint8Array>> };
interface Found {
  readonly answer: WholeAnswer;
  readonly found: Readonly<Record<string, Uint8Array>>;
}

/**
 * Works out the answer to a job's logbook in a thread of its own, where none stands, and keeps it; also what was
 * predicted for it, for the next job on such a machine, and the map of it.
 */
export async function workOut(id: string): Promise<void> {
  const wiring = await wiringByJob(id, database());
  if (!wiring) return;
  const entries = await entriesAfter(id, 0);
  if (await findStanding(id, entries.length)) return;
  const logbook = { wiring: withScannedCodes(wiring, entries), entries };
  const signal = AbortSignal.timeout(LONGEST_MS);
  const kept = await keptFor(logbook, signal);
  const { answer, found } = await threadsOf<Task, Found>(THREAD).run({ ...logbook, kept }, { signal });
  await keepStanding(id, entries.length, answer);
  await keepWorkedOut("predictions", found);
  await mapOf(logbook.wiring, toldCodes(fold(entries)), layOutInPool); // which keeps it
}

/** What was predicted before for a logbook's machine. */
async function keptFor(logbook: Logbook, signal: AbortSignal): Promise<Task["kept"]> {
  const keys = await threadsOf<Logbook, KeptKeys>(THREAD).run(logbook, { signal, name: "keysOf" });
  return findWorkedOut("predictions", [keys.codes, keys.values]);
}

/** Works out what the single faults of a machine would show and set, and keeps what was not kept before. */
export async function predictFor(wiring: Wiring): Promise<void> {
  const signal = AbortSignal.timeout(LONGEST_MS);
  const kept = await keptFor({ wiring, entries: [] }, signal);
  const task = { wiring, entries: [], kept };
  await keepWorkedOut(
    "predictions",
    await threadsOf<Task, Found["found"]>(THREAD).run(task, { signal, name: "predict" }),
  );
}
