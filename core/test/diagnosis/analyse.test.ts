import { analyse, findFault, Predictor, SimulatedMachine, type Entry, type Wiring } from "../../src/index.js";
import { code, wiring } from "../helpers.js";
import { tugPredictor as predictor, tugWiring as doc } from "../warm.js";

const AT = "2026-11-24T10:00:00Z";

const start = (codes: readonly { module: string; code: string }[]): Entry[] =>
  codes.map((c) => ({ type: "code", at: AT, module: c.module, code: c.code, status: "active" }));

/** A logbook of some readings on a machine with a hidden fault. */
function logged(fault: string, severity: number, seed: number): Entry[] {
  const machine = new SimulatedMachine(doc, [{ fault: findFault(predictor.faults, fault)!.fault, severity }], seed);
  const entries = start(machine.codes());
  for (const point of ["B7:1", "B7:2", "A1:17", "B9:3"])
    entries.push(machine.reading(AT, "voltmeter", [point], { key: "on", unplugged: [] })!);
  return entries;
}

test("shares add up to one, at every step", () => {
  const entries = logged("B9/shortSupplyGround", 5, 4);
  for (let n = 0; n <= entries.length; n++) {
    const sum = analyse(predictor, entries.slice(0, n)).suspects.reduce((s, x) => s + x.share, 0);
    expect(sum).toBeLessThanOrEqual(1 + 1e-9);
    if (n >= 4) expect(sum).toBeGreaterThan(0.97); // the list is cut after twelve
  }
});

test("before anything is logged nothing is merged, and no reading is offered", () => {
  const a = analyse(predictor, []);
  expect(a.stage).toBe("waiting");
  expect(a.next).toEqual([]);
  for (const s of a.suspects) expect(s.places.length).toBeLessThanOrEqual(1);
});

test("the same entries give the same analysis, whatever was asked before", () => {
  const entries = logged("S22/spliceHighResistance", 500, 2);
  const fresh = analyse(new Predictor(doc), entries);
  const used = analyse(predictor, entries);
  expect(used.suspects.map((s) => [s.id, s.share.toFixed(9)])).toEqual(
    fresh.suspects.map((s) => [s.id, s.share.toFixed(9)]),
  );
  expect(used.next[0]?.candidate.id).toBe(fresh.next[0]?.candidate.id);
});

test("a reading logged, undone and undone again counts once", () => {
  const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
  const reading: Entry = {
    type: "reading",
    at: AT,
    instrument: "voltmeter",
    points: ["B7:1"],
    values: [5.0],
    state: { key: "on", unplugged: ["B7"] },
  };
  const top = (entries: Entry[]) => {
    const s = analyse(predictor, entries).suspects[0]!;
    return `${s.id} ${s.share.toFixed(6)}`;
  };
  expect(top([...codes, reading, { type: "undo", at: AT, target: 5 }])).toBe(top(codes));
  expect(top([...codes, reading, { type: "undo", at: AT, target: 5 }, { type: "undo", at: AT, target: 6 }])).toBe(
    top([...codes, reading]),
  );
});

test("readings that contradict the wiring raise 'not in this wiring', not a wrong suspect", () => {
  const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
  const at = (point: string, value: number): Entry => ({
    type: "reading",
    at: AT,
    instrument: "voltmeter",
    points: [point],
    values: [value],
    state: { key: "on", unplugged: [] },
  });
  const a = analyse(predictor, [...codes, at("B7:1", 9.1), at("B9:2", 7.7), at("A1:17", 2.2), at("F12:in", 6.4)]);
  expect(a.suspects[0]?.type).toBe("notHere");
  expect(a.remarks.map((r) => r.code)).toContain("remark.not-in-this-wiring");
});

test("codes we set ourselves by unplugging are no evidence", () => {
  const entries: Entry[] = [{ type: "unplugged", at: AT, connector: "B7" }, code("P0237")];
  const a = analyse(predictor, entries);
  expect(a.remarks.map((r) => r.code)).toContain("remark.code-set-by-us");
});

test("ohms read with the key on prove nothing, are kept, and are remarked on (common practice, no source)", () => {
  const reading: Entry = {
    type: "reading",
    at: AT,
    instrument: "ohmmeter",
    points: ["B7:2"],
    values: [0.3],
    state: { key: "on", unplugged: [] },
  };
  const codes = [code("P0237"), code("P0522"), code("P1A41")];
  const a = analyse(predictor, [...codes, reading]);
  const without = analyse(predictor, codes);
  expect(a.remarks.map((r) => r.code)).toContain("remark.ohms-with-power");
  expect(a.suspects.map((s) => s.share)).toEqual(without.suspects.map((s) => s.share));
});

test("restraint circuits are never offered for probing", () => {
  const guarded: Wiring = {
    ...doc,
    devices: doc.devices.map((d) => (d.id === "B9" ? { ...d, cautions: ["restraint"] } : d)),
  };
  const a = analyse(
    new Predictor(guarded),
    ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c)),
  );
  expect(a.next.length).toBeGreaterThan(0);
  for (const n of a.next) expect([n.candidate.at, ...n.candidate.state.unplugged]).not.toContain("B9");
});

test("a set-aside reading is not offered again until that is undone", () => {
  const codes = ["P0642", "P0237", "P0522", "P1A41"].map((c) => code(c));
  const first = analyse(predictor, codes).next[0]!.candidate.id;
  const aside: Entry = { type: "setAside", at: AT, candidate: first, reason: "cannotReach" };
  expect(analyse(predictor, [...codes, aside]).next.map((n) => n.candidate.id)).not.toContain(first);
  expect(analyse(predictor, [...codes, aside, { type: "undo", at: AT, target: 5 }]).next[0]!.candidate.id).toBe(first);
});

test("a wiring with no battery, no grounds and no values still solves: ten lines of a pin chart", () => {
  const bare = wiring({
    connectors: [
      { id: "B1", cavities: ["1", "2", "3"] },
      { id: "B2", cavities: ["1", "2", "3"] },
      { id: "A1", cavities: ["1", "2", "3", "4"] },
    ],
    devices: [
      { kind: "splice", id: "S1" },
      { kind: "splice", id: "S2" },
      {
        kind: "module",
        id: "A1",
        pins: [
          { role: "reference", at: "A1:1" },
          { role: "sensorGround", at: "A1:2" },
          { role: "input", at: "A1:3", pull: "down" },
          { role: "input", at: "A1:4", pull: "down" },
        ],
      },
      { kind: "threeWireSensor", id: "B1", pins: { supply: "B1:1", ground: "B1:2", signal: "B1:3" } },
      { kind: "threeWireSensor", id: "B2", pins: { supply: "B2:1", ground: "B2:2", signal: "B2:3" } },
    ],
    wires: [
      ["B1:1", "S1"],
      ["B2:1", "S1"],
      ["S1", "A1:1"],
      ["B1:2", "S2"],
      ["B2:2", "S2"],
      ["S2", "A1:2"],
      ["B1:3", "A1:3"],
      ["B2:3", "A1:4"],
    ].map(([from, to]) => ({ from, to })),
    codes: [
      { id: "P1", module: "A1", monitor: { type: "below", at: "A1:3", volt: 0.2 } },
      { id: "P2", module: "A1", monitor: { type: "below", at: "A1:4", volt: 0.2 } },
    ],
  });
  const a = analyse(new Predictor(bare), [code("P1"), code("P2")]);
  expect(a.next.length).toBeGreaterThan(0);
  const strong = a.suspects.filter((s) => s.type === "fault" && s.share > 0.03);
  for (const s of strong) expect(s.explains).toBe(2);
});
