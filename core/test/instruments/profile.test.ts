import { findFault, generateFaults, profileOf, readVolts, Rig } from "../../src/index.js";
import { plugged, tug } from "../helpers.js";

const wiring = tug();
const fault = (id: string, severity: number) => {
  const found = findFault(generateFaults(wiring), id);
  if (!found) throw new Error(id);
  return { fault: found.fault, severity };
};

describe("voltage along a conductor", () => {
  test("from the module pin to the sensor, in the order a lead would meet the points", () => {
    const way = profileOf(wiring, "B7:1", plugged());
    expect([way[0]?.point, way.at(-1)?.point]).toEqual(["A1:17", "B7:1"]);
    expect(way.map((p) => p.point)).toEqual(expect.arrayContaining(["X5:4.a", "X5:4.b", "S14"]));
    // a sound reference is the same all along: a wire of 1 mm² and 5 m has about 0.1 Ω, a sensor takes about 10 mA
    for (const p of way) expect(Math.abs(p.healthy - way[0]!.healthy)).toBeLessThan(0.01);
    expect(way.every((p) => p.faulty === undefined)).toBe(true);
  });
  test("with a bad contact the whole drop stands across it (Kirchhoff's voltage law), and nowhere else", () => {
    const bad = fault("X5:4/contactHighResistance", 500);
    const way = profileOf(wiring, "B7:1", plugged(), [bad]);
    const drop = (p: (typeof way)[number], i: number) => (i === 0 ? 0 : way[i - 1]!.faulty! - p.faulty!);
    const drops = way.map(drop);
    const at = drops.findIndex((d) => d > 0.1);
    expect(way[at]?.over?.thing).toBe("X5");
    expect(drops.filter((d) => d > 0.1)).toHaveLength(1);
    const sum = drops.reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(way[0]!.faulty! - way.at(-1)!.faulty!, 9);
  });
  test("an end that a voltmeter shows by itself is the same here", () => {
    const rig = new Rig(wiring);
    const last = profileOf(wiring, "B7:1", plugged()).at(-1)!;
    expect(last.healthy).toBe(readVolts(rig, plugged(), "B7:1").value);
  });
  test("a pin that is not there has no way to it", () => {
    expect(profileOf(wiring, "NOWHERE:1", plugged())).toEqual([]);
  });
});
