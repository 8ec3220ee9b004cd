import { assess, generateHarness, Predictor, SimulatedMachine, type Entry } from "../../src/index.js";
import { faultOn } from "../bench.js";

const AT = "2026-11-24T10:00:00Z";
/** Four wires of one conductor: which of them is shorted, no reading of volts tells. */
const ALIKE = ["W16", "W25", "W29", "W33"];

/** What a made-up machine shows with a wire shorted to the supply and the sensor ground open within its module. */
function logbook(): { readonly predictor: Predictor; readonly entries: readonly Entry[] } {
  const wiring = generateHarness({ nodes: 100, seed: 102 });
  const hidden = [
    { fault: faultOn(wiring, "W25/shortToSupply"), severity: 32.1 },
    { fault: faultOn(wiring, "A1:5/sensorGroundOpen"), severity: NaN },
  ];
  const machine = new SimulatedMachine(wiring, hidden, 643);
  const read = (point: string, unplugged: string[]): Entry => {
    const state = { key: "on" as const, unplugged };
    const values = [machine.read(point, state, "voltmeter")];
    return { type: "reading", at: AT, instrument: "voltmeter", points: [point], values, state };
  };
  return {
    predictor: new Predictor(wiring),
    entries: [
      {
        type: "scan",
        at: AT,
        when: "afterDrive",
        modules: ["A1"],
        codes: machine.codes().map((c) => ({ module: c.module, code: c.code, status: "active" as const })),
        disturbed: [],
        wiped: false,
      },
      ...["A1:4", "A1:8", "A1:5", "A1:9", "A1:6", "A1:7"].map((p) => read(p, [])),
      ...["X1a:1.a", "X1a:6.a", "X1a:7.a", "X1a:1.b"].map((p) => read(p, ["X1a"])),
    ],
  };
}

test("faults that do the same share what a set with one of them holds (once the one found first had it all)", () => {
  const { predictor, entries } = logbook();
  const { components } = assess(predictor, entries).posterior;
  const shareOf = (wire: string, other: string) =>
    components
      .filter((c) => {
        const ids = predictor.hypotheses[c.hypothesis]!.faults.map((f) => f.id);
        return ids.length === 2 && ids.includes(`${wire}/shortToSupply`) && ids.includes(other);
      })
      .reduce((sum, c) => sum + c.share, 0);
  const inModule = ALIKE.map((wire) => shareOf(wire, "A1:5/sensorGroundOpen"));
  const atTerminal = ALIKE.map((wire) => shareOf(wire, "A1:5/contactOpen"));
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
  // whether the terminal or the module behind it has lost the ground, and on which wire the short is, stays open
  expect(sum(inModule)).toBeGreaterThan(0.1);
  expect(sum(atTerminal)).toBeGreaterThan(0.1);
  for (const shares of [inModule, atTerminal]) expect(Math.max(...shares)).toBeLessThan(5 * Math.min(...shares));
});
