import type { Look, Phase } from "../codes/judge.js";
import { bindMonitors, type BoundMonitor } from "../codes/monitors.js";
import { DEFAULTS } from "../defaults.js";
import { losesTeeth, type Fault } from "../faults/fault.js";
import { generateFaults } from "../faults/generate.js";
import type { Instrument, State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { ALL_PLUGGED, fusesMeltedBefore, MachineState, type FaultAt } from "../instruments/machineState.js";
import { joinEdits, NO_EDIT, type Edit } from "../network/element.js";
import { modesOf, type Solver } from "../network/solver.js";
import { stateName } from "../network/state.js";
import { CodePredictions } from "./codePredictions.js";
import { Draws } from "./draws.js";
import { HypothesisTable, type Hypothesis } from "./hypothesis.js";
import { MachineReader, PULLED, type Solve, type Wanted } from "./machineReader.js";
import type { ReadingPlace } from "./piece.js";
import {
  aloneName,
  AtPlace,
  barelyName,
  betweenName,
  columnName,
  PredictionCache,
  ROW_OVERHEAD,
  type Predicted,
  type Rows,
} from "./predictionCache.js";
import { QUANTITY, type Quantity } from "./quantity.js";
import { fillSeverities } from "./severityFill.js";

/** Numbers kept in healthy solutions that faults start from, all together: about 100 MB. */
const PREPARED_NUMBERS = 12e6;
/** Numbers that one healthy solution takes for each node. */
const NUMBERS_PER_NODE = 60;
/** Numbers kept in predictions, all together, about 200 MB; the states not asked for the longest make room. */
const PREDICTED_NUMBERS = 48e6;
/**
 * Parts of a circuit that a fault moves by less than this are left as they were, volt: far below what a meter tells
 * apart.
 */
const NEGLIGIBLE_VOLT = 1e-4;
/** A value that is not exactly known is never drawn less often than this. Judgement: a middle and two sides. */
const LEAST_DRAWS = 3;
/** Where a signal still switches, the teeth that are left give it the levels of a sound one. */
const LEVELS: ReadonlySet<Quantity> = new Set<Quantity>(["least", "most"]);
const NONE_MELTED: readonly string[] = [];
/** So many results of what melts are remembered. Judgement: a few megabytes. */
const MOST_MELTED = 20_000;
const addsCurrent = ({ shunts, replace }: Edit) => Boolean(shunts?.length) || Boolean(replace?.length);

/**
 * Predicts what every hypothesis would show, and remembers it: nothing computed here depends on evidence, so a new
 * reading only looks things up. Hypothesis 0 is the healthy machine; hypothesis i + 1 is `faults[i]`; those of several
 * faults are added by `combine`.
 */
export class Predictor {
  readonly faults: readonly Fault[];
  readonly draws: number;
  readonly monitors: readonly BoundMonitor[];
  private readonly batteryMinus: string;
  /** how many times the circuit has been solved */
  solves = 0;
  /** hypotheses with a sample whose devices found no consistent state */
  readonly unsettled = new Set<number>();
  /** grows whenever numbers of hypotheses are given anew: what others keep by number is then out of date */
  generation = 0;
  /** what states devices were in at the last few solves, as one number */
  private modes = 0;
  private readonly table: HypothesisTable;
  private readonly drawn: Draws;
  /** nodes of the plain document's circuit */
  private readonly nodes: number;
  private readonly reader: MachineReader;
  readonly cache = new PredictionCache(PREDICTED_NUMBERS);
  /** what was worked out so far: see `pieceWork.ts` */
  readonly codes: CodePredictions;
  /** machine states by draw; the least lately used is dropped */
  private readonly machines = new Map<string, MachineState>();
  private lastMachine: { state: State; draw: number; machine: MachineState } | undefined;
  /** fuses that each sample melts with the key on: they stay blown when something is unplugged afterwards */
  private readonly melted = new Map<number, (readonly string[] | undefined)[]>();
  /** the same, remembered for the faults of a sample that may melt a fuse: sets that have those in common share it */
  private readonly meltedBy = new Map<string, readonly string[]>();
  /** whether a little of a single fault melts other fuses than much of it */
  private readonly melting = new Map<number, boolean>();

  /**
   * @param draws joint draws of what is not exactly known
   * @param budget severities, nodes and draws of the machine come to no more: of a large machine there are fewer draws
   */
  constructor(
    readonly wiring: Wiring,
    seed = 1,
    draws: number = DEFAULTS.draws,
    budget: number = DEFAULTS.predictionBudget,
  ) {
    this.faults = generateFaults(wiring);
    const nominal = new Draws(wiring, 1, seed).circuit(ALL_PLUGGED, 0);
    const severities = this.faults.reduce((sum, f) => sum + f.severities.length, 1);
    const affordable = Math.floor(budget / (severities * nominal.nodes.length));
    this.draws = Math.max(Math.min(LEAST_DRAWS, draws), Math.min(draws, affordable));
    this.drawn = new Draws(wiring, this.draws, seed);
    this.table = new HypothesisTable(this.faults, this.draws);
    this.nodes = nominal.nodes.length;
    this.reader = new MachineReader(wiring, nominal);
    this.monitors = bindMonitors(wiring, nominal);
    this.batteryMinus = `${wiring.devices.find((d) => d.kind === "battery")?.id ?? ""}:-`;
    this.codes = new CodePredictions(
      this.hypotheses,
      this.draws,
      this.monitors,
      (state, draw) => this.machineIn(state, draw).phases,
      (h, sample, state, look) => this.solve(h, sample, state, look),
      (h, sample, state) => this.machineIn(state, sample % this.draws).edit(this.faultsOf(h, sample)),
    );
  }

  get hypotheses(): readonly Hypothesis[] {
    return this.table.all;
  }
  /** where a meter can be put, by endpoint name */
  get points(): readonly string[] {
    return this.reader.points;
  }
  get pointIndex(): ReadonlyMap<string, number> {
    return this.reader.pointIndex;
  }
  /** Numbers per sample in a column of one instrument. */
  stride(instrument: Instrument): number {
    return this.reader.stride(QUANTITY[instrument]);
  }
  /** Where in a column a reading stands: a point, a wire for a clamp, a module's cavity for the scan tool. */
  placeOf(instrument: Instrument, name: string): number | undefined {
    return this.reader.placeOf(instrument, name);
  }
  /** In how many of the draws a hypothesis is predicted: several faults at once in fewer. */
  drawsUsed(h: number): number {
    return this.table.drawsUsed(h);
  }
  severitiesOf(h: number, sample: number): readonly number[] {
    return this.table.severitiesOf(h, sample);
  }
  /** Where in its range a sensor's true condition lies in each draw; undefined for what has none. */
  restOf(thing: string): readonly number[] | undefined {
    return this.drawn.restOf(thing);
  }
  /** A hypothesis of several faults at once; see `HypothesisTable.combine`. */
  combine(members: readonly number[], choices: readonly (readonly number[])[], draws?: number): number {
    return this.table.combine(members, choices, draws);
  }

  /**
   * Forgets hypotheses of several faults when too many are kept: before new ones are grown, never between two that
   * belong together.
   */
  makeRoom(): void {
    const first = this.table.makeRoom();
    if (first === undefined) return;
    this.generation++;
    this.forgetPredictedFrom(first);
  }
  private forgetPredictedFrom(first: number): void {
    this.cache.forgetFrom(first);
    for (const h of [...this.melted.keys()]) if (h >= first) this.melted.delete(h);
    for (const h of [...this.unsettled]) if (h >= first) this.unsettled.delete(h);
    this.codes.forgetFrom(first);
  }
  /**
   * Work that tries many sets of faults: those made for it are forgotten when it is done.
   * @param work weighs nothing: its hypotheses must be known by number to nobody else
   */
  trying<T>(work: () => T): T {
    const first = this.hypotheses.length;
    const found = work();
    this.table.forgetFrom(first);
    this.forgetPredictedFrom(first);
    return found;
  }

  /**
   * What the instrument would show at every point (or wire).
   * @param wanted samples needed (1), or all when undefined
   * @returns volts, ohms or amperes by sample and place (see `placeOf`); only the wanted samples are there
   */
  predict(h: number, state: State, instrument: Instrument, wanted?: Uint8Array): Rows {
    const quantity = QUANTITY[instrument];
    if (LEVELS.has(quantity) && h > 0 && this.hypotheses[h]!.faults.every(losesTeeth))
      return this.predict(0, state, instrument, wanted);
    const name = columnName(state, instrument);
    return this.predictPart(name, h, state, quantity, wanted, {}, this.reader.stride(quantity));
  }
  private readSample(h: number, sample: number, state: State, quantity: Quantity, wanted?: Wanted): Float32Array {
    const machine = this.machineIn(state, sample % this.draws);
    const solve = this.solving(h, sample, state);
    return this.reader.read(machine, this.phasesOf(machine, h, sample), solve, quantity, wanted);
  }

  /**
   * As `predictAt`, at that place alone: less work where nobody asks for the others. Readings in the same state that
   * are asked for one after the other share a solution.
   */
  predictAlone(h: number, e: ReadingPlace, wanted?: Uint8Array): Predicted {
    const place = this.placeOf(e.instrument, e.point);
    const quantity = QUANTITY[e.instrument];
    if (e.black !== undefined || place === undefined || LEVELS.has(quantity)) return this.predictAt(h, e, wanted);
    const name = aloneName(e.state, e.instrument, place);
    const one = { places: Int32Array.of(place) };
    return new AtPlace(this.predictPart(name, h, e.state, quantity, wanted, one, ROW_OVERHEAD), 0);
  }
  /**
   * As `predictAt`, and the whole column with it, but for the places that would each take a solve with the meter in
   * place: of those only the one that is asked for.
   */
  predictBarely(h: number, e: ReadingPlace, wanted?: Uint8Array): Predicted {
    const place = this.placeOf(e.instrument, e.point);
    const quantity = QUANTITY[e.instrument];
    if (e.black !== undefined || place === undefined || quantity !== "volts") return this.predictAt(h, e, wanted);
    const name = barelyName(e.state, e.instrument);
    const stride = this.reader.stride(quantity);
    const rows = this.predictPart(name, h, e.state, quantity, wanted, { leavesPulled: true }, stride);
    const bare = new AtPlace(rows, place);
    let pulled: Uint8Array | undefined;
    for (let sample = 0; sample < rows.length; sample++)
      if (bare.at(sample) === PULLED && (!wanted || wanted[sample] === 1))
        (pulled ??= new Uint8Array(rows.length))[sample] = 1;
    if (!pulled) return bare;
    const [own, loaded] = [pulled, this.predictAlone(h, e, pulled)];
    return { at: (sample) => (own[sample] === 1 ? loaded : bare).at(sample) };
  }
  private predictPart(
    name: string,
    h: number,
    state: State,
    quantity: Quantity,
    wanted: Uint8Array | undefined,
    part: Wanted,
    numbers: number,
  ): Rows {
    const rows = this.cache.rows(name, h, this.hypotheses[h]!.samples);
    // draw by draw: all severities of one draw start from the same healthy solution
    const solve = (sample: number) => this.readSample(h, sample, state, quantity, part);
    let added = 0;
    for (let draw = 0; draw < this.draws; draw++) added += this.fill(h, draw, quantity, rows, wanted, solve);
    this.cache.count(name, added * numbers);
    return rows;
  }

  /** The name under which what a reading needs is remembered. */
  columnOf({ state, instrument, point, black }: ReadingPlace): string {
    return black === undefined && this.placeOf(instrument, point) !== undefined
      ? columnName(state, instrument)
      : betweenName(state, instrument, point, black ?? this.batteryMinus);
  }

  /** As `predict` or `predictBetween`, at the place of one reading. Samples not wanted are NaN. */
  predictAt(h: number, e: ReadingPlace, wanted?: Uint8Array): Predicted {
    const place = this.placeOf(e.instrument, e.point);
    if (e.black === undefined && place !== undefined)
      return new AtPlace(this.predict(h, e.state, e.instrument, wanted), place);
    // a pin of a loose part is no place of the machine
    return this.predictBetween(h, e.state, e.instrument, e.point, e.black ?? this.batteryMinus, wanted);
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
    const quantity = QUANTITY[instrument];
    const name = betweenName(state, instrument, red, black);
    const { samples } = this.hypotheses[h]!;
    const rows = this.cache.rows(name, h, samples);
    let added = 0;
    for (let draw = 0; draw < this.draws; draw++)
      added += this.fill(h, draw, quantity, rows, wanted, (sample) => {
        const machine = this.machineIn(state, draw);
        const phases = this.phasesOf(machine, h, sample);
        const solve = this.solving(h, sample, state);
        return Float32Array.of(this.reader.readBetween(machine, phases, solve, quantity, red, black));
      });
    this.cache.count(name, added * ROW_OVERHEAD);
    return new AtPlace(rows, 0);
  }

  /**
   * Solves what is wanted and not there yet of one draw: of many severities next to each other only some.
   * @returns how many rows were added
   */
  private fill(
    h: number,
    draw: number,
    quantity: Quantity,
    rows: Rows,
    wanted: Uint8Array | undefined,
    solve: (sample: number) => Float32Array,
  ): number {
    const { samples, stepped } = this.hypotheses[h]!;
    const missing: number[] = [];
    for (let sample = draw; sample < samples; sample += this.draws)
      if (!rows[sample] && (!wanted || wanted[sample])) missing.push(sample);
    if (!stepped || h > this.faults.length) for (const sample of missing) rows[sample] = solve(sample);
    else
      fillSeverities(
        missing.map((sample) => this.severitiesOf(h, sample)[0] ?? 0),
        quantity,
        (k) => {
          this.modes = 0;
          return { values: solve(missing[k]!), mode: this.modes };
        },
        (k, row) => {
          rows[missing[k]!] = row;
        },
      );
    return missing.length;
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
  /**
   * As `codesSet` and `codeShares`, from about a quarter of the work: good for telling which hypotheses are worth all
   * of it.
   */
  roughCodesSet(h: number, wanted: readonly number[]): Uint8Array {
    return this.codes.of(h, wanted, true).bits;
  }
  roughCodeShares(h: number, wanted: readonly number[]): Float32Array {
    return this.codes.of(h, wanted, true).share;
  }

  /** Whether a hypothesis moves anything that one of these monitors watches, at its outer severities. */
  movesAny(h: number, monitors: readonly number[]): boolean {
    return this.codes.movesAny(h, monitors);
  }

  /** Whether a sound machine, as it is drawn, sets this code in most draws. */
  healthySets(monitor: number): boolean {
    const { samples } = this.hypotheses[0]!;
    const shares = this.codeShares(0, [monitor]);
    let sum = 0;
    for (let s = 0; s < samples; s++) sum += shares[s * this.monitors.length + monitor]!;
    return sum > samples / 2;
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

  /**
   * Whether two samples melt the same fuses with everything plugged and the key on. Where they do not, a value jumps
   * from the one to the other: nothing lies between.
   */
  meltAlike(h: number, one: number, other: number): boolean {
    if (!this.mayMelt(h)) return true;
    return this.areMeltedAlike(h, one, other);
  }
  /** Told by the outer severities in two draws: what melts a fuse there only in between is not looked for. */
  private mayMelt(h: number): boolean {
    const { samples, stepped } = this.hypotheses[h]!;
    if (!stepped) return true;
    let known = this.melting.get(h);
    if (known === undefined) {
      const last = samples - this.draws;
      known = [0, this.draws >> 1].some((draw) => !this.areMeltedAlike(h, draw, last + draw));
      this.melting.set(h, known);
    }
    return known;
  }
  private areMeltedAlike(h: number, one: number, other: number): boolean {
    const [a, b] = [this.meltedPlugged(h, one), this.meltedPlugged(h, other)];
    return a.length === b.length && a.every((fuse, i) => fuse === b[i]);
  }

  private solving(h: number, sample: number, state: State): Solve {
    return (look, extra) => this.solve(h, sample, state, look, extra);
  }
  private solve(h: number, sample: number, state: State, look: Look, extra: Edit = NO_EDIT): Solver {
    const machine = this.machineIn(state, sample % this.draws);
    const edit = () => {
      this.solves++;
      const own = machine.edit(this.faultsOf(h, sample));
      const blown = machine.withoutFuses(this.meltedBefore(h, sample, state));
      return blown === NO_EDIT && extra === NO_EDIT ? own : joinEdits(own, blown, extra);
    };
    const solved = extra === NO_EDIT ? { of: this.hypotheses[h]!, sample } : undefined;
    const s = machine.solve(look, edit, NEGLIGIBLE_VOLT, solved);
    this.modes = (Math.imul(this.modes, 31) + modesOf(s)) | 0;
    if (!machine.settled) this.unsettled.add(h);
    if (!machine.healthySettled) this.unsettled.add(0);
    return s;
  }
  private phasesOf(machine: MachineState, h: number, sample: number): readonly Phase[] {
    const changesDuty = this.hypotheses[h]!.faults.some((f) => f.mode === "dutyWrong");
    return changesDuty ? machine.phasesWith(machine.edit(this.faultsOf(h, sample))) : machine.phases;
  }
  private faultsOf(h: number, sample: number): FaultAt[] {
    const severities = this.severitiesOf(h, sample);
    return this.hypotheses[h]!.faults.map((fault, i) => ({ fault, severity: severities[i]! }));
  }

  /** A fuse that melts with everything plugged and the key on is blown from then on, until it is renewed. */
  private meltedBefore(h: number, sample: number, state: State): readonly string[] {
    return fusesMeltedBefore(state) ? this.meltedPlugged(h, sample) : NONE_MELTED;
  }
  private meltedPlugged(h: number, sample: number): readonly string[] {
    const { faults, samples } = this.hypotheses[h]!;
    if (faults.length === 0) return NONE_MELTED;
    let list = this.melted.get(h);
    if (!list) this.melted.set(h, (list = new Array<readonly string[] | undefined>(samples)));
    return (list[sample] ??= this.findMelted(h, sample));
  }
  /** What only adds resistance, or takes something out of work, melts no fuse: the others are solved without it. */
  private findMelted(h: number, sample: number): readonly string[] {
    const draw = sample % this.draws;
    const plugged = this.machineIn(ALL_PLUGGED, draw);
    const adding = this.faultsOf(h, sample).filter((f) => addsCurrent(plugged.edit([f])));
    if (adding.length === 0) return NONE_MELTED;
    const name = `${draw} ${adding.map(({ fault, severity }) => `${fault.id}@${severity}`).join(" ")}`;
    let found = this.meltedBy.get(name);
    if (!found) {
      this.solves++;
      found = plugged.melted(plugged.edit(adding), NEGLIGIBLE_VOLT);
      if (this.meltedBy.size >= MOST_MELTED) this.meltedBy.clear();
      this.meltedBy.set(name, found.length ? found : NONE_MELTED);
    }
    return found;
  }

  private machineIn(state: State, draw: number): MachineState {
    const last = this.lastMachine;
    if (last?.state === state && last.draw === draw) return last.machine;
    const name = `${draw} ${stateName(state)}`;
    let machine = this.machines.get(name);
    if (machine)
      this.machines.delete(name); // and put back as the latest
    else {
      const circuit = this.drawn.circuit(state, draw);
      machine = new MachineState(this.wiring, state, circuit);
      const most = PREPARED_NUMBERS / (NUMBERS_PER_NODE * this.nodes);
      while (this.machines.size > 2 * this.draws && this.machines.size > most)
        this.machines.delete(this.machines.keys().next().value!);
    }
    this.machines.set(name, machine);
    this.lastMachine = { state, draw, machine };
    return machine;
  }
}
