import { testPlaceOf } from "../../src/index.js";
import { chartStepId, runStepId, testId } from "../../src/format/candidateId.js";
import type { State } from "../../src/index.js";

const on: State = { key: "on", unplugged: ["B7"] };

test("where a test is made is read from its name, however it was made", () => {
  expect(testPlaceOf(testId("reference", ["B7:1"], on, "B7:2"))).toEqual({ points: ["B7:1"] });
  expect(testPlaceOf(testId("swap", ["B7", "B9"], { key: "cranking", unplugged: [] }))).toEqual({
    points: ["B7", "B9"],
  });
  const step = { kind: "voltage", points: ["G3"], state: on };
  expect(testPlaceOf(runStepId("groundProof", step))).toEqual({ run: "groundProof", points: ["G3"] });
  expect(testPlaceOf(runStepId("groundProof", { ...step, black: "BAT:-" }))).toEqual({
    run: "groundProof",
    points: ["G3"],
  });
  expect(testPlaceOf(chartStepId("voltage", "B7:1", "on"))).toEqual({ points: ["B7:1"] });
});
