import { assess } from "../diagnosis/belief.js";
import { isCause } from "../diagnosis/groups.js";
import type { FaultView } from "../diagnosis/groups.js";
import type { Entry, RepairedEntry } from "../format/case.js";
import type { FaultAt } from "../instruments/machineState.js";
import { makePlan } from "../planner/plan.js";
import { choose } from "../planner/policies.js";
import { recordAnswer } from "../planner/record.js";
import { uniform } from "../prediction/draws.js";
import type { Predictor } from "../prediction/predictor.js";
import { proofOf, type ProofStep } from "../proof/plan.js";
import { SimulatedMachine } from "./machine.js";
import { dateOfStep, observe, recordObserved } from "./observe.js";
import { faultsLeft, repairOf } from "./repairs.js";

/** How one simulated job was repaired and proven. */
export interface ProvenJob {
  /** what the verdict named, and whether it was what was hidden */
  readonly named: string | undefined;
  /** what is claimed after the repair and after each step of the proof: how likely a cure is, minutes by then */
  readonly course: readonly { readonly step: string; readonly cured: number; readonly minutes: number }[];
  /** every hidden fault is gone */
  readonly cured: boolean;
  readonly entries: readonly Entry[];
}
export interface ProvenJobOptions {
  readonly seed: number;
  /** how often what is hidden shows itself when somebody looks */
  readonly presence?: number;
  /** the repair is made at the place of the second suspect */
  readonly wrongPlace?: boolean;
  /** nobody works on what is repaired well: it cures half as often */
  readonly badly?: boolean;
  /** readings at most before the repair */
  readonly most?: number;
}
const AT = "2026-01-01T08:00:00Z";
const LATER = "2026-01-01T12:00:00Z";
const MOST_READINGS = 15;

/**
 * Plays a job on a simulated machine to its verdict, repairs what was named, and proves it as the plan says, until a
 * step fails or none is left.
 */
export function playProof(
  predictor: Predictor,
  faults: readonly FaultAt[],
  options: ProvenJobOptions,
): ProvenJob | undefined {
  return new ProvingTechnician(predictor, faults, options).play();
}

class ProvingTechnician {
  private readonly random: () => number;
  private readonly entries: Entry[] = [];

  constructor(
    private readonly predictor: Predictor,
    private readonly faults: readonly FaultAt[],
    private readonly options: ProvenJobOptions,
  ) {
    this.random = uniform(options.seed * 7919 + 29);
  }

  play(): ProvenJob | undefined {
    const machine = this.machineOf(this.faults);
    const codes = machine.codes();
    if (codes.length === 0) return undefined;
    this.scan(codes, "before");
    const repaired = this.diagnose(machine);
    if (!repaired) return undefined;
    const repair: RepairedEntry = { type: "repaired", at: LATER, ...repairOf(repaired) };
    this.entries.push(repair);
    const done = faultsLeft(this.predictor.wiring, this.faults, [repair], this.options.seed);
    const left = this.options.badly && this.random() < 0.5 ? this.faults : done;
    const course = this.prove(this.machineOf(left));
    return { named: repaired.id, course, cured: left.length === 0, entries: this.entries };
  }
  private machineOf(faults: readonly FaultAt[]): SimulatedMachine {
    const { seed, presence } = this.options;
    return new SimulatedMachine(this.predictor.wiring, faults, seed, presence === undefined ? {} : { presence });
  }
  private scan(
    codes: ReturnType<SimulatedMachine["codes"]>,
    when: "before" | "afterClear" | "afterCrank" | "afterDrive",
  ) {
    this.entries.push({
      type: "scan",
      at: when === "before" ? AT : LATER,
      when,
      modules: [...new Set(this.predictor.wiring.codes.map((c) => c.module))],
      codes: codes.map((c) => ({ ...c, status: this.options.presence === undefined ? "active" : "stored" })),
      disturbed: [],
      wiped: false,
    });
  }

  /** @returns what is to be repaired */
  private diagnose(machine: SimulatedMachine): FaultView | undefined {
    for (let i = 0; ; i++) {
      const belief = assess(this.predictor, this.entries);
      const plan = makePlan(this.predictor, belief);
      const candidate =
        plan.stage === "proven" || i >= (this.options.most ?? MOST_READINGS)
          ? undefined
          : choose(this.predictor, plan, belief.gathered.folded, "information", { greedy: true })?.candidate;
      if (!candidate) {
        const causes = plan.grouped.suspects.filter(isCause);
        return (this.options.wrongPlace ? causes[1] : causes[0])?.members[0]?.fault;
      }
      machine.look();
      const at = dateOfStep(AT, i + 1);
      const seen = observe(machine, candidate, this.options.presence !== undefined, this.random);
      this.entries.push(
        ...(seen
          ? seen.values
            ? recordObserved(candidate, seen, at)
            : recordAnswer(this.predictor.wiring, candidate, seen.yes!, at, seen.found)
          : [{ type: "setAside", at, candidate: candidate.id, reason: "other" } as const]),
      );
    }
  }

  private prove(machine: SimulatedMachine): ProvenJob["course"] {
    const course: { step: string; cured: number; minutes: number }[] = [];
    let minutes = 0;
    let step = "repair";
    for (;;) {
      const proof = proofOf(this.predictor, assess(this.predictor, this.entries), this.entries)!;
      course.push({ step, cured: proof.outcome.cured, minutes });
      const next = proof.steps.find((s) => s.status === "open");
      if (!next || proof.steps.some((s) => s.status === "failed")) return course;
      this.take(next, machine);
      minutes += next.minutes;
      step = next.id;
    }
  }
  private take({ id, action }: ProofStep, machine: SimulatedMachine): void {
    machine.look();
    switch (action.kind) {
      case "clear":
        this.entries.push({ type: "cleared", at: LATER });
        return;
      case "scan":
        return this.scan(this.setIn(machine, action.when), action.when);
      case "wiggle": {
        const isLeft = machine.faults.some((f) => f.fault.place.id === action.thing);
        const reacted = this.random() < (isLeft ? 0.6 : 0.02);
        this.entries.push({ type: "wiggle", at: LATER, thing: action.thing, reacted });
        return;
      }
      case "reading": {
        const value = machine.read(action.point, action.state, action.instrument, action.black);
        if (Number.isNaN(value)) break;
        this.entries.push({
          type: "reading",
          at: LATER,
          instrument: action.instrument,
          points: [action.point],
          ...(action.black === undefined ? {} : { black: action.black }),
          values: [Number.isFinite(value) ? value : "OL"],
          state: action.state,
        });
        return;
      }
      case "restore":
        this.entries.push(...action.things.map((connector): Entry => ({ type: "plugged", at: LATER, connector })));
        break;
      default:
    }
    this.entries.push({ type: "proofStep", at: LATER, step: id, result: "passed" });
  }
  /** What comes and goes sets its codes in a drive if it shows itself in one of many moments. */
  private setIn(machine: SimulatedMachine, when: string): ReturnType<SimulatedMachine["codes"]> {
    const { presence } = this.options;
    const codes = machine.codes();
    if (presence === undefined) return codes;
    const moments = when === "afterDrive" ? MOMENTS_OF_A_DRIVE : 1;
    return this.random() < 1 - (1 - presence) ** moments ? codes : [];
  }
}
const MOMENTS_OF_A_DRIVE = 6;
