import { undoneEntries } from "./undone.js";
import { type Disturbed, MachineNow } from "./machineNow.js";
import { testKindOf } from "../format/candidateId.js";
import type {
  ClosedEntry,
  CodeEntry,
  Entry,
  FollowedUpEntry,
  HoldsEntry,
  IdentityEntry,
  Intake,
  LearnedEntry,
  LookEntry,
  MeterCheckEntry,
  ReadingEntry,
  ProofStepEntry,
  RepairedEntry,
  RunEntry,
  ScanEntry,
  SchoolEntry,
  SeenEntry,
  State,
  SwapEntry,
  TraceEntry,
  VerdictEntry,
  WiggleEntry,
} from "../format/case.js";
import type { KeyState } from "../format/wiring.js";
import { traceReadings, traceWiggles } from "./traceReadings.js";

export interface Numbered<T> {
  readonly number: number;
  readonly entry: T;
}
/** The last word on one code: what the latest scan that spoke of it said, and what had been disturbed by then. */
export interface CodeWord {
  readonly number: number;
  readonly entry: { readonly module: string; readonly code: string; readonly status: CodeEntry["status"] | "notRun" };
  /** connectors unplugged and fuses pulled since codes were last cleared */
  readonly disturbedThen: readonly string[];
  /** number of the later scan that no longer gave it */
  readonly goneIn?: number;
}

/** What the logbook adds up to. Numbers count entries from 1. */
export interface Folded {
  /** entries taken back by an undo that itself stands */
  readonly undone: ReadonlySet<number>;
  /** number of the entry from which on the machine is what it is now: the last repair, or return; 0 as it was found */
  readonly since: number;
  /** repairs made, in order */
  readonly repairs: readonly Numbered<RepairedEntry>[];
  /** the last word on each code of each module, of the machine as it is now */
  readonly codes: readonly CodeWord[];
  /** codes set before the last repair or return */
  readonly codesBefore: readonly CodeWord[];
  /** codes read as stored that may be older than the repair, as nobody cleared them since */
  readonly stale: readonly Numbered<{ readonly module: string; readonly code: string }>[];
  /** steps of the proof since the last repair, the last word on each */
  readonly proofSteps: ReadonlyMap<string, Numbered<ProofStepEntry>>;
  /** the entry after the last repair that cleared the codes */
  readonly clearedSince?: number;
  /**
   * modules scanned in full, with the key states whose monitors have run by then; a scan after the battery was off does
   * not count
   */
  readonly scanned: ReadonlyMap<string, ReadonlySet<KeyState>>;
  readonly scans: readonly Numbered<ScanEntry>[];
  /** readings, at the connector where they were really taken; of a recording all that it says, under its number */
  readonly readings: readonly Numbered<ReadingEntry>[];
  /** recordings, in order */
  readonly traces: readonly Numbered<TraceEntry>[];
  /** the machine now */
  readonly state: State;
  /**
   * all that is other than it was found: unplugged, pulled, jumpered, pierced, removed; must be empty or explained
   * before the job closes
   */
  readonly open: readonly Disturbed[];
  /** everything unplugged or pulled since codes were last cleared */
  readonly disturbedSinceClear: readonly string[];
  readonly setAside: ReadonlySet<string>;
  /** kinds of test that were set aside because there is no such tool */
  readonly lacking: ReadonlySet<string>;
  readonly verdict?: Numbered<VerdictEntry>;
  readonly intake?: Numbered<Intake>;
  /** what stands on the machine, the last word for each connector */
  readonly seen: readonly Numbered<SeenEntry>[];
  /** looks, wiggles, swaps and fuses tried, in order */
  readonly clues: readonly Numbered<ClueEntry>[];
  /** how the next test is chosen */
  readonly school?: SchoolEntry;
  /** the last check of the meter itself */
  readonly meterCheck?: Numbered<MeterCheckEntry>;
  /** cautions acknowledged on this job */
  readonly acknowledged: ReadonlySet<string>;
  /** the guided run that is open, and the number of the entry that began it */
  readonly run?: Numbered<RunEntry>;
  /** the entry that closed the job, while nothing was left other than it was found and nothing was logged since */
  readonly closed?: number;
  /** how the job was last closed, whether or not it is still */
  readonly closing?: Numbered<ClosedEntry>;
  readonly followUps: readonly Numbered<FollowedUpEntry>[];
  /** what earlier jobs of this machine teach this one */
  readonly learned?: Numbered<LearnedEntry>;
}
export type ClueEntry = LookEntry | WiggleEntry | SwapEntry | HoldsEntry | IdentityEntry;

/** Key states whose monitors have run by the time of a scan. Before anything was cleared, at least those of key on. */
const RUN: Readonly<Record<ScanEntry["when"], readonly KeyState[]>> = {
  before: ["on"],
  other: ["on"],
  afterClear: ["on"],
  afterCrank: ["on", "cranking"],
  afterDrive: ["on", "cranking", "running"],
};

/** A job stays closed when something is taken back, somebody says that it is still good, or lessons are added. */
const leavesClosed = (e: Entry) =>
  e.type === "undo" || e.type === "learned" || (e.type === "followedUp" && e.result === "stillGood");

const AFTER_CLEARING: ReadonlySet<ScanEntry["when"]> = new Set<ScanEntry["when"]>([
  "afterClear",
  "afterCrank",
  "afterDrive",
]);

/** Whether a code is set: neither known to be off, nor not tried yet. */
export const isSetCode = ({ status }: { readonly status: CodeWord["entry"]["status"] }): boolean =>
  status !== "absent" && status !== "notRun";
/**
 * Adds a logbook up: wiring plus this is the whole case.
 * @example
 * const { state, open, codes } = fold(job.entries); // how the machine stands, what is not as found, codes told
 */
export function fold(entries: readonly Entry[]): Folded {
  const undone = undoneEntries(entries);
  const folding = new Folding();
  entries.forEach((entry, i) => {
    if (!undone.has(i + 1)) folding.take(entry, i + 1);
  });
  return folding.result(undone);
}

/** The sum of the entries taken so far. */
class Folding {
  private readonly machine = new MachineNow();
  private readonly codes = new Map<string, CodeWord>();
  private readonly scanned = new Map<string, Set<KeyState>>();
  private readonly scans: Numbered<ScanEntry>[] = [];
  private readonly readings = new Map<number, readonly ReadingEntry[]>();
  private readonly traces: Numbered<TraceEntry>[] = [];
  private readonly setAside = new Set<string>();
  private readonly lacking = new Set<string>();
  private readonly seen = new Map<string, Numbered<SeenEntry>>();
  private readonly clues: Numbered<ClueEntry>[] = [];
  private readonly acknowledged = new Set<string>();
  private school: SchoolEntry | undefined;
  private verdict: Numbered<VerdictEntry> | undefined;
  private intake: Numbered<Intake> | undefined;
  private meterCheck: Numbered<MeterCheckEntry> | undefined;
  private run: Numbered<RunEntry> | undefined;
  private closed: number | undefined;
  private closing: Numbered<ClosedEntry> | undefined;
  private readonly repairs: Numbered<RepairedEntry>[] = [];
  private readonly followUps: Numbered<FollowedUpEntry>[] = [];
  private readonly codesBefore = new Map<string, CodeWord>();
  private readonly stale: Numbered<{ readonly module: string; readonly code: string }>[] = [];
  private readonly proofSteps = new Map<string, Numbered<ProofStepEntry>>();
  private learned: Numbered<LearnedEntry> | undefined;
  private since = 0;
  private clearedSince: number | undefined;

  take(entry: Entry, number: number): void {
    if (!leavesClosed(entry)) this.closed = undefined;
    switch (entry.type) {
      case "code":
      case "scan":
      case "cleared":
        return this.takeCodes(entry, number);
      case "reading":
      case "moved":
      case "trace":
        return this.takeReading(entry, number);
      case "unplugged":
        return this.machine.unplug(entry.connector, number);
      case "plugged":
        return this.machine.plug(entry.connector, number);
      case "disturbed":
        return this.machine.disturb(entry.thing, entry.how, number);
      case "restored":
        return this.machine.putRight(entry.thing, entry.how);
      case "look":
      case "wiggle":
      case "swap":
      case "identity":
      case "holds":
        this.clues.push({ number, entry });
        if (entry.type === "holds") this.machine.isNow(entry.state, number);
        return;
      default:
        return this.takeJob(entry, number);
    }
  }

  private takeCodes(entry: Extract<Entry, { type: "code" | "scan" | "cleared" }>, number: number): void {
    if (entry.type === "cleared") {
      this.clearedSince = number;
      return this.machine.codesCleared();
    }
    if (entry.type === "code") {
      if (entry.ours || this.isStale(entry, number)) return;
      const disturbedThen = this.machine.disturbedSinceClear;
      this.codes.set(`${entry.module} ${entry.code}`, { number, entry, disturbedThen });
      this.monitorsRan(entry.module, ["on"]);
      return;
    }
    this.scans.push({ number, entry });
    // such a scan says by itself that codes were cleared before it
    if (AFTER_CLEARING.has(entry.when)) this.clearedSince ??= number;
    for (const id of entry.disturbed) this.machine.disturbForCodes(id);
    const codes = entry.codes.filter((c) => !this.isStale(c, number));
    takeScan(this.codes, { ...entry, codes }, number, this.machine.disturbedSinceClear);
    if (!entry.wiped) for (const m of entry.modules) this.monitorsRan(m, RUN[entry.when]);
  }
  /** A code stored before the repair says nothing of the machine after it. */
  private isStale({ module, code, status }: Pick<CodeEntry, "module" | "code"> & { status: string }, number: number) {
    if (this.since === 0 || this.clearedSince !== undefined) return false;
    if (status !== "stored" && status !== "intermittent") return false;
    this.stale.push({ number, entry: { module, code } });
    return true;
  }
  /** From here on the machine is another. */
  private begin(number: number): void {
    for (const [name, word] of this.codes) if (isSetCode(word.entry)) this.codesBefore.set(name, word);
    this.codes.clear();
    this.scanned.clear();
    this.stale.length = 0;
    this.proofSteps.clear();
    this.clearedSince = undefined;
    this.since = number;
  }
  private monitorsRan(module: string, keys: readonly KeyState[]): void {
    const set = this.scanned.get(module) ?? new Set();
    keys.forEach((k) => set.add(k));
    this.scanned.set(module, set);
  }

  private takeReading(entry: Extract<Entry, { type: "reading" | "moved" | "trace" }>, number: number): void {
    if (entry.type === "moved") {
      for (const n of entry.readings) {
        const own = this.readings.get(n);
        if (own)
          this.readings.set(
            n,
            own.map((r) => movedReading(r, entry.from, entry.to)),
          );
      }
      return;
    }
    this.machine.isNow(entry.state, number);
    if (entry.type === "trace") {
      this.traces.push({ number, entry });
      this.readings.set(number, traceReadings(entry));
      for (const clue of traceWiggles(entry)) this.clues.push({ number, entry: clue });
      return;
    }
    this.readings.set(number, [entry]);
    if (entry.how === "pierced") for (const p of entry.points) this.machine.pierce(p, number);
  }

  /** What belongs to the job and not to the machine. */
  private takeJob(entry: Entry, number: number): void {
    switch (entry.type) {
      case "setAside":
        this.setAside.add(entry.candidate);
        if (entry.reason === "noTool") this.lack(testKindOf(entry.candidate));
        return;
      case "verdict":
        this.verdict = { number, entry };
        return;
      case "intake":
        this.intake = { number, entry: entry.intake };
        return;
      case "seen":
        this.seen.set(entry.connector, { number, entry });
        return;
      case "school":
        this.school = entry;
        return;
      case "meterCheck":
        this.meterCheck = { number, entry };
        return;
      case "acknowledged":
        entry.cautions.forEach((c) => this.acknowledged.add(c));
        return;
      case "run":
        this.run = entry.event === "begun" ? { number, entry } : undefined;
        return;
      case "repaired":
        this.repairs.push({ number, entry });
        return this.begin(number);
      case "proofStep":
        this.proofSteps.set(entry.step, { number, entry });
        return;
      case "followedUp":
        this.followUps.push({ number, entry });
        if (entry.result !== "stillGood") this.begin(number);
        return;
      case "learned":
        this.learned = { number, entry };
        return;
      case "closed":
        this.closing = { number, entry };
        if (this.machine.disturbed.length === 0) this.closed = number;
        return;
      default:
        return; // a revision or an undo adds nothing here
    }
  }
  private lack(kind: string | undefined): void {
    if (kind !== undefined) this.lacking.add(kind);
  }

  result(undone: ReadonlySet<number>): Folded {
    const { school, verdict, intake, meterCheck, run, closed, closing, clearedSince, learned } = this;
    return {
      undone,
      since: this.since,
      repairs: this.repairs,
      codesBefore: [...this.codesBefore.values()],
      stale: this.stale,
      proofSteps: this.proofSteps,
      followUps: this.followUps,
      codes: [...this.codes.values()],
      scanned: this.scanned,
      scans: this.scans,
      readings: [...this.readings].flatMap(([number, own]) => own.map((entry) => ({ number, entry }))),
      traces: this.traces,
      state: this.machine.state,
      open: this.machine.disturbed,
      acknowledged: this.acknowledged,
      disturbedSinceClear: this.machine.disturbedSinceClear.sort(),
      setAside: this.setAside,
      lacking: this.lacking,
      seen: [...this.seen.values()],
      clues: this.clues,
      ...(school ? { school } : {}),
      ...(verdict ? { verdict } : {}),
      ...(intake ? { intake } : {}),
      ...(meterCheck ? { meterCheck } : {}),
      ...(run ? { run } : {}),
      ...(closed === undefined ? {} : { closed }),
      ...(closing ? { closing } : {}),
      ...(learned ? { learned } : {}),
      ...(clearedSince === undefined || this.since === 0 ? {} : { clearedSince }),
    };
  }
}

/**
 * A code that a later full scan no longer gives was there, but not always: it stays as intermittent, unless a dead
 * battery wiped it.
 */
function takeScan(
  codes: Map<string, CodeWord>,
  scan: ScanEntry,
  number: number,
  disturbedThen: readonly string[],
): void {
  const given = new Set(scan.codes.map((c) => `${c.module} ${c.code}`));
  if (!scan.wiped)
    for (const [name, word] of codes) {
      if (given.has(name) || !scan.modules.includes(word.entry.module) || !isSetCode(word.entry)) continue;
      codes.set(name, { ...word, entry: { ...word.entry, status: "intermittent" }, goneIn: number });
    }
  for (const c of scan.codes)
    codes.set(`${c.module} ${c.code}`, {
      number,
      entry: { module: c.module, code: c.code, status: c.status },
      disturbedThen,
    });
}

/** The same reading at the same cavity of another connector. */
function movedReading(r: ReadingEntry, from: string, to: string): ReadingEntry {
  const there = (p: string) => (p.startsWith(`${from}:`) ? `${to}${p.slice(from.length)}` : p);
  return {
    ...r,
    points: r.points.map(there),
    ...(r.black === undefined ? {} : { black: there(r.black) }),
    state: { ...r.state, unplugged: r.state.unplugged.map((c) => (c === from ? to : c)) },
  };
}
