import { DEFAULTS } from "../../src/defaults.js";
import { clueAnywhere, clueLikelihood, isAt } from "../../src/diagnosis/clues.js";
import type { Clue } from "../../src/diagnosis/evidence.js";
import { findFault } from "../../src/index.js";
import { tugPredictor } from "../warm.js";

const AT = "2026-11-24T09:00:00Z";
const fault = (id: string) => findFault(tugPredictor.faults, id)!.fault;
const look = (thing: string, ...found: Extract<Clue, { type: "look" }>["found"]): Clue => ({
  type: "look",
  at: AT,
  thing,
  found,
});
const { signSeen, signHidden, signFalse, wiggleReacts, wiggleFalse } = DEFAULTS.clues;

// worked by hand from the figures in DEFAULTS.clues: a fault that shows is seen with signSeen, two by either of them
describe("what a look is worth", () => {
  const open = fault("B7:1/contactOpen");
  const corroded = fault("B7:2/contactHighResistance");
  test("nothing found: one fault there missed, two faults there both missed", () => {
    expect(clueLikelihood(look("B7", "nothing"), [open], false)).toBeCloseTo((1 - signSeen) * (1 - signFalse), 12);
    expect(clueLikelihood(look("B7", "nothing"), [open, corroded], false)).toBeCloseTo(
      (1 - signSeen) ** 2 * (1 - signFalse),
      12,
    );
    expect(clueLikelihood(look("B9", "nothing"), [open], false)).toBeCloseTo(1 - signFalse, 12);
  });
  test("a sign that fits, one that does not, and a sign where nothing is wrong", () => {
    expect(clueLikelihood(look("B7", "pushedBack"), [open], false)).toBeCloseTo(0.8 * signSeen + signFalse, 12);
    expect(clueLikelihood(look("B7", "burnt"), [open], false)).toBeCloseTo(0.1 * signSeen + signFalse, 12);
    expect(clueAnywhere(look("B7", "pushedBack"))).toBeCloseTo(signFalse, 12);
  });
  test("a fault inside a part hides from the eye", () => {
    const inside = fault("B9/dead");
    expect(clueLikelihood(look("B9", "nothing"), [inside], false)).toBeCloseTo((1 - signHidden) * (1 - signFalse), 12);
  });
});

test("a wiggle shows only what comes and goes, and only where it is", () => {
  const wiggle = (thing: string, reacted: boolean): Clue => ({ type: "wiggle", at: AT, thing, reacted });
  const open = fault("B7:1/contactOpen");
  expect(clueLikelihood(wiggle("B7", true), [open], true)).toBe(wiggleReacts);
  expect(clueLikelihood(wiggle("B7", false), [open], true)).toBe(1 - wiggleReacts);
  expect(clueLikelihood(wiggle("B7", true), [open], false)).toBe(wiggleFalse);
  expect(clueLikelihood(wiggle("B9", true), [open], true)).toBe(wiggleFalse);
});

test("a thing covers a fault at its terminals, at the other thing meant, or at itself", () => {
  expect(isAt(fault("B7:1/contactOpen"), "B7")).toBe(true);
  expect(isAt(fault("B7:1/contactOpen"), "B7:1")).toBe(true);
  expect(isAt(fault("B7:1/contactOpen"), "B7:2")).toBe(false);
  expect(isAt(fault("A1:17/referenceDead"), "A1:17")).toBe(true);
});
