/** @jest-environment ./test/environments/node.mjs */
import { looksRecorded, type Wiring } from "@radicula/core";
import { guessedPlace, placeChoices, placeOfValue, placeValue } from "@/features/case/recording/places";
import { within } from "@/features/case/recording/seen";
import { Instructor, Namer } from "@radicula/core/words";
import { demoCase } from "./helpers";

const { wiring } = demoCase();
const head = (text: string) => new TextEncoder().encode(text);

describe("where a channel was put", () => {
  test("is told by its name where that is a point or a wire", () => {
    expect(guessedPlace(wiring, "B7:3", "V")).toEqual({ on: "B7:3", by: "scope" });
    expect(guessedPlace(wiring, " W4 ", "A")).toEqual({ on: "W4", by: "clamp" });
    expect(guessedPlace(wiring, "CH1", "V")).toBeUndefined();
    expect(guessedPlace(wiring, "B7:3", "A")).toBeUndefined(); // amperes are of no point
  });
  test("is chosen among points, scan values and wires, and read back from the choice", () => {
    const choices = placeChoices(wiring, new Namer(wiring), new Instructor(wiring));
    expect(new Set(choices.map((c) => c.value)).size).toBe(choices.length);
    for (const by of ["scope", "scanTool", "clamp"] as const)
      expect(choices.some((c) => placeOfValue(c.value).by === by)).toBe(true);
    for (const c of choices) expect(placeValue(placeOfValue(c.value))).toBe(c.value);
  });
  test("is never a plug of a restraint circuit", () => {
    const guarded: Wiring = {
      ...wiring,
      connectors: wiring.connectors.map((c) => (c.id === "B7" ? { ...c, cautions: ["restraint" as const] } : c)),
    };
    const points = (w: Wiring) =>
      placeChoices(w, new Namer(w), new Instructor(w))
        .map((c) => placeOfValue(c.value))
        .filter((p) => p.by === "scope" && p.on.startsWith("B7:"));
    expect(points(wiring).length).toBeGreaterThan(0);
    expect(points(guarded)).toEqual([]);
  });
});

test("the part that is seen stays within the recording, and never shrinks to nothing", () => {
  const whole = { from: 0, to: 10 };
  expect(within({ from: 2, to: 4 }, whole, 0.01)).toEqual({ from: 2, to: 4 });
  expect(within({ from: -3, to: 1 }, whole, 0.01)).toEqual({ from: 0, to: 4 });
  expect(within({ from: 9, to: 12 }, whole, 0.01)).toEqual({ from: 7, to: 10 });
  expect(within({ from: -50, to: 90 }, whole, 0.01)).toEqual(whole);
  const { from, to } = within({ from: 5, to: 5 }, whole, 0.01);
  expect(to - from).toBeCloseTo(0.01, 9);
});

describe("what is dropped on a job is taken for a recording", () => {
  test.each([
    ["a table of a scope", `t,A\n${Array.from({ length: 30 }, (_, i) => `${i / 10},${i % 3}`).join("\n")}\n`, true],
    ["our own JSON", '{"format": "radicula/recording", "version": 1, "channels": []}', true],
    ["a value change dump", "$timescale 1us $end\n$var wire 1 ! A $end\n$enddefinitions $end\n", true],
    ["a list of codes", "P0642 active\nP0237 stored\n", false],
    ["a table of codes", "Module;Code;Status\nA1;P0522;active\n", false],
    ["a job", JSON.stringify(demoCase()), false],
    ["two numbers", "1\n2\n", false],
    ["prose", "It cuts out at 40 km/h, 3 times.\n".repeat(20), false],
    ["nothing", "", false],
  ])("%s", (_, text, wanted) => expect(looksRecorded(head(text))).toBe(wanted));
});
