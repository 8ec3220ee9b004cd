import {
  analyse,
  DEFAULTS,
  deviceConnectors,
  findFault,
  findNets,
  fisherAtLeast,
  generateFaults,
  generateHarness,
  hideFaults,
  parseCase,
  parseWiring,
  playRun,
  Predictor,
  RUNS,
  runOffers,
  runPlaces,
  runView,
  severityOffGrid,
  SimulatedMachine,
  uniform,
  watchPoint,
  weighCandidate,
  wiggleVerdict,
  wireId,
  type FaultAt,
  type RunName,
  type WiggleSample,
  type Wiring,
} from "../src/index.js";
import { demoText, tug, wiring } from "./helpers.js";

const AT = "2026-11-24T09:00:00Z";
const play = (
  predictor: Predictor,
  machine: SimulatedMachine,
  run: Exclude<RunName, "wiggle">,
  on: string,
  skip?: (id: string) => boolean,
) => {
  const { view, entries } = playRun(predictor, machine, run, on, skip);
  return { ...view, entries };
};
const parsed = (file: string): Wiring => {
  const r = parseWiring(demoText(file));
  if (!r.ok) throw new Error(file);
  return r.value;
};
const faultOn = (w: Wiring, id: string) => findFault(generateFaults(w), id)!.fault;
const broken = (w: Wiring, id: string, severity: number, seed = 5) =>
  new SimulatedMachine(w, [{ fault: faultOn(w, id), severity }], seed);

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
          const run = play(
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
    expect([...play(predictor, two, "unplugSeries", pin).finding!.things].sort()).toEqual(["B1", "B3"]);
    const wire = play(predictor, broken(w, "A1:3~S1/shortToChassis", 2), "unplugSeries", pin);
    expect(wire.finding!.says.code).toBe("run.still-down");
    expect(wire.finding!.things).toEqual([]);
  });
  test("a step that cannot be taken is skipped, and the run still ends", () => {
    const w = heavy(103);
    const run = play(new Predictor(w), broken(w, "PB2/shortSupplyGround", 3), "unplugSeries", "A1:3", (id) =>
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
        const run = play(predictor, machine, "fuseRun", fuse.id);
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
    const run = play(
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

describe("other runs, each played to its end on the tug", () => {
  const w = tug();
  const predictor = new Predictor(w);
  const finish = (machine: SimulatedMachine, run: Exclude<RunName, "wiggle">, on: string) =>
    play(predictor, machine, run, on).finding!;
  const healthy = () => new SimulatedMachine(w, [], 11);
  const sensor = w.devices.find(
    (d) => d.kind === "threeWireSensor" && findNets(w).functionOf(d.pins.supply) === "reference",
  )!;
  const pins = (sensor as { pins: { supply: string; ground: string; signal: string } }).pins;

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
    const run = play(predictor, healthy(), "jumpers", sensor.id);
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
        play(predictor, healthy(), "jumpers", d.id).taken.some((t) =>
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
    const run = play(predictor, healthy(), "loadWire", pins.signal);
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
    const run = play(predictor, new SimulatedMachine(w, [{ fault: short, severity: 0.5 }], 3), "loadWire", pins.signal);
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
      play(p, new SimulatedMachine(boat, [{ fault: dead, severity: severityOffGrid(dead, 0.5) }], 3), "swapTwins", on)
        .finding!.says.code,
    ).toBe("run.went-with-part");
    expect(play(p, new SimulatedMachine(boat, [], 3), "swapTwins", on).finding!.says.code).toBe(
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
    const fresh = play(predictor, broken(w, `${two.id}/elementOpen`, 1), "newPart", two.id);
    expect(fresh.finding!.says.code).toBe("run.new-part-good");
    // ohms prove nothing on a three-wire electronic sensor (common practice, no source)
    expect(finish(healthy(), "benchTest", sensor.id).says.code).toBe("run.ohms-prove-nothing");
  });
  test("the opposite fault shows that the monitor is awake", () => {
    const run = play(predictor, healthy(), "opposite", sensor.id);
    expect(run.finding!.says.code).toBe("run.monitor-awake");
    expect(run.entries.filter((e) => e.type === "code").every((e) => e.type === "code" && e.ours === true)).toBe(true);
  });
  test("cavities are told apart by voltage", () => {
    const says = finish(healthy(), "whichIsWhich", pins.signal.split(":")[0]!).says;
    expect(says.code).toBe("run.told-apart");
    expect(says.params["cavities"]).toContain(`${pins.ground.split(":")[1]} ground?`);
  });
  test("a run left half way goes on where it stood, and ends when it is left for good", () => {
    const whole = play(
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
      for (const { step, number } of play(predictor, machine, run, on).taken)
        if (number !== undefined)
          expect([...step.points, ...step.state.unplugged].some((x) => x.split(":")[0] === guarded.plug)).toBe(false);
    }
  });
});

describe("what is offered", () => {
  const load = (file: string) => {
    const c = parseCase(demoText(file));
    if (!c.ok) throw new Error(file);
    return c.value;
  };
  test(
    "runs that tell the suspects apart, the most for their minutes first; none before a code or after the " + "proof",
    () => {
      const { wiring: w, entries } = load("tug-4-reference.case.json");
      const predictor = new Predictor(w);
      const a = analyse(predictor, entries);
      const offers = runOffers(predictor, a);
      expect(offers.map((o) => o.run)).toContain("unplugSeries");
      for (const o of offers) {
        expect(runPlaces(w, o.run)).toContain(o.on);
        expect(o.shareOfOpen).toBeGreaterThan(0);
        expect(o.shareOfOpen).toBeLessThanOrEqual(1);
        expect(o.minutes).toBeGreaterThan(0);
      }
      for (let i = 1; i < offers.length; i++)
        expect(offers[i]!.bits / offers[i]!.minutes).toBeLessThanOrEqual(offers[i - 1]!.bits / offers[i - 1]!.minutes);
      expect(runOffers(predictor, analyse(predictor, []))).toEqual([]);
      expect(runOffers(predictor, { ...a, stage: "proven" })).toEqual([]);
    },
  );
  test("the value to watch is one that the leading suspect moves", () => {
    const { wiring: w, entries } = load("whimbrel-connector.case.json");
    const predictor = new Predictor(w);
    const watched = watchPoint(predictor, analyse(predictor, entries))!;
    const shown = (faults: FaultAt[]) =>
      new SimulatedMachine(w, faults, 64).read(watched.point, { key: "on", unplugged: [] }, watched.instrument);
    expect(Math.abs(shown([]) - shown([{ fault: faultOn(w, "X30:1/contactOpen"), severity: NaN }]))).toBeGreaterThan(
      0.3,
    );
    expect(watchPoint(predictor, analyse(predictor, []))).toBeUndefined();
  });
  test("a step outside the plan is weighed as one of the plan would be", () => {
    const { wiring: w, entries } = load("tug-4-reference.case.json");
    const predictor = new Predictor(w);
    const first = analyse(predictor, entries).next[0]!;
    const same = weighCandidate(predictor, entries, first.candidate)!;
    expect(same.bits).toBeCloseTo(first.bits, 9);
    const rounded = (x: unknown) =>
      // sums taken in another order
      JSON.stringify(x, (_, v: unknown) => (typeof v === "number" ? v.toPrecision(9) : v));
    expect(rounded(same.answers)).toBe(rounded(first.answers));
    const step = runView(predictor, [
      ...entries,
      { type: "run", at: AT, run: "fuseRun", on: "F12", event: "begun" },
    ])!.next!;
    expect(weighCandidate(predictor, entries, step)!.answers[0]!.reduce((sum, x) => sum + x.share, 0)).toBeCloseTo(
      1,
      1,
    );
    // a new part says nothing of the machine
    expect(weighCandidate(predictor, entries, { ...step, part: "new" })).toBeUndefined();
  });
});

describe("faults hidden for practice", () => {
  test("each sets a code by itself, at places of its own, the same for the same seed", () => {
    const w = tug();
    for (const [count, seed] of [
      [1, 1],
      [2, 7],
      [3, 11],
    ] as const) {
      const hidden = hideFaults(w, count, seed)!;
      expect(new Set(hidden.map((f) => f.fault.place.id)).size).toBe(count);
      for (const f of hidden) expect(new SimulatedMachine(w, [f], seed).codes().length).toBeGreaterThan(0);
      expect(hideFaults(w, count, seed)!.map((f) => [f.fault.id, f.severity])).toEqual(
        hidden.map((f) => [f.fault.id, f.severity]),
      );
    }
  });
  test("where no code can set there is nothing to hide", () =>
    expect(hideFaults({ ...tug(), codes: [] }, 1, 1)).toBeUndefined());
});

describe("wiggle", () => {
  const NOISE = 0.012;
  function session(seed: number, places: number, guilty: number | undefined): WiggleSample[] {
    const u = uniform(seed);
    const list: WiggleSample[] = [];
    const gauss = () => Math.sqrt(-2 * Math.log(1 - u())) * Math.cos(2 * Math.PI * u());
    const value = (jumps: boolean) =>
      2.5 + 0.02 * Math.sin(list.length / 25) + NOISE * gauss() + (jumps ? -(0.3 + 2 * u()) : u() < 0.004 ? -0.8 : 0);
    for (let p = 0; p < places; p++) {
      for (let i = 0; i < 10; i++) list.push({ place: "", value: value(false) });
      for (let i = 0; i < 20; i++) list.push({ place: `X${p}`, value: value(p === guilty && u() < 0.35) });
    }
    return list;
  }
  test("names the place that reacts in at least 90 % of sessions, and another one in at most 5 %", () => {
    let found = 0;
    let false1 = 0;
    let falseQuiet = 0;
    const N = 300;
    for (let seed = 1; seed <= N; seed++) {
      const places = 3 + (seed % 5);
      const guilty = seed % places;
      const verdicts = wiggleVerdict(session(seed, places, guilty));
      if (verdicts[guilty]!.reacted) found++;
      if (verdicts.some((v, i) => v.reacted && i !== guilty)) false1++;
      if (wiggleVerdict(session(5000 + seed, places, undefined)).some((v) => v.reacted)) falseQuiet++;
    }
    expect(found / N).toBeGreaterThanOrEqual(0.9);
    expect(false1 / N).toBeLessThanOrEqual(0.05);
    expect(falseQuiet / N).toBeLessThanOrEqual(0.05);
  });
  test("the chance of luck is Fisher's: the lady tasting tea", () => {
    // R. A. Fisher, The Design of Experiments, 1935: all four of four, 1 in 70; at least three of four, 17 in 70
    // (values from memory; also counted out)
    expect(fisherAtLeast(4, 4, 4, 8)).toBeCloseTo(1 / 70, 12);
    expect(fisherAtLeast(3, 4, 4, 8)).toBeCloseTo(17 / 70, 12);
  });
  test("a slow drift is no reaction", () => {
    const drift = Array.from({ length: 90 }, (_, i): WiggleSample => ({
      place: i % 30 < 10 ? "" : `X${Math.floor(i / 30)}`,
      value: 2 + i * 0.002,
    }));
    expect(wiggleVerdict(drift).some((v) => v.reacted)).toBe(false);
  });
});

test("defaults know how long every step of a run takes", () => {
  for (const kind of ["drop", "jumper", "lamp", "breaker", "bench", "codeSets"] as const)
    expect(DEFAULTS.plan.minutes.take[kind]).toBeGreaterThan(0);
});
