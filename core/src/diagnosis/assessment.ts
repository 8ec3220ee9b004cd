import type { Predictor } from "../prediction/predictor.js";
import type { InSteps } from "../steps.js";
import type { AfterRepair } from "./afterRepair.js";
import { closerWithout, lookCloser } from "./contenders.js";
import type { Evidence, Gathered } from "./evidence.js";
import type { FaultAtSeverity } from "./faultsAtSeverities.js";
import { leftOver } from "./fit.js";
import { logMean } from "./maths.js";
import { likeliestOf, searchFurtherFaults } from "./furtherFaults.js";
import { keyOf } from "./groups.js";
import { faultsExplaining, searchMultipleFaults, setAtSeverities } from "./multipleFaults.js";
import type {
  Breadth,
  CloserFits,
  MixtureComponent,
  MultipleFaultHypothesis,
  Posterior,
  WeighOptions,
} from "./posterior.js";
import { nameOf, refineFaultSets } from "./refineFaultSets.js";
import { solveTogether } from "./solveTogether.js";
import { fitsOfSets, weigh } from "./weigh.js";

/** A logbook, weighed. */
export interface Belief {
  readonly gathered: Gathered;
  readonly posterior: Posterior;
  /**
   * whether several faults were searched for: the leading single cause leaves too much unexplained, explains almost
   * anything, or is near a verdict
   */
  readonly alarmed: boolean;
  /** how many hypotheses were weighed */
  readonly breadth: Breadth;
  readonly multiple: readonly MultipleFaultHypothesis[];
  /** hypotheses that were looked at closely, with what was seen */
  readonly closer?: CloserFits | undefined;
  /** whether a second look is due that this first one was told to leave out */
  readonly unfinished: boolean;
  /** what a repair, or a return, made of the belief before it; undefined of a machine as it was found */
  readonly carried?: AfterRepair | undefined;
}

export interface BeliefOptions {
  /** true ends the search for several faults with what was found so far */
  readonly stop?: () => boolean;
  /**
   * "lasting" leaves out what comes and goes and readings at look-alikes; "never" leaves out several faults and
   * whatever does not fit the codes (a first answer; for measuring what each is worth)
   */
  readonly only?: "lasting";
  readonly multiple?: "never";
  /** told now and then how much of the first pass over all faults is done, 0 to 1 */
  readonly progress?: ((share: number) => void) | undefined;
  /** a first look at the same logbook (`multiple: "never"`), to go on from */
  readonly begun?: Belief | undefined;
}

/** Sets of faults that were thought of, and what they come to with everything else. */
interface Found {
  readonly multiple: readonly MultipleFaultHypothesis[];
  readonly posterior: Posterior;
}

/** Weighs what was seen of one machine, as it is between two repairs. */
export function assessMachine(
  predictor: Predictor,
  gathered: Gathered,
  carried: AfterRepair | undefined,
  options: BeliefOptions,
): InSteps<Belief> {
  return new Assessment(predictor, gathered, carried, options).belief();
}

/** From a quick look to a thorough one, as far as what was seen asks for it. */
class Assessment {
  private readonly evidence: readonly Evidence[];
  private readonly how: WeighOptions;
  private readonly stop: () => boolean;
  private breadth: Breadth = "narrow";
  private closer: CloserFits | undefined;

  constructor(
    private readonly predictor: Predictor,
    private readonly gathered: Gathered,
    private readonly carried: AfterRepair | undefined,
    private readonly options: BeliefOptions,
  ) {
    this.evidence = gathered.evidence;
    this.stop = options.stop ?? (() => false);
    this.how = {
      factors: gathered.factors,
      comesAndGoes: gathered.comesAndGoes,
      going: carried?.going,
      severities: carried?.severities,
      ...(options.only ? { only: options.only } : {}),
      progress: options.progress,
    };
  }

  *belief(): InSteps<Belief> {
    const narrow = this.options.begun?.posterior ?? this.weighWith([]);
    const isDue =
      this.evidence.length > 0 && (this.asksForMore(narrow, 1) || this.isDisputed(narrow) || this.isBetweenFew(narrow));
    if (this.options.multiple === "never" || !isDue) return this.found(narrow, { unfinished: isDue });
    if (!this.asksForMore(narrow, 1)) {
      const { posterior: seen } = yield* this.closely({ multiple: [], posterior: narrow }, []);
      if (!this.asksForMore(seen, 1)) return this.found(seen);
    }
    // the best leave something unexplained: look further before several faults are thought of
    this.breadth = "wide";
    yield;
    const { posterior: wide } = yield* this.closely({ multiple: [], posterior: this.weighWith([]) }, []);
    if (!this.asksForMore(wide, 2)) return this.found(wide);
    const several = yield* this.withSeveral(wide);
    return { ...this.found(wide), alarmed: true, ...several, closer: this.closer };
  }
  private found(posterior: Posterior, { unfinished = false } = {}): Belief {
    const { gathered, carried, breadth, closer } = this;
    return { gathered, carried, posterior, breadth, closer, alarmed: false, multiple: [], unfinished };
  }
  private weighWith(multiple: readonly MultipleFaultHypothesis[]): Posterior {
    const { predictor, evidence, how, breadth, closer } = this;
    return weigh(predictor, evidence, { ...how, breadth, multiple, closer });
  }

  /** Looks closely at what a verdict would be between. @param parts single faults, severity by severity */
  private *closely(found: Found, parts: readonly FaultAtSeverity[]): InSteps<Found> {
    const { predictor, evidence } = this;
    // what is left of a set needs other severities to do without what was taken out
    const fewer = yield* solveTogether(predictor, evidence, this.fewerFaults(found), this.wide, this.stop);
    const multiple = [...found.multiple, ...fewer];
    const weighAgain = (seen: CloserFits) => {
      this.closer = seen;
      return this.weighWith(multiple);
    };
    const { closer } = this;
    this.closer = undefined;
    const byFewDraws = closer ? this.weighWith(multiple) : found.posterior;
    this.closer = closer;
    const about = { byFewDraws, parts, fewer: fewer.map((m) => m.hypothesis), seen: closer };
    const posterior = yield* lookCloser(predictor, evidence, found.posterior, about, weighAgain, this.stop);
    return posterior ? { multiple, posterior } : found;
  }
  /** Sets of three that lead, each without one of them: few draws may have asked for one too many. */
  private fewerFaults({ multiple, posterior }: Found): readonly MultipleFaultHypothesis[] {
    const { predictor, how } = this;
    const known = new Set(multiple.map((m) => nameOf(m.members)));
    const leading = posterior.components.filter((c) => c.share >= LEADS_WITH_MORE).slice(0, MOST_WITH_MORE);
    return leading.flatMap((c) => {
      const faults = likeliestOf(predictor, c);
      if (faults.length < 3) return [];
      return faults.flatMap((_, i) => {
        const others = faults.filter((_f, k) => k !== i);
        const members = others.map((f) => f.h);
        if (known.has(nameOf(members))) return [];
        known.add(nameOf(members));
        const near = others.map(({ h, severity }) =>
          [severity, severity - 1, severity + 1].filter(
            (k) => k >= 0 && k < predictor.faults[h - 1]!.severities.length,
          ),
        );
        return [{ ...setAtSeverities(predictor, members, near, how.factors), together: true }];
      });
    });
  }

  /** Several faults at once, where no single one is sure to be all. */
  private *withSeveral(alone: Posterior): InSteps<Found> {
    const { predictor, evidence, how, stop } = this;
    const explaining = faultsExplaining(predictor, evidence, how.factors, stop);
    yield;
    const ranked = searchMultipleFaults(predictor, evidence, how.factors, stop, explaining);
    yield;
    const sets = yield* solveTogether(predictor, evidence, ranked, this.wide, stop);
    yield;
    const weighed = this.weighSeveral(sets, alone);
    const refined = yield* this.refined(weighed);
    let found = yield* this.closely(refined, explaining.parts);
    // a set that comes to lead is held against others in turn
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const before = this.sharesOf(found);
      const further = yield* this.withFurtherFaults(found);
      if (further === found) break;
      found = yield* this.closely(further, explaining.parts);
      const [lead, share] = most(this.sharesOf(found));
      if ((before.get(lead) ?? 0) >= ALREADY_LED * most(before)[1] || share < LEADS) break;
    }
    return found;
  }
  /** What each single fault and each set holds, in all its ways, by the faults. */
  private sharesOf({ posterior }: Found): ReadonlyMap<string, number> {
    const faultsOf = (c: MixtureComponent) => this.predictor.hypotheses[c.hypothesis]!.faults;
    return sharesBy(posterior, (c) =>
      faultsOf(c)
        .map((f) => f.id)
        .join(" "),
    );
  }
  private get wide(): WeighOptions {
    return { ...this.how, breadth: "wide" };
  }
  private refined({ multiple, posterior }: Found): InSteps<Found> {
    const { predictor, evidence, wide, stop } = this;
    return refineFaultSets(predictor, multiple, posterior, {
      weighWith: (sets) => this.weighWith(sets),
      fitsOf: (sets, lead) => fitsOfSets(predictor, evidence, sets, wide, lead),
      stop,
    });
  }
  /**
   * Weighs sets of faults, the most promising first: the others, whose bounds are lower, only where those have some
   * share.
   */
  private weighSeveral(sets: readonly MultipleFaultHypothesis[], alone: Posterior): Found {
    if (sets.length === 0) return { multiple: [], posterior: alone };
    const first = sets.slice(0, FIRST_SETS);
    const posterior = this.weighWith(first);
    const share = first.reduce((sum, m) => sum + posterior.share[m.hypothesis]!, 0);
    if (share < OTHERS_FROM || sets.length === first.length) return { multiple: first, posterior };
    return { multiple: sets, posterior: this.weighWith(sets) };
  }

  /**
   * Faults that only show together: where all that was thought of leaves something unexplained, and beside each fault
   * of a set that leads.
   */
  private *withFurtherFaults(so: Found): InSteps<Found> {
    const { predictor, evidence, stop, wide } = this;
    const lead = so.posterior.components[0];
    const leading = lead && lead.share >= LEADS ? likeliestOf(predictor, lead) : [];
    // one reading that is off is a slip of the hand, or a part that is not quite as it was thought
    const isExplained = lead !== undefined && so.posterior.notHere <= DOUBT && this.isNearlyAll(lead);
    if (stop() || (isExplained && leading.length < 2)) return so;
    const further = yield* searchFurtherFaults(predictor, evidence, wide, { leading, isExplained }, stop);
    if (further.length === 0) return so;
    const solved = yield* solveTogether(predictor, evidence, further, wide, stop);
    const multiple = this.eachOnce([...so.multiple, ...solved]);
    yield;
    return yield* this.refined({ multiple, posterior: this.weighWith(multiple) });
  }

  /** A set that was thought of more than once counts once, at the severities that explain most. */
  private eachOnce(sets: readonly MultipleFaultHypothesis[]): readonly MultipleFaultHypothesis[] {
    const byName = new Map<string, MultipleFaultHypothesis[]>();
    for (const m of sets) byName.set(nameOf(m.members), [...(byName.get(nameOf(m.members)) ?? []), m]);
    return [...byName.values()].map((same) => {
      if (same.length === 1) return same[0]!;
      const fits = fitsOfSets(this.predictor, this.evidence, same, this.wide);
      const worth = (i: number) => same[i]!.logPrior + logMean(fits[i]!);
      return same.reduce((best, m, i) => (worth(i) > worth(same.indexOf(best)) ? m : best));
    });
  }

  /** Whether a component leaves nothing unexplained but what may be a slip of the hand or an old code. */
  private isNearlyAll(component: MixtureComponent): boolean {
    const { codes, readings } = leftOver(this.predictor, component, this.evidence);
    return codes.length + readings.length < OFF_TOGETHER;
  }
  /** Whether the leader leaves so much unexplained, or is so near a verdict, that more has to be thought of. */
  private asksForMore(p: Posterior, least: number): boolean {
    const lead = p.components[0];
    if (lead === undefined || p.notHere > DOUBT || this.leavesUnexplained(lead, least)) return true;
    // a repaired machine on which nothing is wrong needs no verdict
    if (this.carried && lead.hypothesis === 0) return false;
    return explainsAlmostAnything(this.predictor, lead) || this.isNearVerdict(p);
  }
  /** Lasting or coming and going, here or at a look-alike, at any severity: the place leads with all of it together. */
  private isNearVerdict({ components }: Posterior): boolean {
    const lead = keyOf(this.predictor, components[0]!);
    const isLead = (w: MixtureComponent) => w.share > 1e-3 && keyOf(this.predictor, w) === lead;
    return components.reduce((sum, w) => sum + (isLead(w) ? w.share : 0), 0) >= NEAR_VERDICT;
  }
  /** Whether so few places hold nearly everything that a verdict may take them as one. */
  private isBetweenFew(posterior: Posterior): boolean {
    const places = sharesBy(posterior, (c) => keyOf(this.predictor, c));
    const most = [...places.values()].sort((a, b) => b - a).slice(0, FEW_PLACES);
    return most.reduce((a, b) => a + b, 0) >= NEARLY_ALL;
  }
  /** Whether one that is not far behind the leader is held down by readings that few draws do not reach. */
  private isDisputed({ components }: Posterior): boolean {
    const behind = components.slice(1, 1 + MOST_DISPUTING);
    return behind.some(
      (c) => c.share > DISPUTES_FROM && leftOver(this.predictor, c, this.evidence).readings.length > 0,
    );
  }
  private leavesUnexplained(component: MixtureComponent, least: number): boolean {
    const { codes, readings } = leftOver(this.predictor, component, this.evidence);
    return (
      codes.length > 0 ||
      readings.length >= least ||
      (component.hypothesis === 0 && this.evidence.some((e) => e.kind === "code" && e.present))
    );
  }
}
function sharesBy({ components }: Posterior, name: (c: MixtureComponent) => string): ReadonlyMap<string, number> {
  const shares = new Map<string, number>();
  for (const c of components) shares.set(name(c), (shares.get(name(c)) ?? 0) + c.share);
  return shares;
}
/** The name that has most, and how much. */
function most(shares: ReadonlyMap<string, number>): readonly [string, number] {
  return [...shares].reduce((a, b) => (b[1] > a[1] ? b : a), ["", 0]);
}
/** What had this part of the leader's share led with it. Judgement. */
const ALREADY_LED = 0.5;
/** Those next to the leader that may dispute its lead, from this share on. Judgement. */
const MOST_DISPUTING = 5;
const DISPUTES_FROM = 1e-3;
/** So often a set that newly leads is held against others. Judgement: time. */
const MOST_ROUNDS = 4;
/** Leading sets, and from which share, that are tried with one fault less. Judgement: time. */
const MOST_WITH_MORE = 2;
const LEADS_WITH_MORE = 0.05;
/** So many readings that are off are not all slips of the hand. Judgement. */
const OFF_TOGETHER = 2;
/** From this share on a set of faults leads, and is held against others. Judgement. */
const LEADS = 0.1;
/** Sets of faults weighed at first; and the share that they must have for the others to be weighed too. Judgement. */
const FIRST_SETS = 40;
const OTHERS_FROM = 1e-3;
/** So few places, with so much between them, may be what a verdict is about. Judgement. */
const FEW_PLACES = 4;
const NEARLY_ALL = 0.98;
/** A suspect is only declared against several faults at once. */
const NEAR_VERDICT = 0.9;
/**
 * What explains almost anything: a fault that is there or not, as it suits; leads at the wrong connector; terminals
 * changed over.
 */
function explainsAlmostAnything(predictor: Predictor, w: MixtureComponent): boolean {
  return (
    w.presence < 1 ||
    w.misplaced !== undefined ||
    predictor.hypotheses[w.hypothesis]!.faults.some((f) => f.mode === "cavitiesSwapped")
  );
}
/** "Not in this wiring" above this is itself a reason to think of several faults. */
const DOUBT = 0.02;

/** Belief with one logbook entry left out: what would stand if that one reading were a slip. */
export function without(predictor: Predictor, belief: Belief, entry: number): Posterior {
  const { gathered, multiple } = belief;
  const evidence = gathered.evidence.filter((e) => e.kind !== "reading" || e.number !== entry);
  return weigh(predictor, evidence, {
    closer: closerWithout(predictor, belief, evidence),
    factors: gathered.factors,
    comesAndGoes: gathered.comesAndGoes,
    going: belief.carried?.going,
    severities: belief.carried?.severities,
    multiple,
    breadth: belief.breadth,
  });
}
