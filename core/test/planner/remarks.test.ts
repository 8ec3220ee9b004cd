import { analyse, type Entry } from "../../src/index.js";
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

test("a value a thousand times too small is asked about", () => {
  const found = remarksOf([...dragged, volts("A1:17", 0.00085)]);
  expect(found.find((r) => r.code === "remark.prefix-slip")?.params).toMatchObject({
    number: dragged.length + 1,
    way: "more",
  });
});
