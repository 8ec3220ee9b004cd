import type { Misplacement } from "./misplaced.js";

/**
 * One thing that may be so: a hypothesis of the predictor (nothing, one fault, several), always there or coming and
 * going, with the readings where the logbook says or at a look-alike connector.
 */
export interface MixtureComponent {
  readonly hypothesis: number;
  /** share of the time in which the fault is there when somebody looks; 1 for a lasting one */
  readonly presence: number;
  readonly misplaced: Misplacement | undefined;
  readonly share: number;
  /** weight of each sample within this component, sums to 1; the same for every draw of one severity */
  readonly weights: Float64Array;
  /**
   * for components worth planning for whose severity is stepped: weight of each step between grid points within its
   * severity, [severity · steps + step]
   */
  readonly steps: Float64Array | undefined;
  /** for families of readings already taken: weight of each draw within its severity, [sample] */
  readonly draws: ReadonlyMap<string, Float64Array>;
}

/** Belief over components; with `notHere`, "not in this wiring", shares sum to 1. */
export interface Posterior {
  /** strongest first; those below 1e-7 are left out */
  readonly components: readonly MixtureComponent[];
  /** by hypothesis, over all its components */
  readonly share: Float64Array;
  readonly notHere: number;
  /** belief from codes alone, before any reading; the last entry is "not in this wiring" */
  readonly shareByCodes: Float64Array;
  readonly samplesByCodes: ReadonlyMap<number, Float64Array>;
  /** samples that codes alone leave possible (1), by hypothesis: what readings are weighed with */
  readonly wantedByCodes: ReadonlyMap<number, Uint8Array>;
}

/** What codes alone leave of one hypothesis. */
export interface CodesOfOne {
  /** ln of prior times likelihood of the codes */
  readonly log: number;
  /** ln likelihood of the codes by severity */
  readonly places: Float64Array;
  readonly wanted: Uint8Array;
}

/** What codes alone leave of every hypothesis. */
export interface CodePosterior {
  readonly signature: string;
  /** ln of prior times likelihood of the codes, by hypothesis; the best of them */
  readonly log: Float64Array;
  readonly best: number;
  readonly share: Float64Array;
  /** ln likelihood of the codes by severity */
  readonly places: ReadonlyMap<number, Float64Array>;
  readonly samples: ReadonlyMap<number, Float64Array>;
  readonly wanted: ReadonlyMap<number, Uint8Array>;
  /** faults that move nothing that a present code is judged by: left out until they are taken up */
  readonly idle: ReadonlySet<number>;
  /** What codes leave of an idle fault, roughly; undefined where that is too little. */
  takeUp(h: number): CodesOfOne | undefined;
  /** as `places`, where the fault comes and goes */
  going(h: number, presence: number): Float64Array;
}

/** ln likelihood of all readings together, by severity place of a hypothesis that was looked at closely. */
export type CloserFit = ReadonlyMap<number, number>;
/** A hypothesis in one way of showing itself: lasting or coming and going, readings where logged or at a look-alike. */
export type Way = Pick<MixtureComponent, "hypothesis" | "presence" | "misplaced">;
/** What was seen closely, by the names of the ways it was looked for. */
export type CloserFits = ReadonlyMap<string, { readonly way: Way; readonly fit: CloserFit }>;
export const wayName = ({ hypothesis, presence, misplaced }: Way) =>
  `${hypothesis} ${presence} ${misplaced ? `${misplaced.from}>${misplaced.to}` : ""}`;

/**
 * How many hypotheses are weighed. "exact": all, with every code worked out in full. "narrow": only those whose codes
 * fit about as well as any; "wide": the others too, their codes roughly.
 */
export type Breadth = "exact" | "narrow" | "wide";

/** A hypothesis of several faults worth weighing exactly. */
export interface MultipleFaultHypothesis {
  readonly hypothesis: number;
  readonly logPrior: number;
  /** ln of the part of their severities that was chosen to be tried */
  readonly logChosen: number;
  /** hypotheses of its members by themselves */
  readonly members: readonly number[];
  /** whether several of them move the same reading: what they come to together is only known once solved */
  readonly together?: boolean;
  readonly wanted: Uint8Array;
}

export interface WeighOptions {
  /**
   * factor on the rate of each fault, from what is known of the machine's history; [fault], and at the end, where it is
   * there, that of "not in this wiring"
   */
  readonly factors?: Float64Array | undefined;
  readonly comesAndGoes?: boolean;
  /** by hypothesis: share of it that comes and goes, where an earlier belief says so */
  readonly going?: Float64Array | undefined;
  /** ln weight of each severity of a hypothesis against all of them alike, where an earlier belief says so */
  readonly severities?: ReadonlyMap<number, Float64Array> | undefined;
  /**
   * hypotheses of several faults that are to be weighed too, with the ln of their rate relative to the sum of all
   * single ones
   */
  readonly multiple?: readonly MultipleFaultHypothesis[];
  /** how many hypotheses are weighed; all of them, exactly, unless said otherwise */
  readonly breadth?: Breadth;
  /** told now and then how much of the first pass over all faults is done, 0 to 1 */
  readonly progress?: ((share: number) => void) | undefined;
  /** how well hypotheses that were looked at closely explain the readings */
  readonly closer?: CloserFits | undefined;
  /** left out: what comes and goes, and readings at the wrong connector (for measuring what they are worth) */
  readonly only?: "lasting";
}
