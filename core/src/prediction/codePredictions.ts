import type { Hypothesis } from "./hypothesis.js";
import { judge, judgePlan, looksOf, type JudgePlan, type Look, type Phase } from "../codes/judge.js";
import { shiftOf, type BoundMonitor } from "../codes/monitors.js";
import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { KeyState } from "../format/wiring.js";
import type { Solver } from "../network/solver.js";

/** Further draws near where codes change, and how many severities to either side. Judgement: time. */
const MORE_DRAWS = 3;
const NEAR = 2;

/** Codes of one hypothesis: set (1) and how likely set, both [sample · monitors + monitor]; for these key positions. */
interface Known {
  readonly bits: Uint8Array;
  readonly share: Float32Array;
  readonly done: Set<KeyState>;
}

/** Monitors of one key state, with their places among all. */
interface KeyPlan {
  readonly places: readonly number[];
  readonly plan: JudgePlan;
}
/** By monitor: how far a hypothesis takes it towards setting its code at the most, and whether all of it was tried. */
interface Shifts {
  readonly known: Uint8Array;
  readonly most: Float64Array;
}
/**
 * A monitor that no severity tried takes so far stays as it is, see `shiftOf`; one that is taken no further than that
 * sets no code. Judgement.
 */
const HARDLY = 0.03;
const PART_OF_THE_WAY = 0.25;

/** Which codes every hypothesis would set, worked out on first asking and remembered. */
export class CodePredictions {
  private readonly full = new Map<number, Known>();
  private readonly rough = new Map<number, Known>();
  private readonly shifts = new Map<number, Shifts>();
  private readonly plans = new Map<string, KeyPlan>();
  constructor(
    private readonly hypotheses: readonly Hypothesis[],
    private readonly draws: number,
    private readonly monitors: readonly BoundMonitor[],
    private readonly phasesAt: (state: State, draw: number) => readonly Phase[],
    private readonly solve: (h: number, sample: number, state: State, look: Look) => Solver,
  ) {}

  forgetFrom(first: number): void {
    for (const map of [this.full, this.rough, this.shifts])
      for (const h of [...map.keys()]) if (h >= first) map.delete(h);
  }

  /** Bits and probabilities of the codes of one hypothesis; `rough`: of most samples from their neighbours. */
  of(h: number, wanted: readonly number[], rough: boolean): Known {
    const store = rough ? this.rough : this.full;
    let known = store.get(h);
    const size = this.hypotheses[h]!.samples * this.monitors.length;
    if (!known) store.set(h, (known = { bits: new Uint8Array(size), share: new Float32Array(size), done: new Set() }));
    for (const i of wanted) {
      const { key } = this.monitors[i]!;
      if (known.done.has(key)) continue;
      const plan = this.planMoved(h, key);
      if (rough) this.computeRoughly(h, key, plan, known.bits);
      else this.compute(h, { key, unplugged: [] }, known.bits, undefined, plan);
      if (h > 0) this.copyHealthy(h, key, plan, known.bits);
      known.done.add(key);
      this.smooth(h, key, known.bits, known.share);
    }
    return known;
  }

  /**
   * Whether a hypothesis takes any of these monitors part of the way to setting its code: tried at its first, middle
   * and last severity as drawn, and at the outer two in another draw. While no device changes its state, a voltage is a
   * fraction of two straight lines in a conductance and so runs one way: what stays at both ends stays in between.
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
    if (!own) this.shifts.set(h, (own = { known: new Uint8Array(n), most: new Float64Array(n) }));
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
    for (const sample of this.outerSamples(h))
      for (const { look, judged } of looksOf(plan, this.phasesAt(state, sample % this.draws))) {
        const open = judged.filter((i) => most[places[i]!]! <= (enough ?? HARDLY));
        if (open.length === 0) continue;
        const s = this.solve(h, sample, state, look);
        for (const i of open) most[places[i]!] = Math.max(most[places[i]!]!, shiftOf(s, plan.monitors[i]!));
        if (enough !== undefined && open.some((i) => most[places[i]!]! > enough)) return true;
      }
    return false;
  }
  private outerSamples(h: number): Set<number> {
    const { draws } = this;
    const places = this.hypotheses[h]!.samples / draws;
    const last = (places - 1) * draws;
    const other = draws === 1 ? 0 : 1 + (h % (draws - 1));
    return new Set([last, 0, (places >> 1) * draws, last + other, other]);
  }
  /** The monitors of a key state that a hypothesis moves; all of them for the healthy machine. */
  private planMoved(h: number, key: KeyState): KeyPlan {
    const whole = this.planFor(key);
    if (h === 0 || whole.places.length === 0) return whole;
    const { known, most } = this.shiftsOf(h);
    const open = whole.places.filter((i) => known[i] === 0 && most[i]! <= HARDLY);
    if (open.length) {
      this.findShifts(h, this.planOf(key, open));
      for (const i of open) known[i] = 1;
    }
    const places = whole.places.filter((i) => most[i]! > HARDLY);
    return places.length === whole.places.length ? whole : this.planOf(key, places);
  }
  /** What a hypothesis does not move is as on the healthy machine of the same draw. */
  private copyHealthy(h: number, key: KeyState, { places }: KeyPlan, bits: Uint8Array): void {
    const whole = this.planFor(key).places;
    if (places.length === whole.length) return;
    const still = whole.filter((i) => !places.includes(i));
    const healthy = this.of(0, still, false).bits;
    const n = this.monitors.length;
    for (let s = 0; s < this.hypotheses[h]!.samples; s++)
      for (const i of still) bits[s * n + i] = healthy[(s % this.draws) * n + i]!;
  }
  private smooth(h: number, key: KeyState, bits: Uint8Array, share: Float32Array): void {
    const { samples, stepped } = this.hypotheses[h]!;
    const { draws } = this;
    const n = this.monitors.length;
    const places = samples / draws;
    const { ownDraw, ofDraws, ofNeighbours } = DEFAULTS.codes.between;
    this.monitors.forEach((m, i) => {
      if (m.key !== key) return;
      const mean = new Float64Array(places);
      for (let s = 0; s < samples; s++) mean[Math.floor(s / draws)]! += bits[s * n + i]! / draws;
      for (let s = 0; s < samples; s++) {
        const k = Math.floor(s / draws);
        const near = stepped ? ((mean[k - 1] ?? mean[k]!) + (mean[k + 1] ?? mean[k]!)) / 2 : mean[k]!;
        share[s * n + i] = ownDraw * bits[s * n + i]! + ofDraws * mean[k]! + ofNeighbours * near;
      }
    });
  }

  /** @param wanted samples worked out (1); all when undefined */
  compute(
    h: number,
    state: State,
    bits: Uint8Array,
    wanted?: Uint8Array,
    { places, plan }: KeyPlan = this.planFor(state.key),
  ): void {
    if (places.length === 0) return;
    const { samples } = this.hypotheses[h]!;
    for (let draw = 0; draw < this.draws; draw++) {
      for (let sample = draw; sample < samples; sample += this.draws) {
        if (wanted && !wanted[sample]) continue;
        judge(
          plan,
          this.phasesAt(state, draw),
          (look) => this.solve(h, sample, state, look),
          (i) => {
            bits[sample * this.monitors.length + places[i]!] = 1;
          },
        );
      }
    }
  }
  private planFor(key: KeyState): KeyPlan {
    return this.planOf(
      key,
      this.monitors.flatMap((m, i) => (m.key === key ? [i] : [])),
    );
  }
  private planOf(key: KeyState, places: readonly number[]): KeyPlan {
    const name = `${key} ${places.join(" ")}`;
    let known = this.plans.get(name);
    if (!known) this.plans.set(name, (known = { places, plan: judgePlan(places.map((i) => this.monitors[i]!)) }));
    return known;
  }
  /**
   * Two draws for each severity, each severity others, a few more near where the codes change; severities between two
   * that set the same codes are taken to set them too, and the other draws of a severity to do as those tried.
   */
  private computeRoughly(h: number, key: KeyState, keyPlan: KeyPlan, bits: Uint8Array): void {
    const { places } = keyPlan;
    if (places.length === 0) return;
    const { samples, stepped } = this.hypotheses[h]!;
    const { draws } = this;
    const n = this.monitors.length;
    const count = samples / draws;
    const state: State = { key, unplugged: [] };
    const done = new Uint8Array(samples);
    const compute = (wanted: Uint8Array) => {
      this.compute(h, state, bits, wanted, keyPlan);
      wanted.forEach((w, s) => {
        if (w) done[s] = 1;
      });
    };
    const own = (k: number) => (h + 3 * k) % draws;
    const second = (k: number) => (h + 3 * k + (draws >> 1)) % draws;
    const alike = (a: number, b: number) => places.every((i) => bits[a * n + i] === bits[b * n + i]);
    const same = (k: number, j: number) => {
      const a = k * draws + own(k);
      return [k * draws + second(k), j * draws + own(j), j * draws + second(j)].every((b) => alike(a, b));
    };
    const first = new Uint8Array(samples);
    if (count === 1) first.fill(1);
    else
      for (let k = 0; k < count; k++)
        if (!stepped || (k & 1) === 0 || k === count - 1) first[k * draws + own(k)] = first[k * draws + second(k)] = 1;
    compute(first);
    // severities between two that do not set the same codes, and further draws near where codes change: there it hangs
    // on the draw
    const between = new Uint8Array(samples);
    const near = new Uint8Array(samples);
    for (let k = 1; stepped && k < count - 1; k += 2)
      if (!done[k * draws + own(k)] && !same(k - 1, k + 1))
        between[k * draws + own(k)] = between[k * draws + second(k)] = 1;
    compute(between);
    const told = (k: number) => (done[k * draws + own(k)] ? k : k - 1);
    if (stepped)
      for (let k = 1; k < count; k++) {
        if (same(told(k - 1), told(k))) continue;
        for (let j = Math.max(0, k - 1 - NEAR); j <= Math.min(count - 1, k + NEAR); j++)
          for (let d = 0; d < MORE_DRAWS; d++) {
            const s = j * draws + ((own(j) + 1 + 2 * d) % draws);
            if (!done[s]) near[s] = 1;
          }
      }
    compute(near);
    for (let k = 0; k < count; k++) {
      const known = Array.from({ length: draws }, (_, d) => k * draws + d).filter((s) => done[s]);
      const source = known.length ? known : [(k - 1) * draws + own(k - 1), (k - 1) * draws + second(k - 1)];
      for (let d = 0; d < draws; d++) {
        const s = k * draws + d;
        if (!done[s]) for (const i of places) bits[s * n + i] = bits[source[d % source.length]! * n + i]!;
      }
    }
  }
}
