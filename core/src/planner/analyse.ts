import { entropyBits } from "../diagnosis/maths.js";
import { assess, CODE_EXPLAINED_FROM, leftOver, misfit, setBy, type Belief } from "../diagnosis/belief.js";
import type { Feed } from "../diagnosis/circumstances.js";
import type { Evidence } from "../diagnosis/evidence.js";
import { minimalExplanations } from "../diagnosis/explanations.js";
import { isCause, misplacedIn, type Misplaced, type Suspect } from "../diagnosis/groups.js";
import type { MixtureComponent, Posterior } from "../diagnosis/posterior.js";
import { expectation, Reasons, type Reason } from "../diagnosis/reasons.js";
import type { Entry, Instrument } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import type { Folded } from "../logbook/fold.js";
import { readingsAt } from "../logbook/seen.js";
import { stateName } from "../network/state.js";
import type { Predictor } from "../prediction/predictor.js";
import { formatQuantity } from "../units/quantity.js";
import type { Answer } from "./answers.js";
import { answersOf } from "./answers.js";
import type { Candidate } from "./candidate.js";
import { candidates } from "./candidates.js";
import { concerned } from "./concerned.js";
import { compareCosts, type Economics } from "./economics.js";
import { ExpectedInformation } from "./expectedInformation.js";
import { comparePolicies, lookAhead, type PolicyMinutes } from "./lookAhead.js";
import { makePlan, type Plan, type Stage } from "./plan.js";
import { choose, POLICIES, type ChartStep, type Chosen, type Policy } from "./policies.js";
import type { Weighed } from "./ranking.js";

export const ENGINE_VERSION = "0.2.0";

export interface SuspectView extends Suspect {
  /** present codes that this suspect would set, and all present codes that have a set condition */
  readonly explains: number;
  readonly outOf: number;
  readonly reasons: readonly Reason[];
  /**
   * the test that tells it best from the leader (the leader: from the next), and how surely: 1 where no answer fits
   * both
   */
  readonly splitBy: SplitBy | undefined;
}
export interface SplitBy {
  readonly candidate: Candidate;
  readonly from: string;
  readonly apart: number;
}
export interface Recommendation {
  readonly candidate: Candidate;
  /** expected information about the suspects, bits, and its share of what is still open */
  readonly bits: number;
  readonly shareOfOpen: number;
  readonly answers: readonly (readonly Answer[])[];
}
export interface ReadingView {
  readonly number: number;
  readonly point: string;
  readonly value: number;
  readonly instrument: Instrument;
  /** what a machine without a fault would show; NaN when it proves nothing */
  readonly healthy: number;
  /** what the leading suspect predicts */
  readonly leading: number;
}
export type { Stage } from "./plan.js";

export interface Analysis {
  readonly engine: string;
  readonly stage: Stage;
  readonly suspects: readonly SuspectView[];
  /** what to do next, the school's choice first; whatever tells two suspects apart is among it */
  readonly next: readonly Recommendation[];
  readonly school: Policy;
  /** number of the one reading that does not fit what leads: it is asked for once more before anything is declared */
  readonly again: number | undefined;
  /** expected minutes until one suspect is left: as the school would have it, where it looks that far */
  readonly minutesLeft: number | undefined;
  /** what other schools are expected to take from here on, minutes */
  readonly minutesByPolicy: PolicyMinutes | undefined;
  /** whether one more test or the part now is the cheaper course; undefined until one suspect leads */
  readonly economics: Economics | undefined;
  /** how likely readings at one connector were taken at another */
  readonly misplaced: readonly Misplaced[];
  readonly readings: readonly ReadingView[];
  /** suspicion on each thing: wires, cavities, splices, grounds, fuses, devices, module pins; by id */
  readonly suspicion: ReadonlyMap<string, number>;
  /** fewest faults that together set every present code, the likeliest first; by fault id */
  readonly explanations: readonly (readonly string[])[];
  readonly remarks: readonly Issue[];
  readonly folded: Folded;
  /** what the intake did to the rates of faults */
  readonly feeds: readonly Feed[];
}

export interface AnalyseOptions {
  readonly school?: Policy;
  readonly chart?: readonly ChartStep[];
  /** a first suggestion at once: no look-ahead, no search for several faults */
  readonly quick?: boolean;
  /** a first look at the same logbook (`assess` with `several: "never"`), to go on from */
  readonly begun?: Belief | undefined;
  /** true ends what is being worked out with what there is */
  readonly stop?: () => boolean;
}

/** How many suspects and next readings are listed. Judgement: what fits a screen. */
const LISTED_SUSPECTS = 12;
const LISTED_NEXT = 8;

/**
 * A case, weighed: wiring (inside the predictor) plus entries in, everything a screen shows out. Pure and repeatable;
 * the predictor only remembers predictions, which no evidence changes.
 */
export function analyse(predictor: Predictor, entries: readonly Entry[], options: AnalyseOptions = {}): Analysis {
  const belief = assess(predictor, entries, {
    ...(options.stop ? { stop: options.stop } : {}),
    ...(options.quick ? { multiple: "never" as const } : {}),
    begun: options.begun,
  });
  const plan = makePlan(predictor, belief, options.stop ? { stop: options.stop } : {});
  const { folded } = belief.gathered;
  const school = options.school ?? schoolOf(folded);
  const chart = options.chart ?? folded.school?.chart;
  const chosen =
    plan.stage === "waiting" || plan.stage === "proven"
      ? undefined
      : choose(predictor, plan, folded, school, {
          ...(chart ? { chart } : {}),
          ...(options.quick ? { greedy: true } : {}),
        });
  return view(predictor, belief, plan, chosen, school, options.quick ?? false);
}
const schoolOf = (folded: Folded): Policy =>
  folded.school && (POLICIES as readonly string[]).includes(folded.school.school)
    ? folded.school.school
    : "information";

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
  const reasons = new Reasons(predictor, posterior, evidence, folded.intake ? gathered.factors : undefined);
  const views = plan.grouped.suspects.slice(0, LISTED_SUSPECTS).map((s, i): SuspectView => {
    const list = reasons.of(s.type === "notHere" ? [] : componentsOf(i));
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
    next: next
      .filter((w, i) => i < LISTED_NEXT || views.some((v) => v.splitBy?.candidate.id === w.candidate.id))
      .map((w) => recommendation(w, plan)),
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
    remarks: [
      ...remarksOn(leader, misplaced, folded),
      ...gathered.remarks,
      ...prefixSlips(predictor, evidence, lead),
      ...misfits(predictor, evidence, leader, lead),
      ...unsettledAmong(predictor, views),
    ],
  };
}

/**
 * What the answers to one more candidate would mean: a step of a guided run, or a reading of one's own. Suspects are
 * numbered as in the analysis.
 */
export function weighCandidate(
  predictor: Predictor,
  entries: readonly Entry[],
  candidate: Candidate,
  options: Pick<AnalyseOptions, "stop"> = {},
): Recommendation | undefined {
  if (
    candidate.part === "new" ||
    candidate.kind === "codeSets" ||
    (candidate.instrument !== "none" &&
      candidate.black === undefined &&
      candidate.points.some((p) => predictor.placeOf(candidate.instrument as Instrument, p) === undefined))
  )
    return undefined;
  const belief = assess(predictor, entries, options);
  const plan = makePlan(predictor, belief, options);
  if (plan.stage === "waiting") return undefined;
  const joints = new ExpectedInformation(predictor, plan.particleBelief).joints(candidate);
  return recommendation(
    { candidate, joints, bits: ExpectedInformation.bits(joints) },
    { ...plan, stage: plan.stage === "confirming" ? "splitting" : plan.stage, hangsOn: undefined },
  );
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
function recommendation(w: Weighed, plan: Plan): Recommendation {
  const confirming = plan.hangsOn !== undefined || plan.stage === "confirming";
  const entropy = confirming ? 1 : entropyBits(plan.grouped.suspects.map((s) => s.share));
  const answers = w.joints.map(answersOf);
  return {
    candidate: w.candidate,
    bits: w.bits,
    shareOfOpen: entropy > 0 ? Math.min(1, w.bits / entropy) : 0,
    answers: confirming
      ? answers.map((list) =>
          list.map((a) => ({ ...a, suspects: a.suspects.map((s) => (s.suspect === 0 ? s : { ...s, suspect: -1 })) })),
        )
      : answers,
  };
}

/**
 * Fills in beforehand what the next readings will need, most likely ones first, and yields after each small step so
 * that a caller can stop. Run it while the technician puts the leads on: the reading that follows only looks things up.
 */
export function* thinkAhead(predictor: Predictor, entries: readonly Entry[], analysis: Analysis): Generator<void> {
  const { gathered, posterior } = assess(predictor, entries, { multiple: "never" });
  if (gathered.evidence.length === 0) return;
  const live = posterior.components.filter(
    (w) => w.presence === 1 && !w.misplaced && w.share >= AHEAD_LEAST && w.hypothesis <= predictor.faults.length,
  );
  const states = new Map<string, Candidate>();
  for (const c of [
    ...analysis.next.map((n) => n.candidate),
    ...candidates(predictor, gathered.folded, concerned(predictor, posterior)),
  ]) {
    if (c.instrument === "none") continue;
    const name = `${c.instrument} ${stateName(c.state)}`;
    if (!states.has(name)) states.set(name, c);
  }
  for (const c of states.values()) {
    for (const w of live) {
      predictor.predict(w.hypothesis, c.state, c.instrument as Instrument, posterior.wantedByCodes.get(w.hypothesis));
      yield;
    }
  }
}
/** Share from which a fault is looked ahead for. Judgement: rarer ones change no choice. */
const AHEAD_LEAST = 1e-4;

/** From this chance on the first thing to check is which connector the leads were in. */
export const WRONG_COMPONENT = 0.4;

/** What leads when no cause in this wiring does. */
function remarksOn(leader: SuspectView, misplaced: readonly Misplaced[], folded: Folded): Issue[] {
  const first = misplaced[0];
  if (first && misplaced.filter((m) => m.from === first.from).reduce((sum, m) => sum + m.share, 0) > WRONG_COMPONENT)
    return [
      issue("remark.wrong-component", [], {
        from: first.from,
        to: first.to,
        readings: readingsAt(folded, first.from).map(String),
      }),
    ];
  if (leader.type === "notHere") return [issue("remark.not-in-this-wiring")];
  return [];
}

/** The alarm on the leader's own misfit: codes it does not explain, readings only a slip of the hand would explain. */
function misfits(
  predictor: Predictor,
  evidence: readonly Evidence[],
  leader: SuspectView,
  lead: MixtureComponent | undefined,
): Issue[] {
  if (!isCause(leader) || leader.share < 0.5 || !lead) return [];
  const left = leftOver(predictor, lead, evidence);
  const codes = left.codes
    .map((i) => evidence[i]!)
    .flatMap((e) =>
      e.kind === "code" && setBy(predictor, lead, e.monitor) < CODE_EXPLAINED_FROM
        ? [predictor.monitors[e.monitor]!.code.id]
        : [],
    );
  const readings = leader.reasons.filter((r) => !r.fits);
  return [
    ...(codes.length ? [issue("remark.leader-leaves-codes", [], { codes })] : []),
    ...(readings.length
      ? [issue("remark.leader-misfits", [], { entries: readings.map((r) => String(r.number)) })]
      : []),
  ];
}

/**
 * Readings that are a thousand times too small or too large for what leads and for a healthy machine alike, and would
 * fit with the other prefix.
 */
function prefixSlips(predictor: Predictor, evidence: readonly Evidence[], lead: MixtureComponent | undefined): Issue[] {
  if (!lead) return [];
  return evidence.flatMap((e) => {
    if (
      e.kind !== "reading" ||
      e.value === 0 ||
      !Number.isFinite(e.value) ||
      (e.instrument !== "voltmeter" && e.instrument !== "ohmmeter" && e.instrument !== "clamp")
    )
      return [];
    if (misfit(predictor, lead, e) < SLIP_SIGMAS) return [];
    const factor = [1000, 0.001].find((f) => misfit(predictor, lead, { ...e, value: e.value * f }) < SLIP_FITS);
    if (factor === undefined) return [];
    const unit = e.instrument === "ohmmeter" ? "Ω" : e.instrument === "clamp" ? "A" : "V";
    return [
      issue("remark.prefix-slip", ["entries", e.number - 1], {
        number: e.number,
        typed: formatQuantity(e.value, unit),
        instead: formatQuantity(e.value * factor, unit),
        way: factor > 1 ? "more" : "less",
      }),
    ];
  });
}
/**
 * A wrong prefix is suspected where the value typed misses the leading cause by the first, and the value with the other
 * prefix by less than the second, σ. Judgement.
 */
const SLIP_SIGMAS = 4;
const SLIP_FITS = 2;

function unsettledAmong(predictor: Predictor, views: readonly SuspectView[]): Issue[] {
  const ids = views
    .flatMap((s) => s.members)
    .filter((m) => m.share >= 0.05 && predictor.unsettled.has(m.hypothesis))
    .map((m) => m.fault.id);
  return ids.length ? [issue("remark.unsettled", [], { faults: ids })] : [];
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

function suspicionOf(predictor: Predictor, posterior: Posterior): ReadonlyMap<string, number> {
  const on = new Map<string, number>();
  const add = (id: string, share: number) => on.set(id, (on.get(id) ?? 0) + share);
  for (const w of posterior.components) {
    if (w.share < 1e-6 || w.misplaced) continue;
    const touched = new Set(
      predictor.hypotheses[w.hypothesis]!.faults.flatMap((f) => [f.place.id, ...(f.at !== undefined ? [f.at] : [])]),
    );
    for (const id of touched) add(id, w.share);
  }
  return on;
}

/** Suspicion over time: the share of each place after every logbook entry that changed it. */
export interface CoursePoint {
  readonly number: number;
  readonly shares: Readonly<Record<string, number>>;
}
/** How many of the last entries the course of suspicion is worked out for. Judgement: time. */
const COURSE_MOST = 60;

/** How suspicion went, entry by entry; places by id. @param ids the places asked for */
export function courseOf(predictor: Predictor, entries: readonly Entry[], ids: readonly string[]): CoursePoint[] {
  const points: CoursePoint[] = [];
  entries.forEach((e, i) => {
    if (!MOVES.has(e.type) || i < entries.length - COURSE_MOST) return;
    const { posterior } = assess(predictor, entries.slice(0, i + 1), { multiple: "never" });
    const on = suspicionOf(predictor, posterior);
    points.push({ number: i + 1, shares: Object.fromEntries(ids.map((id) => [id, on.get(id) ?? 0])) });
  });
  return points;
}
const MOVES: ReadonlySet<Entry["type"]> = new Set<Entry["type"]>([
  "code",
  "scan",
  "reading",
  "look",
  "wiggle",
  "swap",
  "identity",
  "holds",
  "seen",
  "undo",
  "moved",
]);
