import { bench, rig, off, on, volt } from "../bench.js";
import { predictCodes, readOhms, readScope } from "../../src/index.js";

describe("buses", () => {
  const can = bench(
    [
      { role: "supply", at: "A1:1" },
      { role: "ground", at: "A1:2" },
      { role: "busHigh", at: "A1:3", terminated: true },
      { role: "busLow", at: "A1:4" },
    ],
    [
      {
        kind: "smartSensor",
        id: "B1",
        pins: { supply: "B1:1", ground: "B1:2", busHigh: "B1:3", busLow: "B1:4" },
        terminated: true,
      },
      { kind: "fuse", id: "F1", rating: 5 },
    ],
    [
      ["BAT:+", "A1:1"],
      ["A1:2", "G1"],
      ["BAT:+", "F1:in"],
      ["F1:out", "B1:1"],
      ["B1:2", "G1"],
      ["A1:3", "B1:3"],
      ["A1:4", "B1:4"],
    ],
    { codes: [{ id: "U1", module: "A1", title: "Lost communication with the level sensor", about: "B1" }] },
  );
  test("two-wire: 60 Ω without power, recessive near 2.5 V, dominant as ISO 11898-2 has it (from memory)", () => {
    expect(readOhms(rig(can), { ...off, unplugged: [], pulled: ["F1"] }, "A1:3", "A1:4").value).toBeCloseTo(60, -1);
    const r = rig(can);
    const quiet = r.settled(on, { phase: 0.9 });
    const talk = r.settled(on, { phase: 0 });
    expect(talk).not.toBe(quiet);
    const h = readScope(r, on, "A1:3").value;
    const l = readScope(r, on, "A1:4").value;
    expect(h.most).toBeGreaterThan(2.75);
    expect(h.most).toBeLessThan(4.5);
    expect(h.least).toBeCloseTo(2.5, 1);
    expect(l.least).toBeGreaterThan(0.5);
    expect(l.least).toBeLessThan(2.25);
    expect(l.most).toBeCloseTo(2.5, 1);
    expect(volt(r, on, "A1:3")).toBeLessThan(3); // what a meter shows: the mean
  });
  test("a node without power is silent, and its code follows from that; so is one cut off the bus", () => {
    expect(predictCodes(rig(can))).toEqual([]);
    expect(predictCodes(rig(can, "F1/fuseBlown"))).toMatchObject([
      { code: "U1", follows: { id: "B1" }, clearsItself: true, broad: true },
    ]);
    expect(predictCodes(rig(can, "A1:3~B1:3/open"))).toMatchObject([
      { code: "U1", follows: undefined, clearsItself: true },
    ]);
    expect(predictCodes(rig(can, "B1~bus/shortInside", 0.05)).map((c) => c.code)).toEqual(["U1"]);
    expect(predictCodes(rig(can, "A1:4~B1:4/shortToSupply", 0.05)).map((c) => c.code)).toEqual(["U1"]);
  });
  test("single-wire: 0.8 of battery or more when idle (common practice, no source), down while it talks", () => {
    const lin = bench(
      [
        { role: "supply", at: "A1:1" },
        { role: "ground", at: "A1:2" },
        { role: "busLine", at: "A1:3", commander: true },
      ],
      [{ kind: "smartSensor", id: "B1", pins: { supply: "B1:1", ground: "B1:2", busLine: "B1:3" } }],
      [
        ["BAT:+", "A1:1"],
        ["A1:2", "G1"],
        ["BAT:+", "B1:1"],
        ["B1:2", "G1"],
        ["A1:3", "B1:3"],
      ],
      { codes: [{ id: "U2", module: "A1", monitor: { type: "silent", node: "B1" } }] },
    );
    const s = readScope(rig(lin), on, "B1:3").value;
    expect(s.most).toBeGreaterThan(0.8 * 12.4);
    expect(s.least).toBeLessThan(1);
    expect(predictCodes(rig(lin))).toEqual([]);
    for (const f of ["A1:3~B1:3/open", "B1/dead", "A1:3~B1:3/shortToChassis"])
      expect(predictCodes(rig(lin, f, 0.05)).map((c) => c.code)).toEqual(["U2"]);
    const unplugged = readScope(rig(lin), { ...on, unplugged: ["B1"] }, "B1:3").value;
    expect(unplugged.most).toBeGreaterThan(0.8 * 12.4);
  });
});
