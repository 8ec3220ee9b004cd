import { assess, makePlan, Predictor, type Belief, type Entry, type Plan } from "../src/index.js";
import { code, tug } from "./helpers.js";

/**
 * The tug with its predictor, shared by the suites that run in one worker: predictions depend on no evidence, so what
 * one suite had worked out the next only looks up.
 */
export const tugWiring = tug();
export const tugPredictor = new Predictor(tugWiring);
/** The four codes of the flagship job. */
export const fourCodes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));

export function planOf(entries: readonly Entry[]): { readonly belief: Belief; readonly plan: Plan } {
  const belief = assess(tugPredictor, entries);
  return { belief, plan: makePlan(tugPredictor, belief) };
}
