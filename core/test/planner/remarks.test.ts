import { analyse, ENGINE_VERSION, type Entry } from "../../src/index.js";
import { code } from "../helpers.js";
import { dragged, tugPredictor, tugVolts as volts } from "../warm.js";

const remarksOf = (entries: readonly Entry[]) => analyse(tugPredictor, entries, { quick: true }).remarks;

test("a leader that explains everything is remarked on with nothing", () => {
  const codes = remarksOf(dragged).map((r) => r.code);
  expect(codes).not.toContain("remark.leader-leaves-codes");
  expect(codes).not.toContain("remark.leader-misfits");
});

test("a code that the leader would not set is named, and nothing is said of readings", () => {
  const found = remarksOf([...dragged, code("P0335")]);
  expect(found.find((r) => r.code === "remark.leader-leaves-codes")?.params).toEqual({ codes: ["P0335"] });
  expect(found.map((r) => r.code)).not.toContain("remark.leader-misfits");
});

test("a reading that does not fit the leader is named by its entry", () => {
  const found = remarksOf([...dragged, volts("B9:1", 0.2)]);
  expect(found.find((r) => r.code === "remark.leader-misfits")?.params).toEqual({
    entries: [String(dragged.length + 1)],
  });
});

describe("a verdict of another version of the engine", () => {
  const verdict = (suspect: string, share: number, engine: string): Entry => ({
    type: "verdict",
    at: "2026-11-24T10:00:00Z",
    suspect,
    text: "",
    share,
    engine,
    ranking: [],
  });
  const leader = analyse(tugPredictor, dragged, { quick: true }).suspects[0]!;
  const said = (v: Entry) => remarksOf([...dragged, v]).filter((r) => r.code === "remark.older-verdict");
  test("is named where this one would not give it", () => {
    const other = "somewhere else";
    expect(said(verdict(other, 0.99, "0.2.0"))[0]?.params).toEqual({
      number: dragged.length + 1,
      engine: "0.2.0",
      suspect: other,
      share: 0.99,
      now: leader.id,
      nowShare: expect.closeTo(leader.share, 9),
    });
  });
  test("is not where something was learnt after it", () => {
    const later = [...dragged, verdict("somewhere else", 0.99, "0.2.0"), volts("B12:1", 5, ["B9"])];
    expect(remarksOf(later).map((r) => r.code)).not.toContain("remark.older-verdict");
  });
  test("is not where it would, nor where it is of this version", () => {
    expect(said(verdict(leader.id, leader.share, "0.2.0"))).toEqual([]);
    expect(said(verdict("somewhere else", 0.99, ENGINE_VERSION))).toEqual([]);
  });
});

test("a value a thousand times too small is asked about", () => {
  const found = remarksOf([...dragged, volts("A1:17", 0.00085)]);
  expect(found.find((r) => r.code === "remark.prefix-slip")?.params).toMatchObject({
    number: dragged.length + 1,
    way: "more",
  });
});
