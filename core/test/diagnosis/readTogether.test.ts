import type { ReadingEvidence } from "../../src/diagnosis/evidence.js";
import { logGamma, logStudent, offFromOthers } from "../../src/diagnosis/jointNormal.js";
import { likelihood, voltRange } from "../../src/diagnosis/likelihood.js";
import { logOfAll, type PredictedReading } from "../../src/diagnosis/readTogether.js";
import { random } from "../helpers.js";

const on = { key: "on" as const, unplugged: [] };
const volts = (point: string, value: number): ReadingEvidence => ({
  kind: "reading",
  number: 1,
  point,
  black: undefined,
  value,
  instrument: "voltmeter",
  state: on,
});
const predicted = (reading: ReadingEvidence, values: readonly number[]): PredictedReading => ({
  reading,
  values: Float64Array.from(values),
  steps: [],
});
/** As many draws of an unknown, normal around 0 with deviation 1 (Box & Muller 1958). */
function normals(count: number, seed: number): number[] {
  const u = random(seed);
  return Array.from({ length: count }, () => Math.sqrt(-2 * Math.log(u() || 1e-9)) * Math.cos(2 * Math.PI * u()));
}

/** Source: Γ(5) = 4! and Γ(1/2) = √π (Abramowitz & Stegun 6.1.5 and 6.1.8). */
test("ln gamma", () => {
  expect(logGamma(5)).toBeCloseTo(Math.log(24), 8);
  expect(logGamma(0.5)).toBeCloseTo(0.5 * Math.log(Math.PI), 8);
});

/** Source: the density of Student's t is 1/π at 0 for one degree of freedom (Cauchy), 3/8 for four. */
test("Student's t in one dimension, and the normal that many degrees of freedom come to", () => {
  const at = (off: number, variance: number, freedom: number) =>
    Math.exp(logStudent(Float64Array.of(off), Float64Array.of(variance), freedom));
  expect(at(0, 2, 4)).toBeCloseTo(3 / 8, 9); // four degrees of freedom have variance 2
  expect(at(1.5, 4, 1e7)).toBeCloseTo(Math.exp(-0.5 * (1.5 / 2) ** 2) / (2 * Math.sqrt(2 * Math.PI)), 6);
});

/** Source: a bivariate normal, ln density −½ (x'C⁻¹x + ln |C| + 2 ln 2π). */
test("two values that move together", () => {
  const [a, b, c] = [2, 1.2, 1.5];
  const det = a * c - b * b;
  const [x, y] = [0.7, -0.4];
  const squares = (c * x * x - 2 * b * x * y + a * y * y) / det;
  const normal = -0.5 * (squares + Math.log(det) + 2 * Math.log(2 * Math.PI));
  expect(logStudent(Float64Array.of(x, y), Float64Array.of(a, b, b, c), 1e7)).toBeCloseTo(normal, 5);
});

/** Source: given the other of two normals, x is normal around b/c · y with variance a − b²/c. */
test("how far one value is from what the other makes of it", () => {
  const [a, b, c] = [2, 1.2, 1.5];
  const [x, y] = [0.7, -0.4];
  const [off] = offFromOthers(Float64Array.of(x, y), Float64Array.of(a, b, b, c));
  expect(off).toBeCloseTo(Math.abs(x - (b / c) * y) / Math.sqrt(a - (b * b) / c), 9);
});

test("of many readings a slip is found by what the others make of it, though by itself it is within reach", () => {
  const u = normals(48, 6);
  const values = [1, 1, 1, 1, 1, 1, 1, 1, -1, 1];
  const all = (slipAt: number) =>
    logOfAll(
      values.map((v, i) => predicted(volts(`A1:${i}`, i === slipAt ? v : 1), u)),
      12,
    );
  const rest = logOfAll(
    values.slice(1).map((_, i) => predicted(volts(`A1:${i}`, 1), u)),
    12,
  );
  expect(all(8)).toBeCloseTo(rest + Math.log(0.003 / voltRange(12)), 3);
});

test("a second reading of the same unknown is no second proof, and no second contradiction", () => {
  const u = normals(48, 3);
  const one = (value: number) => [predicted(volts("A1:1", value), u)];
  const two = (value: number, again: number) => [...one(value), predicted(volts("A1:2", again), u)];
  const alone = logOfAll(one(2.5), 12);
  const both = logOfAll(two(2.5, 2.5), 12);
  // what the second adds is the meter's error alone: a normal of twice its variance, 30 mV and a share of the value
  const error = Math.hypot(0.03, 0.012 * 2.5);
  expect(Math.abs(both - alone + Math.log(error * Math.sqrt(4 * Math.PI)))).toBeLessThan(0.5);
  // and two that cannot both be right are worth as much as the likelier one with a slip beside it
  const likelier = Math.max(alone, logOfAll(one(-1), 12));
  expect(logOfAll(two(2.5, -1), 12)).toBeCloseTo(likelier + Math.log(0.003 / voltRange(12)), 6);
});

test("one kind holds a value at nothing, another lets it go anywhere: half of the draws are there, and count", () => {
  const u = normals(48, 5);
  const values = u.map((x, d) => (d % 2 === 0 ? 0 : 20 + 2 * x));
  const log = logOfAll([predicted(volts("A1:1", 0), values)], 24);
  // half of a normal as wide as the meter's error, 30 mV; source: density of a normal at its mean, 1/(σ√2π)
  expect(Math.abs(log - Math.log(0.5 / (0.03 * Math.sqrt(2 * Math.PI))))).toBeLessThan(0.3);
});

test("a value that half of the draws share is a peak, though the others trail off from it without a gap", () => {
  const values = Array.from({ length: 48 }, (_, d) => (d < 24 ? 0 : 0.06 * (d - 23)));
  const log = logOfAll([predicted(volts("A1:1", 0), values)], 12);
  expect(Math.abs(log - Math.log(0.5 / (0.03 * Math.sqrt(2 * Math.PI))))).toBeLessThan(0.4);
});

test("what no draw happened to reach is unlikely, not impossible", () => {
  const u = normals(48, 4).map((x) => 4.2 + 0.15 * x);
  const beyond = 4.2 + 4 * 0.15;
  const own = logOfAll([predicted(volts("X1:4", beyond), u)], 12);
  const slip = Math.log(0.003 / voltRange(12));
  expect(own).toBeGreaterThan(slip + 1);
  expect(logOfAll([predicted(volts("X1:4", 9), u)], 12)).toBeCloseTo(slip, 0);
});

test("draws of two kinds of a device: what lies between the two is none of them", () => {
  const u = normals(48, 5).map((x, i) => (i % 3 === 0 ? 5 : 1) + 0.1 * x);
  const at = (value: number) => logOfAll([predicted(volts("A1:7", value), u)], 12);
  expect(at(1)).toBeGreaterThan(at(3) + 3);
  expect(at(5)).toBeGreaterThan(at(3) + 3);
  expect(at(1) - at(5)).toBeCloseTo(Math.log(2), 0); // two thirds of the draws are of the first kind
});

test("a reading that hangs on nothing unknown is weighed as it always is", () => {
  const reading = volts("A1:1", 5.01);
  const alone = logOfAll([predicted(reading, new Array<number>(48).fill(5))], 12);
  expect(alone).toBeCloseTo(Math.log(likelihood("voltmeter", 5.01, 5, 0, voltRange(12))), 6);
});

test("a severity between two that were tried explains all readings or none", () => {
  const steady = new Array<number>(24).fill(2);
  const step = (move: number): PredictedReading["steps"] => [
    [new Float64Array(8).fill(2 - move / 2), new Float64Array(8).fill(2 + move / 2)],
  ];
  const at = (first: number, second: number) =>
    logOfAll(
      [
        { ...predicted(volts("A1:1", first), steady), steps: step(1) },
        { ...predicted(volts("A1:2", second), steady), steps: step(1) },
      ],
      12,
    );
  expect(at(2.3, 2.3)).toBeGreaterThan(at(2.3, 1.7) + 5);
});
