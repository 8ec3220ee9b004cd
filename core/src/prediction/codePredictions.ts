import { CodesAlong, WIDEST_ASSUMED, type JudgedCodes } from "./codesAlong.js";
import { outerPlaces, type Hypothesis } from "./hypothesis.js";
import { judge, judgePlan, looksOf, type JudgePlan, type Look, type Phase } from "../codes/judge.js";
import { shiftOf, type BoundMonitor } from "../codes/monitors.js";
import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { KeyState } from "../format/wiring.js";
import type { Circuit, Edit } from "../network/element.js";
import { modesOf, type Solver } from "../network/solver.js";
import type { CodesOfHypothesis, KnownCodes, Shifts } from "./piece.js";

/** Further draws near where codes change, and how many severities to either side. Judgement: time. */
const MORE_DRAWS = 3;
const NEAR = 2;

/** What is known so far; it grows. */
interface Known extends KnownCodes {
  readonly groups: Set<number>;
}

/** Monitors with their places among all. */
interface KeyPlan {
  readonly places: readonly number[];
  readonly plan: JudgePlan;
}
/**
 * Monitors judged at the same looks: those of one key position, but each bus node that is listened for by itself, since
 * each takes a look at which it talks.
 */
interface Group {
  readonly number: number;
  readonly key: KeyState;
  readonly places: number[];
}
/** By sample: the codes it sets, and a number for the states in which devices were. */
interface Judged {
  readonly bits: (Uint8Array | undefined)[];
  readonly modes: number[];
}
/** At which looks a hypothesis may move a monitor that listens to a bus. */
const UNTRIED = 0;
const UNTOUCHED = 1;
const TALK_ONLY = 2;
const QUIET_TOO = 3;
/** A monitor that is moved no further than this (`shiftOf`) shows what it does on the healthy machine. Judgement. */
const HARDLY = 0.03;
/** One that is moved no further than this at any severity tried does not set its code. Judgement. */
const PART_OF_THE_WAY = 0.25;

/** Which codes every hypothesis would set, worked out on first asking and remembered. */
export class CodePredictions {
  private readonly full = new Map<number, Known>();
  private readonly rough = new Map<number, Known>();
  private readonly shifts = new Map<number, Shifts>();
  private readonly plans = new Map<string, KeyPlan>();
  private readonly solved = new Map<number, Map<KeyPlan, Judged>>();
  /** of each monitor */
  private readonly groups: readonly Group[];
  private busNodes: ReadonlySet<number> | undefined;
  constructor(
    private readonly hypotheses: readonly Hypothesis[],
    private readonly draws: number,
    private readonly monitors: readonly BoundMonitor[],
    private readonly phasesAt: (state: State, draw: number) => readonly Phase[],
    private readonly solve: (h: number, sample: number, state: State, look: Look) => Solver,
    private readonly editOf: (h: number, sample: number, state: State) => Edit,
  ) {
    const groups = new Map<string, Group>();
    this.groups = monitors.map((m, i) => {
      const name = `${m.key} ${m.node?.gate ?? ""}`;
      let own = groups.get(name);
      if (!own) groups.set(name, (own = { number: groups.size, key: m.key, places: [] }));
      own.places.push(i);
      return own;
    });
  }

  forgetFrom(first: number): void {
    for (const map of [this.full, this.rough, this.shifts, this.solved])
      for (const h of [...map.keys()]) if (h >= first) map.delete(h);
  }

  /** Bits and probabilities of the codes of one hypothesis; `rough`: of most samples from their neighbours. */
  of(h: number, wanted: readonly number[], rough: boolean): Known {
    const store = rough ? this.rough : this.full;
    const known = this.knownIn(store, h);
    for (const i of wanted) {
      const group = this.groups[i]!;
      if (known.groups.has(group.number)) continue;
      const plan = this.planMoved(h, group);
      // what a bus carries hangs little on what is drawn: a few draws do
      const onBus = this.monitors[i]!.node !== undefined;
      const widest = onBus ? 2 * WIDEST_ASSUMED : rough || this.changesAnywhere(h, i, plan) ? 1 : WIDEST_ASSUMED;
      const found = new CodesAlong(this.hypotheses[h]!, this.draws, this.solvedOf(h, plan), known.bits, widest);
      if (rough || onBus) this.roughly(h, found, onBus);
      else for (let draw = 0; draw < this.draws; draw++) found.draw(draw);
      if (h > 0) this.copyHealthy(h, group, plan, known.bits);
      known.groups.add(group.number);
      this.smooth(h, group, known.bits, known.share);
    }
    return known;
  }

  private knownIn(store: Map<number, Known>, h: number): Known {
    let known = store.get(h);
    const size = this.hypotheses[h]!.samples * this.monitors.length;
    if (!known)
      store.set(h, (known = { bits: new Uint8Array(size), share: new Float32Array(size), groups: new Set() }));
    return known;
  }

  /** Whether `movesAny` takes no solve. */
  isMoveKnown(h: number, monitors: readonly number[]): boolean {
    const shifts = this.shifts.get(h);
    if (!shifts) return h === 0;
    return monitors.some((i) => shifts.most[i]! > PART_OF_THE_WAY) || monitors.every((i) => shifts.known[i] === 1);
  }
  /** Whether `of` takes no solve. */
  isKnown(h: number, wanted: readonly number[], rough: boolean): boolean {
    const known = (rough ? this.rough : this.full).get(h);
    return known !== undefined && wanted.every((i) => known.groups.has(this.groups[i]!.number));
  }
  /** All that is known of the codes of a hypothesis, to be taken over by another thread's predictions. */
  knownOf(h: number): CodesOfHypothesis {
    return { shifts: this.shifts.get(h), rough: this.rough.get(h), full: this.full.get(h) };
  }
  /** Takes over what another thread found of the same machine. */
  takeOver(h: number, { shifts, rough, full }: CodesOfHypothesis): void {
    if (shifts) {
      const own = this.shiftsOf(h);
      for (let i = 0; i < this.monitors.length; i++) {
        own.known[i] = Math.max(own.known[i]!, shifts.known[i]!);
        own.most[i] = Math.max(own.most[i]!, shifts.most[i]!);
        own.touched[i] = Math.max(own.touched[i]!, shifts.touched[i]!);
      }
    }
    if (rough) this.takeGroups(this.knownIn(this.rough, h), rough);
    if (full) this.takeGroups(this.knownIn(this.full, h), full);
  }
  private takeGroups(own: Known, more: KnownCodes): void {
    const n = this.monitors.length;
    const fresh = new Set([...more.groups].filter((g) => !own.groups.has(g)));
    const places = this.groups.flatMap((group, i) => (fresh.has(group.number) ? [i] : []));
    for (let from = 0; from < own.bits.length; from += n)
      for (const i of places) {
        own.bits[from + i] = more.bits[from + i]!;
        own.share[from + i] = more.share[from + i]!;
      }
    for (const g of fresh) own.groups.add(g);
  }

  /** Whether, tried roughly, the codes of a plan are not the same at every severity and draw: then all are tried. */
  private changesAnywhere(h: number, monitor: number, { places }: KeyPlan): boolean {
    const { bits } = this.of(h, [monitor], true);
    const n = this.monitors.length;
    for (let s = 1; s < this.hypotheses[h]!.samples; s++)
      if (places.some((i) => bits[s * n + i] !== bits[i])) return true;
    return false;
  }

  /**
   * Whether a hypothesis moves any of these monitors a part of the way to setting its code: tried at the outer
   * severities as drawn, at three between them where a device changes its state on the way, and at two in another draw.
   * While none does, a voltage is a ratio of two straight lines in a conductance and so runs one way: what stays at
   * both ends stays in between.
   */
  movesAny(h: number, monitors: readonly number[]): boolean {
    if (h === 0) return true;
    const { known, most } = this.shiftsOf(h);
    if (monitors.some((i) => most[i]! > PART_OF_THE_WAY)) return true;
    const open = monitors.filter((i) => known[i] === 0);
    for (const key of new Set(open.map((i) => this.monitors[i]!.key))) {
      const places = open.filter((i) => this.monitors[i]!.key === key);
      if (this.findShifts(h, this.planOf(key, places), PART_OF_THE_WAY)) return true;
      for (const i of places) known[i] = 1;
    }
    return false;
  }
  private shiftsOf(h: number): Shifts {
    const n = this.monitors.length;
    let own = this.shifts.get(h);
    if (!own)
      this.shifts.set(h, (own = { known: new Uint8Array(n), most: new Float64Array(n), touched: new Uint8Array(n) }));
    return own;
  }
  /**
   * Finds how far the monitors of a plan are taken.
   * @param enough ends at the first that is taken so far
   * @returns whether one is
   */
  private findShifts(h: number, { places, plan }: KeyPlan, enough?: number): boolean {
    const { most } = this.shiftsOf(h);
    const state: State = { key: plan.monitors[0]!.key, unplugged: [] };
    const modesAt = new Map<number, number>();
    const [ends, inside, others] = this.outerSamples(h);
    const look = (sample: number): boolean => {
      let modes = 0;
      for (const { look, judged } of looksOf(plan, this.phasesAt(state, sample % this.draws))) {
        const open = judged.filter((i) => most[places[i]!]! <= (enough ?? HARDLY));
        if (open.length === 0) continue;
        const s = this.solve(h, sample, state, look);
        modes = (Math.imul(modes, 31) + modesOf(s) + 1) | 0; // and how many looks it took
        for (const i of open) most[places[i]!] = Math.max(most[places[i]!]!, shiftOf(s, plan.monitors[i]!));
        if (enough !== undefined && open.some((i) => most[places[i]!]! > enough)) return true;
      }
      modesAt.set(sample, modes);
      return false;
    };
    if (ends.some(look)) return true;
    // while no device changes its state nothing in between goes further than the ends
    const isOneMode = modesAt.get(ends[0]!) === modesAt.get(ends.at(-1)!);
    return (!isOneMode && inside.some(look)) || others.some(look);
  }
  /**
   * A draw to start with, another for each fault. Numbers of several faults at once hang on what was searched before,
   * and what is predicted must not.
   */
  private startOf(h: number): number {
    return this.hypotheses[h]!.faults.length > 1 ? 0 : h;
  }
  /** The outer severities as drawn, three between them, and two in another draw. */
  private outerSamples(h: number): readonly [ends: number[], inside: number[], others: number[]] {
    const { draws } = this;
    const places = this.hypotheses[h]!.samples / draws;
    const last = places - 1;
    const inside = outerPlaces(places).filter((place) => place !== 0 && place !== last);
    const other = draws === 1 ? 0 : 1 + (this.startOf(h) % (draws - 1));
    const others = other === 0 ? [] : [...new Set([last * draws + other, (last >> 3) * draws + other])];
    return [[...new Set([0, last * draws])], inside.map((place) => place * draws), others];
  }
  /** The monitors of a group that a hypothesis moves; all of them for the healthy machine. */
  private planMoved(h: number, { key, places }: Group): KeyPlan {
    if (h === 0) return this.planOf(key, places);
    const { known, most, touched } = this.shiftsOf(h);
    const open = places.filter((i) => known[i] === 0 && most[i]! <= HARDLY);
    if (open.some((i) => this.monitors[i]!.node)) this.findTouched(h, key);
    else if (open.length) {
      this.findShifts(h, this.planOf(key, open));
      // of those that are moved it stopped short of finding how far
      for (const i of open) if (most[i]! <= HARDLY) known[i] = 1;
    }
    const moved = places.filter((i) => most[i]! > HARDLY || touched[i]! > UNTOUCHED);
    return this.planOf(key, moved, moved.length > 0 && moved.every((i) => touched[i] === TALK_ONLY));
  }
  /**
   * Marks the monitors that listen to a bus where a hypothesis touches a bus conductor, or moves what they watch while
   * no one talks: a look for each node that may talk is spared where it would show nothing new.
   */
  private findTouched(h: number, key: KeyState): void {
    const { known, touched } = this.shiftsOf(h);
    const listening = this.monitors.flatMap((m, i) => (m.node && m.key === key ? [i] : []));
    if (listening.every((i) => known[i] === 1 || touched[i]! !== UNTRIED)) return;
    const state: State = { key, unplugged: [] };
    for (const sample of this.outerSamples(h).flat()) {
      const phases = this.phasesAt(state, sample % this.draws);
      const s = this.solve(h, sample, state, { phase: phases[phases.length - 1]!.phase });
      const onBus = this.touchesBus(this.editOf(h, sample, state), s);
      for (const i of listening)
        if (shiftOf(s, this.monitors[i]!) > HARDLY) touched[i] = QUIET_TOO;
        else if (touched[i] !== QUIET_TOO) touched[i] = onBus ? TALK_ONLY : touched[i]! || UNTOUCHED;
    }
  }
  private touchesBus(edit: Edit, s: Solver): boolean {
    const { circuit } = s.conditions;
    this.busNodes ??= nodesOfBuses(circuit, this.monitors);
    const on = (node: number) => this.busNodes!.has(node);
    const elements = [
      ...(edit.series ?? []).map((x) => x.element),
      ...(edit.replace ?? []).map((x) => x.element),
      ...(edit.dead ?? []),
    ];
    return (
      (edit.shunts ?? []).some((x) => on(x.a) || on(x.b)) ||
      elements.some((i) => on(circuit.elements[i]!.a) || on(circuit.elements[i]!.b))
    );
  }
  /** What a hypothesis does not move is as on the healthy machine of the same draw. */
  private copyHealthy(h: number, group: Group, { places }: KeyPlan, bits: Uint8Array): void {
    if (places.length === group.places.length) return;
    const still = group.places.filter((i) => !places.includes(i));
    const healthy = this.of(0, still, false).bits;
    const n = this.monitors.length;
    for (let s = 0; s < this.hypotheses[h]!.samples; s++)
      for (const i of still) bits[s * n + i] = healthy[(s % this.draws) * n + i]!;
  }
  private smooth(h: number, group: Group, bits: Uint8Array, share: Float32Array): void {
    const { samples, stepped } = this.hypotheses[h]!;
    const { draws } = this;
    const n = this.monitors.length;
    const places = samples / draws;
    const { ownDraw, ofDraws, ofNeighbours } = DEFAULTS.codes.between;
    for (const i of group.places) {
      const mean = new Float64Array(places);
      for (let s = 0; s < samples; s++) mean[Math.floor(s / draws)]! += bits[s * n + i]! / draws;
      for (let s = 0; s < samples; s++) {
        const k = Math.floor(s / draws);
        const near = stepped ? ((mean[k - 1] ?? mean[k]!) + (mean[k + 1] ?? mean[k]!)) / 2 : mean[k]!;
        share[s * n + i] = ownDraw * bits[s * n + i]! + ofDraws * mean[k]! + ofNeighbours * near;
      }
    }
  }

  /** The codes of one hypothesis in any state, in every sample. */
  compute(h: number, state: State, bits: Uint8Array): void {
    const { places, plan } = this.planFor(state.key);
    for (let sample = 0; sample < this.hypotheses[h]!.samples; sample++)
      this.judge(h, sample, state, plan, (i) => {
        bits[sample * this.monitors.length + places[i]!] = 1;
      });
  }
  /** @returns a number for the states in which devices were at all looks */
  private judge(h: number, sample: number, state: State, plan: JudgePlan, set: (place: number) => void): number {
    let modes = 0;
    const solve = (look: Look) => {
      const s = this.solve(h, sample, state, look);
      modes = (Math.imul(modes, 31) + modesOf(s)) | 0;
      return s;
    };
    judge(plan, this.phasesAt(state, sample % this.draws), solve, set);
    return modes;
  }

  /** Codes sample by sample, with everything plugged: each is judged once. */
  private solvedOf(h: number, keyPlan: KeyPlan): JudgedCodes {
    const { places, plan } = keyPlan;
    let all = this.solved.get(h);
    if (!all) this.solved.set(h, (all = new Map()));
    let judged = all.get(keyPlan);
    if (!judged) all.set(keyPlan, (judged = { bits: [], modes: [] }));
    const { bits: known, modes } = judged;
    const state: State = { key: plan.monitors[0]?.key ?? "on", unplugged: [] };
    return {
      places,
      monitors: this.monitors.length,
      at: (sample) => {
        let bits = known[sample];
        if (!bits) {
          const own = (bits = known[sample] = new Uint8Array(places.length));
          modes[sample] = this.judge(h, sample, state, plan, (i) => {
            own[i] = 1;
          });
        }
        return bits;
      },
      modeAt: (sample) => modes[sample]!,
    };
  }
  private planFor(key: KeyState): KeyPlan {
    return this.planOf(
      key,
      this.monitors.flatMap((m, i) => (m.key === key ? [i] : [])),
    );
  }
  private planOf(key: KeyState, places: readonly number[], onlyTalk = false): KeyPlan {
    const name = `${key} ${places.join(" ")} ${onlyTalk}`;
    let known = this.plans.get(name);
    if (!known) {
      const plan = judgePlan(
        places.map((i) => this.monitors[i]!),
        onlyTalk,
      );
      this.plans.set(name, (known = { places, plan }));
    }
    return known;
  }
  /**
   * Two draws for each severity, each severity others, a few more near where the codes change; severities between two
   * that set the same codes are taken to set them too, and the other draws of a severity to do as those tried. What a
   * bus carries hangs little on what is drawn: there one draw does for all severities.
   */
  private roughly(h: number, found: CodesAlong, onBus: boolean): void {
    const { draws } = this;
    const { places, stepped } = found;
    const start = this.startOf(h);
    if (onBus) {
      found.draw(start % draws);
      found.fillDraws();
      return;
    }
    const own = (k: number) => (start + 3 * k) % draws;
    const second = (k: number) => (start + 3 * k + (draws >> 1)) % draws;
    const tryBoth = (k: number) => {
      found.solve(k, own(k));
      found.solve(k, second(k));
    };
    const same = (k: number, j: number) =>
      [[k, second(k)] as const, [j, own(j)] as const, [j, second(j)] as const].every(([place, draw]) =>
        found.alike(k, own(k), place, draw),
      );
    if (places === 1) for (let d = 0; d < draws; d++) found.solve(0, d);
    for (let k = 0; k < places; k++) if (!stepped || (k & 1) === 0 || k === places - 1) tryBoth(k);
    const told = (k: number) => (found.isSolved(k, own(k)) ? k : k - 1);
    for (let k = 1; stepped && k < places - 1; k += 2)
      if (!found.isSolved(k, own(k)) && !same(k - 1, k + 1)) tryBoth(k);
    const near: number[] = [];
    for (let k = 1; stepped && k < places; k++)
      if (!same(told(k - 1), told(k)))
        for (let j = Math.max(0, k - 1 - NEAR); j <= Math.min(places - 1, k + NEAR); j++) near.push(j);
    for (const j of near) for (let d = 0; d < MORE_DRAWS; d++) found.solve(j, (own(j) + 1 + 2 * d) % draws);
    found.fillDraws();
  }
}

/** Nodes joined by copper to the pins at which modules listen to a bus. */
function nodesOfBuses(circuit: Circuit, monitors: readonly BoundMonitor[]): Set<number> {
  const found = new Set(monitors.flatMap((m) => m.node?.lines.map((l) => l.here) ?? []));
  const beside = new Map<number, number[]>();
  for (const e of circuit.elements) {
    if (!COPPER.test(e.id)) continue;
    beside.set(e.a, [...(beside.get(e.a) ?? []), e.b]);
    beside.set(e.b, [...(beside.get(e.b) ?? []), e.a]);
  }
  found.delete(0);
  for (const node of found) for (const next of beside.get(node) ?? []) if (next !== 0) found.add(next); // grows
  return found;
}
/** Elements that are copper, by their ids. */
const COPPER = /^(contact|wire) /;
