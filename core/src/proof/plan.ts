import { DEFAULTS } from "../defaults.js";
import type { Belief } from "../diagnosis/assessment.js";
import { CONTACT_MODES, RepairedPlaces } from "../diagnosis/cures.js";
import { distance } from "../diagnosis/likelihood.js";
import type { Entry, Instrument, ReadingEntry, ScanEntry, State } from "../format/case.js";
import type { Code, KeyState, Reset } from "../format/wiring.js";
import { isSetCode, type Folded, type Numbered } from "../logbook/fold.js";
import { isToldOf } from "../logbook/told.js";
import { sameReading } from "../logbook/sameReading.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets } from "../wiring/nets.js";
import { connectorOf, devicePins } from "../wiring/points.js";
import { repairOutcome, type RepairOutcome } from "./outcome.js";

export type StepStatus = "open" | "passed" | "failed" | "leftOut";
/** What somebody does to see whether a repair holds. */
export type ProofAction =
  /** put back what is not as it was found */
  | { readonly kind: "restore"; readonly things: readonly string[] }
  /** a part measured before it goes in, or the work done elsewhere looked at */
  | { readonly kind: "check"; readonly things: readonly string[]; readonly asked: string }
  | { readonly kind: "reset"; readonly reset: Reset }
  | { readonly kind: "clear" }
  | {
      readonly kind: "scan";
      readonly when: Exclude<ScanEntry["when"], "before" | "other">;
      /** codes whose monitors have run by then, and that were set before */
      readonly codes: readonly Pick<Code, "module" | "id">[];
      readonly modules: readonly string[];
      readonly trip: Trip;
    }
  | {
      readonly kind: "reading";
      readonly instrument: Instrument;
      readonly point: string;
      readonly black: string | undefined;
      readonly state: State;
      /** what it read before; undefined where it was not read */
      readonly before: number | undefined;
      /** what a sound machine shows, lowest to highest */
      readonly good: readonly [number, number];
      /** the other part that stands at the same condition at rest */
      readonly likeness?: string;
    }
  | { readonly kind: "wiggle"; readonly thing: string };
/** A drive or a wait, the longest that one of the codes asks for. */
export interface Trip {
  readonly minutes: number;
  readonly km: number;
  readonly coldSoakHours: number;
  readonly notes: readonly string[];
}
export interface ProofStep {
  /** names the step, also in a `proofStep` entry */
  readonly id: string;
  readonly action: ProofAction;
  readonly status: StepStatus;
  /** the entry that says so */
  readonly number: number | undefined;
  /** codes that are set again, in a scan that failed */
  readonly again: readonly string[];
  readonly minutes: number;
}
export interface Proof {
  readonly outcome: RepairOutcome;
  readonly steps: readonly ProofStep[];
  /** minutes of the steps that are still open */
  readonly minutes: number;
}

/** So many readings that were far from good are read again. Judgement: the strongest three tell enough. */
const MOST_READINGS = 3;
/** A reading this far from what a sound machine shows was part of what was wrong, standard deviations. */
const WRONG_FROM = 4;

/**
 * The plan of a proof: what is to be done, and what was seen of it already. In the order in which one does it: what
 * could spoil the rest first, the drive last.
 * @returns undefined where nothing was repaired, where nothing was ever seen of the machine, or where the last thing
 * told is that it came back
 */
export function proofOf(predictor: Predictor, belief: Belief, entries: readonly Entry[]): Proof | undefined {
  const outcome = repairOutcome(belief);
  const { folded } = belief.gathered;
  if (!outcome || entries[folded.since - 1]?.type !== "repaired" || !isToldOf(folded)) return undefined;
  const planner = new ProofPlanner(predictor, belief);
  const steps = planner.steps();
  return {
    outcome,
    steps,
    minutes: steps.reduce((sum, s) => sum + (s.status === "open" ? s.minutes : 0), 0),
  };
}

type Seen = Pick<ProofStep, "status" | "number" | "again">;
const OPEN: Seen = { status: "open", number: undefined, again: [] };

class ProofPlanner {
  private readonly folded: Folded;

  constructor(
    private readonly predictor: Predictor,
    private readonly belief: Belief,
  ) {
    this.folded = belief.gathered.folded;
  }

  steps(): ProofStep[] {
    return [
      ...this.restoring(),
      ...this.checks(),
      ...this.resets(),
      ...this.clearing(),
      ...this.readings(),
      ...this.likenesses(),
      ...this.moving(),
      ...this.scans(),
    ];
  }
  private step(id: string, action: ProofAction, minutes: number, seen: Seen = OPEN): ProofStep {
    const said = this.folded.proofSteps.get(id);
    const own: Seen =
      seen.status === "open" && said ? { status: said.entry.result, number: said.number, again: [] } : seen;
    return { id, action, minutes, ...own };
  }

  private restoring(): ProofStep[] {
    const things = [...new Set(this.folded.open.map((d) => d.thing))];
    return things.length ? [this.step("restore", { kind: "restore", things }, things.length)] : [];
  }
  private checks(): ProofStep[] {
    return this.repairsNow().flatMap(({ number, entry }) =>
      entry.givenOut && !entry.givenOut.checked
        ? [this.step(`check ${number}`, { kind: "check", things: entry.things, asked: entry.givenOut.asked }, 5)]
        : [],
    );
  }
  private resets(): ProofStep[] {
    const repaired = this.repairsNow();
    const plugs = new RepairedPlaces(this.predictor.wiring);
    return (this.predictor.wiring.resets ?? [])
      .filter((r) =>
        repaired.some(
          ({ entry }) =>
            (r.after === "anyRepair" || entry.how === "replaced") &&
            [...entry.things, ...plugs.handled(entry)].some((t) => r.on.includes(t)),
        ),
      )
      .map((reset) => this.step(`reset ${reset.id}`, { kind: "reset", reset }, 5));
  }
  /** All repairs since the job began, or came back: they are proven together. */
  private repairsNow(): Folded["repairs"] {
    const back = this.folded.followUps.filter((f) => f.entry.result !== "stillGood").at(-1)?.number ?? 0;
    return this.folded.repairs.filter((r) => r.number > back);
  }

  private clearing(): ProofStep[] {
    const { codesBefore, clearedSince } = this.folded;
    if (codesBefore.length === 0) return [];
    const seen: Seen = clearedSince === undefined ? OPEN : { status: "passed", number: clearedSince, again: [] };
    return [this.step("clear", { kind: "clear" }, 2, seen)];
  }

  /** The codes that were set, by what their monitors need to run. */
  private scans(): ProofStep[] {
    const { codesBefore } = this.folded;
    if (codesBefore.length === 0) return [];
    const keyOf = new Map(this.predictor.monitors.map((m) => [`${m.code.module} ${m.code.id}`, m]));
    const by = new Map<Exclude<KeyState, "off">, Code[]>();
    for (const { entry } of codesBefore) {
      const monitor = keyOf.get(`${entry.module} ${entry.code}`);
      const code =
        monitor?.code ?? this.predictor.wiring.codes.find((c) => c.module === entry.module && c.id === entry.code);
      // nobody knows when the monitor of a code runs that is not drawn: by the end of a drive
      const key = code?.trip || !monitor ? "running" : monitor.key === "off" ? "on" : monitor.key;
      by.set(key, [...(by.get(key) ?? []), code ?? ({ module: entry.module, id: entry.code } as Code)]);
    }
    const told = this.belief.gathered.comesAndGoes || (this.belief.carried?.sound.moved ?? 0) > WENT_AWAY_FROM;
    if (told && !by.has("running")) by.set("running", []);
    const modules = [...new Set(codesBefore.map((c) => c.entry.module))];
    return (["on", "cranking", "running"] as const).flatMap((key) => {
      const codes = by.get(key);
      if (!codes) return [];
      const when = WHEN[key];
      const wanted = codes.length ? codes : [...by.values()].flat();
      const trip = key === "running" ? tripOf(wanted) : NO_TRIP;
      const minutes = SCAN_MINUTES + (key === "running" ? trip.minutes : 0);
      const action: ProofAction = { kind: "scan", when, codes: wanted, modules, trip };
      return [this.step(`scan ${when}`, action, minutes, this.scanned(when, modules, wanted))];
    });
  }
  /** A later scan says as much as an earlier one, and more. */
  private scanned(
    when: Exclude<ScanEntry["when"], "before" | "other">,
    modules: readonly string[],
    codes: readonly Pick<Code, "module" | "id">[],
  ): Seen {
    const { scans, since, clearedSince } = this.folded;
    const from = Math.max(since, clearedSince ?? since);
    const enough = ORDER.slice(ORDER.indexOf(when));
    const fit = scans.filter(
      ({ number, entry }) =>
        number >= from &&
        number > since &&
        clearedSince !== undefined &&
        enough.includes(entry.when) &&
        modules.every((m) => entry.modules.includes(m)),
    );
    const last: Numbered<ScanEntry> | undefined = fit.at(-1);
    if (!last) return this.toldOneByOne(codes);
    const again = last.entry.codes.filter((c) => isSetCode({ status: c.status })).map((c) => c.code);
    return { status: again.length ? "failed" : "passed", number: last.number, again };
  }

  /** Codes logged one by one: absent says that the monitor ran, and the code is not set. */
  private toldOneByOne(codes: readonly Pick<Code, "module" | "id">[]): Seen {
    const words = codes.map((c) =>
      this.folded.codes.find(({ entry }) => entry.module === c.module && entry.code === c.id),
    );
    const told = words.filter((w) => w !== undefined);
    const again = told.filter((w) => isSetCode(w.entry)).map((w) => w.entry.code);
    if (again.length === 0 && told.length < codes.length) return OPEN;
    const number = Math.max(...told.map((w) => w.number));
    return { status: again.length ? "failed" : "passed", number, again };
  }

  /** Where it was furthest from good before, it is read again in the same way. */
  private readings(): ProofStep[] {
    const told = new Map<string, { readonly e: ReadingEntry; readonly far: number; readonly value: number }>();
    const { since } = this.folded;
    for (const { number, entry } of this.folded.readings) {
      if (number >= since || entry.part !== undefined || !COMPARED.has(entry.instrument)) continue;
      const value = entry.values.at(-1);
      const point = entry.points.at(-1)!;
      if (typeof value !== "number" || this.predictor.placeOf(entry.instrument, point) === undefined) continue;
      const [low, high] = this.good(entry.instrument, point, entry.black, entry.state);
      if (Number.isNaN(low)) continue;
      const far = Math.min(distance(value, low, entry.instrument), distance(value, high, entry.instrument));
      if ((value < low || value > high) && far >= WRONG_FROM)
        told.set(`${entry.instrument} ${point}`, { e: entry, far, value });
    }
    const all = [...told.values()].sort((a, b) => b.far - a.far);
    // nothing is taken apart again where a reading at a plugged connector tells enough
    const plain = all.filter(({ e }) => e.state.key === "on" && e.state.unplugged.length === 0);
    const chosen = plain.length ? plain.slice(0, MOST_READINGS) : all.slice(0, 1);
    return chosen.map(({ e, value }) => this.readingStep(e.instrument, e.points.at(-1)!, e.black, e.state, value));
  }
  private readingStep(
    instrument: Instrument,
    point: string,
    black: string | undefined,
    state: State,
    before: number | undefined,
    likeness?: string,
  ): ProofStep {
    const good = this.good(instrument, point, black, state);
    const again = this.folded.readings.filter(
      ({ number, entry }) =>
        number > this.folded.since &&
        sameReading({ ...entry, points: entry.points.slice(-1) }, { instrument, points: [point], black, state }),
    );
    const last = again.at(-1);
    const value = last?.entry.values.at(-1);
    const isGood = typeof value === "number" && value >= good[0] && value <= good[1];
    const seen: Seen = last ? { status: isGood ? "passed" : "failed", number: last.number, again: [] } : OPEN;
    return this.step(
      `reading ${instrument} ${point}`,
      { kind: "reading", instrument, point, black, state, before, good, ...(likeness ? { likeness } : {}) },
      DEFAULTS.plan.minutes.reachDefault + 1,
      seen,
    );
  }
  /** What a sound machine shows, its unknown values and the meter's error counted in. */
  private good(
    instrument: Instrument,
    point: string,
    black: string | undefined,
    state: State,
  ): readonly [number, number] {
    const predicted = this.predictor.predictAt(0, { instrument, point, black, state });
    let low = Infinity;
    let high = -Infinity;
    for (let d = 0; d < this.predictor.draws; d++) {
      const v = predicted.at(d);
      if (Number.isNaN(v)) return [NaN, NaN];
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    const room = DEFAULTS.proof.room * (high - low);
    const error = (v: number) =>
      instrument === "ohmmeter" ? DEFAULTS.proof.ohmShare * v + DEFAULTS.proof.leadsOhm : DEFAULTS.proof.volt;
    return [low - room - error(low), high + room + error(high)];
  }

  /** Two parts that stand at the same condition at rest must agree, where one of them had a code or was worked on. */
  private likenesses(): ProofStep[] {
    const { wiring } = this.predictor;
    const nets = findNets(wiring);
    const touched = new Set(this.repairsNow().flatMap((r) => r.entry.things.map(connectorOf)));
    const coded = new Set(
      wiring.codes
        .filter((c) => this.folded.codesBefore.some((b) => b.entry.module === c.module && b.entry.code === c.id))
        .flatMap((c) => (c.about === undefined ? [] : [c.about])),
    );
    return wiring.devices.flatMap((d) => {
      if (!("follows" in d) || d.follows === undefined) return [];
      const pair = [d.id, d.follows];
      if (!pair.some((id) => touched.has(id) || coded.has(id))) return [];
      const own = pair.find((id) => touched.has(id) || coded.has(id))!;
      const device = wiring.devices.find((x) => x.id === own);
      const signal = device && devicePins(device).find((p) => p.role === "signal")?.at;
      const pin = signal === undefined ? undefined : nets.modulePinOf(signal);
      if (pin === undefined || this.predictor.placeOf("scanTool", pin) === undefined) return [];
      return [
        this.readingStep(
          "scanTool",
          pin,
          undefined,
          { key: "on", unplugged: [] },
          undefined,
          pair.find((id) => id !== own)!,
        ),
      ];
    });
  }

  /** What was loose once is moved once more. */
  private moving(): ProofStep[] {
    const { hypotheses } = this.predictor;
    const { curedOf } = this.belief.carried!;
    const likeliest = curedOf.reduce((best, share, h) => (share > curedOf[best]! ? h : best), 0);
    const fault = likeliest > 0 && curedOf[likeliest]! > 0 ? hypotheses[likeliest]!.faults[0] : undefined;
    if (!fault || !(CONTACT_MODES.has(fault.mode) || fault.place.type === "wire")) return [];
    const thing = fault.place.id;
    const last = this.folded.clues
      .filter((c) => c.number > this.folded.since && c.entry.type === "wiggle" && c.entry.thing === thing)
      .at(-1);
    const seen: Seen =
      last?.entry.type === "wiggle"
        ? { status: last.entry.reacted ? "failed" : "passed", number: last.number, again: [] }
        : OPEN;
    return [this.step(`wiggle ${thing}`, { kind: "wiggle", thing }, 3, seen)];
  }
}

/** From this chance on that it only went away by itself, a drive is asked for. Judgement. */
const WENT_AWAY_FROM = 0.02;
const SCAN_MINUTES = 3;
const WHEN = { on: "afterClear", cranking: "afterCrank", running: "afterDrive" } as const;
const ORDER: readonly ScanEntry["when"][] = ["afterClear", "afterCrank", "afterDrive"];
const COMPARED: ReadonlySet<Instrument> = new Set<Instrument>(["voltmeter", "ohmmeter", "scanTool"]);
const NO_TRIP: Trip = { minutes: 0, km: 0, coldSoakHours: 0, notes: [] };
/** The longest that one of the codes asks for; a quarter of an hour where none says how long. */
function tripOf(codes: readonly Pick<Code, "trip">[]): Trip {
  const most = (f: (t: NonNullable<Code["trip"]>) => number | undefined) =>
    Math.max(0, ...codes.map((c) => (c.trip ? (f(c.trip) ?? 0) : 0)));
  const km = most((t) => t.km);
  return {
    km,
    minutes: most((t) => t.minutes) || (km ? km * MINUTES_PER_KM : DEFAULTS.proof.driveMinutes),
    coldSoakHours: most((t) => t.coldSoakHours),
    notes: [...new Set(codes.flatMap((c) => (c.trip?.note ? [c.trip.note] : [])))],
  };
}
/** About 60 km an hour. */
const MINUTES_PER_KM = 1;
