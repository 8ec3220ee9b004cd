import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { KeyState, Wiring } from "../format/wiring.js";
import { bindMonitors, isSet, lacksActivity, moduleSideVolt } from "../codes/monitors.js";
import { uniform } from "../diagnosis/draws.js";
import { batteryOf, type Instrument } from "../diagnosis/predictor.js";
import type { Fault } from "../faults/fault.js";
import { faultPairs, generateFaults } from "../faults/generate.js";
import { ohmmeter, voltmeter } from "../instruments/meter.js";
import { batteryVolt, compile, type StimulusOf, type ValueOf } from "../network/compile.js";
import { NO_EDIT, type Circuit } from "../network/element.js";
import { createSolver, measureOhms, openedBy, settle, type Conditions } from "../network/settle.js";
import { OVERLOAD } from "../units/quantity.js";

/**
 * A machine with a hidden fault, for practice, tests and benchmarks. Same physics, never the engine's own values:
 * generic ones off by up to ±20 %, typed ones by up to ±5 %, true conditions anywhere in their range; the meter has
 * its own error and shows as many digits as a workshop meter.
 */
export class SimulatedMachine {
  private readonly random: () => number;
  private readonly values = new Map<string, number>();
  private readonly circuits = new Map<KeyState, Circuit>();
  private readonly solver;
  /** @param fault what is wrong, at `ohm`; undefined for a healthy machine */
  constructor(private readonly wiring: Wiring, private readonly fault: Fault | undefined, private readonly ohm: number, seed: number) {
    this.random = uniform(seed);
    this.solver = createSolver(this.circuit("on"), faultPairs(generateFaults(wiring), this.circuit("on")));
  }

  /** What the instrument's display shows at a point in a state: volts or ohms, OL as Infinity. NaN where ohms are taken under power. */
  read(point: string, state: State, instrument: Instrument): number {
    const node = this.circuit(state.key).nodeOf.get(point);
    if (node === undefined) throw new RangeError(`no point "${point}" on this machine`);
    settle(this.solver, this.conditions(state));
    measureOhms(this.solver);
    const noise = 2 * this.random() - 1;
    if (instrument === "voltmeter") return round(voltmeter(this.solver, node) * (1 + DEFAULTS.meter.accuracyShare * noise), 0.01);
    const ohm = ohmmeter(this.solver, node);
    if (!Number.isFinite(ohm)) return ohm;
    const shown = ohm * (1 + 0.01 * noise) + 0.2; // leads
    return shown > DEFAULTS.meter.overloadOhm ? OVERLOAD : round(shown, 10 ** Math.max(-1, Math.floor(Math.log10(shown)) - 2));
  }

  /** The codes its modules have set, in document order. */
  codes(): { module: string; code: string }[] {
    const circuit = this.circuit("on");
    return bindMonitors(this.wiring, circuit).filter((m) => {
      const at = (steel: boolean | undefined) => settle(this.solver, { ...this.conditions({ key: m.key, unplugged: [] }), steel });
      if (m.monitor.type !== "noActivity") { at(undefined); return isSet(this.solver, m); }
      at(true);
      const withSteel = moduleSideVolt(this.solver, m);
      at(false);
      return lacksActivity(withSteel, moduleSideVolt(this.solver, m), this.solver.awake[m.gate] === 1);
    }).map((m) => ({ module: m.code.module, code: m.code.id }));
  }

  private conditions(state: State): Conditions {
    const circuit = this.circuit(state.key);
    const edit = this.fault?.edit(this.ohm, circuit, batteryVolt(this.wiring, state.key, batteryOf(this.wiring))) ?? NO_EDIT;
    return { circuit, edit, open: openedBy(circuit, state.unplugged), keyOn: state.key !== "off" };
  }
  private circuit(key: KeyState): Circuit {
    let circuit = this.circuits.get(key);
    if (!circuit) this.circuits.set(key, (circuit = compile(this.wiring, key, this.value, this.stimulus)));
    return circuit;
  }
  private remembered(name: string): number {
    let u = this.values.get(name);
    if (u === undefined) this.values.set(name, (u = this.random()));
    return u;
  }
  private readonly value: ValueOf = (thing, parameter, nominal, kind) => nominal * (1 + (2 * this.remembered(`${thing} ${parameter}`) - 1) * DEFAULTS.tolerance[kind]);
  private readonly stimulus: StimulusOf = (thing, range) => range[0] + (range[1] - range[0]) * this.remembered(`${thing} at rest`);
}

const round = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(6));
