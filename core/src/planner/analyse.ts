import type { Belief } from "../diagnosis/assessment.js";
import { assess, assessInSteps } from "../diagnosis/belief.js";
import type { Evidence } from "../diagnosis/evidence.js";
import { minimalExplanations } from "../diagnosis/explanations.js";
import { isCause, misplacedIn, type Suspect } from "../diagnosis/groups.js";
import { entropyBits } from "../diagnosis/maths.js";
import type { MixtureComponent } from "../diagnosis/posterior.js";
import { expectation, Reasons, type Reason } from "../diagnosis/reasons.js";
import type { Entry, Instrument } from "../format/case.js";
import type { Folded } from "../logbook/fold.js";
import { proofOf } from "../proof/plan.js";
import { finished, type InSteps } from "../steps.js";
import type { Predictor } from "../prediction/predictor.js";
import {
  ENGINE_VERSION,
  type Analysis,
  type NarrowingView,
  type ReadingView,
  type Recommendation,
  type SplitBy,
  type SuspectView,
} from "./analysis.js";
import { notAsDrawn } from "./asDrawn.js";
import { answersOf } from "./answers.js";
import type { Candidate } from "./candidate.js";
import { suspicionOf } from "./course.js";
import { compareCosts } from "./economics.js";
import { ExpectedInformation } from "./expectedInformation.js";
import { comparePolicies, lookAhead, type MacroTest } from "./lookAhead.js";
import { outcomeOf, type Outcome } from "./outcome.js";
import { makePlan, type Plan } from "./plan.js";
import { choose, narrowFurther, POLICIES, type ChartStep, type Chosen, type Policy } from "./policies.js";
import type { Weighed } from "./ranking.js";
import { misfits, olderVerdict, prefixSlips, remarksOn, unsettledAmong } from "./remarks.js";

export interface AnalyseOptions {
  readonly school?: Policy;
  readonly chart?: readonly ChartStep[];
  /** a first suggestion at once: no look-ahead, no search for several faults */
  readonly quick?: boolean;
  /** guided runs that make sense for a plan; they compete with single tests in the look-ahead */
  readonly runs?: (plan: OpenPlan) => readonly MacroTest[];
  /** a first look at the same logbook (`assess` with `several: "never"`), to go on from */
  readonly begun?: Belief | undefined;
  /** true ends what is being worked out with what there is */
  readonly stop?: () => boolean;
}

/** What a guided run is offered for. */
export type OpenPlan = Pick<Analysis, "stage" | "folded"> & {
  readonly suspects: readonly Suspect[];
  readonly outcome?: Pick<Outcome, "isOneRepair"> | undefined;
};

/** How many suspects and next readings are listed. Judgement: what fits a screen. */
const LISTED_SUSPECTS = 12;
const LISTED_NEXT = 8;

/**
 * A case, weighed: wiring (inside the predictor) plus entries in, everything a screen shows out. Pure and repeatable;
 * the predictor only remembers predictions, which no evidence changes.
 * @example
 * const predictor = new Predictor(job.wiring);
 * const { suspects, next } = analyse(predictor, job.entries);
 * console.log(suspects[0]?.id, suspects[0]?.share, next[0]?.candidate.id);
 */
export function analyse(predictor: Predictor, entries: readonly Entry[], options: AnalyseOptions = {}): Analysis {
  return finished(analyseInSteps(predictor, entries, options)).analysis;
}
/**
 * As `analyse`, in steps (see `assessInSteps`).
 * @returns the belief that the analysis is of, too
 */
export function* analyseInSteps(
  predictor: Predictor,
  entries: readonly Entry[],
  options: AnalyseOptions = {},
): InSteps<{ readonly belief: Belief; readonly analysis: Analysis }> {
  const belief = yield* assessInSteps(predictor, entries, {
    ...(options.stop ? { stop: options.stop } : {}),
    ...(options.quick ? { multiple: "never" as const } : {}),
    begun: options.begun,
  });
  yield;
  const plan = makePlan(predictor, belief, options.stop ? { stop: options.stop } : {});
  const { folded } = belief.gathered;
  const school = options.school ?? schoolOf(folded);
  const chart = options.chart ?? folded.school?.chart;
  yield;
  const chosen =
    plan.stage === "waiting" || plan.stage === "proven" || plan.stage === "proving"
      ? undefined
      : choose(predictor, plan, folded, school, {
          ...(chart ? { chart } : {}),
          ...(options.quick ? { greedy: true } : {}),
          ...(options.runs && !options.quick && plan.stage === "splitting" && !folded.run
            ? { macros: options.runs({ stage: plan.stage, suspects: plan.grouped.suspects, folded }) }
            : {}),
        });
  yield;
  const seen = view(predictor, belief, plan, chosen, school, options.quick ?? false);
  const proof = proofOf(predictor, belief, entries);
  return { belief, analysis: proof ? { ...seen, proof } : seen };
}
const schoolOf = (folded: Folded): Policy =>
  folded.school && (POLICIES as readonly string[]).includes(folded.school.school)
    ? folded.school.school
    : "information";

/** Reasons for the suspects listed, by the grouping: a first suggestion and the whole answer have the same. */
const knownReasons = new WeakMap<Plan["grouped"], readonly (readonly Reason[])[]>();
function reasonsOf(
  plan: Plan,
  isRough: boolean,
  make: () => (s: Suspect, i: number) => readonly Reason[],
): readonly (readonly Reason[])[] {
  const { grouped } = plan;
  let known = knownReasons.get(grouped);
  if (known) return known;
  known = grouped.suspects.slice(0, LISTED_SUSPECTS).map(make());
  if (!isRough) knownReasons.set(grouped, known);
  return known;
}

/** What a belief and a plan look like from outside. */
function view(
  predictor: Predictor,
  belief: Belief,
  plan: Plan,
  chosen: Chosen | undefined,
  school: Policy,
  quick: boolean,
): Analysis {
  const { gathered, posterior } = belief;
  const { evidence, folded } = gathered;
  const componentsOf = (i: number) => posterior.components.filter((_, w) => plan.grouped.of[w] === i);
  // a first suggestion says of all but the leader only which codes they explain
  const reasons = reasonsOf(plan, quick, () => {
    const all = new Reasons(predictor, posterior, evidence, folded.intake ? gathered.factors : undefined);
    return (s, i) => all.of(s.type === "notHere" ? [] : componentsOf(i), quick && i > 0);
  });
  const views = plan.grouped.suspects.slice(0, LISTED_SUSPECTS).map((s, i): SuspectView => {
    const list = reasons[i]!;
    const present = list.filter((r) => r.kind === "code" && r.got === 1);
    return {
      ...s,
      splitBy: splitOf(plan, i),
      reasons: list,
      outOf: present.length,
      explains: present.filter((r) => r.expected >= 0.5).length,
    };
  });
  const leader = views[0]!;
  const lead = componentsOf(0)[0];
  const next = order(plan, chosen);
  const misplaced = misplacedIn(posterior);
  const waiting = plan.stage === "waiting";
  return {
    engine: ENGINE_VERSION,
    stage: plan.stage,
    suspects: views,
    folded,
    feeds: gathered.feeds,
    school,
    again: plan.again,
    minutesLeft: chosen?.minutes,
    runFirst: chosen?.ahead?.run && {
      run: chosen.ahead.run.run,
      on: chosen.ahead.run.on,
      minutes: chosen.ahead.run.minutes,
    },
    next: next
      .filter((w, i) => i < LISTED_NEXT || views.some((v) => v.splitBy?.candidate.id === w.candidate.id))
      .map((w, i) => recommendation(w, plan, i === 0 ? healthyAt(predictor, w.candidate) : NaN)),
    minutesByPolicy:
      quick || plan.stage !== "splitting" || plan.ranked.length === 0
        ? undefined
        : comparePolicies(
            chosen?.ahead ?? lookAhead(predictor, plan.particleBelief, plan.ranked, plan.cost, plan.position),
          ),
    economics: waiting ? undefined : compareCosts(predictor.wiring, plan, folded),
    misplaced,
    readings: readingViews(predictor, evidence, lead),
    suspicion: suspicionOf(predictor, posterior),
    explanations: waiting ? [] : minimalExplanations(predictor, evidence, gathered.factors),
    narrowing: narrowingView(predictor, plan, folded),
    outcome:
      isCause(leader) && !waiting
        ? outcomeOf(predictor.wiring, plan.sure ?? leader, plan.cost, plan.position, plan.sure !== undefined)
        : undefined,
    remarks: [
      ...remarksOn(predictor.wiring, leader, misplaced, folded),
      ...olderVerdict(folded, leader),
      ...gathered.remarks,
      ...prefixSlips(predictor, evidence, lead),
      ...misfits(predictor, evidence, leader, lead),
      ...notAsDrawn(predictor, evidence, posterior.components[0]),
      ...unsettledAmong(predictor, views),
    ],
  };
}

/**
 * What the answers to one more candidate would mean: a step of a guided run, or a reading of one's own. Suspects are
 * numbered as in the analysis.
 * @param options with a belief in these entries, where there is one already
 */
export function weighCandidate(
  predictor: Predictor,
  entries: readonly Entry[],
  candidate: Candidate,
  options: Pick<AnalyseOptions, "stop"> & { readonly belief?: Belief | undefined } = {},
): Recommendation | undefined {
  if (
    candidate.part === "new" ||
    candidate.kind === "codeSets" ||
    (candidate.instrument !== "none" &&
      candidate.black === undefined &&
      candidate.points.some((p) => predictor.placeOf(candidate.instrument as Instrument, p) === undefined))
  )
    return undefined;
  const belief = options.belief ?? assess(predictor, entries, options);
  const plan = makePlan(predictor, belief, options);
  if (plan.stage === "waiting" || plan.stage === "proving") return undefined;
  const joints = new ExpectedInformation(predictor, plan.particleBelief).joints(candidate);
  return recommendation(
    { candidate, joints, bits: ExpectedInformation.bits(joints) },
    { ...plan, stage: plan.stage === "confirming" ? "splitting" : plan.stage, hangsOn: undefined },
    healthyAt(predictor, candidate),
  );
}

/** What would tell the repairs of a proven group apart. */
function narrowingView(predictor: Predictor, plan: Plan, folded: Folded): NarrowingView | undefined {
  const chosen = narrowFurther(predictor, plan, folded);
  const { narrowing } = plan;
  if (!narrowing || !chosen) return undefined;
  const closer: Plan = { ...narrowing, stage: "splitting", hangsOn: undefined };
  return {
    suspects: narrowing.grouped.suspects.slice(0, LISTED_SUSPECTS),
    next: order(closer, chosen)
      .slice(0, LISTED_NEXT)
      .map((w, i) => recommendation(w, closer, i === 0 ? healthyAt(predictor, w.candidate) : NaN)),
  };
}

/** Below this two suspects answer a test too much alike for it to be named as what tells them apart. */
const TELLS = 0.5;
/**
 * The test whose answers tell a suspect best from the one it has to be told from; the quicker one of two that do so
 * equally well.
 */
function splitOf(plan: Plan, i: number): SplitBy | undefined {
  const { suspects } = plan.grouped;
  const other = i === 0 ? 1 : 0;
  if (plan.stage !== "splitting" || !isCause(suspects[i]!) || !suspects[other] || !isCause(suspects[other]))
    return undefined;
  let best: SplitBy | undefined;
  for (const { candidate, joints } of plan.ranked) {
    const apart = joints.reduce((most, j) => (j.isLive ? most : Math.max(most, j.apart(i, other))), 0);
    if (
      apart >= TELLS &&
      (!best || apart > best.apart + 0.05 || (apart > best.apart - 0.05 && candidate.minutes < best.candidate.minutes))
    )
      best = { candidate, from: suspects[other].id, apart };
  }
  return best;
}

/** The school's choice, then the rest by information per minute. */
function order(plan: Plan, chosen: Chosen | undefined): Weighed[] {
  if (!chosen) return [];
  const first: Weighed = chosen.weighed ?? { candidate: chosen.candidate, bits: 0, joints: [] };
  return [first, ...plan.ranked.filter((r) => r.candidate.id !== chosen.candidate.id)];
}
/** What a machine without a fault shows at the last point, in the nominal draw; NaN where that is no figure. */
function healthyAt(predictor: Predictor, c: Candidate): number {
  const point = c.points.at(-1);
  const isMeter = c.instrument === "voltmeter" || c.instrument === "ohmmeter";
  if (!isMeter || c.part !== undefined || point === undefined) return NaN;
  return predictor.predictAt(0, { instrument: c.instrument, point, state: c.state, black: c.black }).at(0);
}
function recommendation(w: Weighed, plan: Plan, healthy: number): Recommendation {
  const confirming = plan.hangsOn !== undefined || plan.stage === "confirming";
  const entropy = confirming ? 1 : entropyBits(plan.grouped.suspects.map((s) => s.share));
  const answers = w.joints.map(answersOf);
  return {
    candidate: w.candidate,
    bits: w.bits,
    healthy,
    shareOfOpen: entropy > 0 ? Math.min(1, w.bits / entropy) : 0,
    answers: confirming
      ? answers.map((list) =>
          list.map((a) => ({ ...a, suspects: a.suspects.map((s) => (s.suspect === 0 ? s : { ...s, suspect: -1 })) })),
        )
      : answers,
  };
}

function readingViews(
  predictor: Predictor,
  evidence: readonly Evidence[],
  lead: MixtureComponent | undefined,
): ReadingView[] {
  return evidence.flatMap((e) => {
    if (e.kind !== "reading") return [];
    return [
      {
        number: e.number,
        point: e.point,
        value: e.value,
        instrument: e.instrument,
        healthy: predictor.predictAt(0, e).at(0),
        leading: lead === undefined ? NaN : expectation(predictor, lead, e),
      },
    ]; // sample 0 is the nominal draw
  });
}
