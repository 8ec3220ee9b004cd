import { answerInSteps, Predictor, wholeAnswer } from "../../src/index.js";
import { code, tug } from "../helpers.js";
import { tugVolts } from "../warm.js";

test("an answer in steps is the answer at once, and has many steps where several faults are searched for", () => {
  const entries = [
    ...["P0642", "P0237", "P0522"].map((c) => code(c)),
    tugVolts("A1:12", 0.9),
    tugVolts("A1:9", 4.1),
    tugVolts("B7:1", 2.2),
  ];
  const predictor = new Predictor(tug());
  const steps = answerInSteps(predictor, entries);
  let pauses = 0;
  for (;;) {
    const step = steps.next();
    if (!step.done) {
      pauses++;
      continue;
    }
    const { answer, belief } = step.value;
    expect(belief.alarmed).toBe(true);
    const alone = wholeAnswer(new Predictor(tug()), entries).analysis;
    expect(answer.analysis.suspects.map((s) => [s.id, s.share.toFixed(6)])).toEqual(
      alone.suspects.map((s) => [s.id, s.share.toFixed(6)]),
    );
    break;
  }
  expect(pauses).toBeGreaterThan(20);
});
