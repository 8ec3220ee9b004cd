import {
  analyse,
  beforeAfter,
  checkEntries,
  courseOf,
  evenChannel,
  factsOf,
  findFault,
  Focus,
  fold,
  gather,
  pairsOf,
  parseCase,
  Predictor,
  seenIn,
  SimulatedMachine,
  simulateRecording,
  traceEntry,
  traceReadings,
  type Doing,
  type Entry,
  type KeyState,
  type RecordedPlace,
  type TraceEntry,
  type Wiring,
} from "../../src/index.js";
import { reasonText } from "../../words/index.js";
import { tug, wiring as wired } from "../helpers.js";

const AT = "2026-11-30T10:00:00Z";
const wiring = tug();

interface Asked {
  readonly places: readonly RecordedPlace[];
  readonly doing: Doing;
  readonly key?: KeyState;
  readonly presence?: number;
  readonly seed?: number;
  readonly lostTeeth?: readonly number[];
}
/** A recording on a simulated machine, as the logbook has it. */
function recorded(fault: string | undefined, { places, doing, key = "on", seed = 3, ...more }: Asked): TraceEntry {
  const predictor = new Predictor(wiring);
  const found = fault === undefined ? undefined : findFault(predictor.faults, fault)!;
  const faults = found ? [{ fault: found.fault, severity: found.ohm ?? NaN }] : [];
  const state = { key, unplugged: [] };
  const recording = simulateRecording(new SimulatedMachine(wiring, faults, seed), {
    places,
    state,
    doing,
    seconds: 3,
    perSecond: 4_000,
    seed,
    ...more,
  });
  const facts = recording.channels.map(factsOf);
  return traceEntry(recording, facts, pairsOf(recording, facts), { at: AT, state, doing, places })!;
}
const scope = (on: string): RecordedPlace => ({ on, by: "scope" });
const suspects = (w: Wiring, entries: readonly Entry[]) => analyse(new Focus(w).predictor(entries), entries).suspects;

test("a sound speed sensor at cranking switches between ground and its pull-up, and nothing is wrong with it", () => {
  const entry = recorded(undefined, { places: [scope("B2:3")], doing: "crank", key: "cranking" });
  expect(entry.channels[0]).toMatchObject({ kind: "switching" });
  expect(entry.channels[0]!.low).toBeLessThan(0.3);
  expect(entry.channels[0]!.hertz).toBeGreaterThan(100);
  expect(entry.channels[0]!.missing).toBeUndefined();
  expect(traceReadings(entry).map((r) => r.instrument)).toEqual(["scopeLow", "scopeHigh", "voltmeter"]);
  const { evidence, remarks } = gather(new Predictor(wiring), [entry]);
  expect(evidence.map((e) => e.kind === "reading" && e.instrument)).toEqual(["scopeLow", "scopeHigh", false]);
  expect(evidence[2]).toMatchObject({ kind: "clue", clue: { type: "teeth", thing: "B2", missing: false } });
  expect(remarks).toEqual([]);
});

// common practice, no source: a low level that does not reach ground means the ground it returns to is high
test("a low level that hangs in the air leads to the ground side of the sensor, and the reasons say so", () => {
  const entry = recorded("B2:2/contactHighResistance@300", {
    places: [scope("B2:3")],
    doing: "crank",
    key: "cranking",
  });
  const found = suspects(wiring, [entry]);
  const ground = /^(B2:2|W41|G3)/;
  const share = found
    .flatMap((s) => s.members.map((m) => [m.faults.map((f) => f.id).join(), m.share] as const))
    .filter(([id]) => ground.test(id))
    .reduce((sum, [, s]) => sum + s, 0);
  const before = suspects(wiring, [])
    .flatMap((s) => s.members.map((m) => [m.faults.map((f) => f.id).join(), m.share] as const))
    .filter(([id]) => ground.test(id))
    .reduce((sum, [, s]) => sum + s, 0);
  expect(share).toBeGreaterThan(5 * before);
  const said = found[0]!.reasons.map(reasonText).join("\n");
  expect(said).toMatch(/1\.\d+ V at B2/);
});

test("a contact that comes and goes is found by its dropouts: the job is one that comes and goes", () => {
  const entry = recorded("B20:2/contactOpen", {
    places: [scope("B20:3"), scope("B7:3")],
    doing: "move",
    presence: 0.05,
  });
  expect(entry.channels[0]!.dropouts!.count).toBeGreaterThan(3);
  expect(entry.channels[1]!.dropouts).toBeUndefined();
  const [leader] = suspects(wiring, [entry]);
  const places = leader!.members.flatMap((m) => m.faults.map((f) => f.id));
  expect(places.join(" ")).toMatch(/B20:2|A1:32/); // the two ends of one ground wire
});

test("two tracks of one pedal, or none that go together: pairs are told only where there are some", () => {
  const entry = recorded("A1:14/contactOpen", {
    places: [scope("B20:3"), { on: "A1:14", by: "scanTool" }],
    doing: "sweep",
    presence: 0.05,
  });
  expect(entry.partings).toEqual([{ channels: ["B20:3", "A1:14"], count: expect.any(Number) as number }]);
  const sound = recorded(undefined, { places: [scope("B20:3"), { on: "A1:14", by: "scanTool" }], doing: "sweep" });
  expect(sound.partings).toBeUndefined();
});

test("a tooth broken off the target is a gap that comes back in every turn: told, and not judged", () => {
  const recording = simulateRecording(new SimulatedMachine(wiring, [], 3), {
    places: [scope("B2:3")],
    state: { key: "cranking", unplugged: [] },
    doing: "crank",
    seconds: 3,
    perSecond: 4_000,
    seed: 3,
    lostTeeth: [7],
  });
  const facts = factsOf(recording.channels[0]!);
  expect(facts.teeth!.gap).toEqual({ teeth: 35, missing: 1 });
  expect(seenIn(facts)!.missing).toBeUndefined();
});

test("a place moved meanwhile is a clue", () => {
  const moving = recorded("B20:2/contactOpen", { places: [scope("B20:3")], doing: "move", presence: 0.05 });
  const folded = fold([{ ...moving, moved: [{ thing: "B20", from: 0, to: 3, reacted: true }] }]);
  expect(folded.clues.map((c) => c.entry)).toEqual([{ type: "wiggle", at: AT, thing: "B20", reacted: true }]);
});

test("a recording is taken back whole, moves with its connector, and names only places there are", () => {
  const entry = recorded(undefined, { places: [scope("B7:3"), scope("B9:3")], doing: "nothing" });
  expect(fold([entry]).readings.map((r) => [r.number, r.entry.points[0]])).toEqual([
    [1, "B7:3"],
    [1, "B9:3"],
  ]);
  expect(fold([entry, { type: "undo", at: AT, target: 1 }]).readings).toEqual([]);
  const moved = fold([entry, { type: "moved", at: AT, from: "B7", to: "B12", readings: [1] }]);
  expect(moved.readings[0]!.entry.points).toEqual(["B12:3"]);
  expect(checkEntries(wiring, [entry])).toEqual([]);
  const lost = { ...entry, channels: [{ ...entry.channels[0]!, on: "B99:1" }] };
  expect(checkEntries(wiring, [lost]).map((i) => i.code)).toEqual(["wiring.missing-connector"]);
  const turned = { ...entry, channels: [{ ...entry.channels[0]!, low: 3, high: 1 }] };
  expect(checkEntries(wiring, [turned]).map((i) => i.code)).toEqual(["wiring.range-reversed"]);
});

test("a case with a recording in its logbook reads and writes", () => {
  const entry = recorded(undefined, { places: [scope("B2:3")], doing: "crank", key: "cranking" });
  const text = JSON.stringify({ format: "radicula/case", version: 1, title: "t", wiring, entries: [entry] });
  const read = parseCase(text);
  expect(read.ok && read.value.entries).toEqual([entry]);
});

test("what an instrument does not show is not logged: pressures of a lead; milliamperes of a clamp are amperes", () => {
  const state = { key: "on" as const, unplugged: [] };
  const entryOf = (unit: string, place: RecordedPlace) => {
    const recording = { channels: [evenChannel("A", unit, 0, 0.01, new Float32Array(200).fill(250))] };
    return traceEntry(recording, recording.channels.map(factsOf), [], {
      at: AT,
      state,
      doing: "nothing",
      places: [place],
    })?.channels[0];
  };
  expect(entryOf("kPa", scope("B7:3"))).toBeUndefined();
  expect(entryOf("kPa", { on: "A1:24", by: "scanTool" })).toMatchObject({ unit: "kPa", mean: 250 });
  expect(entryOf("mA", { on: "W4", by: "clamp" })).toMatchObject({ mean: 0.25 });
  expect(entryOf("A", scope("B7:3"))).toBeUndefined();
});

test("a recording is the same each time, and refuses places there are not", () => {
  const machine = () => new SimulatedMachine(wiring, [], 1);
  const options = {
    places: [scope("B7:3")],
    state: { key: "on" as const, unplugged: [] },
    doing: "nothing" as const,
    seconds: 0.1,
    perSecond: 1_000,
    seed: 5,
  };
  expect(simulateRecording(machine(), options)).toEqual(simulateRecording(machine(), options));
  expect(() => simulateRecording(machine(), { ...options, places: [scope("Q:9")] })).toThrow(RangeError);
  expect(() => simulateRecording(machine(), { ...options, places: [{ on: "Q", by: "clamp" }] })).toThrow(RangeError);
  expect(() => simulateRecording(machine(), { ...options, seconds: 1e9 })).toThrow(RangeError);
});

describe("in the logbook", () => {
  const low = (at: string, mean: number): TraceEntry => ({
    ...recorded(undefined, { places: [scope("B7:3")], doing: "nothing" }),
    at,
    channels: [{ name: "A", on: "B7:3", by: "scope", kind: "steady", low: mean, high: mean, mean }],
  });
  test("what was recorded before a repair speaks of the machine as it was found: it no longer comes and goes", () => {
    const entry = recorded("B20:2/contactOpen", { places: [scope("B20:3")], doing: "move", presence: 0.05 });
    const repaired: Entry = { type: "repaired", at: AT, things: ["B20"], how: "cleaned" };
    expect(gather(new Predictor(wiring), [entry]).comesAndGoes).toBe(true);
    expect(gather(new Predictor(wiring), [entry, repaired]).comesAndGoes).toBe(false);
  });
  test("places recorded twice stand before and after, as readings do", () => {
    const repaired: Entry = { type: "repaired", at: AT, things: ["B7"], how: "cleaned" };
    expect(beforeAfter([low(AT, 0.2), repaired, low(AT, 1.4)], 2)).toEqual([
      expect.objectContaining({ point: "B7:3", before: { number: 1, value: 0.2 }, after: { number: 3, value: 1.4 } }),
    ]);
  });
  test("what a recording does to the suspects is a step of its own in their course", () => {
    const scan: Entry = { type: "code", at: AT, module: "A1", code: "P0237", status: "active" };
    const course = courseOf(new Focus(wiring).predictor([scan]), [scan, low(AT, 0.1)], ["B7"]);
    expect(course.map((p) => p.number)).toContain(2);
  });
});

const plug = (id: string, cavities: number) => ({
  id,
  cavities: Array.from({ length: cavities }, (_, i) => String(i + 1)),
  reachMinutes: 1,
});
const pulsed = wired({
  connectors: [plug("A1", 3), plug("H1", 2)],
  devices: [
    { kind: "battery", id: "BAT" },
    { kind: "ground", id: "G1" },
    { kind: "splice", id: "S1" },
    { kind: "fuse", id: "F1", rating: 10 },
    {
      kind: "module",
      id: "A1",
      pins: [
        { role: "supply", at: "A1:1" },
        { role: "ground", at: "A1:2" },
        { role: "lowSide", at: "A1:3", duty: 0.4 },
      ],
    },
    { kind: "heater", id: "H1", pins: { feed: "H1:1", ground: "H1:2" }, ohm: 6 },
  ],
  wires: [
    { from: "BAT:-", to: "G1" },
    { from: "BAT:+", to: "F1:in" },
    { from: "F1:out", to: "S1" },
    { from: "S1", to: "A1:1" },
    { from: "A1:2", to: "G1" },
    { from: "S1", to: "H1:1" },
    { from: "H1:2", to: "A1:3" },
  ],
  codes: [],
});

test("a recording tells a driver with a wrong duty from a dead one, a stuck one and its wiring", () => {
  const predictor = new Predictor(pulsed);
  const duty = predictor.faults.find((f) => f.id === "A1:3/dutyWrong")!;
  const state = { key: "running" as const, unplugged: [] };
  const places = [scope("H1:2")];
  const at = (severity: number | undefined) => {
    const faults = severity === undefined ? [] : [{ fault: duty, severity }];
    const recording = simulateRecording(new SimulatedMachine(pulsed, faults, 5), {
      places,
      state,
      doing: "run",
      seconds: 2,
      perSecond: 5_000,
      seed: 5,
    });
    const facts = recording.channels.map(factsOf);
    return traceEntry(recording, facts, [], { at: AT, state, doing: "run", places })!;
  };
  // the pin of a low-side driver is high while it is off: 1 - duty, as written above
  expect(at(undefined).channels[0]!.duty).toBeCloseTo(0.6, 1.5);
  const wrong = at(2);
  expect(wrong.channels[0]!.duty).toBeCloseTo(0.2, 1.5);
  const [leader, next] = suspects(pulsed, [wrong]);
  expect(leader!.members[0]!.faults.map((f) => f.id)).toEqual(["A1:3/dutyWrong"]);
  expect(leader!.share).toBeGreaterThan(10 * next!.share);
});

test("what stands still while it is recorded and moved clears what comes and goes better than a look", () => {
  const told: Entry = {
    type: "intake",
    at: AT,
    intake: { complaint: "", symptoms: ["comesAndGoes"], conditions: [], history: [], bulletins: [], safety: [] },
  } as never;
  const code: Entry = { type: "code", at: AT, module: "A1", code: "P0237", status: "stored" };
  const reading = (watched: object): Entry => ({
    type: "reading",
    at: AT,
    instrument: "voltmeter",
    points: ["B7:1"],
    values: [5],
    state: { key: "on", unplugged: [] },
    ...watched,
  });
  // what opens now and then between the module's reference and the plug of B7
  const open = (entries: readonly Entry[]) =>
    suspects(wiring, entries)
      .flatMap((s) => s.members)
      .filter((m) => m.faults.some((f) => /^(W11|S14)\//.test(f.id)))
      .reduce((sum, m) => sum + m.share, 0);
  const [before, looked, recordedFor] = [[], [reading({})], [reading({ watched: "recorded" })]].map((more) =>
    open([told, code, ...more]),
  ) as [number, number, number];
  expect(before).toBeGreaterThan(0);
  expect(recordedFor).toBeLessThan(0.7 * looked);
});

test("a speed signal with good levels that lacks pulses leads to the target, where the wiring knows its teeth", () => {
  const known = {
    ...wiring,
    devices: wiring.devices.map((d) =>
      d.id === "B2" && d.kind === "hall" ? { ...d, target: { teeth: 36, gap: 0 } } : d,
    ),
  };
  const code: Entry = { type: "code", at: AT, module: "A1", code: "P0335", status: "active" };
  const machine = new SimulatedMachine(wiring, [], 3);
  const state = { key: "cranking" as const, unplugged: [] };
  const logged = (lostTeeth: readonly number[]) => {
    const places = [scope("B2:3")];
    const recording = simulateRecording(machine, {
      places,
      state,
      doing: "crank",
      seconds: 3,
      perSecond: 4_000,
      seed: 3,
      lostTeeth,
    });
    return traceEntry(recording, recording.channels.map(factsOf), [], { at: AT, state, doing: "crank", places })!;
  };
  const target = (w: Wiring, entry: TraceEntry) =>
    suspects(w, [code, entry])
      .flatMap((s) => s.members)
      .filter((m) => m.faults.some((f) => f.id === "B2/targetDamaged"))
      .reduce((sum, m) => sum + m.share, 0);
  const broken = logged([7]);
  expect(broken.channels[0]!.gap).toEqual({ teeth: 35, missing: 1 });
  expect(target(known, broken)).toBeGreaterThan(0.5);
  expect(target(known, broken)).toBeGreaterThan(5 * target(known, logged([])));
  expect(target(wiring, broken)).toBeLessThan(target(known, broken)); // made so, for all the wiring says
  const [leader] = suspects(known, [code, broken]);
  expect(leader!.reasons.map(reasonText).join("\n")).toMatch(/B2 lacks pulses in the recording/);
});

test("values watched at once share their luck: two that stand still count as one, one that moves for both", () => {
  const value = (on: string, swing?: [number, number]): Entry => ({
    type: "reading",
    at: AT,
    instrument: "voltmeter",
    points: [on],
    values: [5],
    state: { key: "on", unplugged: [] },
    watched: "recorded",
    ...(swing ? { swing } : {}),
  });
  const predictor = new Predictor(wiring);
  const caught = (...entries: Entry[]) =>
    gather(predictor, entries).evidence.flatMap((e) => (e.kind === "reading" ? [e.caught] : []));
  const [alone] = caught(value("B7:1"));
  expect(alone).toBeGreaterThan(0.5);
  const two = caught(value("B7:1"), value("B7:3"));
  expect(two.reduce<number>((missed, c) => missed * (1 - c!), 1)).toBeCloseTo(1 - alone!, 9);
  const [still] = caught(value("B7:1"), value("B7:3", [0, 5]));
  expect(still).toBeGreaterThan(0.95);
  // on another plug, or at another time, it is another chance
  expect(caught(value("B7:1"), value("B2:1"))[0]).toBe(alone);
  expect(caught(value("B7:1"), { ...value("B7:3"), at: "2026-11-24T11:11:11Z" })[0]).toBe(alone);
});
