import type { Look } from "../codes/judge.js";
import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { MachineState } from "../instruments/machineState.js";
import { ohmmeter, OHMS_NEED_BELOW_VOLT, voltmeter } from "../instruments/meter.js";
import { innerGround } from "../network/compileModule.js";
import { NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import { elementAmpere, measureOhms, nodeVolt, ohmBetween } from "../network/observe.js";
import type { Solver } from "../network/solver.js";
import { isSpecial } from "../network/state.js";
import { OVERLOAD } from "../units/quantity.js";
import { meterPoints, pinBehind, wireId } from "../wiring/points.js";
import { QUANTITY, type Quantity } from "./quantity.js";

/** Solves one sample of a hypothesis for a look, with what an instrument adds. */
export type Solve = (look: Look, extra?: Edit) => Solver;

/**
 * Resistances seen at a point are left as they were where a fault moves them by less: 0.1 V behind 10 MΩ and 12 V needs
 * 80 kΩ, ohm.
 */
const NEGLIGIBLE_OHM = 200;

interface ScanPin {
  readonly cavity: string;
  readonly module: string;
  readonly domain: string | undefined;
}

/** Where instruments can be put on a machine, and what they show there: a whole column of one quantity at a time. */
export class MachineReader {
  /** where a meter can be put, by endpoint name */
  readonly points: readonly string[];
  readonly pointIndex: ReadonlyMap<string, number>;
  private readonly nodes: Int32Array;
  /** nodes of the points in states whose circuit is not the plain one */
  private readonly specialNodes = new WeakMap<Circuit, Int32Array>();
  /** module pins whose value a scan tool can show: behind the meter points in a column of volts */
  private readonly scanPins: readonly ScanPin[];
  private readonly wires: readonly string[];
  private readonly places: Readonly<Record<Quantity, ReadonlyMap<string, number>>>;

  /** @param nominal the circuit of the plain document */
  constructor(wiring: Wiring, nominal: Circuit) {
    this.points = meterPoints(wiring).filter((p) => nominal.nodeOf.has(p));
    this.pointIndex = new Map(this.points.map((p, i) => [p, i]));
    this.nodes = this.nodesIn(nominal);
    this.scanPins = wiring.devices.flatMap((d) =>
      d.kind === "module"
        ? d.pins
            .filter((p) => p.role === "input" || p.role === "supply")
            .map((p) => ({ cavity: p.at, module: d.id, domain: p.domain }))
        : [],
    );
    this.wires = wiring.wires.map(wireId);
    const wirePlaces = new Map(this.wires.map((w, i) => [w, i]));
    this.places = { volts: this.pointIndex, ohms: this.pointIndex, swing: this.pointIndex, amperes: wirePlaces };
  }

  /** Numbers per sample in a column of one quantity. */
  stride(quantity: Quantity): number {
    if (quantity === "amperes") return this.wires.length;
    return quantity === "volts" ? this.points.length + this.scanPins.length : this.points.length;
  }

  /** Where in a column a reading stands: a point, a wire for a clamp, a module's cavity for the scan tool. */
  placeOf(instrument: Instrument, name: string): number | undefined {
    if (instrument !== "scanTool") return this.places[QUANTITY[instrument]].get(name);
    const i = this.scanPins.findIndex((p) => p.cavity === name);
    return i < 0 ? undefined : this.points.length + i;
  }

  /** Writes a column: volts, ohms or amperes by place. @param into `stride` numbers */
  read(machine: MachineState, solve: Solve, quantity: Quantity, into: Float32Array): void {
    if (quantity === "ohms") this.readOhms(machine, solve, into);
    else if (quantity === "swing") this.readSwing(machine, solve, into);
    else {
      into.fill(0);
      for (const { phase, share } of machine.phases) {
        const s = solve({ phase });
        if (quantity === "amperes") this.addAmperes(s, machine.circuit, share, into);
        else this.addVolts(s, machine, share, into);
      }
    }
  }

  /** Between two leads neither of which is at battery negative: volts or ohms; NaN for ohms where there is voltage. */
  readBetween(machine: MachineState, solve: Solve, quantity: Quantity, red: string, black: string): number {
    const { circuit, phases } = machine;
    const a = circuit.nodeOf.get(red) ?? 0;
    const b = circuit.nodeOf.get(black) ?? 0;
    const across = (s: Solver) => {
      const v = nodeVolt(s, a) - nodeVolt(s, b);
      return Number.isNaN(v) ? 0 : v;
    };
    if (quantity === "ohms") {
      const s = solve({ phase: phases[phases.length - 1]!.phase });
      const ohm = Math.abs(across(s)) > OHMS_NEED_BELOW_VOLT ? NaN : ohmBetween(s, a, b);
      return ohm > DEFAULTS.meter.overloadOhm ? OVERLOAD : ohm;
    }
    const meter: Edit = a === b ? NO_EDIT : { shunts: [{ a, b, ohm: DEFAULTS.meter.ohm }] };
    return phases.reduce((sum, part) => sum + part.share * across(solve({ phase: part.phase }, meter)), 0);
  }

  private nodesIn(circuit: Circuit): Int32Array {
    return Int32Array.from(this.points, (p) => circuit.nodeOf.get(p)!);
  }
  private nodesOf({ state, circuit }: MachineState): Int32Array {
    if (!isSpecial(state)) return this.nodes;
    let nodes = this.specialNodes.get(circuit);
    if (!nodes) this.specialNodes.set(circuit, (nodes = this.nodesIn(circuit)));
    return nodes;
  }

  private readOhms(machine: MachineState, solve: Solve, into: Float32Array): void {
    const nodes = this.nodesOf(machine);
    const s = solve({ phase: machine.phases[machine.phases.length - 1]!.phase });
    measureOhms(s);
    for (let p = 0; p < nodes.length; p++) into[p] = ohmmeter(s, nodes[p]!);
  }

  /** least and most over the parts of a period, and over steel passing the sensors while the engine turns */
  private readSwing(machine: MachineState, solve: Solve, into: Float32Array): void {
    const nodes = this.nodesOf(machine);
    const turning = machine.state.key === "cranking" || machine.state.key === "running";
    const least = new Float32Array(nodes.length).fill(Infinity);
    const most = new Float32Array(nodes.length).fill(-Infinity);
    for (const steel of turning ? [true, false] : [undefined])
      for (const { phase } of machine.phases) {
        const s = solve({ phase, ...(steel === undefined ? {} : { steel }) });
        measureOhms(s, NEGLIGIBLE_OHM);
        for (let p = 0; p < nodes.length; p++) {
          const v = voltmeter(s, nodes[p]!);
          least[p] = Math.min(least[p]!, v);
          most[p] = Math.max(most[p]!, v);
        }
      }
    for (let p = 0; p < nodes.length; p++) into[p] = most[p]! - least[p]!;
  }

  private addAmperes(s: Solver, circuit: Circuit, share: number, into: Float32Array): void {
    for (let w = 0; w < this.wires.length; w++) {
      const i = elementAmpere(s, circuit.elementOf.get(`wire ${this.wires[w]!}`)!);
      into[w] = into[w]! + share * (Number.isNaN(i) ? 0 : i);
    }
  }

  private addVolts(s: Solver, machine: MachineState, share: number, into: Float32Array): void {
    const nodes = this.nodesOf(machine);
    measureOhms(s, NEGLIGIBLE_OHM);
    for (let p = 0; p < nodes.length; p++) into[p] = into[p]! + share * voltmeter(s, nodes[p]!);
    for (let i = 0; i < this.scanPins.length; i++) {
      const place = nodes.length + i;
      const v = this.moduleVolt(s, machine.circuit, this.scanPins[i]!);
      into[place] = into[place]! + share * v;
    }
  }
  /** what a module measures at a pin, against its own ground; NaN where it is not awake to say so */
  private moduleVolt(s: Solver, circuit: Circuit, pin: ScanPin): number {
    if (s.operating.awake[circuit.gateOf.get(pin.module)!] === 0) return NaN;
    const ground = circuit.nodeOf.get(innerGround(pin.module, pin.domain)) ?? 0;
    const v = nodeVolt(s, circuit.nodeOf.get(pinBehind(pin.cavity))!) - nodeVolt(s, ground);
    return Number.isNaN(v) ? 0 : v;
  }
}
