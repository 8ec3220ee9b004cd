import { readFileSync } from "node:fs";
import { join } from "node:path";
import {
  analyse,
  assess,
  choose,
  courseOf,
  DEFAULTS,
  fold,
  makePlan,
  parseCase,
  Predictor,
  POLICIES,
  severityOffGrid,
  SimulatedMachine,
  type ChartStep,
  type Entry,
  type Wiring,
} from "../src/index.js";
import { ROOT } from "./helpers.js";
import { candidates } from "../src/planner/candidates.js";
import { Cost, positionOf } from "../src/planner/cost.js";
import { ExpectedInformation } from "../src/planner/expectedInformation.js";
import { code, tug, wiring } from "./helpers.js";

const AT = "2026-11-24T10:00:00Z";
const doc = tug();
const predictor = new Predictor(doc);
const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
const volts = (point: string, value: number, unplugged: string[] = []): Entry => ({
  type: "reading",
  at: AT,
  instrument: "voltmeter",
  points: [point],
  values: [value],
  state: { key: "on", unplugged },
});
const planOf = (entries: readonly Entry[]) => {
  const belief = assess(predictor, entries);
  return { belief, plan: makePlan(predictor, belief) };
};

describe("cost", () => {
  const cost = new Cost(doc);
  const at = (entries: Entry[]) => positionOf(fold(entries));
  const step = (place: string, unplugged: string[] = []) => ({
    kind: "voltage" as const,
    at: place,
    state: { key: "on" as const, unplugged },
  });
  test("a cover off is off: going back costs a few steps, staying nothing", () => {
    const far = doc.connectors.find((c) => c.id === "X5")!.reachMinutes;
    const { take, again } = DEFAULTS.plan.minutes;
    expect(cost.minutes(step("X5"), at([]))).toBeCloseTo(far + take.voltage, 9);
    expect(cost.minutes(step("X5"), at([volts("X5:4.a", 5)]))).toBeCloseTo(take.voltage, 9);
    expect(cost.minutes(step("X5"), at([volts("X5:4.a", 5), volts("B7:1", 5)]))).toBeCloseTo(again + take.voltage, 9);
  });
  test("unplugging twice costs once; what is unplugged must go back before the machine is whole", () => {
    const first = cost.minutes(step("B9", ["B9"]), at([]));
    const second = cost.minutes(step("B9", ["B9"]), at([volts("B9:1", 5, ["B9"])]));
    expect(first - second).toBeGreaterThanOrEqual(DEFAULTS.plan.minutes.unplug);
    expect(cost.changes({ key: "on", unplugged: [] }, at([volts("B9:1", 5, ["B9"])]))).toEqual({
      unplug: [],
      plug: ["B9"],
      turnKey: false,
    });
  });
  test("the scan tool needs no walking, eyes need nothing plugged back", () => {
    const list = candidates(predictor, fold([...codes, volts("B9:1", 5, ["B9"])]), new Set(["B7", "B9"]));
    expect(list.find((c) => c.id === "scan A1:8")!.minutes).toBeLessThan(
      list.find((c) => c.id === "voltage A1:8")!.minutes,
    );
    expect(list.find((c) => c.kind === "look" && c.at === "B9")).toMatchObject({
      plug: [],
      unplug: [],
      minutes: DEFAULTS.plan.minutes.take.look,
    });
  });
});

describe("candidates", () => {
  const kinds = (entries: Entry[]) => new Set(candidates(predictor, fold(entries), new Set(["B7"])).map((c) => c.kind));
  test("what is not owned is not offered; what the scan tool does not show is not asked of it", () => {
    const intake = (more: object): Entry => ({
      type: "intake",
      at: AT,
      intake: { symptoms: [], conditions: [], history: [], bulletins: [], safety: [], ...more } as never,
    });
    expect(
      [...kinds([intake({ tools: ["meter"] })])].filter((k) => k === "scan" || k === "scanWatch" || k === "activity"),
    ).toEqual([]);
    const only = candidates(predictor, fold([intake({ scanShows: ["B7"] })]), new Set())
      .filter((c) => c.kind === "scan")
      .map((c) => c.points[0]);
    expect(only).toEqual(["A1:8"]);
  });
  test("twins are swapped only where both are the same part and neither is guarded", () => {
    const twins = (more: object): Wiring =>
      ({
        ...doc,
        devices: doc.devices.map((d) => (d.id === "B7" || d.id === "B9" ? { ...d, partNumber: "SD-1", ...more } : d)),
      }) as Wiring;
    const swaps = (w: Wiring) =>
      candidates(new Predictor(w), fold([]), new Set())
        .filter((c) => c.kind === "swap")
        .map((c) => c.points);
    expect(swaps(twins({}))).toEqual([["B7", "B9"]]);
    expect(swaps(twins({ cautions: ["restraint"] }))).toEqual([]);
    expect(swaps(doc)).toEqual([]);
  });
});

describe("schools", () => {
  const { belief, plan } = planOf(codes);
  const { folded } = belief.gathered;
  test("each has something to do while suspects are to be told apart, and nothing that was done already", () => {
    for (const school of POLICIES) {
      const chosen = choose(predictor, plan, folded, school, { seed: 4 });
      expect([school, chosen !== undefined]).toEqual([school, true]);
      expect(plan.open.map((c) => c.id)).toContain(chosen!.candidate.id);
    }
  });
  test(
    "easiest takes no longer than the informed one; the fixed chart begins with the feed of the first coded " + "part",
    () => {
      const minutes = (school: "easiest" | "information") => choose(predictor, plan, folded, school)!.candidate.minutes;
      expect(minutes("easiest")).toBeLessThanOrEqual(minutes("information") + 1e-9);
      expect(choose(predictor, plan, folded, "chart")!.candidate.points[0]).toBe("B7:1");
    },
  );
  test("a maker's chart is followed step by step, and branches on what was read", () => {
    const chart: ChartStep[] = [
      {
        id: "1",
        instrument: "voltmeter",
        point: "B9:1",
        state: { key: "on", unplugged: [] },
        low: 4.75,
        high: 5.25,
        ifGood: "end",
        ifBad: "3",
      },
      { id: "2", instrument: "voltmeter", point: "B9:2", state: { key: "on", unplugged: [] }, low: 0, high: 0.1 },
      { id: "3", instrument: "voltmeter", point: "A1:17", state: { key: "on", unplugged: [] }, low: 4.75, high: 5.25 },
    ];
    const next = (entries: Entry[]) => {
      const p = planOf(entries);
      return choose(predictor, p.plan, p.belief.gathered.folded, "chart", { chart })?.candidate.points[0];
    };
    expect(next(codes)).toBe("B9:1");
    expect(next([...codes, volts("B9:1", 0.9)])).toBe("A1:17");
    // at its end the best next reading takes over
    const over = planOf([...codes, volts("B9:1", 5.0)]);
    expect(next([...codes, volts("B9:1", 5.0)])).toBe(over.plan.ranked[0]!.candidate.points[0]);
  });
  test(
    "a step that nothing else would offer is asked for all the same; one at a place not in the wiring is " +
      "passed over",
    () => {
      const step = (id: string, point: string): ChartStep => ({
        id,
        instrument: "voltmeter",
        point,
        state: { key: "cranking", unplugged: [] },
        low: 0,
        high: 1,
      });
      const p = planOf(codes);
      const first = (chart: ChartStep[]) =>
        choose(predictor, p.plan, p.belief.gathered.folded, "chart", { chart })!.candidate;
      expect(first([step("1", "G3")])).toMatchObject({
        instrument: "voltmeter",
        points: ["G3"],
        state: { key: "cranking" },
      });
      expect(first([step("1", "Q9:4"), step("2", "B9:2")]).points).toEqual(["B9:2"]);
    },
  );
  test(
    "a chart leads to nothing that must not be touched: neither leads, nor plugs, nor guarded parts that " +
      "have no plug",
    () => {
      const guarded: Wiring = {
        ...doc,
        connectors: doc.connectors.map((c) => (c.id === "B9" ? { ...c, cautions: ["restraint"] } : c)),
        devices: doc.devices.map((d) => (d.id === "F12" ? { ...d, cautions: ["highVoltage"] } : d)),
      };
      const p = new Predictor(guarded);
      const belief = assess(p, codes);
      const plan_ = makePlan(p, belief);
      const step = (id: string, point: string, unplugged: string[] = []): ChartStep => ({
        id,
        instrument: "voltmeter",
        point,
        state: { key: "cranking", unplugged },
        low: 0,
        high: 1,
      });
      const chart = [step("1", "B9:1"), step("2", "F12:out"), step("3", "B7:1", ["B9"]), step("4", "B7:2")];
      expect(choose(p, plan_, belief.gathered.folded, "chart", { chart })!.candidate.points).toEqual(["B7:2"]);
    },
  );
  test("the school of the logbook is the one that is followed", () => {
    const a = analyse(predictor, [...codes, { type: "school", at: AT, school: "easiest" }]);
    expect(a.school).toBe("easiest");
    expect(a.next[0]!.candidate.minutes).toBeLessThanOrEqual(
      Math.min(...a.next.filter((n) => n.bits >= 0.05).map((n) => n.candidate.minutes)) + 1e-9,
    );
    const m = analyse(predictor, codes).minutesByPolicy!;
    expect(m.information).toBeLessThanOrEqual(m.easiest + 1e-9);
    expect(m.information).toBeLessThanOrEqual(m.halve + 1e-9);
  });
});

describe("the plan", () => {
  test("stopped early it still says something: shares that add up, and a first choice", () => {
    const a = analyse(predictor, codes, { stop: () => true, quick: true });
    expect(a.suspects.reduce((s, x) => s + x.share, 0)).toBeGreaterThan(0.9);
    expect(a.next.length).toBeGreaterThan(0);
  });
  test("the answers of one test and the shares after it average to the shares before it", () => {
    const { plan } = planOf(codes);
    const { joints } = plan.ranked[0]!;
    for (const j of joints)
      plan.grouped.suspects.slice(0, 4).forEach((s, g) => {
        let sum = 0;
        for (let b = 0; b < j.bins; b++) sum += j.p[b * j.groups + g]!;
        expect(Math.abs(sum - s.share)).toBeLessThan(0.03);
      });
    expect(ExpectedInformation.bits(joints)).toBeCloseTo(plan.ranked[0]!.bits, 12);
  });
  test("nothing is declared while a present code stays unexplained", () => {
    const a = analyse(predictor, [
      code("P0237"),
      code("P0118"),
      volts("B7:1", 5),
      volts("B7:3", 1.2),
      volts("A1:8", 0),
      volts("B7:2", 0.01),
    ]);
    for (const s of a.suspects.filter((x) => x.type === "fault" && x.share >= 0.95))
      if (s.explains < s.outOf) expect(a.stage).not.toBe("proven");
    expect(a.explanations.every((set) => set.length >= 2)).toBe(true); // no single fault sets both
    expect(a.explanations.length).toBeGreaterThan(0);
  });
  test("once a reading has fixed how bad it is, the same conductor elsewhere tells nothing more", () => {
    const { plan } = planOf([...codes, volts("B7:1", 0.88, ["B7"])]);
    for (const id of ["voltage B7:1", "voltage B9:1", "voltage B12:1"]) {
      expect(plan.open.some((c) => c.id === id)).toBe(true);
      // 0.17 where forecasts stand on the grid's severities
      expect(plan.ranked.find((r) => r.candidate.id === id)?.bits ?? 0).toBeLessThan(0.05);
    }
    expect(plan.ranked[0]!.bits).toBeGreaterThan(0.1);
  });
  test(
    "one reading that does not fit is taken again before a cause is declared; the same again stands against " +
      "it, the fitting one does not",
    () => {
      const told = [
        ...codes,
        volts("B7:1", 0.84, ["B7"]),
        volts("B7:1", 4.97, ["B9"]),
        volts("B9:1", 4.98, ["B9"]),
        volts("B12:1", 0.85),
      ];
      expect(planOf(told).plan).toMatchObject({ stage: "proven" });
      const odd = volts("B9:1", 0.2);
      const asked = planOf([...told, odd]).plan;
      expect(asked).toMatchObject({ stage: "confirming", hangsOn: told.length + 1, again: told.length + 1 });
      expect(asked.ranked.map((r) => r.candidate.id)).toEqual(["voltage B9:1"]); // though it is done already
      expect(choose(predictor, asked, fold([...told, odd]), "easiest")?.candidate.id).toBe("voltage B9:1");
      expect(planOf([...told, odd, volts("B9:1", 0.85)]).plan.stage).toBe("proven"); // it was a slip of the hand
      expect(planOf([...told, odd, volts("B9:1", 0.2)]).plan.stage).not.toBe("proven");
    },
  );
  test(
    "what leads lastingly and by coming and going together is near a verdict: several faults are thought of " +
      "before it is declared",
    () => {
      const read = parseCase(readFileSync(join(ROOT, "demo", "generator-9-three.case.json"), "utf8"));
      if (!read.ok) throw new Error("the demo does not read");
      const p = new Predictor(read.value.wiring);
      const given = read.value.entries.flatMap((e) => (e.type === "scan" ? e.codes : []));
      const scan: Entry = {
        type: "scan",
        at: AT,
        when: "afterDrive",
        modules: ["A1"],
        codes: given,
        disturbed: [],
        wiped: false,
      };
      const belief = assess(p, [scan, volts("X40:5.a", 5.02), volts("X40:1.a", 4.96)]);
      expect(belief.alarmed).toBe(true);
      expect(
        belief.posterior.components.some((x) => p.hypotheses[x.hypothesis]!.faults.length > 1 && x.share > 0.01),
      ).toBe(true);
    },
  );
  test("suspicion over time ends where the analysis stands", () => {
    const entries = [...codes, volts("B7:1", 0.84)];
    const a = analyse(predictor, entries);
    const id = a.suspects[0]!.places[0]!.id;
    const course = courseOf(predictor, entries, [id]);
    expect(course.map((c) => c.number)).toEqual([1, 2, 3, 4, 5]);
    expect(course.at(-1)!.shares[id]!).toBeCloseTo(a.suspicion.get(id)!, 3);
  });
  test("a part is bought when being wrong costs less than the test: a cheap one sooner than a dear one", () => {
    const priced = (price: number): Wiring => ({
      ...doc,
      devices: doc.devices.map((d) => (d.id === "B9" ? { ...d, price } : d)),
    });
    const entries: Entry[] = [...codes, volts("B7:1", 0.84), volts("B7:1", 4.97, ["B9"])];
    const of = (price: number) => analyse(new Predictor(priced(price)), entries).economics;
    const cheap = of(1);
    const dear = of(5_000);
    if (cheap && dear) {
      expect(dear.buyNow).toBeGreaterThan(cheap.buyNow);
      expect(dear.buyNow / dear.testFirst).toBeGreaterThan(cheap.buyNow / cheap.testFirst);
    }
    expect([cheap === undefined, dear === undefined]).toEqual([dear === undefined, cheap === undefined]);
  });
});

describe("the simulated machine", () => {
  const fault = predictor.faults.find((f) => f.id === "B9/shortSupplyGround")!;
  test("severities off the grid lie between its points", () => {
    for (const u of [0, 0.13, 0.5, 0.99]) {
      const s = severityOffGrid(fault, u);
      expect(s).toBeGreaterThanOrEqual(fault.severities[0]!);
      expect(s).toBeLessThanOrEqual(fault.severities.at(-1)!);
    }
    expect(fault.severities).not.toContain(severityOffGrid(fault, 0.37));
  });
  test("slips, missed codes and faults that come and go happen about as often as asked", () => {
    const m = new SimulatedMachine(doc, [{ fault, severity: 5 }], 9, { slips: 0.2, presence: 0.5 });
    const seen = Array.from({ length: 400 }, () => {
      m.look();
      return m.read("B7:1", { key: "on", unplugged: [] }, "voltmeter");
    });
    const low = seen.filter((v) => v < 1.6 && v > 0.4).length;
    const whole = seen.filter((v) => v > 4.7 && v < 5.2).length;
    expect(low).toBeGreaterThan(110);
    expect(whole).toBeGreaterThan(110);
    expect(low + whole).toBeLessThan(390);
    const missed = Array.from(
      { length: 60 },
      (_, i) => new SimulatedMachine(doc, [{ fault, severity: 5 }], i, { missed: 0.25 }).codes().length,
    ).reduce((a, b) => a + b, 0);
    const all = Array.from(
      { length: 60 },
      (_, i) => new SimulatedMachine(doc, [{ fault, severity: 5 }], i).codes().length,
    ).reduce((a, b) => a + b, 0);
    expect(missed / all).toBeGreaterThan(0.6);
    expect(missed / all).toBeLessThan(0.9);
  });
  test("leads in the look-alike read what stands there", () => {
    const at = { key: "on" as const, unplugged: [] };
    const open = predictor.faults.find((f) => f.id === "B7:1/contactOpen")!;
    const honest = new SimulatedMachine(doc, [{ fault: open, severity: NaN }], 2);
    const mistaken = new SimulatedMachine(doc, [{ fault: open, severity: NaN }], 2, {
      mistaken: { from: "B7", to: "B9" },
    });
    expect(Math.abs(mistaken.read("B7:3", at, "voltmeter") - honest.read("B9:3", at, "voltmeter"))).toBeLessThan(0.02);
  });
  test(
    "a fuse that a short melted stays blown with the culprit unplugged, and holds again with a breaker in " +
      "its place",
    () => {
      const w = wiring({
        connectors: [{ id: "Y1", cavities: ["1", "2"] }],
        devices: [
          { kind: "battery", id: "BAT" },
          { kind: "ground", id: "G1" },
          { kind: "fuse", id: "F1", rating: 10 },
          { kind: "solenoid", id: "Y1", pins: { feed: "Y1:1", ground: "Y1:2" } },
        ],
        wires: [
          ["BAT:-", "G1"],
          ["BAT:+", "F1:in"],
          ["F1:out", "Y1:1"],
          ["Y1:2", "G1"],
        ].map(([from, to]) => ({ from, to, mm2: 4 })),
      });
      const p = new Predictor(w);
      const h = p.faults.findIndex((f) => f.id === "Y1/shortInside") + 1;
      const m = new SimulatedMachine(w, [{ fault: p.faults[h - 1]!, severity: 0.05 }], 1);
      const out = (state: object) => m.read("F1:out", { key: "on", unplugged: [], ...state }, "voltmeter");
      expect(m.read("F1:in", { key: "on", unplugged: [] }, "voltmeter")).toBeGreaterThan(11);
      expect(out({})).toBeLessThan(1);
      expect(out({ unplugged: ["Y1"] })).toBeLessThan(1);
      expect(out({ unplugged: ["Y1"], breakers: ["F1"] })).toBeGreaterThan(11);
      expect(out({ breakers: ["F1"] })).toBeLessThan(1); // it trips again
      // and the engine predicts the same
      const predicted = (state: object) =>
        p.predict(h, { key: "on", unplugged: [], ...state }, "voltmeter")[0]![p.placeOf("voltmeter", "F1:out")!]!;
      expect(predicted({ unplugged: ["Y1"] })).toBeLessThan(1);
      expect(predicted({ unplugged: ["Y1"], breakers: ["F1"] })).toBeGreaterThan(11);
    },
  );
});
