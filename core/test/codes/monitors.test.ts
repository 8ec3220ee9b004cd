import {
  analyse,
  bindMonitors,
  compile,
  findFault,
  generateFaults,
  lacksActivity,
  Predictor,
  Rig,
  SimulatedMachine,
  type Entry,
  type KeyState,
  type Wiring,
} from "../../src/index.js";
import { code, tug, wiring } from "../helpers.js";

const doc = tug();
const AT = "2026-11-24T10:00:00Z";

/** The codes a document sets with one fault, from the settled circuit alone. */
function codesOf(w: Wiring, faultId?: string, severity = NaN, unplugged: string[] = []): string[] {
  const fault = faultId === undefined ? undefined : findFault(generateFaults(w), faultId)!.fault;
  return new Rig(w, fault ? [{ fault, severity }] : []).codes(unplugged).map((m) => m.code.id);
}

describe("which codes a fault sets (set conditions as the demo document states them)", () => {
  test.each<[string, number, string[]]>([
    ["B9/shortSupplyGround", 5, ["P0642", "P0237", "P0522", "P1A41"]],
    ["B9/shortSupplyGround", 120, []], // within the limit of the reference: no code
    ["A1:17/referenceDead", NaN, ["P0642", "P0237", "P0522", "P1A41"]],
    ["S22/spliceHighResistance", 600, ["P0237", "P0522", "P1A41"]],
    ["S22/spliceHighResistance", 50, []],
    ["W31/open", NaN, ["P0237"]],
    ["B9/shortSignalGround", 1, ["P0522"]],
    ["B9/shortSignalSupply", 0.5, ["P0523"]],
    ["B4/elementOpen", NaN, ["P0118"]],
    ["B4/shortSignalGround", 1, ["P0117"]],
    ["B20/elementOpen", NaN, ["P2122"]],
    ["W51/open", NaN, ["P2122"]],
    ["W42/open", NaN, ["P0335"]],
    ["B2/dead", NaN, ["P0335"]],
    ["W14/shortToSupply", 0.5, ["P0643"]],
  ])("%s at %d Ω sets %j", (fault, ohm, expected) => {
    const set = codesOf(doc, fault, ohm);
    for (const id of expected) expect(set).toContain(id);
    if (expected.length === 0) expect(set).toEqual([]);
  });
  test("a healthy machine sets none; a sleeping or unpowered module sets none either", () => {
    expect(codesOf(doc)).toEqual([]);
    expect(codesOf(doc, "F12/fuseBlown")).toEqual([]);
    expect(codesOf(doc, "A1/moduleUnpowered")).toEqual([]);
  });
  test(
    "unplugging turns a signal low on a pulled-down input and high on a pulled-up one (common practice, no " +
      "source)",
    () => {
      expect(codesOf(doc, undefined, NaN, ["B7"])).toEqual(["P0237"]);
      expect(codesOf(doc, undefined, NaN, ["B4"])).toEqual(["P0118"]);
    },
  );
});

describe("monitors", () => {
  const bare = (monitor: Record<string, unknown>) =>
    wiring({
      connectors: [{ id: "A1", cavities: ["1"] }],
      devices: [{ kind: "module", id: "A1", pins: [{ role: "input", at: "A1:1", pull: "up" }] }],
      codes: [{ id: "C", module: "A1", monitor: { at: "A1:1", ...monitor } }],
    });
  const key = (monitor: Record<string, unknown>): KeyState | undefined => {
    const w = bare(monitor);
    return bindMonitors(w, compile(w, "on"))[0]?.key;
  };
  test("are judged key on unless they say otherwise; activity while cranking", () => {
    expect(key({ type: "below", volt: 1 })).toBe("on");
    expect(key({ type: "below", volt: 1, when: ["running"] })).toBe("running");
    expect(key({ type: "below", volt: 1, when: ["running", "cranking"] })).toBe("cranking");
    expect(key({ type: "noActivity" })).toBe("cranking");
    expect(key({ type: "below", volt: 1, when: ["off"] })).toBeUndefined(); // a sleeping module judges nothing
  });
  test.each<[Record<string, unknown>, boolean]>([
    [{ type: "above", volt: 4.9 }, true],
    [{ type: "above", volt: 5.1 }, false],
    [{ type: "below", volt: 5.1 }, true],
    [{ type: "below", volt: 4.9 }, false],
    [{ type: "outside", low: 1, high: 4 }, true],
    [{ type: "outside", low: 4, high: 5.5 }, false],
  ])("an open pulled-up input at 5 V: %j is %s", (monitor, expected) =>
    expect(codesOf(bare(monitor)).length === 1).toBe(expected),
  );
  test("a pin that floats or hardly moves shows no activity where some is asked for", () => {
    const plain = { monitor: { type: "noActivity", at: "A1:1" } } as const;
    expect(lacksActivity(plain, NaN, NaN, true)).toBe(true); // no change seen is no activity
    expect(lacksActivity(plain, 0.1, 4.8, true)).toBe(false);
    expect(lacksActivity(plain, 2, 2.4, true)).toBe(true);
    expect(lacksActivity(plain, 2, 2.4, false)).toBe(false);
    const high = { monitor: { ...plain.monitor, stuck: "high" } } as const;
    expect(lacksActivity(high, 4.9, 4.9, true)).toBe(true);
    expect(lacksActivity(high, 0.1, 0.1, true)).toBe(false);
  });
  test("a code without a set condition is kept, remarked on, and weighs nothing", () => {
    const open: Wiring = { ...doc, codes: [...doc.codes, { id: "P9999", module: "A1", title: "no one knows" }] };
    const p = new Predictor(open);
    const with_ = analyse(p, [code("P0237"), code("P9999")]);
    const without = analyse(p, [code("P0237")]);
    expect(with_.remarks.map((r) => r.code)).toContain("remark.code-without-condition");
    expect(with_.suspects.map((s) => s.share)).toEqual(without.suspects.map((s) => s.share));
    expect(analyse(p, [code("P7777")]).remarks.map((r) => r.code)).toContain("remark.code-not-in-wiring");
  });
});

test("the simulated machine and the engine's own circuit agree on which codes a hard fault sets", () => {
  const faults = generateFaults(doc);
  for (const id of ["A1:17/referenceDead", "W31/open", "B4/elementOpen", "W42/open", "X5:4/contactOpen"]) {
    const machine = new SimulatedMachine(doc, [{ fault: findFault(faults, id)!.fault, severity: NaN }], 11);
    expect([id, machine.codes().map((c) => c.code)]).toEqual([id, codesOf(doc, id)]);
  }
});

test("both sides of a fuse: blown shows battery on one side and nothing on the other, and is found", () => {
  const at = { key: "on" as const, unplugged: [] };
  const lost: Wiring = {
    ...doc,
    codes: [{ id: "U1", module: "A2", monitor: { type: "below", at: "A2:1", volt: 6 } }, ...doc.codes],
    devices: [
      ...doc.devices,
      {
        kind: "module",
        id: "A2",
        zones: [],
        reachMinutes: 1,
        cautions: [],
        pins: [{ role: "input", at: "A2:1", pull: "none" }],
      },
    ],
    connectors: [
      ...doc.connectors,
      { id: "A2", cavities: ["1"], inline: false, backProbe: true, zones: [], reachMinutes: 2, cautions: [] },
    ],
    wires: [...doc.wires, { id: "W90", from: "S30", to: "A2:1", zones: [] }],
  };
  const predictor = new Predictor(lost);
  const machine = new SimulatedMachine(
    lost,
    [{ fault: findFault(predictor.faults, "F12/fuseBlown")!.fault, severity: NaN }],
    4,
  );
  expect(machine.codes()).toEqual([{ module: "A2", code: "U1" }]); // a second module watches the feed
  const values = ["F12:in", "F12:out"].map((p) => machine.read(p, at, "voltmeter"));
  expect(values[0]).toBeGreaterThan(11.5);
  expect(values[1]).toBeLessThan(0.1);
  const entries: Entry[] = [
    { type: "code", at: AT, module: "A2", code: "U1", status: "active" },
    { type: "reading", at: AT, instrument: "voltmeter", points: ["F12:in", "F12:out"], values, state: at },
  ];
  // a short behind the fuse, which melts it, explains the same: the fuse is the leader, not yet proven
  const a = analyse(predictor, entries);
  expect(a.suspects[0]!.members[0]!.fault.id).toBe("F12/fuseBlown");
  expect(a.suspects.some((s) => s.members.some((m) => m.fault.mode === "shortToChassis" && m.share > 0.005))).toBe(
    true,
  );
});
