import {
  analyse,
  checkEntries,
  circumstances,
  generateFaults,
  Intake,
  Predictor,
  type Entry,
} from "../../src/index.js";
import { code, tug } from "../helpers.js";

const at = "2026-11-25T08:00:00Z";

describe("intake", () => {
  const w = tug();
  const faults = generateFaults(w);
  const intake = (more: unknown) => circumstances(w, faults, Intake.parse(more));
  const factor = (c: ReturnType<typeof intake>, id: RegExp) =>
    faults.flatMap((f, i) => (id.test(f.id) ? [c.factors[i]!] : []));
  test("nothing told, nothing changed", () => {
    expect([...intake({}).factors].every((f) => f === 1)).toBe(true);
    expect(intake({}).feeds).toEqual([]);
  });
  test("a part already replaced in vain counts less, a copy of it more; other parts are left alone", () => {
    const c = intake({ history: [{ what: "replaced", at: ["B7"], helped: "no", brand: "copy" }] });
    expect(Math.max(...factor(c, /^B7\/(dead|shortSupplyGround)/))).toBeLessThan(1);
    expect(Math.min(...factor(c, /^B7\/wrongPart/))).toBeGreaterThan(1);
    expect(new Set(factor(c, /^B9\//))).toEqual(new Set([1]));
    expect(c.feeds.map((f) => [f.because, f.at, f.on])).toEqual([
      ["replaced", ["B7"], "partItself"],
      ["replacedCopy", ["B7"], "wrongPart"],
    ]);
    for (const f of c.feeds) expect(f.faults).toBeGreaterThan(0);
    // a copy that did not help clears the part less than one of the maker's
    const maker = intake({ history: [{ what: "replaced", at: ["B7"], helped: "no", brand: "maker" }] });
    expect(factor(maker, /^B7\/dead/)[0]!).toBeLessThan(0.5 * factor(c, /^B7\/dead/)[0]!);
  });
  test("wet raises corrosion where it is wet more than elsewhere", () => {
    const c = intake({ conditions: ["wet"] });
    expect(factor(c, /^G3\/groundHighResistance/)[0]!).toBeGreaterThan(factor(c, /^B7:1\/contactHighResistance/)[0]!);
  });
  test.each(["cold", "hot", "wet", "bump", "underLoad", "cranking"])(
    "condition %s feeds something and says what",
    (x) => {
      expect(intake({ conditions: [x] }).feeds.length).toBeGreaterThan(0);
    },
  );
  test.each(["comesAndGoes", "deadDisplay", "noStart", "slowStart", "fuseBlows", "wrongValue"])(
    "symptom %s feeds something",
    (x) => {
      expect(intake({ symptoms: [x] }).feeds.length).toBeGreaterThan(0);
    },
  );
  test.each([
    ["workNearby", ["X5"]],
    ["batteryWork", []],
    ["pests", []],
    ["water", ["S22"]],
    ["oil", ["B9"]],
    ["accident", []],
  ])("history: %s", (what, where) => {
    expect(intake({ history: [{ what, at: where }] }).feeds.length).toBeGreaterThan(0);
  });
  test("it reaches the ranking, and the ranking says so", () => {
    const predictor = new Predictor(w);
    const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
    const share = (entries: Entry[]) => {
      const a = analyse(predictor, entries);
      return {
        s: a.suspects.filter((s) => s.members.some((m) => m.fault.place.id === "B9")).reduce((x, y) => x + y.share, 0),
        feeds: a.feeds,
      };
    };
    const before = share(codes);
    const after = share([
      ...codes,
      {
        type: "intake",
        at,
        intake: Intake.parse({ history: [{ what: "replaced", at: ["B9"], helped: "no", brand: "maker" }] }),
      },
    ]);
    expect(after.s).toBeLessThan(before.s);
    expect(after.feeds[0]).toMatchObject({ because: "replaced", at: ["B9"] });
  });
  test("no meter: no reading that needs one is offered", () => {
    const predictor = new Predictor(w);
    const tools = Intake.parse({ tools: ["scanTool"] });
    const kinds = analyse(predictor, [code("P0237"), { type: "intake", at, intake: tools }]).next.map(
      (n) => n.candidate.instrument,
    );
    for (const k of kinds) expect(["none", "scanTool"]).toContain(k);
  });
  test("parts that are not there are refused", () => {
    expect(
      checkEntries(w, [
        { type: "intake", at, intake: Intake.parse({ history: [{ what: "replaced", at: ["B77"] }] }) },
      ]).map((i) => i.code),
    ).toEqual(["entry.missing-thing"]);
  });
});
