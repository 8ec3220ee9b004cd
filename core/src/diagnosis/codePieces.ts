import type { CodePiece } from "../prediction/piece.js";
import type { Predictor } from "../prediction/predictor.js";
import { byWork, codeLogLikelihoods, LN_NARROW } from "./codeWeights.js";
import type { CodeEvidence } from "./evidence.js";

/**
 * What weighing these codes needs of the predictor, in pieces that threads may share in, each to be worked out before
 * the next is asked for. What is left out, and what was worked out before, `codePosterior` works out for itself.
 */
export function* codePieces(predictor: Predictor, codes: readonly CodeEvidence[]): Generator<CodePiece> {
  const present = codes.flatMap((c) => (c.present ? [c.monitor] : []));
  const all = Array.from({ length: predictor.faults.length + 1 }, (_, h) => h);
  if (present.length > 0) yield { work: "movesAny", hypotheses: all, monitors: present };
  const open = present.length > 0 ? all.filter((h) => predictor.movesAny(h, present)) : all;
  const fits = new Map<number, Float64Array>();
  const bound = new Map<number, number>();
  let near = open;
  for (const group of byWork(predictor, codes)) {
    yield { work: "rough", hypotheses: near, monitors: group.map((c) => c.monitor) };
    for (const h of near) {
      const own = codeLogLikelihoods(predictor, h, group, 1, true).map((x, s) => x + (fits.get(h)?.[s] ?? 0));
      fits.set(h, own);
      bound.set(
        h,
        own.reduce((a, b) => Math.max(a, b), -Infinity),
      );
    }
    const fittest = near.reduce((most, h) => Math.max(most, bound.get(h)!), -Infinity);
    near = near.filter((h) => h === 0 || bound.get(h)! >= fittest + LN_NARROW);
  }
  yield { work: "full", hypotheses: near, monitors: codes.map((c) => c.monitor) };
}
