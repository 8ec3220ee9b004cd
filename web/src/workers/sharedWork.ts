import {
  codePieces,
  gather,
  isPieceKnown,
  openPiece,
  takeResults,
  workOutAt,
  type CodePiece,
  type Entry,
  type Piece,
  type PieceResult,
  type Predictor,
  type InSteps,
} from "@radicula/core";

/** Another thread with a predictor of the same machine. */
export interface Helper {
  /** @param entries the logbook, which tells what part of a large machine it is about */
  workOut(entries: readonly Entry[], piece: Piece): Promise<readonly PieceResult[]>;
}

export interface SharedWorkOptions {
  /** told how much of the first pass over all faults is done, 0 to 1 */
  readonly progress?: ((share: number) => void) | undefined;
  /** true gives up: something newer was asked */
  readonly stop?: () => boolean;
}

/** A piece of fewer hypotheses is not worth handing over. Judgement. */
const LEAST_SHARED = 16;
/** A helper that takes so much longer than this thread, and this much more, ms, is waited for no longer. Judgement. */
const SLOWER = 3;
const PATIENCE_MS = 1_000;
/** How long this thread works before it looks whether something newer was asked, ms. */
const TURN_MS = 30;
/** Pieces that a first answer usually takes: for what is told of its progress. */
const USUAL_PIECES = 4;

/**
 * Works out what weighing the codes of a logbook needs, on this thread and others together. A helper that fails or is
 * very slow is left out: what it was to do is then worked out where it is asked for.
 */
export async function shareCodes(
  predictor: Predictor,
  entries: readonly Entry[],
  helpers: readonly Helper[],
  { progress, stop = () => false }: SharedWorkOptions = {},
): Promise<void> {
  if (stop()) return;
  const codes = gather(predictor, entries).evidence.filter((e) => e.kind === "code");
  if (codes.length === 0) return;
  let able = helpers;
  let done = 0;
  for (const piece of codePieces(predictor, codes)) {
    if (able.length === 0 || stop()) return;
    const open = openPiece(predictor, piece);
    if (open.hypotheses.length < LEAST_SHARED) continue;
    able = await share(predictor, entries, open, able, stop, (part) =>
      progress?.(Math.min(1, (done + part) / USUAL_PIECES)),
    );
    done++;
  }
}

/** Every thread takes its part of a piece. @returns the helpers that did their part */
async function share(
  predictor: Predictor,
  entries: readonly Entry[],
  piece: CodePiece,
  helpers: readonly Helper[],
  stop: () => boolean,
  progress: (share: number) => void,
): Promise<readonly Helper[]> {
  const began = performance.now();
  const partOf = (lane: number) => lanePart(piece, lane, helpers.length + 1);
  const able = new Set<Helper>();
  const others = helpers.map(async (helper, i) => {
    const found = await helper.workOut(entries, partOf(i + 1));
    takeResults(predictor, found);
    able.add(helper);
  });
  const all = Promise.allSettled(others);
  const own = partOf(0);
  let turn = performance.now() + TURN_MS;
  for (let i = 0; i < own.hypotheses.length; i++) {
    workOutAt(predictor, own, i);
    if (performance.now() < turn) continue;
    progress(i / own.hypotheses.length);
    await pause(0);
    if (stop()) return helpers;
    turn = performance.now() + TURN_MS;
  }
  await Promise.race([all, pause((performance.now() - began) * SLOWER + PATIENCE_MS)]);
  return helpers.filter((h) => able.has(h));
}
function lanePart(piece: CodePiece, lane: number, lanes: number): CodePiece {
  return { ...piece, hypotheses: piece.hypotheses.filter((h) => laneOf(h, lanes) === lane) };
}
/**
 * A hypothesis always goes to the same thread, which goes on from what it found of it; so do eight in a row, which are
 * mostly faults of one place and start from the same solutions. Rows are spread by Knuth's multiplicative hash.
 */
const laneOf = (h: number, lanes: number) => (Math.imul(h >> 3, 0x9e3779b1) >>> 16) % lanes;

/**
 * Works out pieces that do not hang on each other, each on whichever thread is free, until there are no more or
 * something newer is asked.
 */
export async function shareAhead(
  predictor: Predictor,
  entries: readonly Entry[],
  pieces: Iterator<Piece>,
  helpers: readonly Helper[],
  stop: () => boolean,
): Promise<void> {
  const next = (): Piece | undefined => {
    if (stop()) return undefined;
    for (;;) {
      const step = pieces.next();
      if (step.done) return undefined;
      if (!isPieceKnown(predictor, step.value)) return step.value;
    }
  };
  const handOver = async (helper: Helper) => {
    for (let piece = next(); piece; piece = next()) takeResults(predictor, await helper.workOut(entries, piece));
  };
  const others = helpers.map((h) => handOver(h).catch(() => undefined));
  let turn = performance.now() + AHEAD_TURN_MS;
  for (let piece = next(); piece; piece = next())
    for (let i = 0; i < piece.hypotheses.length; i++) {
      workOutAt(predictor, piece, i);
      if (performance.now() < turn) continue;
      await pause(0);
      if (stop()) return;
      turn = performance.now() + AHEAD_TURN_MS;
    }
  await Promise.race([Promise.all(others), pause(PATIENCE_MS)]);
}
/** What is asked meanwhile waits no longer than this, ms. */
const AHEAD_TURN_MS = 12;

/**
 * Work with pauses, in turns, so that something newer waits no longer than a turn. It begins anew where sets of faults
 * that it knows by number were forgotten for another question.
 * @returns undefined when it was given up
 */
export async function inTurns<T>(
  predictor: Predictor,
  begin: () => InSteps<T>,
  stop: () => boolean,
): Promise<T | undefined> {
  let steps = begin();
  let turn = performance.now() + TURN_MS;
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() < turn) continue;
    const { generation } = predictor;
    await pause(0);
    if (stop()) return undefined;
    if (predictor.generation !== generation) steps = begin();
    turn = performance.now() + TURN_MS;
  }
}

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
