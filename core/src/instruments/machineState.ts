import { phasesOf, type Look, type Phase } from "../codes/judge.js";
import type { Fault } from "../faults/fault.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { batteryVolt } from "../network/builder.js";
import { joinEdits, NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import { meltedFuses } from "../network/observe.js";
import { analysePattern, type Pattern } from "../network/pattern.js";
import { prepare, settle } from "../network/settle.js";
import { createSolver, type Solver } from "../network/solver.js";
import { conditionsOf, isSpecial, stateName } from "../network/state.js";

/** A fault at a severity. */
export interface FaultAt {
  readonly fault: Fault;
  readonly severity: number;
}

/** What a solution is of. */
export interface SolvedFor {
  /** told apart by identity */
  readonly of: object;
  readonly sample: number;
}
interface Prepared {
  readonly solver: Solver;
  /** of what the solver holds a solution */
  holds: SolvedFor | undefined;
}

/** Key on, nothing unplugged: the state in which a short melts its fuse. */
export const ALL_PLUGGED: State = { key: "on", unplugged: [] };

/** Whether a fuse that melted while everything was plugged matters: in that state itself it melts by itself. */
export const fusesMeltedBefore = (state: State): boolean =>
  state.key !== "on" || state.unplugged.length > 0 || Boolean(state.pulled?.length);

/** Ids of elements that are fuses begin with this. */
const FUSE = "fuse ";

/** Patterns by wiring and by what is fitted: values, keys and what is unplugged change none of it. */
const patterns = new WeakMap<Wiring, Map<string, Pattern>>();
/** Patterns kept of one wiring: jumpers and lamps at many places make many. */
const PATTERNS_KEPT = 60;

/** The pattern of a state's circuit, analysed on first asking. */
function patternOf(wiring: Wiring, state: State, circuit: Circuit): Pattern {
  let known = patterns.get(wiring);
  if (!known) patterns.set(wiring, (known = new Map()));
  const name = isSpecial(state) ? stateName({ ...state, unplugged: [] }) : "";
  let pattern = known.get(name);
  if (pattern?.n !== circuit.nodes.length) {
    if (known.size >= PATTERNS_KEPT) known.clear();
    known.set(name, (pattern = analysePattern(circuit)));
  }
  return pattern;
}

/**
 * A machine in one state: its circuit, solved healthy once for each look, then with one change after another. Both what
 * hypotheses predict and what instruments read are solved here.
 */
export class MachineState {
  readonly pattern: Pattern;
  readonly phases: readonly Phase[];
  /** whether the healthy machine, and the one solved last, found a consistent state */
  healthySettled = true;
  settled = true;
  private readonly batteryVolt: number;
  private readonly solvers: Prepared[] = [];

  constructor(
    wiring: Wiring,
    readonly state: State,
    readonly circuit: Circuit,
  ) {
    this.pattern = patternOf(wiring, state, circuit);
    this.phases = phasesOf(circuit);
    this.batteryVolt = batteryVolt(wiring, state.key, batteryOf(wiring));
  }

  /** The parts of a period with a change to this circuit: a driver may be pulsed otherwise than drawn. */
  phasesWith(edit: Edit): readonly Phase[] {
    const duties = (edit.replace ?? []).flatMap(({ by: { duty } }) => (duty === undefined ? [] : [duty]));
    return duties.some((d) => d > 0 && d < 1) ? phasesOf(this.circuit, duties) : this.phases;
  }

  /** Faults as one change to this circuit. */
  edit(faults: readonly FaultAt[]): Edit {
    if (faults.length === 0) return NO_EDIT;
    if (faults.length === 1) return faults[0]!.fault.edit(faults[0]!.severity, this.circuit, this.batteryVolt);
    return joinEdits(...faults.map((f) => f.fault.edit(f.severity, this.circuit, this.batteryVolt)));
  }

  /**
   * Fuses that melted with everything plugged stay blown in any other state, until a breaker or a new one is in place.
   * @param melted element ids, see `melted`
   */
  withoutFuses(melted: readonly string[]): Edit {
    if (melted.length === 0 || !fusesMeltedBefore(this.state)) return NO_EDIT;
    const series = melted.flatMap((id) => {
      const element = this.circuit.elementOf.get(id);
      const replaced = this.state.breakers?.includes(id.slice(FUSE.length));
      return element === undefined || replaced ? [] : [{ element, ohm: Infinity }];
    });
    return series.length ? { series } : NO_EDIT;
  }

  /** Ids of the fuses that a change melts in this state. */
  melted(edit: Edit, tolerance?: number): readonly string[] {
    return meltedFuses(this.solve({ phase: 0 }, () => edit, tolerance)).map((e) => this.circuit.elements[e]!.id);
  }

  /**
   * Solves with a change, for one look.
   * @param tolerance what moves less is left as it was, volt: only where a meter could not tell the difference
   * @param solved what the change is of: where the last one for this look was of the same, its solution still stands
   * @returns a solver that stays valid until the next call for the same look
   */
  solve(look: Look, edit: () => Edit, tolerance?: number, solved?: SolvedFor): Solver {
    const prepared = this.prepared(look);
    const { solver, holds } = prepared;
    const stands = solved !== undefined && holds?.of === solved.of && holds.sample === solved.sample;
    this.settled = stands ? solver.state.outcome.settled : settle(solver, edit(), tolerance).settled;
    prepared.holds = solved;
    return solver;
  }

  private prepared(look: Look): Prepared {
    const known = this.solvers.find(
      ({ solver: { conditions: c } }) => c.steel === look.steel && c.phase === look.phase && c.talker === look.talker,
    );
    if (known) return known;
    const solver = createSolver(this.circuit, this.pattern);
    if (!prepare(solver, conditionsOf(this.circuit, this.state, look)).settled) this.healthySettled = false;
    const prepared: Prepared = { solver, holds: undefined };
    this.solvers.push(prepared);
    return prepared;
  }
}

/** What the document says of its battery, volt. */
export function batteryOf(wiring: Wiring): number | undefined {
  const b = wiring.devices.find((d) => d.kind === "battery");
  return b?.kind === "battery" ? b.volt : undefined;
}
