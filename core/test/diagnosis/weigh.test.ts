import { voltsAt } from "../bench.js";
import { tugWiring, tugPredictor, fourCodes } from "../warm.js";
import { weigh } from "../../src/diagnosis/weigh.js";
import fc from "fast-check";
import { gather } from "../../src/diagnosis/evidence.js";
import { likelihood, LN_OHM_RANGE, sigmaVolt, spreads, voltRange } from "../../src/diagnosis/likelihood.js";
import { analyse, DEFAULTS, fold, undoneEntries, type Entry } from "../../src/index.js";
import { candidates } from "../../src/planner/candidates.js";
import { edgesOf } from "../../src/planner/jointDistribution.js";
import { Draws } from "../../src/prediction/draws.js";
import { code } from "../helpers.js";

const AT = "2026-11-24T10:00:00Z";

describe("likelihood of one reading", () => {
  const range = voltRange(12);
  test("is a density: it integrates to about one over the meter's range", () => {
    for (const predicted of [0, 0.8, 5, 12.4]) {
      let sum = 0;
      for (let v = -4; v < range; v += 0.002) sum += likelihood("voltmeter", v, predicted, 0.1, range) * 0.002;
      expect(sum).toBeGreaterThan(0.98);
      expect(sum).toBeLessThan(1.03);
    }
  });
  test("is highest at the prediction and never falls below the slip floor", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 14, noNaN: true }),
        fc.double({ min: 0, max: 13, noNaN: true }),
        (got, predicted) => {
          const l = likelihood("voltmeter", got, predicted, 0, range);
          expect(l).toBeLessThanOrEqual(likelihood("voltmeter", predicted, predicted, 0, range));
          expect(l).toBeGreaterThanOrEqual(0.003 / range);
        },
      ),
      { seed: 1 },
    );
  });
  test("is a normal density mixed with 0.3 % slips anywhere in the range: one σ off, and far off", () => {
    const sigma = Math.hypot(0.03, 0.012 * 5);
    const normal = (z: number) => Math.exp(-0.5 * z * z) / (sigma * Math.sqrt(2 * Math.PI));
    expect(likelihood("voltmeter", 5 + sigma, 5, 0, range)).toBeCloseTo(0.997 * normal(1) + 0.003 / range, 12);
    expect(likelihood("voltmeter", 5 - 2 * sigma, 5, 0, range)).toBeCloseTo(0.997 * normal(2) + 0.003 / range, 12);
    expect(likelihood("voltmeter", 12, 5, 0, range)).toBeCloseTo(0.003 / range, 12);
  });
  test("σ is 30 mV and 1.2 %, and what is spread besides", () => {
    expect(sigmaVolt(0, 0)).toBeCloseTo(0.03, 12);
    expect(sigmaVolt(10, 0)).toBeCloseTo(Math.hypot(0.03, 0.12), 12);
    expect(sigmaVolt(0, 0.4)).toBeCloseTo(Math.hypot(0.03, 0.4), 12);
  });
  test(
    "ohms: OL agrees with OL, contradicts a closed circuit, and a prediction that proves nothing weighs " + "nothing",
    () => {
      expect(likelihood("ohmmeter", Infinity, Infinity, 0, range)).toBe(1);
      expect(likelihood("ohmmeter", Infinity, 100, 0, range)).toBeLessThan(0.001);
      expect(likelihood("ohmmeter", 100, Infinity, 0, range)).toBeLessThan(0.001);
      expect(likelihood("ohmmeter", 100, NaN, 0, range)).toBe(likelihood("ohmmeter", 5e5, NaN, 0, range));
      expect(likelihood("ohmmeter", 40, 40, 0, range)).toBeGreaterThan(20 * (1 / LN_OHM_RANGE));
      // through parts one in fifty is what no model foresees
      expect(likelihood("ohmmeter", 3_000, 300, 0, range)).toBeGreaterThan(0.01 / LN_OHM_RANGE);
    },
  );
  test("widths come from the draws and from the neighbouring severities", () => {
    const by = (list: readonly number[]) => ({ at: (s: number) => list[s]! });
    const two = [1, 1, 3, 3]; // two severities of two draws
    const all = new Uint8Array(4).fill(1);
    expect(spreads(by(two), all, 2, "voltmeter")[0]).toBeCloseTo(0.5, 6); // half of half the gap
    // 0.6 of one deviation
    const even = [1, 1.5, 2, 2.5, 3, 3.5];
    expect(spreads(by(even), new Uint8Array(6).fill(1), 6, "voltmeter")[0]).toBeCloseTo(0.6 * 0.853913, 5);
    // draws of two kinds of devices: each kind has its own width, or 2.5 V would look likely
    const kinds = [0, 0.1, 0.2, 0.3, 4.7, 4.8, 4.9, 5];
    expect(spreads(by(kinds), new Uint8Array(8).fill(1), 8, "voltmeter")[0]).toBeCloseTo(0.6 * 0.1118034, 5);
    // of fewer draws of a kind its own width is not known: three hundredths of what lies between the kinds
    const few = [0, 0.1, 0.2, 4.8, 4.9, 5];
    expect(spreads(by(few), new Uint8Array(6).fill(1), 6, "voltmeter")[0]).toBeCloseTo(0.6 * 0.15, 5);
    // the neighbour was never predicted
    expect(spreads(by(two), Uint8Array.from([1, 1, 0, 0]), 2, "voltmeter")[0]).toBe(0);
  });
});

describe("joint draws", () => {
  test(
    "draw 0 is nominal, each parameter visits every stratum once (Latin hypercube), the same in every key " + "state",
    () => {
      const draws = new Draws(tugWiring, 8, 3);
      const ampere = (key: "on" | "running", d: number) =>
        draws.circuit({ key, unplugged: [] }, d).elements.find((e) => e.id === "load B9")!.limitAmpere;
      expect(ampere("on", 0)).toBeCloseTo(0.008, 9);
      const drawn = Array.from({ length: 7 }, (_, d) => ampere("on", d + 1));
      // typed: ±5 %; beside the nominal draw seven strata of amperes, each seen once, from end to end of the range
      const strata = drawn.map((a) => Math.floor(((a / 0.008 - 0.95) / 0.1) * 7));
      expect(new Set(strata).size).toBe(7);
      for (let d = 1; d < 8; d++) expect(ampere("running", d)).toBe(ampere("on", d));
    },
  );
});

describe("posterior", () => {
  const post = (entries: Entry[]) => weigh(tugPredictor, gather(tugPredictor, entries).evidence);
  test("without evidence it is the prior", () => {
    const { share, notHere } = post([]);
    const rate = tugPredictor.faults.map((f) => f.prior);
    const i = rate.indexOf(Math.max(...rate));
    const j = rate.indexOf(Math.min(...rate));
    expect(share[i + 1]! / share[j + 1]!).toBeCloseTo((rate[i]! / rate[j]!) ** DEFAULTS.priorTrust, 6);
    expect(share.reduce((a, b) => a + b, notHere)).toBeCloseTo(1, 9);
  });
  test("the order of readings does not matter", () => {
    const a = voltsAt("B7:1", 0.8);
    const b = voltsAt("B4:1", 1.9);
    const c = voltsAt("B7:2", 0.02);
    const one = post([...fourCodes, a, b, c]).share;
    const other = post([...fourCodes, c, a, b]).share;
    one.forEach((s, h) => expect(s).toBeCloseTo(other[h]!, 9));
  });
  test("a reading everyone expects moves little; one that only some expect moves much", () => {
    const before = post(fourCodes).share;
    const bland = post([...fourCodes, voltsAt("B20:1", 5)]).share;
    const telling = post([...fourCodes, voltsAt("B7:1", 5.0, ["B9"])]).share;
    const moved = (x: Float64Array) => x.reduce((sum, s, h) => sum + Math.abs(s - before[h]!), 0) / 2;
    expect(moved(bland)).toBeLessThan(0.03);
    expect(moved(telling)).toBeGreaterThan(0.5);
  });
  test("stored fourCodes weigh less than active ones, intermittent less still", () => {
    const b7 = tugPredictor.faults.findIndex((f) => f.id === "B7/shortSupplyGround") + 1;
    const share = (status: string) => post(["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c, status))).share[b7]!;
    expect(share("active")).toBeGreaterThan(share("stored"));
    expect(share("stored")).toBeGreaterThan(share("intermittent"));
  });
  test("a code that stayed away argues against what would have set it", () => {
    const dead = tugPredictor.faults.findIndex((f) => f.id === "A1:17/referenceDead") + 1;
    const two = ["P0237", "P0522"].map((c) => code(c));
    expect(post([...two, code("P0642", "absent")]).share[dead]!).toBeLessThan(0.01);
    expect(post([...two, code("P0642")]).share[dead]!).toBeGreaterThan(0.01);
  });
});

describe("information", () => {
  test("bin edges rise, and put 0 V in the middle of a bin", () => {
    for (const nominal of [12, 24]) {
      const edges = edgesOf("voltmeter", nominal);
      for (let i = 1; i < edges.length; i++) expect(edges[i]!).toBeGreaterThan(edges[i - 1]!);
      const above = edges.findIndex((e) => e > 0);
      expect((edges[above]! + edges[above - 1]!) / 2).toBeCloseTo(0, 9);
      expect(edges.at(-1)!).toBeGreaterThan(nominal * 1.2);
    }
  });
  test(
    "no test promises more than is open (information bound); behind the first choice they stand by " +
      "information per minute",
    () => {
      const a = analyse(tugPredictor, fourCodes);
      const entropy = a.suspects.reduce((h, s) => (s.share > 0 ? h - s.share * Math.log2(s.share) : h), 0);
      for (const n of a.next) {
        expect(n.bits).toBeGreaterThan(0);
        expect(n.bits).toBeLessThanOrEqual(entropy + 0.05);
      }
      const rates = a.next.slice(1).map((n) => n.bits / n.candidate.minutes);
      for (let i = 1; i < rates.length; i++) expect(rates[i]!).toBeLessThanOrEqual(rates[i - 1]! + 1e-12);
    },
  );
  test(
    "what each answer would mean is what comes true: log the middle of an answer, and its first suspect " + "leads",
    () => {
      const a = analyse(tugPredictor, fourCodes);
      const { candidate, answers } = a.next[0]!;
      if (candidate.instrument === "none") throw new Error("the first choice is a reading here");
      const decided = answers[0]!.find((x) => x.suspects[0]!.share > 0.85)!;
      const after = analyse(tugPredictor, [
        ...fourCodes,
        {
          type: "reading",
          at: AT,
          instrument: candidate.instrument,
          points: [...candidate.points],
          values: [decided.value],
          state: candidate.state,
        },
      ]);
      expect(after.suspects[0]!.id).toBe(a.suspects[decided.suspects[0]!.suspect]!.id);
      expect(after.suspects[0]!.share).toBeGreaterThan(0.8);
    },
  );
});

describe("candidates and their cost", () => {
  const all = (entries: Entry[]) => candidates(tugPredictor, fold(entries), new Set());
  test("names are unique, and nothing is measured that cannot be reached", () => {
    const list = all(fourCodes);
    expect(new Set(list.map((c) => c.id)).size).toBe(list.length);
    for (const c of list)
      if (c.instrument !== "none")
        for (const p of c.points) expect(tugPredictor.placeOf(c.instrument, p)).toBeDefined();
    expect(list.map((c) => c.kind)).toEqual(
      expect.arrayContaining([
        "voltage",
        "voltageUnplugged",
        "watch",
        "fuse",
        "ohms",
        "ohmsWatch",
        "scan",
        "scanWatch",
      ]),
    );
  });
  test("being there already saves the way; changing the state costs", () => {
    const cost = (entries: Entry[], id: string) => all(entries).find((c) => c.id === id)!.minutes;
    expect(cost([...fourCodes, voltsAt("B7:2", 0)], "voltage B7:1")).toBeLessThan(cost(fourCodes, "voltage B7:1"));
    expect(cost([...fourCodes, voltsAt("B7:2", 0, ["B7"])], "voltage B9:1")).toBeGreaterThan(
      cost([...fourCodes, voltsAt("B7:2", 0)], "voltage B9:1"),
    );
    expect(all([...fourCodes, voltsAt("B7:2", 0, ["B7"])]).find((c) => c.id === "voltage B9:1")!.plug).toEqual(["B7"]);
  });
});

describe("the fold of a logbook", () => {
  test("undo, undo of undo, and so on: as a simple model has it (fast-check)", () => {
    fc.assert(
      fc.property(fc.array(fc.nat(12), { maxLength: 14 }), (targets) => {
        const entries: Entry[] = [];
        for (const t of targets)
          entries.push(
            entries.length === 0 || t === 0
              ? { type: "unplugged", at: AT, connector: "B7" }
              : { type: "undo", at: AT, target: 1 + (t % entries.length) },
          );
        const stands = (i: number): boolean =>
          !entries.some((e, j) => j > i && e.type === "undo" && e.target === i + 1 && stands(j));
        const undone = undoneEntries(entries);
        entries.forEach((_, i) => expect(undone.has(i + 1)).toBe(!stands(i)));
      }),
      { numRuns: 300, seed: 5 },
    );
  });
  test("what is unplugged now is what must be plugged back", () => {
    const e: Entry[] = [
      { type: "unplugged", at: AT, connector: "B7" },
      { type: "unplugged", at: AT, connector: "B9" },
      { type: "plugged", at: AT, connector: "B7" },
    ];
    expect(fold(e).state.unplugged).toEqual(["B9"]);
    // a reading says what was unplugged when it was taken
    expect(fold([...e, voltsAt("B7:1", 5, ["B12"])]).state.unplugged).toEqual(["B12"]);
    expect(fold([]).state).toEqual({ key: "on", unplugged: [] });
  });
  test("the last word on a code counts, and the last verdict", () => {
    const f = fold([
      code("P0237"),
      code("P0237", "absent"),
      { type: "verdict", at: AT, suspect: "B7", text: "x", share: 0.9, engine: "0", ranking: [] },
    ]);
    expect(f.codes.map((c) => c.entry.status)).toEqual(["absent"]);
    expect(f.verdict?.number).toBe(3);
  });
});
