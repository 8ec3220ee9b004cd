import { playedRun, broken } from "../playedRuns.js";
import {
  deviceConnectors,
  findNets,
  generateFaults,
  parseWiring,
  Predictor,
  RUNS,
  runPlaces,
  runView,
  severityOffGrid,
  SimulatedMachine,
  wireId,
  type RunName,
  type Wiring,
} from "../../src/index.js";
import { demoText, tug } from "../helpers.js";

const AT = "2026-11-24T09:00:00Z";
const parsed = (file: string): Wiring => {
  const r = parseWiring(demoText(file));
  if (!r.ok) throw new Error(file);
  return r.value;
};

const w = tug();
const predictor = new Predictor(w);
const finish = (machine: SimulatedMachine, run: Exclude<RunName, "wiggle">, on: string) =>
  playedRun(predictor, machine, run, on).finding!;
const healthy = () => new SimulatedMachine(w, [], 11);
const sensor = w.devices.find(
  (d) => d.kind === "threeWireSensor" && findNets(w).functionOf(d.pins.supply) === "reference",
)!;
const pins = (sensor as { pins: { supply: string; ground: string; signal: string } }).pins;

describe("runs on voltage drop and jumpers, each played to its end on the tug", () => {
  test("jumpers prove wiring and module where the sensor is dead, and name the wire where it is open", () => {
    expect(finish(broken(w, `${sensor.id}/dead`, 1), "jumpers", sensor.id)).toMatchObject({
      verdict: "found",
      things: [sensor.id],
      says: { code: "run.wiring-proven" },
    });
    const signal = w.wires.find((x) => x.from === pins.signal || x.to === pins.signal)!;
    const open = finish(broken(w, `${wireId(signal)}/open`, 1), "jumpers", sensor.id);
    expect(["run.does-not-follow", "run.pin-not-right"]).toContain(open.says.code);
  });
  test("a jumper to full scale goes through 1 kΩ, unplugged, and only towards a reference", () => {
    const run = playedRun(predictor, healthy(), "jumpers", sensor.id);
    const high = run.taken.filter((t) => t.step.state.jumpers?.some((j) => j.to === pins.supply));
    expect(high).toHaveLength(1);
    expect(high[0]!.step.state.jumpers![0]!.ohm).toBe(1000); // common practice, no source
    expect(high[0]!.step.state.unplugged).toEqual([pins.signal.split(":")[0]]);
    const fed = w.devices.filter(
      (d) =>
        "pins" in d &&
        !Array.isArray(d.pins) &&
        "supply" in d.pins &&
        findNets(w).functionOf(d.pins.supply!) === "feed",
    );
    for (const d of fed)
      expect(
        playedRun(predictor, healthy(), "jumpers", d.id).taken.some((t) =>
          t.step.state.jumpers?.some((j) => j.to === (d as unknown as { pins: { supply: string } }).pins.supply),
        ),
      ).toBe(false);
  });
  test("a ground is bad when it drops, and good when it does not", () => {
    const ground = w.devices.find((d) => d.kind === "module")!;
    const at = (ground as { pins: { role: string; at: string }[] }).pins.find((p) => p.role === "ground")!.at;
    expect(finish(healthy(), "groundProof", at).says.code).toBe("run.ground-good");
    const wire = w.wires.find((x) => x.from === at || x.to === at)!;
    expect(finish(broken(w, `${wireId(wire)}/highResistance`, 2), "groundProof", at).says.code).toBe("run.ground-bad");
  });
  test("section by section, and by halves, the drop is found where it is", () => {
    const net = w.wires.find((x) => x.to === pins.supply || x.from === pins.supply)!;
    const wire = wireId(net);
    const lame = () => broken(w, `${wire}/highResistance`, 150);
    expect(finish(lame(), "dropBySection", pins.supply).things).toContain(wire);
    expect(finish(lame(), "halveRun", pins.supply).things).toContain(wire);
    expect(finish(healthy(), "halveRun", pins.supply).says.code).toBe("run.end-is-well");
    expect(finish(healthy(), "dropBySection", pins.supply).says.code).toBe("run.no-section-drops");
  });
  test("a few strands left pass a beeper and fail the lamp; a whole wire lights it", () => {
    const signal = w.wires.find((x) => x.from === pins.signal || x.to === pins.signal)!;
    const id = wireId(signal);
    expect(finish(healthy(), "loadWire", pins.signal).says.code).toBe("run.wire-carries");
    expect(finish(broken(w, `${id}/fewStrands`, 28), "loadWire", pins.signal).says.code).toBe("run.wire-weak");
    const run = playedRun(predictor, healthy(), "loadWire", pins.signal);
    const lit = run.taken.find((t) => t.step.instrument === "lamp")!;
    // back-feed only a wire isolated at both ends (common practice, no source)
    expect(lit.step.state.unplugged).toEqual(
      [...new Set([pins.signal, findNets(w).modulePinOf(pins.signal)!].map((p) => p.split(":")[0]!))].sort(),
    );
  });
  test("a wire that still has voltage on it is not fed", () => {
    const signal = w.wires.find((x) => x.from === pins.signal || x.to === pins.signal)!;
    const id = wireId(signal);
    const short = generateFaults(w).find((f) => f.mode === "shortToSupply" && f.place.id === id);
    if (!short) throw new Error("the tug has no such fault");
    const run = playedRun(
      predictor,
      new SimulatedMachine(w, [{ fault: short, severity: 0.5 }], 3),
      "loadWire",
      pins.signal,
    );
    expect(run.finding!.says.code).toBe("run.not-isolated");
    expect(run.taken.some((t) => t.step.instrument === "lamp")).toBe(false);
  });
  test("both ends of a signal agree on a sound wire, and differ over a resistance", () => {
    expect(finish(healthy(), "farEnd", pins.signal).says.code).toBe("run.ends-agree");
    // a pulled-up sensor draws current through its wire: a divider makes the two ends differ
    const thermistor = w.devices.find((d) => d.kind === "thermistor") as { pins: { signal: string } };
    const wire = wireId(w.wires.find((x) => x.from === thermistor.pins.signal || x.to === thermistor.pins.signal)!);
    expect(finish(healthy(), "farEnd", thermistor.pins.signal).says.code).toBe("run.ends-agree");
    const differ = finish(broken(w, `${wire}/highResistance`, 600), "farEnd", thermistor.pins.signal);
    expect(differ.says.code).toBe("run.ends-differ");
    expect(differ.things).toContain(wire);
  });
});

describe("runs that compare and try out, each played to its end on the tug", () => {
  test("the good side beside the bad side: what the bad one lacks is named", () => {
    const other = w.devices.find((d) => d.kind === sensor.kind && d.id !== sensor.id)!;
    expect(finish(healthy(), "compareTwin", sensor.id).says.code).toBe("run.twin-agrees");
    const ground = w.wires.find((x) => x.from === pins.ground || x.to === pins.ground)!;
    const lame = finish(broken(w, `${wireId(ground)}/open`, 1), "compareTwin", sensor.id);
    expect(lame).toMatchObject({ verdict: "found", things: [pins.ground], says: { code: "run.twin-differs" } });
    expect(other.id).not.toBe(sensor.id);
  });
  test("two like parts changed over: what goes with the part is the part", () => {
    const boat = parsed("whimbrel.wiring.json");
    const on = runPlaces(boat, "swapTwins")[0]!;
    const [part] = on.split(" ");
    const dead = generateFaults(boat).find((f) => f.place.id === part && f.place.type === "device")!;
    const p = new Predictor(boat);
    expect(
      playedRun(
        p,
        new SimulatedMachine(boat, [{ fault: dead, severity: severityOffGrid(dead, 0.5) }], 3),
        "swapTwins",
        on,
      ).finding!.says.code,
    ).toBe("run.went-with-part");
    expect(playedRun(p, new SimulatedMachine(boat, [], 3), "swapTwins", on).finding!.says.code).toBe(
      "run.stayed-with-wiring",
    );
    expect(runPlaces(boat, "swapTwins")).toContain("B71 B81"); // port and starboard, by name
  });
  test("a part by itself, and a new one before it goes in", () => {
    const two = w.devices.find(
      (d) => d.kind === "thermistor" || d.kind === "coilSensor" || d.kind === "solenoid" || d.kind === "heater",
    )!;
    expect(finish(healthy(), "benchTest", two.id).says.code).toBe("run.part-good");
    expect(finish(broken(w, `${two.id}/elementOpen`, 1), "benchTest", two.id).says.code).toBe("run.part-bad");
    const fresh = playedRun(predictor, broken(w, `${two.id}/elementOpen`, 1), "newPart", two.id);
    expect(fresh.finding!.says.code).toBe("run.new-part-good");
    // ohms prove nothing on a three-wire electronic sensor (common practice, no source)
    expect(finish(healthy(), "benchTest", sensor.id).says.code).toBe("run.ohms-prove-nothing");
  });
  test("the opposite fault shows that the monitor is awake", () => {
    const run = playedRun(predictor, healthy(), "opposite", sensor.id);
    expect(run.finding!.says.code).toBe("run.monitor-awake");
    expect(run.entries.filter((e) => e.type === "code").every((e) => e.type === "code" && e.ours === true)).toBe(true);
  });
  test("cavities are told apart by voltage", () => {
    const says = finish(healthy(), "whichIsWhich", pins.signal.split(":")[0]!).says;
    expect(says.code).toBe("run.told-apart");
    expect(says.params["cavities"]).toContain(`${pins.ground.split(":")[1]} ground?`);
  });
  test("a run left half way goes on where it stood, and ends when it is left for good", () => {
    const whole = playedRun(
      predictor,
      healthy(),
      "groundProof",
      (w.devices.find((d) => d.kind === "module") as { pins: { role: string; at: string }[] }).pins.find(
        (p) => p.role === "ground",
      )!.at,
    );
    const half = whole.entries.slice(0, 2);
    const resumed = runView(predictor, [
      ...half,
      { type: "look", at: "2026-11-25T07:00:00Z", thing: sensor.id, found: ["nothing"] },
    ])!;
    expect(resumed.taken).toHaveLength(1);
    expect(resumed.next!.id).toBe(runView(predictor, half)!.next!.id);
    expect(
      runView(predictor, [...half, { type: "run", at: AT, run: "groundProof", on: whole.on, event: "left" }]),
    ).toBeUndefined();
    // a step taken back is asked again
    expect(runView(predictor, [...half, { type: "undo", at: AT, target: 2 }])!.taken).toHaveLength(0);
  });
});

describe("restraint and high-voltage circuits", () => {
  const guarded = (() => {
    const w = tug();
    const sensor = w.devices.find((d) => d.kind === "threeWireSensor")!;
    return {
      id: sensor.id,
      plug: deviceConnectors(sensor)[0]!,
      w: { ...w, devices: w.devices.map((d) => (d.id === sensor.id ? { ...d, cautions: ["restraint" as const] } : d)) },
    };
  })();
  test("are no place to begin a run, and a logbook that begins one there all the same gets no step", () => {
    const predictor = new Predictor(guarded.w);
    for (const run of RUNS)
      expect(
        runPlaces(guarded.w, run).filter((p) =>
          p.split(" ").some((x) => x === guarded.id || x.startsWith(`${guarded.plug}:`) || x === guarded.plug),
        ),
      ).toEqual([]);
    for (const [run, on] of [
      ["jumpers", guarded.id],
      ["benchTest", guarded.id],
      ["whichIsWhich", guarded.plug],
      ["halveRun", `${guarded.plug}:1`],
      ["dropBySection", `${guarded.plug}:1`],
      ["loadWire", `${guarded.plug}:1`],
      ["swapTwins", `${guarded.id} B9`],
    ] as const) {
      const view = runView(predictor, [{ type: "run", at: AT, run, on, event: "begun" }])!;
      expect([run, view.next, view.finding?.says.code]).toEqual([run, undefined, "run.guarded"]);
    }
  });
  test("are never touched by a run that passes them", () => {
    const predictor = new Predictor(guarded.w);
    const machine = new SimulatedMachine(guarded.w, [], 2);
    const pin = findNets(guarded.w).modulePinOf(`${guarded.plug}:1`)!;
    for (const [run, on] of [
      ["unplugSeries", pin],
      ["fuseRun", "F12"],
      ["halveRun", pin],
    ] as const) {
      for (const { step, number } of playedRun(predictor, machine, run, on).taken)
        if (number !== undefined)
          expect([...step.points, ...step.state.unplugged].some((x) => x.split(":")[0] === guarded.plug)).toBe(false);
    }
  });
});
