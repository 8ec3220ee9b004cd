import {
  findFault,
  generateFaults,
  levelsOf,
  netlist,
  SimulatedMachine,
  simulateRecording,
  factsOf,
  solutionOf,
} from "../../src/index.js";
import { tug } from "../helpers.js";
import { spiceMany, spiceOverTime } from "../spice.js";

// Reference program: ngspice, an operating point for steel at the tip and one for none, on the exported circuit.
test("levels of a recorded speed sensor lie within 10 mV or 1 % of what ngspice finds, healthy and with faults", () => {
  const wiring = tug();
  const faults = generateFaults(wiring);
  const state = { key: "running" as const, unplugged: [] };
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
      doing: "run",
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

// Reference program: ngspice, a transient analysis of the exported circuit; the battery is a sine of 5 %
test("the ripple of a supply while cranking lies within 10 mV or 1 % of ngspice's transient analysis", () => {
  const wiring = tug();
  const machine = new SimulatedMachine(wiring, [], 11);
  const state = { key: "cranking" as const, unplugged: [] };
  const points = ["BAT:+", "F12:out", "B7:1", "B2:1"];
  const { channels } = simulateRecording(machine, {
    places: points.map((on) => ({ on, by: "scope" as const })),
    state,
    doing: "crank",
    seconds: 1,
    perSecond: 5_000,
    seed: 1,
  });
  const s = machine.rig.settled(state, { steel: false });
  const lines = netlist("ripple", s.conditions, machine.rig.edit(state), solutionOf(s)).split("\n");
  const at = lines.findIndex((l) => l === "* battery BAT") + 1;
  const [name, plus, minus, volt] = lines[at]!.split(" ");
  const sine = `${name} ${plus} ${minus} SIN(${volt} ${0.05 * Number(volt)} 8)`;
  const text = lines.map((l, i) => (i === at ? sine : l)).join("\n");
  const spans = spiceOverTime(
    text,
    points.map((p) => `n${machine.rig.node(p, state)!}`),
    0.25,
  );
  points.forEach((point, i) => {
    const { least, most } = factsOf(channels[i]!);
    const noise = 5 * 0.008; // of the simulated scope, volt: its largest of 5 000
    for (const [got, wanted] of [
      [least, spans[i]!.least],
      [most, spans[i]!.most],
    ] as const)
      expect([point, Math.abs(got - wanted) <= noise + Math.max(0.01, 0.01 * Math.abs(wanted))]).toEqual([point, true]);
    // a reference does not follow its supply
    expect([point, spans[i]!.most - spans[i]!.least > 0.5]).toEqual([point, point !== "B7:1"]);
  });
});
