import { ghostVoltage } from "../../examples/ghostVoltage.js";
import { lampTooBig } from "../../examples/lampTooBig.js";
import { loadedDivider } from "../../examples/loadedDivider.js";
import { referencePulledFlat } from "../../examples/referencePulledFlat.js";
import { sharedGround } from "../../examples/sharedGround.js";

test("voltage on a loaded divider: Thévenin by hand (any circuits textbook)", () => {
  const { meter, unloaded } = loadedDivider();
  const source = (10_000 * 100_000) / 110_000; // what the meter sees behind the divider, ohm
  expect(meter).toBeCloseTo(unloaded / (1 + source / 10e6), 2);
  expect(meter).toBeLessThan(unloaded);
});

test("ghost voltage: 12.4 V behind 3 MΩ reads 12.4 · 10/13 on 10 MΩ (computable), and lights no lamp", () => {
  const g = ghostVoltage();
  expect(g.meter).toBeCloseTo((12.4 * 10) / 13, 1);
  expect(g.remarks).toContain("reading.ghost-voltage");
  expect(g.lamp).toBe("dark");
});

test("a lamp that is too big loads a reference flat; the reading proves nothing (common practice, no source)", () => {
  const { reference, feed } = lampTooBig();
  expect(reference.proves).toBe(false);
  expect(reference.remarks.map((r) => r.code)).toEqual(["lamp.on-electronics", "lamp.too-hungry"]);
  expect(reference.value.volt).toBeLessThan(2);
  expect(feed).toMatchObject({ proves: true, value: { brightness: "bright", pulsing: false } });
  expect(feed.value.ampere).toBeCloseTo(5 / 12, 1);
});

test("a shared ground with 50 Ω: drops by hand from Ohm's law", () => {
  const s = sharedGround();
  expect(s.drop).toBeCloseTo((12.4 * 50) / (50 + 6), 1); // two 12 Ω in parallel above 50 Ω
  expect(s.dropWithOneUnplugged).toBeCloseTo((12.4 * 50) / (50 + 12), 1);
  expect(s.ohms).toBeCloseTo(50, 1);
  expect(s.beeps).toBe(false);
  expect(s.ohmsWithPower.proves).toBe(false);
  expect(s.ohmsWithPower.value).toBeNaN();
});

test("a reference pulled flat: its limit times 2 Ω while plugged, back at 5 V unplugged", () => {
  const r = referencePulledFlat();
  expect(r.plugged).toBeCloseTo(0.15 * 2, 1);
  expect(r.unplugged).toBeCloseTo(5, 1);
  expect(r.signal).toBeLessThan(0.25);
  expect(r.codes.map((c) => [c.code, c.broad, c.follows?.id])).toEqual([
    ["REF", false, undefined],
    ["LOW", true, "B1"],
  ]);
});
