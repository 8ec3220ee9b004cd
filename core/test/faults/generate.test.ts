import {
  batteryVolt,
  compile,
  connectorOf,
  createSolver,
  findFault,
  findNets,
  generateFaults,
  generateHarness,
  nodeVolt,
  NO_EDIT,
  openedBy,
  prepare,
  settle,
  type Fault,
  type FaultMode,
} from "../../src/index.js";
import { Namer, repairText, severityText } from "../../words/index.js";
import { tug, wiring } from "../helpers.js";

const doc = tug();
const faults = generateFaults(doc);
const on = compile(doc, "on");
const solver = createSolver(on);
prepare(solver, { circuit: on, open: openedBy(on, []), keyOn: true });
const volts = (fault?: Fault, ohm = NaN) => {
  const { settled } = settle(solver, fault?.edit(ohm, on, batteryVolt(doc, "on")) ?? NO_EDIT);
  return { settled, at: on.nodes.map((_, i) => nodeVolt(solver, i)) };
};
const healthy = volts();

test("names are unique, and each finds its own fault", () => {
  expect(new Set(faults.map((f) => f.id)).size).toBe(faults.length);
  for (const f of faults) expect(findFault(faults, f.id)?.fault).toBe(f);
  expect(findFault(faults, "B9/shortSupplyGround@4.7")).toMatchObject({ ohm: 4.7 });
  for (const bad of [
    "",
    "B9",
    "B9/shortSupplyGround@",
    "B9/shortSupplyGround@0",
    "B9/shortSupplyGround@x",
    "b9/shortSupplyGround",
  ])
    expect(findFault(faults, bad)).toBeUndefined();
});

test("every kind of thing has its faults", () => {
  const of = (place: string, type?: string) =>
    [
      ...new Set(
        faults.filter((f) => f.place.id === place && (type === undefined || f.place.type === type)).map((f) => f.mode),
      ),
    ].sort();
  expect(of("B7", "device")).toEqual([
    "biased",
    "dead",
    "shortSignalGround",
    "shortSignalSupply",
    "shortSupplyGround",
    "wrongPart",
  ]);
  expect(of("B7", "connector")).toEqual(["cavitiesBridged", "cavitiesSwapped", "unseated"]);
  expect(of("B7", "machine")).toEqual(["trueCondition"]);
  expect(of("B4", "device")).toEqual(["biased", "elementOpen", "shortSignalGround", "wrongPart"]);
  expect(of("B20", "device")).toEqual(["elementOpen", "shortSignalGround", "shortSignalSupply", "shortSupplyGround"]);
  expect(of("F12")).toEqual(["fuseBlown", "fuseHighResistance"]);
  expect(of("G3")).toEqual(["groundHighResistance", "groundOpen"]);
  expect(of("B7:1")).toEqual(["contactHighResistance", "contactOpen"]);
  expect(of("W14").filter((m) => m !== "shortToWire")).toEqual([
    "fewStrands",
    "highResistance",
    "open",
    "shortToChassis",
    "shortToSupply",
  ]);
  expect(of("W6").filter((m) => m !== "shortToWire")).toEqual([
    "fewStrands",
    "highResistance",
    "open",
    "shortToSupply",
  ]); // a ground wire cannot be shorted to chassis
  // nor the battery's own cable to anything new
  expect(of("W7").filter((m) => m !== "shortToWire")).toEqual(["fewStrands", "highResistance", "open"]);
  expect(of("X5:8")).toEqual([]); // an empty cavity
  expect(faults.filter((f) => f.place.id === "S22" && f.mode === "legOpen").length).toBe(5);
});

/**
 * A machine with one of everything the demo has not: relay, drivers, lamp, bus, pedal, coil, loop, alternator, oil and
 * water.
 */
const rich = generateHarness({ nodes: 300, seed: 4 });
const modes = new Set(
  [...generateFaults(rich), ...generateFaults(generateHarness({ nodes: 300, seed: 9 })), ...faults].map((f) => f.mode),
);
test("every fault mode the program knows is made for some machine", () => {
  const all = Object.keys({
    open: 1,
    highResistance: 1,
    fewStrands: 1,
    shortToChassis: 1,
    shortToSupply: 1,
    shortToWire: 1,
    contactOpen: 1,
    contactHighResistance: 1,
    contactFilm: 1,
    cavitiesBridged: 1,
    cavitiesSwapped: 1,
    unseated: 1,
    legOpen: 1,
    legHighResistance: 1,
    spliceHighResistance: 1,
    groundOpen: 1,
    groundHighResistance: 1,
    fuseBlown: 1,
    fuseHighResistance: 1,
    switchOpen: 1,
    switchHighResistance: 1,
    relayCoilOpen: 1,
    relayContactOpen: 1,
    relayContactHighResistance: 1,
    relayStuck: 1,
    shortSupplyGround: 1,
    shortSignalGround: 1,
    shortSignalSupply: 1,
    shortInside: 1,
    elementOpen: 1,
    dead: 1,
    biased: 1,
    wrongPart: 1,
    targetDamaged: 1,
    gapTooLarge: 1,
    trueCondition: 1,
    referenceDead: 1,
    referenceWeak: 1,
    referenceResistive: 1,
    moduleUnpowered: 1,
    moduleGroundOpen: 1,
    sensorGroundOpen: 1,
    inputShort: 1,
    driverDead: 1,
    driverStuck: 1,
    dutyWrong: 1,
    busDriverDead: 1,
    supplyLow: 1,
    supplyHigh: 1,
  } satisfies Record<FaultMode, 1>);
  expect(all.filter((m) => !modes.has(m as FaultMode))).toEqual([]);
});

test("every fault of every kind has a description, a place to go to and a repair, in words", () => {
  const namer = new Namer(rich);
  for (const f of generateFaults(rich)) {
    for (const text of [namer.fault(f), namer.where(f.place), repairText(f)]) {
      expect(text.length).toBeGreaterThan(1);
      expect(text).not.toMatch(/undefined|NaN/);
    }
    expect(namer.fault(f)).not.toMatch(/[a-z][A-Z][a-z]/); // no code names
    for (const s of f.severities) if (Number.isFinite(s)) expect(severityText(f, s)).toMatch(/Ω|%/);
  }
});

test("wires of one bundle are shorted to each other, once each pair, and never to their own net", () => {
  const pairs = generateFaults(rich)
    .filter((f) => f.mode === "shortToWire")
    .map((f) => [f.place.id, f.at ?? ""]);
  const { netOf } = findNets(rich);
  const wires = new Map(rich.wires.map((w) => [w.id ?? "", w]));
  expect(pairs.length).toBeGreaterThan(50);
  expect(new Set(pairs.map((p) => [...p].sort().join())).size).toBe(pairs.length);
  for (const [a, b] of pairs) {
    const [one, other] = [wires.get(a!)!.bundle, wires.get(b!)!.bundle];
    if (one !== undefined && other !== undefined) expect(one).toBe(other);
    expect(netOf.get(wires.get(a!)!.from)).not.toBe(netOf.get(wires.get(b!)!.from));
  }
});

test("a wire that names no bundle is taken to lie in that of the others in its plug, half as likely", () => {
  const inBundle = (d: (typeof rich.devices)[number]) =>
    rich.wires.filter((w) => w.bundle !== undefined && [w.from, w.to].some((end) => connectorOf(end) === d.id));
  const sensor = rich.devices.find((d) => d.kind === "threeWireSensor" && inBundle(d).length === 3)!;
  const loose = inBundle(sensor)[1]!;
  const bundle = rich.wires.filter((w) => w.bundle === loose.bundle);
  const half = { ...rich, wires: rich.wires.map((w) => (w === loose ? { ...w, bundle: undefined } : w)) };
  const touching = (wiring: typeof rich) =>
    new Map(
      generateFaults(wiring)
        .filter((f) => f.mode === "shortToWire" && [f.place.id, f.at].includes(loose.id))
        .map((f) => [f.place.id === loose.id ? f.at : f.place.id, f.prior] as const),
    );
  const [known, guessed] = [touching(rich), touching(half)];
  expect(bundle.length).toBeGreaterThan(8); // more than its own plug
  const common = [...known.keys()].filter((id) => guessed.has(id));
  expect(common.length).toBeGreaterThanOrEqual(known.size - 2); // it lies one place further on at most
  for (const id of common) expect(guessed.get(id)! / known.get(id)!).toBeCloseTo(0.5, 6);
});

test("where no bundle is named, wires that leave a plug side by side may touch, half as likely, each pair once", () => {
  const loose = { ...rich, wires: rich.wires.map((w) => ({ ...w, bundle: undefined })) };
  const pairs = generateFaults(loose).filter((f) => f.mode === "shortToWire");
  const wires = new Map(loose.wires.map((w) => [w.id ?? "", w]));
  const plugs = (id: string) => [wires.get(id)!.from, wires.get(id)!.to].map(connectorOf);
  expect(pairs.length).toBeGreaterThan(20);
  expect(new Set(pairs.map((f) => [f.place.id, f.at!].sort().join())).size).toBe(pairs.length);
  for (const f of pairs) {
    const there = plugs(f.at!);
    expect([f.id, plugs(f.place.id).some((p) => there.includes(p))]).toEqual([f.id, true]);
  }
});

test("a fault of no size changes nothing; every other one changes something somewhere", () => {
  for (const f of faults) {
    if (f.severities.length === 1 || f.mode === "trueCondition") continue;
    const series = (f.edit(0, on, 12).series ?? []).length > 0;
    const none = volts(f, f.unit === "factor" ? 1 : f.unit === "share" || series ? 0 : 1e15).at;
    none.forEach((v, i) => {
      if (!Number.isNaN(v) || !Number.isNaN(healthy.at[i]!))
        expect([f.id, Math.abs(v - healthy.at[i]!) < 1e-6]).toEqual([f.id, true]);
    });
  }
  const silent = faults.filter((f) => {
    const { at } = volts(f, f.severities.at(-1)!);
    return at.every((v, i) => (Number.isNaN(v) && Number.isNaN(healthy.at[i]!)) || Math.abs(v - healthy.at[i]!) < 1e-9);
  });
  // a Hall at rest without steel draws nothing through its signal, so these show only when it turns
  expect(silent.filter((f) => !/B2|W42|A1:20/.test(f.id) && f.mode !== "contactFilm").map((f) => f.id)).toEqual([]);
});

test("in one mode a voltage moves one way with severity: the shorted reference falls as the short hardens", () => {
  for (const id of ["B9/shortSupplyGround", "W14/shortToChassis"]) {
    const f = findFault(faults, id)!.fault;
    const reference = f.severities.map((ohm) => volts(f, ohm).at[on.nodeOf.get("A1:17")!]!);
    for (let i = 1; i < reference.length; i++) expect(reference[i]!).toBeGreaterThanOrEqual(reference[i - 1]! - 1e-9);
  }
  const ground = findFault(faults, "S22/spliceHighResistance")!.fault;
  const lift = ground.severities.map((ohm) => volts(ground, ohm).at[on.nodeOf.get("B7:2")!]!);
  for (let i = 1; i < lift.length; i++) expect(lift[i]!).toBeGreaterThanOrEqual(lift[i - 1]! - 1e-9);
});

test("a feed shorted behind its fuse melts the fuse: a consequence, not a cause", () => {
  const f = findFault(faults, "W3/shortToChassis") ?? findFault(faults, "W4/shortToChassis");
  const { at } = volts(f!.fault, 0.05);
  expect(at[on.nodeOf.get("F12:in")!]!).toBeGreaterThan(11);
  expect(at[on.nodeOf.get("F12:out")!]!).toBeLessThan(0.1);
});

test("zones make faults likelier where they are", () => {
  const bare = {
    connectors: [
      { id: "B1", cavities: ["1", "2"] },
      { id: "A1", cavities: ["1", "2"] },
    ],
    devices: [{ kind: "splice", id: "S1" }],
    wires: [{ id: "W", from: "B1:1", to: "A1:1" }],
  };
  const rate = (zones: string[], id: string) =>
    findFault(
      generateFaults(
        wiring({
          ...bare,
          connectors: [{ ...bare.connectors[0]!, zones }, bare.connectors[1]!],
          wires: [{ ...bare.wires[0]!, zones }],
        }),
      ),
      id,
    )!.fault.prior;
  expect(rate(["wet"], "B1:1/contactHighResistance")).toBeGreaterThan(rate([], "B1:1/contactHighResistance"));
  expect(rate(["chewed"], "W/open")).toBeGreaterThan(rate(["wet"], "W/open"));
  expect(rate(["dry"], "W/open")).toBe(rate([], "W/open"));
});

test("every fault can be said in words, without its code name", () => {
  const namer = new Namer(doc);
  for (const f of faults) {
    const text = namer.fault(f);
    expect(text.length).toBeGreaterThan(5);
    expect(text).not.toMatch(/undefined|[a-z][A-Z]/);
  }
  expect(namer.fault(findFault(faults, "S22~W25/legHighResistance")!.fault)).toBe(
    "splice S22 (sensor ground), leg to X5:7 with high resistance",
  );
  expect(namer.fault(findFault(faults, "A1:17/referenceDead")!.fault)).toBe(
    "engine module A1, reference dead at A1 cavity 17",
  );
  expect(namer.short({ type: "wire", id: "W14" })).toBe("wire S14 to X5:4");
});
