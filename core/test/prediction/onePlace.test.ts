import type { Instrument, State } from "../../src/format/case.js";
import { Predictor } from "../../src/index.js";
import { voltmeter } from "../../src/instruments/meter.js";
import { Rig } from "../../src/instruments/rig.js";
import { measureOhms, meltedFuses, nodeVolt } from "../../src/network/observe.js";
import type { ReadingPlace } from "../../src/prediction/piece.js";
import type { Predicted } from "../../src/prediction/predictionCache.js";
import { random, tug } from "../helpers.js";

const STATES: readonly State[] = [
  { key: "on", unplugged: [] },
  { key: "on", unplugged: ["X5"] },
  { key: "off", unplugged: ["A1"] },
];
const INSTRUMENTS: readonly Instrument[] = ["voltmeter", "ohmmeter", "scanTool", "clamp"];
/** Volt, ohm or ampere, sample by sample. */
function sameAs(predictor: Predictor, h: number, one: Predicted, other: Predicted): void {
  for (let s = 0; s < predictor.hypotheses[h]!.samples; s++) {
    const [a, b] = [one.at(s), other.at(s)];
    if (!Object.is(a, b)) expect(Math.abs(a - b)).toBeLessThan(1e-4 * Math.max(1, Math.abs(b)));
  }
}

test("one place by itself, and a column without what a meter pulls down, show what the whole column does", () => {
  const [whole, part] = [new Predictor(tug()), new Predictor(tug())];
  const next = random(7);
  const wires = whole.wiring.wires.map((w) => w.id);
  const pins = ["A1:2", "A1:5", "A1:9", "A1:12"];
  let compared = 0;
  for (let i = 0; i < 60; i++) {
    const h = Math.floor(next() * whole.hypotheses.length);
    const other = Math.floor(next() * whole.hypotheses.length);
    const state = STATES[i % STATES.length]!;
    const instrument = INSTRUMENTS[Math.floor(next() * INSTRUMENTS.length)]!;
    const names = { scanTool: pins, clamp: wires, voltmeter: whole.points, ohmmeter: whole.points }[
      instrument as "voltmeter"
    ];
    const point = names[Math.floor(next() * names.length)]!;
    const e: ReadingPlace = { instrument, point, state, black: undefined };
    if (part.placeOf(instrument, point) === undefined) continue;
    const expected = whole.predictAt(h, e);
    // twice, with another fault in between: what a solver holds of one must not be taken for the other
    sameAs(part, h, part.predictAlone(h, e), expected);
    part.predictAlone(other, { ...e, point: names[0]! });
    sameAs(part, h, part.predictBarely(h, e), expected);
    compared++;
  }
  expect(compared).toBeGreaterThan(40);
});

test("readings in one state share a solution, and sets that differ in what melts no fuse share what melts", () => {
  const predictor = new Predictor(tug());
  const number = (id: string) => 1 + predictor.faults.findIndex((f) => f.id === id);
  const short = predictor.faults.find((f) => f.mode === "shortToChassis")!.id;
  const pair = predictor.combine([number(short), number("B7:1/contactHighResistance")], [[0], [3]], 1);
  const first = new Uint8Array(predictor.hypotheses[pair]!.samples);
  first[0] = 1;
  const at = (point: string) =>
    predictor.predictAlone(pair, { instrument: "voltmeter", point, state: STATES[1]! }, first);
  at("A1:1");
  const before = predictor.solves;
  at("A1:2");
  expect(predictor.solves).toBe(before);
  const more = predictor.combine([number(short), number("B7:2/contactHighResistance")], [[0], [3]], 1);
  predictor.predictAlone(more, { instrument: "voltmeter", point: "A1:1", state: STATES[1]! }, first);
  expect(predictor.solves).toBe(before + 1); // and not another one for the fuses
});

/** The machine itself melts its fuses with every fault in place, whatever each is. */
test("with a short that melts its fuse and a contact of some ohms, every point reads as on the machine itself", () => {
  const predictor = new Predictor(tug(), 1, 1);
  const resistance = predictor.faults.findIndex((f) => f.id === "B7:1/contactHighResistance") + 1;
  const contact = {
    fault: predictor.faults[resistance - 1]!,
    severity: predictor.faults[resistance - 1]!.severities[2]!,
  };
  const state = STATES[1]!;
  let melted = 0;
  predictor.faults.forEach((fault, i) => {
    if (fault.mode !== "shortToChassis") return;
    const rig = new Rig(predictor.wiring, [{ fault, severity: fault.severities[0]! }, contact]);
    if (meltedFuses(rig.settled({ key: "on", unplugged: [] })).length === 0) return;
    melted++;
    const pair = predictor.combine([i + 1, resistance], [[0], [2]], 1);
    const solver = rig.settled(state);
    measureOhms(solver);
    for (const point of predictor.points) {
      const node = rig.node(point, state)!;
      const shown = voltmeter(solver, node);
      if (Math.abs(nodeVolt(solver, node) - shown) > 0.01) continue; // it hangs on the meter
      expect(predictor.predictAlone(pair, { instrument: "voltmeter", point, state }).at(0)).toBeCloseTo(shown, 2);
    }
  });
  expect(melted).toBeGreaterThan(0);
});
