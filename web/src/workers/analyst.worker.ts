import {
  analyse,
  answerInSteps,
  assess,
  circumstances,
  courseOf,
  Focus,
  piecesAhead,
  planPieces,
  warmingPieces,
  watchPoint,
  weighCandidate,
  workOutPiece,
  type Analysis,
  type Belief,
  type Entry,
  type Recommendation,
  type CoursePoint,
  type Feed,
  type Piece,
  type PieceResult,
  type Predictor,
  type WholeAnswer,
} from "@radicula/core";
import { expose, wrap } from "comlink";
import { takeKept } from "./keptPredictions";
import { inTurns, shareAhead, shareCodes, type Helper } from "./sharedWork";
import { Entries, Ids, Intake, PieceOfWork, readMessage, Step, Wiring } from "./messages";

/** The core behind a worker: what was predicted for the job's wiring, kept as long as the page. */
let focus: Focus | undefined;
/** counts updates and thoughts, so that an older thought knows it is over */
let thought = 0;
let asked = 0;
let begun: Belief | undefined;
/** the last whole answer, which thinking ahead goes on with */
let latest: Analysis | undefined;
/** the belief of the last whole answer, and what it is of */
let whole:
  | { readonly belief: Belief; readonly predictor: Predictor; readonly generation: number; readonly entries: string }
  | undefined;
/** workers of the same wiring that share in what takes long */
const helpers: Helper[] = [];
/** the first look that is being prepared, which the whole analysis waits for */
let preparing: Promise<unknown> = Promise.resolve();
/** the whole answer that is being worked out */
let updating: Promise<unknown> = Promise.resolve();

const api = {
  open(wiring: unknown): void {
    focus = new Focus(readMessage(Wiring, wiring));
  },
  /** Another worker of this kind, open for the same wiring, that answers at the other end of a channel. */
  helpedBy(port: MessagePort): void {
    helpers.push(wrap<AnalystApi>(port));
  },
  /** Answers another worker at a channel. */
  helpAt(port: MessagePort): void {
    expose(api, port);
  },
  /** A piece of another worker's work. */
  workOut(message: unknown, piece: unknown): PieceResult[] {
    return workOutPiece(predictorFor(readMessage(Entries, message)), readMessage(PieceOfWork, piece));
  },
  /**
   * A first look: what to read next, without looking ahead or for several faults.
   * @returns undefined when something newer was asked meanwhile
   */
  async first(message: unknown, progress?: (share: number) => void): Promise<Analysis | undefined> {
    const entries = readMessage(Entries, message);
    const predictor = predictorFor(entries);
    const mine = ++asked;
    thought++;
    const prepared = lookFirst(predictor, entries, () => mine !== asked, progress && nowAndThen(progress));
    preparing = prepared.catch(() => undefined);
    return prepared;
  },
  /**
   * The whole analysis of what `first` looked at, looking ahead and for several faults.
   * @returns undefined when something newer was asked meanwhile
   */
  update(message: unknown): Promise<WholeAnswer | undefined> {
    const answered = answerWhole(message);
    updating = answered.catch(() => undefined);
    return answered;
  },
  /** The value to watch while places are moved. */
  watch(message: unknown): ReturnType<typeof watchPoint> {
    const entries = readMessage(Entries, message);
    const predictor = predictorFor(entries);
    return watchPoint(predictor, analyse(predictor, entries, { quick: true }));
  },
  /** What the answers to a step of a run, or to a reading of one's own, would mean. */
  async weigh(message: unknown, candidate: unknown): Promise<Recommendation | undefined> {
    const entries = readMessage(Entries, message);
    await updating; // it knows most of what is asked here
    const predictor = predictorFor(entries);
    return weighCandidate(predictor, entries, readMessage(Step, candidate), { belief: beliefIn(predictor, entries) });
  },
  /** How suspicion on some places went, entry by entry. */
  course(message: unknown, ids: unknown): readonly CoursePoint[] {
    const entries = readMessage(Entries, message);
    return courseOf(predictorFor(entries), entries, readMessage(Ids, ids));
  },
  /** What an intake would do to the rates of faults. */
  feeds(intake: unknown): readonly Feed[] {
    // of the whole machine: what is told before anything is read may be about any part of it
    return focus ? circumstances(focus.wiring, focus.faults, readMessage(Intake, intake)).feeds : [];
  },
  /** Thinks ahead in short steps while the technician puts the leads on; a new update ends it. */
  async think(message: unknown): Promise<void> {
    const entries = readMessage(Entries, message);
    if (!latest) return;
    const mine = ++thought;
    const predictor = predictorFor(entries);
    const pieces: Iterator<Piece> =
      latest.stage === "waiting" && !focus?.isLarge
        ? warmingPieces(predictor)
        : piecesAhead(predictor, entries, latest);
    await shareAhead(predictor, entries, pieces, helpers, () => thought !== mine);
  },
};
async function answerWhole(message: unknown): Promise<WholeAnswer | undefined> {
  const entries = readMessage(Entries, message);
  const predictor = predictorFor(entries);
  const mine = asked;
  const isOver = () => mine !== asked;
  await preparing;
  await new Promise((resolve) => setTimeout(resolve, 0)); // lets a newer question in first
  if (isOver()) return undefined;
  const first = begun;
  const found = await inTurns(predictor, () => answerInSteps(predictor, entries, first), isOver);
  if (!found) return undefined;
  latest = found.answer.analysis;
  whole = { belief: found.belief, predictor, generation: predictor.generation, entries: JSON.stringify(entries) };
  return found.answer;
}
/** The belief of the whole answer to these entries, while what it knows by number is still there. */
function beliefIn(predictor: Predictor, entries: readonly Entry[]): Belief | undefined {
  const stands = whole?.predictor === predictor && whole.generation === predictor.generation;
  return stands && whole?.entries === JSON.stringify(entries) ? whole.belief : undefined;
}
async function lookFirst(
  predictor: Predictor,
  entries: readonly Entry[],
  isOver: () => boolean,
  progress: ((share: number) => void) | undefined,
): Promise<Analysis | undefined> {
  await takeKept(predictor);
  if (isOver()) return undefined;
  if (helpers.length > 0) {
    await shareCodes(predictor, entries, helpers, { progress, stop: isOver });
    if (isOver()) return undefined;
  }
  const belief = assess(predictor, entries, { multiple: "never", progress });
  if (helpers.length > 0) {
    await shareAhead(predictor, entries, planPieces(predictor, belief), helpers, isOver);
    if (isOver()) return undefined;
  }
  begun = belief;
  return analyse(predictor, entries, { quick: true, begun });
}
/** Passes on so many calls only: each is a message to the page. */
function nowAndThen(tell: (share: number) => void): (share: number) => void {
  let next = performance.now() + TELL_EVERY_MS;
  return (share) => {
    const now = performance.now();
    if (now < next) return;
    next = now + TELL_EVERY_MS;
    tell(share);
  };
}
const TELL_EVERY_MS = 150;
function predictorFor(entries: readonly Entry[]): Predictor {
  if (!focus) throw new Error("open a wiring first");
  return focus.predictor(entries);
}
export type AnalystApi = typeof api;
expose(api);
