import type { FaultAt } from "../instruments/machineState.js";
import { DEFAULTS } from "../defaults.js";
import type { BeliefOptions } from "../diagnosis/belief.js";
import { assess } from "../diagnosis/belief.js";
import type { Suspect } from "../diagnosis/groups.js";
import { isCause, misplacedIn, placeKey } from "../diagnosis/groups.js";
import type { Entry } from "../format/case.js";
import { readingsAt } from "../logbook/seen.js";
import { WRONG_COMPONENT } from "../planner/analyse.js";
import type { Candidate } from "../planner/candidate.js";
import { makePlan, type Stage } from "../planner/plan.js";
import { choose, type ChartStep, type Policy } from "../planner/policies.js";
import { recordAnswer, recordReading } from "../planner/record.js";
import { uniform } from "../prediction/draws.js";
import type { Predictor } from "../prediction/predictor.js";
import { SimulatedMachine, type MachineOptions } from "./machine.js";
import { observe } from "./observe.js";

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
  /** the last verdict: who, how surely, how many places it leaves, and whether it was right */
  readonly verdict:
    | {
        readonly suspect: string;
        readonly type: Suspect["type"];
        readonly share: number;
        readonly places: number;
        readonly right: boolean;
      }
    | undefined;
  /** steps after which the wrong-component or wrong-drawing remark led, counted in tests at the wrong component; undefined when it never did */
  readonly doubtedAfter: number | undefined;
  /** tests taken at the wrong component before it was found out, or in all */
  readonly atWrong: number;
  /** at some step a single cause was declared while it left a code or two readings unexplained */
  readonly overbold: boolean;
  /** share given to the truth, and to whoever led, and whether that was right, at every step */
  readonly course: readonly { readonly truth: number; readonly leader: number; readonly right: boolean }[];
}

const AT = "2026-01-01T08:00:00Z";
const MOST_STEPS = 40;

/** Plays one job on a machine with hidden faults to its end, each test chosen by a school, each value shown by the machine. */
export function play(predictor: Predictor, faults: readonly FaultAt[], options: PlayOptions): Played {
  const { wiring } = predictor;
  const most = options.most ?? MOST_STEPS;
  const random = uniform(options.seed * 7919 + 13);
  let left = faults;
  const steps: PlayedStep[] = [];
  const course: { truth: number; leader: number; right: boolean }[] = [];
  let minutes = 0;
  let atWrong = 0;
  let doubtedAfter: number | undefined;
  let overbold = false;
  let verdict: Played["verdict"];
  let stage: Stage = "waiting";
  const finish = (ending: Ending): Played => ({
    faults: faults.map((f) => f.fault.id),
    school: options.school,
    seed: options.seed,
    ending,
    stage,
    steps,
    minutes,
    verdict,
    doubtedAfter,
    atWrong,
    overbold,
    course,
  });
  for (let round = 0; round < (options.repairs ? faults.length + 1 : 1); round++) {
    const machine = new SimulatedMachine(wiring, left, options.seed, options);
    const codes = machine.codes();
    if (codes.length === 0) return finish(round === 0 ? "noCode" : "isolated");
    const entries: Entry[] = [
      ...(options.before ?? []),
      {
        type: "scan",
        at: AT,
        when: "afterDrive",
        modules: [...new Set(wiring.codes.map((c) => c.module))],
        codes: codes.map((c) => ({
          module: c.module,
          code: c.code,
          status: options.presence === undefined ? "active" : "stored",
        })),
        disturbed: [],
        wiped: false,
      },
    ];
    const truth = new Set(left.map((f) => placeKey(f.fault)));
    const checked = new Set<string>();
    let found: Suspect | undefined;
    for (;;) {
      const belief = assess(predictor, entries, options.belief);
      const plan = makePlan(predictor, belief);
      stage = plan.stage;
      const leader = plan.grouped.suspects[0]!;
      course.push({
        truth: shareOfTruth(plan.grouped.suspects, truth, machine.odd),
        leader: leader.share,
        right: isCause(leader) && isRight(leader, truth, machine.odd),
      });
      if (
        doubtedAfter === undefined &&
        (leader.type === "notHere" ||
          misplacedIn(belief.posterior)
            .filter((m) => m.from === options.mistaken?.from)
            .reduce((sum, m) => sum + m.share, 0) > WRONG_COMPONENT)
      )
        doubtedAfter = atWrong;
      const doubt = misplacedIn(belief.posterior)[0];
      if (doubt && doubt.share > WRONG_COMPONENT && steps.length < most && !checked.has(doubt.from)) {
        // the first remark on the screen: is this the right component?
        checked.add(doubt.from);
        const looked = plan.cost.minutes(
          { kind: "identity", at: doubt.from, state: plan.position.state },
          plan.position,
        );
        minutes += looked;
        const found = machine.mistaken?.from === doubt.from && random() < DEFAULTS.clues.identityTold;
        steps.push({
          candidate: `identity ${doubt.from}`,
          kind: "identity",
          minutes: looked,
          got: [found ? "another" : "right"],
          leader: leader.id,
          share: leader.share,
        });
        if (found) {
          entries.push({
            type: "moved",
            at: AT,
            from: doubt.from,
            to: machine.mistaken!.to,
            readings: readingsAt(belief.gathered.folded, doubt.from),
          });
          machine.mistaken = undefined;
        } else entries.push({ type: "identity", at: AT, connector: doubt.from, right: true });
        continue;
      }
      const chosen =
        stage === "proven" || steps.length >= most
          ? undefined
          : choose(predictor, plan, belief.gathered.folded, options.school, {
              seed: options.seed,
              ...(options.chart ? { chart: options.chart } : {}),
              ...(options.greedy ? { greedy: true } : {}),
            });
      if (!chosen) {
        found = leader;
        break;
      }
      const { candidate } = chosen;
      machine.look();
      const entry = take(machine, candidate, options, random);
      minutes += candidate.minutes;
      if (machine.mistaken && candidate.at === machine.mistaken.from) atWrong++;
      steps.push({
        candidate: candidate.id,
        kind: candidate.kind,
        minutes: candidate.minutes,
        got: gotOf(entry),
        leader: leader.id,
        share: leader.share,
      });
      entries.push(entry);
    }
    const declared = isCause(found) && found.share >= DECLARE;
    const right = declared && isRight(found, truth, machine.odd);
    verdict = { suspect: found.id, type: found.type, share: found.share, places: found.places.length, right };
    if (
      declared &&
      found.type === "fault" &&
      stage === "proven" &&
      left.length > 1 &&
      !isRight(found, truth, machine.odd)
    )
      overbold = true;
    if (!declared) return finish("gaveUp");
    if (!right) return finish("wrong");
    const fixed = new Set(found.members.flatMap((m) => m.faults.map(placeKey)));
    left = left.filter((f) => !fixed.has(placeKey(f.fault)));
    if (left.length === 0) return finish("isolated");
  }
  return finish(left.length < faults.length && options.repairs ? "gaveUp" : "isolated");
}
/** A verdict is given from this share on where nothing on offer tells the rest apart: it then says how sure it is. */
const DECLARE = 0.85;

/**
 * A single cause is right when it is one of those hidden; several are when all of them are hidden, or are hidden but for
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

function take(machine: SimulatedMachine, c: Candidate, options: PlayOptions, random: () => number): Entry {
  const seen = observe(machine, c, options.presence !== undefined, random);
  if (!seen) return { type: "setAside", at: AT, candidate: c.id, reason: "other" };
  return (
    seen.values ? recordReading(c, seen.values, AT) : recordAnswer(machine.rig.wiring, c, seen.yes!, AT, seen.found)
  ).at(-1)!;
}
function gotOf(entry: Entry): readonly (number | string)[] {
  switch (entry.type) {
    case "reading":
      return entry.values;
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
