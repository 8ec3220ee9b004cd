import {
  analyse,
  assess,
  fold,
  generateFaults,
  Intake,
  parseCase,
  Predictor,
  wireId,
  type Entry,
  type Posterior,
} from "../../src/index.js";
import { Cost, positionOf } from "../../src/planner/cost.js";
import { findNets } from "../../src/wiring/nets.js";
import { closerTests } from "../../src/planner/closer.js";
import { comparePolicies, lookAhead, type MacroTest } from "../../src/planner/lookAhead.js";
import { demoText } from "../helpers.js";
import { fourCodes, planOf, tugPredictor, tugVolts, tugWiring } from "../warm.js";

const AT = "2026-11-24T10:00:00Z";
const ohms = (point: string, value: number, unplugged: string[]): Entry => ({
  type: "reading",
  at: AT,
  instrument: "ohmmeter",
  points: [point],
  values: [value],
  state: { key: "off", unplugged },
});
/** One of the four wires of the reference touches chassis; which one, no reading of volts tells. */
const grounded = [
  ...fourCodes,
  tugVolts("B7:1", 0.05, ["B7"]),
  tugVolts("X5:4.b", 5, ["X5"]),
  ohms("X5:4.a", 0.6, ["X5"]),
  tugVolts("B9:1", 0.05),
  tugVolts("B12:1", 0.05),
  tugVolts("B12:1", 0.05, ["B12"]),
];

/** A belief that holds these faults for equally likely. */
const believing = (predictor: Predictor, ...ids: string[]): Posterior =>
  ({
    components: ids.map((id) => ({
      hypothesis: predictor.faults.findIndex((f) => f.id === id) + 1,
      share: 1 / ids.length,
      presence: 1,
    })),
  }) as unknown as Posterior;
const offeredFor = (predictor: Predictor, entries: readonly Entry[], ...ids: string[]) =>
  closerTests(predictor, fold(entries), believing(predictor, ...ids));

test("what is proven of several wires is a group; the tests that narrow it look along each of them", () => {
  const a = analyse(tugPredictor, grounded);
  expect(a.stage).toBe("proven");
  expect(a.outcome!.isOneRepair).toBe(false);
  const group = a.outcome!.repairs.map((r) => r.id.replace("wire ", ""));
  const narrowing = a.narrowing!;
  expect(group).toContain(narrowing.next[0]!.candidate.points[0]);
  // its answers number the repairs one by one, and a sign at one of them raises that one
  const [first] = narrowing.next;
  const yes = first!.answers[0]!.find((x) => x.value === 1)!;
  expect(narrowing.suspects[yes.suspects[0]!.suspect]!.places[0]!.id).toBe(first!.candidate.points[0]);
  const found: Entry = { type: "look", at: AT, thing: first!.candidate.points[0]!, found: ["rubbed"] };
  const after = analyse(tugPredictor, [...grounded, found]);
  expect(after.outcome!.repairs[0]!.id).toBe(`wire ${found.type === "look" ? found.thing : ""}`);
  expect(after.narrowing?.next.map((n) => n.candidate.id)).not.toContain(first!.candidate.id);
});

test("a wire that may be open: the drop over it and ohms from end to end; a part: ohms between its own pins", () => {
  const list = offeredFor(tugPredictor, fourCodes, "W5/open", "B4/elementOpen");
  const drop = list.find((c) => c.kind === "drop")!;
  expect([drop.points[0], drop.black].sort()).toEqual(["B2:1", "S30"]);
  const { points, black } = drop;
  const healthy = tugPredictor.predictAt(0, { instrument: "voltmeter", point: points[0]!, black, state: drop.state });
  expect(healthy.at(0)).toBeGreaterThanOrEqual(0); // red stands where the current comes from
  const part = list.find((c) => c.kind === "bench")!;
  expect(part).toMatchObject({ part: "removed", instrument: "ohmmeter", state: { key: "off", unplugged: ["B4"] } });
  const wire = tugWiring.wires.find((w) => w.from.startsWith("X5:") && w.to.startsWith("A1:"))!;
  const between = offeredFor(tugPredictor, fourCodes, `${wireId(wire)}/open`, "B4/elementOpen");
  expect(between.find((c) => c.kind === "ohmsBetween")!.state).toEqual({ key: "off", unplugged: ["A1", "X5"] });
  // both ends cost their way
  const cost = new Cost(tugWiring);
  const from = positionOf(fold(fourCodes));
  const { kind, at, state } = drop;
  expect(drop.minutes).toBeGreaterThan(cost.minutes({ kind, at, state }, from));
});

test("two wires that may touch: ohms from one to the other, both plugs off", () => {
  const list = offeredFor(tugPredictor, fourCodes, "W26+W38/shortToWire", "W38/shortToChassis");
  const between = list.find((c) => c.kind === "ohmsBetween")!;
  const ends = tugWiring.wires.filter((w) => ["W26", "W38"].includes(wireId(w))).flatMap((w) => [w.from, w.to]);
  expect(ends).toEqual(expect.arrayContaining([between.points[0], between.black]));
});

test("a short that melts its fuse: a lamp in its place and the clamp on each branch, where both are at hand", () => {
  const parsed = parseCase(demoText("carrier-30-fuse.case.json"));
  if (!parsed.ok) throw new Error("demo");
  const { wiring } = parsed.value;
  const predictor = new Predictor(wiring);
  const shorts = generateFaults(wiring).filter((f) => f.mode === "shortToChassis");
  const fed = shorts.slice(0, 6);
  const all = offeredFor(predictor, [], ...fed.map((f) => f.id));
  const clamps = all.filter((c) => c.kind === "branchCurrent");
  expect(clamps.length).toBeGreaterThan(1);
  for (const c of clamps) {
    const [fuse] = c.state.pulled!;
    expect(c.state.loads).toEqual([{ from: `${fuse}:in`, to: `${fuse}:out`, watt: 21 }]);
    expect(c.instrument).toBe("clamp");
  }
  const intake: Entry = { type: "intake", at: AT, intake: Intake.parse({ tools: ["meter"] }) };
  const without = offeredFor(predictor, [intake], ...fed.map((f) => f.id));
  expect(without.some((c) => c.kind === "branchCurrent")).toBe(false);
  // set aside once, offered no more
  const aside: Entry = { type: "setAside", at: AT, candidate: clamps[0]!.id, reason: "cannotReach" };
  const left = offeredFor(predictor, [aside], ...fed.map((f) => f.id));
  expect(left.map((c) => c.id)).not.toContain(clamps[0]!.id);
});

test("a guided run competes with single tests: proposed where it saves time, and not where it does not", () => {
  const { plan } = planOf(fourCodes);
  const see = (macros: readonly MacroTest[]) =>
    lookAhead(tugPredictor, plan.particleBelief, plan.ranked, plan.cost, plan.position, macros);
  const all: MacroTest = {
    run: "unplugSeries",
    on: "A1:17",
    minutes: 2,
    outcomeOf: (faults) => faults.map((f) => f.place.id).join(),
  };
  const alone = see([]);
  expect(alone.run).toBeUndefined();
  expect(see([all]).run).toBe(all); // tells every place apart in two minutes
  expect(see([{ ...all, minutes: 200 }]).run).toBeUndefined();
  expect(see([{ ...all, outcomeOf: () => "same" }]).run).toBeUndefined(); // tells nothing
  expect(see([{ ...all, minutes: 200 }]).best).toBe(alone.best);
  expect(comparePolicies(alone).information).toBeLessThanOrEqual(alone.minutes + 1e-9);
});

test("the first pass over all faults tells how far it is, and changes nothing by it", () => {
  const shares: number[] = [];
  const predictor = new Predictor(tugWiring);
  const plain = planOf(fourCodes).belief.posterior;
  const { posterior } = assess(predictor, fourCodes, { progress: (s) => shares.push(s) });
  expect(shares.length).toBeGreaterThan(100);
  expect(shares.every((s, i) => s >= 0 && s <= 1 && (i === 0 || s >= shares[i - 1]! - 1e-9))).toBe(true);
  expect(posterior.components.slice(0, 3).map((c) => c.hypothesis)).toEqual(
    plain.components.slice(0, 3).map((c) => c.hypothesis),
  );
});

test("a terminal of an in-line plug, or a leg of a splice: ohms through it, the plugs on either side off", () => {
  const through = tugWiring.wires.find((w) => w.from.startsWith("X5:") && w.to.startsWith("A1:"))!;
  const terminal = through.from.replace(/\.[ab]$/, "");
  const list = offeredFor(tugPredictor, fourCodes, `${terminal}/contactOpen`, "B4/elementOpen");
  const ohmsThrough = list.find((c) => c.kind === "ohmsBetween")!;
  expect(ohmsThrough.state.unplugged).toContain("A1");
  expect(ohmsThrough.state.unplugged).not.toContain("X5");
  // what it is for: no less than "open" where the terminal is, next to nothing where it is sound
  const place = {
    instrument: "ohmmeter",
    point: ohmsThrough.points[0]!,
    black: ohmsThrough.black!,
    state: ohmsThrough.state,
  } as const;
  const open = tugPredictor.faults.findIndex((f) => f.id === `${terminal}/contactOpen`) + 1;
  expect(tugPredictor.predictAt(0, place).at(0)).toBeLessThan(5);
  expect(tugPredictor.predictAt(open, place).at(0)).toBeGreaterThan(1e4);
  const leg = offeredFor(tugPredictor, fourCodes, "S30~W5/legOpen", "B4/elementOpen");
  expect(leg.filter((c) => c.kind === "ohmsBetween").map((c) => [c.points[0], c.black].includes("B2:1"))).toEqual([
    true,
  ]);
});

test("a sensor's signal is jumpered to its reference where the module's input may be at fault, never to a feed", () => {
  const list = offeredFor(tugPredictor, fourCodes, "A1:8/inputShort", "B7:1/contactOpen");
  const jumper = list.find((c) => c.kind === "jumper" && c.points[0] === "A1:8")!;
  expect(jumper.state).toEqual({
    key: "on",
    unplugged: ["B7"],
    jumpers: [{ from: "B7:3", to: "B7:1", ohm: 1000 }],
  });
  const shown = (id: string) => {
    const h = tugPredictor.faults.findIndex((f) => f.id === id) + 1;
    return tugPredictor
      .predictAt(h, { instrument: "scanTool", point: "A1:8", state: jumper.state, black: undefined })
      .at(0);
  };
  // 1 kΩ against a pull of tens of kΩ: the input follows; against a short inside it cannot
  expect(shown("B7:1/contactOpen")).toBeGreaterThan(4.5);
  expect(shown("A1:8/inputShort")).toBeLessThan(1);
  for (const c of list)
    for (const { to } of c.state.jumpers ?? []) expect(findNets(tugPredictor.wiring).functionOf(to)).toBe("reference");
  const without: Entry = { type: "intake", at: AT, intake: Intake.parse({ tools: ["meter"] }) };
  const few = offeredFor(tugPredictor, [...fourCodes, without], "A1:8/inputShort", "B7:1/contactOpen");
  expect(few.some((c) => c.kind === "jumper")).toBe(false);
});

test("what was put on for one test comes off before the next, and a pulled fuse goes back in", () => {
  const jumpered: Entry = {
    type: "reading",
    at: AT,
    instrument: "scanTool",
    points: ["A1:8"],
    values: [0.1],
    state: { key: "on", unplugged: ["B7"], jumpers: [{ from: "B7:3", to: "B7:1", ohm: 1000 }], pulled: ["F12"] },
  };
  const cost = new Cost(tugPredictor.wiring);
  const here = positionOf(fold([...fourCodes, jumpered]));
  const next = cost.changes({ key: "off", unplugged: ["X5"] }, here);
  expect(next).toMatchObject({ takeOff: ["jumper"], fuseBack: ["F12"], plug: ["B7"], unplug: ["X5"] });
  const same = cost.changes(jumpered.state, here);
  expect(same.takeOff).toBeUndefined();
  expect(same.fuseBack).toBeUndefined();
});
