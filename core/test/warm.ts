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

/** A voltage on the tug with the key on. */
export const tugVolts = (point: string, value: number, unplugged: string[] = []): Entry => ({
  type: "reading",
  at: "2026-11-24T09:00:00Z",
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged },
});
/** The flagship job as far as its cause: B9 drags the reference down. */
export const dragged = [
  ...fourCodes,
  tugVolts("B7:1", 0.84, ["B7"]),
  tugVolts("B7:1", 4.97, ["B9"]),
  tugVolts("B9:1", 4.98, ["B9"]),
  tugVolts("B12:1", 0.85),
];

export function planOf(entries: readonly Entry[]): { readonly belief: Belief; readonly plan: Plan } {
  const belief = assess(tugPredictor, entries);
  return { belief, plan: makePlan(tugPredictor, belief) };
}
