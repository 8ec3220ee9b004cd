import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { uniform } from "../diagnosis/draws.js";
import type { Instrument } from "../diagnosis/predictor.js";
import type { Fault } from "../faults/fault.js";
import { readOhms, readVolts } from "../instruments/readings.js";
import { Rig } from "../instruments/rig.js";
import type { StimulusOf, ValueOf } from "../network/builder.js";
import { OVERLOAD } from "../units/quantity.js";

/**
 * A machine with a hidden fault, for practice, tests and benchmarks. Same physics, never the engine's own values:
 * generic ones off by up to ±20 %, typed ones by up to ±5 %, true conditions anywhere in their range; the meter has
 * its own error and shows as many digits as a workshop meter.
 */
export class SimulatedMachine {
  /** the machine itself, for instruments beyond those of `read` */
  readonly rig: Rig;
  private readonly random: () => number;
  private readonly values = new Map<string, number>();
  /** @param fault what is wrong, at `severity`; undefined for a healthy machine */
  constructor(wiring: Wiring, fault: Fault | undefined, severity: number, seed: number) {
    this.random = uniform(seed);
    this.rig = new Rig(wiring, fault ? [{ fault, severity }] : [], (thing, parameter, nominal, kind) => this.value(thing, parameter, nominal, kind), (thing, range) => this.stimulus(thing, range));
  }

  /** What the instrument's display shows at a point in a state: volts or ohms, OL as Infinity. NaN where ohms are taken under power. */
  read(point: string, state: State, instrument: Instrument): number {
    const noise = () => 2 * this.random() - 1;
    if (instrument === "voltmeter") return round(readVolts(this.rig, state, point).value * (1 + DEFAULTS.meter.accuracyShare * noise()), 0.01);
    const ohm = readOhms(this.rig, state, point).value;
    if (!Number.isFinite(ohm)) return ohm;
    const shown = ohm * (1 + 0.01 * noise()) + 0.2; // leads
    return shown > DEFAULTS.meter.overloadOhm ? OVERLOAD : round(shown, 10 ** Math.max(-1, Math.floor(Math.log10(shown)) - 2));
  }

  /** The codes its modules have set, in document order. */
  codes(): { module: string; code: string }[] {
    return this.rig.codes().map((m) => ({ module: m.code.module, code: m.code.id }));
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
