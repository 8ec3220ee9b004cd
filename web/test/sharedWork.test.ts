/** @jest-environment ./test/environments/node.mjs */
import {
  analyse,
  assess,
  piecesAhead,
  planPieces,
  Predictor,
  thinkAhead,
  workOutPiece,
  type Entry,
} from "@radicula/core";
import { inTurns, shareAhead, shareCodes, type Helper } from "@/workers/sharedWork";
import { demoCase } from "./helpers";

const { wiring } = demoCase();
const AT = "2026-11-24T09:00:00Z";
const codes: readonly Entry[] = ["P0642", "P0237", "P0522", "P1A41"].map((code) => ({
  type: "code",
  at: AT,
  module: "A1",
  code,
  status: "active",
}));
const reading: Entry = {
  type: "reading",
  at: AT,
  instrument: "voltmeter",
  points: ["A1:12"],
  values: [0.9],
  state: { key: "on", unplugged: [] },
};
const whole = (predictor: Predictor, entries: readonly Entry[]) => {
  const { suspects, next } = analyse(predictor, entries, { quick: true });
  // rounded: what is fitted between severities hangs a little on which of them were asked for together
  const rounded = (x: number) => Number(x.toFixed(9));
  return [suspects.map((s) => [s.id, rounded(s.share)]), next.map((n) => [n.candidate.id, rounded(n.bits)])];
};
function solvesFor(predictor: Predictor, entries: readonly Entry[]): number {
  const before = predictor.solves;
  whole(predictor, entries);
  return predictor.solves - before;
}
/** Another thread: it gets copies only, as a worker does. */
const helperOf = (other: Predictor): Helper => ({
  workOut: async (_, piece) => structuredClone(workOutPiece(other, structuredClone(piece))),
});
const cold = whole(new Predictor(wiring), codes);

test("two threads make a card: each does about half, and the card is the same", async () => {
  const alone = solvesFor(new Predictor(wiring), codes);
  const [mine, other] = [new Predictor(wiring), new Predictor(wiring)];
  const shares: number[] = [];
  await shareCodes(mine, codes, [helperOf(other)], { progress: (s) => shares.push(s) });
  const belief = assess(mine, codes, { multiple: "never" });
  await shareAhead(mine, codes, planPieces(mine, belief), [helperOf(other)], () => false);
  expect(whole(mine, codes)).toEqual(cold);
  expect(mine.solves).toBeLessThan(0.7 * alone);
  expect(mine.solves + other.solves).toBeLessThan(1.2 * alone);
  expect(shares.every((s) => s >= 0 && s <= 1)).toBe(true);
});

test("what two work out ahead is there for the reading that follows", async () => {
  const told = analyse(new Predictor(wiring), codes, { quick: true });
  const [mine, other, one] = [new Predictor(wiring), new Predictor(wiring), new Predictor(wiring)];
  for (const p of [mine, one]) analyse(p, codes);
  const [ofTwo, ofOne] = [mine.solves, one.solves];
  await shareAhead(mine, codes, piecesAhead(mine, codes, told), [helperOf(other)], () => false);
  for (const step of thinkAhead(one, codes, told)) void step;
  expect(mine.solves - ofTwo).toBeLessThan(0.9 * (one.solves - ofOne));
  const next = [...codes, reading];
  // whether a fuse melts is no part of a piece: each thread asks for itself where it matters
  expect(solvesFor(mine, next)).toBeLessThanOrEqual(1.05 * solvesFor(one, next));
  expect(whole(mine, next)).toEqual(whole(new Predictor(wiring), next));
});

test.each([
  ["fails", () => Promise.reject(new Error("out of memory"))],
  ["never answers", () => new Promise<never>(() => undefined)],
])("a helper that %s is left out, and the card is the same", async (_, workOut) => {
  const mine = new Predictor(wiring);
  await shareCodes(mine, codes, [{ workOut }]);
  const belief = assess(mine, codes, { multiple: "never" });
  await shareAhead(mine, codes, planPieces(mine, belief), [{ workOut }], () => false);
  expect(whole(mine, codes)).toEqual(cold);
});

test("something newer ends it before anything is worked out", async () => {
  const mine = new Predictor(wiring);
  await shareCodes(mine, codes, [helperOf(new Predictor(wiring))], { stop: () => true });
  expect(mine.solves).toBe(0);
});

/** Work of six parts, each longer than a turn. */
function* slowly(begun: () => void = () => undefined) {
  begun();
  for (let i = 0; i < 6; i++) {
    const until = performance.now() + 35;
    while (performance.now() < until);
    yield;
  }
  return "done";
}

test("work in turns lets others in, and is given up at the next turn when something newer is asked", async () => {
  const predictor = { generation: 0 } as Predictor;
  let others = 0;
  const other = setInterval(() => others++, 1);
  expect(
    await inTurns(
      predictor,
      () => slowly(),
      () => false,
    ),
  ).toBe("done");
  clearInterval(other);
  expect(others).toBeGreaterThanOrEqual(4);
  let asked = 0;
  expect(
    await inTurns(
      predictor,
      () => slowly(),
      () => ++asked === 2,
    ),
  ).toBeUndefined();
  expect(asked).toBe(2);
});

test("work that knows sets of faults by number begins anew where another question made them be forgotten", async () => {
  const predictor = { generation: 0 } as Predictor;
  let begun = 0;
  const stop = () => {
    if (begun === 1) predictor.generation++;
    return false;
  };
  expect(await inTurns(predictor, () => slowly(() => begun++), stop)).toBe("done");
  expect(begun).toBe(2);
});
