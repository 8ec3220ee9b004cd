import { answering, Predictor, wholeAnswer, type Entry } from "../../src/index.js";
import { code, tug } from "../helpers.js";

const AT = "2026-01-01T08:00:00Z";
const reading = (point: string, value: number): Entry => ({
  type: "reading",
  at: AT,
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged: [] },
});

test("an answer with pauses is the answer without, and pauses often where several faults are searched for", () => {
  const entries = [
    ...["P0642", "P0237", "P0522"].map((c) => code(c)),
    reading("A1:12", 0.9),
    reading("A1:9", 4.1),
    reading("B7:1", 2.2),
  ];
  const predictor = new Predictor(tug());
  const steps = answering(predictor, entries);
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
