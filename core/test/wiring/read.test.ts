import {
  deviceConnectors,
  devicePins,
  findNets,
  indexWiring,
  meterPoints,
  resolvePlace,
  thingsOnTheWay,
  wireId,
} from "../../src/index.js";
import { tug, wiring } from "../helpers.js";

const doc = tug();
const index = indexWiring(doc);

describe("where a wire ends", () => {
  const kind = (endpoint: string) => {
    const r = resolvePlace(index, endpoint);
    return r.ok ? r.value.type : r.issues[0]?.code;
  };
  test.each([
    ["B7:1", "cavity"],
    ["X5:4.a", "cavity"],
    ["S14", "star"],
    ["G3", "star"],
    ["F12:in", "terminal"],
    ["BAT:-", "terminal"],
    ["K1:out", "terminal"],
    ["X5:4", "wiring.inline-needs-side"],
    ["B7:1.a", "wiring.no-side-here"],
    ["B7:9", "wiring.missing-cavity"],
    ["B7", "wiring.missing-cavity"],
    ["F12", "wiring.missing-terminal"],
    ["F12:top", "wiring.missing-terminal"],
    ["BAT:plus", "wiring.missing-terminal"],
    ["Q1:1", "wiring.missing-connector"],
    ["S14:1", "wiring.missing-connector"],
    ["", "wiring.missing-connector"],
    [":", "wiring.missing-connector"],
  ])("%s is %s", (endpoint, expected) => expect(kind(endpoint)).toBe(expected));
  test("an in-line cavity keeps its side apart from its name", () => {
    const r = resolvePlace(index, "X5:4.b");
    expect(r.ok && r.value.type === "cavity" && [r.value.cavity, r.value.side]).toEqual(["4", "b"]);
  });
});

describe("nets: copper that belongs together", () => {
  const nets = findNets(doc);
  test("a splice and an in-line connector do not divide a net; a fuse and a sensor do", () => {
    const same = (a: string, b: string) => nets.netOf.get(a) === nets.netOf.get(b);
    expect(same("B7:1", "B9:1")).toBe(true);
    expect(same("B7:1", "A1:17")).toBe(true);
    expect(same("X5:4.a", "X5:4.b")).toBe(true);
    expect(same("F12:in", "F12:out")).toBe(false);
    expect(same("B7:1", "B7:2")).toBe(false);
    expect(same("B7:3", "B9:3")).toBe(false);
  });
  test.each([
    ["B7:1", "reference"],
    ["X5:7.b", "sensorGround"],
    ["B7:3", "signal"],
    ["F12:out", "feed"],
    ["BAT:+", "feed"],
    ["B2:2", "ground"],
    ["B20:1", "reference"],
    ["X5:8.a", "unknown"],
  ])("%s is for the %s", (point, what) => expect(nets.functionOf(point)).toBe(what));
  test("the module pin a net ends at", () => {
    expect(nets.modulePinOf("B12:3")).toBe("A1:10");
    expect(nets.modulePinOf("B2:2")).toBe("A1:2"); // both stand on the frame ground
    expect(nets.modulePinOf("X5:8.a")).toBeUndefined();
  });
});

describe("what lies on the way", () => {
  const way = thingsOnTheWay(doc);
  test(
    "a pressure sensor: its own wires, both splices, three cavities, three module pins, and nobody else's " + "leg",
    () => {
      const b7 = way.get("B7")!;
      for (const thing of [
        "W11",
        "S14",
        "W14",
        "X5:4",
        "W15",
        "A1:17",
        "W21",
        "S22",
        "W25",
        "X5:7",
        "A1:31",
        "W31",
        "X5:1",
        "W32",
        "A1:8",
      ])
        expect([thing, b7.has(thing)]).toEqual([thing, true]);
      for (const thing of ["W12", "W13", "W22", "W24", "X5:2", "A1:9", "S30", "F12"])
        expect([thing, b7.has(thing)]).toEqual([thing, false]);
    },
  );
  test("what the four share with each other, and the pedal with none of them", () => {
    const shared = ["B7", "B9", "B12"]
      .map((id) => way.get(id)!)
      .reduce((a, b) => new Set([...a].filter((t) => b.has(t))));
    expect([...shared].sort()).toEqual(["A1:17", "A1:31", "S14", "S22", "W14", "W15", "W25", "W26", "X5:4", "X5:7"]);
    expect([...way.get("B20")!].some((t) => shared.has(t))).toBe(false);
  });
  test("a ring of splices ends", () => {
    const ring = wiring({
      connectors: [
        { id: "B1", cavities: ["1", "2"] },
        { id: "A1", cavities: ["1"] },
      ],
      devices: [
        ...["S1", "S2", "S3"].map((id) => ({ kind: "splice", id })),
        { kind: "thermistor", id: "B1", pins: { signal: "B1:1", ground: "B1:2" } },
        { kind: "module", id: "A1", pins: [{ role: "input", at: "A1:1" }] },
      ],
      wires: [
        ["S1", "S2"],
        ["S2", "S3"],
        ["S3", "S1"],
        ["B1:1", "S1"],
        ["S2", "A1:1"],
      ].map(([from, to]) => ({ from, to })),
    });
    expect([...thingsOnTheWay(ring).get("B1")!]).toEqual(expect.arrayContaining(["S1", "S2", "A1:1"]));
  });
});

test("every meter point can be resolved, and every wired cavity is one", () => {
  const points = new Set(meterPoints(doc));
  for (const p of points) expect([p, resolvePlace(index, p).ok]).toEqual([p, true]);
  for (const w of doc.wires) for (const end of [w.from, w.to]) expect([end, points.has(end)]).toEqual([end, true]);
});

test("pins, connectors and wire names", () => {
  const b7 = doc.devices.find((d) => d.id === "B7")!;
  expect(devicePins(b7).map((p) => [p.role, p.at])).toEqual([
    ["supply", "B7:1"],
    ["ground", "B7:2"],
    ["signal", "B7:3"],
  ]);
  expect(deviceConnectors(b7)).toEqual(["B7"]);
  expect(wireId({ from: "A:1", to: "B:1" })).toBe("A:1~B:1");
  expect(wireId({ id: "W1", from: "A:1", to: "B:1" })).toBe("W1");
});
