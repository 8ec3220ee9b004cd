import { fold, type Disturbance, type Entry, type State } from "../../src/index.js";

const AT = "2026-11-24T09:00:00Z";
const read = (state: Partial<State>): Entry => ({
  type: "reading",
  at: AT,
  instrument: "voltmeter",
  points: ["B7:1"],
  values: [5],
  state: { key: "on", unplugged: [], ...state },
});
const now = (...entries: Entry[]) => fold(entries).state;
const putRight = (thing: string, how: Disturbance): Entry => ({
  type: "restored",
  at: AT,
  thing,
  how,
});

test("what was fitted for a reading stays fitted until it is taken out", () => {
  expect(now(read({ breakers: ["F5"] }))).toEqual({ key: "on", unplugged: [], breakers: ["F5"] });
  const jumper = { from: "B7:1", to: "B7:3", ohm: 0.01 };
  expect(now(read({ jumpers: [jumper] }))).toEqual({ key: "on", unplugged: [], jumpers: [jumper] });
  expect(now(read({ breakers: [] }))).toEqual({ key: "on", unplugged: [] });
});

test("each way of being other than found is put right by itself", () => {
  const both = read({ unplugged: ["B7"], pulled: ["F5"] });
  expect(now(both)).toEqual({ key: "on", unplugged: ["B7"], pulled: ["F5"] });
  expect(now(both, putRight("B7", "unplugged")).unplugged).toEqual([]);
  expect(now(both, putRight("B7", "unplugged")).pulled).toEqual(["F5"]);
  expect(now(both, putRight("F5", "pulled")).unplugged).toEqual(["B7"]);
  expect(now(both, putRight("F5", "pulled")).pulled ?? []).toEqual([]);
});
