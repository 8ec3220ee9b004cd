import {
  findFault,
  generateFaults,
  levelsOf,
  netlist,
  SimulatedMachine,
  simulateRecording,
  solutionOf,
} from "../../src/index.js";
import { tug } from "../helpers.js";
import { spiceMany } from "../spice.js";

// Reference program: ngspice, an operating point for steel at the tip and one for none, on the exported circuit.
test("levels of a recorded speed sensor lie within 10 mV or 1 % of what ngspice finds, healthy and with faults", () => {
  const wiring = tug();
  const faults = generateFaults(wiring);
  const state = { key: "cranking" as const, unplugged: [] };
  const hidden = [
    undefined,
    "B2:2/contactHighResistance@300",
    "B2:1/contactHighResistance@1200",
    "W41/highResistance@80",
  ];
  const cases = hidden.map((id, i) => {
    const found = id === undefined ? undefined : findFault(faults, id)!;
    const machine = new SimulatedMachine(
      wiring,
      found ? [{ fault: found.fault, severity: found.ohm ?? NaN }] : [],
      11 + i,
    );
    const { channels } = simulateRecording(machine, {
      places: [{ on: "B2:3", by: "scope" }],
      state,
      doing: "crank",
      seconds: 1,
      perSecond: 10_000,
      seed: i,
    });
    const texts = [true, false].map((steel) => {
      const s = machine.rig.settled(state, { steel });
      return netlist("level", s.conditions, machine.rig.edit(state), solutionOf(s));
    });
    return { id, levels: levelsOf(channels[0]!)!, texts, node: machine.rig.node("B2:3", state)! };
  });
  const solved = spiceMany(cases.flatMap((c) => c.texts));
  cases.forEach(({ id, levels, node }, i) => {
    const volts = [solved[2 * i]!.get(`n${node}`)!, solved[2 * i + 1]!.get(`n${node}`)!].sort((a, b) => a - b);
    const near = (got: number, wanted: number) => Math.abs(got - wanted) <= Math.max(0.01, 0.01 * Math.abs(wanted));
    expect([id, levels.isSwitching, near(levels.low, volts[0]!), near(levels.high, volts[1]!)]).toEqual([
      id,
      true,
      true,
      true,
    ]);
  });
});
