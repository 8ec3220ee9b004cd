import { familyOf } from "../codes/family.js";
import type { Wiring } from "../format/wiring.js";
import { DEFAULTS } from "../defaults.js";
import type { Entry, Instrument, ReadingEntry, State } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import { fold, type ClueEntry, type CodeWord, type Folded, isSetCode } from "../logbook/fold.js";
import { compareSeen, drawnPartNumber, seenRemarks } from "../logbook/seen.js";
import { type Predictor } from "../prediction/predictor.js";
import { OVERLOAD } from "../units/quantity.js";
import { deviceConnectors, isPlainBlack, pinBehind } from "../wiring/points.js";
import { circumstances, type Feed } from "./circumstances.js";
import { meterRemarks, ReadingJudge } from "./judgeReadings.js";

type Status = Exclude<CodeWord["entry"]["status"], "notRun">;
export interface CodeEvidence {
  readonly kind: "code";
  readonly number: number;
  readonly monitor: number;
  readonly present: boolean;
  readonly status: Status;
  readonly weight: number;
  readonly assumed: boolean;
}
/** One value of one instrument. `value`: volts, ohms or amperes; a lamp 1 bright, 0.5 dim, 0 dark; a beeper 1 or 0. */
export interface ReadingEvidence {
  readonly kind: "reading";
  readonly number: number;
  readonly point: string;
  readonly black: string | undefined;
  readonly value: number;
  readonly instrument: Instrument;
  readonly state: State;
}
/** What is not a number: a look, a wiggle, a swap, a fuse that held, a part number read. */
export interface ClueEvidence {
  readonly kind: "clue";
  readonly number: number;
  readonly clue: Clue;
}
export type Clue =
  ClueEntry | { readonly type: "partNumber"; readonly parts: readonly string[]; readonly same: boolean };
export type Evidence = CodeEvidence | ReadingEvidence | ClueEvidence;

export interface Gathered {
  readonly evidence: readonly Evidence[];
  readonly remarks: readonly Issue[];
  readonly folded: Folded;
  /** factor on the rate of each fault, from the intake, and what fed it */
  readonly factors: Float64Array;
  readonly feeds: readonly Feed[];
  /** the customer says it comes and goes, or cured itself */
  readonly comesAndGoes: boolean;
}

const SHOWN: Readonly<Record<string, number>> = { OL: OVERLOAD, bright: 1, dim: 0.5, dark: 0, beep: 1, silent: 0 };
/** What an instrument showed, as a number: OL is `OVERLOAD`, a lamp 1 bright to 0 dark, a beeper 1 or 0. */
export const shownNumber = (v: ReadingEntry["values"][number]): number => (typeof v === "number" ? v : SHOWN[v]!);

/**
 * Turns a logbook into evidence. A module scanned, or with any code logged, speaks by its other codes too: those
 * whose monitors have run by then are evidence by their absence. Codes we set ourselves by unplugging are none.
 */
export function gather(predictor: Predictor, entries: readonly Entry[]): Gathered {
  const folded = fold(entries);
  const codes = codeEvidence(predictor, folded);
  const readings = readingEvidence(predictor, folded);
  const symptoms: readonly string[] = folded.intake?.entry.symptoms ?? [];
  return {
    evidence: [
      ...codes.evidence,
      ...readings.evidence,
      ...folded.clues.map(({ number, entry }): Evidence => ({ kind: "clue", number, clue: entry })),
      ...partNumberEvidence(predictor.wiring, folded),
    ],
    remarks: [...seenRemarks(predictor.wiring, folded), ...codes.remarks, ...readings.remarks, ...meterRemarks(folded)],
    folded,
    ...circumstances(predictor.wiring, predictor.faults, folded.intake?.entry),
    comesAndGoes:
      symptoms.includes("comesAndGoes") ||
      symptoms.includes("curedItself") ||
      folded.codes.some((c) => c.entry.status === "intermittent") ||
      folded.readings.some(({ entry }) => flickers(entry)),
  };
}

interface Part {
  readonly evidence: readonly Evidence[];
  readonly remarks: readonly Issue[];
}

function codeEvidence(predictor: Predictor, folded: Folded): Part {
  const monitorOf = new Map(predictor.monitors.map((m, i) => [`${m.code.module} ${m.code.id}`, i]));
  const known = new Set(predictor.wiring.codes.map((c) => `${c.module} ${c.id}`));
  const spoken = new Set<number>();
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  for (const word of folded.codes) {
    const { number, entry, disturbedThen } = word;
    const { code, module } = entry;
    const name = `${module} ${code}`;
    const path = ["entries", number - 1];
    const monitor = monitorOf.get(name);
    if (monitor === undefined) {
      const why = known.has(name) ? "remark.code-without-condition" : "remark.code-not-in-wiring";
      remarks.push(issue(why, path, { code, module, number }));
      continue;
    }
    spoken.add(monitor);
    if (isSetByUs(predictor, word, monitor))
      remarks.push(issue("remark.code-set-by-us", path, { code, connectors: disturbedThen, number }));
    else if (entry.status !== "notRun") evidence.push(toldCode(predictor, number, monitor, entry.status));
  }
  predictor.monitors.forEach((m, i) => {
    if (spoken.has(i) || folded.scanned.get(m.code.module)?.has(m.key) !== true) return;
    // a module that sees a broken circuit no longer judges whether the value is plausible
    if (m.broad && familyOf(m.code) === "performance") return;
    evidence.push({ ...toldCode(predictor, 0, i, "absent"), weight: sureness(predictor, i), assumed: true });
  });
  return { evidence, remarks };
}

/** A code that a healthy machine sets, too, with what was unplugged by then. */
function isSetByUs(predictor: Predictor, { entry, disturbedThen }: CodeWord, monitor: number): boolean {
  return isSetCode(entry) && disturbedThen.length > 0 && predictor.codesSetByDisturbing(disturbedThen).has(monitor);
}
function toldCode(predictor: Predictor, number: number, monitor: number, status: Status): CodeEvidence {
  return {
    kind: "code",
    number,
    monitor,
    present: status !== "absent",
    status,
    weight: DEFAULTS.codes.weight[status] * sureness(predictor, monitor),
    assumed: false,
  };
}

function readingEvidence(predictor: Predictor, folded: Folded): Part {
  const judge = ReadingJudge.of(predictor);
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  folded.readings.forEach(({ number, entry }, n) => {
    const lost = entry.points.find((p) => predictor.placeOf(entry.instrument, p) === undefined);
    if (lost !== undefined) {
      remarks.push(issue("remark.point-not-in-wiring", ["entries", number - 1], { point: lost, number }));
      return;
    }
    const judged = judge.judge({ number, entry }, folded.readings[n - 1]?.entry);
    remarks.push(...judged.remarks);
    // a new part says nothing of the machine
    if (judged.proves && entry.part !== "new") evidence.push(...valuesOf(number, entry));
  });
  return { evidence, remarks };
}
function valuesOf(number: number, entry: ReadingEntry): ReadingEvidence[] {
  const own = (p: string) => (entry.part === "removed" ? pinBehind(p) : p);
  return entry.points.flatMap((p, i) => {
    const value = shownNumber(entry.values[i]!);
    if (Number.isNaN(value)) return []; // a meter that shows nothing proves nothing
    // a value that would not stand still was both of its ends, at one moment or another
    const values = flickers(entry) && i === 0 ? entry.swing! : [value];
    return values.map((v): ReadingEvidence => ({
      kind: "reading",
      number,
      point: own(p),
      black: isPlainBlack(entry.black) ? undefined : own(entry.black!),
      instrument: entry.instrument,
      state: entry.state,
      value: v,
    }));
  });
}

function partNumberEvidence(wiring: Wiring, folded: Folded): Evidence[] {
  return folded.seen.flatMap(({ number, entry }): Evidence[] => {
    if (entry.partNumber === undefined || drawnPartNumber(wiring, entry.connector) === undefined) return [];
    const parts = wiring.devices.filter((d) => deviceConnectors(d).includes(entry.connector)).map((d) => d.id);
    const same = compareSeen(wiring, entry)?.partNumber === undefined;
    return [{ kind: "clue", number, clue: { type: "partNumber", parts, same } }];
  });
}

/** A swing this wide, volt, is no unsteady hand: something comes and goes. */
const FLICKER_VOLT = 0.3;
const SHOWS_VOLTS: ReadonlySet<Instrument> = new Set<Instrument>(["voltmeter", "scanTool"]);
const flickers = (e: ReadingEntry) =>
  SHOWS_VOLTS.has(e.instrument) && e.swing !== undefined && e.swing[1] - e.swing[0] > FLICKER_VOLT;

/** A set condition that was only made from the code's family counts for less. */
const sureness = (predictor: Predictor, monitor: number) =>
  predictor.monitors[monitor]!.broad ? DEFAULTS.codes.broadWeight : 1;
