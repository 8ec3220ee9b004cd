import type { Look, Phase } from "../codes/judge.js";
import { DEFAULTS } from "../defaults.js";
import type { Instrument } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { MachineState } from "../instruments/machineState.js";
import { heldByLeads, ohmmeter, OHMS_NEED_BELOW_VOLT, voltmeter } from "../instruments/meter.js";
import { innerGround } from "../network/compileModule.js";
import { NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import { elementAmpere, measureOhms, nodeVolt, ohmBetween } from "../network/observe.js";
import { openedBy, type Solver } from "../network/solver.js";
import { isSpecial, isTurning } from "../network/state.js";
import { OVERLOAD } from "../units/quantity.js";
import { devicePins, meterPoints, pinBehind, wireId } from "../wiring/points.js";
import { QUANTITY, type Quantity } from "./quantity.js";

/** Solves one sample of a hypothesis for a look, with what an instrument adds. */
export type Solve = (look: Look, extra?: Edit) => Solver;

/**
 * Resistances seen at a point are left as they were where a fault moves them by less: 0.1 V behind 10 MΩ and 12 V needs
 * 80 kΩ, ohm.
 */
const NEGLIGIBLE_OHM = 200;

/**
 * Where a meter moves a point by more than this, the circuit is solved with the meter in it: what hangs on little may
 * be fed through a diode, also of a chip behind a sensor, which then conducts; no correction by a resistance is right,
 * volt.
 */
const PULLED_VOLT = 0.05;
interface Pulled {
  readonly node: number;
  /** by their order among the places wanted */
  readonly points: number[];
}

/** Marks a place whose value takes a solve with the meter in the circuit, which was not made. No reading has it. */
export const PULLED = -Infinity;
/** Which numbers are wanted, and how exactly. */
export interface Wanted {
  readonly places?: Int32Array;
  readonly leavesPulled?: boolean;
}

/** Fewer ohms than this are copper, whatever chip is beside it; fewer than that a part in between. Judgement. */
const ELECTRONICS_OHM = 150;
const BEHIND_A_PART_OHM = 10_000;
const BY_COPPER = 2;
const THROUGH_A_PART = 1;
/**
 * Whether ohms at a node say nothing, by how it hangs together with electronics on the sound machine. An open circuit
 * always tells: it is what a broken wire between here and there shows.
 */
const hidesOhms = (how: number, ohm: number) =>
  ohm <= DEFAULTS.meter.overloadOhm &&
  ((how === BY_COPPER && ohm > ELECTRONICS_OHM) || (how === THROUGH_A_PART && ohm > BEHIND_A_PART_OHM));
const ELECTRONIC: ReadonlySet<string> = new Set(["module", "threeWireSensor", "hall", "smartSensor", "currentLoop"]);
/** Pins that are copper to the ground of the same part. */
const COPPER_ROLES: ReadonlySet<string> = new Set(["ground", "sensorGround"]);
/** Elements that are copper, by their ids. */
const COPPER = /^(contact|wire|fuse|breaker|switch|jumper) /;
/** Elements that are a part a current goes through, by their ids. */
const PASSIVE = /^(element|track|wiper|coil|armature) /;

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
  /** all places of each quantity, in order */
  private readonly every = new Map<Quantity, Int32Array>();
  /** pins that a chip hangs on */
  private readonly electronics: readonly string[];
  private readonly live = new WeakMap<Circuit, { readonly name: string; readonly nodes: Uint8Array }>();
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
    this.electronics = wiring.devices.flatMap((d) =>
      ELECTRONIC.has(d.kind) ? devicePins(d).flatMap((p) => (COPPER_ROLES.has(p.role) ? [] : [pinBehind(p.at)])) : [],
    );
    this.wires = wiring.wires.map(wireId);
    const wirePlaces = new Map(this.wires.map((w, i) => [w, i]));
    this.places = {
      volts: this.pointIndex,
      ohms: this.pointIndex,
      swing: this.pointIndex,
      least: this.pointIndex,
      most: this.pointIndex,
      amperes: wirePlaces,
    };
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

  /**
   * Volts, ohms or amperes by place.
   * @param places numbers of those wanted (see `placeOf`); otherwise all, a whole column
   * @param leavesPulled makes no solve with the meter in the circuit: `PULLED` stands where one is needed
   * @returns a number for each place
   */
  read(
    machine: MachineState,
    phases: readonly Phase[],
    solve: Solve,
    quantity: Quantity,
    { places = this.all(quantity), leavesPulled = false }: Wanted = {},
  ): Float32Array {
    const into = new Float32Array(places.length);
    if (quantity === "ohms") this.readOhms(machine, solve, places, into);
    else if (quantity === "swing" || quantity === "least" || quantity === "most")
      this.readLevels(machine, phases, solve, quantity, places, into);
    else
      for (const { phase, share } of phases) {
        const s = solve({ phase });
        if (quantity === "amperes") this.addAmperes(s, machine.circuit, share, places, into);
        else {
          const pulled = this.addVolts(s, machine, share, places, into);
          if (leavesPulled) for (const { points } of pulled.values()) for (const k of points) into[k] = PULLED;
          else this.addLoaded(pulled, (extra) => solve({ phase }, extra), share, into);
        }
      }
    return into;
  }
  private all(quantity: Quantity): Int32Array {
    let all = this.every.get(quantity);
    if (!all) this.every.set(quantity, (all = Int32Array.from({ length: this.stride(quantity) }, (_, i) => i)));
    return all;
  }

  /** Between two leads neither of which is at battery negative: volts or ohms; NaN for ohms where there is voltage. */
  readBetween(
    machine: MachineState,
    phases: readonly Phase[],
    solve: Solve,
    quantity: Quantity,
    red: string,
    black: string,
  ): number {
    const { circuit } = machine;
    const a = circuit.nodeOf.get(red) ?? 0;
    const b = circuit.nodeOf.get(black) ?? 0;
    const across = (s: Solver) => {
      const v = nodeVolt(s, a) - nodeVolt(s, b);
      return Number.isNaN(v) ? 0 : v;
    };
    if (quantity === "ohms") {
      const s = solve({ phase: phases[phases.length - 1]!.phase }, heldByLeads(a, b));
      const ohm = Math.abs(across(s)) > OHMS_NEED_BELOW_VOLT ? NaN : ohmBetween(s, a, b);
      const live = this.liveElectronics(machine);
      if (hidesOhms(Math.max(live[a]!, live[b]!), ohm)) return NaN;
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

  private readOhms(machine: MachineState, solve: Solve, places: Int32Array, into: Float32Array): void {
    const nodes = this.nodesOf(machine);
    const s = solve({ phase: machine.phases[machine.phases.length - 1]!.phase });
    measureOhms(s);
    const live = this.liveElectronics(machine);
    for (let k = 0; k < places.length; k++) {
      const node = nodes[places[k]!]!;
      const ohm = ohmmeter(s, node);
      into[k] = hidesOhms(live[node]!, ohm) ? NaN : ohm;
    }
  }

  /**
   * Nodes joined to a pin of electronics by copper (2), or through a winding, a track or a thermistor (1), with what is
   * unplugged: clamps and regulators behind such a pin conduct as they like, so that ohms there prove nothing unless
   * they are few (common practice, no source).
   */
  private liveElectronics(machine: MachineState): Uint8Array {
    const known = this.live.get(machine.circuit);
    const name = machine.state.unplugged.join(" ");
    if (known?.name === name) return known.nodes;
    const { circuit } = machine;
    const open = openedBy(circuit, machine.state.unplugged);
    const joined: { readonly to: number; readonly most: number }[][] = circuit.nodes.map(() => []);
    circuit.elements.forEach((e, i) => {
      const most = COPPER.test(e.id) ? BY_COPPER : PASSIVE.test(e.id) ? THROUGH_A_PART : 0;
      if (open[i] === 1 || most === 0) return;
      joined[e.a]!.push({ to: e.b, most });
      joined[e.b]!.push({ to: e.a, most });
    });
    const reached = new Uint8Array(circuit.nodes.length);
    const left = this.electronics.flatMap((pin) => {
      const node = circuit.nodeOf.get(pin);
      return node === undefined ? [] : [{ node, how: BY_COPPER }];
    });
    for (let next = left.pop(); next !== undefined; next = left.pop()) {
      const { node, how } = next;
      if (node === 0 || reached[node]! >= how) continue;
      reached[node] = how;
      left.push(...joined[node]!.map(({ to, most }) => ({ node: to, how: Math.min(how, most) })));
    }
    this.live.set(circuit, { name, nodes: reached });
    return reached;
  }

  /** least and most over the parts of a period, and over steel passing the sensors while the engine turns */
  private readLevels(
    machine: MachineState,
    phases: readonly Phase[],
    solve: Solve,
    quantity: "swing" | "least" | "most",
    places: Int32Array,
    into: Float32Array,
  ): void {
    const nodes = this.nodesOf(machine);
    const turning = isTurning(machine.state.key);
    const least = new Float32Array(places.length).fill(Infinity);
    const most = new Float32Array(places.length).fill(-Infinity);
    for (const steel of turning ? [true, false] : [undefined])
      for (const { phase } of phases) {
        const s = solve({ phase, ...(steel === undefined ? {} : { steel }) });
        measureOhms(s, NEGLIGIBLE_OHM);
        for (let k = 0; k < places.length; k++) {
          const v = voltmeter(s, nodes[places[k]!]!);
          least[k] = Math.min(least[k]!, v);
          most[k] = Math.max(most[k]!, v);
        }
      }
    for (let k = 0; k < places.length; k++)
      into[k] = quantity === "least" ? least[k]! : quantity === "most" ? most[k]! : most[k]! - least[k]!;
  }

  private addAmperes(s: Solver, circuit: Circuit, share: number, places: Int32Array, into: Float32Array): void {
    for (let k = 0; k < places.length; k++) {
      const i = elementAmpere(s, circuit.elementOf.get(`wire ${this.wires[places[k]!]!}`)!);
      into[k] = into[k]! + share * (Number.isNaN(i) ? 0 : i);
    }
  }

  /** @returns points that a meter pulls down so far that a diode changes its mind: by what they show without one */
  private addVolts(
    s: Solver,
    machine: MachineState,
    share: number,
    places: Int32Array,
    into: Float32Array,
  ): Map<string, Pulled> {
    const nodes = this.nodesOf(machine);
    measureOhms(s, NEGLIGIBLE_OHM);
    const pulled = new Map<string, Pulled>();
    for (let k = 0; k < places.length; k++) {
      const place = places[k]!;
      if (place >= nodes.length) {
        into[k] = into[k]! + share * this.moduleVolt(s, machine.circuit, this.scanPins[place - nodes.length]!);
        continue;
      }
      const node = nodes[place]!;
      const shown = voltmeter(s, node);
      const bare = nodeVolt(s, node);
      if (!(Math.abs(bare - shown) > PULLED_VOLT)) {
        into[k] = into[k]! + share * shown;
        continue;
      }
      // points joined by copper show the same: one of them is solved for all
      const name = `${bare.toFixed(3)} ${shown.toFixed(3)}`;
      const same = pulled.get(name);
      if (same) same.points.push(k);
      else pulled.set(name, { node, points: [k] });
    }
    return pulled;
  }
  /** as `addVolts`, with the meter in the circuit */
  private addLoaded(pulled: Map<string, Pulled>, solve: (extra: Edit) => Solver, share: number, into: Float32Array) {
    for (const { node, points } of pulled.values()) {
      const shown = nodeVolt(solve({ shunts: [{ a: node, b: 0, ohm: DEFAULTS.meter.ohm }] }), node);
      for (const p of points) into[p] = into[p]! + share * (Number.isNaN(shown) ? 0 : shown);
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
