import { findNets, meterPoints, type Predictor, type State } from "../../src/index.js";
import { placeKey } from "../../src/diagnosis/groups.js";
import type { HiddenMachine } from "./hiddenMachine.js";

const KEY_ON: State = { key: "on", unplugged: [] };
/** What a prediction may be off beyond what the draws span: volt, and share of the value. */
const SLACK_VOLT = 0.1;
const SLACK_SHARE = 0.02;

/** How places of one kind (reference, signal, ground, …) read, against what is predicted there. */
export interface ReadAt {
  readonly point: string;
  readonly kind: string;
  readonly asPredicted: boolean;
}

/**
 * Reads every place a meter can be put, key on, and holds it against what the program predicts: of a sound machine by
 * its draws, of a faulty one by the draws and severities of all faults at the place that is to be repaired.
 */
export function readAll(predictor: Predictor, machine: HiddenMachine): ReadAt[] {
  const nets = findNets(machine.wiring);
  const { hidden } = machine;
  const hypotheses = hidden ? predictor.faults.flatMap((f, i) => (placeKey(f) === hidden.repair ? [i + 1] : [])) : [0];
  return meterPoints(machine.wiring)
    .filter((p) => predictor.pointIndex.has(p))
    .map((point) => {
      const volts = hypotheses.flatMap((h) => {
        const predicted = predictor.predictAt(h, { instrument: "voltmeter", point, state: KEY_ON });
        return Array.from({ length: predictor.hypotheses[h]!.samples }, (_, s) => predicted.at(s));
      });
      const got = machine.read(point, KEY_ON, "voltmeter");
      const slack = Math.max(SLACK_VOLT, SLACK_SHARE * Math.abs(got));
      const asPredicted = got >= Math.min(...volts) - slack && got <= Math.max(...volts) + slack;
      return { point, kind: nets.functionOf(point), asPredicted };
    });
}
