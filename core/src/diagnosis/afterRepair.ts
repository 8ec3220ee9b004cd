import { DEFAULTS } from "../defaults.js";
import type { Entry, FollowedUpEntry, RepairedEntry } from "../format/case.js";
import type { Folded } from "../logbook/fold.js";
import { undoneEntries } from "../logbook/undone.js";
import type { Predictor } from "../prediction/predictor.js";
import { connectorOf } from "../wiring/points.js";
import { CONTACT_MODES, RepairedPlaces } from "./cures.js";

/** Of a machine on which nothing is wrong: by what. Sums to 1. */
export interface SoundBecause {
  /** the cause was repaired */
  readonly cured: number;
  /** it went away while somebody worked there, and may come back */
  readonly moved: number;
  /** nothing was wrong, as far as anybody could see */
  readonly never: number;
}

/** What a repair makes of the belief before it: where the next look at the machine begins. */
export interface AfterRepair {
  /**
   * factor on the rate of each fault, and at last on that of "not in this wiring", so that the belief before the repair
   * is the prior after it
   */
  readonly factors: Float64Array;
  /** by hypothesis: how much of it is of the kind that comes and goes */
  readonly going: Float64Array;
  /** ln weight of each severity of a hypothesis against all of them alike */
  readonly severities: ReadonlyMap<number, Float64Array>;
  readonly sound: SoundBecause;
  /** by hypothesis: how much of its prior is a fault that was worked on */
  readonly workedOn: Float64Array;
  /** by hypothesis: how much of what is cured was this fault; sums to 1, or to 0 where nothing was */
  readonly curedOf: Float64Array;
}
/** One thing that may be wrong. */
export interface May {
  readonly hypothesis: number;
  readonly share: number;
  /** it comes and goes */
  readonly goes: boolean;
  /** weight of each severity, sums to 1 */
  readonly places: Float64Array;
}
/** Belief before a repair. */
export interface Before {
  /** of each thing that may be wrong, how likely: hypothesis, share and whether it comes and goes */
  readonly may: readonly May[];
  readonly sound: number;
  readonly notHere: number;
  readonly folded: Folded;
  readonly carried: AfterRepair | undefined;
}

/** How much of a fault that was worked on in vain is as bad as it was. Judgement. */
const AS_BAD_AS_BEFORE = 0.5;
/** A severity that was ruled out may still have come to be, by this factor. Judgement. */
const LEAST_SEVERITY = 1e-3;
/** What is not believed at all still has this much, so that a surprise is weighed. */
const LEAST = 1e-9;

/**
 * The logbook as it stood before an entry, with what was taken back or moved since: the evidence of the machine as it
 * was until then.
 * @param number of the entry from which on the machine is another
 */
export function entriesBefore(entries: readonly Entry[], number: number): Entry[] {
  const before = entries.slice(0, number - 1);
  const undone = undoneEntries(entries);
  const undoneThen = undoneEntries(before);
  const at = entries[number - 1]!.at;
  const later = entries.slice(number).filter((e, i) => e.type === "moved" && !undone.has(number + i + 1));
  const undos = [...undone]
    .filter((n) => n < number && !undoneThen.has(n))
    .sort((a, b) => a - b)
    .map((target): Entry => ({ type: "undo", at, target }));
  return [...before, ...later, ...undos];
}

/**
 * Carries a belief over a repair, or over a return: what was repaired is cured with the chance that its kind of work
 * has, what was handled may have gone away, and there may be a fault that nobody saw yet.
 */
export function carryOver(predictor: Predictor, before: Before, entry: RepairedEntry | FollowedUpEntry): AfterRepair {
  const carry = new CarryOver(predictor, before);
  for (const may of before.may) carry.take(may, entry);
  carry.takeSound(before.sound, before.carried);
  if (entry.type === "repaired") carry.addFurther();
  else carry.addReturn(entry);
  return carry.result();
}

class CarryOver {
  private readonly where: RepairedPlaces;
  private readonly handled: ReadonlySet<string>;
  /** by hypothesis of one fault */
  private readonly left: Float64Array;
  private readonly going: Float64Array;
  private readonly worked: Float64Array;
  private readonly curedOf: Float64Array;
  /** by hypothesis: shares by severity, and what may be of any severity */
  private readonly places = new Map<number, Float64Array>();
  private readonly anySeverity: Float64Array;
  private readonly sound = { cured: 0, moved: 0, never: 0 };
  private readonly notHere: number;

  constructor(
    private readonly predictor: Predictor,
    { folded, notHere }: Before,
  ) {
    const n = predictor.faults.length + 1;
    this.notHere = notHere;
    this.curedOf = new Float64Array(n);
    this.anySeverity = new Float64Array(n);
    this.where = new RepairedPlaces(predictor.wiring);
    this.left = new Float64Array(n);
    this.going = new Float64Array(n);
    this.worked = new Float64Array(n);
    this.handled = new Set([
      ...folded.readings.flatMap(({ entry }) => entry.state.unplugged),
      ...folded.open.map((d) => connectorOf(d.thing)),
      ...folded.clues.flatMap(({ entry }) => (entry.type === "wiggle" ? [connectorOf(entry.thing)] : [])),
    ]);
  }

  /** One thing that may have been wrong, and what is left of it. */
  take(may: May, entry: RepairedEntry | FollowedUpEntry): void {
    const { faults } = this.predictor.hypotheses[may.hypothesis]!;
    const { share } = may;
    if (entry.type === "followedUp") return this.leave(faults, share, may, false);
    const chances = faults.map((f) => this.where.chance(entry, f));
    const others = faults.filter((_, i) => chances[i] === 0);
    const worked = faults.filter((_, i) => chances[i]! > 0);
    const cured = chances.reduce((p, c) => (c > 0 ? p * c : p), 1);
    if (worked.length === 0) return this.mayMove(faults, may, this.handledBy(entry));
    this.leave([...worked, ...others], share * (1 - cured), may, true);
    if (others.length > 0) this.leave(others, share * cured, may, false);
    else this.sound.cured += share * cured;
    for (const f of worked) this.curedOf[this.numberOf(f)]! += (share * cured) / worked.length;
  }
  private handledBy(entry: RepairedEntry): ReadonlySet<string> {
    return new Set([...this.handled, ...this.where.handled(entry)]);
  }
  /** Somebody worked at it without meaning to: a contact may be good again, for now. */
  private mayMove(faults: Faults, may: May, handled: ReadonlySet<string>): void {
    const { share } = may;
    const isHandled = faults.every((f) => CONTACT_MODES.has(f.mode) && handled.has(connectorOf(f.place.id)));
    const moved = isHandled ? DEFAULTS.repair.movedByHand : 0;
    this.sound.moved += share * moved;
    this.leave(faults, share * (1 - moved), may, false);
  }
  /** Still there: each of several by itself, as those that are left are looked for one by one. */
  private leave(faults: Faults, share: number, { goes, places }: May, isWorkedOn: boolean): void {
    for (const f of faults) {
      const h = this.numberOf(f);
      const own = share / faults.length;
      this.left[h] = this.left[h]! + own;
      if (goes) this.going[h] = this.going[h]! + own;
      if (isWorkedOn) this.worked[h] = this.worked[h]! + own;
      // untouched it is as bad as it was; worked on, it may be anything
      const asBefore = faults.length > 1 ? 0 : isWorkedOn ? own * AS_BAD_AS_BEFORE : own;
      this.anySeverity[h] = this.anySeverity[h]! + own - asBefore;
      if (asBefore > 0) this.addPlaces(h, asBefore, places);
    }
  }
  private numberOf(fault: Faults[number]): number {
    return this.predictor.faults.indexOf(fault) + 1;
  }
  private addPlaces(h: number, share: number, places: Float64Array): void {
    const known = this.places.get(h) ?? new Float64Array(places.length);
    this.places.set(h, known);
    places.forEach((w, p) => (known[p]! += share * w));
  }
  /** What was sound already stays so. */
  takeSound(share: number, carried: AfterRepair | undefined): void {
    const { cured, moved, never } = carried?.sound ?? { cured: 0, moved: 0, never: 1 };
    this.sound.cured += share * cured;
    this.sound.moved += share * moved;
    this.sound.never += share * never;
    carried?.curedOf.forEach((part, h) => (this.curedOf[h]! += share * cured * part));
  }

  /** A second fault that nobody saw yet: by the rates alone. */
  addFurther(): void {
    const { another } = DEFAULTS.repair;
    this.spread(another * (this.sound.cured + this.sound.moved));
    this.sound.cured *= 1 - another;
    this.sound.moved *= 1 - another;
  }
  /** What was sound is not any more: the repair did not hold, it came and went, or something else broke. */
  addReturn({ result }: FollowedUpEntry): void {
    const { cameUndone, stillSound } = DEFAULTS.repair;
    const { cured, moved, never } = this.sound;
    const sound = cured + moved + never;
    const once = this.curedOf.reduce((a, b) => a + b, 0);
    const undone = result === "cameBack" && once > 0 ? sound * cameUndone : 0;
    if (undone > 0)
      this.curedOf.forEach((share, h) => {
        this.left[h]! += (undone * share) / once;
        this.anySeverity[h]! += (undone * share) / once;
        this.worked[h]! += (undone * share) / once;
      });
    this.spread((sound - undone) * (1 - stillSound));
    const keep = ((sound - undone) * stillSound) / (sound || 1);
    this.sound.cured *= keep;
    this.sound.moved *= keep;
    this.sound.never *= keep;
  }
  private spread(share: number): void {
    const { faults } = this.predictor;
    const rates = faults.map((f) => f.prior ** DEFAULTS.priorTrust);
    const sum = rates.reduce((a, b) => a + b, 0);
    if (sum <= 0) return;
    rates.forEach((r, i) => {
      this.left[i + 1]! += (share * r) / sum;
      this.anySeverity[i + 1]! += (share * r) / sum;
    });
  }

  result(): AfterRepair {
    const { predictor, sound, left, curedOf } = this;
    const healthy = Math.max(LEAST, sound.cured + sound.moved + sound.never);
    const trusted = (rate: number) => rate ** DEFAULTS.priorTrust;
    const nothing = trusted(DEFAULTS.prior.nothingWrong);
    const factor = (share: number, rate: number) => ((Math.max(LEAST, share) / healthy) * nothing) / trusted(rate);
    return {
      factors: Float64Array.from([
        ...predictor.faults.map((f, i) => factor(left[i + 1]!, f.prior)),
        factor(this.notHere, DEFAULTS.prior.notInThisWiring),
      ]),
      going: this.going.map((g, h) => (left[h]! > 0 ? g / left[h]! : 0)),
      severities: new Map([...this.places].map(([h, own]) => [h, lnAgainstAlike(own, this.anySeverity[h]!)])),
      workedOn: this.worked.map((w, h) => (left[h]! > 0 ? w / left[h]! : 0)),
      curedOf: normalised(curedOf),
      sound: { cured: sound.cured / healthy, moved: sound.moved / healthy, never: sound.never / healthy },
    };
  }
}
/** ln of how much more each severity weighs than it would where all weigh alike. */
function lnAgainstAlike(own: Float64Array, any: number): Float64Array {
  const all = own.reduce((a, b) => a + b, any);
  return own.map((w) => Math.log(Math.max(LEAST_SEVERITY, ((w + any / own.length) / all) * own.length)));
}
function normalised(list: Float64Array): Float64Array {
  const sum = list.reduce((a, b) => a + b, 0);
  return sum > 0 ? list.map((x) => x / sum) : list;
}
type Faults = Predictor["hypotheses"][number]["faults"];
