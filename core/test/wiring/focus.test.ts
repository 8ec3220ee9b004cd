import {
  checkWiring,
  focusOn,
  Focus,
  generateFaults,
  generateHarness,
  readVolts,
  Rig,
  type Entry,
} from "../../src/index.js";
import { tug } from "../helpers.js";

/** A machine of eleven modules; its first module with a sensor of its own. */
const large = generateHarness({ nodes: 2000, seed: 4 });
const set = (module: string, code: string): Entry => ({
  type: "code",
  at: "2026-11-29T09:00:00Z",
  module,
  code,
  status: "active",
});
const low = large.codes.find((c) => c.monitor?.type === "below" && c.module === "A3")!;

test("a part of a large machine is a wiring document, with all that shares a conductor with what is named", () => {
  const part = focusOn(large, [low.module]);
  expect(checkWiring(part)).toEqual([]);
  expect(part.devices.length).toBeLessThan(large.devices.length / 2);
  const pins = (w: typeof large) => w.devices.find((d) => d.id === low.module);
  expect(pins(part)).toEqual(pins(large)); // the module that is named keeps every pin
  const kept = new Set(part.devices.map((d) => d.id));
  // every fault on a wire of the module's own connectors is a fault of the part too
  const own = generateFaults(large).filter((f) => f.place.id.startsWith(`${low.module}:`));
  const inPart = new Set(generateFaults(part).map((f) => f.id));
  expect(own.length).toBeGreaterThan(20);
  expect(own.filter((f) => !inPart.has(f.id)).map((f) => f.id)).toEqual([]);
  for (const c of part.codes) expect(kept.has(c.module)).toBe(true);
});

test("volts at the module's pins are those of the whole machine, within what the rest of its load moves them", () => {
  const part = focusOn(large, [low.module]);
  const whole = new Rig(large);
  const own = new Rig(part);
  const module = part.devices.find((d) => d.id === low.module)!;
  const points = module.kind === "module" ? module.pins.map((p) => p.at) : [];
  for (const key of ["on", "running"] as const)
    for (const point of points) {
      const state = { key, unplugged: [] };
      const [a, b] = [whole, own].map((rig) => readVolts(rig, state, point).value);
      expect(Math.abs(a! - b!)).toBeLessThan(0.25);
    }
  expect(points.length).toBeGreaterThan(10);
});

test("the part grows with what the logbook names; a small machine is always whole", () => {
  const focus = new Focus(large);
  const first = focus.predictor([set(low.module, low.id)]);
  const far = large.devices.find((d) => d.kind === "thermistor" && !first.wiring.devices.some((x) => x.id === d.id))!;
  const point = far.kind === "thermistor" ? far.pins.signal : "";
  const reading: Entry = {
    type: "reading",
    at: "2026-11-29T09:01:00Z",
    instrument: "voltmeter",
    points: [point],
    values: [2.5],
    state: { key: "on", unplugged: [] },
  };
  const then = focus.predictor([set(low.module, low.id), reading]);
  expect(then.wiring.devices.some((d) => d.id === far.id)).toBe(true);
  expect(then.placeOf("voltmeter", point)).toBeDefined();
  expect(focus.predictor([set(low.module, low.id)])).toBe(first);
  const small = tug();
  expect(new Focus(small).predictor([]).wiring).toBe(small);
});
