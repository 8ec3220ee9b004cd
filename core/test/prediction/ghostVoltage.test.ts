import { findFault, generateHarness, Predictor, Rig, type State } from "../../src/index.js";
import { readVolts } from "../../src/instruments/readings.js";
import { middle, nominalValue } from "../../src/network/compile.js";

/**
 * A plug is off, and two wires behind it touch: sensors are fed backwards, through their chips and through each other.
 * Their pins hang on megohms, and a meter's own 10 MΩ makes diodes conduct that did not. What is predicted for all
 * points at once is what a meter shows at each that is solved with the meter in the circuit.
 */
test("points that are fed through a chip show what a meter in the circuit shows", () => {
  const wiring = generateHarness({ nodes: 100, seed: 63 });
  const predictor = new Predictor(wiring);
  const { fault } = findFault(predictor.faults, "W20+W24/shortToWire")!;
  const h = predictor.faults.indexOf(fault) + 1;
  const state: State = { key: "on", unplugged: ["X1a"] };
  const place = 3;
  const rig = new Rig(wiring, [{ fault, severity: fault.severities[place]! }], nominalValue, middle);
  const wanted = new Uint8Array(predictor.hypotheses[h]!.samples);
  const nominal = place * predictor.draws;
  wanted[nominal] = 1;
  let pulled = 0;
  for (const point of predictor.points.filter((p) => p.startsWith("X1a:"))) {
    const shown = readVolts(rig, state, point);
    const own = predictor.predictAt(h, { point, black: undefined, instrument: "voltmeter", state }, wanted).at(nominal);
    expect(Math.abs(own - shown.value)).toBeLessThan(0.01);
    if (shown.remarks.some((r) => r.code === "reading.ghost-voltage")) pulled++;
  }
  expect(pulled).toBeGreaterThan(2);
});
