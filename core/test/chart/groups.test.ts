import {
  addGroup,
  buildChart,
  devicePins,
  emptyChart,
  findNets,
  GROUP_SIZES,
  GROUPS,
  partRow,
  chartRow,
  SimulatedMachine,
  findFault,
  generateFaults,
  type Chart,
  type GroupKind,
} from "../../src/index.js";

const laid = (chart: Chart, kind: GroupKind, members?: number) => {
  const { rows, parts, ids } = addGroup(chart, kind, members);
  return { ids, chart: { ...chart, rows: [...chart.rows, ...rows], parts: [...chart.parts, ...parts] } };
};
/** Battery, key-less feed and a ground, so that a group can be solved. */
const powered = (chart: Chart): Chart => ({
  ...chart,
  rows: [
    chartRow({ connector: "BAT", cavity: "+", goesTo: "F1:in" }),
    chartRow({ connector: "BAT", cavity: "-", goesTo: "G1" }),
    ...chart.rows,
  ],
  parts: [partRow({ id: "BAT", kind: "battery" }), ...chart.parts],
});

describe.each(GROUPS)("%s", (kind) => {
  const { least, most, usual } = GROUP_SIZES[kind];
  test.each([...new Set([least, usual, most])])("with %d members reads as a wiring without a refused cell", (n) => {
    const { chart, ids } = laid(emptyChart("new"), kind, n);
    const { wiring, issues } = buildChart(chart);
    expect(issues.filter((i) => !i.code.startsWith("chart.guess"))).toEqual([]);
    expect(new Set(ids).size).toBe(ids.length);
    expect(wiring.wires.length).toBeGreaterThanOrEqual(n);
    // no cavity of a member is left in the air; of a fuse the feeding side is
    const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
    const pins = wiring.devices.flatMap((d) => (d.kind === "fuse" ? [] : devicePins(d).map((p) => p.at)));
    expect(pins.length).toBeGreaterThanOrEqual(2 * n);
    expect(pins.filter((at) => !wired.has(at))).toEqual([]);
  });
  test("twice in one chart, and out of range, gives new names every time", () => {
    const once = laid(emptyChart("new"), kind);
    const twice = laid(once.chart, kind, 1e9);
    expect(once.ids.filter((id) => twice.ids.includes(id))).toEqual([]);
    expect(addGroup(emptyChart(), kind, NaN).ids.length).toBeGreaterThan(0);
    const { issues } = buildChart(twice.chart);
    expect(issues.filter((i) => !i.code.startsWith("chart.guess"))).toEqual([]);
  });
});

test("a shared reference joins every member at one splice, and takes free cavities of the one module there is", () => {
  const chart: Chart = {
    ...emptyChart("old"),
    rows: [
      chartRow({ connector: "A7", cavity: "3", function: "signal", goesTo: "B9:3" }),
      chartRow({ connector: "B8", cavity: "1", goesTo: "A7:12" }),
    ],
    parts: [partRow({ id: "A7", kind: "module" })],
  };
  const { wiring } = buildChart(laid(chart, "sharedReference", 6).chart);
  const module = wiring.devices.find((d) => d.id === "A7")!;
  const pins = module.kind === "module" ? module.pins.map((p) => p.at) : [];
  expect(pins).toEqual(expect.arrayContaining(["A7:3", "A7:13", "A7:14", "A7:15", "A7:20"]));
  const nets = findNets(wiring);
  const sensors = wiring.devices.filter((d) => d.kind === "threeWireSensor");
  expect(sensors.length).toBe(6);
  expect(new Set(sensors.map((d) => nets.netOf.get(d.pins.supply))).size).toBe(1);
  expect(new Set(sensors.map((d) => nets.netOf.get(d.pins.signal))).size).toBe(6);
  expect(nets.functionOf(sensors[0]!.pins.supply)).toBe("reference");
});

// common practice, no source: heaters on one bar behind a fuse all stand at battery voltage, and at none without it
test("heaters on a bar are fed through its fuse", () => {
  const { wiring } = buildChart(powered(laid(emptyChart("bar"), "heaterBridge").chart));
  const state = { key: "on" as const, unplugged: [] };
  const heaters = wiring.devices.filter((d) => d.kind === "heater");
  expect(heaters.length).toBe(4);
  const volts = (fault?: string) => {
    const found =
      fault === undefined ? [] : [{ fault: findFault(generateFaults(wiring), fault)!.fault, severity: NaN }];
    const machine = new SimulatedMachine(wiring, found, 1);
    return heaters.map((h) => machine.read(h.pins.feed, state, "voltmeter"));
  };
  for (const v of volts()) expect(v).toBeGreaterThan(10);
  for (const v of volts("F1/fuseBlown")) expect(Math.abs(v)).toBeLessThan(0.5);
});
