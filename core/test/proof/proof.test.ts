import {
  analyse,
  beforeAfter,
  codesGone,
  fold,
  Predictor,
  readCase,
  STORED_UNITS,
  type Analysis,
  type Entry,
  type ScanEntry,
} from "../../src/index.js";
import { curedText, frozenProof, Instructor, Namer, proofStepText, stillWrong } from "../../words/index.js";
import { tug } from "../helpers.js";

const w = tug();
const predictor = new Predictor(w);
const at = "2026-11-24T09:00:00Z";
const later = "2026-11-24T11:00:00Z";
const scan = (when: ScanEntry["when"], ...codes: string[]): Entry => ({
  type: "scan",
  at,
  when,
  modules: ["A1"],
  codes: codes.map((code) => ({ module: "A1", code, status: "active" })),
  disturbed: [],
  wiped: false,
});
const volts = (point: string, value: number): Entry => ({
  type: "reading",
  at,
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged: [] },
});
/** Three signals low: the sensor ground reads high at the sensors and is sound at the module (the demo's splice). */
const found: Entry[] = [scan("before", "P0237", "P0522", "P1A41"), volts("B7:2", 2.4), volts("A1:31", 0.02)];
const repaired: Entry = { type: "repaired", at: later, things: ["S22"], how: "repaired", joined: "crimped" };
const cleared: Entry = { type: "cleared", at: later };
const weighed = new Map<string, Analysis>();
const after = (...entries: Entry[]): Analysis => {
  const all = [...found, ...entries];
  const key = JSON.stringify(all);
  let a = weighed.get(key);
  if (!a) weighed.set(key, (a = analyse(predictor, all, { quick: true })));
  return a;
};
const cured = (...entries: Entry[]) => after(...entries).proof!.outcome.cured;

describe("a repair makes another machine", () => {
  test("a clean scan and good values after it speak for the cure, and no more for doubt of the cause", () => {
    const finished = cured(repaired);
    const read = cured(repaired, volts("B7:2", 0.03));
    const all = cured(repaired, cleared, volts("B7:2", 0.03), scan("afterDrive"));
    expect(read).toBeGreaterThan(finished);
    expect(all).toBeGreaterThan(read);
    expect(all).toBeGreaterThan(0.9);
    const { stage, suspects } = after(repaired, cleared, volts("B7:2", 0.03), scan("afterDrive"));
    expect([stage, suspects[0]!.type]).toEqual(["proving", "nothing"]);
  });

  test("the same reading as before says that the work did not take, and the search goes on", () => {
    const a = after(repaired, volts("B7:2", 2.4));
    expect(a.proof!.outcome.cured).toBeLessThan(0.1);
    expect(a.stage).not.toBe("proving");
    expect(a.suspects[0]!.type).toBe("fault");
  });

  test("work at another place cures next to nothing", () => {
    const elsewhere: Entry = { type: "repaired", at: later, things: ["B4"], how: "replaced" };
    const { cured: c, anotherLeft } = after(elsewhere).proof!.outcome;
    expect(c).toBeLessThan(0.1);
    expect(anotherLeft).toBeGreaterThan(0.85);
  });

  test("a code that comes back at once is no code of before the repair", () => {
    const a = after(repaired, cleared, scan("afterClear", "P0237", "P0522"));
    expect(a.proof!.outcome.cured).toBeLessThan(0.2);
    expect(a.proof!.steps.find((s) => s.id === "scan afterClear")).toMatchObject({
      status: "failed",
      again: ["P0237", "P0522"],
    });
  });

  test("a copy is trusted less than a new part, and one that was measured more", () => {
    const part = (condition: "new" | "copy", measured?: boolean): Entry => ({
      type: "repaired",
      at: later,
      things: ["S22"],
      how: "replaced",
      part: { condition, with: [], ...(measured ? { measured } : {}) },
    });
    const fresh = cured(part("new"));
    expect(cured(part("copy"))).toBeLessThan(fresh - 0.05);
    expect(cured(part("new", true))).toBeGreaterThan(fresh);
  });

  test("what is stored but was not cleared since proves nothing, and is said", () => {
    const stored = scan("other") as ScanEntry;
    const old: Entry = { ...stored, codes: [{ module: "A1", code: "P0237", status: "stored" }] };
    const a = after(repaired, old);
    expect(a.remarks.map((r) => r.code)).toContain("remark.codes-not-cleared");
    expect(a.proof!.outcome.cured).toBeGreaterThan(0.7);
    expect(fold([...found, repaired, old]).stale.map((s) => s.entry.code)).toEqual(["P0237"]);
  });

  test("a repair taken back is none, whenever that is said", () => {
    const undo: Entry = { type: "undo", at: later, target: found.length + 1 };
    const a = after(repaired, volts("B7:2", 0.03), undo);
    expect(a.proof).toBeUndefined();
    // without the repair the good value is of the machine as it was found
    expect(a.folded.since).toBe(0);
  });

  test("a reading from before, taken back after the repair, is no evidence of the machine as it was found", () => {
    const undo: Entry = { type: "undo", at: later, target: 2 };
    const without = analyse(predictor, [found[0]!, found[2]!, repaired], { quick: true }).proof!.outcome;
    expect(after(repaired, undo).proof!.outcome.cured).toBeCloseTo(without.cured, 6);
  });

  test("what came back is looked for again, first where it was repaired", () => {
    const back: Entry = { type: "followedUp", at: later, result: "cameBack" };
    const a = after(repaired, cleared, scan("afterDrive"), back, scan("other", "P0237", "P0522", "P1A41"));
    expect(a.proof).toBeUndefined();
    expect(a.suspects[0]!.id).toBe("S22");
  });
});

test("before and after stand on the two sides of a repair; what was read twice before it is no proof", () => {
  const twice = [...found, volts("B7:2", 2.41)];
  expect(beforeAfter([...twice, repaired], twice.length + 1)).toEqual([]);
  expect(beforeAfter([...twice, repaired, volts("B7:2", 0.03)], twice.length + 1)).toMatchObject([
    { before: { number: 4, value: 2.41 }, after: { number: 6, value: 0.03 } },
  ]);
});

describe("the plan of the proof", () => {
  const { steps } = after(repaired).proof!;
  test("clears, reads again where it was wrong, moves the joint, and runs each monitor; in this order", () => {
    expect(steps.map((s) => s.action.kind)).toEqual(["clear", "reading", "wiggle", "scan"]);
    expect(steps[1]!.action).toMatchObject({ point: "B7:2", before: 2.4 });
  });
  test("each step says what proves it and what does not, with numbers and units", () => {
    const words = steps.map((s) => proofStepText(s, new Namer(w), new Instructor(w)));
    expect(words[1]!.title).toMatch(/^Measure the sensor ground at B7 cavity 2 again/);
    expect(words[1]!.proves).toMatch(/^-?\d[\d.]* V to \d[\d.]* V\.$/);
    expect(words[1]!.disproves).toContain("2.40 V as before");
    expect(words[3]!.proves).toBe("None of P0237, P0522, P1A41 is set.");
  });
  test("what was seen is ticked off with its entry; a drive does for a scan at key on", () => {
    const done = after(repaired, cleared, volts("B7:2", 0.03), scan("afterDrive")).proof!.steps;
    expect(done.map((s) => [s.action.kind, s.status, s.number])).toEqual([
      ["clear", "passed", 5],
      ["reading", "passed", 6],
      ["wiggle", "open", undefined],
      ["scan", "passed", 7],
    ]);
  });
  test("a scan after clearing says that codes were cleared; codes may be told one by one, too", () => {
    const scanned = after(repaired, scan("afterClear")).proof!.steps;
    expect(scanned.filter((s) => s.action.kind === "clear" || s.action.kind === "scan").map((s) => s.status)).toEqual([
      "passed",
      "passed",
    ]);
    const told = (status: "absent" | "active"): Entry[] =>
      ["P0237", "P0522", "P1A41"].map((code) => ({ type: "code", at: later, module: "A1", code, status }));
    const step = (...entries: Entry[]) =>
      after(repaired, ...entries).proof?.steps.find((s) => s.action.kind === "scan");
    expect(step(...told("absent"))).toMatchObject({ status: "passed", number: 7 });
    expect(step(...told("absent").slice(1))?.status).toBe("open");
    expect(step(told("active")[0]!)).toMatchObject({ status: "failed", again: ["P0237"] });
  });
  test("a drive, a teach-in and work given out are asked for where the documents say so", () => {
    const asked = {
      ...w,
      codes: w.codes.map((c) => (c.id === "P0237" ? { ...c, trip: { km: 20, coldSoakHours: 8 } } : c)),
      resets: [{ id: "idle", what: "Teach the idle position", on: ["B7"], after: "anyRepair" as const }],
    };
    const out: Entry = { ...repaired, things: ["B7"], givenOut: { asked: "new pigtail", checked: false } } as Entry;
    const proof = analyse(new Predictor(asked), [...found, out], { quick: true }).proof!;
    expect(proof.steps.map((s) => s.id)).toEqual(expect.arrayContaining(["check 4", "reset idle", "scan afterDrive"]));
    const drive = proof.steps.find((s) => s.id === "scan afterDrive")!;
    expect(proofStepText(drive, new Namer(asked), new Instructor(asked)).title).toBe(
      "Let it stand 8 h, then drive 20 km, then scan A1",
    );
    expect(proofStepText(drive, new Namer(asked), new Instructor(asked)).caution).toContain("licensed");
    // 20 km are 12.4 miles (1 mi = 1.609344 km, definition of 1959); what is kept stays in the units of storage
    const miles = { ...STORED_UNITS, distance: "mi" as const };
    const words = [new Namer(asked, miles), new Instructor(asked, miles)] as const;
    expect(proofStepText(drive, ...words).title).toBe("Let it stand 8 h, then drive 12 mi, then scan A1");
    expect(frozenProof(proof, ...words).steps.map((s) => s.title)).toContain(
      "Let it stand 8 h, then drive 20 km, then scan A1",
    );
  });
});

test("codes that a scan since the repair no longer gives are gone; stored ones that nobody cleared are not", () => {
  const gone = (...more: Entry[]) => codesGone(fold([...found, repaired, ...more])).map((c) => c.code);
  expect(gone()).toEqual([]);
  expect(gone(scan("afterClear", "P0522"))).toEqual(["P0237", "P1A41"]);
  const old = scan("other", "P0237") as ScanEntry;
  expect(gone({ ...old, codes: old.codes.map((c) => ({ ...c, status: "stored" as const })) })).toEqual([
    "P0522",
    "P1A41",
  ]);
});

test("how sure it is, in words", () => {
  const outcome = { cured: 0.95, notWell: 0.03, anotherLeft: 0.018, wentAway: 0.002 };
  expect(curedText(outcome)).toBe("Very likely cured");
  expect(stillWrong(outcome)).toEqual([
    "the right place was repaired, but not well, or the new part is bad (3 %)",
    "another fault is left (2 %)",
  ]);
  expect(curedText({ cured: 0.1, notWell: 0.8, anotherLeft: 0.1, wentAway: 0 })).toMatch(/did not take/);
});

describe("entries that cannot be", () => {
  const job = (entry: object) =>
    readCase({ format: "radicula/case", version: 1, title: "t", wiring: w, entries: [entry] });
  const refusedWith = (entry: object) => {
    const read = job(entry);
    return read.ok ? "taken" : read.issues.map((i) => i.code).join();
  };
  test.each([
    [{ ...repaired, things: ["S99"] }, "entry.missing-thing"],
    [{ ...repaired, things: [] }, "schema"],
    [{ ...repaired, how: "prayed" }, "schema"],
    [{ ...repaired, minutes: -1 }, "schema"],
    [{ ...repaired, temporary: "soon" }, "schema"],
    [{ type: "closed", at, proof: { outcome: { cured: 1.2 }, steps: [] } }, "schema"],
    [{ type: "followedUp", at, result: "fine" }, "schema"],
  ])("%j is refused", (entry, why) => {
    expect(refusedWith(entry)).toContain(why);
  });
  test("two things in one repair are taken; one dated before the job is remarked on", () => {
    expect(refusedWith({ ...repaired, things: ["S22", "B7:2"] })).toBe("taken");
    const early = analyse(predictor, [...found, { ...repaired, at: "2026-11-23T09:00:00Z" } as Entry], { quick: true });
    expect(early.remarks.map((r) => r.code)).toContain("remark.repair-before-job");
  });
});

test("a repair before anything was seen proves nothing, and claims nothing", () => {
  const a = analyse(predictor, [repaired], { quick: true });
  expect([a.stage, a.proof]).toEqual(["waiting", undefined]);
});
