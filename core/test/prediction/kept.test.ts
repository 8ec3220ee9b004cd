import { fourCodes, tugVolts, tugWiring } from "../warm.js";
import {
  analyse,
  codesOfAll,
  keptKeys,
  packCodes,
  packValues,
  Predictor,
  takeCodes,
  takeValues,
  workOutPiece,
  type Entry,
} from "../../src/index.js";

const inFull = (predictor: Predictor, entries: readonly Entry[]) => {
  const { suspects, next } = analyse(predictor, entries);
  return { suspects: suspects.map((s) => [s.id, s.share]), next: next.map((n) => [n.candidate.id, n.bits] as const) };
};

describe("predictions kept as bytes", () => {
  const worked = new Predictor(tugWiring);
  const entries = [...fourCodes, tugVolts("A1:12", 0.9)];
  const before = inFull(worked, entries);
  for (const piece of codesOfAll(worked)) workOutPiece(worked, piece);
  const codes = packCodes(worked);
  const values = packValues(worked);
  const taken = () => {
    const predictor = new Predictor(tugWiring);
    takeCodes(predictor, codes);
    takeValues(predictor, values);
    return predictor;
  };

  test("give the same answer, number by number, for hardly a solve", () => {
    const predictor = taken();
    expect(inFull(predictor, entries)).toEqual(before);
    expect(predictor.solves).toBeLessThan(worked.solves / 20);
  });

  test("serve another job on such a machine, with other codes", () => {
    const other = fourCodes.slice(0, 2);
    const [cold, warm] = [new Predictor(tugWiring), taken()];
    // what is fitted between severities hangs a little on which of them were asked for together
    const rounded = (predictor: Predictor) => {
      const { suspects, next } = inFull(predictor, other);
      return { suspects, next: next.map(([id, bits]) => [id, Number(bits.toFixed(4))]) };
    };
    expect(rounded(warm)).toEqual(rounded(cold));
    expect(warm.solves).toBeLessThan(cold.solves / 2);
  });

  test("are found by what the wiring says, in whatever order it says it, and by the engine", () => {
    const reversed = Object.fromEntries(Object.entries(tugWiring).reverse()) as typeof tugWiring;
    const keys = keptKeys(worked, "1");
    expect(keptKeys(new Predictor(reversed), "1")).toEqual(keys);
    const fewer = keptKeys(new Predictor({ ...tugWiring, codes: tugWiring.codes.slice(1) }), "1");
    expect(fewer.values).toBe(keys.values); // what instruments show hangs on no code
    expect(fewer.codes).not.toBe(keys.codes);
    expect(keptKeys(worked, "2").values).not.toBe(keys.values);
    const [wire, ...wires] = tugWiring.wires;
    const longer = new Predictor({ ...tugWiring, wires: [{ ...wire!, lengthM: 99 }, ...wires] });
    expect(keptKeys(longer, "1").values).not.toBe(keys.values);
  });

  test("bytes of another machine, half of them, and no such bytes are refused", () => {
    const smaller = new Predictor({ ...tugWiring, codes: tugWiring.codes.slice(1) });
    expect(() => takeCodes(smaller, codes)).toThrow(/another machine/);
    const predictor = new Predictor(tugWiring);
    for (const take of [takeCodes, takeValues]) {
      expect(() => take(predictor, codes.subarray(0, codes.length >> 1))).toThrow();
      expect(() => take(predictor, new TextEncoder().encode("no predictions"))).toThrow();
    }
    expect(inFull(predictor, entries)).toEqual(before);
  });
});
