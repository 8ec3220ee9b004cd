import { bench, rig, on, off } from "../bench.js";
import { readClamp, readContinuity, readOhms, readScanTool, readVolts } from "../../src/index.js";

describe("instruments know when they prove nothing", () => {
  const w = bench(
    [
      { role: "reference", at: "A1:1" },
      { role: "sensorGround", at: "A1:2" },
      { role: "input", at: "A1:3", pull: "down" },
    ],
    [{ kind: "threeWireSensor", id: "B1", pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" } }],
    [
      ["A1:1", "B1:1"],
      ["A1:2", "B1:2"],
      ["A1:3", "B1:3"],
    ],
  );
  test("ohms on a live circuit, a beeper, a clamp on milliamperes, a sagging battery", () => {
    expect(readOhms(rig(w), on, "B1:1")).toMatchObject({ proves: false });
    const beep = readContinuity(rig(w, "A1:2~B1:2/fewStrands", 15), { ...off, unplugged: ["B1"] }, "B1:2");
    expect([beep.value, beep.remarks[0]!.code]).toEqual([true, "reading.beeper-rules-out-open"]); // 15 Ω still beeps
    expect(readClamp(rig(w), on, "A1:1~B1:1")).toMatchObject({
      proves: false,
      remarks: [{ code: "clamp.below-resolution" }],
    });
    expect(readVolts(rig(w, "BAT/supplyLow", 0.8), on, "B1:1").remarks.map((r) => r.code)).toContain(
      "reading.battery-low",
    );
    expect(() => readVolts(rig(w), on, "B9:1")).toThrow(RangeError);
    expect(() => readClamp(rig(w), on, "W99")).toThrow(RangeError);
    expect(() => readScanTool(rig(w), on, "B1:1")).toThrow(RangeError);
  });
  test(
    "a jumper through 1 kΩ to the reference, sensor unplugged, reads about full scale (common practice, no " +
      "source)",
    () => {
      expect(
        readScanTool(rig(w), { ...on, unplugged: ["B1"], jumpers: [{ from: "B1:1", to: "B1:3", ohm: 1000 }] }, "A1:3")
          .value,
      ).toBeGreaterThan(4.8);
      expect(
        readScanTool(rig(w), { ...on, unplugged: ["B1"], jumpers: [{ from: "B1:3", to: "B1:2", ohm: 0.01 }] }, "A1:3")
          .value,
      ).toBeLessThan(0.05);
    },
  );
});
