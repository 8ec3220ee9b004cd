import { weigh } from "../../src/diagnosis/weigh.js";
import {
  assess,
  DEFAULTS,
  fold,
  generateHarness,
  minimalDiagnoses,
  minimalHittingSets,
  play,
  Predictor,
  type Entry,
} from "../../src/index.js";
import { clueLikelihood } from "../../src/diagnosis/clues.js";
import { gather } from "../../src/diagnosis/evidence.js";
import { readingsAt } from "../../src/logbook/seen.js";
import { code, random, tug } from "../helpers.js";

const sorted = (sets: readonly (readonly (string | number)[])[]) => sets.map((s) => [...s].sort().join(" ")).sort();

describe("minimal hitting sets", () => {
  test("Reiter's example (A theory of diagnosis from first principles, 1987; values from memory)", () => {
    const sets = [
      [2, 4, 5],
      [1, 2, 3],
      [1, 3, 5],
      [2, 4, 6],
      [2, 4],
      [2, 3, 5],
      [1, 6],
    ];
    expect(sorted(minimalHittingSets(sets))).toEqual(
      sorted([
        [1, 2],
        [1, 3, 4],
        [1, 4, 5],
        [2, 3, 6],
        [2, 5, 6],
        [3, 4, 6],
      ]),
    );
  });
  test("against brute force on random sets", () => {
    const r = random(5);
    for (let run = 0; run < 60; run++) {
      const n = 3 + Math.floor(r() * 5);
      const sets = Array.from({ length: 1 + Math.floor(r() * 6) }, () =>
        Array.from({ length: n }, (_, i) => i).filter(() => r() < 0.45),
      ).filter((s) => s.length);
      const hits = Array.from({ length: 1 << n }, (_, m) =>
        Array.from({ length: n }, (_x, i) => i).filter((i) => m & (1 << i)),
      ).filter((h) => sets.every((s) => s.some((x) => h.includes(x))));
      const minimal = hits.filter((h) => !hits.some((o) => o.length < h.length && o.every((x) => h.includes(x))));
      expect(sorted(minimalHittingSets(sets))).toEqual(sorted(minimal));
    }
  });
  test("an empty set can be hit by nothing", () => expect(minimalHittingSets([[1], []])).toEqual([]));
});

test(
  "three multipliers and two adders (de Kleer & Williams, Diagnosing multiple faults, 1987; values from " +
    "memory): conflicts and minimal diagnoses",
  () => {
    // A 3, B 2, C 2, D 3, E 3; M1 = A·C, M2 = B·D, M3 = C·E, F = M1 + M2 read 10, G = M2 + M3 read 12
    const all = ["M1", "M2", "M3", "A1", "A2"];
    // values known from healthy parts, each with the parts it rests on: a contradiction is a conflict
    const conflict = (broken: ReadonlySet<string>): string[] | undefined => {
      const ok = (p: string) => !broken.has(p);
      const x = ok("M1") ? 6 : undefined;
      const y = ok("M2") ? 6 : undefined;
      const z = ok("M3") ? 6 : undefined;
      if (ok("A1") && x !== undefined && y !== undefined && x + y !== 10) return ["A1", "M1", "M2"];
      const yFromF = ok("A1") && x !== undefined ? 10 - x : undefined;
      const yFromG = ok("A2") && z !== undefined ? 12 - z : undefined;
      if (y !== undefined && yFromG !== undefined && y !== yFromG) return ["A2", "M2", "M3"];
      if (yFromF !== undefined && yFromG !== undefined && yFromF !== yFromG) return ["A1", "A2", "M1", "M3"];
      return undefined;
    };
    const { diagnoses, conflicts } = minimalDiagnoses<string>(conflict, all.length);
    expect(sorted(diagnoses)).toEqual(sorted([["A1"], ["M1"], ["A2", "M2"], ["M2", "M3"]]));
    expect(sorted(conflicts)).toEqual(
      sorted([
        ["A1", "M1", "M2"],
        ["A1", "A2", "M1", "M3"],
      ]),
    );
  },
);

describe("the posterior against enumeration", () => {
  const doc = tug();
  const predictor = new Predictor(doc);
  const AT = "2026-11-24T10:00:00Z";
  test("codes and a look: every hypothesis summed by hand, equal to 1e-9", () => {
    const look: Entry = { type: "look", at: AT, thing: "X5", found: ["nothing"] };
    const entries = [code("P0237"), code("P0522"), code("P0642", "absent"), look];
    const { evidence } = gather(predictor, entries);
    const got = weigh(predictor, evidence, { only: "lasting" });
    const { miss, falseAlarm, between, lasting } = DEFAULTS.codes;
    const n = predictor.monitors.length;
    const rates = [DEFAULTS.prior.nothingWrong, ...predictor.faults.map((f) => f.prior)].map(
      (r) => r ** DEFAULTS.priorTrust,
    );
    const codes = evidence.filter((e) => e.kind === "code");
    const mass = rates.map((rate, h) => {
      const { faults, severities } = predictor.hypotheses[h]!;
      const bits = predictor.codesSet(
        h,
        codes.map((c) => c.monitor),
      );
      const bit = (k: number, d: number, m: number) => bits[(k * predictor.draws + d) * n + m]!;
      const mean = (k: number, m: number) => {
        let s = 0;
        for (let d = 0; d < predictor.draws; d++) s += bit(k, d, m);
        return s / predictor.draws;
      };
      let sum = 0;
      severities.forEach((_, k) => {
        for (let d = 0; d < predictor.draws; d++) {
          let p = 1;
          for (const c of codes) {
            const near = [k - 1, k + 1].map((q) =>
              q >= 0 && q < severities.length ? mean(q, c.monitor) : mean(k, c.monitor),
            );
            const set = Math.fround(
              between.ownDraw * bit(k, d, c.monitor) +
                between.ofDraws * mean(k, c.monitor) +
                between.ofNeighbours * ((near[0]! + near[1]!) / 2),
            );
            const q = set * (1 - miss) + (1 - set) * falseAlarm;
            p *= (c.present ? q * lasting.active : 1 - q) ** c.weight;
          }
          sum += p;
        }
      });
      return rate * (sum / (severities.length * predictor.draws)) * clueLikelihood(look, faults, false);
    });
    const notHere =
      DEFAULTS.prior.notInThisWiring ** DEFAULTS.priorTrust *
      codes.reduce((p, c) => p * (c.present ? 0.4 : 0.6) ** c.weight, 1) *
      clueLikelihood(look, [], false);
    const total = mass.reduce((a, b) => a + b, notHere);
    mass.forEach((m, h) => expect(Math.abs(got.share[h]! - m / total)).toBeLessThan(1e-9));
    expect(Math.abs(got.notHere - notHere / total)).toBeLessThan(1e-9);
  });
  test("two opens in circuits that share nothing: a pair explains what no single fault does, and leads", () => {
    const at = (point: string, value: number): Entry => ({
      type: "reading",
      at: AT,
      instrument: "voltmeter",
      points: [point],
      values: [value],
      state: { key: "on", unplugged: [] },
    });
    // both signals open between sensor and in-line connector: good at the sensors, dead and pulled up at the module
    const belief = assess(predictor, [
      code("P0237"),
      code("P0118"),
      at("B7:3", 1.2),
      at("A1:8", 0),
      at("A1:12", 5),
      at("B4:1", 5),
      at("B7:1", 5),
      at("A1:10", 1.4),
    ]);
    expect(belief.alarmed).toBe(true);
    const pairs = belief.posterior.components
      .filter((w) => predictor.hypotheses[w.hypothesis]!.faults.length > 1)
      .reduce((sum, w) => sum + w.share, 0);
    expect(pairs).toBeGreaterThan(0.5);
  });
  test("a narrow weighing says what the exact one says, wherever there is anything to say", () => {
    const entries = [
      code("P0237"),
      code("P0522"),
      code("P1A41"),
      {
        type: "reading" as const,
        at: AT,
        instrument: "voltmeter" as const,
        points: ["B7:1"],
        values: [5],
        state: { key: "on" as const, unplugged: [] },
      },
    ];
    const { evidence } = gather(predictor, entries);
    const exact = weigh(predictor, evidence);
    const narrow = weigh(predictor, evidence, { breadth: "narrow" });
    const wide = weigh(predictor, evidence, { breadth: "wide" });
    exact.share.forEach((s, h) => {
      expect(Math.abs(narrow.share[h]! - s)).toBeLessThan(0.01);
      expect(Math.abs(wide.share[h]! - s)).toBeLessThan(0.01);
    });
    expect(narrow.wantedByCodes.size).toBeLessThan(exact.wantedByCodes.size / 3);
  });
});

test(
  "no hypothesis that the exact weighing gives a share worth having is left out of the narrow one, on a " +
    "made-up machine",
  () => {
    const machine = generateHarness({ nodes: 100, seed: 5 });
    const p = new Predictor(machine);
    const at = "2026-11-24T10:00:00Z";
    const modules = [...new Set(machine.codes.map((c) => c.module))];
    // every code by itself, as a scan of all modules would give it: some faults set it in a few draws only
    const left: string[] = [];
    for (const c of machine.codes.slice(0, 8)) {
      const { evidence } = gather(p, [
        {
          type: "scan",
          at,
          when: "afterDrive",
          modules,
          codes: [{ module: c.module, code: c.id, status: "active" }],
          disturbed: [],
          wiped: false,
        },
      ]);
      const exact = weigh(p, evidence);
      const narrow = weigh(p, evidence, { breadth: "narrow" });
      exact.share.forEach((s, h) => {
        if (s > 0.008 && narrow.share[h]! < s / 3) left.push(`${c.id} ${p.faults[h - 1]?.id ?? "nothing"} ${s}`);
      });
    }
    expect(left).toEqual([]);
  },
);

test("what moves with a connector: readings at it and with it unplugged, not the scan tool's at the module", () => {
  const at = "2026-11-24T10:00:00Z";
  const reading = (instrument: "voltmeter" | "scanTool", point: string, unplugged: string[] = []): Entry => ({
    type: "reading",
    at,
    instrument,
    points: [point],
    values: [1],
    state: { key: "on", unplugged },
  });
  const folded = fold([
    reading("voltmeter", "B9:1"),
    reading("voltmeter", "B7:1"),
    reading("voltmeter", "A1:17", ["B9"]),
    reading("scanTool", "A1:9", ["B9"]),
    reading("scanTool", "A1:9"),
  ]);
  expect(readingsAt(folded, "B9")).toEqual([1, 3, 4]);
  expect(readingsAt(folded, "A1")).toEqual([3]);
});

test("codes worked out roughly are mostly those worked out in full", () => {
  const p = new Predictor(tug());
  const all = p.monitors.map((_, i) => i);
  let same = 0;
  let count = 0;
  p.hypotheses.forEach((_, h) => {
    const fine = p.codesSet(h, all);
    const rough = p.roughCodesSet(h, all);
    fine.forEach((bit, i) => {
      count++;
      if (bit === rough[i]) same++;
    });
  });
  expect(same / count).toBeGreaterThan(0.985);
});

test(
  "two faults that two terminals changed over would explain as well (once a wrong single cause): both are " + "found",
  () => {
    const predictor = new Predictor(tug());
    const fault = (id: string) => predictor.faults.find((f) => f.id === id)!;
    const ended = play(
      predictor,
      [
        { fault: fault("B4/elementOpen"), severity: NaN },
        { fault: fault("B9/shortSignalGround"), severity: 2 },
      ],
      { school: "information", seed: 702, repairs: true, slips: 0.01, missed: 0.05 },
    );
    expect([ended.ending, ended.verdict?.right, ended.overbold]).toEqual(["isolated", true, false]);
  },
  240_000,
);
