import { testKindOf } from "../format/candidateId.js";
import type {
  CodeEntry,
  Disturbance,
  Entry,
  HoldsEntry,
  IdentityEntry,
  Intake,
  LookEntry,
  MeterCheckEntry,
  ReadingEntry,
  RunEntry,
  ScanEntry,
  ScannedCode,
  SchoolEntry,
  SeenEntry,
  State,
  SwapEntry,
  VerdictEntry,
  WiggleEntry,
} from "../format/case.js";
import type { KeyState } from "../format/wiring.js";

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
  /** the last word on each code of each module */
  readonly codes: readonly CodeWord[];
  /** modules scanned in full, with the key states whose monitors have run by then; a scan after the battery was off does not count */
  readonly scanned: ReadonlyMap<string, ReadonlySet<KeyState>>;
  readonly scans: readonly Numbered<ScanEntry>[];
  /** readings, at the connector where they were really taken */
  readonly readings: readonly Numbered<ReadingEntry>[];
  /** the machine now */
  readonly state: State;
  /** all that is other than it was found: unplugged, pulled, jumpered, pierced, removed; must be empty or explained before the job closes */
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
}
/** One thing that is not as it was found, and the entry that says so. */
export interface Disturbed {
  readonly thing: string;
  readonly how: Disturbance;
  readonly number: number;
}
export type ClueEntry = LookEntry | WiggleEntry | SwapEntry | HoldsEntry | IdentityEntry;

/** Which entries are taken back: by an undo, or a correction, that itself stands. */
export function undoneEntries(entries: readonly Entry[]): ReadonlySet<number> {
  const undone = new Set<number>();
  for (let i = entries.length - 1; i >= 0; i--) {
    const e = entries[i]!;
    if (undone.has(i + 1)) continue;
    if (e.type === "undo") undone.add(e.target);
    if (e.type === "reading" && e.corrects !== undefined) undone.add(e.corrects);
  }
  return undone;
}

/** Key states whose monitors have run by the time of a scan. Before anything was cleared, at least those of key on. */
const RUN: Readonly<Record<ScanEntry["when"], readonly KeyState[]>> = {
  before: ["on"],
  other: ["on"],
  afterClear: ["on"],
  afterCrank: ["on", "cranking"],
  afterDrive: ["on", "cranking", "running"],
};

/** Adds a logbook up: wiring plus this is the whole case. */
export function fold(entries: readonly Entry[]): Folded {
  const undone = undoneEntries(entries);
  const codes = new Map<string, CodeWord>();
  const scanned = new Map<string, Set<KeyState>>();
  const scans: Numbered<ScanEntry>[] = [];
  const readings = new Map<number, ReadingEntry>();
  const unplugged = new Set<string>();
  const sinceClear = new Set<string>();
  const setAside = new Set<string>();
  const lacking = new Set<string>();
  const seen = new Map<string, Numbered<SeenEntry>>();
  const clues: Numbered<ClueEntry>[] = [];
  let key: State["key"] = "on";
  let pulled: State["pulled"];
  let school: SchoolEntry | undefined;
  let verdict: Numbered<VerdictEntry> | undefined;
  let intake: Numbered<Intake> | undefined;
  const open = new Map<string, Disturbed>();
  const acknowledged = new Set<string>();
  let closed: number | undefined;
  let meterCheck: Numbered<MeterCheckEntry> | undefined;
  let run: Numbered<RunEntry> | undefined;
  let standing: Pick<State, "jumpers" | "loads" | "breakers"> = {};
  const leave = (thing: string, how: Disturbance, number: number) => {
    if (!open.has(`${how} ${thing}`)) open.set(`${how} ${thing}`, { thing, how, number });
  };
  const restore = (thing: string, how: Disturbance) => open.delete(`${how} ${thing}`);
  const plug = (now: ReadonlySet<string>, number: number) => {
    for (const d of [...open.values()]) if (d.how === "unplugged" && !now.has(d.thing)) restore(d.thing, "unplugged");
    for (const c of now) leave(c, "unplugged", number);
  };
  /** what a reading or a trial says of the machine at that moment: it holds until the next one says otherwise */
  const nowIn = (state: State, number: number) => {
    key = state.key;
    pulled = state.pulled;
    standing = {
      ...(state.jumpers?.length ? { jumpers: state.jumpers } : {}),
      ...(state.loads?.length ? { loads: state.loads } : {}),
      ...(state.breakers?.length ? { breakers: state.breakers } : {}),
    };
    unplugged.clear();
    for (const c of state.unplugged) {
      unplugged.add(c);
      sinceClear.add(c);
    }
    for (const f of [...(state.pulled ?? []), ...(state.breakers ?? [])]) sinceClear.add(f);
    plug(unplugged, number);
    for (const d of [...open.values()]) if (TRANSIENT.has(d.how)) restore(d.thing, d.how);
    for (const f of state.pulled ?? []) leave(f, "pulled", number);
    for (const f of state.breakers ?? []) leave(f, "breaker", number);
    for (const j of state.jumpers ?? []) leave(`${j.from} ${j.to}`, "jumpered", number);
    for (const l of state.loads ?? []) leave(`${l.from} ${l.to}`, "loaded", number);
  };
  const ran = (module: string, keys: readonly KeyState[]) => {
    const set = scanned.get(module) ?? new Set();
    keys.forEach((k) => set.add(k));
    scanned.set(module, set);
  };
  entries.forEach((entry, i) => {
    const number = i + 1;
    if (undone.has(number)) return;
    if (entry.type !== "undo") closed = undefined;
    switch (entry.type) {
      case "code":
        if (entry.ours) break;
        codes.set(`${entry.module} ${entry.code}`, { number, entry, disturbedThen: [...sinceClear] });
        ran(entry.module, ["on"]);
        break;
      case "scan":
        scans.push({ number, entry });
        for (const id of entry.disturbed) sinceClear.add(id);
        takeScan(codes, entry, number, [...sinceClear]);
        if (!entry.wiped) for (const m of entry.modules) ran(m, RUN[entry.when]);
        break;
      case "cleared":
        sinceClear.clear();
        unplugged.forEach((c) => sinceClear.add(c));
        break;
      case "reading":
        readings.set(number, entry);
        nowIn(entry.state, number);
        if (entry.how === "pierced") for (const p of entry.points) leave(p, "pierced", number);
        break;
      case "unplugged":
        unplugged.add(entry.connector);
        sinceClear.add(entry.connector);
        plug(unplugged, number);
        break;
      case "plugged":
        unplugged.delete(entry.connector);
        plug(unplugged, number);
        break;
      case "setAside":
        setAside.add(entry.candidate);
        if (entry.reason === "noTool") {
          const kind = testKindOf(entry.candidate);
          if (kind !== undefined) lacking.add(kind);
        }
        break;
      case "verdict":
        verdict = { number, entry };
        break;
      case "intake":
        intake = { number, entry: entry.intake };
        break;
      case "seen":
        seen.set(entry.connector, { number, entry });
        break;
      case "moved":
        for (const n of entry.readings) {
          const r = readings.get(n);
          if (r) readings.set(n, movedReading(r, entry.from, entry.to));
        }
        break;
      case "school":
        school = entry;
        break;
      case "look":
      case "wiggle":
      case "swap":
      case "identity":
        clues.push({ number, entry });
        break;
      case "holds":
        clues.push({ number, entry });
        nowIn(entry.state, number);
        break;
      case "meterCheck":
        meterCheck = { number, entry };
        break;
      case "acknowledged":
        entry.cautions.forEach((c) => acknowledged.add(c));
        break;
      case "disturbed":
        leave(entry.thing, entry.how, number);
        if (entry.how === "unplugged") unplugged.add(entry.thing);
        if (entry.how === "pulled") pulled = [...new Set([...(pulled ?? []), entry.thing])];
        sinceClear.add(entry.thing);
        break;
      case "restored":
        restore(entry.thing, entry.how);
        if (entry.how === "unplugged") unplugged.delete(entry.thing);
        if (entry.how === "pulled") pulled = pulled?.filter((f) => f !== entry.thing);
        if (entry.how === "breaker")
          standing = { ...standing, breakers: standing.breakers?.filter((f) => f !== entry.thing) };
        if (entry.how === "jumpered")
          standing = { ...standing, jumpers: standing.jumpers?.filter((j) => `${j.from} ${j.to}` !== entry.thing) };
        if (entry.how === "loaded")
          standing = { ...standing, loads: standing.loads?.filter((l) => `${l.from} ${l.to}` !== entry.thing) };
        break;
      case "run":
        run = entry.event === "begun" ? { number, entry } : undefined;
        break;
      case "closed":
        if (open.size === 0) closed = number;
        break;
      case "revision":
      case "undo":
        break;
    }
  });
  const now = [...unplugged].sort();
  return {
    undone,
    codes: [...codes.values()],
    scanned,
    scans,
    readings: [...readings].map(([number, entry]) => ({ number, entry })),
    state: { key, unplugged: now, ...(pulled?.length ? { pulled } : {}), ...fitted(standing) },
    open: [...open.values()],
    acknowledged,
    disturbedSinceClear: [...sinceClear].sort(),
    setAside,
    lacking,
    seen: [...seen.values()],
    clues,
    ...(school ? { school } : {}),
    ...(verdict ? { verdict } : {}),
    ...(intake ? { intake } : {}),
    ...(meterCheck ? { meterCheck } : {}),
    ...(run ? { run } : {}),
    ...(closed === undefined ? {} : { closed }),
  };
}
/** Only as long as the reading that says so: the next reading says anew what is fitted. */
const TRANSIENT: ReadonlySet<Disturbance> = new Set<Disturbance>(["pulled", "breaker", "jumpered", "loaded"]);
const fitted = ({ jumpers, loads, breakers }: Pick<State, "jumpers" | "loads" | "breakers">): Partial<State> => ({
  ...(jumpers?.length ? { jumpers } : {}),
  ...(loads?.length ? { loads } : {}),
  ...(breakers?.length ? { breakers } : {}),
});

/** A code that a later full scan no longer gives was there, but not always: it stays as intermittent, unless a dead battery wiped it. */
function takeScan(
  codes: Map<string, CodeWord>,
  scan: ScanEntry,
  number: number,
  disturbedThen: readonly string[],
): void {
  const given = new Set(scan.codes.map((c) => `${c.module} ${c.code}`));
  if (!scan.wiped)
    for (const [name, word] of codes) {
      if (
        given.has(name) ||
        !scan.modules.includes(word.entry.module) ||
        word.entry.status === "absent" ||
        word.entry.status === "notRun"
      )
        continue;
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

export type ScanCell = ScannedCode["status"] | "notGiven" | "notScanned";
/** One code across several scans, and what that says: came back, and when. */
export interface ScanRow {
  readonly module: string;
  readonly code: string;
  readonly title?: string;
  readonly cells: readonly ScanCell[];
  readonly story: "onlyOnce" | "cameBack" | "stayedAway" | "always" | "new";
}

/** Scans side by side: which code was there when, and which came back after clearing. Columns are the scans in order. */
export function compareScans(scans: readonly ScanEntry[]): ScanRow[] {
  const rows = new Map<string, { module: string; code: string; title?: string }>();
  for (const s of scans)
    for (const c of s.codes)
      rows.set(`${c.module} ${c.code}`, {
        module: c.module,
        code: c.code,
        ...rows.get(`${c.module} ${c.code}`),
        ...(c.title ? { title: c.title } : {}),
      });
  return [...rows.values()].map((row) => {
    const cells = scans.map(
      (s): ScanCell =>
        s.codes.find((c) => c.module === row.module && c.code === row.code)?.status ??
        (s.modules.includes(row.module) ? "notGiven" : "notScanned"),
    );
    const set = cells.map((c) => c !== "notGiven" && c !== "notScanned" && c !== "absent" && c !== "notRun");
    const asked = set.filter((_, i) => cells[i] !== "notScanned");
    const story =
      scans.length < 2 || asked.length < 2
        ? "onlyOnce"
        : asked.every(Boolean)
          ? "always"
          : !asked[0]
            ? "new"
            : asked.at(-1)
              ? "cameBack"
              : "stayedAway";
    return { ...row, cells, story };
  });
}
