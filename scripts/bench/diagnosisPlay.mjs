// Plays one case of the diagnosis bench; predictors are kept from case to case of a machine.
import { play, Predictor } from "@radicula/core";
import { couldTell } from "./couldTell.mjs";
import { machines } from "./diagnosisCases.mjs";

let kept = {};
function predictorOf(machine, oneSeverity) {
  const name = `${machine} ${oneSeverity}`;
  if (kept.name !== name) {
    const predictor = new Predictor(machines[machine].wiring);
    // the ablation: every fault at the middle of its severities only
    if (oneSeverity)
      predictor.hypotheses.forEach((h, i) => {
        if (h.severities.length > 1)
          predictor.hypotheses[i] = {
            ...h,
            severities: [h.severities[h.severities.length >> 1]],
            samples: predictor.draws,
          };
      });
    kept = { name, predictor, faults: new Map(predictor.faults.map((f) => [f.id, f])) };
  }
  return kept;
}

export function playCase({ machine, set, faults, options }) {
  const { predictor, faults: known } = predictorOf(machine, options.oneSeverity === true);
  const began = performance.now();
  const played = play(
    predictor,
    faults.map((f) => ({ fault: known.get(f.id), severity: f.severity })),
    options,
  );
  const { steps, course, ...rest } = played;
  delete rest.entries; // the logbook is not wanted here
  return {
    machine,
    set,
    ms: performance.now() - began,
    tests: steps.length,
    course: course.at(-1),
    all: course,
    last: steps.at(-1)?.candidate,
    // of the repairs left open beside the hidden one, those that some meter reading would have told from it
    couldTell:
      set === "single" && faults.length === 1 && played.verdict?.right
        ? played.verdict.open.filter((ids) => couldTell(predictor, faults[0], ids)).length
        : 0,
    ...rest,
  };
}
