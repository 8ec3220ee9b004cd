import type { Instrument, ReadingEntry, State } from "../format/case.js";
import type { Device, Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { onLoosePart } from "../network/state.js";
import type { CandidateKind } from "../planner/candidateKind.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets, type Nets } from "../wiring/nets.js";
import { connectorOf, deviceConnectors, indexWiring, pinBehind, type Index } from "../wiring/points.js";
import { barredConnectors, isNeverProbed } from "../wiring/safety.js";

/** One step of a guided run, before what it costs from where one stands. */
export interface RunStep {
  readonly kind: CandidateKind;
  readonly instrument: Instrument | "none";
  readonly points: readonly string[];
  readonly black?: string;
  readonly state: State;
  readonly part?: ReadingEntry["part"];
  /** what this step is about: the connector just unplugged, the section, the pin */
  readonly label: string;
}
/**
 * What the logbook says a step gave; undefined where it was skipped. Numbers in volts, ohms or amperes; a lamp 1 bright
 * to 0 dark; yes is 1.
 */
export interface StepAnswer {
  readonly number: number;
  readonly values: readonly number[];
}
/** How one step came out, for the picture beside the run. */
export type Mark = "full" | "part" | "none" | "good" | "bad";
/** What a run came to: an issue code in `run.*` with its parameters, and the things it accuses. */
export interface RunFinding {
  readonly verdict: "found" | "clear" | "unclear";
  readonly says: Issue;
  readonly things: readonly string[];
}
/**
 * A run reads like its instructions: it yields the next step and is resumed with what the logbook says of it.
 * Run again from the start on every look, so a run left half way goes on wherever the logbook stands.
 */
export type Script = Generator<RunStep, RunFinding, StepAnswer | undefined>;

export const found = (code: string, things: readonly string[], params: Issue["params"] = {}): RunFinding => ({
  verdict: "found",
  things,
  says: issue(`run.${code}`, [], { things, ...params }),
});
export const clear = (code: string, params: Issue["params"] = {}): RunFinding => ({
  verdict: "clear",
  things: [],
  says: issue(`run.${code}`, [], params),
});
export const unclear = (code: string, params: Issue["params"] = {}): RunFinding => ({
  verdict: "unclear",
  things: [],
  says: issue(`run.${code}`, [], params),
});

export const on = (unplugged: readonly string[] = [], more: Partial<State> = {}): State => ({
  key: "on",
  unplugged: [...unplugged].sort(),
  ...more,
});
export const off = (unplugged: readonly string[] = [], more: Partial<State> = {}): State => ({
  key: "off",
  unplugged: [...unplugged].sort(),
  ...more,
});

/** What a run knows of the machine: the wiring, and what a machine without a fault would show. */
export class RunContext {
  readonly wiring: Wiring;
  readonly nets: Nets;
  readonly index: Index;
  readonly barred: ReadonlySet<string>;
  readonly deviceOn: ReadonlyMap<string, Device>;
  readonly marks = new Map<number, Mark>();
  constructor(
    readonly predictor: Predictor,
    readonly subject: string,
  ) {
    this.wiring = predictor.wiring;
    this.nets = findNets(this.wiring);
    this.index = indexWiring(this.wiring);
    this.barred = barredConnectors(this.wiring);
    this.deviceOn = new Map(this.wiring.devices.flatMap((d) => deviceConnectors(d).map((c) => [c, d] as const)));
  }
  /** What a healthy machine would show, nominal values; NaN where nothing can be said. */
  healthy(step: RunStep, i = 0): number {
    const point = step.points[i]!;
    if (step.instrument === "none" || this.isEitherLevel(step)) return NaN;
    if (step.part) {
      const black = step.black === undefined ? undefined : pinBehind(step.black);
      const { instrument } = step;
      return this.predictor
        .predictAt(0, { instrument, point: pinBehind(point), black, state: onLoosePart(step.state) })
        .at(0);
    }
    if (step.black === undefined && this.predictor.placeOf(step.instrument, point) === undefined) return NaN;
    return this.predictor
      .predictAt(0, { instrument: step.instrument, point, black: step.black, state: step.state })
      .at(0);
  }
  /** Whether a step acts on a Hall sensor: one switches low on steel, the next one high. */
  private isEitherLevel({ state }: RunStep): boolean {
    return Object.keys(state.stimulus ?? {}).some((id) => this.index.devices.get(id)?.kind === "hall");
  }
  /** Whether a point, plug or part is on a restraint or high-voltage circuit. */
  isGuarded(id: string): boolean {
    const of = connectorOf(id);
    const d = this.index.devices.get(of);
    return this.barred.has(of) || (d !== undefined && isNeverProbed(d));
  }
  mark(got: StepAnswer | undefined, mark: Mark): void {
    if (got) this.marks.set(got.number, mark);
  }
  volts(point: string, state: State, label = point, black?: string): RunStep {
    return {
      kind:
        black !== undefined
          ? "drop"
          : state.unplugged.includes(connectorOf(point))
            ? "voltageUnplugged"
            : state.unplugged.length
              ? "watch"
              : "voltage",
      instrument: "voltmeter",
      points: [point],
      ...(black === undefined ? {} : { black }),
      state,
      label,
    };
  }
  isModule(connector: string): boolean {
    return this.deviceOn.get(connector)?.kind === "module";
  }
  batteryPlus(): string | undefined {
    return this.batteryPosts()?.plus;
  }
  batteryPosts(): { readonly plus: string; readonly minus: string } | undefined {
    const b = this.wiring.devices.find((d) => d.kind === "battery");
    return b ? { plus: `${b.id}:+`, minus: `${b.id}:-` } : undefined;
  }
}
