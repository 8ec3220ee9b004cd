import {
  analyse,
  assess,
  feedsModule,
  fold,
  parseCase,
  Predictor,
  readEntries,
  tellApart,
  undoneEntries,
  type Entry,
  type ReadingEntry,
} from "../../src/index.js";
import { issueText } from "../../words/index.js";
import { demoText, tug } from "../helpers.js";

const AT = "2026-11-24T09:00:00Z";
const later = (minutes: number) => new Date(Date.parse(AT) + minutes * 60_000).toISOString();
const w = tug();
const predictor = new Predictor(w);
const codes = (() => {
  const c = parseCase(demoText("tug-4-reference.case.json"));
  if (!c.ok) throw new Error("demo");
  return c.value.entries;
})();
const reading = (
  point: string,
  value: ReadingEntry["values"][number],
  more: Partial<ReadingEntry> = {},
): ReadingEntry => ({
  type: "reading",
  at: AT,
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged: [] },
  ...more,
});
const gathered = (...more: Entry[]) =>
  assess(predictor, [...codes, ...more], { multiple: "never", only: "lasting" }).gathered;
const remarks = (...more: Entry[]) => gathered(...more).remarks;
const says = (code: string, ...more: Entry[]) => remarks(...more).find((r) => r.code === code);
const weighed = (...more: Entry[]) => gathered(...more).evidence.filter((e) => e.kind === "reading");

// what a colleague would say: facts of the trade, common practice, no source
describe("remarks on how a reading was taken", () => {
  test("AC mode and ohms with power on prove nothing: kept, and counted for nothing", () => {
    for (const [code, r] of [
      ["remark.ac-mode", reading("B7:1", 0.02, { mode: "ac" })],
      ["remark.ohms-with-power", reading("B7:2", 3.2, { instrument: "ohmmeter" })],
      ["remark.ohms-with-power", reading("B7:2", "beep", { instrument: "continuity" })],
    ] as const) {
      expect(says(code, r)).toBeDefined();
      expect(weighed(r)).toEqual([]);
      expect(fold([...codes, r]).readings).toHaveLength(1);
    }
  });
  test("a sagging battery takes a supply with it", () => {
    expect(says("remark.battery-sagging", reading("F12:out", 9.6, { battery: 9.8 }))).toBeDefined();
    expect(weighed(reading("F12:out", 9.6, { battery: 9.8 }))).toEqual([]);
    expect(weighed(reading("F12:out", 12.3, { battery: 12.4 }))).toHaveLength(1);
  });
  test("close enough to 5 V is not close enough", () => {
    expect(says("remark.not-close-enough", reading("B7:1", 4.6))?.params).toMatchObject({ low: 4.75, high: 5.25 });
    for (const v of [4.97, 0.9, 12.2]) expect(says("remark.not-close-enough", reading("B7:1", v))).toBeUndefined();
    expect(says("remark.not-close-enough", reading("B7:3", 4.6))).toBeUndefined(); // a signal may stand anywhere
  });
  test("a feed that reads low after a pause: the machine may have gone to sleep", () => {
    expect(
      says("remark.may-sleep", reading("F12:out", 12.3), reading("F12:out", 0.2, { at: later(20) }))?.params["minutes"],
    ).toBe(20);
    expect(
      says("remark.may-sleep", reading("F12:out", 12.3), reading("F12:out", 0.2, { at: later(2) })),
    ).toBeUndefined();
  });
  test("a beep only rules out an open; a lamp does not belong on a reference", () => {
    expect(
      says(
        "remark.beeper-rules-out-open",
        reading("B7:2", "beep", { instrument: "continuity", state: { key: "off", unplugged: ["B7"] } }),
      ),
    ).toBeDefined();
    const lamp = reading("B7:1", "dark", {
      instrument: "lamp",
      state: { key: "on", unplugged: [], loads: [{ from: "B7:1", to: "chassis", watt: 5 }] },
    });
    expect(remarks(lamp).map((r) => r.code)).toEqual(
      expect.arrayContaining(["lamp.on-electronics", "lamp.too-hungry"]),
    );
    expect(weighed(lamp)).toEqual([]);
  });
  test("a value a thousand times off that would fit is asked about", () => {
    const slip = analyse(predictor, [...codes, reading("F12:out", 0.0124), reading("F12:in", 12.4)]).remarks.find(
      (r) => r.code === "remark.prefix-slip",
    );
    expect(slip?.params).toMatchObject({ instead: "12.4 V", way: "more" });
    expect(issueText(slip!)).toContain("12.4 V rather than 0.01 V");
    expect(
      analyse(predictor, [...codes, reading("F12:out", 12.4)]).remarks.some((r) => r.code === "remark.prefix-slip"),
    ).toBe(false);
  });
  test("the meter itself: not proven, leads, changed over, no ground", () => {
    const two: Entry[] = [reading("F12:in", 12.4), reading("F12:out", 12.4)];
    const check = (more: object): Entry => ({ type: "meterCheck", at: AT, ...more });
    expect(says("remark.meter-not-proven", ...two)).toBeDefined();
    expect(says("remark.meter-not-proven", check({ leads: 0.3, battery: 12.5, ground: 0.02 }), ...two)).toBeUndefined();
    expect(says("remark.meter-leads", check({ leads: "OL" }))).toBeDefined();
    expect(says("remark.meter-leads", check({ leads: 0.4 }))).toBeUndefined();
    expect(says("remark.meter-reversed", check({ battery: -12.4 }))).toBeDefined();
    expect(says("remark.meter-ground", check({ ground: 0.7 }))).toBeDefined();
  });
  test("a value that flickers is both its ends, and something comes and goes", () => {
    const flickering = reading("B7:1", 4.55, { swing: [4.1, 5.0] });
    expect(weighed(flickering).map((e) => (e.kind === "reading" ? e.value : 0))).toEqual([4.1, 5]);
    expect(gathered(flickering).comesAndGoes).toBe(true);
    expect(gathered(reading("B7:1", 4.95, { swing: [4.9, 5.0] })).comesAndGoes).toBe(false);
  });
  test("a new part says nothing of the machine, the removed one does", () => {
    const bench = (part: "new" | "removed") =>
      reading("B4:1", "OL", { instrument: "ohmmeter", black: "B4:2", part, state: { key: "off", unplugged: ["B4"] } });
    expect(weighed(bench("new"))).toEqual([]);
    expect(weighed(bench("removed"))).toMatchObject([{ point: "B4:1#", black: "B4:2#" }]);
  });
});

describe("what is not as it was found", () => {
  const open = (...entries: Entry[]) => fold(entries).open.map((d) => `${d.how} ${d.thing}`);
  test("keeps itself from the steps done, and empties as they are put right", () => {
    const one: Entry[] = [
      { type: "unplugged", at: AT, connector: "B9" },
      reading("B7:1", 4.9, {
        how: "pierced",
        state: { key: "on", unplugged: ["B9"], jumpers: [{ from: "B9:1", to: "B9:3", ohm: 1000 }], breakers: ["F12"] },
      }),
    ];
    expect(open(...one)).toEqual(["unplugged B9", "breaker F12", "jumpered B9:1 B9:3", "pierced B7:1"]);
    // the next reading says anew what is fitted; what was pierced stays pierced
    expect(open(...one, { type: "plugged", at: AT, connector: "B9" }, reading("B7:1", 4.9))).toEqual(["pierced B7:1"]);
    expect(
      open(...one, reading("B7:1", 4.9), { type: "restored", at: AT, thing: "B7:1", how: "pierced", note: "sealed" }),
    ).toEqual([]);
    expect(open({ type: "disturbed", at: AT, thing: "B12", how: "removed" }, reading("B7:1", 5))).toEqual([
      "removed B12",
    ]);
    expect(
      open({ type: "disturbed", at: AT, thing: "B12", how: "removed" }, { type: "undo", at: AT, target: 1 }),
    ).toEqual([]);
  });
  test("a job closes when nothing is left otherwise, and opens with whatever is logged afterwards", () => {
    const closed: Entry = { type: "closed", at: AT };
    const out: Entry = { type: "unplugged", at: AT, connector: "B9" };
    const back: Entry = { type: "plugged", at: AT, connector: "B9" };
    expect(fold([out, closed]).closed).toBeUndefined();
    expect(fold([out, back, closed]).closed).toBe(3);
    expect(
      fold([
        out,
        { type: "restored", at: AT, thing: "B9", how: "unplugged", note: "left out until the part comes" },
        closed,
      ]).closed,
    ).toBe(3);
    expect(fold([out, back, closed, reading("B7:1", 5)]).closed).toBeUndefined();
    expect(fold([out, back, closed, { type: "undo", at: AT, target: 3 }]).closed).toBeUndefined();
    // it never went back in
    expect(fold([out, back, closed, { type: "undo", at: AT, target: 2 }]).closed).toBeUndefined();
  });
  test("jumpers taken off by hand are off in the state too", () => {
    const f = fold([
      reading("B7:1", 5, {
        state: { key: "on", unplugged: [], jumpers: [{ from: "B9:1", to: "B9:3", ohm: 1000 }], pulled: ["F12"] },
      }),
      { type: "restored", at: AT, thing: "B9:1 B9:3", how: "jumpered" },
      { type: "restored", at: AT, thing: "F12", how: "pulled" },
    ]);
    expect(f.state).toEqual({ key: "on", unplugged: [] });
    expect(f.open).toEqual([]);
  });
  test("codes we set on purpose are no evidence, and excuse nothing", () => {
    const f = fold([{ type: "code", at: AT, module: "A1", code: "P0237", status: "active", ours: true }]);
    expect(f.codes).toEqual([]);
    expect(f.scanned.size).toBe(0);
  });
});

describe("corrections", () => {
  test("take the first reading's place, and give it back when they are themselves taken back", () => {
    const wrong = reading("B7:1", 49);
    const right = reading("B7:1", 4.9, { corrects: 1, note: "misread" });
    const values = (list: Entry[]) => fold(list).readings.map((r) => r.entry.values[0]);
    expect(values([wrong, right])).toEqual([4.9]);
    expect(values([wrong, right, { type: "undo", at: AT, target: 2 }])).toEqual([49]);
    expect([...undoneEntries([wrong, right])]).toEqual([1]);
  });
  test("bad ones are refused with their place, nothing is half taken", () => {
    const refused = (e: unknown) => {
      const r = readEntries(w, [e], 0);
      return r.ok ? "taken" : r.issues[0]!.code;
    };
    expect(refused(reading("B7:1", 5, { corrects: 1 }))).toBe("entry.undo-of-nothing");
    expect(refused(reading("B7:1", 5, { swing: [5, 4] }))).toBe("wiring.range-reversed");
    expect(refused({ type: "disturbed", at: AT, thing: "NOWHERE", how: "removed" })).toBe("entry.missing-thing");
    expect(refused({ type: "disturbed", at: AT, thing: "B9", how: "eaten" })).not.toBe("taken");
    expect(refused({ type: "run", at: AT, run: "fuseRun", on: "NOWHERE", event: "begun" })).toBe("entry.missing-thing");
    expect(refused({ type: "run", at: AT, run: "dance", on: "F12", event: "begun" })).not.toBe("taken");
    expect(refused({ type: "meterCheck", at: AT, leads: -3 })).not.toBe("taken");
    expect(refused(reading("B7:1", 5, { battery: 900 }))).not.toBe("taken");
  });
});

test("two cavities that look like ground are both only perhaps: a pulled-down signal does too", () => {
  const told = tellApart(
    [
      { cavity: "1", toNegative: 5.01 },
      { cavity: "2", toNegative: 0.02, toPositive: 12.45 },
      { cavity: "3", toNegative: 0.01, toPositive: 12.41 },
    ],
    12.48,
  );
  expect(told.map((t) => [t.function, t.sure])).toEqual([
    ["reference", true],
    ["ground", false],
    ["ground", false],
  ]);
  expect(tellApart([{ cavity: "2", toNegative: 0.02, toPositive: 12.45 }], 12.48)).toMatchObject([
    { function: "ground", sure: true },
  ]);
});

test("no such tool: nothing of that kind is offered again; out of reach: only that one is not", () => {
  const first = analyse(predictor, codes);
  const one = first.next[0]!.candidate;
  const after = (reason: "noTool" | "cannotReach") =>
    analyse(predictor, [...codes, { type: "setAside", at: AT, candidate: one.id, reason }]).next.map(
      (n) => n.candidate,
    );
  expect(after("noTool").some((c) => c.kind === one.kind)).toBe(false);
  expect(after("cannotReach").some((c) => c.id === one.id)).toBe(false);
});

test("a jumper from a feed into a line of a plugged-in module is told apart from one that is harmless", () => {
  const pin = "A1:17";
  const state = (unplugged: string[]) => ({ unplugged });
  expect(feedsModule(w, { from: "BAT:+", to: "B7:1" }, state(["B7"]))).toBe(pin);
  expect(feedsModule(w, { from: "B7:1", to: "BAT:+" }, state([]))).toBe(pin);
  expect(feedsModule(w, { from: "BAT:+", to: "B7:1" }, state(["A1", "B7"]))).toBeUndefined();
  expect(feedsModule(w, { from: "B7:1", to: "B7:3" }, state(["B7"]))).toBeUndefined();
});
