import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import { judge, judgePlan, phasesOf, type Look, type Phase } from "../codes/judge.js";
import { bindMonitors, type BoundMonitor } from "../codes/monitors.js";
import type { Fault } from "../faults/fault.js";
import { generateFaults } from "../faults/generate.js";
import { ohmmeter, voltmeter } from "../instruments/meter.js";
import { batteryOf } from "../instruments/rig.js";
import { batteryVolt } from "../network/builder.js";
import { NO_EDIT, type Circuit } from "../network/element.js";
import { analyse, type Pattern } from "../network/pattern.js";
import { measureOhms } from "../network/observe.js";
import { prepare, settle } from "../network/settle.js";
import { createSolver, type Solver } from "../network/solver.js";
import { conditionsOf, isSpecial, stateName } from "../network/state.js";
import { meterPoints } from "../wiring/points.js";
import { Draws } from "./draws.js";

export type Instrument = "voltmeter" | "ohmmeter";

/** One way the machine may be: a fault at one severity in one draw. Sample index = severity · draws + draw. */
export interface Hypothesis {
  readonly fault: Fault | undefined;
  readonly samples: number;
}

/** A circuit of one draw in one machine state, solved healthy for each look taken so far. */
interface Prepared { readonly circuit: Circuit; readonly pattern: Pattern; readonly phases: readonly Phase[]; readonly supply: number; readonly solvers: Solver[] }

/** Numbers kept in prepared solutions, all together. */
const PREPARED_NUMBERS = 12e6;
/** Parts of a circuit that a fault moves by less than this are left as they were, volt and ohm: far below what a meter tells apart. */
const NEGLIGIBLE_VOLT = 1e-4, NEGLIGIBLE_OHM = 200;

/** Predictions of one hypothesis under one state with one instrument; volts or ohms, [sample · points + point]. */
interface Column { readonly values: Float32Array; readonly done: Uint8Array }

/**
 * Predicts what every hypothesis would show, and remembers it: nothing computed here depends on evidence, so a new
 * reading only looks things up. Hypothesis 0 is the healthy machine; hypothesis i + 1 is `faults[i]`.
 */
export class Predictor {
  readonly faults: readonly Fault[];
  readonly hypotheses: readonly Hypothesis[];
  readonly draws: number;
  /** where a meter can be put, by endpoint name */
  readonly points: readonly string[];
  readonly pointIndex: ReadonlyMap<string, number>;
  readonly monitors: readonly BoundMonitor[];
  /** how many times the circuit has been solved */
  solves = 0;
  /** hypotheses with a sample whose devices found no consistent state */
  readonly unsettled = new Set<number>();
  private readonly drawn: Draws;
  private readonly pattern: Pattern;
  private readonly nodes: Int32Array;
  private readonly columns = new Map<string, Map<number, Column>>();
  private readonly codeBits = new Map<number, { readonly bits: Uint8Array; readonly done: Set<KeyState> }>();
  /** healthy solutions by state, draw and look: what faults start from; the least lately used is dropped */
  private readonly prepared = new Map<string, Prepared>();

  constructor(readonly wiring: Wiring, seed = 1) {
    this.faults = generateFaults(wiring);
    const nominal = new Draws(wiring, 1, seed).circuit({ key: "on", unplugged: [] }, 0);
    this.points = meterPoints(wiring).filter((p) => nominal.nodeOf.has(p));
    this.pointIndex = new Map(this.points.map((p, i) => [p, i]));
    const severities = this.faults.reduce((sum, f) => sum + f.severities.length, 1);
    // a large machine gets fewer draws, so that one state's predictions stay within the budget
    this.draws = Math.max(2, Math.min(DEFAULTS.draws, Math.floor(DEFAULTS.predictionBudget / (severities * nominal.nodes.length))));
    this.drawn = new Draws(wiring, this.draws, seed);
    this.hypotheses = [undefined, ...this.faults].map((fault) => ({ fault, samples: (fault?.severities.length ?? 1) * this.draws }));
    this.pattern = analyse(nominal);
    this.nodes = Int32Array.from(this.points, (p) => nominal.nodeOf.get(p)!);
    this.monitors = bindMonitors(wiring, nominal);
  }

  severityOf(h: number, sample: number): number {
    return this.hypotheses[h]!.fault?.severities[Math.floor(sample / this.draws)] ?? NaN;
  }

  /**
   * What the instrument would show at every point.
   * @param wanted samples needed (1), or all when undefined
   * @returns volts or ohms as [sample · points.length + point]; only the wanted samples are filled
   */
  predict(h: number, state: State, instrument: Instrument, wanted?: Uint8Array): Float32Array {
    const name = `${instrument} ${stateName(state)}`;
    let column = this.columns.get(name);
    if (!column) this.columns.set(name, (column = new Map()));
    const { samples } = this.hypotheses[h]!;
    let entry = column.get(h);
    if (!entry) column.set(h, (entry = { values: new Float32Array(samples * this.points.length), done: new Uint8Array(samples) }));
    // draw by draw: all severities of one draw start from the same healthy solution
    for (let draw = 0; draw < this.draws; draw++) {
      for (let sample = draw; sample < samples; sample += this.draws) {
        if (entry.done[sample] || (wanted && !wanted[sample])) continue;
        this.read(h, sample, state, instrument, entry.values.subarray(sample * this.nodes.length, (sample + 1) * this.nodes.length));
        entry.done[sample] = 1;
      }
    }
    return entry.values;
  }

  private read(h: number, sample: number, state: State, instrument: Instrument, into: Float32Array): void {
    const { circuit, phases } = this.at(state, sample % this.draws);
    const nodes = isSpecial(state) ? this.points.map((p) => circuit.nodeOf.get(p)!) : this.nodes;
    if (instrument === "ohmmeter") {
      const s = this.solve(h, sample, state, { phase: phases[phases.length - 1]!.phase });
      measureOhms(s);
      for (let p = 0; p < nodes.length; p++) into[p] = ohmmeter(s, nodes[p]!);
      return;
    }
    for (const part of phases) {
      const s = this.solve(h, sample, state, { phase: part.phase });
      measureOhms(s, NEGLIGIBLE_OHM);
      for (let p = 0; p < nodes.length; p++) into[p] = (part.phase === 0 ? 0 : into[p]!) + part.share * voltmeter(s, nodes[p]!);
    }
  }

  /**
   * Which codes each sample sets with everything plugged: [sample · monitors + monitor], 1 set.
   * @param wanted monitors that matter; the others may be left at 0
   */
  codesSet(h: number, wanted: readonly number[]): Uint8Array {
    let known = this.codeBits.get(h);
    if (!known) this.codeBits.set(h, (known = { bits: new Uint8Array(this.hypotheses[h]!.samples * this.monitors.length), done: new Set() }));
    for (const i of wanted) {
      const { key } = this.monitors[i]!;
      if (known.done.has(key)) continue;
      this.computeCodes(h, { key, unplugged: [] }, known.bits);
      known.done.add(key);
    }
    return known.bits;
  }

  /** The codes a healthy machine sets with these connectors unplugged: set by ourselves, so no evidence. */
  codesSetByDisturbing(disturbed: readonly string[]): ReadonlySet<number> {
    const plugs = new Set(this.wiring.connectors.map((c) => c.id)), fuses = new Set(this.wiring.devices.flatMap((d) => (d.kind === "fuse" || d.kind === "breaker" ? [d.id] : [])));
    const unplugged = disturbed.filter((d) => plugs.has(d)), pulled = disturbed.filter((d) => fuses.has(d));
    const bits = new Uint8Array(this.hypotheses[0]!.samples * this.monitors.length);
    for (const key of new Set(this.monitors.map((m) => m.key))) this.computeCodes(0, { key, unplugged, ...(pulled.length ? { pulled } : {}) }, bits);
    const some = new Set<number>();
    bits.forEach((bit, i) => { if (bit) some.add(i % this.monitors.length); });
    return some;
  }

  private computeCodes(h: number, state: State, bits: Uint8Array): void {
    const { samples } = this.hypotheses[h]!;
    const places = this.monitors.flatMap((m, i) => (m.key === state.key ? [i] : []));
    const plan = judgePlan(places.map((i) => this.monitors[i]!));
    for (let draw = 0; draw < this.draws; draw++) {
      const { phases } = this.at(state, draw);
      for (let sample = draw; sample < samples; sample += this.draws) {
        judge(plan, phases, (look) => this.solve(h, sample, state, look), (i) => { bits[sample * this.monitors.length + places[i]!] = 1; });
      }
    }
  }

  private solve(h: number, sample: number, state: State, look: Look): Solver {
    const at = this.at(state, sample % this.draws);
    let s = at.solvers.find((x) => x.conditions.steel === look.steel && x.conditions.phase === look.phase && x.conditions.talker === look.talker);
    if (!s) {
      s = createSolver(at.circuit, at.pattern);
      if (!prepare(s, conditionsOf(at.circuit, state, look)).settled) this.unsettled.add(0);
      at.solvers.push(s);
    }
    this.solves++;
    const { fault } = this.hypotheses[h]!;
    if (!settle(s, fault ? fault.edit(this.severityOf(h, sample), at.circuit, at.supply) : NO_EDIT, NEGLIGIBLE_VOLT).settled) this.unsettled.add(h);
    return s;
  }

  private at(state: State, draw: number): Prepared {
    const last = this.lastAt;
    if (last?.state === state && last.draw === draw) return last.here;
    const name = `${draw} ${stateName(state)}`;
    let here = this.prepared.get(name);
    if (here) this.prepared.delete(name); // and put back as the latest
    else {
      const circuit = this.drawn.circuit(state, draw);
      here = { circuit, pattern: isSpecial(state) ? analyse(circuit) : this.pattern, phases: phasesOf(circuit), supply: batteryVolt(this.wiring, state.key, batteryOf(this.wiring)), solvers: [] };
      const each = 60 * this.pattern.n;
      while (this.prepared.size > 2 * this.draws && this.prepared.size * each > PREPARED_NUMBERS) this.prepared.delete(this.prepared.keys().next().value!);
    }
    this.prepared.set(name, here);
    this.lastAt = { state, draw, here };
    return here;
  }
  private lastAt: { state: State; draw: number; here: Prepared } | undefined;
}
