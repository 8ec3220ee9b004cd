import { analyse, type Entry } from "../../src/index.js";
import { dragged, fourCodes, tugPredictor, tugVolts } from "../warm.js";

const AT = "2026-11-24T10:00:00Z";
const reasonsOf = (entries: readonly Entry[]) => analyse(tugPredictor, entries, { quick: true }).suspects[0]!.reasons;

test("a clue is given as yes or no the way it was asked", () => {
  const identity = (right: boolean): Entry => ({ type: "identity", at: AT, connector: "B7", right });
  const last = (entry: Entry) => reasonsOf([...dragged, entry]).at(-1)!;
  expect(last(identity(true))).toMatchObject({ clue: "identity", about: "B7", got: 0 });
  expect(last(identity(false))).toMatchObject({ clue: "identity", about: "B7", got: 1 });
  expect(last({ type: "look", at: AT, thing: "B9", found: ["nothing"] })).toMatchObject({ clue: "look", got: 0 });
  expect(last({ type: "look", at: AT, thing: "B9", found: ["burnt"] })).toMatchObject({ clue: "look", got: 1 });
});

test("an open circuit is what an open circuit predicts; a closed one is its ohms", () => {
  const ohms = (point: string, value: number | "OL", unplugged: string[]): Entry => ({
    type: "reading",
    at: AT,
    instrument: "ohmmeter",
    points: [point],
    values: [value],
    state: { key: "off", unplugged },
  });
  const far = reasonsOf([...fourCodes, tugVolts("B7:1", 0.84, ["B7"]), ohms("B7:3", "OL", ["B7", "A1"])]).at(-1)!;
  expect(far.expected).toBe(Infinity);
  const near = reasonsOf([...fourCodes, tugVolts("B7:1", 0.84, ["B7"]), ohms("G3", 0.2, [])]).at(-1)!;
  expect(near.expected).toBeGreaterThan(0);
  expect(near.expected).toBeLessThan(1);
});

test("the test that tells the leader from the next is named for both, and none for what is no cause", () => {
  const { suspects, stage } = analyse(tugPredictor, fourCodes);
  expect(stage).toBe("splitting");
  const [first, second] = suspects;
  expect(first!.splitBy?.from).toBe(second!.id);
  expect(second!.splitBy?.from).toBe(first!.id);
  expect(first!.splitBy!.apart).toBeGreaterThanOrEqual(0.5);
  for (const s of suspects) if (s.type === "nothing" || s.type === "notHere") expect(s.splitBy).toBeUndefined();
});
