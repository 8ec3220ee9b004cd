import { issue, type Issue } from "../issues/issue.js";
import type { Timing } from "./edges.js";
import { noiseOf, spanOf } from "./numbers.js";
import { rateOf, timeOf, type Channel } from "./recording.js";

/** Samples that a thing must last to be seen for what it is. */
const TO_BE_SEEN = 3;
/** A period of fewer samples than this may be another signal's shadow (Nyquist 1928 asks for more than two). */
const LEAST_PER_PERIOD = 4;
/** A value that stays the very same for this share of the recording, while the rest moves, is frozen. Judgement. */
const FROZEN = 0.2;
const FROZEN_SAMPLES = 20;
/** So many samples at the very end of the span, and hardly any just short of it, are cut off. Judgement. */
const CLIPPED = 0.02;
const ALMOST = 0.01;
/** Steps wider than this share of what the channel spans are seen as stairs. Judgement. */
const STAIRS = 0.02;
const GAPS = 0.01;

/**
 * What is to be known of a recording before it is believed: `trace.slow`, `trace.too-few-a-period`, `trace.frozen`,
 * `trace.clipped`, `trace.stairs`, `trace.gaps`.
 * @param isSwitching a signal of two levels stands still at both of its ends by itself
 */
export function qualityOf(channel: Channel, timing: Timing | undefined, isSwitching: boolean): Issue[] {
  const { values, name } = channel;
  const { least, most, count } = spanOf(values);
  const issues: Issue[] = [];
  const say = (code: string, params: Issue["params"]) =>
    issues.push(issue(`trace.${code}`, [], { channel: name, ...params }));
  const rate = rateOf(channel);
  if (rate < SLOW) say("slow", { perSecond: rate, milliseconds: (1000 * TO_BE_SEEN) / rate });
  if (timing && timing.hertz * LEAST_PER_PERIOD > rate)
    say("too-few-a-period", { perSecond: rate, hertz: timing.hertz });
  if (values.length - count > GAPS * values.length) say("gaps", { share: (values.length - count) / values.length });
  if (isSwitching || !(most > least)) return issues;
  const still = longestStill(channel);
  if (still.samples >= FROZEN_SAMPLES && still.samples > FROZEN * values.length && noiseOf(values) > 0)
    say("frozen", { from: still.from, seconds: still.seconds, value: still.value });
  const end = clippedEnd(values, least, most, count);
  if (end !== undefined) say("clipped", { value: end });
  const step = stairs(values);
  if (step > STAIRS * (most - least)) say("stairs", { step });
  return issues;
}
/** Below so many samples a second a glitch of a loose contact slips through; faster says itself. Judgement. */
const SLOW = 200;

function longestStill(channel: Channel) {
  const { values } = channel;
  let best = { first: 0, samples: 0 };
  let first = 0;
  for (let i = 1; i <= values.length; i++) {
    if (i < values.length && values[i] === values[first]) continue;
    if (i - first > best.samples && Number.isFinite(values[first]!)) best = { first, samples: i - first };
    first = i;
  }
  const from = timeOf(channel, best.first);
  return {
    samples: best.samples,
    from,
    seconds: timeOf(channel, best.first + best.samples - 1) - from,
    value: values[best.first]!,
  };
}

function clippedEnd(values: Float32Array, least: number, most: number, count: number): number | undefined {
  const near = ALMOST * (most - least);
  for (const [end, side] of [
    [most, -1],
    [least, 1],
  ] as const) {
    let at = 0;
    let beside = 0;
    for (let i = 0; i < values.length; i++) {
      const off = side * (values[i]! - end);
      if (off === 0) at++;
      else if (off > 0 && off <= near) beside++;
    }
    if (at > CLIPPED * count && beside < at / 10) return end;
  }
  return undefined;
}

/** The smallest step between two different neighbours that is not exceeded by more than a few smaller ones. */
function stairs(values: Float32Array): number {
  const steps: number[] = [];
  const every = Math.max(1, Math.floor(values.length / 20_000));
  for (let i = 1; i < values.length; i += every) {
    const d = Math.abs(values[i]! - values[i - 1]!);
    if (d > 0 && d < Infinity) steps.push(d);
  }
  steps.sort((a, b) => a - b);
  return steps.length < 8 ? 0 : steps[Math.floor(steps.length * 0.02)]!;
}
