import type { Case, ClosedEntry, Entry, RepairedEntry } from "../format/case.js";
import type { Lesson } from "../format/notebook.js";
import { fold, type Folded } from "../logbook/fold.js";
import { minutesTaken } from "../logbook/minutes.js";
import { withScannedCodes } from "../logbook/scanned.js";
import { toldCodes } from "../logbook/told.js";
import { partsNamed, sharedMatrix } from "../wiring/matrix.js";

const MOST_CODES = 200;
const MOST_SHARED = 40;
const MOST_REPAIRS = 8;
const MOST_MINUTES = 1e6;
/** Of the reasons to close a job, those that say nothing was mended. */
const NOTHING_MENDED: ReadonlySet<string> = new Set(["declined", "awaitsPart", "notReproduced"]);

/**
 * What a closed job teaches: codes, what they share, the cause, what helped and whether it held.
 * @param id of the job
 * @returns undefined of a job that was never closed, or in which nothing was repaired and no cause was named
 * @example
 * const lesson = lessonOf("job 7", job); // lesson.repairs: [{ things: ["S14"], how: "cleaned" }]
 */
export function lessonOf(
  id: string,
  job: Pick<Case, "title" | "machine" | "complaint" | "wiring" | "entries">,
): Lesson | undefined {
  const folded = fold(job.entries);
  const { closing, verdict, followUps } = folded;
  if (!closing || (folded.repairs.length === 0 && !verdict)) return undefined;
  const codes = toldCodes(folded);
  const wiring = withScannedCodes(job.wiring, job.entries);
  const { testing, repairing } = minutesTaken(job.entries.slice(0, closing.number));
  const { because, proof } = closing.entry;
  return {
    id,
    closed: closing.entry.at.slice(0, 10),
    wiring: wiring.name,
    machineType: wiring.machineType ?? "",
    ...(job.machine ? { machine: job.machine } : {}),
    title: job.title,
    ...(job.complaint ? { complaint: job.complaint } : {}),
    codes: [...new Set(codes.map((c) => c.code))].slice(0, MOST_CODES),
    shared: sharedThings(wiring, codes),
    ...(verdict ? { found: verdict.entry.text, suspect: verdict.entry.suspect } : {}),
    repairs: because !== undefined && NOTHING_MENDED.has(because) ? [] : whatHelped(folded, closing.number),
    ...(because ? { because } : {}),
    ...(proof ? { claimed: proof.outcome.cured } : {}),
    notHeld: proofsNotHeld(job.entries, folded.undone, closing.number),
    held: followUps.filter((f) => f.number > closing.number).at(-1)?.entry.result ?? "notAsked",
    minutes: Math.min(MOST_MINUTES, testing + repairing),
    note: "",
    used: true,
  };
}

/**
 * The last repair before the job was closed, and earlier ones at the places of the cause that was named; none from
 * before it came back.
 */
function whatHelped({ repairs, verdict, followUps }: Folded, closed: number): Lesson["repairs"] {
  const back = followUps.filter((f) => f.number < closed && f.entry.result === "cameBack").at(-1)?.number ?? 0;
  const before = repairs.filter((r) => r.number > back && r.number < closed);
  const places = new Set(verdict?.entry.suspect.split(" + "));
  return before
    .filter((r, i) => i === before.length - 1 || r.entry.things.some((t) => places.has(t)))
    .slice(-MOST_REPAIRS)
    .map(({ entry }) => ({ things: entry.things, how: entry.how }));
}

/** Earlier times at which this job was closed as repaired, and came back. */
function proofsNotHeld(entries: readonly Entry[], undone: ReadonlySet<number>, until: number): Lesson["notHeld"] {
  const found: Lesson["notHeld"] = [];
  let repaired: RepairedEntry | undefined;
  let closed: ClosedEntry | undefined;
  entries.slice(0, until - 1).forEach((e, i) => {
    if (undone.has(i + 1)) return;
    if (e.type === "repaired") repaired = e;
    if (e.type === "closed") closed = e;
    if (e.type !== "followedUp" || e.result !== "cameBack") return;
    const claimed = closed?.proof?.outcome.cured;
    if (repaired && claimed !== undefined) found.push({ how: repaired.how, claimed });
    closed = undefined;
  });
  return found.slice(-MOST_REPAIRS);
}

/** What all the parts that codes name pass through, wires left out. */
function sharedThings(wiring: Case["wiring"], codes: readonly { module: string; code: string }[]): string[] {
  const parts = partsNamed(
    wiring,
    codes.map((entry) => ({ entry })),
  );
  const { coded, rows } = sharedMatrix(wiring, parts);
  if (coded.length < 2) return [];
  return rows
    .filter((r) => r.coded.length === coded.length && r.kind !== "wire")
    .flatMap((r) => [r.thing, ...r.same.slice(0, r.same.length - r.wires)])
    .slice(0, MOST_SHARED);
}
