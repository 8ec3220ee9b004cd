import { weigh } from "../../src/diagnosis/weigh.js";
import {
  analyse,
  assess,
  checkEntries,
  drawnPartNumber,
  findFault,
  Intake,
  judgePartNumber,
  Predictor,
  Rig,
  SimulatedMachine,
  yesLikelihood,
  type Entry,
  type Wiring,
} from "../../src/index.js";
import { clueLikelihood, isAt } from "../../src/diagnosis/clues.js";
import { likelihood, readingRange, voltRange } from "../../src/diagnosis/likelihood.js";
import { lookAlikes, misplacement } from "../../src/diagnosis/misplaced.js";
import { gather } from "../../src/diagnosis/evidence.js";
import { familiesOf } from "../../src/prediction/unknowns.js";
import { code, tug } from "../helpers.js";

const AT = "2026-11-24T10:00:00Z";
const doc = tug();
const predictor = new Predictor(doc);
const fault = (id: string) => findFault(predictor.faults, id)!.fault;
const on = (unplugged: string[] = []) => ({ key: "on" as const, unplugged });
const reading = (
  instrument: "voltmeter" | "scanTool" | "ohmmeter" | "clamp" | "lamp" | "continuity",
  point: string,
  value: number | "OL" | "bright" | "dark" | "beep",
  state: object = on(),
): Entry => ({
  type: "reading",
  at: AT,
  instrument,
  points: [point],
  values: [value],
  state: { key: "on", unplugged: [], ...state },
});
const shareOf = (entries: readonly Entry[], place: string) => {
  const p = weigh(predictor, gather(predictor, entries).evidence);
  return predictor.faults.reduce((sum, f, i) => sum + (isAt(f, place) ? p.share[i + 1]! : 0), 0);
};

describe("clues", () => {
  test("a look that finds nothing speaks against what would be seen, and little against what would not", () => {
    const look: Entry = { type: "look", at: AT, thing: "B7", found: ["nothing"] };
    const ratio = (id: string) => clueLikelihood(look, [fault(id)], false) / clueLikelihood(look, [], false);
    expect(ratio("B7:1/contactHighResistance")).toBeLessThan(0.6);
    expect(ratio("B7/dead")).toBeGreaterThan(0.8);
    expect(ratio("B9/dead")).toBe(1); // elsewhere
  });
  test("a sign counts for the faults it is a sign of", () => {
    const green: Entry = { type: "look", at: AT, thing: "X5", found: ["green"] };
    expect(clueLikelihood(green, [fault("X5:4/contactHighResistance")], false)).toBeGreaterThan(
      5 * clueLikelihood(green, [fault("X5:3+4/cavitiesSwapped")], false),
    );
    const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
    expect(shareOf([...codes, green], "X5")).toBeGreaterThan(2 * shareOf(codes, "X5"));
  });
  test("moving a place only tells of what comes and goes there", () => {
    const moved = (reacted: boolean): Entry => ({ type: "wiggle", at: AT, thing: "X5", reacted });
    const here = [fault("X5:4/contactOpen")];
    expect(clueLikelihood(moved(true) as never, here, true)).toBeGreaterThan(
      20 * clueLikelihood(moved(true) as never, here, false),
    );
    expect(
      clueLikelihood(moved(true) as never, here, true) + clueLikelihood(moved(false) as never, here, true),
    ).toBeCloseTo(1, 12);
  });
  test("what went with the part is the part; what stayed is not", () => {
    const swap = (result: "moved" | "stayed"): Entry => ({ type: "swap", at: AT, parts: ["B7", "B9"], result });
    const codes = [code("P0237")];
    expect(shareOf([...codes, swap("moved")], "B7")).toBeGreaterThan(shareOf(codes, "B7"));
    const device = (entries: Entry[]) => {
      const p = weigh(predictor, gather(predictor, entries).evidence);
      return p.share[predictor.faults.indexOf(fault("B7/dead")) + 1]!;
    };
    expect(device([...codes, swap("stayed")])).toBeLessThan(0.2 * device(codes));
  });
  test(
    "a part number: the wiring's own speaks against a wrong part, any other for it; answered or typed is the " + "same",
    () => {
      const numbered: Wiring = {
        ...doc,
        connectors: doc.connectors.map((c) =>
          c.id === "B7" ? { ...c, partNumber: "SD-417", alsoNumbers: ["SD-402", "SD-417-B"] } : c,
        ),
      };
      const p = new Predictor(numbered);
      const i = p.faults.findIndex((f) => f.id === "B7/wrongPart") + 1;
      const share = (partNumber: string) =>
        weigh(
          p,
          gather(p, [code("P0237"), { type: "seen", at: AT, connector: "B7", colours: [], partNumber }]).evidence,
        ).share[i]!;
      const before = weigh(p, gather(p, [code("P0237")]).evidence).share[i]!;
      expect(drawnPartNumber(numbered, "B7")).toBe("SD-417");
      expect(share("sd 417")).toBeLessThan(before); // as people type it
      expect(share("?")).toBeGreaterThan(5 * before);
      // superseded, and superseding: as good as the drawn one
      for (const number of ["sd402", "SD 417 b"]) expect(share(number)).toBeCloseTo(share("SD-417"), 12);
      expect([
        judgePartNumber(numbered, "B7", "sd-417"),
        judgePartNumber(numbered, "B7", "SD402"),
        judgePartNumber(numbered, "B7", "SD-4022"),
        judgePartNumber(numbered, "Z9", "SD-417"),
      ]).toEqual(["drawn", "asGood", "another", undefined]);
    },
  );
  test("the chance of a yes and of a no make one", () => {
    for (const kind of ["wiggle", "swap", "partNumber", "identity"] as const) {
      const c = { kind, points: ["B7", "B9"] };
      expect(yesLikelihood(c, [fault("B7/dead")], false)).toBeGreaterThan(0);
      expect(yesLikelihood(c, [fault("B7/dead")], false)).toBeLessThan(1);
    }
  });
});

describe("instruments beyond volts and ohms", () => {
  test("lamp and beeper are probabilities of few words: they sum to one over the words", () => {
    for (const [instrument, words, predicted] of [
      ["lamp", [1, 0.5, 0], [0, 3, 8.5, 12.4]],
      ["continuity", [1, 0], [0.1, 25, 400, Infinity]],
    ] as const)
      for (const v of predicted) {
        const sum = words.reduce<number>((s, w) => s + likelihood(instrument, w, v, 0, voltRange(12)), 0);
        expect(sum).toBeGreaterThan(0.98);
        expect(sum).toBeLessThan(1.02);
      }
    expect(likelihood("lamp", 1, 12.4, 0, voltRange(12))).toBeGreaterThan(0.9);
    // 30 ohm threshold: common practice, no source
    expect(likelihood("continuity", 1, 0.2, 0, voltRange(12))).toBeGreaterThan(0.95);
    expect(likelihood("continuity", 1, Infinity, 0, voltRange(12))).toBeLessThan(0.02);
    expect(readingRange("lamp", 12)).toBe(3);
  });
  test("a clamp's reading is judged in amperes", () => {
    expect(likelihood("clamp", 5.0, 5.0, 0, 21)).toBeGreaterThan(100 * likelihood("clamp", 4.0, 5.0, 0, 21));
  });
  test("the scan tool sees the module's own side: an open wire shows there and not at the sensor", () => {
    const wire = predictor.faults.find((f) => f.id === "W31/open")!;
    const rig = new Rig(doc, [{ fault: wire, severity: NaN }]);
    const pin = "A1:8";
    const h = predictor.faults.indexOf(wire) + 1;
    const shown = predictor.predictAt(h, { instrument: "scanTool", point: pin, state: on() }).at(0);
    const m = new SimulatedMachine(doc, [{ fault: wire, severity: NaN }], 3);
    expect(shown).toBeLessThan(0.2);
    expect(m.read(pin, on(), "scanTool")).toBeLessThan(0.2);
    expect(m.read("B7:3", on(), "voltmeter")).toBeGreaterThan(0.3);
    expect(rig.wiring).toBe(doc);
    expect(shareOf([code("P0237"), reading("scanTool", pin, 0), reading("voltmeter", "B7:3", 1.4)], "B7")).toBeLessThan(
      0.2,
    );
  });
  test("what an instrument cannot show is refused, and where it cannot be", () => {
    const codesOf = (e: Entry) => checkEntries(doc, [e]).map((i) => i.code);
    expect(codesOf(reading("lamp", "B7:1", 5))).toEqual(["entry.not-this-instrument"]);
    expect(codesOf(reading("voltmeter", "B7:1", "bright"))).toEqual(["entry.not-this-instrument"]);
    expect(codesOf(reading("continuity", "B7:1", "beep", { key: "off" }))).toEqual([]);
    expect(codesOf(reading("clamp", "W31", 0.2))).toEqual([]);
    expect(codesOf(reading("clamp", "B7:1", 0.2))).toEqual(["entry.missing-thing"]);
    expect(codesOf({ type: "look", at: AT, thing: "B77", found: ["wet"] })).toEqual(["entry.missing-thing"]);
    expect(codesOf({ type: "look", at: AT, thing: "W31", found: ["rubbed"] })).toEqual([]);
    expect(codesOf({ type: "identity", at: AT, connector: "B77", right: true })).toEqual(["entry.missing-connector"]);
    expect(codesOf({ type: "swap", at: AT, parts: ["B7", "B99"], result: "moved" })).toEqual(["entry.missing-thing"]);
    expect(codesOf({ type: "holds", at: AT, fuse: "F99", held: true, state: { key: "on", unplugged: [] } })).toEqual([
      "entry.missing-thing",
    ]);
  });
});

describe("readings at the wrong connector", () => {
  test("declared look-alikes and parts of the same shape; a module's pins stay where they are", () => {
    expect(
      lookAlikes(doc, "B7")
        .filter((l) => l.declared)
        .map((l) => l.to)
        .sort(),
    ).toEqual(["B12", "B9"]);
    const m = misplacement("B7", "B9", true);
    expect(m.moved({ instrument: "voltmeter", point: "B7:1", black: undefined, state: on(["B7"]) })).toMatchObject({
      point: "B9:1",
      state: { unplugged: ["B9"] },
    });
    expect(m.moved({ instrument: "scanTool", point: "A1:8", black: undefined, state: on(["B7"]) })).toMatchObject({
      point: "A1:8",
      state: { unplugged: ["B9"] },
    });
    expect(m.moved({ instrument: "voltmeter", point: "B12:1", black: undefined, state: on() })).toMatchObject({
      point: "B12:1",
    });
  });
  test(
    "unplugged, and yet its own value stays: said to be another one; a check that it is the right one takes " +
      "that back",
    () => {
      // the sensor named unplugged, its signal still alive in the scan tool: something else was unplugged
      const entries: Entry[] = [
        code("P0237"),
        reading("scanTool", "A1:8", 1.9),
        reading("scanTool", "A1:8", 1.9, on(["B7"])),
        reading("scanTool", "A1:9", 0, on(["B7"])),
      ];
      const wrong = analyse(predictor, entries)
        .misplaced.filter((m) => m.from === "B7")
        .reduce((sum, m) => sum + m.share, 0);
      const checked = analyse(predictor, [...entries, { type: "identity", at: AT, connector: "B7", right: true }])
        .misplaced.filter((m) => m.from === "B7")
        .reduce((sum, m) => sum + m.share, 0);
      expect(wrong).toBeGreaterThan(0.1);
      // the check misses one of ten: `DEFAULTS.clues.identityTold`
      const against = (share: number) => (1 - share) / share;
      expect(against(checked)).toBeGreaterThan(5 * against(wrong));
    },
  );
});

describe("what is not known is one and the same unknown", () => {
  test("every pin of one signal is one family, another signal another, all feeds one", () => {
    const { of, order } = familiesOf(predictor);
    const v = (point: string, instrument: "voltmeter" | "scanTool" = "voltmeter") =>
      of({ instrument, point, black: undefined });
    expect(v("B7:3")).toBe(v("X5:1.a"));
    expect(v("B7:3")).toBe(v("A1:8", "scanTool"));
    expect(v("B7:3")).not.toBe(v("B9:3"));
    expect(v("F12:in")).toBe(v("BAT:+"));
    const draws = order(v("B7:3"))!;
    const rest = predictor.restOf("B7")!;
    for (let i = 1; i < draws.length; i++) expect(rest[draws[i]!]!).toBeGreaterThan(rest[draws[i - 1]!]!);
  });
  test("the same signal read at five pins tells no more of a healthy sensor than read at one", () => {
    const codes = [code("P0522")];
    const many = ["B7:3", "X5:1.a", "X5:1.b", "A1:8"].map((p) => reading("voltmeter", p, 0.62));
    const one = weigh(predictor, gather(predictor, [...codes, many[0]!]).evidence);
    const all = weigh(predictor, gather(predictor, [...codes, ...many]).evidence);
    const b9 = (p: typeof one) =>
      predictor.faults.reduce((sum, f, i) => sum + (f.place.id === "B9" ? p.share[i + 1]! : 0), 0);
    expect(Math.abs(b9(all) - b9(one))).toBeLessThan(0.1);
  });
});

describe("one value read again and again", () => {
  const counted = (entries: Entry[]) =>
    gather(predictor, entries).evidence.flatMap((e) => (e.kind === "reading" ? [e.value] : []));
  test("counts twice, however often it is read", () => {
    const five = [4.98, 4.99, 4.98, 5, 4.98].map((v) => reading("voltmeter", "B7:1", v));
    expect(counted(five)).toEqual([4.98, 4.98]);
    expect(counted([...five, reading("voltmeter", "B9:1", 4.98)])).toEqual([4.98, 4.98, 4.98]);
  });
  test("counts every time where it moved, or where the machine was in another state", () => {
    expect(counted([5, 5, 0.2, 5].map((v) => reading("voltmeter", "B7:1", v)))).toHaveLength(4);
    expect(counted([[], ["B9"], ["B8"]].map((u) => reading("voltmeter", "B7:1", 5, on(u))))).toHaveLength(3);
  });
  test("a lamp that was bright and then dark has shown two things", () => {
    const lamp = (shown: "bright" | "dark") => reading("lamp", "F12:out", shown);
    expect(counted([lamp("bright"), lamp("bright"), lamp("bright")])).toEqual([1, 1]);
    expect(counted([lamp("bright"), lamp("bright"), lamp("dark")])).toEqual([1, 1, 0]);
  });
});

describe("what comes and goes", () => {
  test("healthy readings speak against a lasting open contact, and leave one that comes and goes", () => {
    const entries: Entry[] = [
      { ...code("P0237"), status: "stored" } as Entry,
      reading("voltmeter", "B7:1", 5),
      reading("voltmeter", "B7:2", 0.01),
      reading("scanTool", "A1:8", 1.3),
    ];
    const worlds = assess(predictor, entries).posterior.components.filter(
      (w) => predictor.hypotheses[w.hypothesis]!.faults[0]?.id === "B7:3/contactOpen",
    );
    const lasting = worlds.filter((w) => w.presence === 1).reduce((s, w) => s + w.share, 0);
    const going = worlds.filter((w) => w.presence < 1).reduce((s, w) => s + w.share, 0);
    expect(going).toBeGreaterThan(20 * lasting);
  });
  test("told by the customer it counts for more", () => {
    const told = gather(predictor, [{ type: "intake", at: AT, intake: Intake.parse({ symptoms: ["comesAndGoes"] }) }]);
    expect([told.comesAndGoes, gather(predictor, []).comesAndGoes]).toEqual([true, false]);
  });
});

test("a factor from the intake multiplies a rate by just what the screen says", () => {
  const factors = new Float64Array(predictor.faults.length).fill(1);
  const i = predictor.faults.indexOf(fault("B9/dead"));
  factors[i] = 0.15;
  const odds = (f?: Float64Array) => {
    const p = weigh(predictor, [], f ? { factors: f } : {});
    return p.share[i + 1]! / p.share[predictor.faults.indexOf(fault("B7/dead")) + 1]!;
  };
  expect(odds(factors) / odds()).toBeCloseTo(0.15, 9);
});
