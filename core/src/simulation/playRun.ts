import type { Entry, RunName } from "../format/case.js";
import { recordAnswer, recordReading } from "../planner/record.js";
import type { Predictor } from "../prediction/predictor.js";
import { runView, type RunView } from "../procedures/run.js";
import type { SimulatedMachine } from "./machine.js";
import { observe } from "./observe.js";

/** A guided run played to its end on a simulated machine, every step through the logbook. */
export interface PlayedRun {
  readonly view: RunView;
  readonly entries: readonly Entry[];
}
const AT = "2026-01-01T08:00:00Z";
/** Answers after which a run that has not ended is at fault itself. Judgement. */
const MOST = 400;
/** Of two answers eyes and hands can give, the likelier. */
const LIKELIER = 0.6;

/** @param skip steps that cannot be taken, by id @throws RangeError where a run has no end */
export function playRun(
  predictor: Predictor,
  machine: SimulatedMachine,
  run: Exclude<RunName, "wiggle">,
  on: string,
  skip: (id: string) => boolean = () => false,
): PlayedRun {
  const entries: Entry[] = [{ type: "run", at: AT, run, on, event: "begun" }];
  for (let i = 0; i < MOST; i++) {
    const view = runView(predictor, entries)!;
    const { next } = view;
    if (!next) return { view, entries };
    const seen = skip(next.id) ? undefined : observe(machine, next, false, () => LIKELIER);
    if (!seen) entries.push({ type: "setAside", at: AT, candidate: next.id, reason: "other" });
    else
      entries.push(
        ...(seen.values
          ? recordReading(next, seen.values, AT)
          : recordAnswer(predictor.wiring, next, seen.yes!, AT, seen.found)),
      );
  }
  throw new RangeError(`run ${run} on ${on} has no end`);
}
