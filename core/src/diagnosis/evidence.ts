import { DEFAULTS } from "../defaults.js";
import type { Entry, Instrument, ReadingEntry, State } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import { fold, type ClueEntry, type CodeWord, type Folded } from "../logbook/fold.js";
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
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  const monitorOf = new Map(predictor.monitors.map((m, i) => [`${m.code.module} ${m.code.id}`, i]));
  const known = new Set(predictor.wiring.codes.map((c) => `${c.module} ${c.id}`));
  const spoken = new Set<number>();
  for (const { number, entry, disturbedThen } of folded.codes) {
    const name = `${entry.module} ${entry.code}`;
    const monitor = monitorOf.get(name);
    if (monitor === undefined) {
      remarks.push(
        issue(
          known.has(name) ? "remark.code-without-condition" : "remark.code-not-in-wiring",
          ["entries", number - 1],
          { code: entry.code, module: entry.module, number },
        ),
      );
      continue;
    }
    spoken.add(monitor);
    if (entry.status === "notRun") continue;
    if (
      entry.status !== "absent" &&
      disturbedThen.length &&
      predictor.codesSetByDisturbing(disturbedThen).has(monitor)
    ) {
      remarks.push(
        issue("remark.code-set-by-us", ["entries", number - 1], {
          code: entry.code,
          connectors: disturbedThen,
          number,
        }),
      );
      continue;
    }
    evidence.push({
      kind: "code",
      number,
      monitor,
      present: entry.status !== "absent",
      status: entry.status,
      weight: DEFAULTS.codes.weight[entry.status] * sureness(predictor, monitor),
      assumed: false,
    });
  }
  predictor.monitors.forEach((m, i) => {
    if (spoken.has(i) || folded.scanned.get(m.code.module)?.has(m.key) !== true) return;
    evidence.push({
      kind: "code",
      number: 0,
      monitor: i,
      present: false,
      status: "absent",
      weight: sureness(predictor, i),
      assumed: true,
    });
  });
  const judge = ReadingJudge.of(predictor);
  folded.readings.forEach(({ number, entry }, n) => {
    const lost = entry.points.find((p) => predictor.placeOf(entry.instrument, p) === undefined);
    if (lost !== undefined) {
      remarks.push(issue("remark.point-not-in-wiring", ["entries", number - 1], { point: lost, number }));
      return;
    }
    const judged = judge.judge({ number, entry }, folded.readings[n - 1]?.entry);
    remarks.push(...judged.remarks);
    if (!judged.proves || entry.part === "new") return; // a new part says nothing of the machine
    const own = (p: string) => (entry.part === "removed" ? pinBehind(p) : p);
    entry.points.forEach((p, i) => {
      const value = shownNumber(entry.values[i]!);
      if (Number.isNaN(value)) return; // a meter that shows nothing proves nothing
      const base = {
        kind: "reading",
        number,
        point: own(p),
        black: isPlainBlack(entry.black) ? undefined : own(entry.black!),
        instrument: entry.instrument,
        state: entry.state,
      } as const;
      // a value that would not stand still was both of its ends, at one moment or another
      for (const v of flickers(entry) && i === 0 ? entry.swing! : [value]) evidence.push({ ...base, value: v });
    });
  });
  for (const { number, entry } of folded.clues) evidence.push({ kind: "clue", number, clue: entry });
  for (const { number, entry } of folded.seen) {
    if (entry.partNumber === undefined || drawnPartNumber(predictor.wiring, entry.connector) === undefined) continue;
    const parts = predictor.wiring.devices
      .filter((d) => deviceConnectors(d).includes(entry.connector))
      .map((d) => d.id);
    evidence.push({
      kind: "clue",
      number,
      clue: { type: "partNumber", parts, same: compareSeen(predictor.wiring, entry)?.partNumber === undefined },
    });
  }
  const symptoms: readonly string[] = folded.intake?.entry.symptoms ?? [];
  return {
    evidence,
    remarks: [...seenRemarks(predictor.wiring, folded), ...remarks, ...meterRemarks(folded)],
    folded,
    ...circumstances(predictor.wiring, predictor.faults, folded.intake?.entry),
    comesAndGoes:
      symptoms.includes("comesAndGoes") ||
      symptoms.includes("curedItself") ||
      folded.codes.some((c) => c.entry.status === "intermittent") ||
      folded.readings.some(({ entry }) => flickers(entry)),
  };
}

/** A swing this wide, volt, is no unsteady hand: something comes and goes. */
const FLICKER_VOLT = 0.3;
const flickers = (e: ReadingEntry) =>
  e.instrument === "voltmeter" && e.swing !== undefined && e.swing[1] - e.swing[0] > FLICKER_VOLT;

/** A set condition that was only made from the code's family counts for less. */
const sureness = (predictor: Predictor, monitor: number) =>
  predictor.monitors[monitor]!.broad ? DEFAULTS.codes.broadWeight : 1;
