import { meterPoints, type Predictor, type State } from "../../src/index.js";
import type { HiddenMachine } from "./hiddenMachine.js";

const KEY_ON: State = { key: "on", unplugged: [] };
/** What a prediction may be off beyond what the draws span: volt, and share of the value. */
const SLACK_VOLT = 0.1;
const SLACK_SHARE = 0.02;

/** Reads every place a meter can be put on a sound machine, key on, and holds it against what is predicted there. */
export function readSound(predictor: Predictor, machine: HiddenMachine) {
  const points = meterPoints(machine.wiring).filter((p) => predictor.pointIndex.has(p));
  const outside = points.filter((point) => {
    const drawn = predictor.predictAt(0, { instrument: "voltmeter", point, state: KEY_ON });
    const volts = Array.from({ length: predictor.draws }, (_, d) => drawn.at(d));
    const got = machine.read(point, KEY_ON, "voltmeter");
    const slack = Math.max(SLACK_VOLT, SLACK_SHARE * Math.abs(got));
    return got < Math.min(...volts) - slack || got > Math.max(...volts) + slack;
  });
  return { read: points.length, outside };
}
