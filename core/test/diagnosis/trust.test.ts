import { assess, makePlan, type Entry, type Predictor } from "../../src/index.js";
import { groupComponents } from "../../src/diagnosis/groups.js";
import { mostToClaim } from "../../src/diagnosis/trust.js";
import { code } from "../helpers.js";
import { dragged, tugPredictor, tugVolts as volts } from "../warm.js";

function claimed(predictor: Predictor, entries: readonly Entry[]) {
  const belief = assess(predictor, entries);
  const grouped = groupComponents(predictor, belief.posterior);
  return { most: mostToClaim(predictor, belief, grouped), grouped, plan: makePlan(predictor, belief) };
}

test("a single cause that every reading fits is claimed as sure as it is", () => {
  const { most, plan } = claimed(tugPredictor, dragged);
  expect(most).toBe(1);
  expect(plan.stage).toBe("proven");
});

/** Two readings that no fault of the tug's 5 V feed brings about together. */
const CONTRADICTIONS = [volts("B9:1", 3.9), volts("A1:17", 4.1)];

test("two readings that contradict the leader: nothing is proven, shares still add up", () => {
  const { most, plan } = claimed(tugPredictor, [...dragged, ...CONTRADICTIONS]);
  const [leader] = plan.grouped.suspects;
  expect(leader!.share).toBeLessThan(0.95); // a verdict is claimed from there on
  expect(leader!.share).toBeLessThanOrEqual(most);
  expect(plan.stage).not.toBe("proven");
  // those too weak to be listed are left out
  expect(plan.grouped.suspects.reduce((sum, s) => sum + s.share, 0)).toBeCloseTo(1, 3);
});

test("what is claimed of a leader is bounded by contradictions, further where it hangs on less evidence", () => {
  const boundOf = (entries: readonly Entry[]) => {
    const { posterior } = assess(tugPredictor, entries);
    const { gathered } = assess(tugPredictor, [...entries, ...CONTRADICTIONS], { multiple: "never" });
    return mostToClaim(tugPredictor, { gathered, posterior }, groupComponents(tugPredictor, posterior));
  };
  const all = boundOf(dragged);
  const less = boundOf(dragged.filter((_, i) => i !== 6));
  expect(all).toBeLessThan(0.95);
  expect(less).toBeLessThan(all);
  expect(less).toBeGreaterThan(0.5);
});

test("two faults of which each is needed by a code and a reading of its own are not bounded", () => {
  const { most, grouped } = claimed(tugPredictor, [
    code("P0237"),
    code("P0118"),
    volts("B7:3", 1.2),
    volts("A1:8", 0),
    volts("A1:12", 5),
    volts("B4:1", 0),
    volts("B7:1", 5),
    volts("B7:2", 0.01),
    volts("B4:2", 0.01),
  ]);
  expect(grouped.suspects[0]!.type).toBe("several");
  expect(most).toBe(1);
});

test("a leader that explains none of the codes that are set is no cause of them, however well readings fit", () => {
  const own = claimed(tugPredictor, dragged);
  const { posterior } = assess(tugPredictor, dragged);
  const readings = dragged.filter((e) => e.type === "reading");
  const claimedOf = (...codes: readonly string[]) => {
    const { gathered } = assess(tugPredictor, [...codes.map((c) => code(c)), ...readings], { multiple: "never" });
    return mostToClaim(tugPredictor, { gathered, posterior }, own.grouped);
  };
  expect(claimedOf("P0237")).toBe(1);
  expect(claimedOf("P0118")).toBeLessThanOrEqual(0.8);
  expect(claimedOf("P0118", "P0237")).toBe(1); // that something else is wrong, too, does not make it less so
});
