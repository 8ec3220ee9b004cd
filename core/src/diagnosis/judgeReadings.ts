import type { ReadingEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { readLamp, readVolts } from "../instruments/readings.js";
import { Rig } from "../instruments/rig.js";
import { issue, type Issue } from "../issues/issue.js";
import type { Folded, Numbered } from "../logbook/fold.js";
import { isTurning, stateName } from "../network/state.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets, type Nets } from "../wiring/nets.js";
import { devicePins, isPlainBlack } from "../wiring/points.js";

/**
 * A reference is good within this of its nominal voltage; up to the second it is "close enough" to be overlooked
 * (common practice, no source).
 */
const REFERENCE_GOOD = 0.05;
const REFERENCE_NEAR = 0.16;
/**
 * After a pause this long a module may have gone to sleep, minutes; a feed under this share of the battery then says
 * little.
 */
const SLEEPS_AFTER_MINUTES = 12;
const SLEEPY_SHARE = 0.3;
/** A battery under this share of nominal while a supply was read. */
const SAGGING = 0.93;

/** What speaks about how a reading was taken. `proves` false: it is kept, and counts for nothing. */
export interface Judged {
  readonly proves: boolean;
  readonly remarks: readonly Issue[];
}

const judges = new WeakMap<Predictor, ReadingJudge>();

/**
 * What a colleague would say of readings: pure, from the wiring and how each was taken; the circuit is solved only
 * where it has to be.
 */
export class ReadingJudge {
  private readonly wiring: Wiring;
  private readonly nets: Nets;
  private healthy: Rig | undefined;
  private readonly known = new Map<string, readonly Issue[]>();
  private constructor(wiring: Wiring) {
    this.wiring = wiring;
    this.nets = findNets(wiring);
  }

  /** the judge of a predictor's wiring, made once */
  static of(predictor: Predictor): ReadingJudge {
    let judge = judges.get(predictor);
    if (!judge) judges.set(predictor, (judge = new ReadingJudge(predictor.wiring)));
    return judge;
  }

  /** @param before when the entry before it was made: in a long pause a module goes to sleep */
  judge({ number, entry }: Numbered<ReadingEntry>, before: string | undefined): Judged {
    const path = ["entries", number - 1];
    const point = entry.points[0]!;
    const remarks: Issue[] = [];
    const say = (code: string, params: Issue["params"]) =>
      remarks.push(issue(`remark.${code}`, path, { number, point, ...params }));
    if (entry.mode === "ac") {
      say("ac-mode", {});
      return { proves: false, remarks };
    }
    if ((entry.instrument === "ohmmeter" || entry.instrument === "continuity") && entry.state.key !== "off") {
      say("ohms-with-power", {});
      return { proves: false, remarks };
    }
    if (entry.instrument === "continuity" && entry.values[0] === "beep") say("beeper-rules-out-open", {});
    if (entry.instrument === "lamp") {
      const lamp = this.lamp(entry);
      for (const i of lamp) remarks.push({ ...i, path, params: { ...i.params, number } });
      return { proves: lamp.length === 0, remarks };
    }
    if (entry.instrument !== "voltmeter" && entry.instrument !== "scope") return { proves: true, remarks };
    if (entry.instrument === "voltmeter" && this.passesSteel(entry)) {
      say("mean-of-a-speed-signal", {});
      return { proves: false, remarks };
    }
    const volt = entry.values.find((v) => typeof v === "number");
    if (typeof volt !== "number") return { proves: true, remarks };
    if (entry.battery !== undefined && entry.state.key === "on" && entry.battery < SAGGING * this.wiring.nominalVolt) {
      say("battery-sagging", { volt: entry.battery });
      return { proves: false, remarks };
    }
    if (point.endsWith(":+") && entry.black !== undefined && !isPlainBlack(entry.black))
      say("plus-to-ground", { black: entry.black });
    const line = this.nets.functionOf(point);
    const plain = entry.black === undefined;
    if (plain && line === "reference" && entry.state.key !== "off") {
      const nominal = this.referenceVolt(point);
      const off = Math.abs(volt - nominal) / nominal;
      if (off > REFERENCE_GOOD && off < REFERENCE_NEAR)
        say("not-close-enough", { volt, low: nominal * (1 - REFERENCE_GOOD), high: nominal * (1 + REFERENCE_GOOD) });
    }
    const pause = before === undefined ? 0 : minutesBetween(before, entry.at);
    if (
      plain &&
      line === "feed" &&
      entry.state.key === "on" &&
      volt < SLEEPY_SHARE * this.wiring.nominalVolt &&
      pause > SLEEPS_AFTER_MINUTES
    ) {
      say("may-sleep", { minutes: Math.round(pause) });
      if (this.canSleep(point, entry.state)) return { proves: false, remarks };
    }
    if (entry.instrument === "voltmeter" && plain && Math.abs(volt) > 0.1 && entry.state.unplugged.length) {
      const ghost = this.voltsRemarks(entry).find((i) => i.code === "reading.ghost-voltage");
      if (ghost) say("ghost-voltage", { ohm: ghost.params["ohm"]! });
    }
    return { proves: true, remarks };
  }

  /** Whether a signal follows the teeth of a target: its mean hangs on where they stand, and how wide they are. */
  private passesSteel({ points, state: { key, unplugged } }: ReadingEntry): boolean {
    if (!isTurning(key)) return false;
    this.steelNets ??= new Set(
      this.wiring.devices.flatMap((d) =>
        d.kind === "hall"
          ? devicePins(d).flatMap((p) => (p.role.startsWith("signal") ? [this.nets.netOf.get(p.at) ?? -1] : []))
          : [],
      ),
    );
    return points.some((p) => this.steelNets!.has(this.nets.netOf.get(p) ?? -2)) && unplugged.length === 0;
  }
  private steelNets: ReadonlySet<number> | undefined;

  /** Whether a sound machine whose modules have gone to sleep shows next to nothing here. */
  private canSleep(point: string, state: ReadingEntry["state"]): boolean {
    const asleep = this.wiring.devices.flatMap((d) => (d.kind === "module" ? [d.id] : []));
    const volt = (s: ReadingEntry["state"]) => readVolts(this.rig(), s, point).value;
    return (
      state.asleep === undefined &&
      volt(state) > SLEEPY_SHARE * this.wiring.nominalVolt &&
      volt({ ...state, asleep }) < SLEEPY_SHARE * this.wiring.nominalVolt
    );
  }
  private lamp(entry: ReadingEntry): readonly Issue[] {
    const load = entry.state.loads?.[0];
    const point = entry.points[0]!;
    return this.remembered(
      `lamp ${point} ${stateName(entry.state)}`,
      () =>
        readLamp(
          this.rig(),
          { ...entry.state, loads: [] },
          load?.watt ?? 5,
          point,
          load && load.to !== point ? load.to : undefined,
        ).remarks,
    );
  }
  private voltsRemarks(entry: ReadingEntry): readonly Issue[] {
    return this.remembered(
      `volts ${entry.points[0]!} ${stateName(entry.state)}`,
      () => readVolts(this.rig(), entry.state, entry.points[0]!).remarks,
    );
  }
  private remembered(name: string, make: () => readonly Issue[]): readonly Issue[] {
    let found = this.known.get(name);
    if (!found) this.known.set(name, (found = make()));
    return found;
  }
  private rig(): Rig {
    return (this.healthy ??= new Rig(this.wiring));
  }
  private referenceVolt(point: string): number {
    const pin = this.nets.modulePinOf(point);
    for (const d of this.wiring.devices)
      if (d.kind === "module") for (const p of d.pins) if (p.at === pin && p.role === "reference") return p.volt ?? 5;
    return 5;
  }
}
const minutesBetween = (a: string, b: string) => (Date.parse(b) - Date.parse(a)) / 60_000;

/** The meter itself: what its check says, or that there was none before a reading was trusted. */
export function meterRemarks(folded: Folded): Issue[] {
  const check = folded.meterCheck;
  const recorded = new Set(folded.traces.map((r) => r.number));
  const read = folded.readings.filter((r) => !recorded.has(r.number));
  const first = read.find((r) => r.entry.instrument === "voltmeter" || r.entry.instrument === "ohmmeter");
  if (!check)
    return first && read.length >= 2
      ? [issue("remark.meter-not-proven", ["entries", first.number - 1], { number: first.number })]
      : [];
  const { leads, battery, ground } = check.entry;
  const path = ["entries", check.number - 1];
  const found: Issue[] = [];
  if (leads === "OL" || (leads !== undefined && leads > BAD_LEADS_OHM))
    found.push(issue("remark.meter-leads", path, { ohm: leads === "OL" ? "OL" : leads }));
  if (battery !== undefined && battery < 0) found.push(issue("remark.meter-reversed", path, { volt: battery }));
  if (ground !== undefined && Math.abs(ground) > BAD_GROUND_VOLT)
    found.push(issue("remark.meter-ground", path, { volt: ground }));
  return found;
}
/**
 * Leads together above this are bad leads or a low meter battery; a black lead further than this from battery negative
 * stands on no ground (common practice, no source).
 */
const BAD_LEADS_OHM = 1;
const BAD_GROUND_VOLT = 0.1;
