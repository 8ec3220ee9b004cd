import { faultOn } from "../bench.js";
import { playedRun, broken } from "../playedRuns.js";
import {
  deviceConnectors,
  findNets,
  generateFaults,
  generateHarness,
  Predictor,
  severityOffGrid,
  SimulatedMachine,
  uniform,
  wireId,
  type Wiring,
} from "../../src/index.js";
import { tug, wiring } from "../helpers.js";

/**
 * A weak reference with sensors that take a good part of its current each, so that unplugging a healthy one brings part
 * of it back.
 */
function heavy(seed: number): Wiring {
  const u = uniform(seed);
  const count = 3 + Math.floor(u() * 4);
  const ids = Array.from({ length: count }, (_, i) => `B${i + 1}`);
  return wiring({
    connectors: [
      { id: "A1", cavities: ["1", "2", "3", "4", ...ids.map((_, i) => String(10 + i))] },
      ...ids.map((id) => ({ id, cavities: ["1", "2", "3"], reachMinutes: 1 + Math.floor(u() * 5) })),
    ],
    devices: [
      { kind: "battery", id: "BAT" },
      { kind: "ground", id: "G1" },
      { kind: "splice", id: "S1" },
      { kind: "splice", id: "S2" },
      {
        kind: "module",
        id: "ECU",
        pins: [
          { role: "supply", at: "A1:1" },
          { role: "ground", at: "A1:2" },
          { role: "reference", at: "A1:3", limitAmpere: 0.1, ohm: 1 },
          { role: "sensorGround", at: "A1:4" },
          ...ids.map((_, i) => ({ role: "input", at: `A1:${10 + i}`, pull: "down" })),
        ],
      },
      ...ids.map((id) => ({
        kind: "potentiometer",
        id: `P${id}`,
        pins: { supply: `${id}:1`, ground: `${id}:2`, signal: `${id}:3` },
        trackOhm: 300 + 400 * u(),
      })),
    ],
    wires: [
      { from: "BAT:+", to: "A1:1" },
      { from: "BAT:-", to: "G1" },
      { from: "A1:2", to: "G1" },
      { from: "A1:3", to: "S1" },
      { from: "A1:4", to: "S2" },
      ...ids.flatMap((id, i) => [
        { from: "S1", to: `${id}:1` },
        { from: "S2", to: `${id}:2` },
        { from: `${id}:3`, to: `A1:${10 + i}` },
      ]),
    ],
  });
}

describe("unplug one at a time", () => {
  test("finds the culprit in all of 200 and more shorts on a shared feed, part recovery included", () => {
    let tried = 0;
    let parts = 0;
    const wrong: string[] = [];
    const attempt = (w: Wiring, predictor: Predictor, seed: number) => {
      const nets = findNets(w);
      const u = uniform(seed);
      for (const fault of generateFaults(w)) {
        if (fault.mode !== "shortSupplyGround") continue;
        const d = w.devices.find((x) => x.id === fault.place.id)!;
        const supply = "pins" in d && !Array.isArray(d.pins) && "supply" in d.pins ? d.pins.supply : undefined;
        const pin = supply === undefined ? undefined : nets.modulePinOf(supply);
        if (pin === undefined || nets.functionOf(pin) !== "reference") continue;
        for (let rep = 0; rep < 5; rep++) {
          const severity = severityOffGrid(fault, (rep + u()) / 5);
          const run = playedRun(
            predictor,
            new SimulatedMachine(w, [{ fault, severity }], seed * 1000 + tried),
            "unplugSeries",
            pin,
          );
          if (run.finding?.says.code === "run.shared-is-well") continue; // a short too weak to pull it down is none yet
          tried++;
          if (run.taken.some((t) => t.mark === "part")) parts++;
          if (run.finding?.verdict !== "found" || run.finding.things.join() !== deviceConnectors(d).join())
            wrong.push(`${seed} ${fault.id} ${severity}: ${JSON.stringify(run.finding?.says)}`);
        }
      }
    };
    for (let seed = 1; seed <= 8; seed++) {
      const w = generateHarness({ nodes: 80, seed, nominalVolt: seed % 2 ? 12 : 24 });
      attempt(w, new Predictor(w), seed);
    }
    for (let seed = 101; seed <= 112; seed++) {
      const w = heavy(seed);
      attempt(w, new Predictor(w), seed);
    }
    expect(wrong).toEqual([]);
    expect(tried).toBeGreaterThanOrEqual(200);
    expect(parts).toBeGreaterThan(20);
  });
  test("two shorted sensors are both named, and what lies in the wiring is not blamed on a part", () => {
    const w = heavy(103);
    const predictor = new Predictor(w);
    const pin = "A1:3";
    const two = new SimulatedMachine(
      w,
      ["PB1/shortSupplyGround", "PB3/shortSupplyGround"].map((id) => ({ fault: faultOn(w, id), severity: 3 })),
      9,
    );
    expect([...playedRun(predictor, two, "unplugSeries", pin).finding!.things].sort()).toEqual(["B1", "B3"]);
    const wire = playedRun(predictor, broken(w, "A1:3~S1/shortToChassis", 2), "unplugSeries", pin);
    expect(wire.finding!.says.code).toBe("run.still-down");
    expect(wire.finding!.things).toEqual([]);
  });
  test("a step that cannot be taken is skipped, and the run still ends", () => {
    const w = heavy(103);
    const run = playedRun(new Predictor(w), broken(w, "PB2/shortSupplyGround", 3), "unplugSeries", "A1:3", (id) =>
      /-.*B2/.test(id),
    );
    expect(run.finding!.verdict).toBe("unclear");
  });
});

describe("a fuse that blows", () => {
  test("breaker and plug-back find the culprit in all of 200 and more cases", () => {
    let tried = 0;
    const wrong: string[] = [];
    for (let seed = 1; tried < 205 && seed < 80; seed++) {
      const w = generateHarness({ nodes: 60, seed, nominalVolt: seed % 2 ? 12 : 24 });
      const predictor = new Predictor(w);
      const u = uniform(seed);
      for (const fault of generateFaults(w)) {
        if (!["shortSupplyGround", "shortInside", "shortToChassis"].includes(fault.mode)) continue;
        const machine = new SimulatedMachine(w, [{ fault, severity: 0.05 + 0.08 * u() }], seed * 100 + tried);
        const plain = { key: "on" as const, unplugged: [] };
        const fuse = w.devices.find(
          (d) =>
            d.kind === "fuse" &&
            machine.read(`${d.id}:in`, plain, "voltmeter") > 6 &&
            machine.read(`${d.id}:out`, plain, "voltmeter") < 3,
        );
        if (!fuse) continue;
        tried++;
        const run = playedRun(predictor, machine, "fuseRun", fuse.id);
        const own = w.devices.find((d) => d.id === fault.place.id);
        const things = run.finding!.things;
        const right = own
          ? things.length === 1 && deviceConnectors(own).includes(things[0]!)
          : run.finding!.says.code === "run.fuse-wiring"
            ? reaches(w, fuse.id, undefined, fault.place.id)
            : things.length === 1 && !reaches(w, fuse.id, things[0], fault.place.id);
        if (!right) wrong.push(`${seed} ${fault.id} ${fuse.id}: ${JSON.stringify(run.finding?.says)}`);
      }
    }
    expect(wrong).toEqual([]);
    expect(tried).toBeGreaterThanOrEqual(200);
  });
  /** whether a wire still hangs on the fuse with one connector, or all in-line ones, taken apart */
  function reaches(w: Wiring, fuse: string, without: string | undefined, wire: string): boolean {
    const links = [
      ...w.wires.map((x) => [x.from, x.to] as const),
      ...w.connectors.flatMap((c) =>
        c.inline && without !== undefined && c.id !== without
          ? c.cavities.map((x) => [`${c.id}:${x}.a`, `${c.id}:${x}.b`] as const)
          : [],
      ),
    ];
    const seen = new Set([`${fuse}:out`]);
    for (let grown = true; grown;) {
      grown = false;
      for (const [a, b] of links)
        for (const [x, y] of [
          [a, b],
          [b, a],
        ] as const)
          if (seen.has(x) && !seen.has(y)) {
            seen.add(y);
            grown = true;
          }
    }
    const found = w.wires.find((x) => wireId(x) === wire);
    return found !== undefined && seen.has(found.from);
  }
  test("with everything sound the breaker holds, and the run says so", () => {
    const w = tug();
    const run = playedRun(
      new Predictor(w),
      new SimulatedMachine(w, [], 4),
      "fuseRun",
      w.devices.find((d) => d.kind === "fuse")!.id,
    );
    expect(run.finding!.says.code).toBe("run.fuse-holds");
    expect(
      run.entries
        .filter((e) => e.type === "holds")
        .every((e) => e.type === "holds" && e.held && e.state.breakers?.length === 1),
    ).toBe(true);
  });
});
