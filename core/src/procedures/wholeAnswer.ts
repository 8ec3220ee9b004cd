import type { Belief } from "../diagnosis/assessment.js";
import type { Entry } from "../format/case.js";
import { analyseInSteps, type AnalyseOptions } from "../planner/analyse.js";
import type { Analysis } from "../planner/analysis.js";
import type { Predictor } from "../prediction/predictor.js";
import { finished, type InSteps } from "../steps.js";
import { runOffers, runTests, type RunOffer } from "./offers.js";

/** All that is to be said of a logbook, with the guided tests worth beginning. Plain data. */
export interface WholeAnswer {
  readonly analysis: Analysis;
  /** none while a guided test is open */
  readonly offers: readonly RunOffer[];
}

/**
 * The whole answer to a logbook: several faults searched for, guided tests weighed against single ones.
 * @param begun a first look at the same logbook, to go on from
 */
export function wholeAnswer(predictor: Predictor, entries: readonly Entry[], begun?: Belief): WholeAnswer {
  return finished(answerInSteps(predictor, entries, begun)).answer;
}
/**
 * As `wholeAnswer`, in steps (see `assessInSteps`).
 * @returns the belief that the answer is of, too
 */
export function* answerInSteps(
  predictor: Predictor,
  entries: readonly Entry[],
  begun?: Belief,
): InSteps<{ readonly belief: Belief; readonly answer: WholeAnswer }> {
  const runs: AnalyseOptions["runs"] = (plan) => runTests(predictor, plan);
  const { belief, analysis } = yield* analyseInSteps(predictor, entries, { begun, runs });
  yield;
  return { belief, answer: { analysis, offers: analysis.folded.run ? [] : runOffers(predictor, analysis) } };
}
