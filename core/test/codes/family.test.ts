import { bench, rig } from "../bench.js";
import { analyse, predictCodes, Predictor } from "../../src/index.js";

describe("codes where the set condition is not known", () => {
  const base = (code: object) =>
    bench(
      [
        { role: "input", at: "A1:1", pull: "up" },
        { role: "sensorGround", at: "A1:2" },
      ],
      [{ kind: "thermistor", id: "B1", pins: { signal: "B1:1", ground: "B1:2" } }],
      [
        ["A1:1", "B1:1"],
        ["A1:2", "B1:2"],
      ],
      { codes: [{ id: "C", module: "A1", about: "B1", ...code }] },
    );
  const set = (code: object, fault: string) => predictCodes(rig(base(code), fault, 0.05)).map((c) => c.code);
  test.each<[object, string, boolean]>([
    [{ title: "Coolant sensor voltage high" }, "B1/elementOpen", true],
    [{ title: "Coolant sensor voltage high" }, "B1/shortSignalGround", false],
    [{ title: "Coolant sensor voltage low" }, "B1/shortSignalGround", true],
    [{ failureType: "15" }, "B1/elementOpen", true],
    [{ id: "SPN 110 FMI 4" }, "B1/shortSignalGround", true],
    [{ family: "circuit" }, "B1/elementOpen", true],
    [{ title: "Coolant sensor performance" }, "B1/elementOpen", true], // far from any temperature there is
    [{ title: "Coolant sensor performance" }, "A1:1/contactHighResistance", false], // 0.05 ohm
    [{}, "B1/elementOpen", false],
  ])("%j with %s: %s", (code, fault, expected) => expect(set(code, fault).length === 1).toBe(expected));
  test("a guessed set condition weighs half", () => {
    const [known, guessed] = [{ monitor: { type: "above", at: "A1:1", volt: 4.75 } }, { title: "voltage high" }].map(
      (c) =>
        analyse(new Predictor(base(c)), [
          { type: "code", at: "2026-11-25T09:00:00Z", module: "A1", code: "C", status: "active" },
        ]),
    );
    const open = (a: typeof known) =>
      a!.suspects.find((s) => s.members.some((m) => m.fault.id === "B1/elementOpen"))!.share;
    expect(open(guessed)).toBeLessThan(open(known));
    expect(open(guessed)).toBeGreaterThan(0.02);
  });
  test("a monitor does not run while its module's supply is out of bounds (9 to 16 V, common practice)", () => {
    const w = bench(
      [
        { role: "supply", at: "A1:1" },
        { role: "ground", at: "A1:2" },
        { role: "input", at: "A1:3", pull: "up" },
      ],
      [],
      [
        ["BAT:+", "A1:1"],
        ["A1:2", "G1"],
      ],
      { codes: [{ id: "C", module: "A1", monitor: { type: "above", at: "A1:3", volt: 4 } }] },
    );
    expect(predictCodes(rig(w)).map((c) => c.code)).toEqual(["C"]);
    expect(predictCodes(rig(w, "BAT/supplyLow", 0.65))).toEqual([]);
  });
});
