import { judge, judgePlan, phasesOf, type Phase } from "../codes/judge.js";
import { bindMonitors, type BoundMonitor } from "../codes/monitors.js";
import type { Fault } from "../faults/fault.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { batteryVolt, type StimulusOf, type ValueOf } from "../network/builder.js";
import { middle, nominalValue } from "../network/compile.js";
import { joinEdits, NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import { meltedFuses } from "../network/observe.js";
import { analysePattern, type Pattern } from "../network/pattern.js";
import { prepare, settle } from "../network/settle.js";
import { createSolver, type Solver } from "../network/solver.js";
import { compileState, conditionsOf, stateName } from "../network/state.js";

/** A fault at a severity. */
export interface FaultAt {
  readonly fault: Fault;
  readonly severity: number;
}

/** Prepared states kept. */
const KEPT = 24;

/**
 * One machine to measure at: a wiring, what is wrong with it, and its true values. Instruments read it in any machine
 * state; see voltage.ts, resistance.ts, lamp.ts, current.ts, scope.ts, scanTool.ts. Not for inner loops.
 */
export class Rig {
  readonly monitors: readonly BoundMonitor[];
  private readonly prepared = new Map<
    string,
    { circuit: Circuit; pattern: Pattern; phases: readonly Phase[]; solvers: Map<string, Solver> }
  >();

  /** @param faults none for a healthy machine; @param value and @param stimulus its true values, nominal when left out */
  constructor(
    readonly wiring: Wiring,
    readonly faults: readonly FaultAt[] = [],
    private readonly value: ValueOf = nominalValue,
    private readonly stimulus: StimulusOf = middle,
  ) {
    this.monitors = bindMonitors(wiring, this.circuit({ key: "on", unplugged: [] }));
  }

  circuit(state: State): Circuit {
    return this.at(state).circuit;
  }
  phases(state: State): readonly Phase[] {
    return this.at(state).phases;
  }

  /** @returns the node of a point, or undefined where the machine has no such point */
  node(point: string, state: State): number | undefined {
    return this.circuit(state).nodeOf.get(point);
  }

  /** The faults as one change to the circuit of a state. */
  edit(state: State): Edit {
    const circuit = this.circuit(state);
    const volt = batteryVolt(this.wiring, state.key, batteryOf(this.wiring));
    const edits = this.faults.map((f) => f.fault.edit(f.severity, circuit, volt));
    return edits.length === 0 ? NO_EDIT : edits.length === 1 ? edits[0]! : joinEdits(...edits);
  }

  /** Settles the machine for one look. The solver stays valid until the next call for the same look. @param extra what an instrument adds */
  settled(
    state: State,
    look: { steel?: boolean | undefined; phase?: number | undefined; talker?: number | undefined } = {},
    extra: Edit = NO_EDIT,
  ): Solver {
    const here = this.at(state);
    const name = `${look.steel ?? ""} ${look.phase ?? 0} ${look.talker ?? ""}`;
    let s = here.solvers.get(name);
    if (!s) {
      s = createSolver(here.circuit, here.pattern);
      prepare(s, conditionsOf(here.circuit, state, look));
      here.solvers.set(name, s);
    }
    const own = this.edit(state);
    const gone = this.goneFuses(here.circuit, state);
    settle(s, extra === NO_EDIT && gone === NO_EDIT ? own : joinEdits(own, gone, extra));
    return s;
  }

  /** A fuse that melted with everything plugged and the key on stays blown in any other state, until a breaker or a new one is in its place. */
  private goneFuses(circuit: Circuit, state: State): Edit {
    if (this.faults.length === 0 || (state.key === "on" && state.unplugged.length === 0 && !state.pulled?.length))
      return NO_EDIT;
    this.melted ??= (() => {
      const at = { key: "on", unplugged: [] } as State;
      const s = this.settled(at);
      return meltedFuses(s).map((e) => this.circuit(at).elements[e]!.id);
    })();
    const series = this.melted.flatMap((id) => {
      const element = circuit.elementOf.get(id);
      return element === undefined || state.breakers?.includes(id.slice("fuse ".length))
        ? []
        : [{ element, ohm: Infinity }];
    });
    return series.length ? { series } : NO_EDIT;
  }
  private melted: readonly string[] | undefined;

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

  private at(state: State) {
    const name = stateName(state);
    let here = this.prepared.get(name);
    if (!here) {
      const circuit = compileState(this.wiring, state, this.value, this.stimulus);
      here = { circuit, pattern: analysePattern(circuit), phases: phasesOf(circuit), solvers: new Map() };
      if (this.prepared.size >= KEPT) this.prepared.delete(this.prepared.keys().next().value!);
      this.prepared.set(name, here);
    }
    return here;
  }
}

/** What the document says of its battery, volt. */
export const batteryOf = (wiring: Wiring): number | undefined => {
  const b = wiring.devices.find((d) => d.kind === "battery");
  return b?.kind === "battery" ? b.volt : undefined;
};
