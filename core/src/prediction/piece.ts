import type { Instrument, State } from "../format/case.js";

/** Where and how one value is taken. */
export interface ReadingPlace {
  readonly instrument: Instrument;
  readonly point: string;
  /** the black lead, where it is not at battery negative */
  readonly black?: string | undefined;
  readonly state: State;
}

/** Of codes: what one thread works out of some hypotheses another can take over. */
export interface CodePiece {
  readonly hypotheses: readonly number[];
  /** whether faults move what any of the monitors watches, or each of them; which codes they set, roughly or in full */
  readonly work: "movesAny" | "movesEach" | "rough" | "full";
  readonly monitors: readonly number[];
}
/** Of what an instrument shows: at every place, or at that of one reading. */
export type ValuePiece = (
  | { readonly work: "values"; readonly state: State; readonly instrument: Instrument }
  | { readonly work: "reading"; readonly place: ReadingPlace }
) & {
  readonly hypotheses: readonly number[];
  /** samples needed (1) of each hypothesis; all where it is left out */
  readonly wanted?: readonly (Uint8Array | undefined)[];
};
/** A piece of predicting, by hypotheses. */
export type Piece = CodePiece | ValuePiece;

/** Hypotheses in a piece: what a thread works out in some tens of milliseconds. Judgement. */
const AT_ONCE = 6;
export function* inPieces<P extends Piece>(
  hypotheses: readonly number[],
  make: (some: readonly number[]) => P,
): Generator<P> {
  for (let i = 0; i < hypotheses.length; i += AT_ONCE) yield make(hypotheses.slice(i, i + AT_ONCE));
}

/** How far a hypothesis takes each monitor; see `CodePredictions`. */
export interface Shifts {
  /** whether all was tried */
  readonly known: Uint8Array;
  readonly most: Float64Array;
  /** of those that listen to a bus: at which looks they may be moved */
  readonly touched: Uint8Array;
}

/** Codes of one hypothesis: set (1) and how likely set, [sample · monitors + monitor]; of these groups of monitors. */
export interface KnownCodes {
  readonly bits: Uint8Array;
  readonly share: Float32Array;
  readonly groups: ReadonlySet<number>;
}
/** All that is known of the codes of one hypothesis. */
export interface CodesOfHypothesis {
  readonly shifts: Shifts | undefined;
  readonly rough: KnownCodes | undefined;
  readonly full: KnownCodes | undefined;
}
/** Rows of one hypothesis in a column of predictions, those of `samples`: `stride` numbers each, in turn. */
export interface RowsOfHypothesis {
  readonly column: string;
  readonly stride: number;
  readonly samples: Uint32Array;
  readonly rows: Float32Array;
}

/** What was found of one hypothesis, in a form that can be sent to another thread. */
export interface PieceResult {
  readonly hypothesis: number;
  /** whether its devices found a consistent state in every sample so far */
  readonly isSettled: boolean;
  readonly codes?: CodesOfHypothesis;
  readonly values?: RowsOfHypothesis;
}
