import type { FaultAt } from "../instruments/machineState.js";
import { DEFAULTS } from "../defaults.js";
import type { Belief, BeliefOptions } from "../diagnosis/assessment.js";
import { assess } from "../diagnosis/belief.js";
import type { Suspect } from "../diagnosis/groups.js";
import { isCause, misplacedIn, placeKey } from "../diagnosis/groups.js";
import type { Entry } from "../format/case.js";
import { readingsAt } from "../logbook/seen.js";
import { WRONG_COMPONENT } from "../planner/remarks.js";
import type { Candidate } from "../planner/candidate.js";
import { openRepairs } from "../planner/outcome.js";
import { makePlan, type Stage, type Plan } from "../planner/plan.js";
import { choose, narrowFurther, type ChartStep, type Policy } from "../planner/policies.js";
import { recordAnswer } from "../planner/record.js";
import { uniform } from "../prediction/draws.js";
import { Focus } from "../prediction/focus.js";
import type { Predictor } from "../prediction/predictor.js";
import { SimulatedMachine, type MachineOptions } from "./machine.js";
import { dateOfStep, observe, recordObserved } from "./observe.js";

export interface PlayOptions extends MachineOptions {
  readonly school: Policy;
  readonly seed: number;
  /** tests after which the technician gives up */
  readonly most?: number;
  readonly chart?: readonly ChartStep[];
  /** choose by information per minute alone, without looking ahead (for measuring what that is worth) */
  readonly greedy?: boolean;
  readonly belief?: BeliefOptions;
  /** logbook entries from before the scan: what the customer tells */
  readonly before?: readonly Entry[];
  /** repair what was found, scan again, and go on while codes are left */
  readonly repairs?: boolean;
}

export interface PlayedStep {
  readonly candidate: string;
  readonly kind: Candidate["kind"];
  readonly minutes: number;
  readonly got: readonly (number | string)[];
  /** who led before this step, and how surely */
  readonly leader: string;
  readonly share: number;
}

/** How one job ended. */
export type Ending = "isolated" | "wrong" | "gaveUp" | "noCode";

export interface Played {
  readonly faults: readonly string[];
  readonly school: Policy;
  readonly seed: number;
  readonly ending: Ending;
  readonly stage: Stage;
  readonly steps: readonly PlayedStep[];
  readonly minutes: number;
  /**
   * the last verdict: who, how surely, how many repairs it leaves open, whether the hidden one is among them, and
   * whether it is named alone
   */
  readonly verdict:
    | {
        readonly suspect: string;
        readonly type: Suspect["type"];
        readonly share: number;
        readonly repairs: number;
        /** the likeliest faults of each of them, by id */
        readonly open: readonly (readonly string[])[];
        readonly right: boolean;
        readonly alone: boolean;
      }
    | undefined;
  /**
   * steps after which the wrong-component or wrong-drawing remark led, counted in tests at the wrong component;
   * undefined when it never did
   */
  readonly doubtedAfter: number | undefined;
  /** tests taken at the wrong component before it was found out, or in all */
  readonly atWrong: number;
  /** at some step a single cause was declared while it left a code or two readings unexplained */
  readonly overbold: boolean;
  /** share given to the truth, and to whoever led, and whether that was right, at every step */
  readonly course: readonly { readonly truth: number; readonly leader: number; readonly right: boolean }[];
  /** the logbook of the last round of tests */
  readonly entries: readonly Entry[];
}

const AT = "2026-01-01T08:00:00Z";
/** A simulated technician gives up after so many tests. Judgement: nobody does more before asking for help. */
const MOST_STEPS = 40;

/**
 * Plays one job on a machine with hidden faults to its end, each test chosen by a policy, each value shown by the
 * machine.
 * @example
 * const hidden = findFault(predictor.faults, "B9/shortSupplyGround")!.fault;
 * const { ending, steps } = play(predictor, [{ fault: hidden, severity: 5 }], { school: "information", seed: 1 });
 */
export function play(predictor: Predictor, faults: readonly FaultAt[], options: PlayOptions): Played {
  return new Technician(predictor, faults, options).play();
}

/** A technician who does what the planner says, on one job. */
class Technician {
  private readonly random: () => number;
  private readonly most: number;
  private readonly steps: PlayedStep[] = [];
  private readonly course: { truth: number; leader: number; right: boolean }[] = [];
  private readonly focus: Focus;
  private entries: Entry[] = [];
  private left: readonly FaultAt[];
  private minutes = 0;
  private atWrong = 0;
  private doubtedAfter: number | undefined;
  private overbold = false;
  /** something else was said to be wrong too */
  private isNotAll = false;
  private verdict: Played["verdict"];
  private stage: Stage = "waiting";

  constructor(
    private readonly predictor: Predictor,
    private readonly faults: readonly FaultAt[],
    private readonly options: PlayOptions,
  ) {
    this.random = uniform(options.seed * 7919 + 13); // apart from the machine's own numbers
    this.most = options.most ?? MOST_STEPS;
    this.left = faults;
    this.focus = new Focus(predictor.wiring, predictor);
  }

  play(): Played {
    const { repairs } = this.options;
    for (let round = 0; round < (repairs ? this.faults.length + 1 : 1); round++) {
      const machine = new SimulatedMachine(this.predictor.wiring, this.left, this.options.seed, this.options);
      const codes = machine.codes();
      if (codes.length === 0) return this.finish(round === 0 ? "noCode" : "isolated");
      this.entries = this.scan(codes);
      const ending = this.judge(this.diagnose(machine, this.entries), machine);
      if (ending) return this.finish(ending);
    }
    return this.finish(this.left.length < this.faults.length && repairs ? "gaveUp" : "isolated");
  }

  private finish(ending: Ending): Played {
    const { stage, steps, minutes, verdict, doubtedAfter, atWrong, overbold, course, entries } = this;
    return {
      faults: this.faults.map((f) => f.fault.id),
      school: this.options.school,
      seed: this.options.seed,
      ending,
      stage,
      steps,
      minutes,
      verdict,
      doubtedAfter,
      atWrong,
      overbold,
      course,
      entries,
    };
  }

  private scan(codes: ReturnType<SimulatedMachine["codes"]>): Entry[] {
    const status = this.options.presence === undefined ? "active" : "stored";
    const scan: Entry = {
      type: "scan",
      at: AT,
      when: "afterDrive",
      modules: [...new Set(this.predictor.wiring.codes.map((c) => c.module))],
      codes: codes.map((c) => ({ module: c.module, code: c.code, status })),
      disturbed: [],
      wiped: false,
    };
    return [...(this.options.before ?? []), scan];
  }

  /** Tests until nothing is left to do. @returns the leader then */
  private diagnose(machine: SimulatedMachine, entries: Entry[]): Suspect {
    const checked = new Set<string>();
    for (;;) {
      const predictor = this.focus.predictor(entries);
      const belief = assess(predictor, entries, this.options.belief);
      const plan = makePlan(predictor, belief);
      const leader = plan.grouped.suspects[0]!;
      this.note(belief, plan, machine);
      const doubt = misplacedIn(belief.posterior)[0];
      if (doubt && doubt.share > WRONG_COMPONENT && this.steps.length < this.most && !checked.has(doubt.from)) {
        checked.add(doubt.from);
        entries.push(this.checkComponent(doubt.from, belief, plan, machine));
        continue;
      }
      const candidate = this.next(predictor, belief, plan);
      this.isNotAll = plan.sure !== undefined;
      if (!candidate) return plan.sure ?? leader;
      machine.look();
      const entry = take(machine, candidate, this.options, this.random, dateOfStep(AT, this.steps.length + 1));
      if (machine.mistaken && candidate.at === machine.mistaken.from) this.atWrong++;
      const { id, kind, minutes } = candidate;
      this.step({ candidate: id, kind, minutes, got: gotOf(entry) }, leader);
      entries.push(entry);
    }
  }

  private note(belief: Belief, plan: Plan, machine: SimulatedMachine): void {
    const { suspects } = plan.grouped;
    const leader = suspects[0]!;
    const truth = this.truth();
    this.stage = plan.stage;
    this.course.push({
      truth: shareOfTruth(suspects, truth, machine.odd),
      leader: leader.share,
      right: isCause(leader) && isRight(leader, truth, machine.odd),
    });
    const misplaced = misplacedIn(belief.posterior).filter((m) => m.from === this.options.mistaken?.from);
    const doubted = misplaced.reduce((sum, m) => sum + m.share, 0) > WRONG_COMPONENT;
    if (this.doubtedAfter === undefined && (leader.type === "notHere" || doubted)) this.doubtedAfter = this.atWrong;
  }
  /** Where what is hidden can be mended: two wires that touch, at either. */
  private truth(): ReadonlySet<string> {
    return new Set(
      this.left.flatMap(({ fault }) => [
        placeKey(fault),
        ...(fault.mode === "shortToWire" && fault.at !== undefined ? [`wire ${fault.at}`] : []),
      ]),
    );
  }

  /** The first remark on the screen: is this the right component? */
  private checkComponent(connector: string, belief: Belief, plan: Plan, machine: SimulatedMachine): Entry {
    const { position, cost } = plan;
    const minutes = cost.minutes({ kind: "identity", at: connector, state: position.state }, position);
    const wrong = machine.mistaken?.from === connector && this.random() < DEFAULTS.clues.identityTold;
    const got = [wrong ? "another" : "right"];
    this.step({ candidate: `identity ${connector}`, kind: "identity", minutes, got }, plan.grouped.suspects[0]!);
    if (!wrong) return { type: "identity", at: AT, connector, right: true };
    const { to } = machine.mistaken!;
    machine.mistaken = undefined;
    return { type: "moved", at: AT, from: connector, to, readings: readingsAt(belief.gathered.folded, connector) };
  }

  private next(predictor: Predictor, belief: Belief, plan: Plan): Candidate | undefined {
    if (this.steps.length >= this.most) return undefined;
    const { folded } = belief.gathered;
    if (plan.stage === "proven") return narrowFurther(predictor, plan, folded)?.candidate;
    const { seed, chart, greedy, school } = this.options;
    return choose(predictor, plan, folded, school, {
      seed,
      ...(chart ? { chart } : {}),
      ...(greedy ? { greedy } : {}),
    })?.candidate;
  }

  private step(step: Omit<PlayedStep, "leader" | "share">, leader: Suspect): void {
    this.minutes += step.minutes;
    this.steps.push({ ...step, leader: leader.id, share: leader.share });
  }

  /** Takes the leader as the verdict, and repairs it where it is right. @returns how the job ends, if it does */
  private judge(found: Suspect, machine: SimulatedMachine): Ending | undefined {
    const declared = isCause(found) && found.share >= DECLARE;
    const right = declared && isRight(found, this.truth(), machine.odd);
    const open = isCause(found) ? openRepairs(found) : [];
    const { id: suspect, type, share } = found;
    const alone = right && open.length === 1 && open[0]!.faults.every((f) => this.truth().has(placeKey(f)));
    const faults = open.map((r) => r.faults.map((f) => f.id));
    this.verdict = { suspect, type, share, repairs: open.length, open: faults, right, alone };
    const single = found.type === "fault" && this.stage === "proven" && !this.isNotAll && this.left.length > 1;
    if (declared && !right && single) this.overbold = true;
    if (!declared) return "gaveUp";
    if (!right) return "wrong";
    const fixed = new Set(found.members.flatMap((m) => m.faults.map(placeKey)));
    this.left = this.left.filter((f) => !fixed.has(placeKey(f.fault)));
    return this.left.length === 0 ? "isolated" : undefined;
  }
}
/** A verdict is given from this share on where nothing on offer tells the rest apart: it then says how sure it is. */
const DECLARE = 0.85;

/**
 * A single cause is right when it is one of those hidden; several are when all of them are hidden, or are hidden but
 * for
 * a part that truly is of another kind than the wiring says.
 */
function isRight(s: Suspect, truth: ReadonlySet<string>, odd?: string): boolean {
  if (s.type === "fault") return s.members.some((m) => m.faults.some((f) => truth.has(placeKey(f))));
  return s.members.some(
    (m) =>
      m.faults.some((f) => truth.has(placeKey(f))) &&
      m.faults.every((f) => truth.has(placeKey(f)) || (odd !== undefined && f.place.id === odd)),
  );
}
function shareOfTruth(suspects: readonly Suspect[], truth: ReadonlySet<string>, odd: string | undefined): number {
  return suspects.reduce((sum, s) => sum + (isCause(s) && isRight(s, truth, odd) ? s.share : 0), 0);
}

function take(machine: SimulatedMachine, c: Candidate, options: PlayOptions, random: () => number, at: string): Entry {
  const seen = observe(machine, c, options.presence !== undefined, random);
  if (!seen) return { type: "setAside", at, candidate: c.id, reason: "other" };
  return (
    seen.values ? recordObserved(c, seen, at) : recordAnswer(machine.rig.wiring, c, seen.yes!, at, seen.found)
  ).at(-1)!;
}
function gotOf(entry: Entry): readonly (number | string)[] {
  switch (entry.type) {
    case "reading":
      return entry.swing ?? entry.values;
    case "trace":
      return entry.channels.map((c) => (c.dropouts ? `${c.mean} to ${c.dropouts.to}` : c.mean));
    case "look":
      return entry.found;
    case "wiggle":
      return [entry.reacted ? "reacted" : "no reaction"];
    case "swap":
      return [entry.result];
    case "identity":
      return [entry.right ? "right" : "another"];
    case "seen":
      return [entry.partNumber ?? ""];
    default:
      return ["nothing shown"];
  }
}
