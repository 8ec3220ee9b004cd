import { judge, judgePlan, type Look, type Phase } from "../codes/judge.js";
import { bindMonitors, type BoundMonitor } from "../codes/monitors.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { StimulusOf, ValueOf } from "../network/builder.js";
import { middle, nominalValue } from "../network/compile.js";
import { joinEdits, NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import type { Solver } from "../network/solver.js";
import { compileState, stateName } from "../network/state.js";
import { ALL_PLUGGED, fusesMeltedBefore, MachineState, type FaultAt } from "./machineState.js";

/** Machine states kept: what a technician goes to and fro between. */
const KEPT_STATES = 24;

/**
 * One machine to measure at: a wiring, what is wrong with it, and its true values. `readings.ts` reads its instruments
 * in any machine state. Not for inner loops.
 */
export class Rig {
  readonly monitors: readonly BoundMonitor[];
  private readonly states = new Map<string, MachineState>();
  private meltedFuses: readonly string[] | undefined;

  /**
   * @param faults none for a healthy machine;
   * @param value and
   * @param stimulus its true values, nominal when left out
   */
  constructor(
    readonly wiring: Wiring,
    readonly faults: readonly FaultAt[] = [],
    private readonly value: ValueOf = nominalValue,
    private readonly stimulus: StimulusOf = middle,
  ) {
    this.monitors = bindMonitors(wiring, this.circuit(ALL_PLUGGED));
  }

  circuit(state: State): Circuit {
    return this.at(state).circuit;
  }
  phases(state: State): readonly Phase[] {
    const here = this.at(state);
    return here.phasesWith(here.edit(this.faults));
  }

  /** @returns the node of a point, or undefined where the machine has no such point */
  node(point: string, state: State): number | undefined {
    return this.circuit(state).nodeOf.get(point);
  }

  /** The faults as one change to the circuit of a state. */
  edit(state: State): Edit {
    return this.at(state).edit(this.faults);
  }

  /**
   * Settles the machine for one look. The solver stays valid until the next call for the same look.
   * @param extra what an instrument adds
   */
  settled(state: State, look: Partial<Look> = {}, extra: Edit = NO_EDIT): Solver {
    const here = this.at(state);
    const own = here.edit(this.faults);
    const blown = here.withoutFuses(this.melted(state));
    const plain = extra === NO_EDIT && blown === NO_EDIT;
    return here.solve({ phase: 0, ...look }, () => (plain ? own : joinEdits(own, blown, extra)));
  }

  /** Fuses that melted before this state was reached. */
  private melted(state: State): readonly string[] {
    if (this.faults.length === 0 || !fusesMeltedBefore(state)) return [];
    const plugged = this.at(ALL_PLUGGED);
    return (this.meltedFuses ??= plugged.melted(plugged.edit(this.faults)));
  }

  /** The codes its modules set in one key state, everything else as given: places in `monitors`. */
  codesIn(state: State): number[] {
    const here = this.monitors.filter((m) => m.key === state.key);
    const found: number[] = [];
    judge(
      judgePlan(here),
      this.phases(state),
      (look) => this.settled(state, look),
      (i) => found.push(this.monitors.indexOf(here[i]!)),
    );
    return found.sort((a, b) => a - b);
  }

  /** The codes set over all key states in which monitors run. */
  codes(unplugged: readonly string[] = []): BoundMonitor[] {
    const keys = [...new Set(this.monitors.map((m) => m.key))];
    return keys
      .flatMap((key) => this.codesIn({ key, unplugged: [...unplugged] }))
      .sort((a, b) => a - b)
      .map((i) => this.monitors[i]!);
  }

  private at(state: State): MachineState {
    const name = stateName(state);
    let here = this.states.get(name);
    if (!here) {
      here = new MachineState(this.wiring, state, compileState(this.wiring, state, this.value, this.stimulus));
      if (this.states.size >= KEPT_STATES) this.states.delete(this.states.keys().next().value!);
      this.states.set(name, here);
    }
    return here;
  }
}
