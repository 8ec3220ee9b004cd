import { phasesOf, type Look, type Phase } from "../codes/judge.js";
import { bindMonitors, type BoundMonitor } from "../codes/monitors.js";
import { DEFAULTS } from "../defaults.js";
import type { Fault } from "../faults/fault.js";
import { generateFaults } from "../faults/generate.js";
import type { Instrument, State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { ohmmeter, OHMS_NEED_BELOW_VOLT, voltmeter } from "../instruments/meter.js";
import { batteryOf } from "../instruments/rig.js";
import { batteryVolt } from "../network/builder.js";
import { innerGround } from "../network/compileModule.js";
import { joinEdits, NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import { elementAmpere, measureOhms, meltedFuses, nodeVolt, ohmBetween } from "../network/observe.js";
import { analysePattern, type Pattern } from "../network/pattern.js";
import { prepare, settle } from "../network/settle.js";
import { createSolver, type Solver } from "../network/solver.js";
import { conditionsOf, isSpecial, stateName } from "../network/state.js";
import { OVERLOAD } from "../units/quantity.js";
import { meterPoints, pinBehind, wireId } from "../wiring/points.js";
import { CodePredictions } from "./codePredictions.js";
import { Draws } from "./draws.js";
import { AtPlace, PredictionCache, type Predicted, type Rows } from "./predictionCache.js";

/** What is predicted for a whole machine at once; several instruments show the same quantity. */
export type Quantity = "volts" | "ohms" | "amperes" | "swing";
export const QUANTITY: Readonly<Record<Instrument, Quantity>> = {
  voltmeter: "volts",
  scanTool: "volts",
  lamp: "volts",
  ohmmeter: "ohms",
  continuity: "ohms",
  clamp: "amperes",
  scope: "swing",
};

/**
 * One way the machine may be: nothing wrong, one fault, or several, at one severity each in one draw.
 * Sample index = severity place · draws + draw.
 */
export interface Hypothesis {
  readonly faults: readonly Fault[];
  /** for each severity place the severity of each fault; neighbours are neighbours on the grid when `stepped` */
  readonly severities: readonly (readonly number[])[];
  readonly stepped: boolean;
  readonly samples: number;
}

/** A circuit of one draw in one machine state, solved healthy for each look taken so far. */
interface Prepared {
  readonly circuit: Circuit;
  readonly pattern: Pattern;
  readonly phases: readonly Phase[];
  readonly supply: number;
  readonly solvers: Solver[];
  nodes?: Int32Array;
}

/** Numbers kept in prepared solutions, all together. */
const PREPARED_NUMBERS = 12e6;
/** Hypotheses of several faults kept; what a row of one number takes, in numbers. */
const MOST_COMBINED = 4_000;
const ROW_OVERHEAD = 16;
/** Parts of a circuit that a fault moves by less than this are left as they were, volt and ohm: far below what a meter tells apart. */
const NEGLIGIBLE_VOLT = 1e-4;
const NEGLIGIBLE_OHM = 200;
const ALL_PLUGGED: State = { key: "on", unplugged: [] };

/** Numbers kept in predictions, all together; the states not asked for the longest make room. */
const PREDICTED_NUMBERS = 48e6;

/**
 * Predicts what every hypothesis would show, and remembers it: nothing computed here depends on evidence, so a new
 * reading only looks things up. Hypothesis 0 is the healthy machine; hypothesis i + 1 is `faults[i]`; those of several
 * faults are added by `combine`.
 */
export class Predictor {
  readonly faults: readonly Fault[];
  readonly hypotheses: Hypothesis[];
  readonly draws: number;
  /** where a meter can be put, by endpoint name */
  readonly points: readonly string[];
  readonly pointIndex: ReadonlyMap<string, number>;
  readonly monitors: readonly BoundMonitor[];
  /** how many times the circuit has been solved */
  solves = 0;
  /** hypotheses with a sample whose devices found no consistent state */
  readonly unsettled = new Set<number>();
  /** room for what others work out from predictions alone; emptied with the wiring */
  readonly memo = new Map<string, unknown>();
  private readonly drawn: Draws;
  private readonly pattern: Pattern;
  private readonly nodes: Int32Array;
  /** module pins whose value a scan tool can show: behind the meter points in a column of volts */
  private readonly scanPins: readonly {
    readonly cavity: string;
    readonly module: string;
    readonly domain: string | undefined;
  }[];
  private readonly wires: readonly string[];
  private readonly places: Readonly<Record<Quantity, ReadonlyMap<string, number>>>;
  private readonly kept = new PredictionCache(PREDICTED_NUMBERS);
  private readonly codes: CodePredictions;
  private readonly combined = new Map<string, number>();
  /** healthy solutions by state, draw and look: what faults start from; the least lately used is dropped */
  private readonly prepared = new Map<string, Prepared>();
  /** fuses that each sample melts with the key on: they stay blown when something is unplugged afterwards */
  private readonly blown = new Map<number, (readonly number[] | undefined)[]>();

  /** @param draws joint draws of what is not exactly known; fewer on a large machine */
  constructor(
    readonly wiring: Wiring,
    seed = 1,
    draws: number = DEFAULTS.draws,
  ) {
    this.faults = generateFaults(wiring);
    const nominal = new Draws(wiring, 1, seed).circuit(ALL_PLUGGED, 0);
    this.points = meterPoints(wiring).filter((p) => nominal.nodeOf.has(p));
    this.pointIndex = new Map(this.points.map((p, i) => [p, i]));
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
    const severities = this.faults.reduce((sum, f) => sum + f.severities.length, 1);
    // a very large machine gets fewer draws
    this.draws = Math.max(
      2,
      Math.min(draws, Math.floor(DEFAULTS.predictionBudget / (severities * nominal.nodes.length))),
    );
    this.drawn = new Draws(wiring, this.draws, seed);
    this.hypotheses = [
      { faults: [], severities: [[]], stepped: true, samples: this.draws },
      ...this.faults.map((fault) => ({
        faults: [fault],
        severities: fault.severities.map((s) => [s]),
        stepped: true,
        samples: fault.severities.length * this.draws,
      })),
    ];
    this.pattern = analysePattern(nominal);
    this.nodes = Int32Array.from(this.points, (p) => nominal.nodeOf.get(p)!);
    this.monitors = bindMonitors(wiring, nominal);
    this.codes = new CodePredictions(
      this.hypotheses,
      this.draws,
      this.monitors,
      (state, draw) => this.at(state, draw).phases,
      (h, sample, state, look) => this.solve(h, sample, state, look),
    );
  }

  /** Numbers per sample in a column of one instrument. */
  stride(instrument: Instrument): number {
    const q = QUANTITY[instrument];
    return q === "amperes"
      ? this.wires.length
      : q === "volts"
        ? this.points.length + this.scanPins.length
        : this.points.length;
  }
  /** Where in a column a reading stands: a point, a wire for a clamp, a module's cavity for the scan tool. */
  placeOf(instrument: Instrument, name: string): number | undefined {
    if (instrument !== "scanTool") return this.places[QUANTITY[instrument]].get(name);
    const i = this.scanPins.findIndex((p) => p.cavity === name);
    return i < 0 ? undefined : this.points.length + i;
  }

  /**
   * A hypothesis of several faults at once, made on first asking and remembered.
   * @param members indices of the faults' own hypotheses @param choices severity places of each member to be tried, in every combination
   */
  combine(members: readonly number[], choices: readonly (readonly number[])[]): number {
    const order = members.map((m, i) => [m, choices[i]!] as const).sort((a, b) => a[0] - b[0]);
    const name = order.map(([m, c]) => `${m}:${c.join(",")}`).join(" ");
    const known = this.combined.get(name);
    if (known !== undefined) return known;
    const faults = order.map(([m]) => this.faults[m - 1]!);
    let severities: number[][] = [[]];
    for (const [m, list] of order)
      severities = severities.flatMap((s) => list.map((k) => [...s, this.faults[m - 1]!.severities[k]!]));
    this.hypotheses.push({ faults, severities, stepped: false, samples: severities.length * this.draws });
    this.combined.set(name, this.hypotheses.length - 1);
    return this.hypotheses.length - 1;
  }
  /** Forgets hypotheses of several faults when too many are kept: before new ones are grown, never between two that belong together. */
  makeRoom(): void {
    if (this.combined.size < MOST_COMBINED) return;
    const singles = this.faults.length + 1;
    this.hypotheses.length = singles;
    this.combined.clear();
    this.memo.delete("readings");
    this.memo.delete("families read");
    this.kept.forgetFrom(singles);
    for (const h of [...this.blown.keys()]) if (h >= singles) this.blown.delete(h);
    this.codes.forgetFrom(singles);
  }

  /** In how many of the draws a hypothesis is predicted: several faults at once in fewer. */
  drawsUsed(h: number): number {
    return h <= this.faults.length || this.hypotheses[h]!.samples === this.draws
      ? this.draws
      : Math.min(this.draws, DEFAULTS.several.draws);
  }
  /** Where in its range a sensor's true condition lies in each draw; undefined for what has none. */
  restOf(thing: string): readonly number[] | undefined {
    return this.drawn.restOf(thing);
  }

  severitiesOf(h: number, sample: number): readonly number[] {
    return this.hypotheses[h]!.severities[Math.floor(sample / this.draws)]!;
  }

  /**
   * What the instrument would show at every point (or wire).
   * @param wanted samples needed (1), or all when undefined
   * @returns volts, ohms or amperes by sample and place (see `placeOf`); only the wanted samples are there
   */
  predict(h: number, state: State, instrument: Instrument, wanted?: Uint8Array): Rows {
    const quantity = QUANTITY[instrument];
    const name = `${quantity} ${stateName(state)}`;
    const column = this.kept.column(name);
    const { samples } = this.hypotheses[h]!;
    const stride = this.stride(instrument);
    let rows = column.get(h);
    if (!rows) column.set(h, (rows = new Array<Float32Array | undefined>(samples).fill(undefined)));
    // draw by draw: all severities of one draw start from the same healthy solution
    for (let draw = 0; draw < this.draws; draw++) {
      for (let sample = draw; sample < samples; sample += this.draws) {
        if (rows[sample] || (wanted && !wanted[sample])) continue;
        this.read(h, sample, state, quantity, (rows[sample] = new Float32Array(stride)));
        this.kept.count(name, stride);
      }
    }
    return rows;
  }
  /** As `predict` or `predictBetween`, at the place of one reading. Samples not wanted are NaN. */
  predictAt(
    h: number,
    e: {
      readonly instrument: Instrument;
      readonly point: string;
      readonly black?: string | undefined;
      readonly state: State;
    },
    wanted?: Uint8Array,
  ): Predicted {
    if (e.black !== undefined) return this.predictBetween(h, e.state, e.instrument, e.point, e.black, wanted);
    return new AtPlace(this.predict(h, e.state, e.instrument, wanted), this.placeOf(e.instrument, e.point)!);
  }

  /**
   * As `predict`, between two leads neither of which is at battery negative.
   * @returns volts or ohms by sample
   */
  predictBetween(
    h: number,
    state: State,
    instrument: Instrument,
    red: string,
    black: string,
    wanted?: Uint8Array,
  ): Predicted {
    const name = `between ${red} ${black} ${QUANTITY[instrument]} ${stateName(state)}`;
    const column = this.kept.column(name);
    const { samples } = this.hypotheses[h]!;
    let rows = column.get(h);
    if (!rows) column.set(h, (rows = new Array<Float32Array | undefined>(samples).fill(undefined)));
    for (let sample = 0; sample < samples; sample++) {
      if (rows[sample] || (wanted && !wanted[sample])) continue;
      const { circuit, phases } = this.at(state, sample % this.draws);
      const a = circuit.nodeOf.get(red) ?? 0;
      const b = circuit.nodeOf.get(black) ?? 0;
      const across = (s: Solver) => {
        const v = nodeVolt(s, a) - nodeVolt(s, b);
        return Number.isNaN(v) ? 0 : v;
      };
      let value = 0;
      if (QUANTITY[instrument] === "ohms") {
        const s = this.solve(h, sample, state, { phase: phases[phases.length - 1]!.phase });
        const ohm = Math.abs(across(s)) > OHMS_NEED_BELOW_VOLT ? NaN : ohmBetween(s, a, b);
        value = ohm > DEFAULTS.meter.overloadOhm ? OVERLOAD : ohm;
      } else
        for (const part of phases)
          value +=
            part.share *
            across(
              this.solve(
                h,
                sample,
                state,
                { phase: part.phase },
                a === b ? NO_EDIT : { shunts: [{ a, b, ohm: DEFAULTS.meter.ohm }] },
              ),
            );
      rows[sample] = Float32Array.of(value);
      this.kept.count(name, ROW_OVERHEAD);
    }
    return new AtPlace(rows, 0);
  }

  private read(h: number, sample: number, state: State, quantity: Quantity, into: Float32Array): void {
    const at = this.at(state, sample % this.draws);
    const { circuit, phases } = at;
    const nodes = isSpecial(state)
      ? (at.nodes ??= Int32Array.from(this.points, (p) => circuit.nodeOf.get(p)!))
      : this.nodes;
    if (quantity === "ohms") {
      const s = this.solve(h, sample, state, { phase: phases[phases.length - 1]!.phase });
      measureOhms(s);
      for (let p = 0; p < nodes.length; p++) into[p] = ohmmeter(s, nodes[p]!);
      return;
    }
    if (quantity === "swing") {
      this.readSwing(h, sample, state, nodes, into);
      return;
    }
    into.fill(0);
    for (const part of phases) {
      const s = this.solve(h, sample, state, { phase: part.phase });
      if (quantity === "amperes") {
        for (let w = 0; w < this.wires.length; w++) {
          const i = elementAmpere(s, circuit.elementOf.get(`wire ${this.wires[w]!}`)!);
          into[w] = into[w]! + part.share * (Number.isNaN(i) ? 0 : i);
        }
        continue;
      }
      measureOhms(s, NEGLIGIBLE_OHM);
      for (let p = 0; p < nodes.length; p++) into[p] = into[p]! + part.share * voltmeter(s, nodes[p]!);
      this.scanPins.forEach((pin, i) => {
        const place = nodes.length + i;
        if (s.operating.awake[circuit.gateOf.get(pin.module)!] === 0) {
          into[place] = NaN;
          return;
        }
        const v =
          nodeVolt(s, circuit.nodeOf.get(pinBehind(pin.cavity))!) -
          nodeVolt(s, circuit.nodeOf.get(innerGround(pin.module, pin.domain)) ?? 0);
        into[place] = into[place]! + part.share * (Number.isNaN(v) ? 0 : v);
      });
    }
  }
  /** least and most over the parts of a period, and over steel passing the sensors while the engine turns */
  private readSwing(h: number, sample: number, state: State, nodes: Int32Array, into: Float32Array): void {
    const { phases } = this.at(state, sample % this.draws);
    const turning = state.key === "cranking" || state.key === "running";
    const least = new Float32Array(nodes.length).fill(Infinity);
    const most = new Float32Array(nodes.length).fill(-Infinity);
    for (const steel of turning ? [true, false] : [undefined])
      for (const part of phases) {
        const s = this.solve(h, sample, state, { phase: part.phase, ...(steel === undefined ? {} : { steel }) });
        measureOhms(s, NEGLIGIBLE_OHM);
        for (let p = 0; p < nodes.length; p++) {
          const v = voltmeter(s, nodes[p]!);
          least[p] = Math.min(least[p]!, v);
          most[p] = Math.max(most[p]!, v);
        }
      }
    for (let p = 0; p < nodes.length; p++) into[p] = most[p]! - least[p]!;
  }

  /**
   * Which codes each sample sets with everything plugged: [sample · monitors + monitor], 1 set.
   * @param wanted monitors that matter; the others may be left at 0
   */
  codesSet(h: number, wanted: readonly number[]): Uint8Array {
    return this.codes.of(h, wanted, false).bits;
  }
  /**
   * As `codesSet`, as probabilities: a code that only a neighbouring severity or another draw sets is not out of the
   * question, since the true values lie between those tried.
   */
  codeShares(h: number, wanted: readonly number[]): Float32Array {
    return this.codes.of(h, wanted, false).share;
  }
  /** As `codesSet` and `codeShares`, from about a quarter of the work: good for telling which hypotheses are worth all of it. */
  roughCodesSet(h: number, wanted: readonly number[]): Uint8Array {
    return this.codes.of(h, wanted, true).bits;
  }
  roughCodeShares(h: number, wanted: readonly number[]): Float32Array {
    return this.codes.of(h, wanted, true).share;
  }

  /** The codes a healthy machine sets with these connectors unplugged: set by ourselves, so no evidence. */
  codesSetByDisturbing(disturbed: readonly string[]): ReadonlySet<number> {
    const plugs = new Set(this.wiring.connectors.map((c) => c.id));
    const fuses = new Set(
      this.wiring.devices.flatMap((d) => (d.kind === "fuse" || d.kind === "breaker" ? [d.id] : [])),
    );
    const unplugged = disturbed.filter((d) => plugs.has(d));
    const pulled = disturbed.filter((d) => fuses.has(d));
    const bits = new Uint8Array(this.hypotheses[0]!.samples * this.monitors.length);
    for (const key of new Set(this.monitors.map((m) => m.key)))
      this.codes.compute(0, { key, unplugged, ...(pulled.length ? { pulled } : {}) }, bits);
    const some = new Set<number>();
    bits.forEach((bit, i) => {
      if (bit) some.add(i % this.monitors.length);
    });
    return some;
  }

  private solve(h: number, sample: number, state: State, look: Look, extra: Edit = NO_EDIT): Solver {
    const draw = sample % this.draws;
    const { faults } = this.hypotheses[h]!;
    const blown =
      faults.length && (state.unplugged.length || state.key !== "on" || state.pulled?.length)
        ? this.blownBy(h, sample)
        : NONE_BLOWN;
    const at = this.at(state, draw);
    let s = at.solvers.find(
      (x) =>
        x.conditions.steel === look.steel && x.conditions.phase === look.phase && x.conditions.talker === look.talker,
    );
    if (!s) {
      s = createSolver(at.circuit, at.pattern);
      if (!prepare(s, conditionsOf(at.circuit, state, look)).settled) this.unsettled.add(0);
      at.solvers.push(s);
    }
    this.solves++;
    const own = this.edit(h, sample, at);
    const gone = blown.length
      ? {
          series: blown.flatMap((e) =>
            state.breakers?.includes(at.circuit.elements[e]!.id.slice(5)) ? [] : [{ element: e, ohm: Infinity }],
          ),
        }
      : NO_EDIT;
    const edit = gone === NO_EDIT && extra === NO_EDIT ? own : joinEdits(own, gone, extra);
    if (!settle(s, edit, NEGLIGIBLE_VOLT).settled) this.unsettled.add(h);
    return s;
  }
  private edit(h: number, sample: number, at: Prepared): Edit {
    const { faults } = this.hypotheses[h]!;
    const severities = this.severitiesOf(h, sample);
    if (faults.length === 0) return NO_EDIT;
    if (faults.length === 1) return faults[0]!.edit(severities[0]!, at.circuit, at.supply);
    return joinEdits(...faults.map((f, i) => f.edit(severities[i]!, at.circuit, at.supply)));
  }

  /** A fuse that melts with everything plugged and the key on is blown from then on, until it is renewed. */
  private blownBy(h: number, sample: number): readonly number[] {
    let list = this.blown.get(h);
    if (!list) this.blown.set(h, (list = new Array<readonly number[] | undefined>(this.hypotheses[h]!.samples)));
    let known = list[sample];
    if (!known) {
      const s = this.solve(h, sample, ALL_PLUGGED, { phase: 0 });
      const melted = meltedFuses(s);
      known = list[sample] = melted.length ? melted : NONE_BLOWN;
    }
    return known;
  }

  private at(state: State, draw: number): Prepared {
    const last = this.lastAt;
    if (last?.state === state && last.draw === draw) return last.here;
    const name = `${draw} ${stateName(state)}`;
    let here = this.prepared.get(name);
    if (here)
      this.prepared.delete(name); // and put back as the latest
    else {
      const circuit = this.drawn.circuit(state, draw);
      here = {
        circuit,
        pattern: isSpecial(state) ? analysePattern(circuit) : this.pattern,
        phases: phasesOf(circuit),
        supply: batteryVolt(this.wiring, state.key, batteryOf(this.wiring)),
        solvers: [],
      };
      const each = 60 * this.pattern.n;
      while (this.prepared.size > 2 * this.draws && this.prepared.size * each > PREPARED_NUMBERS)
        this.prepared.delete(this.prepared.keys().next().value!);
    }
    this.prepared.set(name, here);
    this.lastAt = { state, draw, here };
    return here;
  }
  private lastAt: { state: State; draw: number; here: Prepared } | undefined;
}
const NONE_BLOWN: readonly number[] = [];
