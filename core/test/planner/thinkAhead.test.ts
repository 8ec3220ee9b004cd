import { fourCodes, tugVolts, tugWiring } from "../warm.js";
import { analyse, assess, Predictor, thinkAhead, warmUp, type Entry } from "../../src/index.js";

/** Solves that an answer to a logbook takes. */
function solvesFor(predictor: Predictor, entries: readonly Entry[]): number {
  const before = predictor.solves;
  const begun = assess(predictor, entries, { multiple: "never" });
  analyse(predictor, entries, { begun, quick: true });
  return predictor.solves - before;
}
const inShort = (predictor: Predictor, entries: readonly Entry[]) => {
  const { suspects, next } = analyse(predictor, entries, { quick: true });
  return {
    suspects: suspects.map((s) => [s.id, Number(s.share.toFixed(6))]),
    next: next.map((n) => [n.candidate.id, Number(n.bits.toFixed(4))]),
  };
};

describe("what is worked out beforehand", () => {
  test("while no code is known: the first card then takes less than half of the solves, and says the same", () => {
    const cold = new Predictor(tugWiring);
    const without = solvesFor(cold, fourCodes);
    const warm = new Predictor(tugWiring);
    for (const step of warmUp(warm)) void step;
    expect(solvesFor(warm, fourCodes)).toBeLessThan(without / 2);
    expect(inShort(warm, fourCodes)).toEqual(inShort(cold, fourCodes));
  });

  test("while the leads are put on: the reading asked for takes hardly a solve, whatever it shows", () => {
    const reading = (volt: number): Entry[] => [...fourCodes, tugVolts("A1:12", volt)];
    const asked = (predictor: Predictor) => analyse(predictor, fourCodes).next[0]!.candidate;
    for (const volt of [0.9, 2.5]) {
      const predictor = new Predictor(tugWiring);
      const candidate = asked(predictor);
      const taken = reading(volt).map((e) =>
        e.type === "reading" ? { ...e, points: [candidate.points[0]!], state: candidate.state } : e,
      );
      const cold = new Predictor(tugWiring);
      asked(cold);
      const without = solvesFor(cold, taken);
      expect(without).toBeGreaterThan(100);
      for (const step of thinkAhead(predictor, fourCodes, analyse(predictor, fourCodes))) void step;
      expect(solvesFor(predictor, taken)).toBeLessThanOrEqual(without / 10);
      expect(inShort(predictor, taken)).toEqual(inShort(cold, taken));
    }
  });

  test("it can be left at any step", () => {
    const predictor = new Predictor(tugWiring);
    const steps = warmUp(predictor);
    for (let i = 0; i < 20; i++) steps.next();
    expect(inShort(predictor, fourCodes)).toEqual(inShort(new Predictor(tugWiring), fourCodes));
  });
});
