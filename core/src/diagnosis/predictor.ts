import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import { bindMonitors, isSet, lacksActivity, moduleSideVolt, type BoundMonitor } from "../codes/monitors.js";
import type { Fault } from "../faults/fault.js";
import { faultPairs, generateFaults } from "../faults/generate.js";
import { ohmmeter, voltmeter } from "../instruments/meter.js";
import { batteryVolt } from "../network/compile.js";
import { NO_EDIT, type Edit } from "../network/element.js";
import { createSolver, measureOhms, openedBy, settle, type Conditions, type Solver } from "../network/settle.js";
import { Draws } from "./draws.js";

export type Instrument = "voltmeter" | "ohmmeter";

/** One way the machine may be: a fault at one severity in one draw. Sample index = severity · draws + draw. */
export interface Hypothesis {
  readonly fault: Fault | undefined;
  readonly samples: number;
}

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
  private readonly solver: Solver;
  private readonly nodes: Int32Array;
  private readonly columns = new Map<string, Map<number, Column>>();
  private readonly codeBits = new Map<number, { readonly bits: Uint8Array; readonly done: Set<KeyState> }>();
  /** what the last state opens, by identity of the state: states come in runs */
  private openIn: { state: State; open: Uint8Array; supply: number } | undefined;

  constructor(readonly wiring: Wiring, seed = 1) {
    this.faults = generateFaults(wiring);
    const nominal = new Draws(wiring, 1, seed).circuit("on", 0);
    this.points = meterPoints(wiring).filter((p) => nominal.nodeOf.has(p));
    this.pointIndex = new Map(this.points.map((p, i) => [p, i]));
    const severities = this.faults.reduce((sum, f) => sum + f.severities.length, 1);
    // a large machine gets fewer draws, so that one state's predictions stay within the budget
    this.draws = Math.max(2, Math.min(DEFAULTS.draws, Math.floor(DEFAULTS.predictionBudget / (severities * nominal.nodes.length))));
    this.drawn = new Draws(wiring, this.draws, seed);
    this.hypotheses = [undefined, ...this.faults].map((fault) => ({ fault, samples: (fault?.severities.length ?? 1) * this.draws }));
    this.solver = createSolver(nominal, faultPairs(this.faults, nominal));
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
    const read = instrument === "voltmeter" ? voltmeter : ohmmeter;
    for (let sample = 0; sample < samples; sample++) {
      if (entry.done[sample] || (wanted && !wanted[sample])) continue;
      this.settleSample(h, sample, state);
      measureOhms(this.solver);
      for (let p = 0; p < this.nodes.length; p++) entry.values[sample * this.nodes.length + p] = read(this.solver, this.nodes[p]!);
      entry.done[sample] = 1;
    }
    return entry.values;
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
      this.computeCodes(h, key, [], known.bits);
      known.done.add(key);
    }
    return known.bits;
  }

  /** The codes a healthy machine sets with these connectors unplugged: set by ourselves, so no evidence. */
  codesSetByUnplugging(unplugged: readonly string[]): ReadonlySet<number> {
    const bits = new Uint8Array(this.hypotheses[0]!.samples * this.monitors.length);
    for (const key of new Set(this.monitors.map((m) => m.key))) this.computeCodes(0, key, unplugged, bits);
    const some = new Set<number>();
    bits.forEach((bit, i) => { if (bit) some.add(i % this.monitors.length); });
    return some;
  }

  private computeCodes(h: number, key: KeyState, unplugged: readonly string[], bits: Uint8Array): void {
    const { samples } = this.hypotheses[h]!;
    const here = this.monitors.flatMap((m, i) => (m.key === key ? [[m, i] as const] : []));
    const moving = here.filter(([m]) => m.monitor.type === "noActivity");
    const state: State = { key, unplugged: [...unplugged] };
    for (let sample = 0; sample < samples; sample++) {
      const set = (i: number) => { bits[sample * this.monitors.length + i] = 1; };
      this.settleSample(h, sample, state, moving.length ? true : undefined);
      for (const [m, i] of here) if (isSet(this.solver, m)) set(i);
      if (!moving.length) continue;
      const withSteel = moving.map(([m]) => moduleSideVolt(this.solver, m));
      this.settleSample(h, sample, state, false);
      moving.forEach(([m, i], j) => { if (lacksActivity(withSteel[j]!, moduleSideVolt(this.solver, m), this.solver.awake[m.gate] === 1)) set(i); });
    }
  }

  private settleSample(h: number, sample: number, state: State, steel?: boolean): void {
    const conditions = this.conditions(h, sample, state, steel);
    this.solves++;
    if (!settle(this.solver, conditions).settled) this.unsettled.add(h);
  }

  private conditions(h: number, sample: number, state: State, steel?: boolean): Conditions {
    const circuit = this.drawn.circuit(state.key, sample % this.draws);
    if (this.openIn?.state !== state) this.openIn = { state, open: openedBy(circuit, state.unplugged), supply: batteryVolt(this.wiring, state.key, batteryOf(this.wiring)) };
    const { fault } = this.hypotheses[h]!;
    const edit: Edit = fault ? fault.edit(this.severityOf(h, sample), circuit, this.openIn.supply) : NO_EDIT;
    return { circuit, edit, open: this.openIn.open, keyOn: state.key !== "off", steel };
  }
}

export const stateName = (state: State) => `${state.key} -${[...state.unplugged].sort().join(",")}`;
export const batteryOf = (wiring: Wiring) => { const b = wiring.devices.find((d) => d.kind === "battery"); return b?.kind === "battery" ? b.volt : undefined; };

/** Every place a meter lead can touch: cavities on the harness side, terminals of fuses, switches and batteries. */
export function meterPoints(wiring: Wiring): string[] {
  return [
    ...wiring.connectors.flatMap((c) => c.cavities.flatMap((cavity) => (c.inline ? [`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`] : [`${c.id}:${cavity}`]))),
    ...wiring.devices.flatMap((d) => (d.kind === "fuse" || d.kind === "switch" ? [`${d.id}:in`, `${d.id}:out`] : d.kind === "battery" ? [`${d.id}:+`, `${d.id}:-`] : d.kind === "splice" || d.kind === "ground" ? [d.id] : [])),
  ];
}
