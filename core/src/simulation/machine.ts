import type { FaultAt } from "../instruments/machineState.js";
import { DEFAULTS } from "../defaults.js";
import { misplacement } from "../diagnosis/misplaced.js";
import type { Fault } from "../faults/fault.js";
import { generateFaults } from "../faults/generate.js";
import type { Instrument, ReadingEntry, State } from "../format/case.js";
import type { Device, Wiring } from "../format/wiring.js";
import {
  readClamp,
  readContinuity,
  readLamp,
  readOhms,
  readScanTool,
  readScope,
  readVolts,
} from "../instruments/readings.js";
import { Rig } from "../instruments/rig.js";
import type { StimulusOf, ValueOf } from "../network/builder.js";
import { uniform } from "../prediction/draws.js";
import { OVERLOAD } from "../units/quantity.js";

export interface MachineOptions {
  /** how often an intermittent fault is there when somebody looks; 1 for lasting ones */
  readonly presence?: number;
  /** share of readings that are a slip of the hand: any value the meter can show */
  readonly slips?: number;
  /** share of codes that do not set though they should */
  readonly missed?: number;
  /** the technician works at `to` whenever told to work at `from` */
  readonly mistaken?: { readonly from: string; readonly to: string };
  /** one device is of another kind than the wiring says, where one can be found that sets no code by itself */
  readonly wrongKind?: boolean;
}

/**
 * A machine with hidden faults, for practice, tests and benchmarks. Same physics, never the engine's own values:
 * generic ones off by up to ±20 %, typed ones by up to ±5 %, true conditions anywhere in their range; the meter has
 * its own error and shows as many digits as a workshop meter.
 */
export class SimulatedMachine {
  /** the machine itself, for instruments beyond those of `read` */
  readonly rig: Rig;
  /** the same machine while an intermittent fault is not there */
  readonly calm: Rig;
  private readonly random: () => number;
  private readonly values = new Map<string, number>();
  private there = true;
  /** the part that is of another kind than the wiring says, if one is */
  odd: string | undefined;
  /** where the technician works without knowing it; nobody, once it is found out */
  mistaken: MachineOptions["mistaken"];

  /** @param faults what is wrong, each at a severity; none for a healthy machine */
  constructor(
    wiring: Wiring,
    readonly faults: readonly FaultAt[],
    seed: number,
    private readonly options: MachineOptions = {},
  ) {
    this.random = uniform(seed);
    this.mistaken = options.mistaken;
    const real = options.wrongKind ? this.withWrongKind(wiring, faults) : { wiring, faults };
    this.rig = this.build(real.wiring, real.faults);
    this.calm = this.build(real.wiring, []);
  }
  private build(wiring: Wiring, faults: readonly FaultAt[]): Rig {
    return new Rig(
      wiring,
      faults,
      (thing, parameter, nominal, kind) => this.value(thing, parameter, nominal, kind),
      (thing, range) => this.stimulus(thing, range),
    );
  }

  /** Somebody looks again: an intermittent fault is there, or not. Holds until the next call. */
  look(): void {
    this.there = this.options.presence === undefined || this.random() < this.options.presence;
  }

  /**
   * What the instrument's display shows at a point in a state: volts or ohms, OL as Infinity. NaN where it shows
   * nothing.
   */
  read(point: string, state: State, instrument: Instrument, black?: string): number {
    const at = this.mistaken;
    const moved = at
      ? misplacement(at.from, at.to, true).moved({ instrument, point, black, state })
      : { point, black, state };
    const value = this.shown(this.there ? this.rig : this.calm, moved.point, moved.state, instrument, moved.black);
    if (this.options.slips === undefined || this.random() >= this.options.slips || Number.isNaN(value)) return value;
    return instrument === "ohmmeter"
      ? round(10 ** (7 * this.random() - 0.5), 0.1)
      : round(this.rig.wiring.nominalVolt * 1.1 * this.random(), 0.01);
  }
  private shown(rig: Rig, point: string, state: State, instrument: Instrument, black: string | undefined): number {
    const noise = () => 2 * this.random() - 1;
    const volts = (v: number) => round(v * (1 + DEFAULTS.meter.accuracyShare * noise()), 0.01);
    switch (instrument) {
      case "voltmeter":
        return volts(readVolts(rig, state, point, black).value);
      case "scanTool": {
        const v = readScanTool(rig, state, point);
        return v.proves ? volts(v.value) : NaN;
      }
      case "clamp":
        return round(readClamp(rig, state, point).value + 0.02 * noise(), 0.01);
      case "scope": {
        const s = readScope(rig, state, point, black).value;
        return volts(s.most - s.least);
      }
      case "scopeLow":
        return volts(readScope(rig, state, point, black).value.least);
      case "scopeHigh":
        return volts(readScope(rig, state, point, black).value.most);
      case "continuity": {
        const c = readContinuity(rig, state, point, black);
        return c.proves ? (c.value ? 1 : 0) : NaN;
      }
      case "lamp": {
        const lamp = readLamp(
          rig,
          { ...state, loads: [] },
          state.loads?.[0]?.watt ?? DEFAULTS.lamp.watt,
          point,
          black,
        ).value;
        return lamp.brightness === "bright" ? 1 : lamp.brightness === "dim" ? 0.5 : 0;
      }
      case "ohmmeter": {
        const ohm = readOhms(rig, state, point, black).value;
        if (!Number.isFinite(ohm)) return ohm;
        const shown = ohm * (1 + 0.01 * noise()) + 0.2; // leads
        return shown > DEFAULTS.meter.overloadOhm
          ? OVERLOAD
          : round(shown, 10 ** Math.max(-1, Math.floor(Math.log10(shown)) - 2));
      }
    }
  }

  /** Whether what comes and goes shows itself while it is watched and the harness is moved. */
  showsItself(random: () => number): boolean {
    return random() >= (1 - (this.options.presence ?? 1)) ** WATCHED_LOOKS;
  }
  /**
   * What a value shows while the fault is there, and while it is away.
   * @returns undefined where that makes no difference to see
   */
  ends(point: string, state: State, instrument: Instrument): [there: number, away: number] | undefined {
    const there = this.shown(this.rig, point, state, instrument, undefined);
    const away = this.shown(this.calm, point, state, instrument, undefined);
    return Math.abs(there - away) > DEFAULTS.reading.flickerVolt ? [there, away] : undefined;
  }

  /** A reading as the logbook has it. @returns undefined where the instrument shows nothing at all */
  reading(at: string, instrument: Instrument, points: readonly string[], state: State): ReadingEntry | undefined {
    const values = points.map((p) => this.read(p, state, instrument));
    if (values.some(Number.isNaN)) return undefined;
    return {
      type: "reading",
      at,
      instrument,
      points: [...points],
      values: values.map((v) =>
        instrument === "lamp"
          ? v > 0.75
            ? "bright"
            : v > 0.25
              ? "dim"
              : "dark"
          : instrument === "continuity"
            ? v > 0.5
              ? "beep"
              : "silent"
            : v === OVERLOAD
              ? "OL"
              : v,
      ),
      state,
    };
  }

  /** The codes its modules have set, in document order. */
  codes(): { module: string; code: string }[] {
    return this.rig
      .codes()
      .filter(() => this.options.missed === undefined || this.random() >= this.options.missed)
      .map((m) => ({ module: m.code.module, code: m.code.id }));
  }

  /**
   * Another kind with the same pins in place of a part that no fault touches, if one can be found that sets no code by
   * itself.
   */
  private withWrongKind(wiring: Wiring, faults: readonly FaultAt[]): { wiring: Wiring; faults: readonly FaultAt[] } {
    const touched = new Set(faults.map((f) => f.fault.place.id));
    const parts = wiring.devices.filter((d) => OTHER_KIND[d.kind] && !touched.has(d.id));
    const start = Math.floor(this.random() * Math.max(1, parts.length));
    for (let i = 0; i < parts.length; i++) {
      const part = parts[(start + i) % parts.length]!;
      const other = {
        ...wiring,
        devices: wiring.devices.map((d) =>
          d.id === part.id
            ? ({
                kind: OTHER_KIND[d.kind],
                id: d.id,
                pins: (d as { pins: unknown }).pins,
                zones: d.zones,
                reachMinutes: d.reachMinutes,
                cautions: d.cautions,
              } as unknown as Device)
            : d,
        ),
      };
      const known = new Map(generateFaults(other).map((f) => [f.id, f]));
      const same = faults.map((f) => ({ fault: known.get(f.fault.id), severity: f.severity }));
      if (same.some((f) => f.fault === undefined)) continue;
      if (this.build(other, []).codes().length !== 0) continue;
      this.odd = part.id;
      return { wiring: other, faults: same as FaultAt[] };
    }
    return { wiring, faults };
  }

  private remembered(name: string): number {
    let u = this.values.get(name);
    if (u === undefined) this.values.set(name, (u = this.random()));
    return u;
  }
  private readonly value: ValueOf = (thing, parameter, nominal, kind) =>
    nominal * (1 + (2 * this.remembered(`${thing} ${parameter}`) - 1) * DEFAULTS.tolerance[kind]);
  private readonly stimulus: StimulusOf = (thing, range) =>
    range[0] + (range[1] - range[0]) * this.remembered(`${thing} at rest`);
}
/** Watching while the harness is moved is worth so many looks at what comes and goes. Judgement. */
const WATCHED_LOOKS = 3;
/** Kinds with the same pins, easily fitted in each other's place. */
const OTHER_KIND: Readonly<Partial<Record<Device["kind"], Device["kind"]>>> = {
  threeWireSensor: "potentiometer",
  potentiometer: "threeWireSensor",
  solenoid: "heater",
  heater: "solenoid",
};

/** One fault of a document by what it is called, at a severity off the engine's grid. */
export function severityOffGrid(fault: Fault, u: number): number {
  const grid = fault.severities;
  if (grid.length < 2) return grid[0] ?? NaN;
  const at = u * (grid.length - 1);
  const i = Math.min(grid.length - 2, Math.floor(at));
  const t = at - i;
  const [a, b] = [grid[i]!, grid[i + 1]!];
  return a > 0 && b > 0 ? a * (b / a) ** t : a + (b - a) * t;
}

const round = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(6));
