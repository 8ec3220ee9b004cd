import {
  analyse,
  buildChart,
  chartOf,
  generateFaults,
  parseCase,
  predictCodes,
  Predictor,
  readCsv,
  readWiring,
  Rig,
  writeCsv,
  type Entry,
  type Wiring,
} from "../../src/index.js";
import { look, ownOhms, scan, scanned, scope, swapped, volts, wiggled } from "./machine.js";
import { combined, drivers, sensors, speed } from "./machines.js";

// What a colleague would say, and what devices do: common practice, no source, unless a line says otherwise.
const remarks = (machine: typeof sensors, ...entries: readonly Entry[]) =>
  analyse(machine, entries, { quick: true }).remarks.map((r) => r.code);
const readings = (machine: typeof sensors, ...entries: readonly Entry[]) =>
  analyse(machine, entries, { quick: true }).readings;

describe("values of the scan tool", () => {
  test("are weighed by the part's own curve, in any unit of it", () => {
    const kPa = readings(sensors, scan("A1", ["P0106"]), scanned("A1:5", 160, "kPa"))[0]!;
    expect(kPa.value).toBeCloseTo(2.5, 6); // half way between 0.5 V at 20 kPa and 4.5 V at 300 kPa
    expect(readings(sensors, scan("A1", ["P0106"]), scanned("A1:5", 1.6, "bar"))[0]!.value).toBeCloseTo(2.5, 6);
  });
  test("in a unit that does not fit, without a curve, or standing still count for nothing, and it is said", () => {
    for (const [entry, code] of [
      [scanned("A1:5", 20, "°C"), "remark.scan-unit-does-not-fit"],
      [scanned("A1:6", 20, "kPa"), "remark.scan-no-curve"],
      [scanned("A1:5", "frozen"), "remark.scan-frozen"],
    ] as const) {
      expect(remarks(sensors, scan("A1", ["P0106"]), entry)).toContain(code);
      expect(readings(sensors, scan("A1", ["P0106"]), entry)).toEqual([]);
    }
  });
  test("a unit belongs to the scan tool alone, and words to the instrument that shows them", () => {
    const job = (entry: object) =>
      JSON.stringify({ format: "radicula/case", version: 1, title: "x", wiring: sensors.wiring, entries: [entry] });
    const base = { type: "reading", at: "2026-11-24T09:00:00Z", points: ["B1:1"], state: { key: "on" } };
    expect(parseCase(job({ ...base, instrument: "voltmeter", values: [20], unit: "kPa" })).ok).toBe(false);
    expect(parseCase(job({ ...base, instrument: "voltmeter", values: ["plausible"] })).ok).toBe(false);
    expect(parseCase(job({ ...base, instrument: "scanTool", points: ["A1:5"], values: [101], unit: "kPa" })).ok).toBe(
      true,
    );
  });
  test("two parts at one condition stand at one value; a curve must rise or fall all the way", () => {
    const bad = (change: object) => {
      const devices = sensors.wiring.devices.map((d) => (d.id === "B1" ? { ...d, ...change } : d));
      const read = readWiring({ ...sensors.wiring, devices });
      return read.ok ? [] : read.issues.map((i) => i.code);
    };
    const points = (...list: readonly (readonly [number, number])[]) => ({ transfer: { unit: "kPa", points: list } });
    expect(bad(points([0.5, 20], [2, 100], [4.5, 90]))).toEqual(["wiring.transfer-not-monotone"]);
    expect(bad(points([4.5, 20], [0.5, 300]))).toEqual([]);
    expect(bad({ follows: "B3" })).toEqual(["wiring.follows-another-kind"]);
    const at = (point: string, draw: number) =>
      sensors
        .predictAt(0, { instrument: "voltmeter", point, black: undefined, state: { key: "on", unplugged: [] } })
        .at(draw);
    for (let d = 0; d < sensors.draws; d++) expect(Math.abs(at("B1:3", d) - at("B5:3", d))).toBeLessThan(0.1);
  });
});

describe("codes", () => {
  test("low about a Hall is not set by a sound machine, whichever level it rests at; a line held low sets it", () => {
    for (const steel of [0, 1]) {
      const rig = new Rig(speed.wiring, [], undefined, (_thing, range) => range[steel]!);
      expect(predictCodes(rig).map((c) => c.code)).toEqual([]);
    }
    const short = generateFaults(speed.wiring).find((f) => f.id === "W3/shortToChassis")!;
    expect(predictCodes(new Rig(speed.wiring, [{ fault: short, severity: 0.1 }])).map((c) => c.code)).toContain(
      "P0342",
    );
  });
  test("circuit about a heater is its driver's: an open element sets it", () => {
    const open = generateFaults(drivers.wiring).find((f) => f.id === "R1/elementOpen")!;
    expect(predictCodes(new Rig(drivers.wiring, [{ fault: open, severity: NaN }])).map((c) => c.code)).toEqual([
      "P0135",
    ]);
    expect(predictCodes(new Rig(drivers.wiring, []))).toEqual([]);
  });
  test("a code that a sound machine sets, too, is named on the job", () => {
    const codes = [{ id: "P9", module: "A1", monitor: { type: "above" as const, at: "A1:5", volt: 0.1 } }];
    const read = readWiring({ ...sensors.wiring, codes });
    if (!read.ok) throw new Error("unreadable");
    expect(remarks(new Predictor(read.value), scan("A1", ["P9"]))).toContain("remark.code-healthy");
  });
});

describe("readings", () => {
  test("from battery positive to a ground it is said that only an open is ruled out", () => {
    expect(remarks(drivers, scan("A1", ["P0135"]), volts("BAT:+", 12.3, { black: "G1" }))).toContain(
      "remark.plus-to-ground",
    );
  });
  test("ohms on a Hall say nothing, and that is said; ohms of a winding do", () => {
    const hall = ownOhms("B20:3", "B20:2", 800);
    expect(remarks(speed, scan("A1", ["P0340"]), hall)).toContain("remark.ohms-electronics");
    expect(remarks(speed, scan("A1", ["P0335"]), ownOhms("B21:1", "B21:2", 800))).not.toContain(
      "remark.ohms-electronics",
    );
  });
  test("moving a wire also moves the terminals at its ends", () => {
    const share = (thing: string) =>
      analyse(sensors, [
        scan("A1", ["P0107"]),
        { ...scanned("A1:5", 0.6), swing: [0, 1.2] } as Entry,
        wiggled(thing, true),
      ]).suspicion.get("A1:5") ?? 0;
    expect(share("W13")).toBeGreaterThan(1.5 * share("W43"));
  });
  test("a chipped target is what a look at the target can find, not one at the plug", () => {
    const job = [scan("A1", ["P0340"], "afterCrank"), scope("B20:3", 0.02, "cranking")];
    const target = (...more: readonly Entry[]) =>
      analyse(speed, [...job, ...more], { quick: true })
        .suspects.flatMap((s) => s.members)
        .reduce((sum, m) => sum + (m.fault.mode === "targetDamaged" ? m.share : 0), 0);
    expect(target(look("B20", "chipped", "target"))).toBeGreaterThan(2 * target());
    expect(target(look("B20", "chipped", "plug"))).toBeLessThan(1.2 * target());
  });
});

describe("what is offered", () => {
  test("the first test is not the signal of a part without a code", () => {
    const first = analyse(sensors, [scan("A1", ["P0106"])]).next[0]!.candidate;
    expect(["A1:6", "A1:7", "A1:8", "A1:9", "B2:3", "B3:1", "B4:3", "B5:3"]).not.toContain(first.points[0]);
  });
  test("before a sensor is condemned its supply and ground have been read", () => {
    const job: Entry[] = [scan("A1", ["P0107"]), volts("B1:3", 0.01), volts("A1:5", 0.01), volts("B1:1", 5.0)];
    const told = analyse(sensors, [...job, look("B1", "nothing"), swapped("B1", "B5", "moved")]);
    if (told.stage === "proven") expect(told.folded.readings.some((r) => r.entry.points[0] === "B1:2")).toBe(true);
    else expect(told.next[0]!.candidate.points[0]).toBe("B1:2");
  });
});

describe("the drawing", () => {
  test("parts in one housing share a supply or ground cavity, never a signal; a module shares none", () => {
    const shared = (at: string) => {
      const devices = combined.wiring.devices.map((d) =>
        d.id === "B41" && d.kind === "thermistor" ? { ...d, pins: { ...d.pins, signal: at } } : d,
      );
      const read = readWiring({ ...combined.wiring, devices });
      return read.ok ? [] : read.issues.map((i) => i.code);
    };
    expect(shared("B40:4")).toEqual([]);
    expect(shared("B40:3")).toEqual(["wiring.cavity-used-twice"]);
    expect(shared("A1:5")).toEqual(["wiring.cavity-used-twice"]);
  });
  test("shared cavities, casings and curves go through a pin chart and its CSV, and come back", () => {
    const devicesOf = (w: Wiring) => [...w.devices].sort((a, b) => a.id.localeCompare(b.id));
    for (const { wiring } of [sensors, speed, drivers, combined]) {
      const { wiring: back, issues } = buildChart(chartOf(wiring));
      expect(issues).toEqual([]);
      expect(devicesOf(back)).toEqual(devicesOf(wiring));
      const read = readCsv(writeCsv(chartOf(wiring)).text);
      expect(read.ok && devicesOf(buildChart(read.value.chart).wiring)).toEqual(devicesOf(wiring));
    }
  });
  test("a part grounded through its casing loses its ground with the casing's contact", () => {
    const open = generateFaults(combined.wiring).find((f) => f.id === "G5/groundOpen")!;
    expect(predictCodes(new Rig(combined.wiring, [{ fault: open, severity: NaN }])).map((c) => c.code)).toEqual([
      "P0118",
    ]);
  });
  test("an output with a scale of its own does not follow a 24 V supply", () => {
    const v = combined
      .predictAt(0, { instrument: "voltmeter", point: "B43:3", black: undefined, state: { key: "on", unplugged: [] } })
      .at(0);
    expect(v).toBeGreaterThan(0.4);
    expect(v).toBeLessThan(1.1); // 10 to 20 % of 5 V
  });
});
