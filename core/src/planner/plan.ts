import { DEFAULTS } from "../defaults.js";
import type { Belief } from "../diagnosis/assessment.js";
import { isToldOf } from "../logbook/told.js";
import { leftOver } from "../diagnosis/fit.js";
import { groupComponents, isCause, misplacedIn, type Grouped, type Suspect } from "../diagnosis/groups.js";
import type { Posterior } from "../diagnosis/posterior.js";
import { withoutCleared } from "./cleared.js";
import { closerTests } from "./closer.js";
import { mostToClaim } from "../diagnosis/trust.js";
import { type ValuePiece } from "../prediction/piece.js";
import type { Predictor } from "../prediction/predictor.js";
import { alreadyDone } from "./alreadyDone.js";
import type { Candidate } from "./candidate.js";
import { candidates } from "./candidates.js";
import { concerned } from "./concerned.js";
import { confirming, readingToRetake } from "./confirm.js";
import { Cost, positionOf, type Position } from "./cost.js";
import { columnsOf, ExpectedInformation } from "./expectedInformation.js";
import { Forecast } from "./forecast.js";
import { mergeAlike, renumber } from "./mergeAlike.js";
import { openRepairs } from "./outcome.js";
import { particlesOf, type ParticleBelief } from "./particles.js";
import { rankByRate, type Weighed } from "./ranking.js";
import { SURE_FROM, sureOfSeveral } from "./sureOfSeveral.js";
import { uncheckedPlace } from "./uncheckedPlace.js";
import { unreadPin } from "./unreadPins.js";

/**
 * Where the job stands: waiting for codes, splitting suspects, one left to confirm, proven, stuck because nothing
 * reachable tells the rest apart, or proving that a repair holds.
 */
export type Stage = "waiting" | "splitting" | "confirming" | "proven" | "stuck" | "proving";

export interface Plan {
  readonly stage: Stage;
  readonly grouped: Grouped;
  readonly particleBelief: ParticleBelief;
  /** what could be done next, the most information per minute first */
  readonly ranked: readonly Weighed[];
  /** everything on offer that has not been read yet */
  readonly open: readonly Candidate[];
  readonly position: Position;
  readonly cost: Cost;
  /** logbook entry that the verdict hangs on, when confirming */
  readonly hangsOn: number | undefined;
  /** the one reading that does not fit and is to be taken again before a cause is declared */
  readonly again?: number;
  /** what is proven of several faults at once, while it is still open what else is wrong */
  readonly sure?: Suspect;
  /** what is proven is still one of several repairs, and these tests tell them apart */
  readonly narrowing?: Narrowing;
}

/** The repairs that a proven group holds as suspects of their own, and what tells them apart, the best first. */
export type Narrowing = Pick<Plan, "grouped" | "particleBelief" | "ranked" | "open" | "cost" | "position">;

export interface PlanOptions {
  /** true leaves out what is still to be ranked */
  readonly stop?: () => boolean;
}

/** What every stage of a plan has in common, and what the verdict is tried with. */
interface Draft {
  readonly plan: Omit<Plan, "stage" | "ranked">;
  readonly offered: readonly Candidate[];
  readonly ranked: readonly Weighed[];
  readonly merged: ReadonlyMap<string, string>;
  /** before suspects that no test tells apart are taken as one */
  readonly apart: Apart;
}

/** Every suspect by itself, and what each test tells of them. */
interface Apart {
  readonly grouped: Grouped;
  readonly belief: ParticleBelief;
  readonly weighed: readonly Weighed[];
  /** tests looked at closely, by place in `weighed` */
  readonly closely: ReadonlySet<number>;
}

/**
 * From belief to what could be done next. Pure; a policy then chooses among `ranked` and `open`. Tests at the very
 * places in question come in where nothing else tells much, or where what is proven is one of several repairs.
 */
export function makePlan(predictor: Predictor, belief: Belief, options: PlanOptions = {}): Plan {
  const { folded } = belief.gathered;
  const isRepaired = belief.carried !== undefined && folded.repairs.length > 0 && isToldOf(folded);
  if (isRepaired && belief.posterior.share[0]! >= SOUND_FROM) return barePlan(predictor, belief, "proving");
  if (belief.gathered.evidence.length === 0 && !isRepaired) return barePlan(predictor, belief, "waiting");
  const plan = planBroadly(predictor, belief, options);
  const leader = plan.grouped.suspects[0]!;
  const isGroup = plan.stage === "proven" && !plan.sure && openRepairs(leader).length > 1;
  const isForegone = plan.stage === "splitting" && plan.ranked.every((w) => w.bits < FOREGONE_BITS);
  if (!(isGroup || isForegone || plan.stage === "stuck") || options.stop?.()) return plan;
  const closer = closerDraft(predictor, belief);
  const ranked = closer.ranked.filter((w) => w.bits >= CLOSER_BITS);
  if (ranked.length === 0) return plan.stage === "stuck" ? withWhatIsSure(predictor, belief, plan) : plan;
  if (isGroup) return { ...plan, narrowing: { ...closer.plan, ranked } };
  return { ...closer.plan, ranked, stage: "splitting" };
}
/**
 * For a leader that is sure by itself but leaves a code unexplained, where no test on offer tells more: either
 * something else is wrong too, or the code is an old one. The leader is confirmed and repaired first, then the codes
 * are read again.
 */
function withWhatIsSure(predictor: Predictor, belief: Belief, plan: Plan): Plan {
  const leader = plan.grouped.suspects[0]!;
  const { codes, readings } = unexplained(predictor, belief, plan.grouped);
  if (leader.type !== "fault" || codes.length === 0 || readings.length > 0 || mayBeMisplaced(belief.posterior))
    return plan;
  // what it holds before it was bounded
  const share = leader.members.reduce((sum, m) => sum + m.share, 0);
  if (share < SURE_FROM) return plan;
  const verdict = verdictPlan(predictor, belief, draftPlan(predictor, belief), undefined, {});
  return verdict.stage === "proven" ? { ...verdict, sure: { ...leader, share } } : verdict;
}
/** A reading that tells less than this has an answer that everybody foresees, bits. Judgement. */
const FOREGONE_BITS = 0.2;
/** Less than this is not worth going to one place of several for, bits. Judgement. */
const CLOSER_BITS = 0.05;

/** The plan with the tests that the document offers for the whole machine. */
function planBroadly(predictor: Predictor, belief: Belief, options: PlanOptions): Plan {
  const { posterior } = belief;
  const draft = draftPlan(predictor, belief);
  const { grouped } = draft.plan;
  const splitting: Plan = { ...draft.plan, ranked: draft.ranked, stage: draft.ranked.length ? "splitting" : "stuck" };
  const leader = grouped.suspects[0]!;
  if (!isCause(leader)) return splitting;
  if (mayBeMisplaced(posterior))
    return draft.ranked.length ? splitting : (readOnceMore(predictor, belief, draft) ?? splitting);
  const sure = leader.share < DEFAULTS.plan.enoughShare ? sureOfSeveral(predictor, belief, grouped) : undefined;
  if (sure && !unreadPin(predictor, belief, sure, draft.plan.open))
    return { ...draft.plan, ranked: [], stage: "proven", sure };
  const isEnough = leader.share >= DEFAULTS.plan.enoughShare;
  const unread =
    isEnough || (draft.ranked.length === 0 && leader.share >= LEADS)
      ? unreadPin(predictor, belief, leader, draft.plan.open)
      : undefined;
  if (unread) return { ...draft.plan, ranked: [weighedOf(draft, unread)], stage: "confirming" };
  if (!isEnough) return splitting;
  const against = unexplained(predictor, belief, grouped);
  if (against.codes.length > 0 || against.readings.length > 1) return splitting;
  const unchecked = uncheckedPlace(belief, grouped, draft.plan.open);
  if (unchecked) return { ...draft.plan, ranked: [weighedOf(draft, unchecked)], stage: "confirming" };
  return verdictPlan(predictor, belief, draft, against.readings[0], options);
}

const weighedOf = ({ ranked }: Draft, candidate: Candidate): Weighed =>
  ranked.find((r) => r.candidate === candidate) ?? { candidate, joints: [], bits: 0 };

/** A machine that is more likely sound than not after a repair is proven sound; else the search goes on. Judgement. */
const SOUND_FROM = 0.5;

/** Where no test is chosen by what it tells of suspects. */
function barePlan(predictor: Predictor, { posterior, gathered }: Belief, stage: "waiting" | "proving"): Plan {
  const grouped = groupComponents(predictor, posterior);
  return {
    stage,
    grouped,
    particleBelief: particlesOf(predictor, posterior, grouped),
    ranked: [],
    open: [],
    cost: new Cost(predictor.wiring),
    position: positionOf(gathered.folded),
    hangsOn: undefined,
  };
}

/** Drafts by what they are of: a first suggestion and the whole answer begin with the same one. */
const drafts = new WeakMap<Posterior, Draft>();
const closerDrafts = new WeakMap<Posterior, Draft>();

/** Weighs everything on offer, and takes suspects that no test can separate as one. */
function draftPlan(predictor: Predictor, belief: Belief): Draft {
  let draft = drafts.get(belief.posterior);
  if (!draft) drafts.set(belief.posterior, (draft = makeDraft(predictor, belief)));
  return draft;
}
function closerDraft(predictor: Predictor, belief: Belief): Draft {
  let draft = closerDrafts.get(belief.posterior);
  if (!draft) {
    const more = closerTests(predictor, belief.gathered.folded, belief.posterior);
    const closer = withCloser(predictor, belief, draftPlan(predictor, belief), more);
    closerDrafts.set(belief.posterior, (draft = closer));
  }
  return draft;
}
function makeDraft(predictor: Predictor, belief: Belief): Draft {
  const { offered, open, grouped, particles } = offersOf(predictor, belief);
  const apart = weighOpen(predictor, open, { grouped, belief: particles });
  return draftOf(predictor, belief, offered, apart);
}

/** What is on offer, and the suspects it is weighed for. */
interface Offers {
  readonly offered: readonly Candidate[];
  readonly open: readonly Candidate[];
  readonly grouped: Grouped;
  readonly particles: ParticleBelief;
}
const offers = new WeakMap<Posterior, Offers>();
function offersOf(predictor: Predictor, belief: Belief): Offers {
  const { gathered, posterior } = belief;
  let own = offers.get(posterior);
  if (!own) {
    const offered = candidates(predictor, gathered.folded, concerned(predictor, posterior), gathered.comesAndGoes);
    const grouped = groupComponents(predictor, posterior);
    const particles = plannedFor(predictor, belief, grouped);
    own = { offered, open: stillOpen(predictor, belief, offered), grouped, particles };
    offers.set(posterior, own);
  }
  return own;
}
/**
 * What is planned for. "Not in this wiring" foretells nothing, so that nothing read would speak for it: while little
 * has been read, half of the weight stays with what the wiring holds, which may yet be two faults at once.
 */
function plannedFor(predictor: Predictor, { posterior, gathered }: Belief, grouped: Grouped): ParticleBelief {
  const { notHere } = posterior;
  const read = gathered.evidence.filter((e) => e.kind === "reading").length;
  if (notHere <= HALF || read >= MUCH_READ) return particlesOf(predictor, posterior, grouped);
  const more = HALF / (1 - notHere);
  return particlesOf(predictor, posterior, grouped, (w) => w.share * more, HALF);
}
const HALF = 0.5;
/** After so many readings that nothing in the wiring explains it may well be not in it. Judgement. */
const MUCH_READ = 8;

/** What a rough look at everything on offer needs of the predictor, in pieces that threads may share in. */
export function* planPieces(predictor: Predictor, belief: Belief): Generator<ValuePiece> {
  if (belief.gathered.evidence.length === 0) return;
  const { open, particles } = offersOf(predictor, belief);
  yield* new Forecast(predictor, particles, true).pieces(open);
}
/** A draft with more tests, beside those that the document offers; what those tell is known already. */
function withCloser(predictor: Predictor, belief: Belief, draft: Draft, more: readonly Candidate[]): Draft {
  const apart = weighOpen(predictor, stillOpen(predictor, belief, more), draft.apart);
  return draftOf(predictor, belief, draft.offered, apart);
}
const stillOpen = (predictor: Predictor, { gathered, posterior }: Belief, tests: readonly Candidate[]) =>
  withoutCleared(
    predictor,
    posterior,
    tests.filter((c) => !alreadyDone(c, gathered.folded)),
  );

/** Takes suspects that no test can separate as one. */
function draftOf(predictor: Predictor, belief: Belief, offered: readonly Candidate[], apart: Apart): Draft {
  const { gathered, posterior } = belief;
  const { grouped: raw, belief: particleBelief, weighed } = apart;
  const merged = mergeAlike(raw, weighed);
  const whole = merged.size ? groupComponents(predictor, posterior, merged) : raw;
  const grouped = bounded(whole, mostToClaim(predictor, belief, whole));
  const to = renumber(raw, grouped, merged);
  const isSame = to.every((t, i) => t === i) && to.length === grouped.suspects.length;
  const joined: ParticleBelief = {
    suspects: grouped.suspects.length,
    particles: particleBelief.particles.map((p) => ({ ...p, suspect: to[p.suspect]! })),
    notHere: { ...particleBelief.notHere, suspect: grouped.notHere },
  };
  const columns = columnsOf(joined);
  const ranked = isSame
    ? weighed
    : weighed.map(({ candidate, joints }): Weighed => {
        const list = joints.map((j) => j.merged(to, columns));
        return { candidate, joints: list, bits: ExpectedInformation.bits(list) };
      });
  return {
    offered,
    merged,
    apart,
    ranked: rankByRate(ranked),
    plan: {
      cost: new Cost(predictor.wiring),
      position: positionOf(gathered.folded),
      hangsOn: undefined,
      grouped,
      open: weighed.map((w) => w.candidate),
      particleBelief: joined,
    },
  };
}

/** How many candidates, the best by a rough look, are looked at closely. Judgement: more than are listed. */
const CLOSELY = 10;
/**
 * What each candidate on offer would tell: roughly at first, and closely as far as it is among the best.
 * @param known the suspects, and what was weighed before
 */
function weighOpen(
  predictor: Predictor,
  open: readonly Candidate[],
  known: Pick<Apart, "grouped" | "belief"> & Partial<Apart>,
): Apart {
  const { belief } = known;
  const weigh = (information: ExpectedInformation, candidate: Candidate): Weighed => {
    const joints = information.joints(candidate);
    return { candidate, joints, bits: ExpectedInformation.bits(joints) };
  };
  const rough = new ExpectedInformation(predictor, belief, 0, true);
  const all = [...(known.weighed ?? []), ...open.map((candidate) => weigh(rough, candidate))];
  const closer = new ExpectedInformation(predictor, belief);
  const closely = new Set(known.closely);
  for (;;) {
    const next = bestOf(all, CLOSELY).find((i) => !closely.has(i));
    if (next === undefined) return { grouped: known.grouped, belief, weighed: all, closely };
    all[next] = weigh(closer, all[next]!.candidate);
    closely.add(next);
  }
}
/** Places of the candidates that tell most per minute, the best first. */
function bestOf(all: readonly Weighed[], count: number): number[] {
  const rates = all.map((w) => w.bits / w.candidate.minutes);
  const best: number[] = [];
  rates.forEach((rate, i) => {
    if (best.length === count && rate <= rates[best[count - 1]!]!) return;
    let at = best.length;
    while (at > 0 && rates[best[at - 1]!]! < rate) at--;
    best.splice(at, 0, i);
    best.length = Math.min(best.length, count);
  });
  return best;
}

/**
 * No more is claimed for the leader than may be. What it gives up goes to "not in this wiring": readings at odds with
 * the model speak for no other suspect. Suspects are put in order anew.
 */
function bounded(grouped: Grouped, most: number): Grouped {
  const leader = grouped.suspects[0]!;
  if (leader.share <= most) return grouped;
  const shares = grouped.suspects.map((s) => s.share);
  shares[0] = most;
  shares[grouped.notHere] = shares[grouped.notHere]! + leader.share - most;
  const order = [...shares.keys()].sort((a, b) => shares[b]! - shares[a]!);
  const placeOf = new Map(order.map((from, to) => [from, to]));
  return {
    suspects: order.map((i) => ({ ...grouped.suspects[i]!, share: shares[i]! })),
    keys: order.map((i) => grouped.keys[i]!),
    of: grouped.of.map((i) => (i < 0 ? i : placeOf.get(i)!)),
    notHere: placeOf.get(grouped.notHere)!,
  };
}

/** Nothing tells more, and one reading does not fit: taken again it tells a slip from leads at the wrong place. */
function readOnceMore(predictor: Predictor, belief: Belief, draft: Draft): Plan | undefined {
  const { codes, readings } = unexplained(predictor, belief, draft.plan.grouped);
  if (codes.length > 0 || readings.length !== 1) return undefined;
  const plan = verdictPlan(predictor, belief, draft, readings[0], {});
  return plan.again === undefined ? undefined : plan;
}

/** A verdict is at hand: what is to be read once more, what would confirm it, or that it is proven. */
function verdictPlan(
  predictor: Predictor,
  belief: Belief,
  { plan, merged, offered }: Draft,
  misfit: number | undefined,
  options: PlanOptions,
): Plan {
  const { grouped, open } = plan;
  const once = misfit === undefined ? undefined : readingToRetake(belief, misfit, offered);
  if (once) {
    const confirm = confirming(predictor, belief, grouped, merged, [once.candidate], once.number)!;
    return { ...plan, ...confirm, again: once.number, stage: "confirming" };
  }
  const confirm = confirming(predictor, belief, grouped, merged, open);
  if (!confirm || options.stop?.()) return { ...plan, ranked: [], stage: confirm ? "confirming" : "proven" };
  return { ...plan, ...confirm, stage: confirm.ranked.length ? "confirming" : "proven" };
}

/** From this share on a suspect is named where nothing more tells. Judgement. */
const LEADS = 0.6;

/** From this chance on that readings were taken at the wrong connector, no cause is declared. Judgement. */
const MISPLACED_FROM = 0.2;
const mayBeMisplaced = (posterior: Posterior) =>
  misplacedIn(posterior).reduce((sum, m) => sum + m.share, 0) > MISPLACED_FROM;

/** What the leader leaves unexplained: a cause is not declared against a present code, nor against two readings. */
function unexplained(
  predictor: Predictor,
  belief: Belief,
  grouped: Grouped,
): { readonly codes: readonly number[]; readonly readings: readonly number[] } {
  const component = belief.posterior.components.find((_, i) => grouped.of[i] === 0);
  return component ? leftOver(predictor, component, belief.gathered.evidence) : { codes: [], readings: [] };
}
