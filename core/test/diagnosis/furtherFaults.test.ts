import { withTwoReplaced } from "../../src/diagnosis/furtherFaults.js";
import {
  assess,
  findFault,
  generateHarness,
  Predictor,
  SimulatedMachine,
  type Entry,
  type State,
} from "../../src/index.js";
import { scanned } from "../helpers.js";

const at = "2026-01-01T08:00:00Z";
const on = (...unplugged: string[]): State => ({ key: "on", unplugged });
/** Where readings are taken, in this order: of the two faults one sets no code, and hides what the other does. */
const PLACES: readonly (readonly [string, State])[] = [
  ["A1:10", on()],
  ["A1:11", on()],
  ["A1:6", on()],
  ["A1:12", on()],
  ["X1a:6.b", on("X1a")],
  ["X1a:6.a", on("X1a")],
  ["B1a4:1", on()],
  ["X1a:1.b", on()],
  ["X1a:3.a", on()],
  ["X1a:5.b", on()],
  ["X1a:1.b", on("X1a")],
  ["X1a:4.b", on("X1a")],
];

/** A made-up machine with two faults in it, as a simulated technician would log it. */
function logged(faults: readonly (readonly [string, number])[]): { predictor: Predictor; entries: Entry[] } {
  const wiring = generateHarness({ nodes: 100, seed: 4 });
  const predictor = new Predictor(wiring);
  const hidden = faults.map(([id, severity]) => ({ fault: findFault(predictor.faults, id)!.fault, severity }));
  const machine = new SimulatedMachine(wiring, hidden, 17);
  const entries: Entry[] = machine
    .codes()
    .map((c) => ({ type: "code", at, module: c.module, code: c.code, status: "active" }));
  for (const [point, state] of PLACES) {
    const value = Math.round(100 * machine.read(point, state, "voltmeter")) / 100;
    entries.push({ type: "reading", at, instrument: "voltmeter", points: [point], values: [value], state });
  }
  return { predictor, entries };
}

const PAIR = [
  ["A1:5+6/cavitiesSwapped", Number.NaN],
  ["W35+W37/shortToWire", 21.4],
] as const;

test("two faults of which one hides what the other does are found by solving every other one beside the first", () => {
  const { predictor, entries } = logged(PAIR);
  const { posterior } = assess(predictor, entries);
  const held = new Map<string, number>();
  for (const c of posterior.components) {
    const name = predictor.hypotheses[c.hypothesis]!.faults.map((f) => f.id)
      .sort()
      .join(" ");
    held.set(name, (held.get(name) ?? 0) + c.share);
  }
  const best = [...held].sort((a, b) => b[1] - a[1]).slice(0, 3);
  const hidden = PAIR.map(([id]) => id)
    .sort()
    .join(" ");
  // a short between the same two conductors does the same, as far as was read
  expect(best.map(([name]) => name)).toContain(hidden);
  expect(held.get(hidden)).toBeGreaterThan(0.15);
}, 60_000);

test("what is tried on the way leaves nothing behind: the same logbook is weighed alike once more", () => {
  const { predictor, entries } = logged(PAIR);
  const once = assess(predictor, entries).posterior;
  const count = predictor.hypotheses.length;
  const again = assess(predictor, entries).posterior;
  expect(predictor.hypotheses.length).toBe(count);
  again.components.slice(0, 5).forEach((c, i) => expect(c.share).toBeCloseTo(once.components[i]!.share, 9));
  // and by one that has seen other logbooks before
  const other = new Predictor(predictor.wiring);
  assess(other, entries.slice(0, 6));
  const fresh = assess(other, entries).posterior;
  expect(fresh.components[0]!.share).toBeCloseTo(once.components[0]!.share, 9);
}, 60_000);

test("stopped, no further fault is looked for, and what was weighed by then stands", () => {
  const { predictor, entries } = logged(PAIR);
  const stopped = assess(predictor, entries, { stop: () => true });
  const { posterior, multiple } = stopped;
  expect(posterior.components.reduce((a, c) => a + c.share, posterior.notHere)).toBeCloseTo(1, 3);
  const isPair = (members: readonly number[]) =>
    members
      .map((h) => predictor.faults[h - 1]!.id)
      .sort()
      .join(" ") ===
    PAIR.map(([id]) => id)
      .sort()
      .join(" ");
  expect(multiple.some((m) => isPair(m.members))).toBe(false);
  expect(assess(predictor, entries).multiple.some((m) => isPair(m.members))).toBe(true);
}, 60_000);

test("two faults that set codes only together are found; a module that would not answer explains no scan value", () => {
  const predictor = new Predictor(generateHarness({ nodes: 100, seed: 74 }));
  const scan = (point: string, value: number): Entry => ({
    type: "reading",
    at,
    instrument: "scanTool",
    points: [point],
    values: [value],
    state: on(),
  });
  const { posterior } = assess(predictor, [
    scanned(["R1a", "DB1a2", "HA1:8", "HA1:9"]),
    scan("A1:6", 12.37),
    scan("A1:8", 7.98),
    scan("A1:7", 7.77),
  ]);
  // a ground that is open, and a signal at the supply which then lifts what hangs on that ground
  expect(posterior.notHere).toBeLessThan(0.5);
  const [lead] = posterior.components;
  const faults = predictor.hypotheses[lead!.hypothesis]!.faults;
  expect(faults).toHaveLength(2);
  expect(faults.some((f) => f.mode.startsWith("short"))).toBe(true);
}, 60_000);

test("what does well in the place of one member, and of another, is tried together in the place of both", () => {
  const at = (...list: number[]) => list.map((h) => ({ h, severity: 0 }));
  // 1 and 2 lead; 3 does as well as 1, 4 and 5 as well as 2; 6 and 7 do well without either
  const found = [at(1, 2), at(3, 2), at(1, 4), at(1, 5), at(6, 7)].map((faults) => ({ faults }));
  const tried = withTwoReplaced(at(1, 2), found).map((set) => set.map((f) => f.h));
  expect(tried).toEqual([
    [3, 4],
    [3, 5],
  ]);
  // of three, the third stays
  const ofThree = [at(4, 2, 3), at(1, 5, 3)].map((faults) => ({ faults }));
  expect(withTwoReplaced(at(1, 2, 3), ofThree).map((set) => set.map((f) => f.h))).toEqual([[3, 4, 5]]);
});
