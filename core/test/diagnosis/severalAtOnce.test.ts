import { analyse, assess, makePlan, SimulatedMachine, type Entry } from "../../src/index.js";
import { gather } from "../../src/diagnosis/evidence.js";
import { faultsAtSeverities } from "../../src/diagnosis/faultsAtSeverities.js";
import { temperSiblings } from "../../src/diagnosis/siblings.js";
import { leftOver } from "../../src/diagnosis/fit.js";
import { isUnmovedAt } from "../../src/diagnosis/unmoved.js";
import { sureOfSeveral } from "../../src/planner/sureOfSeveral.js";
import { faultOn } from "../bench.js";
import { tugPredictor, tugVolts, tugWiring } from "../warm.js";

const AT = "2026-11-24T10:00:00Z";
const numberOf = (id: string) => tugPredictor.faults.findIndex((f) => f.id === id) + 1;

/** What a machine with these faults shows at some points, key on, everything plugged; and the codes it sets. */
function logbookOf(faults: readonly { id: string; severity: number }[], points: readonly string[]): Entry[] {
  const hidden = faults.map(({ id, severity }) => ({ fault: faultOn(tugWiring, id), severity }));
  const machine = new SimulatedMachine(tugWiring, hidden, 3);
  const codes = machine.codes();
  return [
    {
      type: "scan",
      at: AT,
      when: "afterDrive",
      modules: [...new Set(tugWiring.codes.map((c) => c.module))],
      codes: codes.map((c) => ({ module: c.module, code: c.code, status: "active" as const })),
      disturbed: [],
      wiped: false,
    },
    ...points.map((p) => tugVolts(p, machine.read(p, { key: "on", unplugged: [] }, "voltmeter"))),
  ];
}

test("two faults whose severities lie between those tried contradict no reading once they are solved closer", () => {
  const entries = logbookOf(
    [
      { id: "W38/shortToChassis", severity: 49.7 },
      { id: "S14/spliceHighResistance", severity: 122 },
    ],
    ["B7:1", "X5:4.b", "X5:4.a", "A1:12", "B9:1"],
  );
  const belief = assess(tugPredictor, entries);
  const both = belief.posterior.components.find((c) => {
    const { faults } = tugPredictor.hypotheses[c.hypothesis]!;
    return faults.some((f) => f.place.id === "S14") && faults.length === 2;
  })!;
  expect(both.share).toBeGreaterThan(0.01);
  expect(leftOver(tugPredictor, both, belief.gathered.evidence)).toEqual({ codes: [], readings: [] });
});

test("three faults in circuits of their own are found together, though no two explain all codes", () => {
  const entries = logbookOf(
    [
      { id: "W21/open", severity: NaN },
      { id: "B9:3/contactOpen", severity: NaN },
      { id: "A1:20/inputShort", severity: 6.27 },
    ],
    ["B7:1", "B7:2", "B7:3", "B9:1", "B9:2", "B9:3", "A1:20"],
  );
  const sets = assess(tugPredictor, entries).multiple.filter((m) => m.members.length === 3);
  const known = sets.map((m) => m.members.map((h) => tugPredictor.faults[h - 1]!.id));
  // the two that the readings pin down; the third may be one of many that leave one line low
  const both = known.filter((ids) => ids.includes("W21/open") && ids.includes("B9:3/contactOpen"));
  expect(both.length).toBeGreaterThan(3);
});

test("a third fault is found by the readings that two others, which explain all codes, do not fit", () => {
  const ids = ["W38/shortToChassis", "B7:2/contactOpen", "B9:2/contactOpen"];
  const short = tugPredictor.faults[numberOf(ids[0]!) - 1]!;
  const hidden = ids.map((id, i) => ({
    id,
    severity: i === 0 ? short.severities[short.severities.length >> 1]! : NaN,
  }));
  const pins = ["B7", "B9", "B12"].flatMap((plug) => [1, 2, 3].map((n) => `${plug}:${n}`));
  const entries = logbookOf(hidden, [...pins, "B4:1", "A1:20", "A1:12"]);
  const sets = assess(tugPredictor, entries).multiple.map((m) => [...m.members].sort((a, b) => a - b).join());
  expect(sets).toContain(
    ids
      .map(numberOf)
      .sort((a, b) => a - b)
      .join(),
  );
});

test("a fault moves no reading that only hangs on what nobody knows", () => {
  const entries = logbookOf([{ id: "B4/elementOpen", severity: NaN }], ["B12:3", "B4:1"]);
  const { evidence } = gather(tugPredictor, entries);
  const codes = evidence.filter((e) => e.kind === "code");
  const readings = evidence.filter((e) => e.kind === "reading");
  const toExplain = { codes, readings, present: codes.filter((e) => e.present) };
  const parts = faultsAtSeverities(tugPredictor, toExplain, undefined, () => false);
  const part = parts.find((p) => p.h === numberOf("B4/elementOpen"))!;
  const [pressure, coolant] = part.moves;
  expect(readings.map((e) => e.point)).toEqual(["B12:3", "B4:1"]);
  expect(pressure).toBeLessThan(0.1);
  expect(coolant).toBeGreaterThan(10);
});

test("like shorts on one conductor come closer beside the same other fault, and only then", () => {
  const set = (...ids: string[]) =>
    tugPredictor.combine(
      ids.map(numberOf),
      ids.map(() => [0]),
    );
  const weight = (hypothesis: number, log: number) => ({ hypothesis, presence: 1, misplaced: undefined, log });
  const tempered = (second: number) =>
    temperSiblings(
      tugPredictor,
      [weight(set("W38/shortToChassis", "B4/elementOpen"), -2), weight(second, -10)],
      (w) => w.log,
    ).map((w) => w.log);
  expect(tempered(set("W37/shortToChassis", "B4/elementOpen"))).toEqual([-2, -4]);
  expect(tempered(set("W37/shortToChassis", "B9/dead"))).toEqual([-2, -10]);
});

test("a set leaves a reading as it is where none of its faults is on that circuit", () => {
  const h = tugPredictor.combine([numberOf("B4/elementOpen"), numberOf("W38/shortToChassis")], [[0], [3, 4]]);
  const at = (point: string) =>
    isUnmovedAt(tugPredictor, h, { instrument: "voltmeter", point, state: { key: "on", unplugged: [] } });
  expect(at("B7:1")).toBe(true);
  expect(at("B4:1")).toBe(false);
});

test("severities between two of the grid: equal steps of the logarithm", () => {
  const member = numberOf("W38/shortToChassis");
  const [a, b] = tugPredictor.faults[member - 1]!.severities.slice(4, 6) as [number, number];
  const h = tugPredictor.combine([member, numberOf("B4/elementOpen")], [[4, 4.5, 5], [0]]);
  const places = tugPredictor.hypotheses[h]!.severities.map((s) => Math.max(...s.filter((x) => Number.isFinite(x))));
  expect(places[1]! ** 2).toBeCloseTo(a * b, 6);
});

test("what every explanation shares is proven while the rest is open; of one fault alone nothing", () => {
  const look = (thing: string, found: "green" | "nothing"): Entry => ({ type: "look", at: AT, thing, found: [found] });
  const both = [
    { id: "X5:4/contactOpen", severity: NaN },
    { id: "B4/elementOpen", severity: NaN },
  ];
  const points = ["X5:4.a", "X5:4.b", "B7:1", "A1:12", "X5:7.a", "X5:5.a", "X5:5.b", "B4:1"];
  const entries = [...logbookOf(both, points), look("X5", "green"), look("W11", "nothing")];
  const { stage, suspects, outcome } = analyse(tugPredictor, entries);
  // what else is wrong may be the part, its terminals or its plug: no set of two is proven
  expect(suspects[0]!.share).toBeLessThan(0.9);
  expect(stage).toBe("proven");
  expect(outcome).toMatchObject({ isNotAll: true, isOneRepair: true });
  expect(outcome!.repairs.map((r) => r.id)).toEqual(["cavity X5:4"]);
  expect(outcome!.repairs[0]!.share).toBeGreaterThan(0.98);
  // before anything told the terminal from the others, nothing is sure
  const early = analyse(tugPredictor, logbookOf(both, points.slice(0, 2)));
  expect(early.outcome?.isNotAll).toBe(false);
  const single = assess(tugPredictor, logbookOf([{ id: "B9:1/contactOpen", severity: NaN }], ["B9:3"]));
  expect(sureOfSeveral(tugPredictor, single, makePlan(tugPredictor, single).grouped)).toBeUndefined();
});
