import { familyOf } from "../codes/family.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import { DEFAULTS } from "../defaults.js";
import type { Entry, Instrument, ReadingEntry, State, WiggleEntry } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import { fold, type ClueEntry, type CodeWord, type Folded, isSetCode } from "../logbook/fold.js";
import { ofMachineNow } from "../logbook/told.js";
import { showsDropouts } from "../logbook/traceReadings.js";
import { compareSeen, drawnPartNumber, seenRemarks } from "../logbook/seen.js";
import { type Predictor } from "../prediction/predictor.js";
import { onLoosePart, stateName } from "../network/state.js";
import { OVERLOAD } from "../units/quantity.js";
import { deviceConnectors, isPlainBlack, pinBehind, wireId } from "../wiring/points.js";
import { circumstances, type Feed } from "./circumstances.js";
import { lessonFactors } from "./lessons.js";
import { distance } from "./likelihood.js";
import { meterRemarks, ReadingJudge } from "./judgeReadings.js";
import { scanVolts } from "./scanValues.js";
import { teethEvidence, type TeethClue } from "./teeth.js";
import { caughtIn, flickers } from "./watched.js";

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
  /** how far the value itself may be off, beyond the instrument's error */
  readonly tolerance?: number;
  /** it stayed there while it was watched: how surely a fault that comes and goes would have shown itself */
  readonly caught?: number;
}
/** What is not a number: a look, a wiggle, a swap, a fuse that held, a part number read. */
export interface ClueEvidence {
  readonly kind: "clue";
  readonly number: number;
  readonly clue: Clue;
}
export type Clue =
  | Exclude<ClueEntry, WiggleEntry>
  | (WiggleEntry & { /** terminals at the ends of a wire that was moved */ readonly besides?: readonly string[] })
  | { readonly type: "partNumber"; readonly parts: readonly string[]; readonly same: boolean }
  | TeethClue;
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

const SHOWN: Readonly<Record<string, number>> = {
  OL: OVERLOAD,
  bright: 1,
  dim: 0.5,
  dark: 0,
  beep: 1,
  silent: 0,
  plausible: NaN,
  frozen: NaN,
  lowEnd: NaN,
  highEnd: NaN,
};
/**
 * What an instrument showed, as a number: OL is `OVERLOAD`, a lamp 1 bright to 0 dark, a beeper 1 or 0; NaN where a
 * scan value was said in words.
 */
export const shownNumber = (v: ReadingEntry["values"][number]): number => (typeof v === "number" ? v : SHOWN[v]!);

/**
 * Turns a logbook into evidence. A module scanned, or with any code logged, speaks by its other codes too: those
 * whose monitors have run by then are evidence by their absence. Codes we set ourselves by unplugging are none.
 */
export function gather(predictor: Predictor, entries: readonly Entry[]): Gathered {
  const whole = fold(entries);
  const folded = ofMachineNow(whole);
  const codes = codeEvidence(predictor, folded);
  const readings = readingEvidence(predictor, folded, entries);
  const symptoms: readonly string[] = folded.intake?.entry.symptoms ?? [];
  return {
    evidence: [
      ...codes.evidence,
      ...readings.evidence,
      ...folded.clues.map(({ number, entry }): Evidence => ({
        kind: "clue",
        number,
        clue: withEnds(predictor.wiring, entry),
      })),
      ...partNumberEvidence(predictor.wiring, folded),
      ...teethEvidence(predictor.wiring, folded),
    ],
    remarks: [
      ...seenRemarks(predictor.wiring, folded),
      ...codes.remarks,
      ...readings.remarks,
      ...meterRemarks(folded),
      ...repairRemarks(whole, entries[0]?.at),
    ],
    folded: whole,
    ...rates(predictor, folded),
    comesAndGoes:
      symptoms.includes("comesAndGoes") ||
      symptoms.includes("curedItself") ||
      folded.codes.some((c) => c.entry.status === "intermittent") ||
      folded.readings.some(({ entry }) => flickers(entry)) ||
      folded.traces.some(({ entry }) => showsDropouts(entry)),
  };
}

/** Generic rates as this machine's history and the jobs before change them. */
function rates({ wiring, faults }: Predictor, { intake, learned }: Folded): Pick<Gathered, "factors" | "feeds"> {
  const told = circumstances(wiring, faults, intake?.entry);
  const before = lessonFactors(wiring, faults, learned?.entry);
  return {
    factors: told.factors.map((f, i) => f * before.factors[i]!),
    feeds: [...told.feeds, ...before.feeds],
  };
}

function repairRemarks({ repairs, stale }: Folded, begun: string | undefined): Issue[] {
  const codes = stale.map((s) => s.entry.code);
  return [
    ...repairs
      .filter((r) => begun !== undefined && Date.parse(r.entry.at) < Date.parse(begun))
      .map((r) => issue("remark.repair-before-job", ["entries", r.number - 1], { number: r.number })),
    ...(codes.length ? [issue("remark.codes-not-cleared", ["entries", stale[0]!.number - 1], { codes })] : []),
  ];
}

interface Part {
  readonly evidence: readonly Evidence[];
  readonly remarks: readonly Issue[];
}

function codeEvidence(predictor: Predictor, folded: Folded): Part {
  const monitorOf = new Map(predictor.monitors.map((m, i) => [`${m.code.module} ${m.code.id}`, i]));
  const known = new Set(predictor.wiring.codes.map((c) => `${c.module} ${c.id}`));
  const spoken = new Set<number>();
  const running = new Map<string, Set<KeyState>>();
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  for (const word of folded.codes) {
    const { number, entry, disturbedThen } = word;
    const { code, module } = entry;
    const name = `${module} ${code}`;
    const path = ["entries", number - 1];
    const monitor = monitorOf.get(name);
    if (monitor === undefined) {
      if (!isSetCode(entry) && !known.has(name)) continue; // a code that is not set, and not drawn, says nothing
      const why = known.has(name) ? "remark.code-without-condition" : "remark.code-not-in-wiring";
      remarks.push(issue(why, path, { code, module, number }));
      continue;
    }
    spoken.add(monitor);
    const { key } = predictor.monitors[monitor]!;
    if (isSetCode(entry)) running.set(module, (running.get(module) ?? new Set<KeyState>()).add(key));
    if (isSetCode(entry) && predictor.healthySets(monitor))
      remarks.push(issue("remark.code-healthy", path, { code, module, number }));
    if (isSetByUs(predictor, word, monitor))
      remarks.push(issue("remark.code-set-by-us", path, { code, connectors: disturbedThen, number }));
    else if (entry.status !== "notRun") evidence.push(toldCode(predictor, number, monitor, entry.status));
  }
  predictor.monitors.forEach((m, i) => {
    if (spoken.has(i) || !folded.scanned.has(m.code.module)) return;
    const ran = folded.scanned.get(m.code.module)!.has(m.key)
      ? 1
      : running.get(m.code.module)?.has(m.key)
        ? SISTER_RAN
        : 0;
    if (ran === 0) return;
    // a module that sees a broken circuit no longer judges whether the value is plausible
    if (m.broad && familyOf(m.code) === "performance") return;
    evidence.push({ ...toldCode(predictor, 0, i, "absent"), weight: ran * sureness(predictor, i), assumed: true });
  });
  return { evidence, remarks };
}

/** How surely a monitor ran where another of its module, judged in the same key state, set its code. Judgement. */
const SISTER_RAN = 0.7;

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

function readingEvidence(predictor: Predictor, folded: Folded, entries: readonly Entry[]): Part {
  const judge = ReadingJudge.of(predictor);
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  folded.readings.forEach(({ number, entry }) => {
    const lost = entry.points.find((p) => predictor.placeOf(entry.instrument, p) === undefined);
    if (lost !== undefined) {
      remarks.push(issue("remark.point-not-in-wiring", ["entries", number - 1], { point: lost, number }));
      return;
    }
    const judged = judge.judge({ number, entry }, entries[number - 2]?.at);
    // of a recording the two levels count, whatever its mean is worth
    const isOfTrace = entries[number - 1]?.type === "trace";
    remarks.push(...judged.remarks.filter((r) => !(isOfTrace && r.code === "remark.mean-of-a-speed-signal")));
    if (!judged.proves || entry.part === "new") return; // a new part says nothing of the machine
    if (entry.instrument !== "scanTool" || isInVolts(entry)) {
      const values = valuesOf(number, entry, folded.readings);
      evidence.push(...values);
      if (values.some((e) => e.instrument === "ohmmeter" && Number.isNaN(predictor.predictAt(0, e).at(0))))
        remarks.push(issue("remark.ohms-electronics", ["entries", number - 1], { number, point: entry.points[0]! }));
      return;
    }
    const scanned = scanEvidence(predictor, number, entry, folded.readings);
    evidence.push(...scanned.evidence);
    remarks.push(...scanned.remarks);
  });
  return { evidence: withoutRepeats(evidence), remarks };
}

/**
 * Of one and the same value read again and again, the first and the last count: the second look rules out a slip of the
 * hand, a third tells nothing that the first two did not.
 */
function withoutRepeats(evidence: readonly Evidence[]): Evidence[] {
  const alike = new Map<string, ReadingEvidence[]>();
  for (const e of evidence) {
    if (e.kind !== "reading") continue;
    const name = `${e.instrument} ${e.point} ${e.black ?? ""} ${e.caught ?? ""} ${stateName(e.state)}`;
    const list = alike.get(name) ?? [];
    if (list.every((x) => isSameValue(x, e))) alike.set(name, [...list, e]);
    else alike.delete(name); // it moved: every value counts
  }
  const dropped = new Set<Evidence>([...alike.values()].flatMap((list) => list.slice(1, -1)));
  return evidence.filter((e) => !dropped.has(e));
}
/** Closer than this, standard deviations of the instrument, two values are one. */
const SAME_SIGMAS = 2;
const isSameValue = (a: ReadingEvidence, b: ReadingEvidence) =>
  a.instrument === "lamp" || a.instrument === "continuity"
    ? a.value === b.value
    : distance(a.value, b.value, a.instrument) < SAME_SIGMAS;
const isInVolts = ({ unit, values }: ReadingEntry) =>
  (unit ?? "V") === "V" && values.every((v) => typeof v === "number");

/** A scan value in another unit than volts, or in words. */
function scanEvidence(predictor: Predictor, number: number, entry: ReadingEntry, readings: Folded["readings"]): Part {
  const path = ["entries", number - 1];
  const shown = flickers(entry) ? entry.swing! : entry.values;
  const evidence: Evidence[] = [];
  const refused: Issue[] = [];
  for (const one of shown) {
    const volts = scanVolts(predictor, entry, one);
    if (volts === undefined) refused.push(issue("remark.scan-frozen", path, { number }));
    else if ("why" in volts)
      refused.push(
        issue(`remark.scan-${volts.why}`, path, {
          number,
          point: entry.points[0]!,
          unit: entry.unit ?? "V",
          ...("wanted" in volts ? { wanted: volts.wanted } : {}),
        }),
      );
    else
      evidence.push({
        kind: "reading",
        number,
        point: entry.points[0]!,
        black: undefined,
        instrument: "scanTool",
        state: entry.state,
        value: volts.volt,
        tolerance: volts.tolerance,
        ...caughtIn({ number, entry }, readings),
      });
  }
  return { evidence, remarks: refused.slice(0, 1) };
}
function valuesOf(number: number, entry: ReadingEntry, readings: Folded["readings"]): ReadingEvidence[] {
  const own = (p: string) => (entry.part === "removed" ? pinBehind(p) : p);
  const state = entry.part === "removed" ? onLoosePart(entry.state) : entry.state;
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
      state,
      value: v,
      ...caughtIn({ number, entry }, readings),
    }));
  });
}
/** Whoever moves a wire moves the terminals at its ends. */
function withEnds(wiring: Wiring, clue: ClueEntry): Clue {
  if (clue.type !== "wiggle") return clue;
  const wire = wiring.wires.find((w) => wireId(w) === clue.thing);
  return wire ? { ...clue, besides: [wire.from, wire.to] } : clue;
}

function partNumberEvidence(wiring: Wiring, folded: Folded): Evidence[] {
  return folded.seen.flatMap(({ number, entry }): Evidence[] => {
    if (entry.partNumber === undefined || drawnPartNumber(wiring, entry.connector) === undefined) return [];
    const parts = wiring.devices.filter((d) => deviceConnectors(d).includes(entry.connector)).map((d) => d.id);
    const same = compareSeen(wiring, entry)?.partNumber === undefined;
    return [{ kind: "clue", number, clue: { type: "partNumber", parts, same } }];
  });
}

/** A set condition that was only made from the code's family counts for less. */
const sureness = (predictor: Predictor, monitor: number) =>
  predictor.monitors[monitor]!.broad ? DEFAULTS.codes.broadWeight : 1;
